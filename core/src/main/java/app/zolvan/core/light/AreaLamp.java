package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** Shapes that glow, as meshes in metres, and the surface that gives them a luminous flux: L = Φ/(πA). */
public final class AreaLamp {
    private static final int ROUND = 64;
    private static final int FINE = 3;

    private AreaLamp() {}

    /** A rectangle around the origin in the plane z = 0, facing +z. */
    public static Mesh rectangle(double width, double height) {
        float x = (float) (width / 2);
        float y = (float) (height / 2);
        float[] p = {-x, -y, 0, x, -y, 0, x, y, 0, -x, y, 0};
        float[] n = {0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1};
        return new Mesh(p, n, null, null, new int[] {0, 1, 2, 0, 2, 3}, new int[] {0, 2}, null);
    }

    /** A disc around the origin in the plane z = 0, facing +z: a regular polygon of the disc's area. */
    public static Mesh disc(double radius) {
        double step = 2 * Math.PI / ROUND;
        double r = radius * Math.sqrt(step / StrictMath.sin(step));
        float[] p = new float[3 * ROUND];
        float[] n = new float[3 * ROUND];
        int[] t = new int[3 * (ROUND - 2)];
        for (int i = 0; i < ROUND; i++) {
            p[3 * i] = (float) (r * StrictMath.cos(i * step));
            p[3 * i + 1] = (float) (r * StrictMath.sin(i * step));
            n[3 * i + 2] = 1;
            if (i >= 2) {
                t[3 * i - 5] = i - 1;
                t[3 * i - 4] = i;
            }
        }
        return new Mesh(p, n, null, null, t, new int[] {0, ROUND - 2}, null);
    }

    /** A sphere around the origin: an icosahedron whose triangles are split three times. */
    public static Mesh sphere(double radius) {
        double g = (1 + Math.sqrt(5)) / 2;
        List<Vec3> points = new ArrayList<>();
        double[][] corners = {
            {-1, g, 0},
            {1, g, 0},
            {-1, -g, 0},
            {1, -g, 0},
            {0, -1, g},
            {0, 1, g},
            {0, -1, -g},
            {0, 1, -g},
            {g, 0, -1},
            {g, 0, 1},
            {-g, 0, -1},
            {-g, 0, 1}
        };
        for (double[] c : corners) {
            points.add(new Vec3(c[0], c[1], c[2]).normalised());
        }
        int[] t = {
            0, 11, 5, 0, 5, 1, 0, 1, 7, 0, 7, 10, 0, 10, 11, 1, 5, 9, 5, 11, 4, 11, 10, 2, 10, 7, 6, 7, 1, 8, 3, 9, 4,
            3, 4, 2, 3, 2, 6, 3, 6, 8, 3, 8, 9, 4, 9, 5, 2, 4, 11, 6, 2, 10, 8, 6, 7, 9, 8, 1
        };
        for (int round = 0; round < FINE; round++) {
            t = split(points, t);
        }
        float[] p = new float[3 * points.size()];
        float[] n = new float[3 * points.size()];
        for (int i = 0; i < points.size(); i++) {
            Vec3 v = points.get(i);
            n[3 * i] = (float) v.x();
            n[3 * i + 1] = (float) v.y();
            n[3 * i + 2] = (float) v.z();
            for (int k = 0; k < 3; k++) {
                p[3 * i + k] = (float) (radius * n[3 * i + k]);
            }
        }
        return new Mesh(p, n, null, null, t, new int[] {0, t.length / 3}, null);
    }

    private static int[] split(List<Vec3> points, int[] t) {
        Map<Long, Integer> middles = new HashMap<>();
        int[] out = new int[4 * t.length];
        for (int i = 0; i < t.length; i += 3) {
            int a = middle(points, middles, t[i], t[i + 1]);
            int b = middle(points, middles, t[i + 1], t[i + 2]);
            int c = middle(points, middles, t[i + 2], t[i]);
            int[] four = {t[i], a, c, t[i + 1], b, a, t[i + 2], c, b, a, b, c};
            System.arraycopy(four, 0, out, 4 * i, 12);
        }
        return out;
    }

    private static int middle(List<Vec3> points, Map<Long, Integer> known, int a, int b) {
        long key = (long) Math.min(a, b) << 32 | Math.max(a, b);
        return known.computeIfAbsent(key, k -> {
            points.add(points.get(a).plus(points.get(b)).normalised());
            return points.size() - 1;
        });
    }

    /**
     * What a lamp's mesh has to look like to give a flux. Meshes glow to both sides; for an open one (a rectangle, a disc)
     * the flux counts to its front.
     *
     * @param area   of the mesh, m²
     * @param colour of luminance 1, see {@link Blackbody}
     */
    public static Surface glowing(double lumens, double area, LinearRgb colour) {
        double most = Math.max(colour.r(), Math.max(colour.g(), colour.b()));
        double nits = lumens / (Math.PI * area);
        return Surface.STANDARD
                .with(Parameter.BASE_WEIGHT, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.EMISSION_LUMINANCE, nits * most)
                .with(Parameter.EMISSION_COLOR, colour.times(1 / most));
    }
}
