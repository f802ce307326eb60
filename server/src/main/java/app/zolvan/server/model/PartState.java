package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import java.util.Collections;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;

/**
 * What of a part designers can change: seven things that go their own ways, so that taking back one leaves the others as
 * they are by then.
 *
 * @param role  what it is in the design; null while nobody has said
 * @param spans null in states that were kept before parts could leave their sets; nothing has changed there
 * @param place where it stands in its group, 16 numbers in column-major order; null in states that were kept before parts
 *              could be moved
 * @param locked     whether it keeps what it shows whatever is given around it; null in states from before that, for no
 * @param lookedInto whether one sees through it from outside; the same
 */
public record PartState(
        String name,
        @Nullable Role role,
        Shape shape,
        @Nullable Spans spans,
        @Nullable List<Double> place,
        @Nullable Boolean locked,
        @Nullable Boolean lookedInto) {

    /**
     * Its mesh stays among the project's assets when another takes its place, so that there is a way back until surfaces are
     * cut anew.
     *
     * @param mesh          SHA-256 of its geometry
     * @param area          m²
     * @param volume        m³; 0 where the part is not closed
     * @param meanThickness m; 0 where the part is not closed
     * @param plainMesh     SHA-256 of its geometry without eased edges; null where that is the same
     * @param eased         how wide its eased edges are, in metres; 0 for none
     */
    public record Shape(
            String mesh,
            int triangles,
            double area,
            double volume,
            boolean closed,
            double meanThickness,
            @Nullable String plainMesh,
            double eased) {

        /** The same figures for another mesh that is as it was modelled. */
        Shape plain(String otherMesh, int otherTriangles) {
            return new Shape(otherMesh, otherTriangles, area, volume, closed, meanThickness, null, 0);
        }

        /** The same drawn with edges of a width; the mesh that it has is the plain one, unless it is drawn by itself. */
        Shape drawn(String otherMesh, int otherTriangles, double width) {
            return new Shape(
                    otherMesh,
                    otherTriangles,
                    area,
                    volume,
                    closed,
                    meanThickness,
                    otherMesh.equals(mesh) ? null : mesh,
                    width);
        }
    }

    /**
     * The matching sets of the mesh's spans.
     *
     * @param sets  where each is
     * @param homes where each came from
     * @param ownFaces the face that a designer cut there; {@link Scene#NO_FACE} for none
     */
    public record Spans(List<Integer> sets, List<Integer> homes, List<Integer> ownFaces) {
        public Spans {
            ownFaces = ownFaces == null // in states from before there were any
                    ? Collections.nCopies(sets.size(), Scene.NO_FACE)
                    : ownFaces;
        }
    }

    public static PartState of(Scene.Part p) {
        return new PartState(
                p.name(),
                p.role(),
                new Shape(
                        p.mesh(),
                        p.triangles(),
                        p.area(),
                        p.volume(),
                        p.closed(),
                        p.meanThickness(),
                        p.plainMesh(),
                        p.eased()),
                new Spans(p.sets(), p.homes(), p.ownFaces()),
                p.local(),
                p.locked(),
                p.lookedInto());
    }

    public PartState named(String other) {
        return new PartState(other, role, shape, spans, place, locked, lookedInto);
    }

    public PartState as(@Nullable Role other) {
        return new PartState(name, other, shape, spans, place, locked, lookedInto);
    }

    public PartState shaped(Shape other) {
        return new PartState(name, role, other, spans, place, locked, lookedInto);
    }

    public PartState in(Spans others) {
        return new PartState(name, role, shape, others, place, locked, lookedInto);
    }

    public PartState at(List<Double> other) {
        return new PartState(name, role, shape, spans, other, locked, lookedInto);
    }

    public PartState locked(boolean is) {
        return new PartState(name, role, shape, spans, place, is, lookedInto);
    }

    public PartState lookedInto(boolean is) {
        return new PartState(name, role, shape, spans, place, locked, is);
    }

    /** Whether what a change from one state to another is about still is as that expects it. */
    public boolean stands(PartState from, PartState to) {
        return equals(changed(to, from));
    }

    /**
     * This with what differs between two states taken from the second. Where another mesh has another number of spans, both
     * are taken.
     */
    public PartState changed(PartState from, PartState to) {
        boolean reshaped = !from.shape.equals(to.shape);
        boolean moved = to.spans != null && !to.spans.equals(from.spans);
        boolean regrouped =
                to.spans != null && spans != null && (reshaped || moved) && to.spans.sets.size() != spans.sets.size();
        return new PartState(
                from.name.equals(to.name) ? name : to.name,
                Objects.equals(from.role, to.role) ? role : to.role,
                reshaped || regrouped ? to.shape : shape,
                moved || regrouped ? to.spans : spans,
                to.place == null || to.place.equals(from.place) ? place : to.place,
                Boolean.TRUE.equals(from.locked) == Boolean.TRUE.equals(to.locked) ? locked : to.locked,
                Boolean.TRUE.equals(from.lookedInto) == Boolean.TRUE.equals(to.lookedInto)
                        ? lookedInto
                        : to.lookedInto);
    }
}
