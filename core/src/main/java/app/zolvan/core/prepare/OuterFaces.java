package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.sample.Directions;
import java.util.BitSet;
import java.util.function.Supplier;
import java.util.stream.IntStream;

/**
 * Which triangles of a part face the outside, so that one can look into what it closes off: a roof from above. What faces the
 * outside is not there for an eye in front of it; all else is not there for an eye behind it.
 *
 * <p>A triangle faces the side on which more of the surroundings is open to it once everything that is looked into is away.
 * Where both sides are as open as each other, it faces away from the middle of what is left. So it does not matter which way
 * an open sheet was modelled, nor whether the part is a sheet or has a thickness.
 */
public final class OuterFaces {
    private static final int RAYS = 24;
    /** Differences of so many rays decide nothing. */
    private static final int EVEN = 1;

    private OuterFaces() {}

    /**
     * @param rest   sees all else; one for each thread
     * @param middle of all else, in the world
     * @param far    what is met beyond is no enclosure, in metres
     * @return the triangles that face the outside
     */
    public static BitSet of(Mesh mesh, Transform toWorld, Supplier<? extends Sight> rest, Vec3 middle, double far) {
        boolean[] outer = new boolean[mesh.triangleCount()];
        ThreadLocal<Sight> own = ThreadLocal.withInitial(rest);
        IntStream.range(0, outer.length)
                .parallel()
                .forEach(t -> outer[t] = isOuter(mesh, toWorld, t, own.get(), middle, far));
        own.remove();
        BitSet out = new BitSet(outer.length);
        for (int t = 0; t < outer.length; t++) {
            out.set(t, outer[t]);
        }
        return out;
    }

    private static boolean isOuter(Mesh mesh, Transform toWorld, int triangle, Sight rest, Vec3 middle, double far) {
        Vec3 a = corner(mesh, toWorld, triangle, 0);
        Vec3 b = corner(mesh, toWorld, triangle, 1);
        Vec3 c = corner(mesh, toWorld, triangle, 2);
        Vec3 cross = b.minus(a).cross(c.minus(a));
        double area = cross.length();
        if (!(area > 0)) {
            return false;
        }
        Vec3 normal = cross.times((toWorld.determinant() < 0 ? -1 : 1) / area);
        Vec3 centre = a.plus(b).plus(c).times(1 / 3.0);
        int ahead = open(rest, centre, normal, far);
        int behind = open(rest, centre, normal.times(-1), far);
        return Math.abs(ahead - behind) <= EVEN ? centre.minus(middle).dot(normal) > 0 : ahead > behind;
    }

    /** How many of the rays of one side, spread by the cosine, meet nothing. */
    private static int open(Sight rest, Vec3 from, Vec3 normal, double far) {
        double[] way = new double[3];
        int open = 0;
        for (int i = 0; i < RAYS; i++) {
            double cosine = Math.sqrt(1 - (i + 0.5) / RAYS);
            double turn = 2 * Math.PI * ((i * 0.6180339887498949) % 1);
            Directions.about(normal.x(), normal.y(), normal.z(), cosine, turn, way);
            open += rest.distance(from, new Vec3(way[0], way[1], way[2]), far) == Double.POSITIVE_INFINITY ? 1 : 0;
        }
        return open;
    }

    private static Vec3 corner(Mesh mesh, Transform toWorld, int triangle, int which) {
        int v = 3 * mesh.indices()[3 * triangle + which];
        float[] p = mesh.positions();
        return toWorld.point(new Vec3(p[v], p[v + 1], p[v + 2]));
    }
}
