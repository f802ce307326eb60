package app.zolvan.core.render.surface;

/** Reflectance by angle. */
public final class Fresnel {
    private Fresnel() {}

    /**
     * Unpolarised reflectance of a smooth boundary between two clear media.
     *
     * @param cosine of the angle of incidence, in [0, 1]
     * @param eta    index of refraction beyond the boundary divided by that before it, > 0
     * @return in [0, 1]; 1 beyond the critical angle
     */
    public static double dielectric(double cosine, double eta) {
        double sine2 = (1 - cosine * cosine) / (eta * eta);
        if (sine2 >= 1) {
            return 1;
        }
        double t = Math.sqrt(1 - sine2);
        double s = (cosine - eta * t) / (cosine + eta * t);
        double p = (eta * cosine - t) / (eta * cosine + t);
        return (s * s + p * p) / 2;
    }

    /**
     * Reflectance between its value facing and its value at the edge (MaterialX, {@code generalized_schlick}).
     *
     * @param power (1 − cosine) raised to the exponent
     */
    public static double schlick(double facing, double edge, double power) {
        return facing + (edge - facing) * power;
    }

    /** ((n − 1)/(n + 1))², the reflectance at normal incidence. */
    public static double facing(double eta) {
        double r = (eta - 1) / (eta + 1);
        return r * r;
    }

    /**
     * What {@link #schlick} has to end at, at the edge, for as much over a hemisphere as the dielectric boundary reflects:
     * with an exponent of 5 and weighted by the cosine, the edge's share is one in 21.
     */
    public static double edge(double eta) {
        double facing = facing(eta);
        return Math.min(1, facing + 21 * (Albedo.clearMean(0, Math.max(1, eta)) - facing));
    }

    /**
     * The index by which a body's boundary reflects below a coat: that between the two where the coat is, whichever is the
     * denser (OpenPBR 1.1, coat, change of specular reflection).
     *
     * @param eta     of the body to what is around, at least 1
     * @param coatIor of the coat
     * @param weight  share of the body that the coat covers
     */
    public static double underCoat(double eta, double coatIor, double weight) {
        double step = Math.max(eta, coatIor) / Math.min(eta, coatIor);
        return eta + weight * (step - eta);
    }

    /**
     * A metal's reflectance with the tint at its edge given by its value at about 82° (Hoffman 2019; Kutz et al. 2021):
     * Schlick's curve less a lobe that is widest at cos θ = 1/7.
     *
     * @param f0  reflectance facing
     * @param f82 tint at 82°: 1 leaves Schlick's curve
     */
    public static double metal(double cosine, double f0, double f82) {
        double m = 1 - cosine;
        double m5 = m * m * m * m * m;
        double schlick = f0 + (1 - f0) * m5;
        double at = 1.0 / 7;
        double away = 1 - at;
        double away5 = away * away * away * away * away;
        double there = f0 + (1 - f0) * away5;
        double a = there * (1 - f82) / (at * away5 * away);
        return Math.max(0, schlick - a * cosine * m5 * m);
    }

    /** The mean of {@link #metal} over a hemisphere, weighted by the cosine: closed form of 2∫F(μ)μdμ. */
    public static double metalMean(double f0, double f82) {
        double at = 1.0 / 7;
        double away = 1 - at;
        double away5 = away * away * away * away * away;
        double a = (f0 + (1 - f0) * away5) * (1 - f82) / (at * away5 * away);
        // 2∫(1−μ)⁵μ = 1/21; 2∫μ(1−μ)⁶μ = 2·B(3,7) = 1/126
        return Math.max(0, f0 + (1 - f0) / 21 - a / 126);
    }
}
