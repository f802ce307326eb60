package app.zolvan.core.geometry;

import java.io.Serializable;

/**
 * Area and enclosed volume of a mesh after a transform.
 *
 * @param area   surface area in m², all triangles counted once
 * @param volume enclosed volume in m³ by signed tetrahedra (Mirtich 1996); 0 where the mesh is not closed
 * @param closed whether the mesh bounds a volume
 */
public record MeshMeasure(double area, double volume, boolean closed) implements Serializable {

    public static MeshMeasure of(Mesh mesh, Topology topology, Transform toWorld) {
        double area = 0;
        double six = 0;
        int[] index = mesh.indices();
        Vec3 origin = index.length == 0 ? Vec3.ZERO : toWorld.point(mesh.position(index[0]));
        for (int i = 0; i < index.length; i += 3) {
            Vec3 a = toWorld.point(mesh.position(index[i])).minus(origin);
            Vec3 b = toWorld.point(mesh.position(index[i + 1])).minus(origin);
            Vec3 c = toWorld.point(mesh.position(index[i + 2])).minus(origin);
            Vec3 n = b.minus(a).cross(c.minus(a));
            area += n.length() / 2;
            six += a.dot(b.cross(c));
        }
        boolean closed = topology.isClosed();
        return new MeshMeasure(area, closed ? Math.abs(six) / 6 : 0, closed);
    }

    /**
     * The mean thickness of the body in metres, 2V/A: exactly the wall thickness of a thin shell with both sides
     * modelled, and a fair path length through a solid. 0 for an open surface.
     */
    public double meanThickness() {
        return closed && area > 0 ? 2 * volume / area : 0;
    }
}
