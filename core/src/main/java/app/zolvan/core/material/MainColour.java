package app.zolvan.core.material;

/** Which parameter a designer means by "the colour" of a surface. */
public final class MainColour {
    private MainColour() {}

    /** What passes through for a clear body, the glow for a lamp that reflects nothing, else the base. */
    public static Parameter of(Surface s) {
        if (s.number(Parameter.TRANSMISSION_WEIGHT) >= 0.5) {
            return Parameter.TRANSMISSION_COLOR;
        }
        boolean dark = s.colour(Parameter.BASE_COLOR).luminance() == 0;
        return dark && s.number(Parameter.EMISSION_LUMINANCE) > 0 ? Parameter.EMISSION_COLOR : Parameter.BASE_COLOR;
    }
}
