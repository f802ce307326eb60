package app.zolvan.core.colour;

/**
 * A colour in the cylindrical form of OKLab (Ottosson 2020, "A perceptual color space for image processing"): steps of
 * equal size look about equally large.
 *
 * @param lightness 0 (black) … 1 (white)
 * @param chroma    0 (neutral) … about 0.32 at the edge of sRGB
 * @param hue       angle in degrees, in [0, 360); 0 for neutrals
 */
public record OkLch(double lightness, double chroma, double hue) {
    private static final double NEUTRAL = 1e-6;

    public static OkLch of(LinearRgb c) {
        double l = Math.cbrt(0.4122214708 * c.r() + 0.5363325363 * c.g() + 0.0514459929 * c.b());
        double m = Math.cbrt(0.2119034982 * c.r() + 0.6806995451 * c.g() + 0.1073969566 * c.b());
        double s = Math.cbrt(0.0883024619 * c.r() + 0.2817188376 * c.g() + 0.6299787005 * c.b());
        double lightness = 0.2104542553 * l + 0.7936177850 * m - 0.0040720468 * s;
        double a = 1.9779984951 * l - 2.4285922050 * m + 0.4505937099 * s;
        double b = 0.0259040371 * l + 0.7827717662 * m - 0.8086757660 * s;
        double chroma = Math.hypot(a, b);
        if (chroma < NEUTRAL) {
            return new OkLch(lightness, 0, 0);
        }
        double hue = Math.toDegrees(Math.atan2(b, a));
        return new OkLch(lightness, chroma, hue < 0 ? hue + 360 : hue);
    }

    /** OKLab's a axis, from green to red. */
    public double a() {
        return chroma * Math.cos(Math.toRadians(hue));
    }

    /** OKLab's b axis, from blue to yellow. */
    public double b() {
        return chroma * Math.sin(Math.toRadians(hue));
    }

    /** The colour at a place of OKLab. */
    public static OkLch ofLab(double lightness, double a, double b) {
        double hue = Math.toDegrees(Math.atan2(b, a));
        return new OkLch(lightness, Math.hypot(a, b), hue < 0 ? hue + 360 : hue);
    }

    /** The linear colour; components leave [0, 1] where the colour lies outside sRGB. */
    public LinearRgb toLinear() {
        double a = chroma * Math.cos(Math.toRadians(hue));
        double b = chroma * Math.sin(Math.toRadians(hue));
        double l = cube(lightness + 0.3963377774 * a + 0.2158037573 * b);
        double m = cube(lightness - 0.1055613458 * a - 0.0638541728 * b);
        double s = cube(lightness - 0.0894841775 * a - 1.2914855480 * b);
        return new LinearRgb(
                4.0767416621 * l - 3.3077115913 * m + 0.2309699292 * s,
                -1.2684380046 * l + 2.6097574011 * m - 0.3413193965 * s,
                -0.0041960863 * l - 0.7034186147 * m + 1.7076147010 * s);
    }

    /** The strongest chroma that sRGB can show at this lightness and hue, within 1e-6. */
    public double chromaLimit() {
        double lo = 0;
        double hi = 0.5;
        for (int i = 0; i < 20; i++) {
            double mid = (lo + hi) / 2;
            if (new OkLch(lightness, mid, hue).toLinear().isInUnitCube()) {
                lo = mid;
            } else {
                hi = mid;
            }
        }
        return lo;
    }

    /** The {@link #chromaLimit} at one lightness in so many directions of hue, from 0° on in equal steps. */
    public static double[] chromaLimits(double lightness, int directions) {
        double[] limits = new double[directions];
        for (int i = 0; i < directions; i++) {
            limits[i] = new OkLch(lightness, 0, 360.0 * i / directions).chromaLimit();
        }
        return limits;
    }

    /** The nearest colour of the same lightness and hue that sRGB can show. */
    public LinearRgb toSrgbGamut() {
        LinearRgb exact = toLinear();
        if (exact.isInUnitCube()) {
            return exact.clamped();
        }
        return new OkLch(lightness, Math.min(chroma, chromaLimit()), hue)
                .toLinear()
                .clamped();
    }

    private static double cube(double v) {
        return v * v * v;
    }
}
