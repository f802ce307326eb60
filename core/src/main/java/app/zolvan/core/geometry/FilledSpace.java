package app.zolvan.core.geometry;

import java.util.List;

/** The space that closed bodies fill. */
public final class FilledSpace {
    private final List<Standing> bodies;
    private final BoxTree tree;

    /**
     * A body that bounds a volume; one that its placement flattens fills nothing.
     *
     * @param toWorld where it stands
     */
    public record Body(Mesh mesh, Transform toWorld) {}

    private record Standing(Mesh mesh, Transform toMesh) {
        /** By the winding number, the solid angle over 4π; moving, stretching and mirroring do not change what is within. */
        boolean holds(Vec3 point) {
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

    public FilledSpace(List<Body> bodies) {
        List<Body> filling = bodies.stream()
                .filter(b -> Math.abs(b.toWorld.determinant()) > 1e-30)
                .toList();
        double[] boxes = new double[6 * filling.size()];
        for (int i = 0; i < filling.size(); i++) {
            Body b = filling.get(i);
            b.mesh.bounds(b.toWorld).put(boxes, 6 * i);
        }
        this.bodies = filling.stream()
                .map(b -> new Standing(b.mesh, b.toWorld.inverse()))
                .toList();
        this.tree = new BoxTree(boxes);
    }

    /** Whether a point lies within one of the bodies. */
    public boolean isWithin(Vec3 point) {
        boolean[] within = {false};
        double[] box = {point.x(), point.y(), point.z(), point.x(), point.y(), point.z()};
        tree.touching(box, i -> within[0] = within[0] || bodies.get(i).holds(point));
        return within[0];
    }
}
