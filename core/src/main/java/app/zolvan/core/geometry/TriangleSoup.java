package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Loose triangles on their way to a {@link Mesh}: each added by its three corners, anticlockwise seen from the front.
 * Triangles without area are dropped.
 */
public final class TriangleSoup {
    private double[] corners = new double[9 * 256];
    private int count;

    public TriangleSoup triangle(Vec3 a, Vec3 b, Vec3 c) {
        if (b.minus(a).cross(c.minus(a)).length() < 1e-12) {
            return this;
        }
        if ((count + 1) * 9 > corners.length) {
            corners = Arrays.copyOf(corners, corners.length * 2);
        }
        int at = 9 * count++;
        for (Vec3 v : new Vec3[] {a, b, c}) {
            corners[at++] = v.x();
            corners[at++] = v.y();
            corners[at++] = v.z();
        }
        return this;
    }

    public TriangleSoup quad(Vec3 a, Vec3 b, Vec3 c, Vec3 d) {
        return triangle(a, b, c).triangle(a, c, d);
    }

    public TriangleSoup add(TriangleSoup o, Transform t) {
        for (int i = 0; i < o.count; i++) {
            triangle(t.point(o.corner(3 * i)), t.point(o.corner(3 * i + 1)), t.point(o.corner(3 * i + 2)));
        }
        return this;
    }

    /** The same triangles seen from behind. */
    public TriangleSoup reversed() {
        TriangleSoup out = new TriangleSoup();
        for (int i = 0; i < count; i++) {
            out.triangle(corner(3 * i), corner(3 * i + 2), corner(3 * i + 1));
        }
        return out;
    }

    public int triangleCount() {
        return count;
    }

    private Vec3 corner(int i) {
        return new Vec3(corners[3 * i], corners[3 * i + 1], corners[3 * i + 2]);
    }

    /**
     * A mesh of one span. At each corner the normal is the mean of the triangles around that point which turn away by
     * less than {@code creaseAngle} radians, weighted by their angle there (Thürmer & Wüthrich 1998); sharper edges stay
     * sharp.
     */
    public Mesh toMesh(double creaseAngle) {
        double cosine = Math.cos(creaseAngle);
        Vec3[] faceNormals = new Vec3[count];
        Map<Point, List<Integer>> around = new HashMap<>();
        for (int t = 0; t < count; t++) {
            faceNormals[t] = corner(3 * t + 1)
                    .minus(corner(3 * t))
                    .cross(corner(3 * t + 2).minus(corner(3 * t)))
                    .normalised();
            for (int k = 0; k < 3; k++) {
                around.computeIfAbsent(Point.of(corner(3 * t + k)), p -> new ArrayList<>())
                        .add(3 * t + k);
            }
        }
        Map<Vertex, Integer> vertices = new HashMap<>();
        float[] positions = new float[9 * count];
        float[] normals = new float[9 * count];
        int[] indices = new int[3 * count];
        for (int i = 0; i < indices.length; i++) {
            Point p = Point.of(corner(i));
            Vec3 n = Vec3.ZERO;
            for (int o : around.get(p)) {
                if (faceNormals[o / 3].dot(faceNormals[i / 3]) >= cosine) {
                    n = n.plus(faceNormals[o / 3].times(angleAt(o)));
                }
            }
            n = n.normalised();
            Vertex vertex = new Vertex(p, Point.of(n.times(0.01)));
            Integer known = vertices.get(vertex);
            if (known == null) {
                known = vertices.size();
                vertices.put(vertex, known);
                for (int k = 0; k < 3; k++) {
                    positions[3 * known + k] = p.get(k);
                    normals[3 * known + k] = (float) n.get(k);
                }
            }
            indices[i] = known;
        }
        int used = 3 * vertices.size();
        return new Mesh(
                Arrays.copyOf(positions, used),
                Arrays.copyOf(normals, used),
                null,
                null,
                indices,
                new int[] {0, count},
                null);
    }

    private double angleAt(int corner) {
        int t = corner / 3;
        Vec3 p = corner(corner);
        Vec3 a = corner(3 * t + (corner - 3 * t + 1) % 3).minus(p).normalised();
        Vec3 b = corner(3 * t + (corner - 3 * t + 2) % 3).minus(p).normalised();
        return Math.acos(Math.max(-1, Math.min(1, a.dot(b))));
    }

    /** A position on a grid of 1e-6 of the modelling unit, so that corners computed twice meet. */
    private record Point(long x, long y, long z) {
        static Point of(Vec3 v) {
            return new Point(Math.round(v.x() * 1e6), Math.round(v.y() * 1e6), Math.round(v.z() * 1e6));
        }

        float get(int axis) {
            return (float) ((axis == 0 ? x : axis == 1 ? y : z) * 1e-6);
        }
    }

    private record Vertex(Point position, Point normal) {}
}
