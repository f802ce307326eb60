package app.zolvan.core.prepare;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.Bodies.Body;
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
    /** So many stretches of crossed triangles are looked at, about. */
    private static final long SIDES = 400_000;

    private final Model model;
    private final Bodies bodies;

    Tips(Model model, Bodies bodies) {
        this.model = model;
        this.bodies = bodies;
    }

    /**
     * @param part    whose tip is looked for
     * @param other   what it comes out of
     * @param crossed the part's triangles that the other one crosses, and {@code by} the other's that do
     * @param closes  whether the other one has an inside
     * @return metres; 0 where there is none
     */
    double of(int part, int other, Set<Integer> crossed, Set<Integer> by, boolean closes) {
        Body around = bodies.of(other);
        Mesh mesh = model.meshOf(model.parts().get(part));
        Pieces pieces = new Pieces(mesh, bodies.of(part).corners, crossed);
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

    /** A part's corners and, where it is crossed, points all over its triangles, on their way to groups. */
    private static final class Pieces {
        private final Mesh mesh;
        private final Set<Integer> crossed;
        private final int steps;
        private final int[] place;
        private final List<Vec3> points;
        private final DisjointSets joined;
        /** Points on sides, which two triangles share: the side's ends and how far along. */
        private final Map<List<Integer>, Integer> onSides = new HashMap<>();

        Pieces(Mesh mesh, Vec3[] corners, Set<Integer> crossed) {
            this.mesh = mesh;
            this.crossed = crossed;
            points = new ArrayList<>(List.of(corners));
            place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
            joined = new DisjointSets(corners.length);
            for (int v = 0; v < place.length; v++) {
                joined.join(v, place[v]);
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
                    joined.join(own[3 * t], own[3 * t + 1]);
                    joined.join(own[3 * t + 1], own[3 * t + 2]);
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
            if (joined.find(a) != joined.find(b) && by.cuts(points.get(a), points.get(b)) == 0) {
                joined.join(a, b);
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
            joined.add();
            return points.size() - 1;
        }

        Map<Integer, List<Vec3>> groups() {
            Map<Integer, List<Vec3>> groups = new TreeMap<>();
            for (int v : mesh.indices()) {
                groups.computeIfAbsent(joined.find(v), g -> new ArrayList<>()).add(points.get(v));
            }
            for (int v = mesh.vertexCount(); v < points.size(); v++) {
                groups.computeIfAbsent(joined.find(v), g -> new ArrayList<>()).add(points.get(v));
            }
            return groups;
        }
    }

    private static double farthest(List<Vec3> group, Body around) {
        int step = Math.max(1, group.size() / CORNERS);
        double most = 0;
        for (int i = 0; i < group.size(); i += step) {
            most = Math.max(most, around.distance(group.get(i)));
        }
        return most;
    }
}
