package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import org.jspecify.annotations.Nullable;

/**
 * What of a part designers can change. Its mesh stays among the project's assets when another takes its place, so that
 * there is a way back.
 *
 * @param role          what it is in the design; null while nobody has said
 * @param mesh          SHA-256 of its geometry
 * @param area          m²
 * @param volume        m³; 0 where the part is not closed
 * @param meanThickness m; 0 where the part is not closed
 */
public record PartState(
        String name,
        @Nullable Role role,
        String mesh,
        int triangles,
        double area,
        double volume,
        boolean closed,
        double meanThickness) {

    public static PartState of(Scene.Part p) {
        return new PartState(
                p.name(), p.role(), p.mesh(), p.triangles(), p.area(), p.volume(), p.closed(), p.meanThickness());
    }

    public PartState as(@Nullable Role other) {
        return new PartState(name, other, mesh, triangles, area, volume, closed, meanThickness);
    }

    public PartState named(String other) {
        return new PartState(other, role, mesh, triangles, area, volume, closed, meanThickness);
    }
}
