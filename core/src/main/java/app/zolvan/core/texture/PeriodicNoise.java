package app.zolvan.core.texture;

/**
 * Gradient noise (Perlin 2002, "Improving noise") and cell distances (Worley 1996) on a lattice that wraps, so that
 * patterns built on them are seamless by construction. The seed is a parameter: the same seed gives the same values.
 */
final class PeriodicNoise {
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
        double a = lerp(corner(ix, iy, nu, nv, fx, fy), corner(ix + 1, iy, nu, nv, fx - 1, fy), sx);
        double b = lerp(corner(ix, iy + 1, nu, nv, fx, fy - 1), corner(ix + 1, iy + 1, nu, nv, fx - 1, fy - 1), sx);
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

    /** Distances to the nearest and second nearest of one jittered point in each cell, in cell widths. */
    double[] cells(double u, double v, int nu, int nv) {
        double x = u * nu;
        double y = v * nv;
        int ix = (int) Math.floor(x);
        int iy = (int) Math.floor(y);
        double first = Double.MAX_VALUE;
        double second = Double.MAX_VALUE;
        for (int cy = iy - 2; cy <= iy + 2; cy++) {
            for (int cx = ix - 2; cx <= ix + 2; cx++) {
                long h = hash(Math.floorMod(cx, nu), Math.floorMod(cy, nv));
                double dx = cx + unit(h) - x;
                double dy = cy + unit(h * Chance.STEP + 1) - y;
                double d = Math.sqrt(dx * dx + dy * dy);
                if (d < first) {
                    second = first;
                    first = d;
                } else if (d < second) {
                    second = d;
                }
            }
        }
        return new double[] {first, second};
    }

    /** A value in [0, 1) that belongs to lattice cell (i, j). */
    double value(int i, int j) {
        return unit(hash(i, j));
    }

    private double corner(int ix, int iy, int nu, int nv, double fx, double fy) {
        double angle = 2 * Math.PI * unit(hash(Math.floorMod(ix, nu), Math.floorMod(iy, nv)));
        return Math.cos(angle) * fx + Math.sin(angle) * fy;
    }

    private long hash(int i, int j) {
        return Chance.mixed(seed * Chance.STEP + i * 0xBF58476D1CE4E5B9L + j * 0x94D049BB133111EBL);
    }

    private static double unit(long h) {
        long m = (h ^ (h >>> 29)) * 0xD6E8FEB86659FD93L;
        return (m >>> 11) * 0x1.0p-53;
    }

    private static double smooth(double t) {
        return t * t * t * (t * (t * 6 - 15) + 10);
    }

    private static double lerp(double a, double b, double t) {
        return a + (b - a) * t;
    }
}
