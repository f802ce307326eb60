package app.zolvan.core.colour;

/**
 * Tones that people ask for in words. Greys keep the undertone a colour has, as far as it is one; the others have their own.
 */
public enum TargetTone {
    BLACK("Soft black", 18),
    CHARCOAL("Charcoal", 30),
    DARK_GREY("Dark grey", 42),
    MID_GREY("Mid grey", 58),
    LIGHT_GREY("Light grey", 80),
    OFF_WHITE("Off-white", 94),
    IVORY("Ivory", 93, 8, 92),
    BEIGE("Beige", 80, 10, 82),
    TAUPE("Taupe", 55, 8, 68),
    BROWN("Dark brown", 27, 12, 62);

    /** As much colour as still passes for a grey. */
    private static final double GREY = 3;

    private final String label;
    private final double lightness;
    private final double chroma;
    private final double hue;

    TargetTone(String label, double lightness) {
        this(label, lightness, -1, 0);
    }

    TargetTone(String label, double lightness, double chroma, double hue) {
        this.label = label;
        this.lightness = lightness;
        this.chroma = chroma;
        this.hue = hue;
    }

    public String label() {
        return label;
    }

    /** CIELAB L*. */
    public double lightness() {
        return lightness;
    }

    /** The tone, from a colour that it replaces. */
    public LinearRgb from(LinearRgb colour) {
        if (chroma >= 0) {
            return CieLab.ofLch(lightness, chroma, hue).toSrgbGamut();
        }
        CieLab c = CieLab.of(colour);
        return CieLab.ofLch(lightness, Math.min(GREY, c.chroma()), c.hue()).toSrgbGamut();
    }
}
