package app.zolvan.core.render.surface;

/**
 * The frame of a facet that lies askew on a surface: its own normal is its z. Microfacets are distributed about that normal,
 * seen and shadowed in that frame, while all else goes on in the surface's.
 */
final class Askew {
    /** Sampled normal, in the surface's frame. */
    double hx;

    double hy;
    double hz;
    private double xx;
    private double xy;
    private double xz;
    private double yx;
    private double yy;
    private double yz;
    private double zx;
    private double zy;
    private double zz;
    /** The viewer in this frame. */
    private double ox;

    private double oy;
    private double oz;

    /**
     * @param slopeX how much the facet falls along x; likewise {@code slopeY} along y
     * @return whether the viewer sees the facet's front
     */
    boolean set(double slopeX, double slopeY, double viewX, double viewY, double viewZ) {
        double n = 1 / Math.sqrt(1 + slopeX * slopeX + slopeY * slopeY);
        zx = slopeX * n;
        zy = slopeY * n;
        zz = n;
        double x = 1 / Math.sqrt(zz * zz + zx * zx);
        xx = zz * x;
        xy = 0;
        xz = -zx * x;
        yx = zy * xz - zz * xy;
        yy = zz * xx - zx * xz;
        yz = zx * xy - zy * xx;
        ox = xx * viewX + xy * viewY + xz * viewZ;
        oy = yx * viewX + yy * viewY + yz * viewZ;
        oz = zx * viewX + zy * viewY + zz * viewZ;
        return oz > 1e-3;
    }

    double normalX() {
        return zx;
    }

    double normalY() {
        return zy;
    }

    double normalZ() {
        return zz;
    }

    /** The cosine between the facet's normal and the viewer. */
    double facing() {
        return oz;
    }

    /** The cosine between the facet's normal and a direction of the surface's frame. */
    double cosine(double x, double y, double z) {
        return zx * x + zy * y + zz * z;
    }

    /** The density of visible normals at one given in the surface's frame. */
    double visible(Ggx ggx, double x, double y, double z) {
        return ggx.visibleDensity(ox, oy, oz, xx * x + xy * y + xz * z, yx * x + yy * y + yz * z, cosine(x, y, z));
    }

    /** What of the light from a direction of the surface's frame is not shadowed, given that the viewer sees the facet. */
    double shadowing(Ggx ggx, double x, double y, double z) {
        double lz = cosine(x, y, z);
        if (lz <= 1e-6) {
            return 0;
        }
        double own = ggx.lambda(ox, oy, oz);
        double other = ggx.lambda(xx * x + xy * y + xz * z, yx * x + yy * y + yz * z, lz);
        return (1 + own) / (1 + own + other);
    }

    /** Samples a normal that the viewer sees. */
    void sample(Ggx ggx, double u, double v) {
        ggx.sampleVisible(ox, oy, oz, u, v);
        hx = xx * ggx.hx + yx * ggx.hy + zx * ggx.hz;
        hy = xy * ggx.hx + yy * ggx.hy + zy * ggx.hz;
        hz = xz * ggx.hx + yz * ggx.hy + zz * ggx.hz;
    }
}
