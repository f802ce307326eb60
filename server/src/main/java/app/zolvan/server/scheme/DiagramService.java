package app.zolvan.server.scheme;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.Coverage;
import app.zolvan.core.prepare.Divisions;
import app.zolvan.core.prepare.PlainColours;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.Scene;
import app.zolvan.server.project.ProjectService;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Colours and hatches as a code for what the surfaces of a model are. */
@Service
class DiagramService {
    /** What is not told apart: a light grey without hatch. */
    private static final String UNMARKED = "#c9c8c4";

    private final SchemeService schemes;
    private final ProjectService projects;
    private final ModelStore models;

    DiagramService(SchemeService schemes, ProjectService projects, ModelStore models) {
        this.schemes = schemes;
        this.projects = projects;
        this.models = models;
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
            String colour, int hatch, String name, @Nullable UUID material, long parts, double area) {}

    /**
     * @param spans  by part and span, the index of what it is
     * @param things largest area first; what is nothing of the kind last
     */
    public record Diagram(List<List<Integer>> spans, List<Marked> things) {}

    /** What a surface is: nothing of the kind where the key is empty. */
    private record Thing(String key, String name, @Nullable UUID material) {}

    /** By material, in the scheme in view; by role; or by the groups that divide the model. */
    Diagram of(Account account, UUID projectId, By by) {
        LookTable looks = schemes.looks(projects.require(account, projectId));
        Scene scene = looks.scene();
        Model model = models.model(projectId);
        int[] divisions =
                Divisions.of(scene.groups().stream().map(Scene.Group::parent).toList());
        Set<Integer> around = scene.surroundings();
        Map<Thing, Double> areas = new HashMap<>();
        Map<Thing, Set<Integer>> parts = new HashMap<>();
        List<List<Thing>> things = new ArrayList<>();
        for (Scene.Part p : scene.parts()) {
            List<Thing> spans = new ArrayList<>();
            for (int span = 0; span < p.sets().size(); span++) {
                Thing t = switch (by) {
                    case MATERIAL -> material(looks.shown(p.index(), span).material());
                    case ROLE ->
                        p.role() == null
                                ? new Thing("", "no role", null)
                                : new Thing(p.role().name(), p.role().word(), null);
                    case GROUP -> group(scene, p.group() < 0 ? Model.NONE : divisions[p.group()], around);
                };
                spans.add(t);
                areas.merge(t, Coverage.area(model, p.index(), span), Double::sum);
                parts.computeIfAbsent(t, k -> new HashSet<>()).add(p.index());
            }
            things.add(spans);
        }
        Map<String, Double> told = new HashMap<>();
        areas.forEach((t, area) -> {
            if (!t.key().isEmpty()) {
                told.put(t.key(), area);
            }
        });
        Map<String, PlainColours.Mark> marks = PlainColours.marks(told);
        List<Thing> listed = areas.keySet().stream()
                .sorted(Comparator.comparing((Thing t) -> t.key().isEmpty())
                        .thenComparing(t -> -areas.get(t))
                        .thenComparing(Thing::key))
                .toList();
        Map<Thing, Integer> places = new HashMap<>();
        List<Marked> out = new ArrayList<>();
        for (Thing t : listed) {
            places.put(t, out.size());
            PlainColours.Mark mark = marks.get(t.key());
            out.add(new Marked(
                    mark == null ? UNMARKED : Srgb.toHex(mark.colour()),
                    mark == null ? 0 : mark.hatch(),
                    t.name(),
                    t.material(),
                    parts.get(t).size(),
                    areas.get(t)));
        }
        return new Diagram(
                things.stream()
                        .map(spans -> spans.stream().map(places::get).toList())
                        .toList(),
                out);
    }

    private static Thing material(@Nullable MaterialRow m) {
        return m == null
                ? new Thing("", "plain grey", null)
                : new Thing(m.id().toString(), m.code().isEmpty() ? m.name() : m.code() + " " + m.name(), m.id());
    }

    private static Thing group(Scene scene, int division, Set<Integer> around) {
        return division < 0 || around.contains(division)
                ? new Thing("", "elsewhere", null)
                : new Thing(
                        Integer.toString(division), scene.groups().get(division).name(), null);
    }
}
