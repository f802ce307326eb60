package app.zolvan.core.render.trace;

import app.zolvan.core.geometry.Ranges;
import java.util.Arrays;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;
import java.util.concurrent.RecursiveAction;
import java.util.function.Function;

/**
 * A binary hierarchy of boxes over things that have boxes (triangles, or placed shapes), built top-down by the surface
 * area heuristic over bins on each axis (Wald 2007). The two halves of a large node are built at the same time, each
 * into its own stretch of the arrays, so that the tree is the same for any number of threads.
 *
 * <p>Layout: node i has the box {@code bounds[6i … 6i+5]} (minimum x, y, z, maximum x, y, z). An inner node's children
 * are {@code left[i]} and {@code right[i]}; a leaf has {@code right[i] = ~count} and its things are {@code
 * order[left[i]] …}. Node 0 is the root.
 */
final class BoundsTree {
    /** From here on things are halved by number: no plane parts them well. */
    static final int DEEPEST = 60;

    private static final int WORTH_A_THREAD = 1 << 13;

    final float[] bounds;
    final int[] left;
    final int[] right;
    final int[] order;

    private final Things things;
    private final Function<Things, Bins> bins;
    private final int leaf;

    /**
     * @param boxes minimum x, y, z, maximum x, y, z of each thing
     * @param n     how many things, at least one
     * @param leaf  so many or fewer stay together
     * @param bins  what parts them
     */
    static BoundsTree of(float[] boxes, int n, int leaf, Function<Things, Bins> bins) {
        return new BoundsTree(boxes, n, leaf, bins);
    }

    private BoundsTree(float[] boxes, int n, int leaf, Function<Things, Bins> bins) {
        this.leaf = leaf;
        this.bins = bins;
        int most = Math.max(1, 2 * n - 1);
        bounds = new float[6 * most];
        left = new int[most];
        right = new int[most];
        order = new int[n];
        things = new Things(boxes, n);
        Bins whole = bins.apply(things);
        whole.measure(things.records, 0, n, 0);
        Build root = new Build(0, 0, n, 0, whole.copy(0));
        if (n <= WORTH_A_THREAD) {
            root.compute();
        } else if (ForkJoinTask.inForkJoinPool()) {
            root.invoke();
        } else {
            ForkJoinPool.commonPool().invoke(root);
        }
    }

    boolean isLeaf(int node) {
        return right[node] < 0;
    }

    int leaves() {
        int n = 0;
        for (int r : right) {
            n += r >>> 31;
        }
        return n;
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

    /**
     * Things with boxes, each a record of eight: how far its box reaches down from the highest place of all, x, y, z; its
     * number; how far it reaches up from the lowest place of all, x, y, z; 0. No reach is negative, so that their bits
     * compare like themselves: growing a box is taking the larger of integers.
     */
    static final class Things {
        static final int STRIDE = 8;
        static final int NUMBER = 3;

        /** Nodes at an even depth have their things in the first, the others in the second. */
        final int[] records;

        final int[] others;
        final float[] lowest = new float[3];
        final float[] highest = new float[3];

        Things(float[] boxes, int n) {
            Arrays.fill(lowest, Float.POSITIVE_INFINITY);
            Arrays.fill(highest, Float.NEGATIVE_INFINITY);
            for (int i = 0; i < n; i++) {
                for (int k = 0; k < 3; k++) {
                    lowest[k] = boxes[6 * i + k] < lowest[k] ? boxes[6 * i + k] : lowest[k];
                    highest[k] = boxes[6 * i + 3 + k] > highest[k] ? boxes[6 * i + 3 + k] : highest[k];
                }
            }
            records = new int[STRIDE * n];
            others = new int[STRIDE * n];
            Ranges.each(n, (from, to) -> {
                for (int i = from; i < to; i++) {
                    int at = STRIDE * i;
                    for (int k = 0; k < 3; k++) {
                        records[at + k] = Float.floatToRawIntBits(highest[k] - boxes[6 * i + k]);
                        records[at + 4 + k] = Float.floatToRawIntBits(boxes[6 * i + 3 + k] - lowest[k]);
                    }
                    records[at + NUMBER] = i;
                }
            });
        }

        float extent(int axis) {
            return highest[axis] - lowest[axis];
        }
    }

    /** Builds one subtree: node {@code node} over things from … to. Its descendants take the nodes right after it. */
    @SuppressWarnings("serial") // never written out
    private final class Build extends RecursiveAction {
        private final int node;
        private final int from;
        private final int to;
        private final int depth;
        private final int[] known;

        /** @param known what {@link Bins#state} says of it */
        Build(int node, int from, int to, int depth, int[] known) {
            this.node = node;
            this.from = from;
            this.to = to;
            this.depth = depth;
            this.known = known;
        }

        @Override
        protected void compute() {
            Bins own = bins.apply(things);
            System.arraycopy(known, 0, own.state, 0, Bins.ONE);
            build(own, 0, node, from, to, depth);
        }

        /** @param slot where the bins keep what is known of this node */
        private void build(Bins own, int slot, int node, int from, int to, int depth) {
            int[] state = own.state;
            for (int k = 0; k < 3; k++) {
                bounds[6 * node + k] = things.highest[k] - Float.intBitsToFloat(state[slot + k]);
                bounds[6 * node + 3 + k] = things.lowest[k] + Float.intBitsToFloat(state[slot + 4 + k]);
            }
            int[] mine = depth % 2 == 0 ? things.records : things.others;
            int[] parted = depth % 2 == 0 ? things.others : things.records;
            int n = to - from;
            if (n <= leaf) {
                left[node] = from;
                right[node] = ~n;
                for (int i = from; i < to; i++) {
                    order[i] = mine[Things.STRIDE * i + Things.NUMBER];
                }
                return;
            }
            int next = Bins.firstChild(slot);
            int other = Bins.secondChild(slot);
            int middle = depth >= DEEPEST ? -1 : own.split(mine, parted, from, to, slot);
            if (middle <= from || middle >= to) {
                middle = (from + to) >>> 1;
                System.arraycopy(mine, Things.STRIDE * from, parted, Things.STRIDE * from, Things.STRIDE * n);
                own.measure(parted, from, middle, next);
                own.measure(parted, middle, to, other);
            }
            int first = node + 1;
            int second = node + 2 * (middle - from);
            left[node] = first;
            right[node] = second;
            if (n > WORTH_A_THREAD) {
                invokeAll(
                        new Build(first, from, middle, depth + 1, own.copy(next)),
                        new Build(second, middle, to, depth + 1, own.copy(other)));
            } else {
                build(own, next, first, from, middle, depth + 1);
                System.arraycopy(state, other, state, next, Bins.ONE);
                build(own, next, second, middle, to, depth + 1);
            }
        }
    }
}
