package app.zolvan.core.render.path;

import java.util.Arrays;

/** Makes a guide of what scouts have found. */
final class GuideGrowth {
    /** A place is divided while so many findings lie in it. */
    private static final int CROWD = 2000;

    private static final int MOST_PLANES = 40;
    /** A place's light is that of so many findings at least, however bright the brightest are. */
    private static final double AT_LEAST = 50;

    private static final int STEPS = 24;
    /** A quarter of directions is divided while more than this share of its place’s light comes from it (than one finding may
     * have), by so many findings. */
    private static final double MUCH = 0.021;

    private static final int FEW = 24;
    private static final int FINEST = 10;
    /** How often the guide may be followed; 0 where it does not help. */
    private static final double[] SHARES = {0, 0.25, 0.5, 0.75};
    /** What is left of the estimates' squares where following it is worth its time. */
    private static final double WORTHWHILE = 0.9;
    /** How often one is followed of which nothing is known yet. */
    private static final double UNTRIED = 0.5;

    private final GuideRecords from;
    private final int[] order;
    private final int[] spare;

    private float[] plane = new float[64];
    private int[] axis = new int[64];
    private int[] child = new int[128];
    private int planes;

    private float[] share = new float[1024];
    private int[] finer = new int[1024];
    private int nodes = 1;

    private int[] root = new int[64];
    private int cells;

    private interface Test {
        boolean holds(int record);
    }

    private GuideGrowth(GuideRecords from) {
        this.from = from;
        order = new int[from.size()];
        spare = new int[order.length];
        Arrays.setAll(order, i -> i);
    }

    /**
     * Of findings that were gathered, maybe, under an earlier guide.
     *
     * @return null where following that would not have made the scouts' estimates steadier
     */
    static Guide of(GuideRecords from) {
        if (from.size() == 0) {
            return null;
        }
        GuideGrowth g = new GuideGrowth(from);
        int top = g.place(0, g.order.length, 0);
        double often = from.wereGuided() ? steadiest(from) : UNTRIED;
        return often == 0
                ? null
                : new Guide(
                        new Guide.Places(g.plane, g.axis, g.child, top),
                        new Guide.Quarters(g.share, g.finer, g.root),
                        often);
    }

    /** How often the scouts should have followed the guide they had: so that their estimates' squares are least. */
    private static double steadiest(GuideRecords from) {
        double[] squares = new double[SHARES.length];
        for (int i = 0; i < from.size(); i++) {
            for (int k = 0; k < SHARES.length; k++) {
                squares[k] += from.square(i, SHARES[k]);
            }
        }
        int best = GuideRecords.least(squares);
        return squares[best] < WORTHWHILE * squares[0] ? SHARES[best] : 0;
    }

    /** Divides a run of findings at the middle of their longest side while it is crowded; gives the place's number. */
    private int place(int begin, int end, int depth) {
        if (end - begin <= CROWD || depth == MOST_PLANES) {
            return -1 - cell(begin, end);
        }
        int across = 0;
        float at = 0;
        float widest = -1;
        for (int a = 0; a < 3; a++) {
            float low = Float.POSITIVE_INFINITY;
            float high = Float.NEGATIVE_INFINITY;
            for (int i = begin; i < end; i++) {
                float v = from.place(order[i], a);
                low = Math.min(low, v);
                high = Math.max(high, v);
            }
            if (high - low > widest) {
                widest = high - low;
                across = a;
                at = 0.5f * (low + high);
            }
        }
        int n = planes++;
        if (n == plane.length) {
            plane = Arrays.copyOf(plane, 2 * n);
            axis = Arrays.copyOf(axis, 2 * n);
            child = Arrays.copyOf(child, 4 * n);
        }
        plane[n] = at;
        axis[n] = across;
        int a = across;
        float middle = at;
        int mid = partition(begin, end, i -> from.place(i, a) < middle);
        int low = place(begin, mid, depth + 1);
        int high = place(mid, end, depth + 1);
        child[2 * n] = low;
        child[2 * n + 1] = high;
        return n;
    }

    /** Moves those that pass to the front; all stay in the order they had. */
    private int partition(int begin, int end, Test test) {
        int front = begin;
        int back = 0;
        for (int i = begin; i < end; i++) {
            if (test.holds(order[i])) {
                order[front++] = order[i];
            } else {
                spare[back++] = order[i];
            }
        }
        System.arraycopy(spare, 0, order, front, back);
        return front;
    }

    private int cell(int begin, int end) {
        int c = cells++;
        if (c == root.length) {
            root = Arrays.copyOf(root, 2 * c);
        }
        double most = steadied(begin, end);
        for (int i = begin; i < end; i++) {
            from.cap(order[i], most);
        }
        double all = sum(begin, end);
        if (all > 0) {
            root[c] = quarters(begin, end, all, all, 0, 0, 0.5f);
        }
        return c;
    }

    /**
     * The weight c that no finding may pass, so that c is the same share of what is left of all: one lucky path leads few
     * others, while a lit patch that many have met counts in full.
     */
    private double steadied(int begin, int end) {
        int lit = 0;
        for (int i = begin; i < end; i++) {
            lit += from.weight(order[i]) > 0 ? 1 : 0;
        }
        double parts = Math.max(1, Math.min(AT_LEAST, lit / 8.0));
        double cap = Double.POSITIVE_INFINITY;
        for (int k = 0; k < STEPS; k++) {
            double left = 0;
            for (int i = begin; i < end; i++) {
                left += Math.min(cap, from.weight(order[i]));
            }
            cap = left / parts;
        }
        return cap;
    }

    private double sum(int begin, int end) {
        double sum = 0;
        for (int i = begin; i < end; i++) {
            sum += from.weight(order[i]);
        }
        return sum;
    }

    /**
     * A node for the square of directions from (u, v).
     *
     * @param here light of its findings
     * @param all  light of all directions
     * @param half of its side
     */
    private int quarters(int begin, int end, double here, double all, float u, float v, float half) {
        int n = nodes++;
        if (4 * n + 4 > share.length) {
            share = Arrays.copyOf(share, 2 * share.length);
            finer = Arrays.copyOf(finer, 2 * finer.length);
        }
        int right = partition(begin, end, i -> from.u(i) < u + half);
        int lowerLeft = partition(begin, right, i -> from.v(i) < v + half);
        int lowerRight = partition(right, end, i -> from.v(i) < v + half);
        int[] bounds = {begin, lowerLeft, right, lowerRight, end};
        for (int q = 0; q < 4; q++) {
            double sum = sum(bounds[q], bounds[q + 1]);
            share[4 * n + q] = (float) (sum / here);
            boolean fine = half < 1f / (1 << FINEST);
            if (sum > MUCH * all && !fine && bounds[q + 1] - bounds[q] > FEW) {
                float nextU = u + (q >> 1) * half;
                float nextV = v + (q & 1) * half;
                int next = quarters(bounds[q], bounds[q + 1], sum, all, nextU, nextV, half / 2);
                finer[4 * n + q] = next;
            }
        }
        return n;
    }
}
