package app.zolvan.core.render.chip;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.BoxProjection;
import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;

/** Forms that a material is looked at closely on; closed bodies in metres, standing on the table. */
public enum SampleForm {
    /** Flat, rolled over its front edge, and cut: what chips show. */
    TILE(0.009) {
        @Override
        Mesh make() {
            return BoxProjection.apply(Chip.tile(), new Vec3(1, 1, 1));
        }
    },
    /** A cloth laid over an edge, falling in folds. */
    CLOTH(0.0012) {
        @Override
        Mesh make() {
            return sheet(CLOTH_WIDE, CLOTH_LONG, 220, 260, 0.0012, SampleForm::draped);
        }
    },
    /** A bowl on a foot, hollow, with a wall a few millimetres thick. */
    VESSEL(0.0035) {
        @Override
        Mesh make() {
            return BoxProjection.apply(turned(), new Vec3(1, 1, 1));
        }
    };

    private static final double CLOTH_WIDE = 0.24;
    private static final double CLOTH_LONG = 0.30;
    private static final int AROUND = 128;

    private final double thickness;
    private Mesh mesh;

    SampleForm(double thickness) {
        this.thickness = thickness;
    }

    abstract Mesh make();

    /** Its mesh with coordinates in metres. */
    public synchronized Mesh mesh() {
        if (mesh == null) {
            mesh = make();
        }
        return mesh;
    }

    /** Mean, in metres. */
    public double thickness() {
        return thickness;
    }

    /**
     * A point of the draped cloth: u across from −1 to 1, s along in metres. It lies flat, bends over an edge and hangs; the
     * farther down, the deeper its folds.
     */
    private static Vec3 draped(double u, double s) {
        double flat = 0.12;
        double bend = 0.025;
        double arc = bend * Math.PI / 2;
        double down = Math.max(0, s - flat) / (CLOTH_LONG - flat);
        double growing = down * Math.sqrt(down); // begins without a crease
        double wave = StrictMath.sin(9.5 * u + 0.9 * StrictMath.sin(2.3 * u)) + 0.35 * StrictMath.sin(17 * u + 1.3);
        double ripple = 0.0016 * StrictMath.sin(5 * u + 30 * s) * (1 - down) * (1 - down);
        double out = ripple + 0.018 * growing * (wave + 0.6);
        double x = u * CLOTH_WIDE / 2 * (1 - 0.17 * growing);
        if (s <= flat) {
            return new Vec3(x, out, s - flat);
        }
        if (s <= flat + arc) {
            double a = (s - flat) / bend;
            double r = bend + out;
            return new Vec3(x, r * StrictMath.cos(a) - bend, r * StrictMath.sin(a));
        }
        return new Vec3(x, -bend - (s - flat - arc), bend + out);
    }

    /** A thin closed body around a surface; its coordinates run along the surface, in metres. */
    private static Mesh sheet(
            double wide, double lengthwise, int across, int along, double thick, BiFunction<Double, Double, Vec3> at) {
        int row = across + 1;
        int side = row * (along + 1);
        float[] p = new float[6 * side];
        float[] n = new float[6 * side];
        float[] uv = new float[4 * side];
        double eps = 1e-4;
        for (int j = 0; j <= along; j++) {
            for (int i = 0; i <= across; i++) {
                double u = 2.0 * i / across - 1;
                double s = lengthwise * j / along;
                Vec3 here = at.apply(u, s);
                Vec3 du = at.apply(u + eps, s).minus(at.apply(u - eps, s));
                Vec3 ds = at.apply(u, s + eps).minus(at.apply(u, s - eps));
                Vec3 normal = ds.cross(du).normalised();
                for (int face = 0; face < 2; face++) {
                    Vec3 q = here.plus(normal.times(face == 0 ? thick / 2 : -thick / 2));
                    Vec3 m = face == 0 ? normal : normal.times(-1);
                    int v = face * side + j * row + i;
                    set(p, 3 * v, q);
                    set(n, 3 * v, m);
                    uv[2 * v] = (float) (u * wide / 2);
                    uv[2 * v + 1] = (float) s;
                }
            }
        }
        List<int[]> t = new ArrayList<>();
        for (int j = 0; j < along; j++) {
            for (int i = 0; i < across; i++) {
                int a = j * row + i;
                quad(t, a, a + row, a + row + 1, a + 1);
                quad(t, side + a, side + a + 1, side + a + row + 1, side + a + row);
            }
        }
        for (int i = 0; i < across; i++) {
            quad(t, i, i + 1, side + i + 1, side + i);
            int a = along * row + i;
            quad(t, a, side + a, side + a + 1, a + 1);
        }
        for (int j = 0; j < along; j++) {
            int a = j * row;
            quad(t, a, side + a, side + a + row, a + row);
            int b = a + across;
            quad(t, b, b + row, side + b + row, side + b);
        }
        int[] indices = new int[3 * t.size()];
        for (int i = 0; i < t.size(); i++) {
            System.arraycopy(t.get(i), 0, indices, 3 * i, 3);
        }
        return new Mesh(p, n, null, uv, indices, new int[] {0, t.size()}, null);
    }

    private static void quad(List<int[]> into, int a, int b, int c, int d) {
        into.add(new int[] {a, b, c});
        into.add(new int[] {a, c, d});
    }

    private static void set(float[] into, int at, Vec3 v) {
        into[at] = (float) v.x();
        into[at + 1] = (float) v.y();
        into[at + 2] = (float) v.z();
    }

    /** Radius and height of the bowl's outline in metres, from the middle of its foot over the rim to the middle within. */
    private static List<double[]> outline() {
        double[][] corners = {
            {0, 0},
            {0.030, 0},
            {0.032, 0.002},
            {0.030, 0.005},
            {0.014, 0.010},
            {0.011, 0.016},
            {0.013, 0.021},
            {0.034, 0.030},
            {0.053, 0.046},
            {0.064, 0.067},
            {0.067, 0.088},
            {0.0665, 0.096},
        };
        List<double[]> out = new ArrayList<>();
        out.add(corners[0]);
        out.add(corners[1]);
        for (int i = 1; i + 2 < corners.length; i++) {
            smooth(out, corners[i - 1], corners[i], corners[i + 1], corners[i + 2]);
        }
        double[] rim = corners[corners.length - 1];
        double wall = 0.0035;
        for (int i = 1; i <= 10; i++) { // over the rim
            double a = Math.PI * i / 10;
            out.add(new double[] {
                rim[0] - wall / 2 + wall / 2 * StrictMath.cos(a), rim[1] + wall / 2 * StrictMath.sin(a)
            });
        }
        List<double[]> inner = new ArrayList<>();
        double[][] within = {
            {0.067, 0.096},
            {0.0635, 0.096},
            {0.0635, 0.088},
            {0.0605, 0.068},
            {0.050, 0.0485},
            {0.032, 0.0335},
            {0.014, 0.0262},
            {0, 0.0255},
            {-0.014, 0.0262},
        };
        for (int i = 1; i + 2 < within.length; i++) {
            smooth(inner, within[i - 1], within[i], within[i + 1], within[i + 2]);
        }
        inner.forEach(q -> out.add(new double[] {Math.max(0, q[0]), q[1]}));
        return out;
    }

    /** Points from b to c on a curve through all four (Catmull & Rom 1974); without b itself. */
    private static void smooth(List<double[]> into, double[] a, double[] b, double[] c, double[] d) {
        int steps = 8;
        for (int i = 1; i <= steps; i++) {
            double t = (double) i / steps;
            double[] q = new double[2];
            for (int k = 0; k < 2; k++) {
                q[k] = 0.5
                        * (2 * b[k]
                                + (c[k] - a[k]) * t
                                + (2 * a[k] - 5 * b[k] + 4 * c[k] - d[k]) * t * t
                                + (3 * b[k] - a[k] - 3 * c[k] + d[k]) * t * t * t);
            }
            into.add(q);
        }
    }

    private static Mesh turned() {
        List<double[]> line = outline();
        TriangleSoup soup = new TriangleSoup();
        for (int k = 0; k < AROUND; k++) {
            double a = 2 * Math.PI * k / AROUND;
            double b = 2 * Math.PI * ((k + 1) % AROUND) / AROUND;
            for (int i = 0; i + 1 < line.size(); i++) {
                soup.quad(
                        round(line.get(i), a),
                        round(line.get(i), b),
                        round(line.get(i + 1), b),
                        round(line.get(i + 1), a));
            }
        }
        return soup.toMesh(Math.toRadians(35));
    }

    private static Vec3 round(double[] q, double a) {
        return new Vec3(q[0] * StrictMath.sin(a), q[1], q[0] * StrictMath.cos(a));
    }
}
