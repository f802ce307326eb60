package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What of a part designers can change: three things that go their own ways, so that taking back one leaves the others as
 * they are by then.
 *
 * @param role what it is in the design; null while nobody has said
 */
public record PartState(String name, @Nullable Role role, Shape shape) {

    /**
     * Its mesh stays among the project's assets when another takes its place, so that there is a way back until surfaces are
     * cut anew.
     *
     * @param mesh          SHA-256 of its geometry
     * @param area          m²
     * @param volume        m³; 0 where the part is not closed
     * @param meanThickness m; 0 where the part is not closed
     */
    public record Shape(String mesh, int triangles, double area, double volume, boolean closed, double meanThickness) {}

    public static PartState of(Scene.Part p) {
        return new PartState(
                p.name(),
                p.role(),
                new Shape(p.mesh(), p.triangles(), p.area(), p.volume(), p.closed(), p.meanThickness()));
    }

    public PartState named(String other) {
        return new PartState(other, role, shape);
    }

    public PartState as(@Nullable Role other) {
        return new PartState(name, other, shape);
    }

    public PartState shaped(Shape other) {
        return new PartState(name, role, other);
    }

    /** Whether what a change from one state to another is about still is as that expects it. */
    public boolean stands(PartState from, PartState to) {
        return equals(changed(to, from));
    }

    /** This with what differs between two states taken from the second. */
    public PartState changed(PartState from, PartState to) {
        return new PartState(
                from.name.equals(to.name) ? name : to.name,
                Objects.equals(from.role, to.role) ? role : to.role,
                from.shape.equals(to.shape) ? shape : to.shape);
    }
}
