package app.zolvan.core.geometry;

import java.util.Arrays;

/**
 * Normals for triangle corners. Around each place the triangles fall into fans: neighbours across an edge belong to one
 * fan where they turn away from each other by less than the crease angle (or lie in one smoothing group). All corners
 * of a fan share the mean of its triangles' normals, each weighted by its angle there (Thürmer & Wüthrich 1998).
 *
 * @param fan     for each corner the number of its fan; fans are numbered by their first corner
 * @param vectors x, y, z of unit length for each fan
 */
public record CornerNormals(int[] fan, float[] vectors) {
    /** Stands where a unit vector's x would, for a fan without a direction. */
    private static final float UNDECIDED = 2;

    /**
     * @param corners   the place of each corner, three per triangle
     * @param groups    smoothing group of each triangle: 0 for none, {@link CornerMesh#BY_ANGLE} for the crease angle; or
     *                  null where the crease angle decides everywhere
     */
    public static CornerNormals of(float[] positions, int places, int[] corners, int[] groups, double creaseAngle) {
        int n = corners.length;
        float[] triangleNormals = triangleNormals(positions, corners);
        int[] starts = new int[places + 1];
        for (int c : corners) {
            starts[c + 1]++;
        }
        for (int v = 0; v < places; v++) {
            starts[v + 1] += starts[v];
        }
        int[] around = new int[n];
        int[] fill = Arrays.copyOf(starts, places);
        for (int c = 0; c < n; c++) {
            around[fill[corners[c]]++] = c;
        }
        int[] root = new int[n];
        Ranges.each(places, (from, to) -> {
            Fans fans = new Fans(corners, triangleNormals, groups, creaseAngle, root);
            for (int v = from; v < to; v++) {
                fans.join(around, starts[v], starts[v + 1]);
            }
        });
        int fans = 0;
        int[] fan = root; // a root is the first corner of its fan, so it is numbered before it is asked for
        for (int c = 0; c < n; c++) {
            fan[c] = root[c] == c ? fans++ : fan[root[c]];
        }
        float[] vectors = new float[3 * fans];
        Ranges.each(places, (from, to) -> {
            for (int v = from; v < to; v++) {
                for (int i = starts[v]; i < starts[v + 1]; i++) {
                    int c = around[i];
                    add(vectors, fan[c], angleAt(positions, corners, c), triangleNormals, c / 3);
                }
            }
        });
        Ranges.each(fans, (from, to) -> normalise(vectors, from, to));
        if (hasUndecided(vectors)) {
            for (int c = 0; c < n; c++) {
                if (vectors[3 * fan[c]] == UNDECIDED) {
                    fallBack(vectors, fan[c], triangleNormals, c / 3);
                }
            }
        }
        return new CornerNormals(fan, vectors);
    }

    private static void add(float[] vectors, int at, double weight, float[] normals, int triangle) {
        vectors[3 * at] += (float) (weight * normals[3 * triangle]);
        vectors[3 * at + 1] += (float) (weight * normals[3 * triangle + 1]);
        vectors[3 * at + 2] += (float) (weight * normals[3 * triangle + 2]);
    }

    private static void normalise(float[] v, int from, int to) {
        for (int at = 3 * from; at < 3 * to; at += 3) {
            double x = v[at];
            double y = v[at + 1];
            double z = v[at + 2];
            double l = Math.sqrt(x * x + y * y + z * z);
            boolean decided = l > 1e-12;
            v[at] = decided ? (float) (x / l) : UNDECIDED;
            v[at + 1] = decided ? (float) (y / l) : 0;
            v[at + 2] = decided ? (float) (z / l) : 0;
        }
    }

    private static boolean hasUndecided(float[] vectors) {
        for (int at = 0; at < vectors.length; at += 3) {
            if (vectors[at] == UNDECIDED) {
                return true;
            }
        }
        return false;
    }

    /** A fan whose triangles cancel out takes the normal of its first one; up where that has none. */
    private static void fallBack(float[] v, int at, float[] normals, int triangle) {
        float x = normals[3 * triangle];
        float y = normals[3 * triangle + 1];
        float z = normals[3 * triangle + 2];
        v[3 * at] = x;
        v[3 * at + 1] = x == 0 && y == 0 && z == 0 ? 1 : y;
        v[3 * at + 2] = z;
    }

    private static float[] triangleNormals(float[] p, int[] c) {
        float[] out = new float[c.length];
        Ranges.each(c.length / 3, (from, to) -> triangleNormals(p, c, out, 3 * from, 3 * to));
        return out;
    }

    private static void triangleNormals(float[] p, int[] c, float[] out, int from, int to) {
        for (int t = from; t < to; t += 3) {
            int a = 3 * c[t];
            int b = 3 * c[t + 1];
            int d = 3 * c[t + 2];
            double ux = (double) p[b] - p[a];
            double uy = (double) p[b + 1] - p[a + 1];
            double uz = (double) p[b + 2] - p[a + 2];
            double vx = (double) p[d] - p[a];
            double vy = (double) p[d + 1] - p[a + 1];
            double vz = (double) p[d + 2] - p[a + 2];
            double x = uy * vz - uz * vy;
            double y = uz * vx - ux * vz;
            double z = ux * vy - uy * vx;
            double l = Math.sqrt(x * x + y * y + z * z);
            if (l > 0 && l < Double.POSITIVE_INFINITY) {
                out[t] = (float) (x / l);
                out[t + 1] = (float) (y / l);
                out[t + 2] = (float) (z / l);
            }
        }
    }

    private static double angleAt(float[] p, int[] corners, int c) {
        int k = c % 3;
        int a = 3 * corners[c];
        int b = 3 * corners[k == 2 ? c - 2 : c + 1];
        int d = 3 * corners[k == 0 ? c + 2 : c - 1];
        double ux = (double) p[b] - p[a];
        double uy = (double) p[b + 1] - p[a + 1];
        double uz = (double) p[b + 2] - p[a + 2];
        double vx = (double) p[d] - p[a];
        double vy = (double) p[d + 1] - p[a + 1];
        double vz = (double) p[d + 2] - p[a + 2];
        double l = Math.sqrt((ux * ux + uy * uy + uz * uz) * (vx * vx + vy * vy + vz * vz));
        return l > 0 ? arccosine(Math.max(-1, Math.min(1, (ux * vx + uy * vy + uz * vz) / l))) : 0;
    }

    /** Within 2e-8 (Abramowitz & Stegun, 4.4.46), which is plenty for a weight and far quicker than the exact one. */
    private static double arccosine(double x) {
        double a = Math.abs(x);
        double p = 1.5707963050
                + a
                        * (-0.2145988016
                                + a
                                        * (0.0889789874
                                                + a
                                                        * (-0.0501743046
                                                                + a
                                                                        * (0.0308918810
                                                                                + a
                                                                                        * (-0.0170881256
                                                                                                + a
                                                                                                        * (0.0066700901
                                                                                                                - a
                                                                                                                        * 0.0012624911))))));
        double r = Math.sqrt(1 - a) * p;
        return x < 0 ? Math.PI - r : r;
    }

    /** Joins the corners around one place into fans. */
    private static final class Fans {
        private static final int FEW = 48;

        private final int[] corners;
        private final float[] normals;
        private final int[] groups;
        private final float cosine;
        /** Triangles this near to one of them are within the crease angle of each other. */
        private final float halfCosine;

        private final int[] root;
        /** The two other corners' places of the triangles around the place at hand. */
        private final int[] nextPlace = new int[FEW];

        private final int[] lastPlace = new int[FEW];

        Fans(int[] corners, float[] normals, int[] groups, double creaseAngle, int[] root) {
            this.corners = corners;
            this.normals = normals;
            this.groups = groups;
            this.cosine = (float) Math.cos(creaseAngle);
            this.halfCosine = (float) Math.cos(creaseAngle / 2) + 1e-6f;
            this.root = root;
        }

        void join(int[] around, int from, int to) {
            int n = to - from;
            if (n <= FEW) {
                for (int i = 0; i < n; i++) {
                    int c = around[from + i];
                    int k = c % 3;
                    nextPlace[i] = corners[k == 2 ? c - 2 : c + 1];
                    lastPlace[i] = corners[k == 0 ? c + 2 : c - 1];
                }
                if (n > 0 && isOneSmoothFan(around, from, n)) {
                    for (int i = from; i < to; i++) {
                        root[around[i]] = around[from];
                    }
                    return;
                }
            }
            for (int i = from; i < to; i++) {
                root[around[i]] = around[i];
            }
            if (n <= FEW) {
                joinFew(around, from, n);
            } else {
                joinMany(around, from, to);
            }
            for (int i = from; i < to; i++) {
                root[around[i]] = find(around[i]);
            }
        }

        /** The usual case, told quickly: nothing near a crease, and all reached by going round from edge to edge. */
        private boolean isOneSmoothFan(int[] around, int from, int n) {
            if (groups != null) {
                return false;
            }
            int a = 3 * (around[from] / 3);
            for (int i = 1; i < n; i++) {
                int b = 3 * (around[from + i] / 3);
                if (normals[a] * normals[b] + normals[a + 1] * normals[b + 1] + normals[a + 2] * normals[b + 2]
                        < halfCosine) {
                    return false;
                }
            }
            long reached = walk(n, lastPlace, nextPlace, 1);
            return Long.bitCount(reached) == n || Long.bitCount(walk(n, nextPlace, lastPlace, reached)) == n;
        }

        /** Goes from triangle 0 on across the edges named by {@code out}; bit i of the result is set for triangle i. */
        private static long walk(int n, int[] out, int[] in, long reached) {
            int at = 0;
            for (int i = 0; i < n; i++) {
                if (in[i] == out[at] && (reached & 1L << i) == 0) {
                    reached |= 1L << i;
                    at = i;
                    i = -1;
                }
            }
            return reached;
        }

        private void joinFew(int[] around, int from, int n) {
            for (int i = 0; i < n; i++) {
                for (int j = 0; j < i; j++) {
                    if (shareEdge(i, j) && isSmooth(around[from + i] / 3, around[from + j] / 3)) {
                        union(around[from + i], around[from + j]);
                    }
                }
            }
        }

        /** Around a place where very many triangles meet: neighbours are found by sorting their other corners. */
        private void joinMany(int[] around, int from, int to) {
            long[] spokes = new long[2 * (to - from)];
            for (int i = from; i < to; i++) {
                int c = around[i];
                spokes[2 * (i - from)] = ((long) other(c, 1) << 32) | i;
                spokes[2 * (i - from) + 1] = ((long) other(c, 2) << 32) | i;
            }
            Arrays.sort(spokes);
            for (int i = 0; i + 1 < spokes.length; i++) {
                if (spokes[i] >>> 32 == spokes[i + 1] >>> 32) {
                    int a = around[(int) spokes[i]];
                    int b = around[(int) spokes[i + 1]];
                    if (isSmooth(a / 3, b / 3)) {
                        union(a, b);
                    }
                }
            }
        }

        private int other(int c, int step) {
            int t = 3 * (c / 3);
            return corners[t + (c - t + step) % 3];
        }

        private boolean shareEdge(int i, int j) {
            return nextPlace[i] == lastPlace[j]
                    || lastPlace[i] == nextPlace[j]
                    || nextPlace[i] == nextPlace[j]
                    || lastPlace[i] == lastPlace[j];
        }

        private boolean isSmooth(int t, int o) {
            if (groups != null && (groups[t] != CornerMesh.BY_ANGLE || groups[o] != CornerMesh.BY_ANGLE)) {
                return groups[t] == groups[o] && groups[t] != 0;
            }
            int a = 3 * t;
            int b = 3 * o;
            return normals[a] * normals[b] + normals[a + 1] * normals[b + 1] + normals[a + 2] * normals[b + 2]
                    >= cosine;
        }

        private int find(int c) {
            int r = c;
            while (root[r] != r) {
                r = root[r];
            }
            return r;
        }

        private void union(int a, int b) {
            int ra = find(a);
            int rb = find(b);
            root[Math.max(ra, rb)] = Math.min(ra, rb);
        }
    }
}
