package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;

/**
 * Leaves that cover a surface.
 *
 * @param cover the share of the surface that they cover, above 0
 * @param size  mean length of a leaf in metres
 */
public record Foliage(double cover, double size, LinearRgb colour) {
    /** Null where none grow. */
    public static Foliage of(Surface s) {
        double cover = s.number(Parameter.LEAF_COVER);
        return cover > 0 ? new Foliage(cover, s.number(Parameter.LEAF_SIZE), s.colour(Parameter.LEAF_COLOR)) : null;
    }

    /** What a leaf looks like: a thin sheet, waxy, that lets some light through. */
    public Surface surface() {
        return Surface.STANDARD
                .with(Parameter.BASE_COLOR, colour)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.45)
                .with(Parameter.GEOMETRY_THIN_WALLED, true)
                .with(Parameter.SUBSURFACE_WEIGHT, 0.4)
                .with(Parameter.SUBSURFACE_COLOR, colour.mix(new LinearRgb(0.25, 0.4, 0.02), 0.5));
    }
}
