package app.zolvan.core.render.trace;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.BitSet;
import java.util.SplittableRandom;
import java.util.concurrent.ForkJoinPool;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a tree is built over and how: nothing is lost, and nothing depends on the number of threads. */
class TreeTest {
    private static final int TRIANGLES = 20_000;

    /** Half of them small, the others long slivers across the whole; three corners each. */
    private static float[] scattered(long seed) {
        SplittableRandom random = new SplittableRandom(seed);
        float[] p = new float[9 * TRIANGLES];
        for (int t = 0; t < TRIANGLES; t++) {
            double reach = t % 2 == 0 ? 0.02 : 3;
            double[] from = {random.nextDouble(-5, 5), random.nextDouble(-1, 1), random.nextDouble(-5, 5)};
            double[] way = {random.nextDouble(-1, 1), random.nextDouble(-1, 1), random.nextDouble(-1, 1)};
            for (int k = 0; k < 3; k++) {
                p[9 * t + k] = (float) from[k];
                p[9 * t + 3 + k] = (float) (from[k] + reach * way[k]);
                p[9 * t + 6 + k] = (float) (from[k] + 0.01 * random.nextDouble());
            }
        }
        return p;
    }

    private static int[] counting(int n) {
        int[] v = new int[n];
        Arrays.setAll(v, i -> i);
        return v;
    }

    private static boolean holds(float[] boxes, int i, double[] p) {
        for (int k = 0; k < 3; k++) {
            if (p[k] < boxes[6 * i + k] || p[k] > boxes[6 * i + 3 + k]) {
                return false;
            }
        }
        return true;
    }

    private static double surface(float[] boxes, int from, int to) {
        double sum = 0;
        for (int i = from; i < to; i++) {
            double x = boxes[6 * i + 3] - boxes[6 * i];
            double y = boxes[6 * i + 4] - boxes[6 * i + 1];
            double z = boxes[6 * i + 5] - boxes[6 * i + 2];
            sum += x * y + y * z + z * x;
        }
        return sum;
    }

    /** Every point of a triangle lies in a piece of it; a few pieces more take away much of what is empty. */
    @Test
    void piecesCoverTheirTriangles() {
        float[] p = scattered(3);
        Pieces whole = Pieces.of(p, counting(3 * TRIANGLES), 0);
        Pieces pieces = Pieces.of(p, counting(3 * TRIANGLES), Pieces.SPARE);
        int n = pieces.shapes().length;
        assertThat(whole.shapes()).isEqualTo(counting(TRIANGLES));
        assertThat(n).isBetween(TRIANGLES + TRIANGLES / 20, (int) (TRIANGLES * (1 + Pieces.SPARE)));
        int[] more = new int[TRIANGLES]; // where a triangle's further pieces begin: they follow each other
        for (int i = n - 1; i >= TRIANGLES; i--) {
            more[pieces.shapes()[i]] = i;
        }
        SplittableRandom random = new SplittableRandom(8);
        for (int t = 0; t < TRIANGLES; t++) {
            for (int s = 0; s < 10; s++) {
                double a = random.nextDouble();
                double b = random.nextDouble() * (1 - a);
                double[] at = new double[3];
                for (int k = 0; k < 3; k++) {
                    at[k] = (1 - a - b) * p[9 * t + k] + a * p[9 * t + 3 + k] + b * p[9 * t + 6 + k];
                }
                boolean held = holds(pieces.boxes(), t, at);
                for (int i = more[t]; i > 0 && i < n && pieces.shapes()[i] == t && !held; i++) {
                    held = holds(pieces.boxes(), i, at);
                }
                assertThat(held).as("a point of triangle %d", t).isTrue();
            }
        }
        assertThat(surface(pieces.boxes(), 0, n)).isLessThan(0.9 * surface(whole.boxes(), 0, TRIANGLES));
    }

    /** Each thing is in one leaf, each box holds what is below it, and one thread builds the same tree as four. */
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 4})
    void aTreeHoldsEveryThingOnce(int leaf) throws Exception {
        float[] p = scattered(leaf);
        float[] boxes = Pieces.of(p, counting(3 * TRIANGLES), 0).boxes();
        BoundsTree tree = inPool(1, boxes, leaf);
        BitSet seen = new BitSet();
        check(tree, 0, boxes, leaf, seen);
        assertThat(seen.cardinality()).isEqualTo(TRIANGLES);
        BoundsTree other = inPool(4, boxes, leaf);
        assertThat(other.order).isEqualTo(tree.order);
        assertThat(other.bounds).isEqualTo(tree.bounds);
        assertThat(other.right).isEqualTo(tree.right);
    }

    /** Eight numbers at a time or one by one: the same tree, so that a kernel never decides what is found. */
    @Test
    void bothKindsOfBinsPartAlike() {
        float[] boxes = Pieces.of(scattered(6), counting(3 * TRIANGLES), 0).boxes();
        BoundsTree plain = BoundsTree.of(boxes, TRIANGLES, 4, Bins::new);
        BoundsTree wide = BoundsTree.of(boxes, TRIANGLES, 4, VectorBins::new);
        assertThat(wide.order).isEqualTo(plain.order);
        assertThat(wide.bounds).isEqualTo(plain.bounds);
    }

    private static BoundsTree inPool(int threads, float[] boxes, int leaf) throws Exception {
        ForkJoinPool pool = new ForkJoinPool(threads);
        try {
            return pool.submit(() -> BoundsTree.of(boxes, boxes.length / 6, leaf, Bins::new))
                    .get();
        } finally {
            pool.shutdown();
        }
    }

    private static void check(BoundsTree tree, int node, float[] boxes, int leaf, BitSet seen) {
        if (tree.isLeaf(node)) {
            assertThat(tree.count(node)).isBetween(1, leaf);
            for (int i = 0; i < tree.count(node); i++) {
                int thing = tree.order[tree.left[node] + i];
                assertThat(seen.get(thing)).isFalse();
                seen.set(thing);
                assertInside(tree.bounds, node, boxes, thing);
            }
            return;
        }
        for (int child : new int[] {tree.left[node], tree.right[node]}) {
            assertInside(tree.bounds, node, tree.bounds, child);
            check(tree, child, boxes, leaf, seen);
        }
    }

    /** Within what single precision may lose: the pieces' boxes are widened by twice as much. */
    private static void assertInside(float[] outer, int o, float[] inner, int i) {
        for (int k = 0; k < 3; k++) {
            assertThat(inner[6 * i + k]).isGreaterThanOrEqualTo(outer[6 * o + k] - 4e-6f);
            assertThat(inner[6 * i + 3 + k]).isLessThanOrEqualTo(outer[6 * o + 3 + k] + 4e-6f);
        }
    }
}
