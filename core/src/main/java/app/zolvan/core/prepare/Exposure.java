package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.FilledSpace;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.sample.Directions;

/**
 * How much of a part's surface one can come to see because nothing lies on it: the finish layer of a wall and not what is
 * behind it, the lacquer's face of a board and not the one that is glued.
 *
 * <p>A point of the surface is open where its outer side lies in no other body and some of the ways from there are free for
 * a stretch. Of an open sheet both sides are outer.
 */
public final class Exposure {
    /** A surface counts as seen where at least this share of it is open: more than the rims of what is covered. */
    public static final double SEEN = 0.2;

    /** So many points of each span are looked at, evenly spread over its area. */
    private static final int POINTS = 48;

    private static final int WAYS = 12;
    /** So many of them have to be free. */
    private static final int FREE = 3;
    /** So far a way has to be free, in metres; of a small design such a share of its size. */
    private static final double STRETCH = 0.05;

    private static final double SHARE = 0.02;
    /** How far off the surface one looks from, as a share of the stretch. */
    private static final double OFF = 0.01;

    private Exposure() {}

    /** How far a way has to be free from a surface of a design so that it counts as seen, in metres. */
    public static double stretch(Box3 design) {
        return Math.min(STRETCH, SHARE * design.size().length());
    }

    /**
     * @param closed  whether the part bounds a volume
     * @param all     sees the part and all around it
     * @param filled  what the closed bodies among all that fill
     * @param stretch in metres, &gt; 0
     * @return for each span the share of its area that is open, in [0, 1]
     */
    public static double[] of(
            Mesh mesh, Transform toWorld, boolean closed, Sight all, FilledSpace filled, double stretch) {
        double turned = Math.signum(toWorld.determinant()) * (closed ? Math.signum(mesh.signedVolume()) : 1);
        double[] out = new double[mesh.spanCount()];
        for (int s = 0; s < out.length; s++) {
            int open = 0;
            Walk walk = new Walk(mesh, toWorld, mesh.spanStarts()[s], mesh.spanStarts()[s + 1]);
            for (int i = 0; i < POINTS && walk.total > 0; i++) {
                walk.to((i + 0.5) / POINTS, i);
                Vec3 normal = walk.normal.times(turned);
                boolean seen = isOpen(walk.point, normal, all, filled, stretch)
                        || (!closed && isOpen(walk.point, normal.times(-1), all, filled, stretch));
                open += seen ? 1 : 0;
            }
            out[s] = open / (double) POINTS;
        }
        return out;
    }

    private static boolean isOpen(Vec3 point, Vec3 normal, Sight all, FilledSpace filled, double stretch) {
        Vec3 from = point.plus(normal.times(OFF * stretch));
        double[] way = new double[3];
        int free = 0;
        for (int i = 0; i < WAYS && free < FREE; i++) {
            double cosine = Math.sqrt(1 - (i + 0.5) / WAYS);
            double turn = 2 * Math.PI * ((i * 0.6180339887498949) % 1);
            Directions.about(normal.x(), normal.y(), normal.z(), cosine, turn, way);
            double met = all.distance(from, new Vec3(way[0], way[1], way[2]), stretch);
            free += met == Double.POSITIVE_INFINITY ? 1 : 0;
        }
        return free >= FREE && !filled.isWithin(from);
    }

    /** Goes over some triangles, as far as a share of their area. */
    private static final class Walk {
        private final Mesh mesh;
        private final Transform toWorld;
        private final int end;
        private double total;
        private int triangle;
        /** Area of the triangles before it. */
        private double before;

        private Vec3 point = Vec3.ZERO;
        private Vec3 normal = Vec3.ZERO;

        private Walk(Mesh mesh, Transform toWorld, int start, int end) {
            this.mesh = mesh;
            this.toWorld = toWorld;
            this.end = end;
            this.triangle = start;
            for (int t = start; t < end; t++) {
                total += area(t);
            }
        }

        private void to(double share, int turn) {
            while (triangle < end - 1 && before + area(triangle) < share * total) {
                before += area(triangle);
                triangle++;
            }
            // the plastic number's powers spread points evenly over a square, folded here into a triangle
            double u = (0.5 + turn * 0.7548776662466927) % 1;
            double v = (0.5 + turn * 0.5698402909980532) % 1;
            if (u + v > 1) {
                u = 1 - u;
                v = 1 - v;
            }
            Vec3 a = corner(triangle, 0);
            Vec3 ab = corner(triangle, 1).minus(a);
            Vec3 ac = corner(triangle, 2).minus(a);
            Vec3 cross = ab.cross(ac);
            double length = cross.length();
            point = a.plus(ab.times(u)).plus(ac.times(v));
            normal = length > 0 ? cross.times(1 / length) : Vec3.ZERO;
        }

        private double area(int t) {
            Vec3 a = corner(t, 0);
            return corner(t, 1).minus(a).cross(corner(t, 2).minus(a)).length() / 2;
        }

        private Vec3 corner(int t, int which) {
            return toWorld.point(mesh.position(mesh.indices()[3 * t + which]));
        }
    }
}
