package app.zolvan.core.colour;

/**
 * How a picture's colours are changed on their way to a surface, while the picture itself stays: in this order its
 * saturation, its contrast about its mean, its brightness, a tint that makes it shades of one colour, and a fade towards a
 * plain one. All of it happens in linear light, where each step is affine; together they are one {@link #matrix}, which
 * stage, tracer and exported pictures apply alike. Results are limited to [0, 1].
 *
 * @param mean       of the picture's linear colours
 * @param saturation 0 for grey of the same luminance, 1 as it is, at most 2
 * @param contrast   0 for the plain mean, 1 as it is, at most 2
 * @param brightness 1 as it is, at most 4
 * @param tint       what the picture's mean becomes where it is fully tinted
 * @param tinted     0 … 1
 * @param fade       the colour that it fades towards
 * @param faded      0 … 1
 */
public record Tone(
        LinearRgb mean,
        double saturation,
        double contrast,
        double brightness,
        LinearRgb tint,
        double tinted,
        LinearRgb fade,
        double faded) {

    private static final double[] LUMINANCE = {0.2126, 0.7152, 0.0722};
    private static final double LEAST = 1e-4;

    /** What leaves a picture as it is. */
    public static Tone plain(LinearRgb mean) {
        return new Tone(mean, 1, 1, 1, mean, 0, LinearRgb.WHITE, 0);
    }

    /** Makes it shades of one colour, and does not fade it; all else stays. */
    public Tone stained(LinearRgb colour) {
        return new Tone(mean, saturation, contrast, brightness, colour, 1, fade, 0);
    }

    public boolean isPlain() {
        return saturation == 1 && contrast == 1 && brightness == 1 && tinted == 0 && faded == 0;
    }

    /** Three rows of four: what red, green, blue and 1 contribute to each component. */
    public double[] matrix() {
        double[] m = {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0};
        double[] middle = mean.toArray();
        double[] colour = tint.toArray();
        double[] end = fade.toArray();
        double whole = Math.max(LEAST, mean.luminance() * brightness);
        for (int row = 0; row < 3; row++) {
            for (int i = 0; i < 3; i++) {
                double coloured = saturation * (i == row ? 1 : 0) + (1 - saturation) * LUMINANCE[i];
                m[4 * row + i] = brightness * contrast * coloured;
            }
            double kept = saturation * middle[row] + (1 - saturation) * mean.luminance();
            m[4 * row + 3] = brightness * (1 - contrast) * kept;
        }
        double[] grey = new double[4]; // the luminance of what came out so far
        for (int i = 0; i < 4; i++) {
            for (int row = 0; row < 3; row++) {
                grey[i] += LUMINANCE[row] * m[4 * row + i];
            }
        }
        for (int row = 0; row < 3; row++) {
            for (int i = 0; i < 4; i++) {
                double shade = colour[row] * grey[i] / whole;
                double toned = m[4 * row + i] + tinted * (shade - m[4 * row + i]);
                m[4 * row + i] = (1 - faded) * toned + (i == 3 ? faded * end[row] : 0);
            }
        }
        return m;
    }

    /** The colour that one of the picture's becomes, not limited. */
    public LinearRgb of(LinearRgb c) {
        double[] m = matrix();
        return new LinearRgb(row(m, 0, c), row(m, 4, c), row(m, 8, c));
    }

    private static double row(double[] m, int at, LinearRgb c) {
        return m[at] * c.r() + m[at + 1] * c.g() + m[at + 2] * c.b() + m[at + 3];
    }
}
