package app.zolvan.core.geometry;

import java.util.Arrays;

/**
 * Finds positions that are one place: first those that are exactly equal, then, with a tolerance, those nearer to each
 * other than that. The lowest number of each place stands for it.
 */
public final class VertexWeld {
    private VertexWeld() {}

    /** For each of {@code n} positions the first that equals it exactly (−0 equals +0). */
    public static int[] exact(float[] p, int n) {
        int[] result = new int[n];
        int mask = Integer.highestOneBit(Math.max(n, 4)) * 2 - 1;
        int[] slots = new int[mask + 1];
        Arrays.fill(slots, -1);
        for (int v = 0; v < n; v++) {
            float x = p[3 * v] + 0f;
            float y = p[3 * v + 1] + 0f;
            float z = p[3 * v + 2] + 0f;
            int h = hash(Float.floatToIntBits(x), Float.floatToIntBits(y), Float.floatToIntBits(z)) & mask;
            int o;
            while ((o = slots[h]) >= 0 && !(p[3 * o] == x && p[3 * o + 1] == y && p[3 * o + 2] == z)) {
                h = (h + 1) & mask;
            }
            if (o < 0) {
                slots[h] = v;
                result[v] = v;
            } else {
                result[v] = o;
            }
        }
        return result;
    }

    /** Like {@link #exact}, and then joins places within {@code tolerance} of each other, in the positions' unit. */
    public static int[] within(float[] p, int n, double tolerance) {
        int[] weld = exact(p, n);
        if (tolerance <= 0) {
            return weld;
        }
        double cell = 2 * tolerance;
        int mask = Integer.highestOneBit(Math.max(n, 4)) * 2 - 1;
        int[] heads = new int[mask + 1];
        Arrays.fill(heads, -1);
        int[] chain = new int[n];
        for (int v = 0; v < n; v++) {
            if (weld[v] != v) {
                weld[v] = weld[weld[v]];
                continue;
            }
            int found = -1;
            for (int corner = 0; corner < 8 && found < 0; corner++) {
                int h = cellHash(p, v, cell, corner) & mask;
                for (int o = heads[h]; o >= 0 && found < 0; o = chain[o]) {
                    if (distance(p, v, o) <= tolerance) {
                        found = o;
                    }
                }
            }
            if (found >= 0) {
                weld[v] = found;
            } else {
                int h = hash(
                                Long.hashCode((long) Math.floor(p[3 * v] / cell)),
                                Long.hashCode((long) Math.floor(p[3 * v + 1] / cell)),
                                Long.hashCode((long) Math.floor(p[3 * v + 2] / cell)))
                        & mask;
                chain[v] = heads[h];
                heads[h] = v;
            }
        }
        return weld;
    }

    /** The cell of the point moved by half a cell to one of eight sides: together all that lie within reach. */
    private static int cellHash(float[] p, int v, double cell, int corner) {
        double half = cell / 2;
        return hash(
                Long.hashCode((long) Math.floor((p[3 * v] + ((corner & 1) == 0 ? -half : half)) / cell)),
                Long.hashCode((long) Math.floor((p[3 * v + 1] + ((corner & 2) == 0 ? -half : half)) / cell)),
                Long.hashCode((long) Math.floor((p[3 * v + 2] + ((corner & 4) == 0 ? -half : half)) / cell)));
    }

    private static double distance(float[] p, int a, int b) {
        double dx = p[3 * a] - p[3 * b];
        double dy = p[3 * a + 1] - p[3 * b + 1];
        double dz = p[3 * a + 2] - p[3 * b + 2];
        return Math.sqrt(dx * dx + dy * dy + dz * dz);
    }

    /** Three numbers made one, thoroughly; for hash tables. */
    public static int hash(int a, int b, int c) {
        int h = a * 0x9E3779B1 ^ Integer.rotateLeft(b * 0x85EBCA77, 13) ^ Integer.rotateLeft(c * 0xC2B2AE3D, 26);
        h = (h ^ (h >>> 15)) * 0x2C1B3C6D;
        return h ^ (h >>> 13);
    }
}
