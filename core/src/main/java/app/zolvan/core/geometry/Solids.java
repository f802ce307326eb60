package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.List;
import java.util.function.UnaryOperator;

/** Parametric solids: all closed, all with outward faces. Lengths in whatever unit a model has. */
public final class Solids {
    private Solids() {}

    /** A profile of (radius, height) pairs, written as a flat list. */
    public static List<double[]> profile(double... rh) {
        List<double[]> points = new ArrayList<>();
        for (int i = 0; i < rh.length; i += 2) {
            points.add(new double[] {rh[i], rh[i + 1]});
        }
        return points;
    }

    /** A smooth curve through the points (centripetal-like Catmull–Rom), {@code steps} pieces between neighbours. */
    public static List<double[]> curve(List<double[]> p, int steps) {
        List<double[]> out = new ArrayList<>();
        for (int i = 0; i + 1 < p.size(); i++) {
            double[] a = p.get(Math.max(0, i - 1));
            double[] b = p.get(i);
            double[] c = p.get(i + 1);
            double[] d = p.get(Math.min(p.size() - 1, i + 2));
            for (int s = 0; s < steps; s++) {
                double t = (double) s / steps;
                double[] q = new double[b.length];
                for (int k = 0; k < q.length; k++) {
                    q[k] = 0.5
                            * (2 * b[k]
                                    + (c[k] - a[k]) * t
                                    + (2 * a[k] - 5 * b[k] + 4 * c[k] - d[k]) * t * t
                                    + (3 * b[k] - a[k] - 3 * c[k] + d[k]) * t * t * t);
                }
                out.add(q);
            }
        }
        out.add(p.get(p.size() - 1));
        return out;
    }

    /**
     * The closed profile of a wall of given thickness: the outer line, then the same line moved inwards (to its left) and
     * run backwards.
     */
    public static List<double[]> wall(List<double[]> outer, double thickness) {
        List<double[]> loop = new ArrayList<>(outer);
        for (int i = outer.size() - 1; i >= 0; i--) {
            double[] a = outer.get(Math.max(0, i - 1));
            double[] b = outer.get(Math.min(outer.size() - 1, i + 1));
            double dr = b[0] - a[0];
            double dh = b[1] - a[1];
            double l = Math.hypot(dr, dh);
            double[] p = outer.get(i);
            double r = p[0] == 0 ? 0 : Math.max(0, p[0] - thickness * dh / l);
            loop.add(new double[] {r, p[1] + thickness * dr / l});
        }
        return loop;
    }

    /** A closed circle as a profile, for rings. */
    public static List<double[]> circle(double r, double h, double radius, int steps) {
        List<double[]> out = new ArrayList<>();
        for (int i = 0; i < steps; i++) {
            double a = 2 * Math.PI * i / steps;
            out.add(new double[] {r + radius * Math.cos(a), h + radius * Math.sin(a)});
        }
        return out;
    }

    /** Turns a closed profile, running anticlockwise in the (radius, height) plane, about the y axis. */
    public static TriangleSoup lathe(List<double[]> loop, int segments) {
        List<double[]> closed = new ArrayList<>(loop);
        closed.add(loop.get(0));
        return latheOpen(closed, segments);
    }

    /** Turns a line of (radius, height) pairs about the y axis: a surface that ends where the line does. */
    public static TriangleSoup latheOpen(List<double[]> line, int segments) {
        TriangleSoup soup = new TriangleSoup();
        for (int i = 0; i + 1 < line.size(); i++) {
            double[] p = line.get(i);
            double[] q = line.get(i + 1);
            if (p[0] <= 0 && q[0] <= 0) {
                continue;
            }
            for (int s = 0; s < segments; s++) {
                double a = 2 * Math.PI * s / segments;
                double b = 2 * Math.PI * ((s + 1) % segments) / segments;
                soup.quad(turned(p, a), turned(p, b), turned(q, b), turned(q, a));
            }
        }
        return soup;
    }

    private static Vec3 turned(double[] p, double angle) {
        return new Vec3(p[0] * Math.cos(angle), p[1], -p[0] * Math.sin(angle));
    }

    /**
     * A section carried along a path that lies in space. The section is a loop of (side, up) pairs, clockwise seen
     * against the direction of travel; {@code up} is kept as near to the given direction as the path allows.
     */
    public static TriangleSoup sweep(List<Vec3> path, List<double[]> section, Vec3 up, boolean closed) {
        int n = path.size();
        List<List<Vec3>> rings = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            Vec3 before = path.get(closed ? (i + n - 1) % n : Math.max(0, i - 1));
            Vec3 after = path.get(closed ? (i + 1) % n : Math.min(n - 1, i + 1));
            Vec3 forward = after.minus(before).normalised();
            Vec3 side = forward.cross(up).normalised();
            Vec3 top = side.cross(forward);
            List<Vec3> ring = new ArrayList<>();
            for (double[] s : section) {
                ring.add(path.get(i).plus(side.times(s[0])).plus(top.times(s[1])));
            }
            rings.add(ring);
        }
        TriangleSoup soup = new TriangleSoup();
        int m = section.size();
        for (int i = 0; i + 1 < (closed ? n + 1 : n); i++) {
            List<Vec3> a = rings.get(i % n);
            List<Vec3> b = rings.get((i + 1) % n);
            for (int k = 0; k < m; k++) {
                int l = (k + 1) % m;
                soup.quad(a.get(k), b.get(k), b.get(l), a.get(l));
            }
        }
        if (!closed) {
            cap(soup, rings.get(0), true);
            cap(soup, rings.get(n - 1), false);
        }
        return soup;
    }

    private static void cap(TriangleSoup soup, List<Vec3> ring, boolean start) {
        Vec3 centre = Vec3.ZERO;
        for (Vec3 p : ring) {
            centre = centre.plus(p.times(1.0 / ring.size()));
        }
        for (int k = 0; k < ring.size(); k++) {
            Vec3 a = ring.get(k);
            Vec3 b = ring.get((k + 1) % ring.size());
            if (start) {
                soup.triangle(centre, a, b);
            } else {
                soup.triangle(centre, b, a);
            }
        }
    }

    public static List<double[]> disc(double radius, int steps) {
        return circle(0, 0, radius, steps);
    }

    /** A rectangle with rounded corners as a section, anticlockwise. */
    public static List<double[]> roundedRectangle(double width, double height, double radius, int steps) {
        List<double[]> out = new ArrayList<>();
        for (int corner = 0; corner < 4; corner++) {
            double cx = (corner == 0 || corner == 3 ? 1 : -1) * (width / 2 - radius);
            double cy = (corner < 2 ? 1 : -1) * (height / 2 - radius);
            for (int s = 0; s <= steps; s++) {
                double a = Math.PI / 2 * (corner + (double) s / steps);
                out.add(new double[] {cx + radius * Math.cos(a), cy + radius * Math.sin(a)});
            }
        }
        return out;
    }

    /** The same outline with no edge longer than {@code longest}. */
    public static List<double[]> divided(List<double[]> outline, double longest) {
        List<double[]> out = new ArrayList<>();
        for (int i = 0; i < outline.size(); i++) {
            double[] p = outline.get(i);
            double[] q = outline.get((i + 1) % outline.size());
            int pieces = (int) Math.max(1, Math.ceil(Math.hypot(q[0] - p[0], q[1] - p[1]) / longest));
            for (int k = 0; k < pieces; k++) {
                double t = (double) k / pieces;
                out.add(new double[] {p[0] + (q[0] - p[0]) * t, p[1] + (q[1] - p[1]) * t});
            }
        }
        return out;
    }

    /**
     * A plate: a convex outline in the (x, y) plane raised to thickness along z, its front edge bevelled, then each point
     * bent by {@code bend}. The rim is cut fine enough to follow a curve.
     */
    public static TriangleSoup plate(List<double[]> outline, double thickness, double bevel, UnaryOperator<Vec3> bend) {
        int rings = 6;
        List<double[]> radii = new ArrayList<>(); // share of the outline, z
        radii.add(new double[] {1, 0});
        radii.add(new double[] {1, thickness - bevel});
        for (int i = 0; i <= rings; i++) {
            radii.add(new double[] {Double.NaN, thickness, (double) i / rings});
        }
        TriangleSoup soup = new TriangleSoup();
        int n = outline.size();
        for (int k = 0; k < n; k++) {
            double[] p = outline.get(k);
            double[] q = outline.get((k + 1) % n);
            for (int i = 0; i + 1 < radii.size(); i++) {
                soup.quad(
                        bend.apply(at(p, radii.get(i), bevel)),
                        bend.apply(at(q, radii.get(i), bevel)),
                        bend.apply(at(q, radii.get(i + 1), bevel)),
                        bend.apply(at(p, radii.get(i + 1), bevel)));
            }
            for (int i = 0; i < rings; i++) {
                double s = 1 - (double) i / rings;
                double t = 1 - (double) (i + 1) / rings;
                soup.quad(
                        bend.apply(new Vec3(q[0] * s, q[1] * s, 0)),
                        bend.apply(new Vec3(p[0] * s, p[1] * s, 0)),
                        bend.apply(new Vec3(p[0] * t, p[1] * t, 0)),
                        bend.apply(new Vec3(q[0] * t, q[1] * t, 0)));
            }
        }
        return soup;
    }

    private static Vec3 at(double[] p, double[] ring, double bevel) {
        if (!Double.isNaN(ring[0])) {
            return new Vec3(p[0], p[1], ring[1]);
        }
        double l = Math.hypot(p[0], p[1]);
        double s = (1 - bevel / l) * (1 - ring[2]);
        return new Vec3(p[0] * s, p[1] * s, ring[1]);
    }

    public static Transform about(Vec3 axis, double degrees) {
        return Transform.rotation(axis, Math.toRadians(degrees));
    }
}
