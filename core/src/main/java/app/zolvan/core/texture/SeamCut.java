package app.zolvan.core.texture;

import java.util.Arrays;

/**
 * The least conspicuous line through a strip in which two pictures lie over one another, from its first row to its last: from
 * each row to the next straight on or aslant, and along a row as far as it pays. It is closed, so that it goes on where the strip
 * is repeated. (Kwatra et al. 2003 cut the same way, by a graph's minimum cut instead of a path.)
 */
final class SeamCut {
    /** How a pixel was come to, besides from those above it: −1, 0, 1. */
    private static final byte FROM_LEFT = 2;

    private static final byte FROM_RIGHT = 3;

    private final float[] cost;
    private final int width;
    private final int rows;
    private final byte[] from;
    private int[] best;
    private float least = Float.POSITIVE_INFINITY;

    /** The columns of a path in each row: where it leaves it, and the outermost ones. */
    private record Path(int[] leaves, int[] leftmost, int[] rightmost) {}

    private SeamCut(float[] cost, int width) {
        this.cost = cost;
        this.width = width;
        this.rows = cost.length / width;
        this.from = new byte[cost.length];
        this.best = new int[rows];
    }

    /**
     * @param cost  of cutting through a pixel, row by row; above 0
     * @param width of the strip
     * @param room  columns at either side that are not cut through
     * @return the column in which the cut leaves each row
     */
    static int[] through(float[] cost, int width, int room) {
        SeamCut cut = new SeamCut(cost, width);
        int[] left = new int[cut.rows];
        int[] right = new int[cut.rows];
        Arrays.fill(left, room);
        Arrays.fill(right, width - 1 - room);
        cut.between(left, right);
        return cut.best;
    }

    /**
     * Best closed paths from neighbouring starts need never cross: the one from the middle bounds those to either side, so
     * that all starts are tried in little more time than a few (after Reif 1983). Between two paths there always is one, as
     * each may follow the one or the other.
     */
    private void between(int[] left, int[] right) {
        if (left[0] > right[0]) {
            return;
        }
        int middle = (left[0] + right[0]) >>> 1;
        Path path = closed(middle, left, right);
        path.rightmost[0] = middle - 1;
        path.leftmost[0] = middle + 1;
        between(left, path.rightmost);
        between(path.leftmost, right);
    }

    /** The cheapest path that begins and ends at a column, or beside it; kept if it is the cheapest so far. */
    private Path closed(int start, int[] left, int[] right) {
        float[] sum = new float[width];
        float[] next = new float[width];
        Arrays.fill(sum, Float.POSITIVE_INFINITY);
        sum[start] = cost[start];
        for (int y = 1; y < rows; y++) {
            Arrays.fill(next, Float.POSITIVE_INFINITY);
            step(y, left[y], right[y], sum, next);
            float[] swap = sum;
            sum = next;
            next = swap;
        }
        int end = start;
        for (int x = Math.max(0, start - 1); x <= Math.min(width - 1, start + 1); x++) {
            end = sum[x] < sum[end] ? x : end;
        }
        Path path = back(end);
        if (sum[end] < least) {
            least = sum[end];
            best = path.leaves.clone();
        }
        return path;
    }

    private void step(int y, int left, int right, float[] sum, float[] next) {
        int row = y * width;
        for (int x = left; x <= right; x++) {
            int at = x;
            if (x > 0 && sum[x - 1] < sum[at]) {
                at = x - 1;
            }
            if (x + 1 < width && sum[x + 1] < sum[at]) {
                at = x + 1;
            }
            next[x] = sum[at] + cost[row + x];
            from[row + x] = (byte) (at - x);
        }
        for (int x = left + 1; x <= right; x++) {
            if (next[x - 1] + cost[row + x] < next[x]) {
                next[x] = next[x - 1] + cost[row + x];
                from[row + x] = FROM_LEFT;
            }
        }
        for (int x = right - 1; x >= left; x--) {
            if (next[x + 1] + cost[row + x] < next[x]) {
                next[x] = next[x + 1] + cost[row + x];
                from[row + x] = FROM_RIGHT;
            }
        }
    }

    private Path back(int end) {
        Path path = new Path(new int[rows], new int[rows], new int[rows]);
        int x = end;
        for (int y = rows - 1; y >= 0; y--) {
            path.leaves[y] = x;
            int most = x;
            int fewest = x;
            while (y > 0 && from[y * width + x] >= FROM_LEFT) {
                x += from[y * width + x] == FROM_LEFT ? -1 : 1;
                most = Math.max(most, x);
                fewest = Math.min(fewest, x);
            }
            path.leftmost[y] = fewest;
            path.rightmost[y] = most;
            x += y > 0 ? from[y * width + x] : 0;
        }
        return path;
    }
}
