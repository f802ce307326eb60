package app.zolvan.core.render.trace;

/**
 * A ray on its way through a scene, and what it met. One object serves a thread for all its rays: nothing is allocated
 * while tracing. The direction need not have unit length; distances count in its lengths.
 */
public final class Ray {
    /** {@link #primitive} and {@link #instance} where nothing was met. */
    public static final int NOTHING = -1;

    public float ox;
    public float oy;
    public float oz;
    public float dx;
    public float dy;
    public float dz;
    /** Nearer hits do not count; at least 0. */
    public float tMin;
    /** Farther hits do not count; after {@code closest} where the nearest hit is. */
    public float tMax;
    /** The triangle that was met, as numbered in its shape. */
    public int primitive = NOTHING;
    /** The placed shape that was met, as numbered in its scene. */
    public int instance = NOTHING;

    /** How many times it was sent through a scene. */
    public long sent;

    /** What a kernel remembers of places still to visit: distance in the upper half, node in the lower. */
    final long[] stack = new long[512];
    /** The same where distances do not matter. */
    final int[] pending = new int[128];
    /** The first for the tree of placed shapes. */
    final long[] upperStack = new long[128];

    /** The axis along which the ray goes fastest and the two others, and the shear that makes that axis its direction. */
    int kx;

    int ky;
    int kz;
    float sx;
    float sy;
    float sz;
    /** The origin along the three. */
    float kox;

    float koy;
    float koz;

    final int[] lanes = new int[8];
    final int[] signs = new int[8];
    final float[] edges = new float[12];
    final float[] distances = new float[4];

    public void set(double ox, double oy, double oz, double dx, double dy, double dz, float tMin, float tMax) {
        this.ox = (float) ox;
        this.oy = (float) oy;
        this.oz = (float) oz;
        this.dx = (float) dx;
        this.dy = (float) dy;
        this.dz = (float) dz;
        this.tMin = tMin;
        this.tMax = tMax;
        this.primitive = NOTHING;
        this.instance = NOTHING;
    }

    /** Readies the shear in which triangles are met (Woop, Benthin & Wald 2013). */
    void shear() {
        float x = Math.abs(dx);
        float y = Math.abs(dy);
        float z = Math.abs(dz);
        kz = x > y ? (x > z ? 0 : 2) : (y > z ? 1 : 2);
        kx = kz == 2 ? 0 : kz + 1;
        ky = kx == 2 ? 0 : kx + 1;
        float along = kz == 0 ? dx : kz == 1 ? dy : dz;
        sz = 1 / along;
        sx = (kx == 0 ? dx : kx == 1 ? dy : dz) * sz;
        sy = (ky == 0 ? dx : ky == 1 ? dy : dz) * sz;
        kox = kx == 0 ? ox : kx == 1 ? oy : oz;
        koy = ky == 0 ? ox : ky == 1 ? oy : oz;
        koz = kz == 0 ? ox : kz == 1 ? oy : oz;
    }

    /** 1/d, finite also along an axis, so that 0 · ∞ never makes NaN of a slab's distance. */
    static float reciprocal(float d) {
        return Math.abs(d) > 1e-30f ? 1 / d : Math.copySign(1e30f, d);
    }
}
