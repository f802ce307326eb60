package app.zolvan.core.context;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;

/** Where copies of a thing stand: each by what moves the thing itself there, in the world. */
public final class Repeating {
    /** So many copies at most. */
    public static final int MOST = 500;
    /** Surfaces that lean more than this are not stood on, as the cosine to upright. */
    private static final double LEVEL = Math.cos(Math.toRadians(45));
    /** So many places are tried for each that is wanted before a surface counts as full. */
    private static final int TRIES = 30;

    private Repeating() {}

    /** {@code count} more along a line, each {@code step} metres from the one before. */
    public static List<Transform> line(int count, Vec3 step) {
        List<Transform> out = new ArrayList<>();
        for (int i = 1; i <= count; i++) {
            out.add(Transform.translation(i * step.x(), i * step.y(), i * step.z()));
        }
        return out;
    }

    /**
     * {@code count} more around an upright axis, turned with it.
     *
     * @param degrees from the first to the last; where that is a whole turn, the last does not fall on the first
     */
    public static List<Transform> around(int count, Vec3 centre, double degrees) {
        boolean whole = Math.abs(degrees) >= 360 - 1e-9;
        double step = degrees / (whole ? count + 1 : count);
        List<Transform> out = new ArrayList<>();
        for (int i = 1; i <= count; i++) {
            out.add(Transform.translation(centre.x(), centre.y(), centre.z())
                    .after(Transform.rotation(Vec3.axis(1), Math.toRadians(i * step)))
                    .after(Transform.translation(-centre.x(), -centre.y(), -centre.z())));
        }
        return out;
    }

    /**
     * Up to {@code count} more spread over the surfaces that look up, none nearer to another than {@code apart}; drawn by
     * the seed, the same each time. Each stands upright and is turned some way.
     *
     * @param foot where the thing itself stands; copies keep away from it, too
     */
    public static List<Transform> over(int count, List<Resting.Body> surface, double apart, Vec3 foot, long seed) {
        Spread spread = new Spread(surface);
        SplittableRandom random = new SplittableRandom(seed);
        Map<Long, List<Vec3>> taken = new HashMap<>();
        put(taken, foot, apart);
        List<Transform> out = new ArrayList<>();
        for (int tries = 0; out.size() < count && tries < count * TRIES && spread.area > 0; tries++) {
            Vec3 p = spread.at(random.nextDouble(), random.nextDouble(), random.nextDouble());
            double turn = random.nextDouble() * 2 * Math.PI;
            if (isFree(taken, p, apart)) {
                put(taken, p, apart);
                out.add(Transform.translation(p.x(), p.y(), p.z())
                        .after(Transform.rotation(Vec3.axis(1), turn))
                        .after(Transform.translation(-foot.x(), -foot.y(), -foot.z())));
            }
        }
        return out;
    }

    private static long cell(long x, long y, long z) {
        return (x * 73856093L) ^ (y * 19349663L) ^ (z * 83492791L);
    }

    private static void put(Map<Long, List<Vec3>> taken, Vec3 p, double apart) {
        long key = cell(floor(p.x(), apart), floor(p.y(), apart), floor(p.z(), apart));
        taken.computeIfAbsent(key, k -> new ArrayList<>()).add(p);
    }

    private static long floor(double v, double apart) {
        return (long) Math.floor(v / apart);
    }

    private static boolean isFree(Map<Long, List<Vec3>> taken, Vec3 p, double apart) {
        for (int n = 0; n < 27; n++) {
            long key = cell(
                    floor(p.x(), apart) + n % 3 - 1,
                    floor(p.y(), apart) + n / 3 % 3 - 1,
                    floor(p.z(), apart) + n / 9 - 1);
            for (Vec3 q : taken.getOrDefault(key, List.of())) {
                if (q.minus(p).length() < apart) {
                    return false;
                }
            }
        }
        return true;
    }

    /** Points spread evenly over triangles that look up. */
    private static final class Spread {
        private final List<Vec3[]> triangles = new ArrayList<>();
        private final List<Double> until = new ArrayList<>();
        private double area;

        Spread(List<Resting.Body> surface) {
            for (Resting.Body b : surface) {
                Mesh mesh = b.mesh();
                for (int t = 0; t < mesh.triangleCount(); t++) {
                    Vec3[] corners = new Vec3[3];
                    for (int k = 0; k < 3; k++) {
                        corners[k] = b.toWorld().point(mesh.position(mesh.indices()[3 * t + k]));
                    }
                    Vec3 n = corners[1].minus(corners[0]).cross(corners[2].minus(corners[0]));
                    n = b.toWorld().determinant() < 0 ? n.times(-1) : n;
                    if (n.y() > LEVEL * n.length()) {
                        area += n.length() / 2;
                        triangles.add(corners);
                        until.add(area);
                    }
                }
            }
        }

        Vec3 at(double which, double u, double v) {
            int lo = 0;
            int hi = triangles.size() - 1;
            while (lo < hi) {
                int middle = (lo + hi) >>> 1;
                if (until.get(middle) > which * area) {
                    hi = middle;
                } else {
                    lo = middle + 1;
                }
            }
            Vec3[] c = triangles.get(lo);
            double r = Math.sqrt(u);
            return c[0].times(1 - r).plus(c[1].times(r * (1 - v))).plus(c[2].times(r * v));
        }
    }
}
