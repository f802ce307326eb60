package app.zolvan.core.render.scene;

import app.zolvan.core.render.surface.SurfaceValues;

/** Where a ray met the scene, in world space. One object serves a thread. */
public final class Hit {
    public int instance;
    public int primitive;
    public SurfaceValues surface;
    /** Where clear bodies overlap, the higher one fills the place. */
    public int priority;

    /** What it mirrors in the place of the scene's surroundings; null for these. */
    public OwnReflection reflection;

    /** Which lamps the surface is switched with. */
    public int circuit;
    /** The number of its material, in the order in which the scene got them. */
    public int material;

    /** Whether the surface is an open boundary, and the media in front of it and behind; null for air. */
    public boolean isBoundary;

    public SurfaceValues front;
    public SurfaceValues back;
    /** The surface as it is everywhere, before pictures change it; media are told by it. */
    public SurfaceValues medium;
    /** In lengths of the ray's direction. */
    public double distance;

    public double x;
    public double y;
    public double z;
    /** Whether an eye looks through it here as if it were not there; all other light meets it. */
    public boolean isLookedThrough;

    /** The triangle's own normal, of unit length, outward as the file has it. */
    public double gx;

    public double gy;
    public double gz;
    /** The interpolated normal, of unit length, on the same side. */
    public double nx;

    public double ny;
    public double nz;
    /** Weights of the triangle's second and third corner. */
    public double b1;

    public double b2;
    /** Whether the coordinates say where the grain runs; along the tangent then, of unit length. */
    public boolean hasTangent;

    public double tx;
    public double ty;
    public double tz;
    /** +1 or −1: on which side of the tangent the image's up lies. */
    private double handed;

    /** How much the coordinates grow per metre, along each axis of the world. */
    final double[] uGrowth = new double[3];

    final double[] vGrowth = new double[3];

    /** Whether the normal was turned by a relief; what it was before. */
    boolean raised;

    double levelX;
    double levelY;
    double levelZ;

    /** What the side that was met wears. */
    Skin skin;

    final SurfaceValues own = new SurfaceValues();
    final double[] texel = new double[4];

    /** Takes the direction in which u grows and the image's up, and makes the tangent perpendicular to the normal. */
    void setTangent(double x, double y, double z, double upX, double upY, double upZ) {
        double along = x * nx + y * ny + z * nz;
        double px = x - along * nx;
        double py = y - along * ny;
        double pz = z - along * nz;
        double l = Math.sqrt(px * px + py * py + pz * pz);
        hasTangent = l > 1e-12 * Math.sqrt(x * x + y * y + z * z) && l > 0;
        if (!hasTangent) {
            return;
        }
        tx = px / l;
        ty = py / l;
        tz = pz / l;
        double bx = ny * tz - nz * ty;
        double by = nz * tx - nx * tz;
        double bz = nx * ty - ny * tx;
        handed = bx * upX + by * upY + bz * upZ < 0 ? -1 : 1;
    }

    /** Adds what going along a direction makes of u and v. */
    void addGrowth(double u, double v, double x, double y, double z) {
        uGrowth[0] += u * x;
        uGrowth[1] += u * y;
        uGrowth[2] += u * z;
        vGrowth[0] += v * x;
        vGrowth[1] += v * y;
        vGrowth[2] += v * z;
    }

    private void raise() {
        raised = true;
        levelX = nx;
        levelY = ny;
        levelZ = nz;
    }

    /**
     * Lets the surface's coat lie level over its relief, as it fills it (OpenPBR 1.1, geometry_coat_normal).
     *
     * @param frame x, y and z of the shading frame in rows
     * @param side  1 where the front is seen, −1 where the back is
     */
    public void levelCoat(double[] frame, double side) {
        if (!raised || surface != own || own.coat == 0) {
            return;
        }
        double z = side * (frame[6] * levelX + frame[7] * levelY + frame[8] * levelZ);
        if (z > 0.05) {
            own.coatSlopeX = side * (frame[0] * levelX + frame[1] * levelY + frame[2] * levelZ) / z;
            own.coatSlopeY = side * (frame[3] * levelX + frame[4] * levelY + frame[5] * levelZ) / z;
        }
    }

    /** Tilts the normal by the slope of a relief on the surface. */
    void tilt(double x, double y, double z) {
        raise();
        setShading(nx - x, ny - y, nz - z);
        levelTangent();
    }

    /** Turns the normal to one given along the tangent, the image's up and the normal itself. */
    void bend(double x, double y, double z) {
        double bx = handed * (ny * tz - nz * ty);
        double by = handed * (nz * tx - nx * tz);
        double bz = handed * (nx * ty - ny * tx);
        raise();
        setShading(x * tx + y * bx + z * nx, x * ty + y * by + z * ny, x * tz + y * bz + z * nz);
        levelTangent();
    }

    /** Makes the tangent perpendicular to a normal that was turned. */
    private void levelTangent() {
        if (!hasTangent) {
            return;
        }
        double along = tx * nx + ty * ny + tz * nz;
        tx -= along * nx;
        ty -= along * ny;
        tz -= along * nz;
        double l = Math.sqrt(tx * tx + ty * ty + tz * tz);
        hasTangent = l > 1e-9;
        if (hasTangent) {
            tx /= l;
            ty /= l;
            tz /= l;
        }
    }

    /** Whether the surface bounds a clear body of its own. */
    public boolean isBody() {
        return medium.isClear() && !medium.thinWalled && !isBoundary;
    }

    public void setGeometric(double x, double y, double z) {
        double l = Math.sqrt(x * x + y * y + z * z);
        double s = l > 0 ? 1 / l : 0;
        gx = x * s;
        gy = l > 0 ? y * s : 1;
        gz = z * s;
    }

    public void setShading(double x, double y, double z) {
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
