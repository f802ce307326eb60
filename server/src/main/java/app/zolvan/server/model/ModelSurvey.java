package app.zolvan.server.model;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.SameLook;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Excerpt;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.Coverage;
import app.zolvan.core.prepare.Names;
import app.zolvan.core.prepare.PlainColours;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.prepare.Roles;
import app.zolvan.core.prepare.Similar;
import app.zolvan.core.prepare.Splitting;
import app.zolvan.core.prepare.TidyNames;
import app.zolvan.core.prepare.VesselContact;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What core makes out about a project's model, for designers to go by. Changes nothing. */
@Component
public class ModelSurvey {
    private final ModelStore models;
    private final MaterialService materials;

    ModelSurvey(ModelStore models, MaterialService materials) {
        this.models = models;
        this.materials = materials;
    }

    /** All matching sets that anything is in, the one with most area first. */
    @Transactional(readOnly = true)
    public List<SetWire> sets(UUID project) {
        Scene scene = models.scene(project);
        Map<UUID, Surface> looks = new HashMap<>();
        materials.ofProject(project).stream()
                .filter(MaterialRow::arrived)
                .forEach(m -> looks.put(m.id(), m.toSurface()));
        Map<Integer, Coverage> covered = Coverage.of(
                Excerpt.without(models.model(project), scene.surroundings()).model());
        List<Integer> all = List.copyOf(covered.keySet());
        List<Surface> worn = new ArrayList<>();
        all.forEach(s -> worn.add(looks.get(scene.sets().get(s).source())));
        List<Integer> firsts = SameLook.firsts(worn);
        List<SetWire> out = new ArrayList<>();
        for (int i = 0; i < all.size(); i++) {
            Scene.MatchingSet set = scene.sets().get(all.get(i));
            Coverage c = Objects.requireNonNull(covered.get(all.get(i)));
            int first = firsts.get(i);
            out.add(new SetWire(
                    set.index(),
                    set.name(),
                    set.source(),
                    c.parts(),
                    c.area(),
                    c.share(),
                    !Names.saysNothing(set.name()),
                    Collections.frequency(firsts, first) > 1 ? all.get(first) : null));
        }
        out.sort(Comparator.comparingDouble(s -> -s.area()));
        return out;
    }

    /** How a set could be split. */
    public Splitting splitting(UUID project, int set, Splitting.By by) {
        Model model = models.model(project);
        List<Model.Region> regions = new ArrayList<>();
        for (int p = 0; p < model.parts().size(); p++) {
            List<Integer> sets = model.parts().get(p).sourceOfSpan();
            for (int s = 0; s < sets.size(); s++) {
                if (sets.get(s) == set) {
                    regions.add(new Model.Region(p, s));
                }
            }
        }
        return Splitting.of(model, regions, by);
    }

    /** The parts that are like one of them, by the way in which they are. */
    public Map<Similar.By, List<Integer>> similar(UUID project, int part) {
        return Similar.to(
                models.model(project),
                models.scene(project).parts().stream().map(Scene.Part::role).toList(),
                part);
    }

    /** Names for parts whose names say nothing, by their roles or what is proposed as such. */
    @Transactional(readOnly = true)
    public List<TidyNames.Proposal> tidyNames(UUID project) {
        ModelStore.Standing standing = models.standing(project);
        Excerpt design = standing.design();
        Preparation prepared = standing.designed(design);
        Scene scene = models.scene(project);
        Role[] roles =
                design.parts().stream().map(p -> scene.parts().get(p).role()).toArray(Role[]::new);
        for (Roles.Proposal p : Roles.propose(prepared)) {
            roles[p.part()] = roles[p.part()] == null && p.isLikely() ? p.role() : roles[p.part()];
        }
        return TidyNames.propose(prepared.model(), Arrays.asList(roles)).stream()
                .map(p -> new TidyNames.Proposal(design.parts().get(p.part()), p.name()))
                .toList();
    }

    /** What parts of the design may be that nobody has given a role yet. */
    @Transactional(readOnly = true)
    public List<Roles.RoleGroup> roles(UUID project) {
        return Roles.grouped(proposals(project));
    }

    /** The role that a part has, or else that it seems to have; null where too little is known. */
    @Transactional(readOnly = true)
    public @Nullable Role roleOf(UUID project, int part) {
        Role own = models.scene(project).requireRegion(part, 0).role();
        return own != null
                ? own
                : proposals(project).stream()
                        .filter(p -> p.part() == part)
                        .findFirst()
                        .map(Roles.Proposal::role)
                        .orElse(null);
    }

    private List<Roles.Proposal> proposals(UUID project) {
        ModelStore.Standing standing = models.standing(project);
        Excerpt design = standing.design();
        List<Scene.Part> parts = models.scene(project).parts();
        return Roles.propose(standing.designed(design)).stream()
                .map(p -> new Roles.Proposal(design.parts().get(p.part()), p.role(), p.confidence(), p.reason()))
                .filter(p -> parts.get(p.part()).role() == null)
                .toList();
    }

    /**
     * How two parts meet, the smaller one as a filling of the other.
     *
     * @param growth by how much the filling has to grow to reach into the wall, in metres; 0 where it does
     */
    public record ContactWire(
            VesselContact.Kind kind, int filling, int vessel, String says, String advice, double growth) {}

    /** @throws Problem for parts that there are not */
    public ContactWire contact(UUID project, int one, int other, LengthUnit unit) {
        Model model = models.model(project);
        if (Math.min(one, other) < 0 || Math.max(one, other) >= model.parts().size() || one == other) {
            throw Problem.notFound("part");
        }
        VesselContact c = VesselContact.of(model, one, other);
        return new ContactWire(c.kind(), c.filling(), c.vessel(), c.sentence(model, unit), c.advice(unit), c.growth());
    }

    /** A colour for each part by which it can be told from others. */
    public List<String> plainColours(UUID project, boolean bySet) {
        Model model = models.model(project);
        return (bySet ? PlainColours.bySet(model) : PlainColours.byShape(model))
                .stream().map(Srgb::toHex).toList();
    }
}
