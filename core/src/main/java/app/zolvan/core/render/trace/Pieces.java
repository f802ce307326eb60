package app.zolvan.core.render.trace;

import app.zolvan.core.geometry.Ranges;
import java.util.Arrays;
import java.util.function.Function;

/**
 * The boxes a tree is built over: one for each triangle, and several for the few whose box is mostly empty (a long,
 * thin, slanting triangle), cut where the tree is likely to part its things anyway (Karras & Aila 2013, section 4).
 *
 * @param boxes  minimum x, y, z, maximum x, y, z of each piece, widened by what single precision may lose on the way
 *               to them, so that no hit is passed over
 * @param shapes the triangle of each piece
 */
record Pieces(float[] boxes, int[] shapes) {

    /** How many more pieces than triangles there may be, as a share of the triangles. */
    static final double SPARE = 0.1;

    /** The tree over the pieces; its order gives triangles, some of them more than once. */
    BoundsTree tree(int leaf, Function<BoundsTree.Things, Bins> bins) {
        BoundsTree tree = BoundsTree.of(boxes, shapes.length, leaf, bins);
        for (int i = 0; i < tree.order.length; i++) {
            tree.order[i] = shapes[tree.order[i]];
        }
        return tree;
    }

    /** @param most so many pieces are made at most, as a share of the triangles, beyond one each */
    static Pieces of(float[] vertices, int[] indices, double most) {
        return new Cutter(vertices, indices).cut(most);
    }

    private static final class Cutter {
        /** So many halvings of the whole box a plane may stem from. */
        private static final int GRID = 24;
        /** No plane. */
        private static final int NONE = 4 * GRID;

        private final float[] vertices;
        private final int[] indices;
        private final int triangles;
        private final float[] low = {Float.MAX_VALUE, Float.MAX_VALUE, Float.MAX_VALUE};
        private final float[] extent = new float[3];
        private final float pad;
        private float[] boxes;
        private int[] shapes;
        private int count;

        Cutter(float[] vertices, int[] indices) {
            this.vertices = vertices;
            this.indices = indices;
            this.triangles = indices.length / 3;
            float[] high = {-Float.MAX_VALUE, -Float.MAX_VALUE, -Float.MAX_VALUE};
            for (int i = 0; i < vertices.length; i += 3) {
                for (int k = 0; k < 3; k++) {
                    low[k] = Math.min(low[k], vertices[i + k]);
                    high[k] = Math.max(high[k], vertices[i + k]);
                }
            }
            float farthest = 0;
            for (int k = 0; k < 3; k++) {
                extent[k] = high[k] - low[k];
                farthest = Math.max(farthest, Math.max(Math.abs(low[k]), Math.abs(high[k])));
            }
            pad = 1e-6f * farthest;
        }

        Pieces cut(double most) {
            boxes = new float[6 * triangles];
            float[] need = new float[triangles];
            Ranges.each(triangles, (from, to) -> {
                for (int t = from; t < to; t++) {
                    box(t);
                    need[t] = need(t);
                }
            });
            int[] needy = new int[triangles];
            int some = 0;
            double total = 0;
            for (int t = 0; t < triangles; t++) {
                if (need[t] > 0) {
                    needy[some] = t;
                    total += need[t];
                    need[some++] = need[t];
                }
            }
            int spare = (int) (most * triangles);
            double scale = total > 0 && spare > 0 ? scale(need, some, total, spare) : 0;
            int pieces = triangles;
            for (int i = 0; i < some; i++) {
                pieces += (int) (scale * need[i]);
            }
            boxes = Arrays.copyOf(boxes, 6 * pieces);
            shapes = new int[pieces];
            for (int t = 0; t < triangles; t++) {
                shapes[t] = t;
            }
            count = triangles;
            for (int i = 0; i < some; i++) {
                cut(needy[i], needy[i], (int) (scale * need[i]));
            }
            Ranges.each(count, (from, to) -> {
                for (int i = 6 * from; i < 6 * to; i += 6) {
                    for (int k = 0; k < 3; k++) {
                        boxes[i + k] -= pad;
                        boxes[i + 3 + k] += pad;
                    }
                }
            });
            return count == pieces
                    ? new Pieces(boxes, shapes)
                    : new Pieces(Arrays.copyOf(boxes, 6 * count), Arrays.copyOf(shapes, count));
        }

        /** How many cuts a unit of need gets, so that all together spend what is spare. */
        private static double scale(float[] need, int some, double total, int spare) {
            double few = spare / total;
            double many = few * 8;
            for (int i = 0; i < 8; i++) {
                double middle = 0.5 * (few + many);
                long cuts = 0;
                for (int k = 0; k < some; k++) {
                    cuts += (long) (middle * need[k]);
                }
                if (cuts > spare) {
                    many = middle;
                } else {
                    few = middle;
                }
            }
            return few;
        }

        private void box(int t) {
            int a = 3 * indices[3 * t];
            int b = 3 * indices[3 * t + 1];
            int c = 3 * indices[3 * t + 2];
            for (int k = 0; k < 3; k++) {
                float p = vertices[a + k];
                float q = vertices[b + k];
                float r = vertices[c + k];
                boxes[6 * t + k] = p < q ? (p < r ? p : r) : (q < r ? q : r);
                boxes[6 * t + 3 + k] = p > q ? (p > r ? p : r) : (q > r ? q : r);
            }
        }

        /** The cube root of the surface that cutting for ever would win, weighted by how high up the plane lies. */
        private float need(int t) {
            int o = 6 * t;
            float x = boxes[o + 3] - boxes[o];
            float y = boxes[o + 4] - boxes[o + 1];
            float z = boxes[o + 5] - boxes[o + 2];
            float surface = 2 * (x * y + y * z + z * x);
            int a = 3 * indices[3 * t];
            int b = 3 * indices[3 * t + 1];
            int c = 3 * indices[3 * t + 2];
            float ux = vertices[b] - vertices[a];
            float uy = vertices[b + 1] - vertices[a + 1];
            float uz = vertices[b + 2] - vertices[a + 2];
            float vx = vertices[c] - vertices[a];
            float vy = vertices[c + 1] - vertices[a + 1];
            float vz = vertices[c + 2] - vertices[a + 2];
            float least = Math.abs(uy * vz - uz * vy) + Math.abs(uz * vx - ux * vz) + Math.abs(ux * vy - uy * vx);
            int best = surface > 1.05f * least ? bestPlane(o) : NONE;
            return best == NONE ? 0 : cubeRoot((surface - least) / (1 << (best >> 2)));
        }

        /** Within a thousandth, by a guess at its bits and a step of Newton's: plenty for a share. */
        private static float cubeRoot(float v) {
            float guess = Float.intBitsToFloat(Float.floatToRawIntBits(v) / 3 + 0x2A5137A0);
            return guess - (guess - v / (guess * guess)) / 3;
        }

        /** The plane through a box that stems from the fewest halvings of the whole: four times their number plus its axis. */
        private int bestPlane(int o) {
            int best = NONE;
            for (int k = 0; k < 3; k++) {
                int bit = halvings(o, k);
                if (bit < 0 || 4 * (GRID - 1 - bit) >= best) {
                    continue;
                }
                float p = plane(o, k, bit);
                if (p > boxes[o + k] && p < boxes[o + 3 + k]) {
                    best = 4 * (GRID - 1 - bit) + k;
                }
            }
            return best;
        }

        /** The first bit in which the box's ends differ on the grid of halvings, from the last one; −1 for none. */
        private int halvings(int o, int axis) {
            if (!(extent[axis] > 0)) {
                return -1;
            }
            float cells = (1 << GRID) / extent[axis];
            int from = (int) ((boxes[o + axis] - low[axis]) * cells);
            int to = (int) ((boxes[o + 3 + axis] - low[axis]) * cells);
            return from >= to ? -1 : 31 - Integer.numberOfLeadingZeros(from ^ to);
        }

        private float plane(int o, int axis, int bit) {
            int to = (int) ((boxes[o + 3 + axis] - low[axis]) * ((1 << GRID) / extent[axis]));
            return low[axis] + (to >> bit << bit) * (extent[axis] / (1 << GRID));
        }

        /** Cuts the piece of a triangle, which is {@code me}, into up to {@code cuts + 1}. */
        private void cut(int t, int me, int cuts) {
            int best = cuts > 0 ? bestPlane(6 * me) : NONE;
            if (best == NONE) {
                return;
            }
            int other = count++;
            shapes[other] = t;
            int k = best & 3;
            float p = plane(6 * me, k, GRID - 1 - (best >> 2));
            float[] a = {
                Float.MAX_VALUE, Float.MAX_VALUE, Float.MAX_VALUE, -Float.MAX_VALUE, -Float.MAX_VALUE, -Float.MAX_VALUE
            };
            float[] b = a.clone();
            for (int i = 0; i < 3; i++) {
                int from = 3 * indices[3 * t + i];
                int to = 3 * indices[3 * t + (i + 1) % 3];
                float f = vertices[from + k];
                float g = vertices[to + k];
                if (f <= p) {
                    grow(a, vertices[from], vertices[from + 1], vertices[from + 2]);
                }
                if (f >= p) {
                    grow(b, vertices[from], vertices[from + 1], vertices[from + 2]);
                }
                if ((f < p && g > p) || (f > p && g < p)) {
                    float s = (p - f) / (g - f);
                    float x = vertices[from] + s * (vertices[to] - vertices[from]);
                    float y = vertices[from + 1] + s * (vertices[to + 1] - vertices[from + 1]);
                    float z = vertices[from + 2] + s * (vertices[to + 2] - vertices[from + 2]);
                    grow(a, x, y, z);
                    grow(b, x, y, z);
                }
            }
            a[3 + k] = p;
            b[k] = p;
            narrow(b, 6 * me, 6 * other);
            narrow(a, 6 * me, 6 * me);
            double wide = widest(6 * me);
            double otherWide = widest(6 * other);
            int rest = cuts - 1;
            int first = (int) (rest * wide / (wide + otherWide) + 0.5);
            cut(t, me, first);
            cut(t, other, rest - first);
        }

        private static void grow(float[] box, float x, float y, float z) {
            box[0] = Math.min(box[0], x);
            box[1] = Math.min(box[1], y);
            box[2] = Math.min(box[2], z);
            box[3] = Math.max(box[3], x);
            box[4] = Math.max(box[4], y);
            box[5] = Math.max(box[5], z);
        }

        /** What a box and one kept at {@code from} share, kept at {@code to}. */
        private void narrow(float[] box, int from, int to) {
            for (int i = 0; i < 3; i++) {
                boxes[to + i] = Math.max(boxes[from + i], box[i]);
            }
            for (int i = 3; i < 6; i++) {
                boxes[to + i] = Math.min(boxes[from + i], box[i]);
            }
        }

        private double widest(int o) {
            return Math.max(
                    1e-30,
                    Math.max(
                            boxes[o + 3] - boxes[o],
                            Math.max(boxes[o + 4] - boxes[o + 1], boxes[o + 5] - boxes[o + 2])));
        }
    }
}
