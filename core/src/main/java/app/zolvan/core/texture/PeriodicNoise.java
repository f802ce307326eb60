package app.zolvan.core.texture;

/**
 * Gradient noise (Perlin 2002, "Improving noise") on a lattice that wraps, so that patterns built on it are seamless by
 * construction. The seed is a parameter: the same seed gives the same values.
 */
final class PeriodicNoise {
    private static final int DIRECTIONS = 1 << 12;
    private static final double[] COS = new double[DIRECTIONS];
    private static final double[] SIN = new double[DIRECTIONS];

    static {
        for (int i = 0; i < DIRECTIONS; i++) {
            COS[i] = StrictMath.cos(2 * Math.PI * i / DIRECTIONS);
            SIN[i] = StrictMath.sin(2 * Math.PI * i / DIRECTIONS);
        }
    }

    private final long seed;

    PeriodicNoise(long seed) {
        this.seed = seed;
    }

    /** Gradient noise in about [−0.7, 0.7], with {@code nu} × {@code nv} lattice cells to one repeat. */
    double gradient(double u, double v, int nu, int nv) {
        double x = u * nu;
        double y = v * nv;
        int ix = (int) Math.floor(x);
        int iy = (int) Math.floor(y);
        double fx = x - ix;
        double fy = y - iy;
        double sx = smooth(fx);
        double sy = smooth(fy);
        int x0 = wrapped(ix, nu);
        int y0 = wrapped(iy, nv);
        int x1 = x0 + 1 == nu ? 0 : x0 + 1;
        int y1 = y0 + 1 == nv ? 0 : y0 + 1;
        double a = lerp(corner(x0, y0, fx, fy), corner(x1, y0, fx - 1, fy), sx);
        double b = lerp(corner(x0, y1, fx, fy - 1), corner(x1, y1, fx - 1, fy - 1), sx);
        return lerp(a, b, sy);
    }

    /** Sum of octaves, each of twice the frequency and half the height; in about [−1, 1]. */
    double fractal(double u, double v, int nu, int nv, int octaves) {
        double sum = 0;
        double height = 1;
        for (int o = 0; o < octaves; o++) {
            sum += height * gradient(u, v, nu << o, nv << o);
            height /= 2;
        }
        return sum;
    }

    /** Cells of one scattered point each, {@code nu} × {@code nv} to one repeat. */
    Cells cells(int nu, int nv) {
        return new Cells(seed, nu, nv);
    }

    /** A value in [0, 1) that belongs to lattice cell (i, j). */
    double value(int i, int j) {
        return Chance.unit(hash(i, j));
    }

    private double corner(int i, int j, double fx, double fy) {
        int direction = (int) (hash(i, j) >>> 52);
        return COS[direction] * fx + SIN[direction] * fy;
    }

    private long hash(int i, int j) {
        return Chance.mixed(seed * Chance.STEP + i * 0xBF58476D1CE4E5B9L + j * 0x94D049BB133111EBL);
    }

    static int wrapped(int i, int n) {
        return i >= 0 && i < n ? i : Math.floorMod(i, n);
    }

    private static double smooth(double t) {
        return t * t * t * (t * (t * 6 - 15) + 10);
    }

    private static double lerp(double a, double b, double t) {
        return a + (b - a) * t;
    }
}
