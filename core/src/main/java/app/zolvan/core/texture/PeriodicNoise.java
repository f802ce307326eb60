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

    /** Corners of a lattice whose slopes are kept: 2 MB of them. */
    private static final int MOST_KEPT = 1 << 17;

    private final long seed;
    /** Far more than a pattern has of them, by their sizes; immutable, so that threads may race to fill it. */
    private final Lattice[] lattices = new Lattice[256];

    PeriodicNoise(long seed) {
        this.seed = seed;
    }

    /** Gradient noise in about [−0.7, 0.7], with {@code nu} × {@code nv} lattice cells to one repeat. */
    double gradient(double u, double v, int nu, int nv) {
        return lattice(nu, nv).at(u, v);
    }

    private Lattice lattice(int nu, int nv) {
        int slot = nu + 5 * nv & lattices.length - 1;
        Lattice lattice = lattices[slot];
        while (lattice == null || lattice.nu != nu || lattice.nv != nv) {
            if (lattice == null) {
                lattices[slot] = new Lattice(seed, nu, nv);
            } else {
                slot = slot + 1 & lattices.length - 1;
            }
            lattice = lattices[slot];
        }
        return lattice;
    }

    /** A lattice, with the slopes at its corners where there are few enough of them to be kept. */
    private static final class Lattice {
        final long seed;
        final int nu;
        final int nv;
        /** Along u and v, row by row, the first of each row and the first row once more at the end; null for too many. */
        final double[] slopes;

        private Lattice finer;

        Lattice(long seed, int nu, int nv) {
            this.seed = seed;
            this.nu = nu;
            this.nv = nv;
            if ((nu + 1L) * (nv + 1L) > MOST_KEPT) {
                slopes = null;
                return;
            }
            slopes = new double[2 * (nu + 1) * (nv + 1)];
            for (int k = 0; k < slopes.length / 2; k++) {
                int direction = direction(k % (nu + 1) % nu, k / (nu + 1) % nv);
                slopes[2 * k] = COS[direction];
                slopes[2 * k + 1] = SIN[direction];
            }
        }

        /** Of twice the frequency. */
        Lattice finer() {
            if (finer == null) {
                finer = new Lattice(seed, 2 * nu, 2 * nv);
            }
            return finer;
        }

        double at(double u, double v) {
            double x = u * nu;
            double y = v * nv;
            double floorX = Math.floor(x);
            double floorY = Math.floor(y);
            int x0 = wrapped((int) floorX, nu);
            int y0 = wrapped((int) floorY, nv);
            return slopes == null
                    ? drawn(x0, y0, x - floorX, y - floorY)
                    : known(2 * (y0 * (nu + 1) + x0), x - floorX, y - floorY);
        }

        private double known(int k, double fx, double fy) {
            double[] g = slopes;
            int l = k + 2 * (nu + 1);
            double sx = smooth(fx);
            double a = lerp(g[k] * fx + g[k + 1] * fy, g[k + 2] * (fx - 1) + g[k + 3] * fy, sx);
            double b = lerp(g[l] * fx + g[l + 1] * (fy - 1), g[l + 2] * (fx - 1) + g[l + 3] * (fy - 1), sx);
            return lerp(a, b, smooth(fy));
        }

        private double drawn(int x0, int y0, double fx, double fy) {
            int x1 = x0 + 1 == nu ? 0 : x0 + 1;
            int y1 = y0 + 1 == nv ? 0 : y0 + 1;
            double sx = smooth(fx);
            double a = lerp(corner(x0, y0, fx, fy), corner(x1, y0, fx - 1, fy), sx);
            double b = lerp(corner(x0, y1, fx, fy - 1), corner(x1, y1, fx - 1, fy - 1), sx);
            return lerp(a, b, smooth(fy));
        }

        private double corner(int i, int j, double fx, double fy) {
            int direction = direction(i, j);
            return COS[direction] * fx + SIN[direction] * fy;
        }

        private int direction(int i, int j) {
            return (int) (hash(seed, i, j) >>> 52);
        }
    }

    /** Sum of octaves, each of twice the frequency and half the height; in about [−1, 1]. */
    double fractal(double u, double v, int nu, int nv, int octaves) {
        double sum = 0;
        double height = 1;
        Lattice lattice = lattice(nu, nv);
        for (int o = 0; o < octaves; o++) {
            if (o > 0) {
                lattice = lattice.finer();
            }
            sum += height * lattice.at(u, v);
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
        return Chance.unit(hash(seed, i, j));
    }

    private static long hash(long seed, int i, int j) {
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
