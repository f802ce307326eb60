package app.zolvan.core.colour;

/**
 * An sRGB colour by its hue and two more numbers, as HSV or as HSL count them (Smith 1978; Joblove & Greenberg 1978), over
 * the encoded components.
 *
 * @param hue        in degrees, in [0, 360); 0 for greys
 * @param saturation in [0, 1]
 * @param level      value in HSV, lightness in HSL, in [0, 1]
 */
public record HueColour(double hue, double saturation, double level) {

    public static HueColour hsv(LinearRgb colour) {
        double[] c = encoded(colour);
        double high = Math.max(c[0], Math.max(c[1], c[2]));
        double span = high - Math.min(c[0], Math.min(c[1], c[2]));
        return new HueColour(hue(c, high, span), high > 0 ? span / high : 0, high);
    }

    public static HueColour hsl(LinearRgb colour) {
        double[] c = encoded(colour);
        double high = Math.max(c[0], Math.max(c[1], c[2]));
        double low = Math.min(c[0], Math.min(c[1], c[2]));
        double span = high - low;
        double room = 1 - Math.abs(high + low - 1);
        return new HueColour(hue(c, high, span), span > 0 ? span / room : 0, (high + low) / 2);
    }

    /** The colour that these numbers mean in HSV. */
    public LinearRgb fromHsv() {
        return built(saturation * level, level);
    }

    /** The colour that these numbers mean in HSL. */
    public LinearRgb fromHsl() {
        double span = saturation * (1 - Math.abs(2 * level - 1));
        return built(span, level + span / 2);
    }

    private LinearRgb built(double span, double high) {
        return new LinearRgb(component(5, span, high), component(3, span, high), component(1, span, high));
    }

    private double component(double sector, double span, double high) {
        double k = (sector + hue / 60) % 6;
        return Srgb.decode(high - span * Math.max(0, Math.min(Math.min(k, 4 - k), 1)));
    }

    private static double[] encoded(LinearRgb colour) {
        LinearRgb c = colour.clamped();
        return new double[] {Srgb.encode(c.r()), Srgb.encode(c.g()), Srgb.encode(c.b())};
    }

    private static double hue(double[] c, double high, double span) {
        if (span == 0) {
            return 0;
        }
        double sector = high == c[0]
                ? (c[1] - c[2]) / span
                : high == c[1] ? 2 + (c[2] - c[0]) / span : 4 + (c[0] - c[1]) / span;
        return (60 * sector + 360) % 360;
    }
}
