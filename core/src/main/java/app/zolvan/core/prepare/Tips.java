package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/**
 * How far the tip of a part comes out of another one. A part that is sunk into another is joined to it, and one that goes
 * through is held by it; but where a little of it looks out on the far side, or all but a little of it is inside, it
 * pokes through.
 *
 * <p>The other part cuts the part's corners into groups, no side within a group being cut. Of each group outside it counts
 * how far it stands out.
 */
final class Tips {
    /** A tip stands out less than this share of what the rest does. */
    private static final double LITTLE = 0.25;
    /** So many corners of a group are measured. */
    private static final int CORNERS = 64;
    /** By how much a way out of a body is askew, so that it runs along no edge. */
    private static final double ASKEW = 1e-4;
    /** So many stretches of crossed triangles are looked at, about. */
    private static final long SIDES = 400_000;

    private final Model model;
    private final Map<Integer, Body> bodies = new HashMap<>();

    Tips(Model model) {
        this.model = model;
    }

    /**
     * @param part    whose tip is looked for
     * @param other   what it comes out of
     * @param crossed the part's triangles that the other one crosses, and {@code by} the other's that do
     * @param closes  whether the other one has an inside
     * @return metres; 0 where there is none
     */
    double of(int part, int other, Set<Integer> crossed, Set<Integer> by, boolean closes) {
        Body body = body(part);
        Body around = body(other);
        Pieces pieces = new Pieces(meshOf(part), body.corners, crossed);
        pieces.join(around.some(by));
        Map<Integer, List<Vec3>> members = pieces.groups();
        List<Double> outside = new ArrayList<>();
        double inside = 0;
        for (List<Vec3> m : members.values()) {
            double far = farthest(m, around);
            if (closes && around.holds(m.get(0))) {
                inside = Math.max(inside, far);
            } else {
                outside.add(far);
            }
        }
        outside.sort(null);
        double least = outside.isEmpty() ? 0 : outside.get(0);
        double rest = outside.size() > 1 ? outside.get(outside.size() - 1) : inside;
        return least < LITTLE * rest && least < breadth(other) / 2 ? least : 0;
    }

    /** The middle one of a part's extents: what stands out farther than half of it was never hidden by it. */
    private double breadth(int part) {
        Vec3 size = model.boundsOf(model.parts().get(part)).size();
        double[] sorted = {size.x(), size.y(), size.z()};
        Arrays.sort(sorted);
        return sorted[1];
    }

    private Mesh meshOf(int part) {
        return model.meshOf(model.parts().get(part));
    }

    private Body body(int part) {
        return bodies.computeIfAbsent(part, p -> {
            Mesh mesh = meshOf(p);
            Transform t = model.partToWorld(model.parts().get(p));
            Vec3[] corners = new Vec3[mesh.vertexCount()];
            for (int v = 0; v < corners.length; v++) {
                corners[v] = t.point(mesh.position(v));
            }
            return new Body(corners, mesh.indices());
        });
    }

    /** Triangles in the world, and a tree over them. */
    private static final class Body {
        final Vec3[] corners;
        final int[] index;
        private final BoxTree tree;
        /** Longer than any way through it. */
        private final double far;

        private int hits;

        Body(Vec3[] corners, int[] index) {
            this.corners = corners;
            this.index = index;
            double[] boxes = new double[2 * index.length];
            Box3 all = Box3.EMPTY;
            for (int t = 0; t < index.length / 3; t++) {
                put(corner(t, 0), corner(t, 1), corner(t, 2), boxes, 6 * t);
                all = all.with(corner(t, 0)).with(corner(t, 1)).with(corner(t, 2));
            }
            far = 2 * all.size().length();
            tree = new BoxTree(boxes);
        }

        /** A body of some of the triangles. */
        Body some(Set<Integer> triangles) {
            int[] fewer = new int[3 * triangles.size()];
            int at = 0;
            for (int t : triangles) {
                System.arraycopy(index, 3 * t, fewer, at, 3);
                at += 3;
            }
            return new Body(corners, fewer);
        }

        private Vec3 corner(int t, int k) {
            return corners[index[3 * t + k]];
        }

        private static void put(Vec3 a, Vec3 b, Vec3 c, double[] out, int at) {
            for (int k = 0; k < 3; k++) {
                out[at + k] = Math.min(a.get(k), Math.min(b.get(k), c.get(k)));
                out[at + 3 + k] = Math.max(a.get(k), Math.max(b.get(k), c.get(k)));
            }
        }

        /** How many triangles a stretch passes. */
        int cuts(Vec3 a, Vec3 b) {
            double[] box = new double[6];
            put(a, b, b, box, 0);
            hits = 0;
            tree.touching(box, t -> hits += meets(a, b, corner(t, 0), corner(t, 1), corner(t, 2)) ? 1 : 0);
            return hits;
        }

        double distance(Vec3 p) {
            return tree.nearest(p, t -> Tips.distance(p, corner(t, 0), corner(t, 1), corner(t, 2)));
        }

        /** Whether a point lies within: by parity along each axis, a little askew, and the majority of the three. */
        boolean holds(Vec3 p) {
            int votes = 0;
            for (int axis = 0; axis < 3; axis++) {
                Vec3 way = new Vec3(ASKEW, 1.7 * ASKEW, 2.3 * ASKEW).plus(Vec3.axis(axis));
                votes += cuts(p, p.plus(way.times(far))) % 2;
            }
            return votes >= 2;
        }
    }

    /** A part's corners and, where it is crossed, points all over its triangles, on their way to groups. */
    private static final class Pieces {
        private final Mesh mesh;
        private final Set<Integer> crossed;
        private final int steps;
        private final int[] place;
        private final List<Vec3> points;
        private final List<Integer> root = new ArrayList<>();
        /** Points on sides, which two triangles share: the side's ends and how far along. */
        private final Map<List<Integer>, Integer> onSides = new HashMap<>();

        Pieces(Mesh mesh, Vec3[] corners, Set<Integer> crossed) {
            this.mesh = mesh;
            this.crossed = crossed;
            points = new ArrayList<>(List.of(corners));
            place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
            for (int v : place) {
                root.add(v);
            }
            int n = 8;
            while (n > 1 && (long) n * n * crossed.size() > SIDES) {
                n /= 2;
            }
            steps = n;
        }

        /** Joins what is joined by a side that the other part does not cut. */
        void join(Body by) {
            int[] own = mesh.indices();
            for (int t = 0; t < mesh.triangleCount(); t++) {
                if (!crossed.contains(t)) {
                    union(own[3 * t], own[3 * t + 1]);
                    union(own[3 * t + 1], own[3 * t + 2]);
                    continue;
                }
                int[][] id = grid(t);
                for (int i = 0; i <= steps; i++) {
                    for (int j = 0; i + j <= steps; j++) {
                        if (i + j < steps) {
                            joinUncut(id[i][j], id[i + 1][j], by);
                            joinUncut(id[i][j], id[i][j + 1], by);
                        }
                        if (i > 0) {
                            joinUncut(id[i][j], id[i - 1][j + 1], by);
                        }
                    }
                }
            }
        }

        private void joinUncut(int a, int b, Body by) {
            if (find(a) != find(b) && by.cuts(points.get(a), points.get(b)) == 0) {
                union(a, b);
            }
        }

        /** The points of a triangle, i steps from its first corner to the second and j to the third. */
        private int[][] grid(int t) {
            int a = mesh.indices()[3 * t];
            int b = mesh.indices()[3 * t + 1];
            int c = mesh.indices()[3 * t + 2];
            int[][] id = new int[steps + 1][];
            for (int i = 0; i <= steps; i++) {
                id[i] = new int[steps + 1 - i];
                for (int j = 0; i + j <= steps; j++) {
                    int k = steps - i - j;
                    if (j == 0) {
                        id[i][j] = onSide(a, b, i);
                    } else if (i == 0) {
                        id[i][j] = onSide(a, c, j);
                    } else if (k == 0) {
                        id[i][j] = onSide(b, c, j);
                    } else {
                        Vec3 p = points.get(a)
                                .times(k)
                                .plus(points.get(b).times(i))
                                .plus(points.get(c).times(j));
                        id[i][j] = add(p.times(1.0 / steps));
                    }
                }
            }
            return id;
        }

        private int onSide(int from, int to, int step) {
            if (step == 0 || step == steps) {
                return step == 0 ? from : to;
            }
            int a = place[from]; // so that both sides of a crease find the same point
            int b = place[to];
            List<Integer> key = a < b ? List.of(a, b, step) : List.of(b, a, steps - step);
            return onSides.computeIfAbsent(key, k -> {
                Vec3 p =
                        points.get(from).times(steps - step).plus(points.get(to).times(step));
                return add(p.times(1.0 / steps));
            });
        }

        private int add(Vec3 p) {
            points.add(p);
            root.add(points.size() - 1);
            return points.size() - 1;
        }

        private int find(int v) {
            int r = v;
            while (root.get(r) != r) {
                r = root.get(r);
            }
            root.set(v, r);
            return r;
        }

        private void union(int a, int b) {
            int ra = find(a);
            int rb = find(b);
            root.set(Math.max(ra, rb), Math.min(ra, rb));
        }

        Map<Integer, List<Vec3>> groups() {
            Map<Integer, List<Vec3>> groups = new TreeMap<>();
            for (int v : mesh.indices()) {
                groups.computeIfAbsent(find(v), g -> new ArrayList<>()).add(points.get(v));
            }
            for (int v = mesh.vertexCount(); v < points.size(); v++) {
                groups.computeIfAbsent(find(v), g -> new ArrayList<>()).add(points.get(v));
            }
            return groups;
        }
    }

    /** Whether a stretch from a to b passes a triangle, by the signs of volumes. */
    static boolean meets(Vec3 a, Vec3 b, Vec3 p, Vec3 q, Vec3 r) {
        Vec3 n = q.minus(p).cross(r.minus(p));
        double from = a.minus(p).dot(n);
        double to = b.minus(p).dot(n);
        if (from > 0 == to > 0) {
            return false;
        }
        Vec3 way = b.minus(a);
        double u = way.dot(p.minus(a).cross(q.minus(a)));
        double v = way.dot(q.minus(a).cross(r.minus(a)));
        double w = way.dot(r.minus(a).cross(p.minus(a)));
        return (u >= 0 && v >= 0 && w >= 0) || (u <= 0 && v <= 0 && w <= 0);
    }

    private static double farthest(List<Vec3> group, Body around) {
        int step = Math.max(1, group.size() / CORNERS);
        double most = 0;
        for (int i = 0; i < group.size(); i += step) {
            most = Math.max(most, around.distance(group.get(i)));
        }
        return most;
    }

    /** From a point to a triangle (Ericson 2005, section 5.1.5). */
    static double distance(Vec3 p, Vec3 a, Vec3 b, Vec3 c) {
        Vec3 ab = b.minus(a);
        Vec3 ac = c.minus(a);
        Vec3 ap = p.minus(a);
        double d1 = ab.dot(ap);
        double d2 = ac.dot(ap);
        if (d1 <= 0 && d2 <= 0) {
            return ap.length();
        }
        Vec3 bp = p.minus(b);
        double d3 = ab.dot(bp);
        double d4 = ac.dot(bp);
        if (d3 >= 0 && d4 <= d3) {
            return bp.length();
        }
        double vc = d1 * d4 - d3 * d2;
        if (vc <= 0 && d1 >= 0 && d3 <= 0) {
            return ap.minus(ab.times(d1 / (d1 - d3))).length();
        }
        Vec3 cp = p.minus(c);
        double d5 = ab.dot(cp);
        double d6 = ac.dot(cp);
        if (d6 >= 0 && d5 <= d6) {
            return cp.length();
        }
        double vb = d5 * d2 - d1 * d6;
        if (vb <= 0 && d2 >= 0 && d6 <= 0) {
            return ap.minus(ac.times(d2 / (d2 - d6))).length();
        }
        double va = d3 * d6 - d5 * d4;
        if (va <= 0 && d4 - d3 >= 0 && d5 - d6 >= 0) {
            return bp.minus(c.minus(b).times((d4 - d3) / (d4 - d3 + d5 - d6))).length();
        }
        double sum = va + vb + vc;
        return ap.minus(ab.times(vb / sum)).minus(ac.times(vc / sum)).length();
    }
}
