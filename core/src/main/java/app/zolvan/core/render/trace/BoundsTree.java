package app.zolvan.core.render.trace;

import java.util.Arrays;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;
import java.util.concurrent.RecursiveAction;

/**
 * A binary hierarchy of boxes over things that have boxes (triangles, or placed shapes), built top-down by the surface
 * area heuristic over 16 bins on each axis (Wald 2007). The two halves of a large
 * node are built at the same time, each into its own stretch of the arrays, so that the tree is the same for any number
 * of threads.
 *
 * <p>Layout: node i has the box {@code bounds[6i … 6i+5]} (minimum x, y, z, maximum x, y, z). An inner node's children
 * are {@code left[i]} and {@code right[i]}; a leaf has {@code right[i] = ~count} and its things are {@code
 * order[left[i]] …}. Node 0 is the root.
 */
final class BoundsTree {
    private static final int BINS = 16;
    private static final int DEEPEST = 60;
    private static final int WORTH_A_THREAD = 1 << 13;
    /** A record of a thing while the tree is built: its box, its number, and one place for alignment. */
    private static final int STRIDE = 7;

    final float[] bounds;
    final int[] left;
    final int[] right;
    final int[] order;

    private final float[] things;
    private final int leaf;

    /**
     * @param boxes minimum x, y, z, maximum x, y, z of each thing
     * @param n     how many things, at least one
     * @param leaf  so many or fewer stay together
     */
    static BoundsTree of(float[] boxes, int n, int leaf) {
        return new BoundsTree(boxes, n, leaf);
    }

    private BoundsTree(float[] boxes, int n, int leaf) {
        this.leaf = leaf;
        int most = Math.max(1, 2 * n - 1);
        bounds = new float[6 * most];
        left = new int[most];
        right = new int[most];
        order = new int[n];
        things = new float[STRIDE * n];
        for (int i = 0; i < n; i++) {
            System.arraycopy(boxes, 6 * i, things, STRIDE * i, 6);
            things[STRIDE * i + 6] = Float.intBitsToFloat(i);
        }
        Build root = new Build(0, 0, n, 0);
        if (n <= WORTH_A_THREAD) {
            root.compute();
        } else if (ForkJoinTask.inForkJoinPool()) {
            root.invoke();
        } else {
            ForkJoinPool.commonPool().invoke(root);
        }
        for (int i = 0; i < n; i++) {
            order[i] = Float.floatToRawIntBits(things[STRIDE * i + 6]);
        }
    }

    boolean isLeaf(int node) {
        return right[node] < 0;
    }

    int count(int leaf) {
        return ~right[leaf];
    }

    /** Half the surface area of a node's box. */
    float area(int node) {
        int b = 6 * node;
        float x = bounds[b + 3] - bounds[b];
        float y = bounds[b + 4] - bounds[b + 1];
        float z = bounds[b + 5] - bounds[b + 2];
        return x * y + y * z + z * x;
    }

    /** Builds one subtree: node {@code node} over things from … to. Its descendants take the nodes right after it. */
    @SuppressWarnings("serial") // never written out
    private final class Build extends RecursiveAction {
        private final int node;
        private final int from;
        private final int to;
        private final int depth;

        Build(int node, int from, int to, int depth) {
            this.node = node;
            this.from = from;
            this.to = to;
            this.depth = depth;
        }

        @Override
        protected void compute() {
            Bins bins = new Bins();
            build(bins, node, from, to, depth);
        }

        private void build(Bins bins, int node, int from, int to, int depth) {
            bins.measure(things, from, to);
            System.arraycopy(bins.box, 0, bounds, 6 * node, 6);
            int n = to - from;
            if (n <= leaf) {
                left[node] = from;
                right[node] = ~n;
                return;
            }
            int middle = depth >= DEEPEST ? -1 : bins.split(things, from, to);
            if (middle <= from || middle >= to) {
                middle = (from + to) >>> 1;
            }
            int first = node + 1;
            int second = node + 2 * (middle - from);
            left[node] = first;
            right[node] = second;
            if (n > WORTH_A_THREAD) {
                invokeAll(new Build(first, from, middle, depth + 1), new Build(second, middle, to, depth + 1));
            } else {
                build(bins, first, from, middle, depth + 1);
                build(bins, second, middle, to, depth + 1);
            }
        }
    }

    /** Where one node's things lie, and the best way to part them. */
    private static final class Bins {
        final float[] box = new float[6];
        private final float[] centres = new float[6];
        private final float[] boxes = new float[3 * BINS * 6];
        private final int[] counts = new int[3 * BINS];
        private final float[] scale = new float[3];
        private final float[] swept = new float[6];
        private final float[] costLeft = new float[BINS];

        void measure(float[] t, int from, int to) {
            float x0 = Float.POSITIVE_INFINITY;
            float y0 = x0;
            float z0 = x0;
            float x1 = -x0;
            float y1 = -x0;
            float z1 = -x0;
            float cx0 = x0;
            float cy0 = x0;
            float cz0 = x0;
            float cx1 = -x0;
            float cy1 = -x0;
            float cz1 = -x0;
            for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
                float ax = t[i];
                float ay = t[i + 1];
                float az = t[i + 2];
                float bx = t[i + 3];
                float by = t[i + 4];
                float bz = t[i + 5];
                x0 = ax < x0 ? ax : x0;
                y0 = ay < y0 ? ay : y0;
                z0 = az < z0 ? az : z0;
                x1 = bx > x1 ? bx : x1;
                y1 = by > y1 ? by : y1;
                z1 = bz > z1 ? bz : z1;
                float cx = ax + bx;
                float cy = ay + by;
                float cz = az + bz;
                cx0 = cx < cx0 ? cx : cx0;
                cy0 = cy < cy0 ? cy : cy0;
                cz0 = cz < cz0 ? cz : cz0;
                cx1 = cx > cx1 ? cx : cx1;
                cy1 = cy > cy1 ? cy : cy1;
                cz1 = cz > cz1 ? cz : cz1;
            }
            box[0] = x0;
            box[1] = y0;
            box[2] = z0;
            box[3] = x1;
            box[4] = y1;
            box[5] = z1;
            centres[0] = cx0;
            centres[1] = cy0;
            centres[2] = cz0;
            centres[3] = cx1;
            centres[4] = cy1;
            centres[5] = cz1;
        }

        /** Parts the things in place; where the second half begins, or −1 where no plane parts them. */
        int split(float[] t, int from, int to) {
            fill(t, from, to);
            float best = Float.POSITIVE_INFINITY;
            int bestAxis = -1;
            int bestBin = 0;
            for (int axis = 0; axis < 3; axis++) {
                if (scale[axis] == 0) {
                    continue;
                }
                empty(swept);
                int n = 0;
                for (int b = 0; b < BINS - 1; b++) {
                    n += counts[axis * BINS + b];
                    grow(swept, boxes, 6 * (axis * BINS + b));
                    costLeft[b] = n == 0 ? 0 : n * halfArea(swept);
                }
                empty(swept);
                n = 0;
                for (int b = BINS - 1; b > 0; b--) {
                    n += counts[axis * BINS + b];
                    grow(swept, boxes, 6 * (axis * BINS + b));
                    float cost = n == 0 ? Float.POSITIVE_INFINITY : costLeft[b - 1] + n * halfArea(swept);
                    if (cost < best && costLeft[b - 1] > 0) {
                        best = cost;
                        bestAxis = axis;
                        bestBin = b;
                    }
                }
            }
            return bestAxis < 0 ? -1 : part(t, from, to, bestAxis, bestBin);
        }

        private void fill(float[] t, int from, int to) {
            Arrays.fill(counts, 0);
            for (int i = 0; i < boxes.length; i += 6) {
                boxes[i] = boxes[i + 1] = boxes[i + 2] = Float.POSITIVE_INFINITY;
                boxes[i + 3] = boxes[i + 4] = boxes[i + 5] = Float.NEGATIVE_INFINITY;
            }
            for (int axis = 0; axis < 3; axis++) {
                float extent = centres[3 + axis] - centres[axis];
                scale[axis] = extent > 1e-30f ? BINS * 0.99999f / extent : 0;
            }
            float lowX = centres[0];
            float lowY = centres[1];
            float lowZ = centres[2];
            float scaleX = scale[0];
            float scaleY = scale[1];
            float scaleZ = scale[2];
            for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
                float x0 = t[i];
                float y0 = t[i + 1];
                float z0 = t[i + 2];
                float x1 = t[i + 3];
                float y1 = t[i + 4];
                float z1 = t[i + 5];
                put((int) ((x0 + x1 - lowX) * scaleX), x0, y0, z0, x1, y1, z1);
                put(BINS + (int) ((y0 + y1 - lowY) * scaleY), x0, y0, z0, x1, y1, z1);
                put(2 * BINS + (int) ((z0 + z1 - lowZ) * scaleZ), x0, y0, z0, x1, y1, z1);
            }
        }

        private void put(int bin, float x0, float y0, float z0, float x1, float y1, float z1) {
            float[] b = boxes;
            int at = 6 * bin;
            counts[bin]++;
            if (x0 < b[at]) {
                b[at] = x0;
            }
            if (y0 < b[at + 1]) {
                b[at + 1] = y0;
            }
            if (z0 < b[at + 2]) {
                b[at + 2] = z0;
            }
            if (x1 > b[at + 3]) {
                b[at + 3] = x1;
            }
            if (y1 > b[at + 4]) {
                b[at + 4] = y1;
            }
            if (z1 > b[at + 5]) {
                b[at + 5] = z1;
            }
        }

        private int part(float[] t, int from, int to, int axis, int bin) {
            float low = centres[axis];
            float s = scale[axis];
            int i = from;
            int j = to - 1;
            while (i <= j) {
                int a = STRIDE * i;
                if ((int) ((t[a + axis] + t[a + 3 + axis] - low) * s) < bin) {
                    i++;
                    continue;
                }
                int b = STRIDE * j--;
                for (int k = 0; k < STRIDE; k++) {
                    float v = t[a + k];
                    t[a + k] = t[b + k];
                    t[b + k] = v;
                }
            }
            return i;
        }

        private static void empty(float[] box) {
            box[0] = box[1] = box[2] = Float.POSITIVE_INFINITY;
            box[3] = box[4] = box[5] = Float.NEGATIVE_INFINITY;
        }

        private static void grow(float[] box, float[] by, int at) {
            for (int k = 0; k < 3; k++) {
                box[k] = by[at + k] < box[k] ? by[at + k] : box[k];
                box[3 + k] = by[at + 3 + k] > box[3 + k] ? by[at + 3 + k] : box[3 + k];
            }
        }

        private static float halfArea(float[] b) {
            float x = b[3] - b[0];
            float y = b[4] - b[1];
            float z = b[5] - b[2];
            return x < 0 ? 0 : x * y + y * z + z * x;
        }
    }
}
