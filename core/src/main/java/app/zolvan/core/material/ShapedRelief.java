package app.zolvan.core.material;

/**
 * A relief that is a shape of its own rather than shading.
 *
 * @param heights its picture
 * @param depth   metres between the picture's black and its white, above 0
 */
public record ShapedRelief(TextureUse heights, double depth) {
    /** Null where a surface asks for none. */
    public static ShapedRelief of(Surface s) {
        TextureUse heights = s.textures().get(Parameter.GEOMETRY_HEIGHT);
        double depth = s.number(Parameter.GEOMETRY_HEIGHT);
        return s.flag(Parameter.GEOMETRY_DISPLACED) && depth > 0 && heights != null
                ? new ShapedRelief(heights, depth)
                : null;
    }

    /** A surface whose relief has become a shape: it asks for it no more, and its picture of normals would say it twice. */
    public static Surface done(Surface s) {
        return of(s) == null
                ? s
                : s.with(Parameter.GEOMETRY_DISPLACED, false)
                        .with(Parameter.GEOMETRY_HEIGHT, 0)
                        .withTexture(Parameter.GEOMETRY_HEIGHT, null)
                        .withTexture(Parameter.GEOMETRY_NORMAL, null);
    }
}
