package app.zolvan.core.material;

import java.util.Arrays;
import java.util.Locale;
import java.util.Optional;

/**
 * The parameters of OpenPBR Surface 1.1, under the standard's names, with its defaults and hard ranges, and a few beyond
 * it for reflectance by angle, flakes, ageing, leaves, own reflections and height. Lengths are in
 * metres ({@code transmission_depth}, {@code subsurface_radius}) except the thin film's thickness, which the standard
 * gives in micrometres; luminance is in cd/m².
 */
public enum Parameter {
    BASE_WEIGHT(Shape.NUMBER, 0, 1, 1),
    BASE_COLOR(Shape.COLOUR, 0, 1, 0.8, 0.8, 0.8),
    BASE_DIFFUSE_ROUGHNESS(Shape.NUMBER, 0, 1, 0),
    BASE_METALNESS(Shape.NUMBER, 0, 1, 0),
    SPECULAR_WEIGHT(Shape.NUMBER, 0, 1, 1),
    SPECULAR_COLOR(Shape.COLOUR, 0, 1, 1, 1, 1),
    SPECULAR_ROUGHNESS(Shape.NUMBER, 0, 1, 0.3),
    SPECULAR_ROUGHNESS_ANISOTROPY(Shape.NUMBER, 0, 1, 0),
    SPECULAR_IOR(Shape.NUMBER, 1, 3, 1.5),
    /**
     * Not of OpenPBR, like the next three: the outer boundary reflects by angle as MaterialX's {@code generalized_schlick}
     * says, instead of as its index of refraction does. Equal reflectances facing and at the edge make it constant.
     */
    GENERALIZED_SCHLICK(Shape.FLAG, 0, 1, 0),
    /** Reflectance facing. */
    SCHLICK_COLOR0(Shape.COLOUR, 0, 1, 0.04, 0.04, 0.04),
    /** Reflectance at the edge. */
    SCHLICK_COLOR90(Shape.COLOUR, 0, 1, 1, 1, 1),
    SCHLICK_EXPONENT(Shape.NUMBER, 0.1, 20, 5),
    TRANSMISSION_WEIGHT(Shape.NUMBER, 0, 1, 0),
    TRANSMISSION_COLOR(Shape.COLOUR, 0, 1, 1, 1, 1),
    TRANSMISSION_DEPTH(Shape.NUMBER, 0, 1000, 0),
    TRANSMISSION_SCATTER(Shape.COLOUR, 0, 1, 0, 0, 0),
    TRANSMISSION_SCATTER_ANISOTROPY(Shape.NUMBER, -1, 1, 0),
    TRANSMISSION_DISPERSION_SCALE(Shape.NUMBER, 0, 1, 0),
    TRANSMISSION_DISPERSION_ABBE_NUMBER(Shape.NUMBER, 9, 91, 20),
    SUBSURFACE_WEIGHT(Shape.NUMBER, 0, 1, 0),
    SUBSURFACE_COLOR(Shape.COLOUR, 0, 1, 0.8, 0.8, 0.8),
    SUBSURFACE_RADIUS(Shape.NUMBER, 0, 10, 1),
    SUBSURFACE_RADIUS_SCALE(Shape.COLOUR, 0, 1, 1, 0.5, 0.25),
    SUBSURFACE_SCATTER_ANISOTROPY(Shape.NUMBER, -1, 1, 0),
    COAT_WEIGHT(Shape.NUMBER, 0, 1, 0),
    COAT_COLOR(Shape.COLOUR, 0, 1, 1, 1, 1),
    COAT_ROUGHNESS(Shape.NUMBER, 0, 1, 0),
    COAT_ROUGHNESS_ANISOTROPY(Shape.NUMBER, 0, 1, 0),
    COAT_IOR(Shape.NUMBER, 1, 3, 1.6),
    COAT_DARKENING(Shape.NUMBER, 0, 1, 1),
    FUZZ_WEIGHT(Shape.NUMBER, 0, 1, 0),
    FUZZ_COLOR(Shape.COLOUR, 0, 1, 1, 1, 1),
    FUZZ_ROUGHNESS(Shape.NUMBER, 0, 1, 0.5),
    /**
     * Not of OpenPBR, like the next: the share of the reflection that lies in flakes, small mirrors that lie askew so that
     * from afar they blur as {@code specular_roughness} says.
     */
    FLAKE_WEIGHT(Shape.NUMBER, 0, 1, 0),
    /** Mean width of a flake in metres. */
    FLAKE_SIZE(Shape.NUMBER, 1e-5, 0.01, 3e-4),
    /**
     * Not of OpenPBR, like the next three: how far a surface has aged. Corrosion on metal, silvering and bleaching on all
     * else.
     */
    AGE_WEATHERING(Shape.NUMBER, 0, 1, 0),
    /** What grows on it. */
    AGE_GROWTH(Shape.NUMBER, 0, 1, 0),
    /** Where edges are worn. */
    AGE_WEAR(Shape.NUMBER, 0, 1, 0),
    AGE_DUST(Shape.NUMBER, 0, 1, 0),
    /** Not of OpenPBR, like the next two: the share of the surface that leaves cover, as bodies of their own. */
    LEAF_COVER(Shape.NUMBER, 0, 1, 0),
    /** Mean length of a leaf in metres. */
    LEAF_SIZE(Shape.NUMBER, 0.01, 0.5, 0.07),
    LEAF_COLOR(Shape.COLOUR, 0, 1, 0.07, 0.16, 0.035),
    /**
     * Not of OpenPBR, like the next: with a picture of surroundings (equirectangular) it is these that coat and outer boundary
     * mirror, multiplied by the colour, in the place of those around the scene; without a picture it does nothing.
     */
    REFLECTED_SURROUNDINGS(Shape.COLOUR, 0, 1, 1, 1, 1),
    /** Multiplies them. */
    REFLECTED_STRENGTH(Shape.NUMBER, 0, 100, 1),
    EMISSION_LUMINANCE(Shape.NUMBER, 0, 1_000_000, 0),
    EMISSION_COLOR(Shape.COLOUR, 0, 1, 1, 1, 1),
    THIN_FILM_WEIGHT(Shape.NUMBER, 0, 1, 0),
    THIN_FILM_THICKNESS(Shape.NUMBER, 0, 1, 0.5),
    THIN_FILM_IOR(Shape.NUMBER, 1, 3, 1.4),
    GEOMETRY_OPACITY(Shape.NUMBER, 0, 1, 1),
    GEOMETRY_THIN_WALLED(Shape.FLAG, 0, 1, 0),
    /** How far in metres the white of its picture stands out from the black; without a picture it does nothing. */
    GEOMETRY_HEIGHT(Shape.NUMBER, 0, 0.1, 0),
    /** Not of OpenPBR: whether that relief is a shape of its own rather than shading. */
    GEOMETRY_DISPLACED(Shape.FLAG, 0, 1, 0),
    /** Carries only a texture: the surface's normal map. */
    GEOMETRY_NORMAL(Shape.TEXTURE_ONLY, 0, 0);

    /** What a parameter's value looks like. */
    public enum Shape {
        NUMBER,
        /** Three scene-linear components. */
        COLOUR,
        /** 0 or 1. */
        FLAG,
        TEXTURE_ONLY
    }

    private final Shape shape;
    private final double min;
    private final double max;

    private final double[] standard;

    Parameter(Shape shape, double min, double max, double... standard) {
        this.shape = shape;
        this.min = min;
        this.max = max;
        this.standard = standard;
    }

    /** Whether a picture may drive it: what belongs to the body as a whole is not read from pictures. */
    public boolean takesPicture() {
        return switch (this) {
            case SPECULAR_IOR,
                    GENERALIZED_SCHLICK,
                    SCHLICK_EXPONENT,
                    TRANSMISSION_DEPTH,
                    TRANSMISSION_SCATTER,
                    TRANSMISSION_SCATTER_ANISOTROPY,
                    TRANSMISSION_DISPERSION_SCALE,
                    TRANSMISSION_DISPERSION_ABBE_NUMBER,
                    SUBSURFACE_RADIUS,
                    SUBSURFACE_RADIUS_SCALE,
                    SUBSURFACE_SCATTER_ANISOTROPY,
                    COAT_ROUGHNESS_ANISOTROPY,
                    COAT_IOR,
                    FLAKE_WEIGHT,
                    FLAKE_SIZE,
                    AGE_WEATHERING,
                    AGE_GROWTH,
                    AGE_WEAR,
                    AGE_DUST,
                    LEAF_COVER,
                    LEAF_SIZE,
                    LEAF_COLOR,
                    REFLECTED_STRENGTH,
                    THIN_FILM_IOR,
                    GEOMETRY_THIN_WALLED,
                    GEOMETRY_DISPLACED -> false;
            default -> true;
        };
    }

    public Shape shape() {
        return shape;
    }

    public double min() {
        return min;
    }

    public double max() {
        return max;
    }

    /** The standard's default; a copy, one number per component. */
    public double[] standardValue() {
        return standard.clone();
    }

    public int components() {
        return standard.length;
    }

    /** The name in files, for most of them the OpenPBR standard's, such as {@code base_color}. */
    public String openPbrName() {
        return name().toLowerCase(Locale.ROOT);
    }

    public static Optional<Parameter> named(String openPbrName) {
        return Arrays.stream(values())
                .filter(p -> p.openPbrName().equals(openPbrName))
                .findFirst();
    }
}
