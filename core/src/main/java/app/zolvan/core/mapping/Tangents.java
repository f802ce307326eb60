package app.zolvan.core.mapping;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;

/**
 * Tangents for normal maps: per vertex the direction in which u grows, made perpendicular to the normal, and the side on
 * which the image's up direction lies (Lengyel 2001, "Computing tangent space basis vectors"). As glTF wants them: four
 * numbers, the last +1 or −1 so that normal × tangent × w points up in the image.
 */
public final class Tangents {
    private Tangents() {}

    /**
     * @param uv texture coordinates, v growing downwards, two numbers a vertex
     * @return x, y, z, w per vertex; where the coordinates say nothing, any perpendicular to the normal
     */
    public static float[] of(Mesh mesh, float[] uv) {
        int vertices = mesh.vertexCount();
        Vec3[] along = new Vec3[vertices];
        Vec3[] up = new Vec3[vertices];
        for (int i = 0; i < mesh.indices().length; i += 3) {
            accumulate(mesh, uv, i, along, up);
        }
        float[] out = new float[4 * vertices];
        for (int v = 0; v < vertices; v++) {
            Vec3 n = mesh.normal(v);
            Vec3 raw = along[v] == null ? Vec3.ZERO : along[v];
            Vec3 t = raw.minus(n.times(n.dot(raw))).normalised();
            if (!(t.length() > 0.5)) {
                Vec3 other = Math.abs(n.x()) < 0.9 ? Vec3.axis(0) : Vec3.axis(1);
                t = other.minus(n.times(n.dot(other))).normalised();
            }
            boolean left = up[v] != null && n.cross(t).dot(up[v]) < 0;
            out[4 * v] = (float) t.x();
            out[4 * v + 1] = (float) t.y();
            out[4 * v + 2] = (float) t.z();
            out[4 * v + 3] = left ? -1 : 1;
        }
        return out;
    }

    private static void accumulate(Mesh mesh, float[] uv, int i, Vec3[] along, Vec3[] up) {
        int a = mesh.indices()[i];
        int b = mesh.indices()[i + 1];
        int c = mesh.indices()[i + 2];
        Vec3 p = mesh.position(b).minus(mesh.position(a));
        Vec3 q = mesh.position(c).minus(mesh.position(a));
        double u1 = uv[2 * b] - uv[2 * a];
        double v1 = uv[2 * a + 1] - uv[2 * b + 1]; // upwards
        double u2 = uv[2 * c] - uv[2 * a];
        double v2 = uv[2 * a + 1] - uv[2 * c + 1];
        double area = u1 * v2 - u2 * v1;
        if (area == 0) {
            return;
        }
        // weighted by the triangle's area in the image, with the sign that keeps mirrored pieces apart
        Vec3 s = p.times(v2).minus(q.times(v1)).times(Math.signum(area));
        Vec3 t = q.times(u1).minus(p.times(u2)).times(Math.signum(area));
        for (int v : new int[] {a, b, c}) {
            along[v] = along[v] == null ? s : along[v].plus(s);
            up[v] = up[v] == null ? t : up[v].plus(t);
        }
    }
}
