package app.zolvan.core.colour;

/** Small moves from a colour, in CIELAB under D65: each about what one notices at a glance. */
public enum ColourStep {
    LIGHTER("Lighter"),
    DARKER("Darker"),
    /** Nearer to grey. */
    CALMER("Calmer"),
    STRONGER("Stronger"),
    WARMER("Warmer"),
    COOLER("Cooler");

    private static final double LIGHTNESS = 4;
    private static final double CHROMA = 1.25;
    private static final double LEAST_CHROMA = 0.5;
    private static final double WARMTH = 1.5;

    private final String label;

    ColourStep(String label) {
        this.label = label;
    }

    public String label() {
        return label;
    }

    /** The colour after one step; the undertone stays where lightness moves, lightness where chroma moves. */
    public LinearRgb from(LinearRgb colour) {
        CieLab c = CieLab.of(colour);
        return switch (this) {
            case LIGHTER -> lit(c, Math.min(100, c.l() + LIGHTNESS));
            case DARKER -> lit(c, Math.max(0, c.l() - LIGHTNESS));
            case CALMER -> coloured(c, Math.max(0, Math.min(c.chroma() / CHROMA, c.chroma() - LEAST_CHROMA)));
            case STRONGER -> coloured(c, Math.max(c.chroma() * CHROMA, c.chroma() + LEAST_CHROMA));
            case WARMER -> new CieLab(c.l(), c.a() + WARMTH / 3, c.b() + WARMTH).toSrgbGamut();
            case COOLER -> new CieLab(c.l(), c.a() - WARMTH / 3, c.b() - WARMTH).toSrgbGamut();
        };
    }

    private static LinearRgb lit(CieLab c, double l) {
        return new CieLab(l, c.a(), c.b()).toSrgbGamut();
    }

    private static LinearRgb coloured(CieLab c, double chroma) {
        if (c.chroma() < Undertone.NONE / 2) {
            return c.toSrgbGamut(); // a grey leans nowhere
        }
        return CieLab.ofLch(c.l(), chroma, c.hue()).toSrgbGamut();
    }
}
