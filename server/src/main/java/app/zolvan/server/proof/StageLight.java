package app.zolvan.server.proof;

import app.zolvan.server.problem.Problem;
import jakarta.validation.constraints.NotNull;
import java.util.stream.DoubleStream;

/**
 * How the stage is lit, and what it stands before.
 *
 * @param surroundings   the name of a supplied picture
 * @param turn           of the surroundings, in degrees
 * @param stops          of exposure; the backdrop keeps its tone
 * @param backdropTop    the grey of the backdrop at the upper edge, scene-linear before exposure
 * @param backdropBottom the same at the lower edge
 */
record StageLight(
        @NotNull String surroundings,
        double strength,
        double turn,
        double stops,
        double backdropTop,
        double backdropBottom) {
    private static final double BRIGHTEST = 100;
    private static final double MOST_TURN = 360;
    private static final double MOST_STOPS = 12;

    /** @throws Problem where it is out of range */
    void require() {
        boolean within = DoubleStream.of(strength, backdropTop, backdropBottom).allMatch(v -> v >= 0 && v <= BRIGHTEST)
                && Math.abs(turn) <= MOST_TURN
                && Math.abs(stops) <= MOST_STOPS;
        if (!within) {
            throw Problem.ofField("light", "That light is out of range: strength 0 to 100, 12 stops either way.");
        }
    }
}
