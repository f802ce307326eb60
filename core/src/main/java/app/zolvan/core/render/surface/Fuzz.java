package app.zolvan.core.render.surface;

/**
 * The sheen of fibres that stand up from a cloth: the inverted-Gaussian distribution of Conty & Kulla 2017 with the
 * visibility term of Neubelt & Pettineo 2013. An approximation of OpenPBR's fuzz, which is defined by a volume of fibres.
 * Roughness is the distribution's own α.
 */
public final class Fuzz {
    /** Below this roughness the lobe is too thin to sample. */
    static final double LEAST = 0.07;

    private Fuzz() {}

    /** The share of light from one direction, by its cosine to the normal, that white fibres send back. */
    public static double reflects(double cosine, double roughness) {
        return Math.min(1, Albedo.fuzz(cosine, roughness));
    }

    /** The share of light from all around. */
    public static double reflectsInAll(double roughness) {
        return Math.min(1, Albedo.fuzzMean(roughness));
    }

    /** The value of the lobe for white fibres, without the cosine. */
    static double value(double ox, double oy, double oz, double ix, double iy, double iz, double roughness) {
        double hx = ox + ix;
        double hy = oy + iy;
        double hz = oz + iz;
        double cosine2 = Math.min(1, hz * hz / Math.max(1e-12, hx * hx + hy * hy + hz * hz));
        double inverse = 1 / Math.max(LEAST, roughness);
        double d = (2 + inverse) * StrictMath.pow(1 - cosine2, inverse / 2) / (2 * Math.PI);
        return d / (4 * (oz + iz - oz * iz));
    }
}
