package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Cuts a polygon in space into triangles that cover it exactly once: convex ones as a fan, others by clipping ears
 * (Meisters 1975) in the plane of the polygon's mean normal (Newell). Holes are joined to the outline by bridges
 * (Eberly, "Triangulation by Ear Clipping", 2002).
 *
 * <p>A self-crossing polygon has no right answer; it gets as many triangles as a simple one.
 */
public final class PolygonTriangulation {
    /** Polygons with more corners than this are refused by the readers; the method takes time in their square. */
    public static final int MOST_CORNERS = 20_000;

    private final double[] x;
    private final double[] y;
    private int[] ring;
    private int count;
    private final IntList out = new IntList();

    private PolygonTriangulation(double[] x, double[] y) {
        this.x = x;
        this.y = y;
    }

    /**
     * @param points three coordinates per corner: the outline, then each hole
     * @param starts index of each loop's first corner; the first is 0
     * @return three corner numbers per triangle, running the same way round as the outline
     */
    public static int[] of(double[] points, int... starts) {
        int n = points.length / 3;
        if (n < 3) {
            return new int[0];
        }
        if (starts.length <= 1 && n == 3) {
            return new int[] {0, 1, 2};
        }
        int outline = starts.length > 1 ? starts[1] : n;
        double[] normal = newell(points, 0, outline);
        double length = Math.sqrt(normal[0] * normal[0] + normal[1] * normal[1] + normal[2] * normal[2]);
        if (!(length > 0)) {
            return fan(n); // no area: any triangles do
        }
        double[] px = new double[n];
        double[] py = new double[n];
        project(points, normal, px, py);
        PolygonTriangulation work = new PolygonTriangulation(px, py);
        if (starts.length <= 1 && work.isConvex(n)) {
            return fan(n);
        }
        work.begin(outline);
        if (starts.length > 1) {
            work.bridge(starts, n);
        }
        work.clip();
        return work.out.toArray();
    }

    private static int[] fan(int n) {
        int[] out = new int[3 * (n - 2)];
        for (int i = 0; i < n - 2; i++) {
            out[3 * i] = 0;
            out[3 * i + 1] = i + 1;
            out[3 * i + 2] = i + 2;
        }
        return out;
    }

    private static double[] newell(double[] p, int from, int to) {
        double[] n = new double[3];
        for (int i = from; i < to; i++) {
            int j = i + 1 < to ? i + 1 : from;
            n[0] += (p[3 * i + 1] - p[3 * j + 1]) * (p[3 * i + 2] + p[3 * j + 2] - 2 * p[2]);
            n[1] += (p[3 * i + 2] - p[3 * j + 2]) * (p[3 * i] + p[3 * j] - 2 * p[0]);
            n[2] += (p[3 * i] - p[3 * j]) * (p[3 * i + 1] + p[3 * j + 1] - 2 * p[1]);
        }
        return n;
    }

    /** Drops the coordinate along which the normal is longest, keeping the sense of turning. */
    private static void project(double[] p, double[] normal, double[] px, double[] py) {
        double ax = Math.abs(normal[0]);
        double ay = Math.abs(normal[1]);
        double az = Math.abs(normal[2]);
        int drop = ax >= ay && ax >= az ? 0 : ay >= az ? 1 : 2;
        int u = (drop + 1) % 3;
        int v = (drop + 2) % 3;
        double sign = normal[drop] < 0 ? -1 : 1;
        for (int i = 0; i < px.length; i++) {
            px[i] = sign * p[3 * i + u];
            py[i] = p[3 * i + v];
        }
    }

    private boolean isConvex(int n) {
        double turned = 0;
        for (int i = 0; i < n; i++) {
            int b = (i + 1) % n;
            int c = (i + 2) % n;
            if (cross(i, b, c) < 0) {
                return false;
            }
            double ux = x[b] - x[i];
            double uy = y[b] - y[i];
            double vx = x[c] - x[b];
            double vy = y[c] - y[b];
            turned += Math.atan2(ux * vy - uy * vx, ux * vx + uy * vy);
        }
        return turned < 3 * Math.PI; // a star turns more than once
    }

    private double cross(int a, int b, int c) {
        return (x[b] - x[a]) * (y[c] - y[a]) - (y[b] - y[a]) * (x[c] - x[a]);
    }

    private void begin(int outline) {
        ring = new int[outline];
        for (int i = 0; i < outline; i++) {
            ring[i] = i;
        }
        count = outline;
    }

    private void bridge(int[] starts, int n) {
        List<int[]> holes = new ArrayList<>();
        for (int h = 1; h < starts.length; h++) {
            int to = h + 1 < starts.length ? starts[h + 1] : n;
            int[] hole = new int[to - starts[h]];
            double area = 0;
            for (int i = 0; i < hole.length; i++) {
                hole[i] = starts[h] + i;
                int j = starts[h] + (i + 1) % hole.length;
                area += x[hole[i]] * y[j] - x[j] * y[hole[i]];
            }
            if (area > 0) { // holes run against the outline
                for (int i = 0; i < hole.length; i++) {
                    hole[i] = to - 1 - i;
                }
            }
            if (hole.length >= 3) {
                holes.add(hole);
            }
        }
        holes.sort(Comparator.comparingDouble((int[] h) ->
                        Arrays.stream(h).mapToDouble(i -> x[i]).max().orElse(0))
                .reversed());
        holes.forEach(this::join);
    }

    /** Cuts from the hole's rightmost corner to a corner of the ring it can see. */
    private void join(int[] hole) {
        int m = 0;
        for (int i = 1; i < hole.length; i++) {
            if (x[hole[i]] > x[hole[m]]) {
                m = i;
            }
        }
        int at = visibleFrom(hole[m]);
        int[] joined = new int[count + hole.length + 2];
        System.arraycopy(ring, 0, joined, 0, at + 1);
        for (int i = 0; i <= hole.length; i++) {
            joined[at + 1 + i] = hole[(m + i) % hole.length];
        }
        System.arraycopy(ring, at, joined, at + hole.length + 2, count - at);
        ring = joined;
        count = joined.length;
    }

    private int visibleFrom(int p) {
        double best = Double.POSITIVE_INFINITY;
        int candidate = 0;
        for (int i = 0; i < count; i++) { // the edge first hit by a ray towards +x
            int a = ring[i];
            int b = ring[(i + 1) % count];
            if ((y[a] > y[p]) == (y[b] > y[p])) {
                continue;
            }
            double hit = x[a] + (y[p] - y[a]) / (y[b] - y[a]) * (x[b] - x[a]);
            if (hit >= x[p] && hit < best) {
                best = hit;
                candidate = x[a] > x[b] ? i : (i + 1) % count;
            }
        }
        // of the corners inside the triangle (p, hit, candidate), the one seen at the smallest angle
        int c = ring[candidate];
        double steepest = Double.POSITIVE_INFINITY;
        int seen = candidate;
        for (int i = 0; i < count; i++) {
            int q = ring[i];
            if (q == c || x[q] < x[p] || !inTriangle(p, best, c, q) || !isReflex(i)) {
                continue;
            }
            double slope = Math.abs(y[q] - y[p]) / Math.max(1e-300, x[q] - x[p]);
            if (slope < steepest) {
                steepest = slope;
                seen = i;
            }
        }
        return seen;
    }

    private boolean inTriangle(int p, double hitX, int c, int q) {
        double d1 = (hitX - x[p]) * (y[q] - y[p]);
        double d2 = (x[c] - hitX) * (y[q] - y[p]) - (y[c] - y[p]) * (x[q] - hitX);
        double d3 = (x[p] - x[c]) * (y[q] - y[c]) - (y[p] - y[c]) * (x[q] - x[c]);
        return (d1 >= 0 && d2 >= 0 && d3 >= 0) || (d1 <= 0 && d2 <= 0 && d3 <= 0);
    }

    private boolean isReflex(int i) {
        return cross(ring[(i + count - 1) % count], ring[i], ring[(i + 1) % count]) <= 0;
    }

    private void clip() {
        int[] next = new int[count];
        int[] previous = new int[count];
        for (int i = 0; i < count; i++) {
            next[i] = (i + 1) % count;
            previous[i] = (i + count - 1) % count;
        }
        int left = count;
        int i = 0;
        int tried = 0;
        while (left > 3) {
            boolean stuck = tried > left; // crossing outlines: cut anyway
            if (stuck || isEar(previous[i], i, next[i], next)) {
                emit(previous[i], i, next[i]);
                next[previous[i]] = next[i];
                previous[next[i]] = previous[i];
                i = stuck ? next[i] : previous[i];
                left--;
                tried = 0;
            } else {
                i = next[i];
                tried++;
            }
        }
        emit(previous[i], i, next[i]);
    }

    private void emit(int a, int b, int c) {
        out.add(ring[a]);
        out.add(ring[b]);
        out.add(ring[c]);
    }

    private boolean isEar(int a, int b, int c, int[] next) {
        int pa = ring[a];
        int pb = ring[b];
        int pc = ring[c];
        double area = cross(pa, pb, pc);
        if (area <= 0) {
            return area == 0 && isSpike(pa, pb, pc);
        }
        for (int i = next[c]; i != a; i = next[i]) {
            int q = ring[i];
            boolean same = (x[q] == x[pa] && y[q] == y[pa])
                    || (x[q] == x[pb] && y[q] == y[pb])
                    || (x[q] == x[pc] && y[q] == y[pc]);
            if (!same && cross(pa, pb, q) >= 0 && cross(pb, pc, q) >= 0 && cross(pc, pa, q) >= 0) {
                return false;
            }
        }
        return true;
    }

    /** A corner on the straight line between its neighbours, or doubling back, encloses nothing and may go. */
    private boolean isSpike(int a, int b, int c) {
        double forth = (x[b] - x[a]) * (x[c] - x[b]) + (y[b] - y[a]) * (y[c] - y[b]);
        return forth <= 0;
    }
}
