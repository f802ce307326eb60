package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.List;

/** The space that closed bodies fill. */
public final class FilledSpace {
    private final List<Body> bodies = new ArrayList<>();

    /** @param box in the world */
    private record Body(Mesh mesh, Transform toMesh, Box3 box) {
        /** By the winding number, the solid angle over 4π; moving, stretching and mirroring do not change what is within. */
        boolean holds(Vec3 point) {
            for (int axis = 0; axis < 3; axis++) {
                double at = point.get(axis);
                if (at < box.min().get(axis) || at > box.max().get(axis)) {
                    return false;
                }
            }
            Vec3 p = toMesh.point(point);
            int[] corners = mesh.indices();
            double angle = 0;
            for (int i = 0; i < corners.length; i += 3) {
                angle += Triangles.solidAngle(
                        mesh.position(corners[i]).minus(p),
                        mesh.position(corners[i + 1]).minus(p),
                        mesh.position(corners[i + 2]).minus(p));
            }
            return Math.abs(angle) > 2 * Math.PI;
        }
    }

    /** Adds a body that bounds a volume; one that is flattened by its placement fills nothing. */
    public FilledSpace with(Mesh mesh, Transform toWorld) {
        if (Math.abs(toWorld.determinant()) > 1e-30) {
            bodies.add(new Body(mesh, toWorld.inverse(), mesh.bounds(toWorld)));
        }
        return this;
    }

    /** Whether a point lies within one of the bodies. */
    public boolean isWithin(Vec3 point) {
        return bodies.stream().anyMatch(b -> b.holds(point));
    }
}
