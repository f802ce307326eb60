package app.zolvan.core.geometry;

import java.util.Arrays;
import java.util.function.IntPredicate;

/**
 * Which half-edges of a triangle mesh lie on one edge. Half-edge 3t + k runs from corner k of triangle t to its next one.
 *
 * @param across the half-edge on the same edge where just two triangles meet there, {@link #NONE} or {@link #SEVERAL}
 * @param alike  whether the two run the same way
 */
public record EdgePairs(int[] across, boolean[] alike) {
    /** The edge belongs to one triangle only. */
    public static final int NONE = -1;
    /** The edge is shared by more than two triangles. */
    public static final int SEVERAL = -2;

    /**
     * @param corners the place of each corner, three a triangle
     * @param leftOut triangles that take no part
     */
    public static EdgePairs of(int[] corners, IntPredicate leftOut) {
        int[] across = new int[corners.length];
        Arrays.fill(across, NONE);
        boolean[] alike = new boolean[corners.length];
        int mask = Integer.highestOneBit(Math.max(corners.length, 4)) * 4 - 1;
        long[] keys = new long[mask + 1];
        int[] firsts = new int[mask + 1];
        Arrays.fill(keys, -1);
        for (int e = 0; e < corners.length; e++) {
            if (leftOut.test(e / 3)) {
                continue;
            }
            int a = corners[e];
            int b = corners[next(e)];
            int lo = Math.min(a, b);
            int hi = Math.max(a, b);
            long key = (long) lo << 32 | hi;
            int h = VertexWeld.hash(lo, hi, 0) & mask;
            while (keys[h] != -1 && keys[h] != key) {
                h = (h + 1) & mask;
            }
            if (keys[h] == -1) {
                keys[h] = key;
                firsts[h] = e;
                continue;
            }
            int o = firsts[h];
            if (across[o] == NONE) {
                across[o] = e;
                across[e] = o;
                alike[o] = alike[e] = corners[o] == a;
                continue;
            }
            if (across[o] >= 0) {
                across[across[o]] = SEVERAL;
                across[o] = SEVERAL;
            }
            across[e] = SEVERAL;
        }
        return new EdgePairs(across, alike);
    }

    /** The half-edge that goes on where one ends. */
    public static int next(int e) {
        return e % 3 == 2 ? e - 2 : e + 1;
    }
}
