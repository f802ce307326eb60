package app.zolvan.core.exchange;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;

/**
 * The older way of describing a surface (diffuse and specular colour with a shininess exponent), as MTL and COLLADA
 * write it, in OpenPBR's terms. Colours are sRGB-encoded, as the programs that write these formats mean them.
 */
public final class PhongSurface {
    private PhongSurface() {}

    /**
     * GGX roughness (its square root of α) of a Blinn–Phong lobe: α² = 2 / (n + 2), Walter et al. 2007.
     *
     * @param exponent shininess, ≥ 0
     */
    public static double roughness(double exponent) {
        return Math.pow(2 / (Math.max(0, exponent) + 2), 0.25);
    }

    /** The exponent whose roughness this is; 0 for the roughest. */
    public static double exponent(double roughness) {
        return Math.max(0, 2 / Math.pow(Math.max(0.02, roughness), 4) - 2);
    }

    /** An sRGB-encoded colour of any three numbers, limited to what a screen shows. */
    public static LinearRgb colour(double r, double g, double b) {
        return new LinearRgb(Srgb.decode(unit(r)), Srgb.decode(unit(g)), Srgb.decode(unit(b)));
    }

    public static Surface plain(LinearRgb colour) {
        return Surface.STANDARD.with(Parameter.BASE_COLOR, colour.clamped()).with(Parameter.SPECULAR_ROUGHNESS, 0.5);
    }

    /** A glow of a display-referred colour, as bright as white is in a studio. */
    public static Surface glowing(Surface s, LinearRgb glow) {
        double strongest = Math.max(glow.r(), Math.max(glow.g(), glow.b()));
        return strongest <= 0
                ? s
                : s.with(Parameter.EMISSION_LUMINANCE, PhysicalMaterial.NITS_PER_UNIT * strongest)
                        .with(
                                Parameter.EMISSION_COLOR,
                                glow.times(1 / strongest).clamped());
    }

    /** Not a number counts as 0. */
    public static double unit(double v) {
        return v > 0 ? Math.min(1, v) : 0;
    }
}
