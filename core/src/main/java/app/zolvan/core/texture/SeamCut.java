package app.zolvan.core.texture;

import java.util.Arrays;

/**
 * The least conspicuous line through a strip in which two pictures lie over one another: from its first row to its last, at
 * most one pixel aside a row, and closed, so that it goes on where the strip is repeated (Kwatra et al. 2003 cut the same way,
 * along a path instead of a graph's minimum cut).
 */
final class SeamCut {
    private final float[] cost;
    private final int width;
    private final int rows;
    private final int[] best;
    private double least = Double.POSITIVE_INFINITY;
    private final byte[] from;

    private SeamCut(float[] cost, int width) {
        this.cost = cost;
        this.width = width;
        this.rows = cost.length / width;
        this.best = new int[rows];
        this.from = new byte[cost.length];
    }

    /**
     * @param cost  of cutting through a pixel, row by row
     * @param width of the strip
     * @param room  columns at either side that are not cut through
     * @return the column in each row
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
     * that all starts are tried in little more time than a few (after Reif 1983).
     */
    private void between(int[] left, int[] right) {
        if (left[0] > right[0]) {
            return;
        }
        int middle = (left[0] + right[0]) >>> 1;
        int[] path = closed(middle, left, right);
        if (path == null) {
            return;
        }
        int[] before = path.clone();
        before[0] = middle - 1;
        int[] after = path.clone();
        after[0] = middle + 1;
        between(left, before);
        between(after, right);
    }

    /** The cheapest path that begins and ends at a column, or beside it; kept if it is the cheapest so far. */
    private int[] closed(int start, int[] left, int[] right) {
        float[] sum = new float[width];
        float[] next = new float[width];
        Arrays.fill(sum, Float.POSITIVE_INFINITY);
        sum[start] = cost[start];
        for (int y = 1; y < rows; y++) {
            Arrays.fill(next, Float.POSITIVE_INFINITY);
            for (int x = left[y]; x <= right[y]; x++) {
                int at = x;
                if (x > 0 && sum[x - 1] < sum[at]) {
                    at = x - 1;
                }
                if (x + 1 < width && sum[x + 1] < sum[at]) {
                    at = x + 1;
                }
                next[x] = sum[at] + cost[y * width + x];
                from[y * width + x] = (byte) (at - x);
            }
            float[] swap = sum;
            sum = next;
            next = swap;
        }
        int end = start;
        for (int x = Math.max(0, start - 1); x <= Math.min(width - 1, start + 1); x++) {
            end = sum[x] < sum[end] ? x : end;
        }
        if (sum[end] == Float.POSITIVE_INFINITY) {
            return null;
        }
        int[] path = new int[rows];
        double total = sum[end];
        for (int y = rows - 1, x = end; y >= 0; y--) {
            path[y] = x;
            x += y > 0 ? from[y * width + x] : 0;
        }
        if (total < least) {
            least = total;
            System.arraycopy(path, 0, best, 0, rows);
        }
        return path;
    }
}
