package app.zolvan.core.render.trace;

import app.zolvan.core.render.trace.BoundsTree.Things;
import java.util.Arrays;

/**
 * What one thread uses to part the things of a node, one node at a time, in plain Java: bins along each axis, and what it
 * knows of the nodes it is in. {@link VectorBins} does the same eight numbers at a time.
 *
 * <p>A centre is kept doubled, as a box's reach up less its reach down, plus the extent of the whole: at least 0.
 */
class Bins {
    /** A node's record: its box like a thing's, the farthest of its things' centres up, and the farthest down. */
    static final int ONE = 16;

    static final int CENTRES = 8;
    static final int MOST = 16;
    static final int STRIDE = Things.STRIDE;
    /** Beyond the depth at which {@link BoundsTree} begins to halve by number, and as many halvings as there are bits. */
    private static final int DEEPEST = BoundsTree.DEEPEST + 32;
    /** Added to a number from 0 to 2²², it leaves the nearest whole number in the last bits. */
    static final float ROUND = 0x1.8p23f;

    static final int ROUND_BITS = Float.floatToRawIntBits(ROUND);

    /** By depth: the record of the node, then that of its second child, which waits there while the first is built. */
    final int[] state = new int[2 * ONE * DEEPEST];

    /** Eight numbers a bin, bins of each axis together. */
    final int[] boxes = new int[3 * MOST * STRIDE];

    final int[] counts = new int[3 * MOST];
    /** Of the whole along each axis, and of the node's centres: the lowest, and bins per length. */
    final float[] extent = new float[4];

    final float[] low = new float[4];
    final float[] scale = new float[4];
    private final int[] swept = new int[STRIDE];
    private final float[] costLeft = new float[MOST];

    Bins(Things all) {
        for (int k = 0; k < 3; k++) {
            extent[k] = all.extent(k);
        }
    }

    static int firstChild(int slot) {
        return slot + 2 * ONE;
    }

    static int secondChild(int slot) {
        return slot + ONE;
    }

    final int[] copy(int slot) {
        return Arrays.copyOfRange(state, slot, slot + ONE);
    }

    /** Finds the record of a node over these things. */
    final void measure(int[] things, int from, int to, int slot) {
        Arrays.fill(state, slot, slot + ONE, 0);
        for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
            grow(state, slot, things, i);
            addCentre(slot, things, i);
        }
    }

    private void addCentre(int slot, int[] things, int at) {
        int[] state = this.state;
        int o = slot + CENTRES;
        float x = centre(things, at, 0);
        float y = centre(things, at, 1);
        float z = centre(things, at, 2);
        state[o] = Math.max(state[o], Float.floatToRawIntBits(x + extent[0]));
        state[o + 1] = Math.max(state[o + 1], Float.floatToRawIntBits(y + extent[1]));
        state[o + 2] = Math.max(state[o + 2], Float.floatToRawIntBits(z + extent[2]));
        state[o + 4] = Math.max(state[o + 4], Float.floatToRawIntBits(extent[0] - x));
        state[o + 5] = Math.max(state[o + 5], Float.floatToRawIntBits(extent[1] - y));
        state[o + 6] = Math.max(state[o + 6], Float.floatToRawIntBits(extent[2] - z));
    }

    private static float centre(int[] things, int at, int axis) {
        return Float.intBitsToFloat(things[at + 4 + axis]) - Float.intBitsToFloat(things[at + axis]);
    }

    /**
     * Parts the things into another array and leaves both halves' records where the next depth looks for them; where the
     * second half begins, or −1 where no plane parts them.
     */
    final int split(int[] things, int[] parted, int from, int to, int slot) {
        int bins = Math.min(MOST, 4 + (to - from) / 8);
        for (int k = 0; k < 3; k++) {
            float up = Float.intBitsToFloat(state[slot + CENTRES + k]);
            low[k] = 2 * extent[k] - Float.intBitsToFloat(state[slot + CENTRES + 4 + k]);
            scale[k] = up - low[k] > 1e-30f ? bins / (up - low[k]) : 0;
        }
        Arrays.fill(counts, 0);
        Arrays.fill(boxes, 0);
        fill(things, from, to, bins);
        float best = Float.POSITIVE_INFINITY;
        int bestAxis = -1;
        int bestBin = 0;
        for (int axis = 0; axis < 3; axis++) {
            if (scale[axis] == 0) {
                continue;
            }
            int base = axis * MOST;
            Arrays.fill(swept, 0);
            int n = 0;
            for (int b = 0; b < bins - 1; b++) {
                n += counts[base + b];
                grow(swept, 0, boxes, STRIDE * (base + b));
                costLeft[b] = n == 0 ? 0 : n * halfArea(swept);
            }
            Arrays.fill(swept, 0);
            n = 0;
            for (int b = bins - 1; b > 0; b--) {
                n += counts[base + b];
                grow(swept, 0, boxes, STRIDE * (base + b));
                float cost = n == 0 ? Float.POSITIVE_INFINITY : costLeft[b - 1] + n * halfArea(swept);
                if (cost < best && costLeft[b - 1] > 0) {
                    best = cost;
                    bestAxis = axis;
                    bestBin = b;
                }
            }
        }
        if (bestAxis < 0) {
            return -1;
        }
        int first = firstChild(slot);
        int second = secondChild(slot);
        Arrays.fill(state, first, first + ONE, 0);
        Arrays.fill(state, second, second + ONE, 0);
        for (int b = 0; b < bins; b++) {
            grow(state, b < bestBin ? first : second, boxes, STRIDE * (bestAxis * MOST + b));
        }
        return part(things, parted, from, to, slot, bestAxis, bestBin, bins);
    }

    /** Puts each thing into a bin on every axis. */
    void fill(int[] things, int from, int to, int bins) {
        for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
            int x = bin(things, i, 0, bins);
            int y = MOST + bin(things, i, 1, bins);
            int z = 2 * MOST + bin(things, i, 2, bins);
            counts[x]++;
            counts[y]++;
            counts[z]++;
            grow(boxes, STRIDE * x, things, i);
            grow(boxes, STRIDE * y, things, i);
            grow(boxes, STRIDE * z, things, i);
        }
    }

    final int bin(int[] things, int at, int axis, int bins) {
        float place = (centre(things, at, axis) + extent[axis] - low[axis]) * scale[axis] - 0.5f + ROUND;
        return Math.max(0, Math.min(bins - 1, Float.floatToRawIntBits(place) - ROUND_BITS));
    }

    /**
     * Things in bins before {@code bin} go to the front, the others to the back, last first; both halves' centres are added
     * to their records.
     */
    int part(int[] things, int[] parted, int from, int to, int slot, int axis, int bin, int bins) {
        int front = STRIDE * from;
        int back = STRIDE * (to - 1);
        for (int i = STRIDE * from; i < STRIDE * to; i += STRIDE) {
            boolean stays = bin(things, i, axis, bins) < bin;
            addCentre(stays ? firstChild(slot) : secondChild(slot), things, i);
            int at = stays ? front : back;
            parted[at] = things[i];
            parted[at + 1] = things[i + 1];
            parted[at + 2] = things[i + 2];
            parted[at + 3] = things[i + 3];
            parted[at + 4] = things[i + 4];
            parted[at + 5] = things[i + 5];
            parted[at + 6] = things[i + 6];
            front += stays ? STRIDE : 0;
            back -= stays ? 0 : STRIDE;
        }
        return front / STRIDE;
    }

    private static void grow(int[] box, int o, int[] by, int at) {
        box[o] = Math.max(box[o], by[at]);
        box[o + 1] = Math.max(box[o + 1], by[at + 1]);
        box[o + 2] = Math.max(box[o + 2], by[at + 2]);
        box[o + 4] = Math.max(box[o + 4], by[at + 4]);
        box[o + 5] = Math.max(box[o + 5], by[at + 5]);
        box[o + 6] = Math.max(box[o + 6], by[at + 6]);
    }

    private float halfArea(int[] b) {
        float x = Float.intBitsToFloat(b[4]) + Float.intBitsToFloat(b[0]) - extent[0];
        float y = Float.intBitsToFloat(b[5]) + Float.intBitsToFloat(b[1]) - extent[1];
        float z = Float.intBitsToFloat(b[6]) + Float.intBitsToFloat(b[2]) - extent[2];
        return x * y + y * z + z * x;
    }
}
