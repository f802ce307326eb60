package app.zolvan.core.texture;

import app.zolvan.core.material.ParameterException;

/** Reliefs that a designer lays over a surface without any picture: a pattern, how large its details are, and how deep. */
public enum DrawnRelief {
    FINE_NOISE("noise", "Fine noise"),
    SOFT_NOISE("clouds", "Soft noise"),
    TURBULENCE("turbulence", "Turbulence"),
    WAVES("waves", "Waves"),
    RIPPLES("ripples", "Ripples"),
    RIBS("ribs", "Ribs"),
    HAMMERED("hammered", "Hammered"),
    ORANGE_PEEL("orange-peel", "Orange peel"),
    PEBBLED("pebbled", "Pebbled"),
    BRUSHED("brushed", "Brushed"),
    KNURLED("knurled", "Knurled"),
    LEATHER("leather", "Leather grain"),
    TROWELLED("trowelled", "Trowelled"),
    BUBBLES("bubbles", "Bubbles"),
    WEAVE("weave", "Weave");

    /** Widths of a detail, in metres. */
    private static final double FINEST = 0.0001;

    private static final double COARSEST = 0.5;

    /** Details side by side in one repeat. */
    private static final int ABREAST = 12;

    private static final int PIXELS = 512;

    private final String pattern;
    private final String label;

    DrawnRelief(String pattern, String label) {
        this.pattern = pattern;
        this.label = label;
    }

    public String label() {
        return label;
    }

    /** Width and height of one repeat, in metres. */
    public static double repeat(double detail) {
        return ABREAST * detail;
    }

    /** PNGs of one repeat: its normals, and its heights in grey. */
    public record Pictures(byte[] normals, byte[] heights) {}

    /**
     * Draws it.
     *
     * @param detail width of one detail in metres
     * @param depth  from its lowest to its highest place, in metres; at most as much as a detail is wide
     * @param seed   another one gives another piece of the same
     * @throws ParameterException where width or depth can't be
     */
    public Pictures drawn(double detail, double depth, int seed) {
        if (!(detail >= FINEST && detail <= COARSEST)) {
            throw new ParameterException("detail", "Details are 0.1 mm to 500 mm wide.");
        }
        if (!(depth >= 0 && depth <= detail)) {
            throw new ParameterException("depth", "A relief is at most as deep as its details are wide.");
        }
        double side = repeat(detail);
        PatternImages drawn = new PatternImages(Patterns.of(new Recipe(pattern, side, side, seed, ABREAST)), PIXELS);
        return new Pictures(drawn.normals(depth, side, side), drawn.heights());
    }
}
