package app.zolvan.core.colour;

/**
 * A scene-linear colour with Rec. 709/sRGB primaries and D65 white; 1 is a perfect white diffuser. Reflectances lie in
 * [0, 1]; emissions may exceed 1.
 */
public record LinearRgb(double r, double g, double b) {
    public static final LinearRgb WHITE = new LinearRgb(1, 1, 1);
    public static final LinearRgb BLACK = new LinearRgb(0, 0, 0);

    private static final double STRAY = 0.05;

    public static LinearRgb grey(double value) {
        return new LinearRgb(value, value, value);
    }

    public static LinearRgb of(double[] rgb) {
        return new LinearRgb(rgb[0], rgb[1], rgb[2]);
    }

    public double[] toArray() {
        return new double[] {r, g, b};
    }

    /** Relative luminance Y in [0, 1] for reflectances (ITU-R BT.709 weights). */
    public double luminance() {
        return 0.2126 * r + 0.7152 * g + 0.0722 * b;
    }

    /** Light reflectance value, 100·Y under D65, in [0, 100] for reflectances (BS 8493). */
    public double lightReflectanceValue() {
        return 100 * luminance();
    }

    /**
     * How far the lighter of two colours outshines the darker, from 1 (as light as each other) to 21 (white and black): the
     * contrast ratio of WCAG 2.2, which allows for some light that every surface throws back.
     */
    public double contrastRatio(LinearRgb o) {
        double lighter = Math.max(luminance(), o.luminance());
        double darker = Math.min(luminance(), o.luminance());
        return (lighter + STRAY) / (darker + STRAY);
    }

    public boolean isInUnitCube() {
        return in(r) && in(g) && in(b);
    }

    private static boolean in(double v) {
        return v >= -1e-7 && v <= 1 + 1e-7;
    }

    /** Each component limited to [0, 1]. */
    public LinearRgb clamped() {
        return new LinearRgb(clamp(r), clamp(g), clamp(b));
    }

    private static double clamp(double v) {
        return Math.max(0, Math.min(1, v));
    }

    public LinearRgb times(LinearRgb o) {
        return new LinearRgb(r * o.r, g * o.g, b * o.b);
    }

    public LinearRgb plus(LinearRgb o) {
        return new LinearRgb(r + o.r, g + o.g, b + o.b);
    }

    public LinearRgb times(double s) {
        return new LinearRgb(r * s, g * s, b * s);
    }

    /** From this colour (t = 0) to {@code o} (t = 1), mixed in linear light. */
    public LinearRgb mix(LinearRgb o, double t) {
        return new LinearRgb(r + (o.r - r) * t, g + (o.g - g) * t, b + (o.b - b) * t);
    }
}
