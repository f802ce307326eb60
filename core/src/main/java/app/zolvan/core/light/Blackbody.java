package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Wavelength;

/** The colour of a glowing body by its temperature (Planck's law). */
public final class Blackbody {
    /** The second radiation constant hc/k, in metre kelvins (CODATA 2018). */
    private static final double C2 = 1.438776877e-2;

    private Blackbody() {}

    /**
     * Linear Rec. 709 of luminance 1; a component that lies outside the screen's colours is cut off at 0.
     *
     * @param kelvin 1,000 … 20,000
     */
    public static LinearRgb colour(double kelvin) {
        if (!(kelvin >= 1000 && kelvin <= 20000)) {
            throw new IllegalArgumentException("A colour temperature lies between 1,000 and 20,000 K.");
        }
        double[] sum = new double[3];
        double[] c = new double[3];
        for (double nm = 380; nm <= 780; nm += 2) {
            double m = nm * 1e-9;
            double radiance = 1 / (StrictMath.pow(nm, 5) * Math.expm1(C2 / (m * kelvin)));
            Wavelength.rgb(nm, c);
            for (int k = 0; k < 3; k++) {
                sum[k] += radiance * c[k];
            }
        }
        double luminance = 0.2126 * sum[0] + 0.7152 * sum[1] + 0.0722 * sum[2];
        double r = Math.max(0, sum[0] / luminance);
        double g = Math.max(0, sum[1] / luminance);
        double b = Math.max(0, sum[2] / luminance);
        double kept = 0.2126 * r + 0.7152 * g + 0.0722 * b;
        return new LinearRgb(r / kept, g / kept, b / kept);
    }
}
