package app.zolvan.core.render.surface;

import app.zolvan.core.colour.Wavelength;

/**
 * What a path of one wavelength stands for, and how indices of refraction change with the wavelength.
 */
public final class Spectrum {
    /** The range from which a path's wavelength is taken, in nm. */
    public static final double SHORTEST = 390;

    public static final double LONGEST = 700;
    private static final double D = 587.56;
    private static final double F = 486.13;
    private static final double C = 656.27;
    private static final double[] MEAN = mean();

    private Spectrum() {}

    /** One wavelength as a colour, scaled so that its mean over the range is white: what a path of it stands for. */
    public static void weight(double nm, double[] out) {
        Wavelength.rgb(nm, out);
        for (int c = 0; c < 3; c++) {
            out[c] /= MEAN[c];
        }
    }

    private static double[] mean() {
        double[] sum = new double[3];
        double[] rgb = new double[3];
        int n = 620;
        for (int i = 0; i < n; i++) {
            Wavelength.rgb(SHORTEST + (LONGEST - SHORTEST) * (i + 0.5) / n, rgb);
            for (int c = 0; c < 3; c++) {
                sum[c] += rgb[c] / n;
            }
        }
        return sum;
    }

    /**
     * The index at a wavelength, by Cauchy's n = A + B/λ² through n_d and the Abbe number V = (n_d − 1)/(n_F − n_C).
     *
     * @param abbe  V; 0 for no dispersion
     * @param scale 0 … 1, how much of it is wanted
     */
    public static double index(double nd, double abbe, double scale, double nm) {
        if (abbe <= 0 || scale <= 0) {
            return nd;
        }
        double spread = scale * (nd - 1) / abbe;
        double b = spread / (1 / (F * F) - 1 / (C * C));
        return Math.max(1.0001, nd + b * (1 / (nm * nm) - 1 / (D * D)));
    }
}
