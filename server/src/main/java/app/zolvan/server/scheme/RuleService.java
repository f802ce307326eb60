package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.prepare.DressingRules;
import app.zolvan.core.prepare.DressingRules.Lie;
import app.zolvan.core.prepare.DressingRules.Rule;
import app.zolvan.core.prepare.DressingRules.Thing;
import app.zolvan.core.prepare.Role;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.ItemService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.RuleMapper.ListRow;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Lists of rules of an account: what they would give in a project, and giving it. */
@Service
class RuleService {
    private static final int LONGEST_NAME = 200;

    private final RuleMapper mapper;
    private final AssignCommands assigning;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ItemService items;
    private final ProjectService projects;
    private final JsonMapper json;

    RuleService(
            RuleMapper mapper,
            AssignCommands assigning,
            SchemeService schemes,
            MaterialService materials,
            ItemService items,
            ProjectService projects,
            JsonMapper json) {
        this.mapper = mapper;
        this.assigning = assigning;
        this.schemes = schemes;
        this.materials = materials;
        this.items = items;
        this.projects = projects;
        this.json = json;
    }

    /**
     * A rule as it is kept; what is left open fits everything.
     *
     * @param name     of parts; * stands for any text
     * @param source   name of a material that came with the file, the same way
     * @param shortest least length of a part's longest extent in metres; 0 for any
     * @param longest  greatest one; 0 for any
     * @param material of a library
     */
    record RuleWire(
            String name,
            String source,
            @Nullable Role role,
            @Nullable Lie lie,
            double shortest,
            double longest,
            UUID material) {
        RuleWire {
            name = name == null ? "" : name.strip();
            source = source == null ? "" : source.strip();
        }

        Rule rule() {
            return new Rule(name, source, role, lie, shortest, longest, material.toString());
        }
    }

    record RuleListWire(UUID id, String name, List<RuleWire> rules) {}

    List<RuleListWire> lists(Account account) {
        return mapper.of(account.id()).stream().map(this::wire).toList();
    }

    private RuleListWire wire(ListRow row) {
        return new RuleListWire(row.id(), row.name(), Arrays.asList(json.readValue(row.rules(), RuleWire[].class)));
    }

    private RuleListWire require(Account account, UUID id) {
        return mapper.find(account.id(), id).map(this::wire).orElseThrow(() -> Problem.notFound("list of rules"));
    }

    @Transactional
    RuleListWire create(Account account, String name) {
        ListRow row = new ListRow(UUID.randomUUID(), account.id(), GivenName.require(name), "[]");
        if (mapper.insert(row) == 0) {
            throw Problem.ofField("name", "You have rules called “" + row.name() + "” already.");
        }
        return wire(row);
    }

    /** Gives a list other rules. */
    @Transactional
    RuleListWire change(Account account, UUID id, List<RuleWire> rules) {
        RuleListWire before = require(account, id);
        for (RuleWire r : rules) {
            MaterialRow m = items.seen(account, r.material())
                    .orElseThrow(() ->
                            Problem.ofField("material", "Choose a chip of a library: the project’s own stay with it."));
            if (Math.max(r.name().length(), r.source().length()) > LONGEST_NAME) {
                throw Problem.ofField("rules", "Names in rules have up to " + LONGEST_NAME + " letters.");
            }
            if (r.rule().isOpen()) {
                throw Problem.ofField(
                        "rules", "The rule for “" + m.name() + "” says nothing of the parts that it is for.");
            }
            if (!(r.shortest() >= 0 && r.longest() >= 0) || (r.longest() > 0 && r.longest() < r.shortest())) {
                throw Problem.ofField("rules", "Lengths go from the shorter to the longer one.");
            }
        }
        mapper.update(new ListRow(id, account.id(), before.name(), json.writeValueAsString(rules)));
        return require(account, id);
    }

    void delete(Account account, UUID id) {
        if (mapper.delete(account.id(), id) == 0) {
            throw Problem.notFound("list of rules");
        }
    }

    /**
     * What one rule would do.
     *
     * @param gets   the parts that would get its material
     * @param have   how many more fit it and show it already
     * @param locked how many more fit it and are locked
     * @param missing how many would get it if its material were in a library that this project may use
     */
    record Outcome(List<Integer> gets, int have, int locked, int missing) {}

    /** What a list would do in the scheme in view, by rule; changes nothing. */
    List<Outcome> preview(Query query, UUID id) {
        Project project = projects.require(query.account(), query.project());
        return outcomes(query.account(), schemes.looks(project, query), require(query.account(), id));
    }

    private List<Outcome> outcomes(Account account, LookTable looks, RuleListWire list) {
        List<Boolean> usable = list.rules.stream()
                .map(r -> materials.isUsable(account.id(), looks.scene().projectId(), r.material))
                .toList();
        DressingRules rules =
                new DressingRules(list.rules.stream().map(RuleWire::rule).toList());
        List<List<Integer>> gets = new ArrayList<>();
        int[] have = new int[list.rules.size()];
        int[] locked = new int[list.rules.size()];
        int[] missing = new int[list.rules.size()];
        list.rules.forEach(r -> gets.add(new ArrayList<>()));
        Scene scene = looks.scene();
        Set<Integer> surroundings = scene.surroundings();
        for (Scene.Part p : scene.parts()) {
            if (surroundings.contains(p.model())) {
                continue;
            }
            rules.first(thing(looks, p)).ifPresent(i -> {
                if (wears(looks, p, list.rules.get(i).material)) {
                    have[i]++;
                } else if (!usable.get(i)) {
                    missing[i]++;
                } else if (p.locked()) {
                    locked[i]++;
                } else {
                    gets.get(i).add(p.index());
                }
            });
        }
        List<Outcome> out = new ArrayList<>();
        for (int i = 0; i < have.length; i++) {
            out.add(new Outcome(gets.get(i), have[i], locked[i], missing[i]));
        }
        return out;
    }

    private static Thing thing(LookTable looks, Scene.Part p) {
        List<String> sources = new ArrayList<>();
        for (int span = 0; span < p.sets().size(); span++) {
            UUID source = looks.scene().sets().get(p.sets().get(span)).source();
            if (source != null) {
                sources.add(looks.nameOf(source.toString()));
            }
        }
        List<Double> s = p.size();
        return new Thing(p.name(), p.role(), new Vec3(s.get(0), s.get(1), s.get(2)), sources);
    }

    /** Whether all of a part shows a material of a library, or an untouched copy of it. */
    private static boolean wears(LookTable looks, Scene.Part p, UUID material) {
        for (int span = 0; span < p.sets().size(); span++) {
            MaterialRow m = looks.shown(p.index(), span).material();
            if (m == null || !(m.id().equals(material) || material.equals(m.origin()))) {
                return false;
            }
        }
        return true;
    }

    /** Gives parts what a list says: whole matching sets at once where all of them get the same and would show it. */
    @Transactional
    ProjectState apply(Edit edit, UUID id) {
        RuleListWire list = require(edit.account(), id);
        return assigning.give(edit, list.name, () -> slots(edit, list));
    }

    private Map<Slot, UUID> slots(Edit edit, RuleListWire list) {
        LookTable looks = schemes.looks(projects.require(edit.account(), edit.project()), edit);
        Map<Integer, UUID> wanted = new TreeMap<>();
        List<Outcome> outcomes = outcomes(edit.account(), looks, list);
        for (int i = 0; i < outcomes.size(); i++) {
            UUID material = list.rules.get(i).material;
            outcomes.get(i).gets.forEach(p -> wanted.put(p, material));
        }
        Map<Slot, UUID> slots = new LinkedHashMap<>();
        Set<Integer> done = new HashSet<>();
        for (Scene.MatchingSet set : looks.scene().sets()) {
            UUID material = ofWholeSet(looks, set.index(), wanted);
            if (material != null) {
                slots.put(LookTable.slot(Level.SET, set.index()), material);
                looks.scene().parts().stream()
                        .filter(p -> p.sets().contains(set.index()))
                        .forEach(p -> done.add(p.index()));
            }
        }
        wanted.forEach((part, material) -> {
            if (!done.contains(part)) {
                slots.put(LookTable.slot(Level.PART, part), material);
            }
        });
        return slots;
    }

    private static @Nullable UUID ofWholeSet(LookTable looks, int set, Map<Integer, UUID> wanted) {
        UUID material = null;
        List<Scene.Part> parts = looks.scene().parts().stream()
                .filter(p -> p.sets().contains(set))
                .toList();
        for (Scene.Part p : parts) {
            UUID own = wanted.get(p.index());
            if (own == null || p.sets().size() > 1 || (material != null && !own.equals(material))) {
                return null;
            }
            material = own;
        }
        if (material == null) {
            return null;
        }
        BitSet shows = looks.wouldShow(LookTable.slot(Level.SET, set), material.toString(), Side.FRONT);
        return parts.stream().allMatch(p -> shows.get(looks.region(p.index(), 0))) ? material : null;
    }
}
