package app.zolvan.core.geometry;

import java.util.Arrays;
import java.util.Optional;

/** Recognises that one mesh is another one moved and turned, without change of size and without mirroring. */
public final class RigidMotion {
    /** Corners may lie apart by this share of the mesh's size, and by what single precision can't hold. */
    private static final double SHARE = 1e-5;

    private static final int PROBES = 12;

    private static final double NORMAL_SLACK = 0.02;

    private RigidMotion() {}

    /** Equal for meshes that could be copies of each other: counts and the order of corners. */
    public static int kinship(Mesh m) {
        int h = 31 * m.vertexCount() + m.spanCount();
        h = 31 * h + Arrays.hashCode(m.indices());
        return 31 * h + Arrays.hashCode(m.spanStarts());
    }

    /**
     * The motion that carries {@code from} onto {@code to}, both listing their corners in the same order, as copies made
     * by one program do.
     */
    public static Optional<Transform> between(Mesh from, Mesh to) {
        if (!hasTheSameDistances(from, to)
                || !Arrays.equals(from.indices(), to.indices())
                || !Arrays.equals(from.spanStarts(), to.spanStarts())
                || !isSame(from.uv(), to.uv())
                || !isSame(from.uv2(), to.uv2())
                || !Arrays.equals(from.colours(), to.colours())) {
            return Optional.empty();
        }
        if (Arrays.equals(from.positions(), to.positions())) {
            return Arrays.equals(from.normals(), to.normals()) ? Optional.of(Transform.IDENTITY) : Optional.empty();
        }
        int[] three = wideTriangle(from);
        if (three == null) {
            return Optional.empty();
        }
        double size = from.position(three[0]).minus(from.position(three[1])).length();
        double slack = SHARE * size + 4 * Math.max(ulp(from), ulp(to));
        for (int i = 0; i < 3; i++) {
            int a = three[i];
            int b = three[(i + 1) % 3];
            double one = from.position(a).minus(from.position(b)).length();
            double other = to.position(a).minus(to.position(b)).length();
            if (Math.abs(one - other) > 2 * slack) {
                return Optional.empty();
            }
        }
        Transform motion = frame(to, three).after(frame(from, three).inverse());
        return carries(motion, from, to, slack) ? Optional.of(motion) : Optional.empty();
    }

    /** A quick look at a few distances between corners, which no motion changes: most that differ differ here. */
    private static boolean hasTheSameDistances(Mesh a, Mesh b) {
        int n = a.vertexCount();
        if (n != b.vertexCount()) {
            return false;
        }
        for (int k = 1; k <= PROBES; k++) {
            int i = (int) ((long) (n - 1) * (k - 1) / PROBES);
            int j = (int) ((long) (n - 1) * ((7 * k) % (PROBES + 1)) / PROBES);
            double one = distance(a.positions(), i, j);
            double other = distance(b.positions(), i, j);
            float far = Math.max(reach(a.positions(), i, j), reach(b.positions(), i, j));
            if (Math.abs(one - other) > 1e-3 * (one + other) + 16 * Math.ulp(far)) {
                return false;
            }
        }
        return true;
    }

    /** The largest coordinate of two corners. */
    private static float reach(float[] p, int i, int j) {
        float most = 0;
        for (int k = 0; k < 3; k++) {
            most = Math.max(most, Math.max(Math.abs(p[3 * i + k]), Math.abs(p[3 * j + k])));
        }
        return most;
    }

    private static double distance(float[] p, int i, int j) {
        double x = (double) p[3 * i] - p[3 * j];
        double y = (double) p[3 * i + 1] - p[3 * j + 1];
        double z = (double) p[3 * i + 2] - p[3 * j + 2];
        return Math.sqrt(x * x + y * y + z * z);
    }

    private static boolean carries(Transform motion, Mesh from, Mesh to, double slack) {
        for (int v = 0; v < from.vertexCount(); v++) {
            if (motion.point(from.position(v)).minus(to.position(v)).length() > slack
                    || motion.direction(from.normal(v)).minus(to.normal(v)).length() > NORMAL_SLACK) {
                return false;
            }
        }
        return true;
    }

    private static boolean isSame(float[] a, float[] b) {
        if (a == null || b == null || a.length != b.length) {
            return a == b;
        }
        for (int i = 0; i < a.length; i++) {
            if (Math.abs(a[i] - b[i]) > 1e-5f) {
                return false;
            }
        }
        return true;
    }

    private static double ulp(Mesh m) {
        float most = 0;
        for (float p : m.positions()) {
            most = Math.max(most, Math.abs(p));
        }
        return Math.ulp(most);
    }

    /** Three corners far from each other and from one line; null where all lie on a line. */
    private static int[] wideTriangle(Mesh m) {
        int a = 0;
        int b = farthest(m, v -> m.position(v).minus(m.position(a)).length());
        Vec3 line = m.position(b).minus(m.position(a));
        double length = line.length();
        if (length == 0) {
            return null;
        }
        Vec3 direction = line.times(1 / length);
        int c = farthest(
                m, v -> direction.cross(m.position(v).minus(m.position(a))).length());
        double away = direction.cross(m.position(c).minus(m.position(a))).length();
        return away > 1e-4 * length ? new int[] {a, b, c} : null;
    }

    private interface Measure {
        double of(int vertex);
    }

    private static int farthest(Mesh m, Measure measure) {
        int best = 0;
        double most = -1;
        for (int v = 0; v < m.vertexCount(); v++) {
            double d = measure.of(v);
            if (d > most) {
                most = d;
                best = v;
            }
        }
        return best;
    }

    private static Transform frame(Mesh m, int[] three) {
        Vec3 o = m.position(three[0]);
        Vec3 x = m.position(three[1]).minus(o).normalised();
        Vec3 z = x.cross(m.position(three[2]).minus(o)).normalised();
        Vec3 y = z.cross(x);
        return Transform.ofColumns(new double[] {
            x.x(), x.y(), x.z(), 0, y.x(), y.y(), y.z(), 0, z.x(), z.y(), z.z(), 0, o.x(), o.y(), o.z(), 1
        });
    }
}
