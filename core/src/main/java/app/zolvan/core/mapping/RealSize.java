package app.zolvan.core.mapping;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;

/**
 * Lays texture coordinates in metres on a mesh: the file's own where they lie well already ({@link EvenCoordinates}), else
 * from six sides ({@link BoxProjection}).
 */
public final class RealSize {
    private RealSize() {}

    /** @param stretch how much the part's own axes are stretched on their way to the world */
    public static Mesh apply(Mesh mesh, Vec3 stretch) {
        return EvenCoordinates.inMetres(mesh, stretch)
                .map(mesh::withMetricUv)
                .orElseGet(() -> BoxProjection.apply(mesh, stretch));
    }
}
