package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.DoubleConsumer;

/**
 * Where parts meet: faces of two parts in one place, surfaces that cross, and faces that nearly touch. Triangles are
 * compared in world space, those near each other found by a tree of boxes.
 */
final class Contacts {
    /** Faces nearer to each other than this are in one place, in metres. */
    static final double ONE_PLACE = 5e-5;
    /** Bodies farther from each other than this are not meant to touch, in metres. */
    static final double NEAR = 1e-3;

    private static final double PARALLEL = Math.cos(Math.toRadians(2));
    /** Shorter crossings than this may be rounding, in metres. */
    private static final double CROSSING = 1e-4;
    /** What lies within so many metres of a face in each of so many directions covers it. */
    private static final double COVER = 5e-3;

    private static final int LOOKS = 8;

    /** What was found between two parts, the first one's index the lower. */
    static final class Pair {
        final int first;
        final int second;
        /** Areas in m² of faces in one place that look the same way, or away from each other; and their bounds. */
        double alike;

        double opposed;
        Box3 common = Box3.EMPTY;
        /** Area in m² of faces that look at each other over a gap, and the sum of area times gap. */
        double facing;

        double gaps;
        Box3 between = Box3.EMPTY;
        /** How many triangles cross, where, and how far flat triangles may lie off the curves they stand for. */
        int crossings;

        Box3 crossing = Box3.EMPTY;
        double slack;
        /** The triangles of either that cross, as its mesh numbers them. */
        final Set<Integer> ofFirst = new TreeSet<>();

        final Set<Integer> ofSecond = new TreeSet<>();
        /** A place in the middle of the largest piece that looks the same way in both, and where it looks. */
        private double largest;

        private Vec3 at;
        private Vec3 looks;

        Pair(int first, int second) {
            this.first = first;
            this.second = second;
        }

        double gap() {
            return gaps / facing;
        }
    }

    private final Model model;
    private final Map<Long, Pair> pairs = new TreeMap<>();
    private double[] p;
    private int[] part;
    /** As its mesh numbers it. */
    private int[] number;

    private double[] slack;
    private BoxTree tree;
    private final double[] clipped = new double[32];
    private final double[] clipping = new double[32];

    private Contacts(Model model) {
        this.model = model;
    }

    /** All pairs of parts that meet, in the order of their indices. */
    static List<Pair> of(Model model, DoubleConsumer progress) {
        Contacts c = new Contacts(model);
        c.gather();
        c.compare(progress);
        for (Pair p : c.pairs.values()) {
            if (p.alike > 0 && c.isCovered(p)) {
                p.alike = 0;
            }
        }
        return new ArrayList<>(c.pairs.values());
    }

    /** Triangles in the world that lie within reach of another part's box. */
    private void gather() {
        int n = model.parts().size();
        double[] boxes = new double[6 * n];
        for (int i = 0; i < n; i++) {
            put(model.boundsOf(model.parts().get(i)), NEAR / 2, boxes, 6 * i);
        }
        BoxTree tree = new BoxTree(boxes);
        List<double[]> triangles = new ArrayList<>();
        List<double[]> slacks = new ArrayList<>();
        List<int[]> numbers = new ArrayList<>();
        List<Integer> owners = new ArrayList<>();
        int total = 0;
        for (int i = 0; i < n; i++) {
            List<double[]> near = new ArrayList<>();
            int me = i;
            double[] own = Arrays.copyOfRange(boxes, 6 * i, 6 * i + 6);
            if (own[0] <= own[3]) {
                tree.touching(own, o -> {
                    if (o != me) {
                        near.add(Arrays.copyOfRange(boxes, 6 * o, 6 * o + 6));
                    }
                });
            }
            if (!near.isEmpty()) {
                owners.add(i);
                total += gather(i, near, triangles, slacks, numbers);
            }
        }
        p = new double[9 * total];
        slack = new double[total];
        part = new int[total];
        number = new int[total];
        int at = 0;
        for (int i = 0; i < triangles.size(); i++) {
            int count = numbers.get(i).length;
            System.arraycopy(triangles.get(i), 0, p, 9 * at, 9 * count);
            System.arraycopy(slacks.get(i), 0, slack, at, count);
            System.arraycopy(numbers.get(i), 0, number, at, count);
            Arrays.fill(part, at, at + count, owners.get(i));
            at += count;
        }
    }

    private static void put(Box3 box, double wider, double[] out, int at) {
        for (int k = 0; k < 3; k++) {
            out[at + k] = box.min().get(k) - wider;
            out[at + 3 + k] = box.max().get(k) + wider;
        }
    }

    private int gather(
            int index, List<double[]> near, List<double[]> triangles, List<double[]> slacks, List<int[]> numbers) {
        Model.Part one = model.parts().get(index);
        Mesh mesh = model.meshOf(one);
        Transform world = model.partToWorld(one);
        double scale = world.stretch().length() / Math.sqrt(3);
        Vec3[] points = new Vec3[mesh.vertexCount()];
        for (int v = 0; v < points.length; v++) {
            points[v] = world.point(mesh.position(v));
        }
        double[] out = new double[9 * mesh.triangleCount()];
        double[] off = new double[mesh.triangleCount()];
        int[] own = new int[mesh.triangleCount()];
        int count = 0;
        for (int t = 0; t < mesh.triangleCount(); t++) {
            Vec3 a = points[mesh.indices()[3 * t]];
            Vec3 b = points[mesh.indices()[3 * t + 1]];
            Vec3 c = points[mesh.indices()[3 * t + 2]];
            Box3 box = Box3.EMPTY.with(a).with(b).with(c);
            if (b.minus(a).cross(c.minus(a)).length() < 1e-14 || near.stream().noneMatch(o -> touches(o, box))) {
                continue;
            }
            put(a, out, 9 * count);
            put(b, out, 9 * count + 3);
            put(c, out, 9 * count + 6);
            own[count] = t;
            off[count++] = scale * sagitta(mesh, t);
        }
        triangles.add(out);
        slacks.add(off);
        numbers.add(Arrays.copyOf(own, count));
        return count;
    }

    private static boolean touches(double[] box, Box3 o) {
        return box[0] <= o.max().x()
                && box[3] >= o.min().x()
                && box[1] <= o.max().y()
                && box[4] >= o.min().y()
                && box[2] <= o.max().z()
                && box[5] >= o.min().z();
    }

    private static void put(Vec3 v, double[] out, int at) {
        out[at] = v.x();
        out[at + 1] = v.y();
        out[at + 2] = v.z();
    }

    /**
     * How far a triangle may lie off the curved surface it stands for: the height of an arc over its shortest edge along
     * which the normals turn.
     */
    private static double sagitta(Mesh mesh, int t) {
        double best = 0;
        double shortest = Double.POSITIVE_INFINITY;
        for (int k = 0; k < 3; k++) {
            int i = mesh.indices()[3 * t + k];
            int j = mesh.indices()[3 * t + (k + 1) % 3];
            double cosine = Math.max(-1, Math.min(1, mesh.normal(i).dot(mesh.normal(j))));
            double turn = Math.acos(cosine);
            double length = mesh.position(i).minus(mesh.position(j)).length();
            if (turn > Math.toRadians(0.5) && length < shortest) {
                shortest = length;
                best = length / 2 * Math.tan(turn / 4);
            }
        }
        return best;
    }

    private void compare(DoubleConsumer progress) {
        int n = part.length;
        double[] boxes = new double[6 * n];
        for (int t = 0; t < n; t++) {
            for (int k = 0; k < 3; k++) {
                double a = p[9 * t + k];
                double b = p[9 * t + 3 + k];
                double c = p[9 * t + 6 + k];
                boxes[6 * t + k] = Math.min(a, Math.min(b, c)) - NEAR / 2;
                boxes[6 * t + 3 + k] = Math.max(a, Math.max(b, c)) + NEAR / 2;
            }
        }
        tree = new BoxTree(boxes);
        double[] own = new double[6];
        for (int t = 0; t < n; t++) {
            int me = t;
            System.arraycopy(boxes, 6 * t, own, 0, 6);
            tree.touching(own, o -> {
                if (part[o] > part[me]) {
                    meet(me, o);
                }
            });
            if ((t & 0xFFF) == 0) {
                progress.accept((double) t / n);
            }
        }
    }

    /** Whether something lies right on the faces that two parts share, so that nobody sees them. */
    private boolean isCovered(Pair pair) {
        Vec3 from = pair.at.plus(pair.looks.times(2 * ONE_PLACE));
        Vec3 u = pair.looks
                .cross(Vec3.axis(Math.abs(pair.looks.x()) < 0.6 ? 0 : 1))
                .normalised();
        Vec3 v = pair.looks.cross(u);
        double[] reach = {
            from.x() - COVER, from.y() - COVER, from.z() - COVER, from.x() + COVER, from.y() + COVER, from.z() + COVER
        };
        List<Integer> near = new ArrayList<>();
        tree.touching(reach, near::add);
        for (int i = 0; i < LOOKS; i++) {
            double angle = 2 * Math.PI * i / LOOKS;
            Vec3 out = pair.looks
                    .plus(u.times(Math.cos(angle)))
                    .plus(v.times(Math.sin(angle)))
                    .normalised();
            Vec3 to = from.plus(out.times(COVER));
            if (near.stream().noneMatch(t -> Tips.meets(from, to, point(t, 0), point(t, 1), point(t, 2)))) {
                return false;
            }
        }
        return true;
    }

    private Pair pair(int t, int o) {
        long key = (long) part[t] << 32 | part[o];
        return pairs.computeIfAbsent(key, k -> new Pair(part[t], part[o]));
    }

    private Vec3 point(int t, int k) {
        return new Vec3(p[9 * t + 3 * k], p[9 * t + 3 * k + 1], p[9 * t + 3 * k + 2]);
    }

    private Vec3 normal(int t) {
        return point(t, 1)
                .minus(point(t, 0))
                .cross(point(t, 2).minus(point(t, 0)))
                .normalised();
    }

    private void meet(int t, int o) {
        Vec3 n = normal(t);
        Vec3 m = normal(o);
        double together = n.dot(m);
        if (Math.abs(together) >= PARALLEL) {
            side(t, o, n, m, together);
        } else {
            cross(t, o, n, m);
        }
    }

    /** Two nearly parallel triangles: how much of them lies over each other, and at what distance. */
    private void side(int t, int o, Vec3 n, Vec3 m, double together) {
        Vec3 origin = point(t, 0);
        Vec3 u = point(t, 1).minus(origin).normalised();
        Vec3 v = n.cross(u);
        for (int k = 0; k < 3; k++) {
            Vec3 q = point(o, k).minus(origin);
            clipped[2 * k] = q.dot(u);
            clipped[2 * k + 1] = q.dot(v);
        }
        int corners = 3;
        for (int k = 0; k < 3 && corners > 0; k++) {
            Vec3 a = point(t, k).minus(origin);
            Vec3 b = point(t, (k + 1) % 3).minus(origin);
            corners = clip(corners, a.dot(u), a.dot(v), b.dot(u), b.dot(v));
        }
        if (corners < 3) {
            return;
        }
        double twice = 0;
        double x = 0;
        double y = 0;
        for (int i = 0; i < corners; i++) {
            int j = (i + 1) % corners;
            twice += clipped[2 * i] * clipped[2 * j + 1] - clipped[2 * j] * clipped[2 * i + 1];
            x += clipped[2 * i] / corners;
            y += clipped[2 * i + 1] / corners;
        }
        double area = Math.abs(twice) / 2;
        Vec3 middle = origin.plus(u.times(x)).plus(v.times(y));
        double height = point(o, 0).minus(middle).dot(m) / together; // of the other one, along n
        if (area <= 1e-12 || Math.abs(height) > NEAR) {
            return;
        }
        if (Math.abs(height) <= ONE_PLACE) {
            Pair pair = pair(t, o);
            pair.alike += together > 0 ? area : 0;
            if (together > 0 && area > pair.largest) {
                pair.largest = area;
                pair.at = middle;
                pair.looks = n;
            }
            pair.opposed += together < 0 ? area : 0;
            pair.common = withClipped(pair.common, corners, origin, u, v);
        } else if (together < 0 && height > 0) {
            Pair pair = pair(t, o);
            pair.facing += area;
            pair.gaps += area * height;
            pair.slack = Math.max(pair.slack, slack[t] + slack[o]);
            pair.between = withClipped(pair.between, corners, origin, u, v);
        }
    }

    private Box3 withClipped(Box3 box, int corners, Vec3 origin, Vec3 u, Vec3 v) {
        Box3 out = box;
        for (int i = 0; i < corners; i++) {
            out = out.with(origin.plus(u.times(clipped[2 * i])).plus(v.times(clipped[2 * i + 1])));
        }
        return out;
    }

    /** Keeps what of the polygon lies to the left of a line (Sutherland & Hodgman 1974); how many corners are left. */
    private int clip(int corners, double ax, double ay, double bx, double by) {
        int count = 0;
        for (int i = 0; i < corners; i++) {
            int j = (i + 1) % corners;
            double px = clipped[2 * i];
            double py = clipped[2 * i + 1];
            double qx = clipped[2 * j];
            double qy = clipped[2 * j + 1];
            double here = (bx - ax) * (py - ay) - (by - ay) * (px - ax);
            double there = (bx - ax) * (qy - ay) - (by - ay) * (qx - ax);
            if (here >= 0) {
                clipping[2 * count] = px;
                clipping[2 * count++ + 1] = py;
            }
            if (here >= 0 != there >= 0) {
                double s = here / (here - there);
                clipping[2 * count] = px + s * (qx - px);
                clipping[2 * count++ + 1] = py + s * (qy - py);
            }
        }
        System.arraycopy(clipping, 0, clipped, 0, 2 * count);
        return count;
    }

    /** Two triangles at an angle: the stretch in which they cut each other (Möller 1997). */
    private void cross(int t, int o, Vec3 n, Vec3 m) {
        double[] st = new double[2];
        double[] so = new double[2];
        Vec3 line = n.cross(m).normalised();
        if (!stretch(t, point(o, 0), m, line, st) || !stretch(o, point(t, 0), n, line, so)) {
            return;
        }
        double from = Math.max(st[0], so[0]);
        double to = Math.min(st[1], so[1]);
        if (to - from < CROSSING || isGrazing(t, o, n, m)) {
            return;
        }
        Pair pair = pair(t, o);
        pair.crossings++;
        pair.ofFirst.add(number[t]);
        pair.ofSecond.add(number[o]);
        pair.slack = Math.max(pair.slack, slack[t] + slack[o]);
        // a point of both planes, then along their common line
        Vec3 base = common(point(t, 0), n, point(o, 0), m, line);
        pair.crossing = pair.crossing.with(base.plus(line.times(from))).with(base.plus(line.times(to)));
    }

    /** Whether one of two triangles ends at the other's plane: they touch and do not cross. */
    private boolean isGrazing(int t, int o, Vec3 n, Vec3 m) {
        return reach(t, point(o, 0), m) < ONE_PLACE || reach(o, point(t, 0), n) < ONE_PLACE;
    }

    /** How far a triangle reaches to that side of a plane on which it reaches less far. */
    private double reach(int t, Vec3 on, Vec3 normal) {
        double up = 0;
        double down = 0;
        for (int k = 0; k < 3; k++) {
            double d = point(t, k).minus(on).dot(normal);
            up = Math.max(up, d);
            down = Math.max(down, -d);
        }
        return Math.min(up, down);
    }

    /** Where along a line of its plane a triangle passes another plane; measured from the line's point nearest to 0. */
    private boolean stretch(int t, Vec3 on, Vec3 normal, Vec3 line, double[] out) {
        double lo = Double.POSITIVE_INFINITY;
        double hi = Double.NEGATIVE_INFINITY;
        for (int k = 0; k < 3; k++) {
            Vec3 a = point(t, k);
            Vec3 b = point(t, (k + 1) % 3);
            double da = a.minus(on).dot(normal);
            double db = b.minus(on).dot(normal);
            if (da >= 0 != db >= 0) {
                double s = da / (da - db);
                double along = a.plus(b.minus(a).times(s)).dot(line);
                lo = Math.min(lo, along);
                hi = Math.max(hi, along);
            }
        }
        out[0] = lo;
        out[1] = hi;
        return lo <= hi;
    }

    /** The point of both planes that is nearest to 0 along their line. */
    private static Vec3 common(Vec3 a, Vec3 n, Vec3 b, Vec3 m, Vec3 line) {
        double da = a.dot(n);
        double db = b.dot(m);
        double nm = n.dot(m);
        double det = 1 - nm * nm;
        Vec3 base = n.times((da - db * nm) / det).plus(m.times((db - da * nm) / det));
        return base.minus(line.times(base.dot(line)));
    }
}
