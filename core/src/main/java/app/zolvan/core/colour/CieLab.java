package app.zolvan.core.colour;

/**
 * CIE 1976 L*a*b* against D65, and the difference of two colours by CIEDE2000.
 *
 * @param l lightness, 0 … 100
 */
public record CieLab(double l, double a, double b) {
    private static final double EPSILON = 216.0 / 24389;
    private static final double KAPPA = 24389.0 / 27;
    private static final double TWENTY_FIVE_7 = Math.pow(25, 7);

    public static CieLab of(LinearRgb c) {
        double fx = f((0.4124564 * c.r() + 0.3575761 * c.g() + 0.1804375 * c.b()) / 0.95047);
        double fy = f(0.2126729 * c.r() + 0.7151522 * c.g() + 0.0721750 * c.b());
        double fz = f((0.0193339 * c.r() + 0.1191920 * c.g() + 0.9503041 * c.b()) / 1.08883);
        return new CieLab(116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz));
    }

    private static double f(double t) {
        return t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116;
    }

    /** The linear colour; components leave [0, 1] where the colour lies outside sRGB. */
    public LinearRgb toLinear() {
        double fy = (l + 16) / 116;
        double x = 0.95047 * inverse(fy + a / 500);
        double y = inverse(fy);
        double z = 1.08883 * inverse(fy - b / 200);
        return new LinearRgb(
                3.2404542 * x - 1.5371385 * y - 0.4985314 * z,
                -0.9692660 * x + 1.8760108 * y + 0.0415560 * z,
                0.0556434 * x - 0.2040259 * y + 1.0572252 * z);
    }

    private static double inverse(double f) {
        double cube = f * f * f;
        return cube > EPSILON ? cube : (116 * f - 16) / KAPPA;
    }

    /** By chroma and hue, in degrees. */
    public static CieLab ofLch(double l, double chroma, double hue) {
        double h = Math.toRadians(hue);
        return new CieLab(l, chroma * Math.cos(h), chroma * Math.sin(h));
    }

    /** C*, the distance from grey. */
    public double chroma() {
        return Math.hypot(a, b);
    }

    /** In degrees, in [0, 360); 0 for greys. */
    public double hue() {
        return hue(a, b);
    }

    /** The nearest colour of the same lightness and hue that sRGB can show; black and white beyond the ends. */
    public LinearRgb toSrgbGamut() {
        LinearRgb exact = toLinear();
        if (exact.isInUnitCube()) {
            return exact.clamped();
        }
        double shown = 0;
        double hidden = 1;
        for (int i = 0; i < 24; i++) {
            double share = (shown + hidden) / 2;
            if (new CieLab(l, share * a, share * b).toLinear().isInUnitCube()) {
                shown = share;
            } else {
                hidden = share;
            }
        }
        return new CieLab(l, shown * a, shown * b).toLinear().clamped();
    }

    /** ΔE2000 with all weights 1 (Sharma, Wu & Dalal 2005, equations 2 to 22). */
    public double difference(CieLab o) {
        double mean7 = Math.pow((Math.hypot(a, b) + Math.hypot(o.a, o.b)) / 2, 7);
        double g = 0.5 * (1 - Math.sqrt(mean7 / (mean7 + TWENTY_FIVE_7)));
        double a1 = (1 + g) * a;
        double a2 = (1 + g) * o.a;
        double c1 = Math.hypot(a1, b);
        double c2 = Math.hypot(a2, o.b);
        double h1 = hue(a1, b);
        double h2 = hue(a2, o.b);
        double dh =
                c1 * c2 == 0 ? 0 : Math.abs(h2 - h1) <= 180 ? h2 - h1 : h2 - h1 > 180 ? h2 - h1 - 360 : h2 - h1 + 360;
        double dHue = 2 * Math.sqrt(c1 * c2) * Math.sin(Math.toRadians(dh) / 2);
        double meanL = (l + o.l) / 2;
        double meanC = (c1 + c2) / 2;
        double sum = h1 + h2;
        double meanH =
                c1 * c2 == 0 ? sum : Math.abs(h1 - h2) <= 180 ? sum / 2 : sum < 360 ? (sum + 360) / 2 : (sum - 360) / 2;
        double t = 1
                - 0.17 * cos(meanH - 30)
                + 0.24 * cos(2 * meanH)
                + 0.32 * cos(3 * meanH + 6)
                - 0.20 * cos(4 * meanH - 63);
        double q = (meanH - 275) / 25;
        double turn = 60 * Math.exp(-q * q);
        double c7 = Math.pow(meanC, 7);
        double rc = 2 * Math.sqrt(c7 / (c7 + TWENTY_FIVE_7));
        double fifty = (meanL - 50) * (meanL - 50);
        double sl = 1 + 0.015 * fifty / Math.sqrt(20 + fifty);
        double x = (o.l - l) / sl;
        double y = (c2 - c1) / (1 + 0.045 * meanC);
        double z = dHue / (1 + 0.015 * meanC * t);
        return Math.sqrt(x * x + y * y + z * z - Math.sin(Math.toRadians(turn)) * rc * y * z);
    }

    private static double hue(double a, double b) {
        if (a == 0 && b == 0) {
            return 0;
        }
        double h = Math.toDegrees(Math.atan2(b, a));
        return h < 0 ? h + 360 : h;
    }

    private static double cos(double degrees) {
        return Math.cos(Math.toRadians(degrees));
    }
}
