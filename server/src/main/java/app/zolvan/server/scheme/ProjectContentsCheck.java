package app.zolvan.server.scheme;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.material.TextureUse;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.light.LightService;
import app.zolvan.server.view.ViewRow;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.function.Predicate;

/** Checks what a project file puts on its model: only things of the project itself, and nothing that can't be shown. */
final class ProjectContentsCheck {
    private final UUID project;
    private final Predicate<UUID> isShipped;
    private final Predicate<String> isThere;
    private final Set<UUID> materials = new HashSet<>();
    private final Set<UUID> schemes = new HashSet<>();
    private boolean isLit;

    private ProjectContentsCheck(UUID project, Predicate<UUID> isShipped, Predicate<String> isThere) {
        this.project = project;
        this.isShipped = isShipped;
        this.isThere = isThere;
    }

    /**
     * @param isShipped true for a material of the library that ships
     * @param isThere   true for an asset of the project
     * @return the same changes; materials forget what they came from where that is not to be had here
     */
    static List<Change> of(ProjectContents c, UUID project, Predicate<UUID> isShipped, Predicate<String> isThere)
            throws ImportException {
        ProjectContentsCheck check = new ProjectContentsCheck(project, isShipped, isThere);
        List<Change> out = new ArrayList<>();
        try {
            for (Change change : c.changes()) {
                out.add(check.checked(change));
            }
        } catch (NullPointerException | IllegalStateException | IllegalArgumentException e) {
            throw ProjectContentsService.damaged("something in it is missing or can’t be read");
        }
        if (check.schemes.isEmpty()) {
            throw ProjectContentsService.damaged("it has no scheme");
        }
        if (!check.isLit) {
            LightRow first = LightService.first(project);
            out.add(new Change.OfLight(first.id(), null, first));
        }
        return out;
    }

    private Change checked(Change change) throws ImportException {
        if (change instanceof Change.OfMaterial m) {
            return new Change.OfMaterial(m.id(), null, material(m.after()));
        }
        if (change instanceof Change.OfScheme s) {
            require(s.after().projectId().equals(project) && s.after().id().equals(s.id()), "a scheme is another’s");
            require(s.after().base() == null || schemes.contains(s.after().base()), "a scheme has no base");
            schemes.add(s.id());
            return new Change.OfScheme(s.id(), null, s.after());
        }
        if (change instanceof Change.OfEntry e) {
            boolean fits = schemes.contains(e.after().schemeId())
                    && e.after().schemeId().equals(e.scheme())
                    && (e.after().materialId() == null
                            || materials.contains(e.after().materialId()))
                    && e.after().slot().equals(e.slot());
            require(fits, "a look is of no scheme or no material of it");
            return new Change.OfEntry(e.scheme(), e.level(), e.target(), e.side(), null, e.after());
        }
        if (change instanceof Change.OfCandidate c) {
            require(materials.contains(c.material()) && c.after() != null, "a candidate is no material of it");
            return new Change.OfCandidate(c.level(), c.target(), c.material(), null, c.after());
        }
        if (change instanceof Change.OfLight l) {
            boolean fits = l.after().projectId().equals(project)
                    && l.after().id().equals(l.id())
                    && l.after().setup().fault().isEmpty();
            require(fits, "a light set-up is out of range");
            isLit = true;
            return new Change.OfLight(l.id(), null, l.after());
        }
        if (change instanceof Change.OfView v) {
            ViewRow row = v.after();
            require(row.projectId().equals(project) && row.id().equals(v.id()), "a view is another’s");
            require(row.camera().fault().isEmpty(), "a view is no view");
            return new Change.OfView(v.id(), null, row);
        }
        if (change instanceof Change.OfNote n) {
            require(n.after().projectId().equals(project) && n.after().id().equals(n.id()), "a note is another’s");
            return new Change.OfNote(n.id(), null, n.after());
        }
        throw ProjectContentsService.damaged("it holds what no project file holds");
    }

    private MaterialRow material(MaterialRow m) throws ImportException {
        require(project.equals(m.projectId()), "a material is another’s");
        require(
                (m.parent() == null || materials.contains(m.parent()))
                        && (m.colourOf() == null || materials.contains(m.colourOf())),
                "a material follows none of its own");
        for (TextureUse t : m.toMaterial().surface().textures().values()) {
            require(isThere.test(t.image()), "a picture is missing");
        }
        m.known();
        materials.add(m.id());
        return m.origin() == null || materials.contains(m.origin()) || isShipped.test(m.origin())
                ? m
                : m.withoutOrigin();
    }

    private static void require(boolean holds, String otherwise) throws ImportException {
        if (!holds) {
            throw ProjectContentsService.damaged(otherwise);
        }
    }
}
