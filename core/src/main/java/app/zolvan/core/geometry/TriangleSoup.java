package app.zolvan.core.geometry;

import java.util.Arrays;

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

    /** A mesh of one span; corners on one point of a grid of 1e-6 of the modelling unit meet. See {@link CornerMesh}. */
    public Mesh toMesh(double creaseAngle) {
        float[] positions = new float[9 * count];
        for (int i = 0; i < positions.length; i++) {
            positions[i] = (float) (Math.round(corners[i] * 1e6) * 1e-6);
        }
        int[] place = VertexWeld.exact(positions, 3 * count);
        CornerMesh mesh = new CornerMesh();
        for (int t = 0; t < count; t++) {
            mesh.triangle(place[3 * t], place[3 * t + 1], place[3 * t + 2], 0, CornerMesh.BY_ANGLE);
        }
        return mesh.build(new CornerMesh.Pools(positions, null, null, null), creaseAngle)
                .mesh();
    }
}
