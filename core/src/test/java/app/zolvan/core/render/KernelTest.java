package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.render.trace.Kernel.Kind;
import app.zolvan.core.render.trace.Ray;
import java.util.SplittableRandom;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.EnumSource;

/** Rays against triangles, both kernels: none slips through a closed mesh, and the nearest of many is found. */
class KernelTest {
    private static final int RINGS = 24;

    /** A closed ball whose triangles all share their vertices; slightly turned, so that nothing lies along an axis. */
    private static float[] ball(double cx, double cy, double cz, double radius) {
        float[] p = new float[3 * (RINGS * (2 * RINGS) + 2)];
        int at = 0;
        for (int r = 1; r <= RINGS; r++) {
            double a = Math.PI * r / (RINGS + 1);
            for (int s = 0; s < 2 * RINGS; s++) {
                double b = Math.PI * s / RINGS + 0.1234;
                p[at++] = (float) (cx + radius * Math.sin(a) * Math.cos(b));
                p[at++] = (float) (cy + radius * Math.cos(a));
                p[at++] = (float) (cz + radius * Math.sin(a) * Math.sin(b));
            }
        }
        for (int end = -1; end <= 1; end += 2) {
            p[at++] = (float) cx;
            p[at++] = (float) (cy - end * radius);
            p[at++] = (float) cz;
        }
        return p;
    }

    private static int[] ballIndices() {
        int n = 2 * RINGS;
        int[] out = new int[3 * (2 * n * (RINGS - 1) + 2 * n)];
        int at = 0;
        for (int s = 0; s < n; s++) {
            int t = (s + 1) % n;
            for (int r = 0; r + 1 < RINGS; r++) {
                for (int v :
                        new int[] {r * n + s, r * n + t, (r + 1) * n + s, r * n + t, (r + 1) * n + t, (r + 1) * n + s
                        }) {
                    out[at++] = v;
                }
            }
            for (int v : new int[] {RINGS * n, t, s, RINGS * n + 1, (RINGS - 1) * n + s, (RINGS - 1) * n + t}) {
                out[at++] = v;
            }
        }
        return out;
    }

    /** From inside a closed mesh every ray ends on it: aimed at vertices, at points of edges, and anywhere. */
    @ParameterizedTest
    @EnumSource
    void noRayLeavesAClosedMeshThroughAnEdgeOrACorner(Kind kind) {
        float[] p = ball(3.1, -0.7, 12.4, 0.83);
        int[] index = ballIndices();
        Kernel kernel = Kernel.of(kind, p, index);
        SplittableRandom random = new SplittableRandom(7);
        Ray ray = new Ray();
        int rays = Integer.getInteger("zolvan.edge.rays", 400_000);
        int lost = 0;
        for (int i = 0; i < rays; i++) {
            int t = 3 * random.nextInt(index.length / 3);
            int k = random.nextInt(3);
            int a = 3 * index[t + k];
            int b = 3 * index[t + (k + 1) % 3];
            double s = i % 3 == 0 ? 0 : random.nextDouble();
            double ox = 3.1 + 0.4 * (random.nextDouble() - 0.5);
            double oy = -0.7 + 0.4 * (random.nextDouble() - 0.5);
            double oz = 12.4 + 0.4 * (random.nextDouble() - 0.5);
            double dx = p[a] + s * (p[b] - p[a]) - ox;
            double dy = p[a + 1] + s * (p[b + 1] - p[a + 1]) - oy;
            double dz = p[a + 2] + s * (p[b + 2] - p[a + 2]) - oz;
            ray.set(ox, oy, oz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            boolean hit = kernel.closest(ray);
            ray.set(ox, oy, oz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            lost += hit && kernel.occluded(ray) ? 0 : 1;
        }
        assertThat(lost).isZero();
    }

    /** Against the obvious loop over all triangles. */
    @ParameterizedTest
    @EnumSource
    void theNearestOfManyTrianglesIsFound(Kind kind) {
        SplittableRandom random = new SplittableRandom(11);
        int n = 3000;
        float[] p = new float[9 * n];
        int[] index = new int[3 * n];
        for (int t = 0; t < n; t++) {
            double size = Math.pow(random.nextDouble(), 3);
            for (int k = 0; k < 3; k++) {
                index[3 * t + k] = 3 * t + k;
                for (int axis = 0; axis < 3; axis++) {
                    p[9 * t + 3 * k + axis] = (float)
                            (k == 0 ? 4 * random.nextDouble() : p[9 * t + axis] + size * (random.nextDouble() - 0.5));
                }
            }
        }
        Kernel kernel = Kernel.of(kind, p, index);
        Ray ray = new Ray();
        int hits = 0;
        for (int i = 0; i < 2000; i++) {
            double[] o = {random.nextDouble() * 6 - 1, random.nextDouble() * 6 - 1, random.nextDouble() * 6 - 1};
            double[] d = {random.nextDouble() - 0.5, random.nextDouble() - 0.5, random.nextDouble() - 0.5};
            if (i % 5 == 0) {
                d[i % 3] = 0; // along a plane of the axes
            }
            double nearest = Double.POSITIVE_INFINITY;
            for (int t = 0; t < n; t++) {
                nearest = Math.min(nearest, meets(p, 9 * t, o, d));
            }
            ray.set(o[0], o[1], o[2], d[0], d[1], d[2], 0, Float.POSITIVE_INFINITY);
            if (kernel.closest(ray)) {
                hits++;
                assertThat((double) ray.tMax).isCloseTo(nearest, within(1e-4 * nearest + 1e-5));
                float at = ray.tMax;
                ray.set(o[0], o[1], o[2], d[0], d[1], d[2], 0, at * 0.999f);
                assertThat(kernel.occluded(ray)).isFalse();
            } else {
                assertThat(nearest).isInfinite();
            }
        }
        assertThat(hits).isBetween(300, 1999);
    }

    /** Möller & Trumbore 1997, in double precision. */
    private static double meets(float[] p, int a, double[] o, double[] d) {
        double[] e1 = new double[3];
        double[] e2 = new double[3];
        double[] s = new double[3];
        for (int k = 0; k < 3; k++) {
            e1[k] = (double) p[a + 3 + k] - p[a + k];
            e2[k] = (double) p[a + 6 + k] - p[a + k];
            s[k] = o[k] - p[a + k];
        }
        double[] h = cross(d, e2);
        double det = dot(e1, h);
        double u = dot(s, h) / det;
        double[] q = cross(s, e1);
        double v = dot(d, q) / det;
        double t = dot(e2, q) / det;
        return u >= 0 && v >= 0 && u + v <= 1 && t > 0 ? t : Double.POSITIVE_INFINITY;
    }

    private static double[] cross(double[] a, double[] b) {
        return new double[] {a[1] * b[2] - a[2] * b[1], a[2] * b[0] - a[0] * b[2], a[0] * b[1] - a[1] * b[0]};
    }

    private static double dot(double[] a, double[] b) {
        return a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
    }
}
