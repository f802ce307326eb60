package app.zolvan.core.render.scene;

import app.zolvan.core.texture.Texture;

/** Surroundings that one surface mirrors in the place of the scene's: an equirectangular picture, laid as those are. */
public final class OwnReflection {
    private final Texture picture;
    private final double red;
    private final double green;
    private final double blue;

    OwnReflection(Texture picture, double red, double green, double blue) {
        this.picture = picture;
        this.red = red;
        this.green = green;
        this.blue = blue;
    }

    /** The radiance from a direction of unit length, into the first three of {@code out}'s four. */
    public void look(double x, double y, double z, double[] out) {
        double u = StrictMath.atan2(z, x) / (2 * Math.PI) + 0.5;
        double v = StrictMath.acos(Math.max(-1, Math.min(1, y))) / Math.PI;
        picture.at(u, v, 0, out);
        out[0] *= red;
        out[1] *= green;
        out[2] *= blue;
    }
}
