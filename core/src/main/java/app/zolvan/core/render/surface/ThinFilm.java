package app.zolvan.core.render.surface;

import app.zolvan.core.colour.Wavelength;

/**
 * The reflectance of a boundary under a thin clear film: Airy's sum over the reflections within the film, at wavelengths
 * across the visible range, weighted to red, green and blue (after Belcour & Barla 2017, who integrate in closed form).
 * What lies below is taken as clear; a metal counts as a clear body of the same facing reflectance.
 */
final class ThinFilm {
    private static final int WAVES = 16;
    private static final double[] LAMBDA = new double[WAVES];
    private static final double[] WEIGHT = new double[3 * WAVES];

    static {
        double[] sum = new double[3];
        double[] rgb = new double[3];
        for (int i = 0; i < WAVES; i++) {
            LAMBDA[i] = 390 + (700 - 390) * (i + 0.5) / WAVES;
            Wavelength.rgb(LAMBDA[i], rgb);
            for (int c = 0; c < 3; c++) {
                WEIGHT[3 * i + c] = rgb[c];
                sum[c] += rgb[c];
            }
        }
        for (int i = 0; i < 3 * WAVES; i++) {
            WEIGHT[i] /= sum[i % 3];
        }
    }

    private ThinFilm() {}

    /**
     * @param cosine    of the angle of incidence
     * @param film      index of the film relative to the outside
     * @param below     index of what lies below relative to the outside
     * @param thickness in nanometres
     * @param out       reflectance for red, green, blue
     */
    static void reflectance(double cosine, double film, double below, double thickness, double[] out) {
        double sine2 = 1 - cosine * cosine;
        double inFilm2 = 1 - sine2 / (film * film);
        if (inFilm2 <= 0) {
            out[0] = out[1] = out[2] = 1;
            return;
        }
        double f = Math.sqrt(inFilm2);
        double below2 = 1 - sine2 / (below * below);
        double b = below2 > 0 ? Math.sqrt(below2) : 0;
        double s12 = (cosine - film * f) / (cosine + film * f);
        double p12 = (film * cosine - f) / (film * cosine + f);
        double s23 = below2 > 0 ? (film * f - below * b) / (film * f + below * b) : 1;
        double p23 = below2 > 0 ? (below * f - film * b) / (below * f + film * b) : 1;
        out[0] = out[1] = out[2] = 0;
        for (int i = 0; i < WAVES; i++) {
            double phase = StrictMath.cos(4 * Math.PI * film * thickness * f / LAMBDA[i]);
            double r = (airy(s12, s23, phase) + airy(p12, p23, phase)) / 2;
            for (int c = 0; c < 3; c++) {
                out[c] += WEIGHT[3 * i + c] * r;
            }
        }
        for (int c = 0; c < 3; c++) {
            out[c] = Math.max(0, Math.min(1, out[c]));
        }
    }

    /** |(r₁₂ + r₂₃e^{iφ}) / (1 + r₁₂r₂₃e^{iφ})|². */
    private static double airy(double r12, double r23, double cosinePhase) {
        double cross = 2 * r12 * r23 * cosinePhase;
        return (r12 * r12 + r23 * r23 + cross) / (1 + r12 * r12 * r23 * r23 + cross);
    }
}
