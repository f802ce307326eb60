package app.zolvan.core.texture;

import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Wrap;

/** A picture laid by coordinates: what one parameter of a surface reads at a point. Immutable. */
public final class Texture {
    private final Picture picture;
    private final Picture.Wrapping wrapU;
    private final Picture.Wrapping wrapV;
    private final boolean onceU;
    private final boolean onceV;
    private final double uu;
    private final double uv;
    private final double vu;
    private final double vv;
    private final double offsetU;
    private final double offsetV;
    private final double pixelsPerUnit;
    private final double slopesAlong;
    /** The picture's right and its foot, of unit length, in u and v. */
    private final double[] right;

    private final double[] foot;
    private final TextureUse use;
    /** What changes its colours, 12 numbers; null for nothing. */
    private final double[] tone;

    public Texture(Picture picture, TextureUse use) {
        this.picture = picture;
        this.use = use;
        tone = use.tone() == null ? null : use.tone().matrix();
        wrapU = wrapping(use.wrapU());
        wrapV = wrapping(use.wrapV());
        onceU = use.wrapU() == Wrap.ONCE;
        onceV = use.wrapV() == Wrap.ONCE;
        ModelUv t = use.placement().toImage();
        double cos = StrictMath.cos(t.rotation());
        double sin = StrictMath.sin(t.rotation());
        uu = cos * t.scaleU();
        uv = sin * t.scaleV();
        vu = -sin * t.scaleU();
        vv = cos * t.scaleV();
        offsetU = t.offsetU();
        offsetV = t.offsetV();
        double area = Math.abs(t.scaleU() * t.scaleV()) * picture.width() * picture.height();
        pixelsPerUnit = Math.sqrt(area);
        double along = picture.slopesAlong();
        slopesAlong = cos * cos * along + sin * sin * (1 - along);
        right = new double[] {uu / Math.hypot(uu, uv), uv / Math.hypot(uu, uv)};
        foot = new double[] {vu / Math.hypot(vu, vv), vv / Math.hypot(vu, vv)};
    }

    private static Picture.Wrapping wrapping(Wrap wrap) {
        return switch (wrap) {
            case REPEAT -> Picture.Wrapping.REPEAT;
            case MIRROR -> Picture.Wrapping.MIRROR;
            case ONCE -> Picture.Wrapping.EDGE;
        };
    }

    public TextureUse use() {
        return use;
    }

    /**
     * The picture's value around a point: red, green, blue (linear where it holds colours) and alpha into {@code out}. Two
     * neighbouring halved copies are mixed so that about one pixel of theirs covers the footprint.
     *
     * @param footprint width of what is looked at, in the unit of u and v
     */
    public void at(double u, double v, double footprint, double[] out) {
        double x = offsetU + uu * u + uv * v;
        double y = offsetV + vu * u + vv * v;
        double lod = StrictMath.log(Math.max(1e-9, footprint * pixelsPerUnit)) / StrictMath.log(2);
        int last = picture.levels() - 1;
        double level = Math.max(0, Math.min(last, lod));
        int lower = (int) level;
        double t = level - lower;
        out[0] = out[1] = out[2] = out[3] = 0;
        picture.add(lower, x, y, wrapU, wrapV, 1 - t, out);
        if (t > 0) {
            picture.add(Math.min(last, lower + 1), x, y, wrapU, wrapV, t, out);
        }
        if (tone != null) {
            double r = out[0];
            double g = out[1];
            double b = out[2];
            for (int i = 0; i < 3; i++) {
                double toned = tone[4 * i] * r + tone[4 * i + 1] * g + tone[4 * i + 2] * b + tone[4 * i + 3];
                out[i] = Math.max(0, Math.min(1, toned));
            }
        }
        if ((onceU && (x < 0 || x > 1)) || (onceV && (y < 0 || y > 1))) {
            out[3] = 0; // a picture that lies there once has an end
        }
    }

    /**
     * How far slopes spread where a picture of normals was looked at, as standard deviation along one axis.
     *
     * @param rgba as {@link #at} gave it
     */
    public double spread(double[] rgba) {
        return use.strength() * Picture.spread(rgba[3]);
    }

    /**
     * Turns a picture's normal as the picture was turned.
     *
     * @param xyz towards the picture's right, its top and away from it; becomes towards growing u, against growing v and away
     */
    public void turn(double[] xyz) {
        double x = xyz[0];
        double y = xyz[1];
        xyz[0] = x * right[0] - y * foot[0];
        xyz[1] = y * foot[1] - x * right[1];
    }

    /** The share of slopes' variance, in a picture of normals, that lies along u. */
    public double slopesAlong() {
        return slopesAlong;
    }

    /** Width of a pixel in the unit of u and v. */
    public double pixel() {
        return 1 / Math.max(1e-9, pixelsPerUnit);
    }

    /** The value of the channel that a number reads. */
    public double channel(double[] rgba) {
        return use.channel().of(rgba[0], rgba[1], rgba[2], rgba[3]);
    }
}
