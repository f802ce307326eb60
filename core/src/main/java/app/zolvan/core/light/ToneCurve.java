package app.zolvan.core.light;

/** From scene-linear radiance to what a screen shows. */
public final class ToneCurve {
    private static final double START = 0.8 - 0.04;
    private static final double DESATURATION = 0.15;
    private static final double FILMIC_WHITE = 11.2;
    /** Keeps 0.18 at 0.18. */
    private static final double FILMIC_GAIN = gain();

    private ToneCurve() {}

    private static double gain() {
        double lo = 0.1;
        double hi = 10;
        for (int i = 0; i < 60; i++) {
            double mid = (lo + hi) / 2;
            if (hable(0.18 * mid) / hable(FILMIC_WHITE) < 0.18) {
                lo = mid;
            } else {
                hi = mid;
            }
        }
        return lo;
    }

    /**
     * Khronos PBR Neutral: colours of a product under a white light come out as they are; only what is brighter than 0.8 is
     * bent, and paled where it runs out of range.
     *
     * @param rgb scene-linear after exposure; display-linear in [0, 1] afterwards
     */
    public static void neutral(double[] rgb) {
        double x = Math.min(rgb[0], Math.min(rgb[1], rgb[2]));
        double offset = x < 0.08 ? x - 6.25 * x * x : 0.04;
        for (int c = 0; c < 3; c++) {
            rgb[c] -= offset;
        }
        double peak = Math.max(rgb[0], Math.max(rgb[1], rgb[2]));
        if (peak < START) {
            return;
        }
        double d = 1 - START;
        double bent = 1 - d * d / (peak + d - START);
        double g = 1 - 1 / (DESATURATION * (peak - bent) + 1);
        for (int c = 0; c < 3; c++) {
            rgb[c] = rgb[c] * bent / peak * (1 - g) + bent * g;
        }
    }

    /**
     * Film-like: Hable's curve (2010), each component by itself so that what is bright turns pale, scaled so that middle
     * grey stays where it is and 11.2 comes out white.
     *
     * @param rgb scene-linear after exposure; display-linear in [0, 1] afterwards
     */
    public static void filmic(double[] rgb) {
        for (int c = 0; c < 3; c++) {
            rgb[c] = Math.min(1, hable(FILMIC_GAIN * rgb[c]) / hable(FILMIC_WHITE));
        }
    }

    private static double hable(double x) {
        return (x * (0.15 * x + 0.05) + 0.004) / (x * (0.15 * x + 0.5) + 0.06) - 0.02 / 0.3;
    }
}
