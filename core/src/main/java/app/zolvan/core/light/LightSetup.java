package app.zolvan.core.light;

import java.util.Optional;

/**
 * Light of a project's model, in relative units: surroundings of strength 1 are as their picture was normalised.
 *
 * @param surroundings name of a supplied picture
 * @param strength     factor on the surroundings, in [0, 100]
 * @param turn         of the surroundings about the vertical, in degrees, in [-360, 360]
 * @param stops        of exposure, in [-12, 12]; the backdrop keeps its tone
 */
public record LightSetup(String surroundings, double strength, double turn, double stops) {
    /** Version of the units in which set-ups are stored. */
    public static final int RELATIVE = 1;

    /** Set-up of a new project. */
    public static final LightSetup FIRST = new LightSetup("studio", 1, 0, 0);

    private static final double BRIGHTEST = 100;
    private static final double MOST_TURN = 360;
    private static final double MOST_STOPS = 12;

    /** A sentence where a number is out of range; empty where all are in it. */
    public Optional<String> fault() {
        boolean within =
                strength >= 0 && strength <= BRIGHTEST && Math.abs(turn) <= MOST_TURN && Math.abs(stops) <= MOST_STOPS;
        return within
                ? Optional.empty()
                : Optional.of("That light is out of range: strength 0 to 100, a turn of 360°, 12 stops either way.");
    }
}
