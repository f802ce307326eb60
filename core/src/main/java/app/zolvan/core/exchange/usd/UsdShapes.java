package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import java.util.Arrays;

/** The simple bodies that USD names instead of listing their surface, as triangles. */
final class UsdShapes {
    private static final int AROUND = 48;
    private static final int QUARTER = 12;

    private final FloatList points = new FloatList();
    private final CornerMesh corners = new CornerMesh();

    private UsdShapes() {}

    static boolean knows(String type) {
        return switch (type) {
            case "Cube", "Sphere", "Cylinder", "Cone", "Capsule", "Plane" -> true;
            default -> false;
        };
    }

    static CornerMesh.Built of(UsdNode node) throws ImportException {
        UsdShapes s = new UsdShapes();
        String type = node.type();
        double radius = node.number("radius", type.equals("Capsule") ? 0.5 : 1);
        double height = node.number("height", type.equals("Capsule") ? 1 : 2);
        switch (type) {
            case "Cube" -> s.box(node.number("size", 2) / 2);
            case "Plane" -> s.plane(node.number("width", 2) / 2, node.number("length", 2) / 2);
            case "Sphere" -> s.revolve(capsule(radius, 0), radius);
            case "Capsule" -> s.revolve(capsule(radius, height), radius);
            case "Cone" -> s.revolve(new double[] {0, -height / 2, radius, -height / 2, 0, height / 2}, radius);
            default ->
                s.revolve(
                        new double[] {0, -height / 2, radius, -height / 2, radius, height / 2, 0, height / 2}, radius);
        }
        float[] p = Arrays.copyOf(s.points.array(), s.points.size());
        String axis = node.token("axis", "Z");
        if (!type.equals("Cube") && !type.equals("Sphere") && !axis.equals("Z")) {
            for (int i = 0; i < p.length; i += 3) {
                float x = p[i];
                float y = p[i + 1];
                float z = p[i + 2];
                p[i] = axis.equals("X") ? z : y;
                p[i + 1] = axis.equals("X") ? x : z;
                p[i + 2] = axis.equals("X") ? y : x;
            }
        }
        return s.corners.build(new CornerMesh.Pools(p, null, null, null), Preparation.CREASE_ANGLE);
    }

    /** Radius and height in turn, from the lower pole to the upper. */
    private static double[] capsule(double radius, double height) {
        double[] out = new double[4 * (QUARTER + 1)];
        for (int i = 0; i <= 2 * QUARTER + 1; i++) {
            int step = i > QUARTER ? i - 1 : i;
            double a = Math.PI / 2 * (step / (double) QUARTER - 1);
            out[2 * i] = i == 0 || i == 2 * QUARTER + 1 ? 0 : radius * Math.cos(a);
            out[2 * i + 1] = radius * Math.sin(a) + (i > QUARTER ? height : -height) / 2;
        }
        return out;
    }

    private int point(double x, double y, double z) {
        points.add((float) x);
        points.add((float) y);
        points.add((float) z);
        return points.size() / 3 - 1;
    }

    private void quad(int a, int b, int c, int d) {
        corners.triangle(a, b, c, Model.NONE, CornerMesh.BY_ANGLE);
        corners.triangle(a, c, d, Model.NONE, CornerMesh.BY_ANGLE);
    }

    private void plane(double w, double l) {
        quad(point(-w, -l, 0), point(w, -l, 0), point(w, l, 0), point(-w, l, 0));
    }

    private void box(double h) {
        for (int i = 0; i < 8; i++) {
            point((i & 1) == 0 ? -h : h, (i & 2) == 0 ? -h : h, (i & 4) == 0 ? -h : h);
        }
        quad(0, 2, 3, 1);
        quad(4, 5, 7, 6);
        quad(0, 1, 5, 4);
        quad(2, 6, 7, 3);
        quad(0, 4, 6, 2);
        quad(1, 3, 7, 5);
    }

    /** @param profile radius and height in turn, upwards */
    private void revolve(double[] profile, double radius) {
        int[][] rings = new int[profile.length / 2][];
        for (int i = 0; i < rings.length; i++) {
            double r = profile[2 * i];
            rings[i] = new int[r == 0 ? 1 : AROUND];
            for (int k = 0; k < rings[i].length; k++) {
                double a = 2 * Math.PI * k / AROUND;
                rings[i][k] = point(r * Math.cos(a), r * Math.sin(a), profile[2 * i + 1]);
            }
        }
        for (int i = 0; i + 1 < rings.length; i++) {
            int[] low = rings[i];
            int[] high = rings[i + 1];
            for (int k = 0; k < AROUND && radius != 0; k++) {
                int next = (k + 1) % AROUND;
                if (low.length == 1) {
                    corners.triangle(low[0], high[next], high[k], Model.NONE, CornerMesh.BY_ANGLE);
                } else if (high.length == 1) {
                    corners.triangle(low[k], low[next], high[0], Model.NONE, CornerMesh.BY_ANGLE);
                } else {
                    quad(low[k], low[next], high[next], high[k]);
                }
            }
        }
    }
}
