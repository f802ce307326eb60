package app.zolvan.core.colour;

/**
 * Single wavelengths as colours: the CIE 1931 colour matching functions by the fits of Wyman, Sloan & Shirley 2013
 * (multi-lobe), carried to Rec. 709.
 */
public final class Wavelength {
    private Wavelength() {}

    /** Rec. 709 components of light of one wavelength, as it adds to a sum over wavelengths; some are negative. */
    public static void rgb(double nm, double[] out) {
        double x = 1.056 * lobe(nm, 599.8, 37.9, 31.0)
                + 0.362 * lobe(nm, 442.0, 16.0, 26.7)
                - 0.065 * lobe(nm, 501.1, 20.4, 26.2);
        double y = 0.821 * lobe(nm, 568.8, 46.9, 40.5) + 0.286 * lobe(nm, 530.9, 16.3, 31.1);
        double z = 1.217 * lobe(nm, 437.0, 11.8, 36.0) + 0.681 * lobe(nm, 459.0, 26.0, 13.8);
        out[0] = 3.2404542 * x - 1.5371385 * y - 0.4985314 * z;
        out[1] = -0.9692660 * x + 1.8760108 * y + 0.0415560 * z;
        out[2] = 0.0556434 * x - 0.2040259 * y + 1.0572252 * z;
    }

    private static double lobe(double nm, double peak, double below, double above) {
        double t = (nm - peak) / (nm < peak ? below : above);
        return StrictMath.exp(-t * t / 2);
    }
}
