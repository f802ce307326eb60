package app.zolvan.core.render.scene;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.surface.SurfaceValues;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * All triangles that glow, so that light can be looked for where it comes from. A triangle is chosen with a chance in
 * proportion to its power, a point on it evenly by area.
 */
public final class Lamps {
    private final double[] corners;
    private final double[] cumulative;
    private final double[] areas;
    private final SurfaceValues[] surfaces;
    private final int[][] numberOf;
    private final double total;

    /** The sampled point and the triangle's normal. */
    public static final class Point {
        public double x;
        public double y;
        public double z;
        public double nx;
        public double ny;
        public double nz;
        public SurfaceValues surface;
        /** Density per square metre of all glowing surface. */
        public double density;
    }

    Lamps(List<RenderScene.Instance> instances) {
        List<double[]> found = new ArrayList<>();
        List<SurfaceValues> owners = new ArrayList<>();
        numberOf = new int[instances.size()][];
        for (int i = 0; i < instances.size(); i++) {
            RenderScene.Instance in = instances.get(i);
            Mesh mesh = in.mesh();
            for (int span = 0; span < in.surfaces().length; span++) {
                if (!in.surfaces()[span].emits()) {
                    continue;
                }
                if (numberOf[i] == null) {
                    numberOf[i] = new int[mesh.triangleCount()];
                    Arrays.fill(numberOf[i], -1);
                }
                for (int t = mesh.spanStarts()[span]; t < mesh.spanStarts()[span + 1]; t++) {
                    Vec3 a = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t]);
                    Vec3 b = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t + 1]);
                    Vec3 c = RenderScene.world(in.toWorld(), mesh.positions(), mesh.indices()[3 * t + 2]);
                    double area = b.minus(a).cross(c.minus(a)).length() / 2;
                    if (area > 0) {
                        numberOf[i][t] = found.size();
                        found.add(new double[] {a.x(), a.y(), a.z(), b.x(), b.y(), b.z(), c.x(), c.y(), c.z(), area});
                        owners.add(in.surfaces()[span]);
                    }
                }
            }
        }
        int n = found.size();
        corners = new double[9 * n];
        cumulative = new double[n];
        areas = new double[n];
        surfaces = owners.toArray(new SurfaceValues[0]);
        double sum = 0;
        for (int i = 0; i < n; i++) {
            System.arraycopy(found.get(i), 0, corners, 9 * i, 9);
            areas[i] = found.get(i)[9];
            sum += areas[i] * brightness(surfaces[i]);
            cumulative[i] = sum;
        }
        total = sum;
    }

    private static double brightness(SurfaceValues s) {
        return 0.2126 * s.emissionR + 0.7152 * s.emissionG + 0.0722 * s.emissionB + 1e-12;
    }

    public boolean isEmpty() {
        return areas.length == 0;
    }

    /** Samples a point. */
    public void sample(double u, double v, double w, Point out) {
        int i = Arrays.binarySearch(cumulative, w * total);
        i = Math.min(areas.length - 1, i < 0 ? -i - 1 : i);
        double root = Math.sqrt(u);
        double b = root * (1 - v);
        double c = root * v;
        double a = 1 - b - c;
        int o = 9 * i;
        out.x = a * corners[o] + b * corners[o + 3] + c * corners[o + 6];
        out.y = a * corners[o + 1] + b * corners[o + 4] + c * corners[o + 7];
        out.z = a * corners[o + 2] + b * corners[o + 5] + c * corners[o + 8];
        double e1x = corners[o + 3] - corners[o];
        double e1y = corners[o + 4] - corners[o + 1];
        double e1z = corners[o + 5] - corners[o + 2];
        double e2x = corners[o + 6] - corners[o];
        double e2y = corners[o + 7] - corners[o + 1];
        double e2z = corners[o + 8] - corners[o + 2];
        double s = 0.5 / areas[i];
        out.nx = s * (e1y * e2z - e1z * e2y);
        out.ny = s * (e1z * e2x - e1x * e2z);
        out.nz = s * (e1x * e2y - e1y * e2x);
        out.surface = surfaces[i];
        out.density = density(i);
    }

    private double density(int i) {
        return brightness(surfaces[i]) / total;
    }

    /** The density with which {@link #sample} gives points of a triangle that was hit; 0 where it does not glow. */
    public double density(int instance, int primitive) {
        int[] numbers = numberOf[instance];
        return numbers == null || numbers[primitive] < 0 ? 0 : density(numbers[primitive]);
    }
}
