package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;
import java.util.Locale;

/**
 * A clean metal by its measured complex index of refraction n + ik for red, green and blue light (about 650, 550 and
 * 450 nm). Copper, silver and gold after Johnson & Christy 1972, chromium, iron, nickel and titanium after Johnson &
 * Christy 1974, aluminium after Rakić 1995, the others after Palik's Handbook of Optical Constants of Solids; brass is 70 %
 * copper. Alloys vary with their make; stainless steel is given by reflectances typical of polished sheet.
 */
public enum Metal {
    ALUMINIUM(new double[] {1.345, 0.965, 0.617}, new double[] {7.475, 6.400, 5.303}),
    SILVER(new double[] {0.052, 0.060, 0.040}, new double[] {4.410, 3.593, 2.657}),
    GOLD(new double[] {0.158, 0.425, 1.385}, new double[] {3.636, 2.464, 1.916}),
    COPPER(new double[] {0.238, 1.010, 1.241}, new double[] {3.630, 2.583, 2.397}),
    BRASS(new double[] {0.444, 0.527, 1.094}, new double[] {3.695, 2.765, 1.829}),
    IRON(new double[] {2.911, 2.950, 2.585}, new double[] {3.089, 2.932, 2.767}),
    STAINLESS_STEEL(new double[] {2.76, 2.50, 2.20}, new double[] {3.79, 3.45, 3.10}),
    NICKEL(new double[] {1.986, 1.800, 1.680}, new double[] {3.729, 3.270, 2.630}),
    CHROMIUM(new double[] {3.110, 3.180, 2.170}, new double[] {3.310, 3.330, 3.200}),
    TITANIUM(new double[] {2.741, 2.542, 2.267}, new double[] {3.814, 3.435, 3.039}),
    PLATINUM(new double[] {2.376, 2.085, 1.845}, new double[] {4.263, 3.715, 3.137}),
    TUNGSTEN(new double[] {4.371, 3.303, 2.998}, new double[] {3.502, 2.647, 2.663}),
    LEAD(new double[] {1.910, 1.830, 1.440}, new double[] {3.510, 3.400, 3.180});

    /** The angle at whose cosine, 1/7, OpenPBR's tint is given. */
    private static final double EDGE_COSINE = 1.0 / 7;

    private final double[] n;
    private final double[] k;

    Metal(double[] n, double[] k) {
        this.n = n;
        this.k = k;
    }

    /** Such as "Stainless steel". */
    public String label() {
        String word = name().replace('_', ' ').toLowerCase(Locale.ROOT);
        return Character.toUpperCase(word.charAt(0)) + word.substring(1);
    }

    /** Reflectance facing, which is OpenPBR's base colour of a metal. */
    public LinearRgb facing() {
        return new LinearRgb(reflectance(0, 1), reflectance(1, 1), reflectance(2, 1));
    }

    /** OpenPBR's specular colour of a metal: reflectance at 82° as a share of what Schlick's curve has there. */
    public LinearRgb edgeTint() {
        return new LinearRgb(tint(0), tint(1), tint(2));
    }

    private double tint(int component) {
        double f0 = reflectance(component, 1);
        double schlick = f0 + (1 - f0) * Math.pow(1 - EDGE_COSINE, 5);
        return Math.min(1, reflectance(component, EDGE_COSINE) / schlick);
    }

    /**
     * Reflectance of unpolarised light by Fresnel's equations for an absorbing body (Born & Wolf, 14.2).
     *
     * @param component 0 red, 1 green, 2 blue
     * @param cosine    of the angle of incidence
     */
    public double reflectance(int component, double cosine) {
        double sine2 = 1 - cosine * cosine;
        double n2 = n[component] * n[component];
        double k2 = k[component] * k[component];
        double t0 = n2 - k2 - sine2;
        double a2b2 = Math.sqrt(t0 * t0 + 4 * n2 * k2);
        double a = Math.sqrt(Math.max(0, (a2b2 + t0) / 2));
        double rs = ratio(a2b2 + cosine * cosine, 2 * cosine * a);
        double rp = rs * ratio(cosine * cosine * a2b2 + sine2 * sine2, 2 * cosine * a * sine2);
        return (rs + rp) / 2;
    }

    private static double ratio(double even, double odd) {
        return (even - odd) / (even + odd);
    }

    /** Bare metal of this kind, with all else as the surface has it. */
    public Surface on(Surface s) {
        return s.with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_WEIGHT, 1)
                .with(Parameter.BASE_COLOR, facing())
                .with(Parameter.SPECULAR_WEIGHT, 1)
                .with(Parameter.SPECULAR_COLOR, edgeTint())
                .with(Parameter.TRANSMISSION_WEIGHT, 0);
    }

    /** Whether a surface shows this metal. */
    public boolean isOf(Surface s) {
        Surface bare = on(s);
        return s.number(Parameter.BASE_METALNESS) > 0.5
                && bare.isNear(s, Parameter.BASE_COLOR, 0.002)
                && bare.isNear(s, Parameter.SPECULAR_COLOR, 0.002);
    }
}
