package app.zolvan.core.render.surface;

/**
 * Single wavelengths as colours, and how indices of refraction change with them. Colour matching functions by the fits of
 * Wyman, Sloan & Shirley 2013 (multi-lobe, CIE 1931), carried to Rec. 709.
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

    /** Rec. 709 components of light of one wavelength, as it adds to a sum over wavelengths; some are negative. */
    static void rgb(double nm, double[] out) {
        double x = 1.056 * lobe(nm, 599.8, 37.9, 31.0)
                + 0.362 * lobe(nm, 442.0, 16.0, 26.7)
                - 0.065 * lobe(nm, 501.1, 20.4, 26.2);
        double y = 0.821 * lobe(nm, 568.8, 46.9, 40.5) + 0.286 * lobe(nm, 530.9, 16.3, 31.1);
        double z = 1.217 * lobe(nm, 437.0, 11.8, 36.0) + 0.681 * lobe(nm, 459.0, 26.0, 13.8);
        out[0] = 3.2404542 * x - 1.5371385 * y - 0.4985314 * z;
        out[1] = -0.9692660 * x + 1.8760108 * y + 0.0415560 * z;
        out[2] = 0.0556434 * x - 0.2040259 * y + 1.0572252 * z;
    }

    /** The same, scaled so that its mean over the range is white: what a path of one wavelength stands for. */
    public static void weight(double nm, double[] out) {
        rgb(nm, out);
        for (int c = 0; c < 3; c++) {
            out[c] /= MEAN[c];
        }
    }

    private static double lobe(double nm, double peak, double below, double above) {
        double t = (nm - peak) / (nm < peak ? below : above);
        return Math.exp(-t * t / 2);
    }

    private static double[] mean() {
        double[] sum = new double[3];
        double[] rgb = new double[3];
        int n = 620;
        for (int i = 0; i < n; i++) {
            rgb(SHORTEST + (LONGEST - SHORTEST) * (i + 0.5) / n, rgb);
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
