package app.zolvan.core.material;

/**
 * Facets that lie askew further along the tangent than across it, in OpenPBR's words and in glTF's.
 *
 * @param roughness  OpenPBR's specular_roughness, 0 … 1
 * @param anisotropy OpenPBR's specular_roughness_anisotropy, 0 … 1
 */
public record Brushing(double roughness, double anisotropy) {
    /** What the square of a roughness is multiplied by to be α along the tangent (OpenPBR 1.1, microfacet model). */
    public static double along(double anisotropy) {
        double ratio = 1 - anisotropy;
        return Math.sqrt(2 / (1 + ratio * ratio));
    }

    /** The same across the tangent. */
    public static double across(double anisotropy) {
        return (1 - anisotropy) * along(anisotropy);
    }

    static Brushing of(Surface s) {
        return new Brushing(s.number(Parameter.SPECULAR_ROUGHNESS), s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY));
    }

    /** From a roughness that is the one across, and how far the one along is on the way from there to 1, as a root. */
    static Brushing ofGltf(double roughness, double strength) {
        if (strength == 0) {
            return new Brushing(roughness, 0);
        }
        double across = roughness * roughness;
        double along = across + strength * strength * (1 - across);
        double ratio = across / along;
        return new Brushing(Math.sqrt(along * Math.sqrt((1 + ratio * ratio) / 2)), 1 - ratio);
    }

    /** KHR_materials_anisotropy: the roughness across. */
    double gltfRoughness() {
        return anisotropy == 0 ? roughness : roughness * Math.sqrt(across(anisotropy));
    }

    double gltfStrength() {
        double across = roughness * roughness * across(anisotropy);
        double along = Math.min(1, roughness * roughness * along(anisotropy));
        return across < along ? Math.sqrt((along - across) / (1 - across)) : 0;
    }
}
