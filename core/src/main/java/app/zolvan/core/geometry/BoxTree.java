package app.zolvan.core.geometry;

import java.util.function.IntConsumer;
import java.util.function.IntToDoubleFunction;

/**
 * A tree over boxes for asking which of them touch a box, or what lies nearest, halved by number along the longest side
 * of their centres' bounds. The same boxes always make the same tree.
 *
 * <p>Boxes are six numbers each: minimum x, y, z, maximum x, y, z. Node i covers {@code order[from … to)}, and its
 * children are 2i + 1 and 2i + 2.
 */
public final class BoxTree {
    private static final int LEAF = 8;

    private final double[] boxes;
    private final int[] order;
    private final double[] bounds;
    private final int leaves;

    /** @param boxes six numbers a box; kept, not copied */
    public BoxTree(double[] boxes) {
        this.boxes = boxes;
        int n = boxes.length / 6;
        int size = 1;
        while (size * LEAF < n) {
            size *= 2;
        }
        leaves = size;
        order = new int[n];
        bounds = new double[6 * (2 * size - 1)];
        for (int i = 0; i < n; i++) {
            order[i] = i;
        }
        build(0, 0, n);
    }

    private void build(int node, int from, int to) {
        double[] centres = new double[6];
        clear(bounds, 6 * node);
        clear(centres, 0);
        for (int i = from; i < to; i++) {
            int b = 6 * order[i];
            for (int k = 0; k < 3; k++) {
                bounds[6 * node + k] = Math.min(bounds[6 * node + k], boxes[b + k]);
                bounds[6 * node + 3 + k] = Math.max(bounds[6 * node + 3 + k], boxes[b + 3 + k]);
                double c = boxes[b + k] + boxes[b + 3 + k];
                centres[k] = Math.min(centres[k], c);
                centres[3 + k] = Math.max(centres[3 + k], c);
            }
        }
        if (isLeaf(node)) {
            return;
        }
        int axis = 0;
        for (int k = 1; k < 3; k++) {
            axis = centres[3 + k] - centres[k] > centres[3 + axis] - centres[axis] ? k : axis;
        }
        int middle = (from + to) >>> 1;
        select(from, to, middle, axis);
        build(2 * node + 1, from, middle);
        build(2 * node + 2, middle, to);
    }

    private static void clear(double[] box, int at) {
        for (int k = 0; k < 3; k++) {
            box[at + k] = Double.POSITIVE_INFINITY;
            box[at + 3 + k] = Double.NEGATIVE_INFINITY;
        }
    }

    private boolean isLeaf(int node) {
        return node >= leaves - 1;
    }

    private double centre(int i, int axis) {
        int b = 6 * order[i];
        return boxes[b + axis] + boxes[b + 3 + axis];
    }

    /** Puts the box that would come at {@code k} in the order of centres there, lower ones before it (Hoare 1961). */
    private void select(int from, int to, int k, int axis) {
        int lo = from;
        int hi = to - 1;
        while (lo < hi) {
            double pivot = centre((lo + hi) >>> 1, axis);
            int i = lo;
            int j = hi;
            while (i <= j) {
                while (centre(i, axis) < pivot) {
                    i++;
                }
                while (centre(j, axis) > pivot) {
                    j--;
                }
                if (i <= j) {
                    int o = order[i];
                    order[i++] = order[j];
                    order[j--] = o;
                }
            }
            if (k <= j) {
                hi = j;
            } else if (k >= i) {
                lo = i;
            } else {
                return;
            }
        }
    }

    /** Calls for every box that touches the one given, in an order that is always the same. */
    public void touching(double[] box, IntConsumer found) {
        if (order.length > 0) {
            visit(0, 0, order.length, box, found);
        }
    }

    private void visit(int node, int from, int to, double[] box, IntConsumer found) {
        if (!touches(bounds, 6 * node, box)) {
            return;
        }
        if (isLeaf(node)) {
            for (int i = from; i < to; i++) {
                if (touches(boxes, 6 * order[i], box)) {
                    found.accept(order[i]);
                }
            }
            return;
        }
        int middle = (from + to) >>> 1;
        visit(2 * node + 1, from, middle, box, found);
        visit(2 * node + 2, middle, to, box, found);
    }

    /**
     * The least distance from a point to the things in the boxes.
     *
     * @param distance of one of them, never less than to its box; infinity where there are none
     */
    public double nearest(Vec3 p, IntToDoubleFunction distance) {
        return order.length == 0
                ? Double.POSITIVE_INFINITY
                : nearest(0, 0, order.length, p, distance, Double.POSITIVE_INFINITY);
    }

    private double nearest(int node, int from, int to, Vec3 p, IntToDoubleFunction distance, double known) {
        double best = known;
        if (isLeaf(node)) {
            for (int i = from; i < to; i++) {
                if (away(boxes, 6 * order[i], p) < best) {
                    best = Math.min(best, distance.applyAsDouble(order[i]));
                }
            }
            return best;
        }
        int middle = (from + to) >>> 1;
        double left = away(bounds, 6 * (2 * node + 1), p);
        double right = away(bounds, 6 * (2 * node + 2), p);
        for (int turn = 0; turn < 2; turn++) {
            boolean first = turn == 0 == left <= right;
            if ((first ? left : right) < best) {
                best = first
                        ? nearest(2 * node + 1, from, middle, p, distance, best)
                        : nearest(2 * node + 2, middle, to, p, distance, best);
            }
        }
        return best;
    }

    private static double away(double[] box, int at, Vec3 p) {
        double sum = 0;
        for (int k = 0; k < 3; k++) {
            double d = Math.max(0, Math.max(box[at + k] - p.get(k), p.get(k) - box[at + 3 + k]));
            sum += d * d;
        }
        return Math.sqrt(sum);
    }

    private static boolean touches(double[] a, int at, double[] b) {
        return a[at] <= b[3]
                && a[at + 3] >= b[0]
                && a[at + 1] <= b[4]
                && a[at + 4] >= b[1]
                && a[at + 2] <= b[5]
                && a[at + 5] >= b[2];
    }
}
