package app.zolvan.core.render.scene;

import app.zolvan.core.render.surface.SurfaceValues;

/** Where a ray met the scene, in world space. One object serves a thread. */
public final class Hit {
    public int instance;
    public int primitive;
    public SurfaceValues surface;
    public int priority;
    /** In lengths of the ray's direction. */
    public double distance;

    public double x;
    public double y;
    public double z;
    /** The triangle's own normal, of unit length, outward as the file has it. */
    public double gx;

    public double gy;
    public double gz;
    /** The interpolated normal, of unit length, on the same side. */
    public double nx;

    public double ny;
    public double nz;

    void setGeometric(double x, double y, double z) {
        double l = Math.sqrt(x * x + y * y + z * z);
        double s = l > 0 ? 1 / l : 0;
        gx = x * s;
        gy = l > 0 ? y * s : 1;
        gz = z * s;
    }

    void setShading(double x, double y, double z) {
        double l = Math.sqrt(x * x + y * y + z * z);
        if (!(l > 1e-12)) {
            nx = gx;
            ny = gy;
            nz = gz;
            return;
        }
        double s = (x * gx + y * gy + z * gz < 0 ? -1 : 1) / l;
        nx = x * s;
        ny = y * s;
        nz = z * s;
    }
}
