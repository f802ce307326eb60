package app.zolvan.core.mapping;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import java.util.Arrays;

/**
 * Lays a texture on a part at real size, from the six sides of its own box: each triangle takes the side its normal
 * points to most. The grain (texture u) runs along the part's longest axis; no side is mirrored (u × v points out of the
 * surface), and on side walls of a lying part the image stands upright.
 *
 * <p>The result is texture coordinates in metres, stored in {@link Mesh#metricUv()}; a sample of W × H metres is laid by
 * dividing them by W and H. As in glTF, u = v = 0 is an image's upper left corner and v grows downwards.
 * Vertices are split where neighbouring triangles take different sides. Rules.md, section 4.
 */
public final class BoxProjection {
    private static final int UP = 1;

    private BoxProjection() {}

    /**
     * @param mesh    the part's mesh in its own space
     * @param stretch how much the part's own axes are stretched on their way to the world, so that coordinates come out
     *                in world metres
     * @return the mesh with metric texture coordinates; triangle order, spans and faces unchanged
     */
    public static Mesh apply(Mesh mesh, Vec3 stretch) {
        int grain = longAxis(mesh.bounds(), stretch);
        int[] side = new int[mesh.triangleCount()];
        for (int t = 0; t < side.length; t++) {
            side[t] = dominantSide(mesh, t, stretch);
        }
        // one copy of a vertex for each side that uses it
        int[] copyOf = new int[mesh.vertexCount() * 6];
        Arrays.fill(copyOf, -1);
        int[] indices = new int[mesh.indices().length];
        int[] source = new int[Math.min(indices.length, mesh.vertexCount() * 6)];
        int[] sideOfVertex = new int[source.length];
        int count = 0;
        for (int i = 0; i < indices.length; i++) {
            int slot = mesh.indices()[i] * 6 + side[i / 3];
            if (copyOf[slot] < 0) {
                copyOf[slot] = count;
                source[count] = mesh.indices()[i];
                sideOfVertex[count++] = side[i / 3];
            }
            indices[i] = copyOf[slot];
        }
        float[] metric = new float[2 * count];
        for (int v = 0; v < count; v++) {
            Vec3 p = mesh.position(source[v]);
            Vec3 world = new Vec3(p.x() * stretch.x(), p.y() * stretch.y(), p.z() * stretch.z());
            Vec3 u = uAxis(sideOfVertex[v], grain);
            metric[2 * v] = (float) world.dot(u);
            metric[2 * v + 1] = (float) -world.dot(vAxis(sideOfVertex[v], u));
        }
        return mesh.onCopies(source, count, indices, metric);
    }

    /** Outward direction of side 0 … 5: +x, −x, +y, −y, +z, −z. */
    static Vec3 outward(int side) {
        return Vec3.axis(side / 2).times(side % 2 == 0 ? 1 : -1);
    }

    /** Texture u on a side: along the grain where the side contains it, else along the lower remaining axis. */
    static Vec3 uAxis(int side, int grain) {
        int normal = side / 2;
        int axis = normal != grain ? grain : normal == 0 ? 2 : 0;
        Vec3 u = Vec3.axis(axis);
        // turn by half a turn in the plane where that brings v upright
        boolean upsideDown =
                axis != UP && normal != UP && outward(side).cross(u).get(UP) < 0;
        return upsideDown ? u.times(-1) : u;
    }

    /** The image's upward direction on a side. */
    static Vec3 vAxis(int side, Vec3 u) {
        return outward(side).cross(u);
    }

    private static int longAxis(Box3 bounds, Vec3 stretch) {
        Vec3 s = bounds.size();
        return Box3.EMPTY
                .with(Vec3.ZERO)
                .with(new Vec3(s.x() * stretch.x(), s.y() * stretch.y(), s.z() * stretch.z()))
                .longestAxis();
    }

    /** The side that the stretched triangle's geometric normal points to most; ties go to the lower axis. */
    private static int dominantSide(Mesh mesh, int t, Vec3 stretch) {
        Vec3 a = mesh.position(mesh.indices()[3 * t]);
        Vec3 b = mesh.position(mesh.indices()[3 * t + 1]);
        Vec3 c = mesh.position(mesh.indices()[3 * t + 2]);
        Vec3 n = b.minus(a).cross(c.minus(a));
        double x = n.x() * stretch.y() * stretch.z();
        double y = n.y() * stretch.z() * stretch.x();
        double z = n.z() * stretch.x() * stretch.y();
        double ax = Math.abs(x);
        double ay = Math.abs(y);
        double az = Math.abs(z);
        if (ax >= ay && ax >= az) {
            return x >= 0 ? 0 : 1;
        }
        if (ay >= az) {
            return y >= 0 ? 2 : 3;
        }
        return z >= 0 ? 4 : 5;
    }
}
