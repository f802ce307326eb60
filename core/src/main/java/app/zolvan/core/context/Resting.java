package app.zolvan.core.context;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import java.util.Arrays;
import java.util.List;
import java.util.OptionalDouble;

/**
 * Sets a thing down on what is below it. Seen from above, the gap between two triangles is linear where they overlap, so
 * the least gap is at a corner of the overlap, and what is found is exact: no corner, edge or face gets through another.
 */
public final class Resting {
    /** A thing is lifted out of what it is sunk in, where that reaches no higher than this share of its height. */
    private static final double SUNK = 0.25;
    /** As a share of the thing's size: what reaches so far into it only touches it. */
    private static final double TOUCHING = 1e-6;
    /** Twice the area below which a triangle counts as upright, as a share of its longest side squared. */
    private static final double UPRIGHT = 1e-9;

    private Resting() {}

    /** A mesh where it stands. */
    public record Body(Mesh mesh, Transform toWorld) {}

    /**
     * How far a thing falls until it touches what is below.
     *
     * @param moving the thing
     * @param still  all it may stand on: what is below it, and what reaches into the lowest quarter of it
     * @return metres; below 0 where it has to be lifted; empty where there is nothing below it
     */
    public static OptionalDouble drop(List<Body> moving, List<Body> still) {
        double[] own = triangles(moving);
        Box3 box = Box3.EMPTY;
        for (int i = 0; i < own.length; i += 3) {
            box = box.with(new Vec3(own[i], own[i + 1], own[i + 2]));
        }
        if (box.isEmpty()) {
            return OptionalDouble.empty();
        }
        double highest = box.min().y() + SUNK * (box.max().y() - box.min().y());
        double touching = TOUCHING * box.size().length();
        double[] below = within(triangles(still), box);
        BoxTree tree = new BoxTree(flat(below));
        double[] least = {Double.POSITIVE_INFINITY};
        Overlap overlap = new Overlap(highest, touching);
        double[] asked = new double[6];
        for (int t = 0; t < own.length; t += 9) {
            int mine = t;
            plan(own, t, asked, 0);
            tree.touching(asked, i -> least[0] = Math.min(least[0], overlap.gap(own, mine, below, 9 * i)));
        }
        return least[0] == Double.POSITIVE_INFINITY ? OptionalDouble.empty() : OptionalDouble.of(least[0]);
    }

    /** The corners of all triangles, nine numbers each. */
    private static double[] triangles(List<Body> bodies) {
        double[] out = new double
                [9 * bodies.stream().mapToInt(b -> b.mesh().triangleCount()).sum()];
        int at = 0;
        for (Body b : bodies) {
            for (int v : b.mesh().indices()) {
                Vec3 w = b.toWorld().point(b.mesh().position(v));
                out[at++] = w.x();
                out[at++] = w.y();
                out[at++] = w.z();
            }
        }
        return out;
    }

    /** Those that lie under a box or in it, seen from above. */
    private static double[] within(double[] all, Box3 box) {
        double[] out = new double[all.length];
        double[] plan = new double[6];
        int n = 0;
        for (int t = 0; t < all.length; t += 9) {
            plan(all, t, plan, 0);
            if (plan[0] <= box.max().x()
                    && plan[3] >= box.min().x()
                    && plan[2] <= box.max().z()
                    && plan[5] >= box.min().z()
                    && Math.min(all[t + 1], Math.min(all[t + 4], all[t + 7]))
                            <= box.max().y()) {
                System.arraycopy(all, t, out, n, 9);
                n += 9;
            }
        }
        return Arrays.copyOf(out, n);
    }

    private static double[] flat(double[] triangles) {
        double[] out = new double[triangles.length / 9 * 6];
        for (int t = 0; t < triangles.length / 9; t++) {
            plan(triangles, 9 * t, out, 6 * t);
        }
        return out;
    }

    /** The box of a triangle seen from above: flat, at height 0. */
    private static void plan(double[] t, int at, double[] out, int to) {
        for (int k = 0; k < 3; k++) {
            out[to + k] = k == 1 ? 0 : Math.min(t[at + k], Math.min(t[at + 3 + k], t[at + 6 + k]));
            out[to + 3 + k] = k == 1 ? 0 : Math.max(t[at + k], Math.max(t[at + 3 + k], t[at + 6 + k]));
        }
    }

    /** What two triangles have in common seen from above, cut out corner by corner (Sutherland and Hodgman 1974). */
    private static final class Overlap {
        private static final int MOST = 9; // a triangle cut by three lines has six corners at most
        private final double highest;
        private final double touching;
        private double[] corners = new double[3 * MOST];
        private double[] spare = new double[3 * MOST];

        Overlap(double highest, double touching) {
            this.highest = highest;
            this.touching = touching;
        }

        /** The least height of the first over the second; infinity where they have nothing in common. */
        double gap(double[] above, int a, double[] below, int b) {
            double area = area(below, b);
            boolean swapped = area == 0;
            double other = swapped ? area(above, a) : area;
            if (other == 0) {
                return Double.POSITIVE_INFINITY; // two upright sheets, one over the other
            }
            double[] cut = swapped ? below : above;
            double[] frame = swapped ? above : below;
            int c = swapped ? b : a;
            int f = swapped ? a : b;
            System.arraycopy(cut, c, corners, 0, 9);
            int n = 3;
            for (int side = 0; side < 3 && n > 0; side++) {
                n = clip(n, frame, f, side, Math.signum(other));
            }
            double least = Double.POSITIVE_INFINITY;
            for (int i = 0; i < n; i++) {
                double y = corners[3 * i + 1];
                double of = height(frame, f, other, corners[3 * i], corners[3 * i + 2]);
                double support = swapped ? y : of;
                double gap = swapped ? of - y : y - of;
                if (gap >= -touching || support <= highest) {
                    least = Math.min(least, gap);
                }
            }
            return least;
        }

        /** Twice its area seen from above, with a sign; 0 for one that stands upright. */
        private static double area(double[] t, int at) {
            double ux = t[at + 3] - t[at];
            double uz = t[at + 5] - t[at + 2];
            double vx = t[at + 6] - t[at];
            double vz = t[at + 8] - t[at + 2];
            double area = ux * vz - uz * vx;
            double uy = t[at + 4] - t[at + 1];
            double vy = t[at + 7] - t[at + 1];
            double longest = Math.max(ux * ux + uy * uy + uz * uz, vx * vx + vy * vy + vz * vz);
            return Math.abs(area) <= UPRIGHT * longest ? 0 : area;
        }

        private static double height(double[] t, int at, double area, double x, double z) {
            double ux = t[at + 3] - t[at];
            double uz = t[at + 5] - t[at + 2];
            double vx = t[at + 6] - t[at];
            double vz = t[at + 8] - t[at + 2];
            double px = x - t[at];
            double pz = z - t[at + 2];
            double r = (px * vz - pz * vx) / area;
            double s = (ux * pz - uz * px) / area;
            return t[at + 1] + r * (t[at + 4] - t[at + 1]) + s * (t[at + 7] - t[at + 1]);
        }

        private int clip(int n, double[] frame, int f, int side, double sign) {
            int from = f + 3 * side;
            int to = f + 3 * ((side + 1) % 3);
            double x = frame[from];
            double z = frame[from + 2];
            double dx = frame[to] - x;
            double dz = frame[to + 2] - z;
            int out = 0;
            for (int i = 0; i < n; i++) {
                int here = 3 * i;
                int next = 3 * ((i + 1) % n);
                double d = sign * (dx * (corners[here + 2] - z) - dz * (corners[here] - x));
                double e = sign * (dx * (corners[next + 2] - z) - dz * (corners[next] - x));
                if (d >= 0) {
                    System.arraycopy(corners, here, spare, 3 * out++, 3);
                }
                if (d >= 0 != e >= 0) {
                    double share = d / (d - e);
                    for (int k = 0; k < 3; k++) {
                        spare[3 * out + k] = corners[here + k] + share * (corners[next + k] - corners[here + k]);
                    }
                    out++;
                }
            }
            double[] t = corners;
            corners = spare;
            spare = t;
            return out;
        }
    }
}
