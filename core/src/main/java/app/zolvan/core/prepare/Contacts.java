package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.IntList;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
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
    /** So many triangles that lie near other parts are compared at most; it takes a few hundred megabytes. */
    private static final int MOST = 4_000_000;

    /** What was found between two parts, the first one's index the lower. */
    static final class Pair {
        final int first;
        final int second;
        /** Areas in m² of faces in one place that look the same way, or away from each other; and the bounds of each. */
        double alike;

        double opposed;
        Box3 alikeAt = Box3.EMPTY;
        Box3 opposedAt = Box3.EMPTY;
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
    private final Bodies bodies;
    private final Map<Long, Pair> pairs = new TreeMap<>();
    /** Of each triangle that may meet another part's: its part, and its number there. */
    private final IntList part = new IntList();

    private final IntList number = new IntList();
    private Vec3[] normals;
    private BoxTree tree;
    private final double[] clipped = new double[32];
    private final double[] clipping = new double[32];

    private Contacts(Model model, Bodies bodies) {
        this.model = model;
        this.bodies = bodies;
    }

    /**
     * All pairs of parts that meet, in the order of their indices.
     *
     * @return empty where so many triangles lie near other parts that comparing them would take more memory than there is
     */
    static Optional<List<Pair>> of(Model model, Bodies bodies, DoubleConsumer progress) {
        Contacts c = new Contacts(model, bodies);
        if (!c.gather()) {
            return Optional.empty();
        }
        c.compare(progress);
        for (Pair p : c.pairs.values()) {
            if (p.alike > 0 && c.isCovered(p)) {
                p.alike = 0;
            }
        }
        return Optional.of(List.copyOf(c.pairs.values()));
    }

    /** Finds the triangles that lie within reach of another part's box; false where there are too many. */
    private boolean gather() {
        int n = model.parts().size();
        double[] boxes = new double[6 * n];
        for (int i = 0; i < n; i++) {
            model.boundsOf(model.parts().get(i)).widened(NEAR / 2).put(boxes, 6 * i);
        }
        BoxTree tree = new BoxTree(boxes);
        for (int i = 0; i < n; i++) {
            if (isNear(tree, Arrays.copyOfRange(boxes, 6 * i, 6 * i + 6), i)) {
                gather(i, tree);
            }
            if (number.size() > MOST) {
                return false;
            }
        }
        return true;
    }

    private void gather(int me, BoxTree tree) {
        Bodies.Body body = bodies.of(me);
        double[] box = new double[6];
        for (int t = 0; t < body.triangles(); t++) {
            body.box(t).put(box, 0);
            Vec3 a = body.corner(t, 0);
            boolean hasArea =
                    body.corner(t, 1).minus(a).cross(body.corner(t, 2).minus(a)).length() >= 1e-14;
            if (hasArea && isNear(tree, box, me)) {
                part.add(me);
                number.add(t);
            }
        }
    }

    /** Whether a box touches that of another part. */
    private static boolean isNear(BoxTree tree, double[] box, int me) {
        boolean[] found = {false};
        tree.touching(box, o -> found[0] |= o != me);
        return found[0];
    }

    /**
     * How far a triangle may lie off the curved surface it stands for: the height of an arc over its shortest edge along
     * which the normals turn.
     */
    private double sagitta(int triangle) {
        Bodies.Body body = bodies.of(part.get(triangle));
        Mesh mesh = model.meshOf(model.parts().get(part.get(triangle)));
        int t = number.get(triangle);
        double best = 0;
        double shortest = Double.POSITIVE_INFINITY;
        for (int k = 0; k < 3; k++) {
            int i = mesh.indices()[3 * t + k];
            int j = mesh.indices()[3 * t + (k + 1) % 3];
            double turn = Math.acos(Math.max(-1, Math.min(1, mesh.normal(i).dot(mesh.normal(j)))));
            double length = body.corners[i].minus(body.corners[j]).length();
            if (turn > Math.toRadians(0.5) && length < shortest) {
                shortest = length;
                best = length / 2 * Math.tan(turn / 4);
            }
        }
        return best;
    }

    private void compare(DoubleConsumer progress) {
        int n = part.size();
        double[] boxes = new double[6 * n];
        normals = new Vec3[n];
        for (int t = 0; t < n; t++) {
            bodies.of(part.get(t)).box(number.get(t)).widened(NEAR / 2).put(boxes, 6 * t);
            Vec3 a = point(t, 0);
            normals[t] = point(t, 1).minus(a).cross(point(t, 2).minus(a)).normalised();
        }
        tree = new BoxTree(boxes);
        double[] own = new double[6];
        for (int t = 0; t < n; t++) {
            int me = t;
            System.arraycopy(boxes, 6 * t, own, 0, 6);
            tree.touching(own, o -> {
                if (part.get(o) > part.get(me)) {
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
        double[] reach = new double[6];
        Box3.EMPTY.with(from).widened(COVER).put(reach, 0);
        List<Integer> near = new ArrayList<>();
        tree.touching(reach, near::add);
        for (int i = 0; i < LOOKS; i++) {
            double angle = 2 * Math.PI * i / LOOKS;
            Vec3 out = pair.looks
                    .plus(u.times(Math.cos(angle)))
                    .plus(v.times(Math.sin(angle)))
                    .normalised();
            Vec3 to = from.plus(out.times(COVER));
            if (near.stream().noneMatch(t -> Triangles.isCut(from, to, point(t, 0), point(t, 1), point(t, 2)))) {
                return false;
            }
        }
        return true;
    }

    private Pair pair(int t, int o) {
        long key = (long) part.get(t) << 32 | part.get(o);
        return pairs.computeIfAbsent(key, k -> new Pair(part.get(t), part.get(o)));
    }

    private Vec3 point(int t, int k) {
        return bodies.of(part.get(t)).corner(number.get(t), k);
    }

    private void meet(int t, int o) {
        Vec3 n = normals[t];
        Vec3 m = normals[o];
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
            if (together < 0) {
                pair.opposed += area;
                pair.opposedAt = withClipped(pair.opposedAt, corners, origin, u, v);
                return;
            }
            pair.alike += area;
            pair.alikeAt = withClipped(pair.alikeAt, corners, origin, u, v);
            if (area > pair.largest) {
                pair.largest = area;
                pair.at = middle;
                pair.looks = n;
            }
        } else if (together < 0 && height > 0) {
            Pair pair = pair(t, o);
            pair.facing += area;
            pair.gaps += area * height;
            pair.slack = Math.max(pair.slack, sagitta(t) + sagitta(o));
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
        pair.ofFirst.add(number.get(t));
        pair.ofSecond.add(number.get(o));
        pair.slack = Math.max(pair.slack, sagitta(t) + sagitta(o));
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
