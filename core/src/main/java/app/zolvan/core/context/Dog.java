package app.zolvan.core.context;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Solids;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.List;

/** A dog of middling size that stands and looks ahead: rounded limbs that reach into one another. Metres. */
final class Dog {
    private static final double CREASE = Math.toRadians(60);
    private static final int AROUND = 20;
    private static final int CAP = 6;

    private final TriangleSoup soup = new TriangleSoup();

    private Dog() {}

    static Mesh mesh() {
        Dog dog = new Dog();
        dog.limb(0, 0.47, 0.15, 0.11, 0, 0.465, -0.05, 0.092, 0, 0.475, -0.25, 0.085); // body
        dog.limb(0, 0.5, 0.19, 0.08, 0, 0.6, 0.27, 0.06, 0, 0.67, 0.32, 0.055); // neck
        dog.limb(0, 0.685, 0.33, 0.066, 0, 0.67, 0.39, 0.052, 0, 0.652, 0.44, 0.036, 0, 0.64, 0.5, 0.026); // head
        dog.limb(0, 0.5, -0.3, 0.026, 0, 0.53, -0.42, 0.018, 0, 0.62, -0.5, 0.009); // tail
        for (int side : new int[] {-1, 1}) {
            double x = 0.065 * side;
            dog.limb(x * 0.85, 0.735, 0.315, 0.02, x * 1.15, 0.69, 0.325, 0.022, x * 1.1, 0.645, 0.335, 0.012); // ear
            dog.limb(x, 0.44, 0.17, 0.058, x, 0.3, 0.165, 0.036, x, 0.2, 0.175, 0.026, x, 0.03, 0.18, 0.022);
            dog.limb(x, 0.021, 0.18, 0.021, x, 0.019, 0.22, 0.019); // forepaw
            dog.limb(x, 0.44, -0.24, 0.075, x, 0.3, -0.2, 0.048, x, 0.22, -0.24, 0.03);
            dog.limb(x, 0.22, -0.24, 0.03, x, 0.14, -0.31, 0.023, x, 0.03, -0.29, 0.021);
            dog.limb(x, 0.021, -0.29, 0.021, x, 0.019, -0.25, 0.019); // hind paw
        }
        return dog.soup.toMesh(CREASE);
    }

    /** A round limb through points, each given by x, y, z and the radius there; smooth between and closed by domes. */
    private void limb(double... points) {
        List<double[]> given = new ArrayList<>();
        for (int i = 0; i < points.length; i += 4) {
            given.add(new double[] {points[i], points[i + 1], points[i + 2], points[i + 3]});
        }
        List<double[]> line = Solids.curve(given, CAP);
        List<Vec3[]> rings = new ArrayList<>();
        int last = line.size() - 1;
        for (int k = 0; k < CAP; k++) {
            rings.add(dome(line.get(0), way(line, 0).times(-1), k, 1));
        }
        for (int i = 0; i <= last; i++) {
            double[] p = line.get(i);
            rings.add(ring(at(p), way(line, i), p[3]));
        }
        for (int k = CAP - 1; k >= 0; k--) {
            rings.add(dome(line.get(last), way(line, last), k, -1));
        }
        for (int i = 0; i + 1 < rings.size(); i++) {
            for (int a = 0; a < AROUND; a++) {
                int b = (a + 1) % AROUND;
                soup.quad(rings.get(i)[a], rings.get(i)[b], rings.get(i + 1)[b], rings.get(i + 1)[a]);
            }
        }
    }

    /** The k-th ring of a dome, from its tip on; {@code turn} has it run the way that the limb does. */
    private static Vec3[] dome(double[] p, Vec3 out, int k, int turn) {
        double angle = Math.PI / 2 * k / CAP;
        Vec3 middle = at(p).plus(out.times(p[3] * Math.cos(angle)));
        return ring(middle, out.times(-turn), p[3] * Math.sin(angle));
    }

    private static Vec3[] ring(Vec3 middle, Vec3 way, double radius) {
        Vec3 u = way.cross(Vec3.axis(0)).normalised(); // no limb runs across
        Vec3 v = way.cross(u);
        Vec3[] ring = new Vec3[AROUND];
        for (int i = 0; i < AROUND; i++) {
            double a = 2 * Math.PI * i / AROUND;
            ring[i] = middle.plus(u.times(radius * Math.cos(a))).plus(v.times(radius * Math.sin(a)));
        }
        return ring;
    }

    private static Vec3 at(double[] p) {
        return new Vec3(p[0], p[1], p[2]);
    }

    private static Vec3 way(List<double[]> line, int i) {
        Vec3 before = at(line.get(Math.max(0, i - 1)));
        Vec3 after = at(line.get(Math.min(line.size() - 1, i + 1)));
        return after.minus(before).normalised();
    }
}
