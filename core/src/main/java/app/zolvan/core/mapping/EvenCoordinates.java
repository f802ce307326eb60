package app.zolvan.core.mapping;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.EdgePairs;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.Arrays;
import java.util.Optional;

/**
 * Recognises texture coordinates of a file that already lie well, as on whatever was made from a flat sheet (a rug, a
 * curtain, a bent seat), and brings them to metres. They lie well where each connected piece of the mesh is a sheet that
 * was laid in one go, and one step of u and one of v are everywhere as long, at a right angle. A texture then follows
 * folds and bends as cloth does, which six sides cannot do; closed bodies are better off with the six sides.
 */
public final class EvenCoordinates {
    /** A step may be so much longer or shorter than the piece's mean. */
    private static final double LONGER = 0.1;
    /** The cosine between u and v. */
    private static final double SKEW = 0.1;
    /** So much of a piece's area lies within both. */
    private static final double NEARLY_ALL = 0.98;
    /** Shorter than this share of the unit square, a triangle's extent in u, v is none. */
    private static final double NO_EXTENT = 1e-9;
    /** Corners of two triangles are one in u, v when they differ by less than this. */
    private static final double SAME = 1e-5;

    private final Mesh mesh;
    /** By triangle: lengths of one step of u and of v in world metres, its area, and whether an image on it is mirrored. */
    private final double[] alongU;

    private final double[] alongV;
    private final double[] area;
    private final boolean[] mirrored;
    private final boolean[] skewed;

    private EvenCoordinates(Mesh mesh, Vec3 stretch) {
        this.mesh = mesh;
        int count = mesh.triangleCount();
        alongU = new double[count];
        alongV = new double[count];
        area = new double[count];
        mirrored = new boolean[count];
        skewed = new boolean[count];
        for (int t = 0; t < count; t++) {
            measure(t, stretch);
        }
    }

    /**
     * @param stretch how much the part's own axes are stretched on their way to the world
     * @return u, v of each vertex in world metres, no piece mirrored; empty where the file brought none, or where they do
     *     not lie well
     */
    public static Optional<float[]> inMetres(Mesh mesh, Vec3 stretch) {
        return mesh.uv() == null || mesh.triangleCount() == 0
                ? Optional.empty()
                : new EvenCoordinates(mesh, stretch).inMetres();
    }

    /** Whether a mesh that was laid in metres before has the file's own coordinates. */
    public static boolean lieOn(Mesh laid, Vec3 stretch) {
        return laid.metricUv() != null
                && inMetres(laid, stretch)
                        .filter(own -> isNear(own, laid.metricUv()))
                        .isPresent();
    }

    private static boolean isNear(float[] own, float[] laid) {
        for (int i = 0; i < own.length; i++) {
            if (Math.abs(own[i] - laid[i]) > SAME * Math.max(1, Math.abs(own[i]))) {
                return false;
            }
        }
        return true;
    }

    private Optional<float[]> inMetres() {
        if (isMostlySkewed()) {
            return Optional.empty();
        }
        Sheet[] sheets = sheets();
        for (int t = 0; t < sheets.length; t++) {
            if (sheets[t] != null) {
                sheets[t].judge(t);
            }
        }
        float[] metric = new float[mesh.uv().length];
        for (int t = 0; t < sheets.length; t++) {
            Sheet sheet = sheets[t];
            if (sheet == null) {
                continue;
            }
            if (!sheet.isEven()) {
                return Optional.empty();
            }
            for (int k = 0; k < 3; k++) {
                int c = mesh.indices()[3 * t + k];
                metric[2 * c] = (float) (mesh.uv()[2 * c] * sheet.meanU() * (sheet.isMirrored() ? -1 : 1));
                metric[2 * c + 1] = (float) (mesh.uv()[2 * c + 1] * sheet.meanV());
            }
        }
        return Optional.of(metric);
    }

    /** A connected piece of the mesh; sums are weighted by area. */
    private final class Sheet {
        private double whole;
        private double u;
        private double v;
        private double turned;
        private double off;
        private boolean open;
        private boolean cut;

        void add(int t) {
            whole += area[t];
            u += area[t] * alongU[t];
            v += area[t] * alongV[t];
            turned += mirrored[t] ? area[t] : 0;
        }

        void judge(int t) {
            boolean fits = !skewed[t]
                    && isNear(alongU[t], meanU())
                    && isNear(alongV[t], meanV())
                    && mirrored[t] == isMirrored();
            off += fits ? 0 : area[t];
        }

        double meanU() {
            return u / whole;
        }

        double meanV() {
            return v / whole;
        }

        boolean isMirrored() {
            return turned > whole / 2;
        }

        boolean isEven() {
            return open && !cut && off <= (1 - NEARLY_ALL) * whole;
        }
    }

    /** The piece that each triangle is of; null for those without an area. */
    private Sheet[] sheets() {
        int count = mesh.triangleCount();
        DisjointSets pieces = new DisjointSets(count);
        DisjointSets charts = new DisjointSets(count);
        int[] corners = mesh.indices().clone();
        int[] user = new int[mesh.vertexCount()];
        Arrays.fill(user, -1);
        int[] welded = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        for (int e = 0; e < corners.length; e++) {
            int vertex = corners[e];
            corners[e] = welded[vertex];
            if (area[e / 3] > 0) {
                user[vertex] = user[vertex] < 0 ? e / 3 : user[vertex];
                pieces.join(e / 3, user[vertex]);
                charts.join(e / 3, user[vertex]);
            }
        }
        boolean[] open = new boolean[count];
        EdgePairs pairs = EdgePairs.of(corners, t -> area[t] == 0);
        for (int e = 0; e < corners.length; e++) {
            int o = pairs.across()[e];
            open[e / 3] |= o == EdgePairs.NONE;
            if (o > e) {
                pieces.join(e / 3, o / 3);
                int oStart = pairs.alike()[e] ? o : EdgePairs.next(o);
                int oEnd = pairs.alike()[e] ? EdgePairs.next(o) : o;
                if (meet(e, oStart) && meet(EdgePairs.next(e), oEnd)) {
                    charts.join(e / 3, o / 3);
                }
            }
        }
        Sheet[] sheets = new Sheet[count];
        for (int t = 0; t < count; t++) {
            if (area[t] > 0) {
                int p = pieces.find(t); // its lowest triangle, which comes first
                sheets[t] = p == t ? new Sheet() : sheets[p];
                sheets[t].add(t);
                sheets[t].open |= open[t];
                sheets[t].cut |= charts.find(t) != p; // a piece laid in one go is one chart
            }
        }
        return sheets;
    }

    private boolean isMostlySkewed() {
        double whole = 0;
        double off = 0;
        for (int t = 0; t < area.length; t++) {
            whole += area[t];
            off += skewed[t] ? area[t] : 0;
        }
        return off > (1 - NEARLY_ALL) * whole;
    }

    private static boolean isNear(double length, double mean) {
        return Math.abs(length - mean) <= LONGER * mean;
    }

    private boolean meet(int e, int o) {
        int a = mesh.indices()[e];
        int b = mesh.indices()[o];
        float[] uv = mesh.uv();
        return Math.abs(uv[2 * a] - uv[2 * b]) < SAME && Math.abs(uv[2 * a + 1] - uv[2 * b + 1]) < SAME;
    }

    /** How the surface runs as u and v grow: the derivatives of the place, from the triangle's two edges. */
    private void measure(int t, Vec3 stretch) {
        int a = mesh.indices()[3 * t];
        int b = mesh.indices()[3 * t + 1];
        int c = mesh.indices()[3 * t + 2];
        Vec3 e1 = times(mesh.position(b).minus(mesh.position(a)), stretch);
        Vec3 e2 = times(mesh.position(c).minus(mesh.position(a)), stretch);
        Vec3 normal = e1.cross(e2);
        area[t] = normal.length() / 2;
        float[] uv = mesh.uv();
        double u1 = uv[2 * b] - uv[2 * a];
        double v1 = uv[2 * b + 1] - uv[2 * a + 1];
        double u2 = uv[2 * c] - uv[2 * a];
        double v2 = uv[2 * c + 1] - uv[2 * a + 1];
        double turn = u1 * v2 - u2 * v1;
        if (!(Math.abs(turn) > NO_EXTENT * NO_EXTENT)) {
            skewed[t] = true;
            return;
        }
        Vec3 du = e1.times(v2).minus(e2.times(v1)).times(1 / turn);
        Vec3 dv = e2.times(u1).minus(e1.times(u2)).times(1 / turn);
        alongU[t] = du.length();
        alongV[t] = dv.length();
        skewed[t] = Math.abs(du.dot(dv)) > SKEW * alongU[t] * alongV[t];
        // v grows downwards: an image seen from the front as it is has v running against n × u
        mirrored[t] = du.cross(dv).dot(normal) > 0;
    }

    private static Vec3 times(Vec3 a, Vec3 b) {
        return new Vec3(a.x() * b.x(), a.y() * b.y(), a.z() * b.z());
    }
}
