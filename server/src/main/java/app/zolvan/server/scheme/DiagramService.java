package app.zolvan.server.scheme;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.Drawing;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.ColourCode;
import app.zolvan.core.prepare.ColourCode.Thing;
import app.zolvan.core.prepare.Divisions;
import app.zolvan.core.prepare.PlainColours.Mark;
import app.zolvan.core.prepare.Role;
import app.zolvan.server.library.FindingService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.Scene;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.BiFunction;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Colours and hatches as a code for what the surfaces of a design are. */
@Service
class DiagramService {
    private final SchemeService schemes;
    private final ProjectService projects;
    private final ModelStore models;
    private final FindingService finding;

    DiagramService(SchemeService schemes, ProjectService projects, ModelStore models, FindingService finding) {
        this.schemes = schemes;
        this.projects = projects;
        this.models = models;
        this.finding = finding;
    }

    /** What surfaces are told apart by. */
    public enum By {
        MATERIAL,
        ROLE,
        GROUP
    }

    /**
     * @param colour #rrggbb
     * @param hatch  0 for none
     * @param name   of what it stands for
     * @param material that is; null where it is no material
     * @param area   in m²
     */
    public record Marked(
            String colour, int hatch, String name, @Nullable UUID material, int parts, double area) {}

    /**
     * @param spans  by part and span, the index of what it is
     * @param things largest area first; what is nothing of the kind last
     */
    public record Diagram(List<List<Integer>> spans, List<Marked> things) {}

    /** By material, in the scheme in view; by role; or by the groups that divide the design. */
    Diagram of(Query query, By by) {
        LookTable looks = schemes.looks(projects.require(query.account(), query.project()), query);
        Scene scene = looks.scene();
        return switch (by) {
            case MATERIAL -> {
                Map<UUID, Thing<UUID>> known = new HashMap<>();
                yield wire(this.<UUID>code(scene, (p, s) -> {
                    MaterialRow m = looks.shown(p.index(), s).material();
                    return m == null
                            ? new Thing<>(null, "plain grey")
                            : known.computeIfAbsent(m.id(), id -> material(m));
                }));
            }
            case ROLE -> wire(this.<Role>code(scene, (p, s) -> role(p.role())));
            case GROUP -> {
                int[] divisions = Divisions.of(
                        scene.groups().stream().map(Scene.Group::parent).toList(), scene.surroundings());
                yield wire(this.<Integer>code(
                        scene, (p, s) -> group(scene, p.group() < 0 ? Model.NONE : divisions[p.group()])));
            }
        };
    }

    /** What is around the design is none of it. */
    private <K extends Comparable<K>> ColourCode<K> code(
            Scene scene, BiFunction<Scene.Part, Integer, Thing<K>> things) {
        return ColourCode.of(models.model(scene.projectId()), (part, span) -> {
            Scene.Part p = scene.parts().get(part);
            return scene.isAround(p) ? new Thing<>(null, "surroundings") : things.apply(p, span);
        });
    }

    private Thing<UUID> material(MaterialRow m) {
        Drawing d = m.known().drawing();
        Mark own = d == null
                ? null
                : new Mark(d.colour(() -> finding.measure(m).mean().clamped()), d.hatch());
        return new Thing<>(m.id(), m.code().isEmpty() ? m.name() : m.code() + " " + m.name(), own);
    }

    private static Thing<Role> role(@Nullable Role role) {
        return new Thing<>(role, role == null ? "no role" : role.word());
    }

    private static Thing<Integer> group(Scene scene, int division) {
        return division == Model.NONE
                ? new Thing<>(null, "elsewhere")
                : new Thing<>(division, scene.groups().get(division).name());
    }

    private static Diagram wire(ColourCode<?> code) {
        return new Diagram(
                code.spans(),
                code.entries().stream()
                        .map(e -> new Marked(
                                Srgb.toHex(e.mark().colour()),
                                e.mark().hatch(),
                                e.thing().name(),
                                e.thing().key() instanceof UUID id ? id : null,
                                e.parts(),
                                e.area()))
                        .toList());
    }
}
