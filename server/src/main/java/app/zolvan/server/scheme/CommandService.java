package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.prepare.Undressed;
import app.zolvan.server.account.Account;
import app.zolvan.server.event.EventService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.library.MaterialWire;
import app.zolvan.server.library.PhysicalWire;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.scheme.ProjectState.LookWire;
import app.zolvan.server.scheme.ProjectState.RegionWire;
import app.zolvan.server.scheme.ProjectState.UsedMaterial;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/**
 * What designers do to a project. Every command is a list of changes, each with the state before and after; it is applied
 * and stored in one transaction, so that undo works at any later time.
 */
@Service
public class CommandService {
    private static final String BOTH = "BOTH";

    private final SchemeMapper mapper;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final EventService events;
    private final SceneSource scenes;
    private final JsonMapper json;

    CommandService(
            SchemeMapper mapper,
            SchemeService schemes,
            MaterialService materials,
            ProjectService projects,
            EventService events,
            SceneSource scenes,
            JsonMapper json) {
        this.mapper = mapper;
        this.schemes = schemes;
        this.materials = materials;
        this.projects = projects;
        this.events = events;
        this.scenes = scenes;
        this.json = json;
    }

    /** Gives a material to sets or parts, or takes theirs away when {@code material} is null. */
    @Transactional
    public ProjectState assign(
            Account account, UUID projectId, long seen, Level level, List<Integer> targets, @Nullable UUID material) {
        return assign(account, projectId, seen, level, targets, material, false);
    }

    /**
     * The same.
     *
     * @param lookOnly whether each target stays made of what it is made of now
     */
    @Transactional
    ProjectState assign(
            Account account,
            UUID projectId,
            long seen,
            Level level,
            List<Integer> targets,
            @Nullable UUID material,
            boolean lookOnly) {
        Project project = begin(account, projectId, seen);
        LookTable looks = schemes.looks(project);
        List<Change> changes = new ArrayList<>();
        Map<Facts, MaterialRow> copies = new HashMap<>();
        String name = "";
        for (int target : targets) {
            requireTarget(looks.scene(), level, target);
            UUID given = null;
            if (material != null) {
                Facts kept = lookOnly ? substanceOf(looks, level, target) : Facts.NONE;
                MaterialRow row = copies.computeIfAbsent(
                        kept, f -> usableCopy(project, material, f.hasSubstance() ? f : null, changes));
                given = row.id();
                name = row.name();
            }
            changes.add(entryChange(project, level, target, given));
        }
        copies.values().forEach(row -> materials.noteUse(account.id(), row));
        String where = describe(looks.scene(), level, targets);
        String what = name + (lookOnly ? ", the look alone," : "") + " on " + where;
        return commit(account, project, material == null ? "Take off " + where : what, changes);
    }

    /**
     * Has another material shown wherever one is, in every scheme; where what arrived is shown, its sets get the other.
     * Mappings stay.
     */
    @Transactional
    public ProjectState replace(Account account, UUID projectId, long seen, UUID material, UUID by) {
        Project project = begin(account, projectId, seen);
        MaterialRow old = materials.requireUsable(projectId, material);
        List<Change> changes = new ArrayList<>();
        MaterialRow other = usableCopy(project, by, null, changes);
        if (other.id().equals(old.id())) {
            throw Problem.ofField("by", "“" + old.name() + "” is shown there already.");
        }
        int places = 0;
        Scene scene = scenes.scene(projectId);
        for (SchemeMapper.SchemeRow scheme : mapper.schemes(projectId)) {
            Set<Integer> dressed = new HashSet<>();
            for (SchemeMapper.EntryRow e : mapper.entries(scheme.id())) {
                if (e.level().equals(Level.SET.name())) {
                    dressed.add(e.target());
                }
                if (old.id().equals(e.materialId())) {
                    SchemeMapper.EntryRow after = new SchemeMapper.EntryRow(
                            scheme.id(), e.level(), e.target(), e.side(), other.id(), e.mapping(), e.onTop());
                    changes.add(new Change.OfEntry(scheme.id(), e.level(), e.target(), e.side(), e, after));
                    places++;
                }
            }
            for (Scene.MatchingSet set : scene.sets()) {
                if (old.id().equals(set.source()) && !dressed.contains(set.index())) {
                    SchemeMapper.EntryRow after = new SchemeMapper.EntryRow(
                            scheme.id(), Level.SET.name(), set.index(), BOTH, other.id(), null, false);
                    changes.add(new Change.OfEntry(scheme.id(), Level.SET.name(), set.index(), BOTH, null, after));
                    places++;
                }
            }
        }
        if (places == 0) {
            throw Problem.conflict("nothing", "“" + old.name() + "” is on nothing that could show another.", null);
        }
        materials.noteUse(account.id(), other);
        return commit(
                account,
                project,
                "Replace " + old.name() + " by " + other.name() + " in "
                        + (places == 1 ? "1 place" : places + " places"),
                changes);
    }

    /** What a set or part is made of now, by its name and numbers. */
    private static Facts substanceOf(LookTable looks, Level level, int target) {
        for (Scene.Part p : looks.scene().parts()) {
            boolean covered = level == Level.MODEL ? p.model() == target : p.index() == target;
            int span = level == Level.SET ? p.sets().indexOf(target) : covered ? 0 : -1;
            MaterialRow worn = span < 0 ? null : looks.shown(p.index(), span).material();
            if (worn != null && worn.known().hasSubstance()) {
                return Facts.NONE.madeOf(KeepCommands.nameOf(worn), worn.known());
            }
        }
        return Facts.NONE;
    }

    /**
     * Gives sets the materials that a table says.
     *
     * @param wanted library materials by set
     */
    @Transactional
    ProjectState dress(Account account, UUID projectId, long seen, String table, Map<Integer, UUID> wanted) {
        Project project = begin(account, projectId, seen);
        if (wanted.isEmpty()) {
            throw Problem.conflict("nothing", "No set without a look fits a row of “" + table + "”.", null);
        }
        List<Change> changes = new ArrayList<>();
        Map<UUID, UUID> copies = new HashMap<>();
        wanted.forEach((set, material) -> {
            UUID copy = copies.computeIfAbsent(
                    material, m -> usableCopy(project, m, null, changes).id());
            changes.add(entryChange(project, Level.SET, set, copy));
        });
        return commit(
                account,
                project,
                "Dress " + (wanted.size() == 1 ? "1 set" : wanted.size() + " sets") + " by " + table,
                changes);
    }

    /**
     * The project's own material for a library one: an untouched copy it has already, or a new one.
     *
     * @param of what it is made of instead; null for what the library says
     */
    MaterialRow usableCopy(Project project, UUID material, @Nullable Facts of, List<Change> changes) {
        MaterialRow wanted = materials.requireUsable(project.id(), material);
        Facts facts = of == null ? wanted.known() : wanted.known().madeOf(of.substance(), of);
        if (wanted.projectId() != null && !wanted.arrived() && facts.equals(wanted.known())) {
            return wanted;
        }
        List<MaterialRow> own = materials.ofProject(project.id());
        Surface surface = wanted.toSurface();
        for (MaterialRow m : own) {
            if (wanted.id().equals(m.origin())
                    && m.toSurface().equals(surface)
                    && m.known().equals(facts)) {
                return m;
            }
        }
        MaterialRow copy = MaterialService.copy(wanted, project.id(), wanted.name(), surface, own.size())
                .made(facts);
        changes.add(new Change.OfMaterial(copy.id(), null, copy));
        return copy;
    }

    private static void requireTarget(Scene scene, Level level, int target) {
        boolean there = switch (level) {
            case MODEL -> scene.models().stream().anyMatch(m -> m.index() == target);
            case SET -> target >= 0 && target < scene.sets().size();
            case PART -> target >= 0 && target < scene.parts().size();
            case GROUP, FACE -> false; // nothing is given to these yet
        };
        if (!there) {
            throw Problem.notFound(level.word());
        }
    }

    private static String describe(Scene scene, Level level, List<Integer> targets) {
        if (targets.size() > 1) {
            return targets.size() + " " + level.word() + "s";
        }
        int target = targets.get(0);
        return switch (level) {
            case SET -> "set “" + scene.sets().get(target).name() + "”";
            case PART -> scene.parts().get(target).name();
            default ->
                scene.models().size() == 1
                        ? "the whole model"
                        : "all of “" + scene.model(target).name() + "”";
        };
    }

    Change entryChange(Project project, Level level, int target, @Nullable UUID material) {
        UUID scheme = schemes.schemeId(project.id());
        SchemeMapper.EntryRow before =
                mapper.entry(scheme, level.name(), target, BOTH).orElse(null);
        SchemeMapper.EntryRow after = material == null
                ? null
                : new SchemeMapper.EntryRow(
                        scheme,
                        level.name(),
                        target,
                        BOTH,
                        material,
                        before == null ? null : before.mapping(),
                        before != null && before.onTop());
        return new Change.OfEntry(scheme, level.name(), target, BOTH, before, after);
    }

    /** What a part would show if it were given a material, before it is. */
    public LookWire trial(Account account, UUID projectId, int part, UUID material) {
        Project project = projects.require(account, projectId);
        Scene.Part target = schemes.looks(project).scene().requireRegion(part, 0);
        MaterialRow row = materials.requireUsable(projectId, material);
        Look look = Look.of(row.toMaterial(), null, target.ownThickness(), null);
        return wire(new LookTable.Shown(look, row));
    }

    private PartState partState(Project project, int part) {
        return PartState.of(scenes.scene(project.id()).requireRegion(part, 0));
    }

    /** Changes a project's name, client or unit. */
    @Transactional
    public ProjectState changeDetails(
            Account account, UUID projectId, long seen, String name, String client, LengthUnit unit) {
        Project project = begin(account, projectId, seen);
        Change.Details before = new Change.Details(project.name(), project.client(), project.unit());
        Change.Details after = new Change.Details(GivenName.require(name), client.strip(), unit);
        return commit(account, project, "Project details", List.of(new Change.OfProject(before, after)));
    }

    /** Takes back the account's last command. Where others have built on it, asks first, unless forced. */
    @Transactional
    public ProjectState undo(Account account, UUID projectId, long seen, boolean force) {
        Project project = begin(account, projectId, seen);
        SchemeMapper.CommandRow last = mapper.lastDone(projectId, account.id())
                .orElseThrow(() -> Problem.conflict("nothing", "There is nothing to undo.", null));
        List<Change> inverses = new ArrayList<>();
        for (Change c : changes(last)) {
            inverses.add(0, c.inverse());
        }
        replay(project, last, inverses, force);
        mapper.setUndone(last.id(), true);
        return finish(account, projectId);
    }

    /** Does again what undo took back. */
    @Transactional
    public ProjectState redo(Account account, UUID projectId, long seen, boolean force) {
        Project project = begin(account, projectId, seen);
        SchemeMapper.CommandRow next = mapper.firstUndone(projectId, account.id())
                .orElseThrow(() -> Problem.conflict("nothing", "There is nothing to do again.", null));
        replay(project, next, changes(next), force);
        mapper.setUndone(next.id(), false);
        return finish(account, projectId);
    }

    private List<Change> changes(SchemeMapper.CommandRow command) {
        return Arrays.asList(json.readValue(command.changes(), Change[].class));
    }

    private void replay(Project project, SchemeMapper.CommandRow command, List<Change> changes, boolean force) {
        if (mapper.isModelReplacedSince(project.id(), command.accountId(), command.id())) {
            throw Problem.conflict(
                    "replaced",
                    "Somebody has brought the model up to date since “" + command.label()
                            + "”. Until they take that back, what was done before stays.",
                    null);
        }
        if (!force && !changes.stream().allMatch(c -> stands(project, c))) {
            throw Problem.conflict(
                    "built-upon",
                    "Somebody has changed the same thing since “" + command.label()
                            + "”. Going back would undo their change too. Do it anyway?",
                    null);
        }
        apply(project, changes);
    }

    /** Whether the thing still is as the change expects it. */
    private boolean stands(Project project, Change change) {
        if (change instanceof Change.OfEntry e) {
            SchemeMapper.EntryRow now =
                    mapper.entry(e.scheme(), e.level(), e.target(), e.side()).orElse(null);
            return Objects.equals(now, e.before());
        }
        if (change instanceof Change.OfMaterial m) {
            MaterialRow now = materials.find(m.id());
            if (now == null || m.before() != null) {
                return now == null ? m.before() == null : now.isSame(m.before());
            }
            return now.isSame(m.after()); // made once, still shown by something when its making was undone
        }
        if (change instanceof Change.OfPart p) {
            return partState(project, p.part()).stands(p.before(), p.after());
        }
        if (change instanceof Change.OfPlaced m) {
            Scene scene = scenes.scene(project.id());
            return scene.models().stream()
                    .anyMatch(p -> p.index() == m.model() && p.state().equals(m.before()));
        }
        if (change instanceof Change.OfImage i) {
            return scenes.isImageShown(project.id(), i.sha256()) == i.before();
        }
        if (change instanceof Change.OfModel m) {
            return scenes.isKept(project.id(), m.before());
        }
        if (change instanceof Change.OfSet n) {
            return scenes.scene(project.id()).sets().get(n.set()).name().equals(n.before());
        }
        Change.OfProject p = (Change.OfProject) change;
        return p.before().equals(new Change.Details(project.name(), project.client(), project.unit()));
    }

    private void apply(Project project, List<Change> changes) {
        requireUnlocked(project, changes);
        Map<Integer, PartState> parts = new TreeMap<>();
        for (Change c : changes) {
            if (c instanceof Change.OfPart p) {
                parts.put(p.part(), partState(project, p.part()).changed(p.before(), p.after()));
            } else {
                apply(project, c);
            }
        }
        if (!parts.isEmpty()) {
            scenes.change(project.id(), parts);
        }
    }

    /** Nothing that a locked model shows is changed, and none of its parts. */
    private void requireUnlocked(Project project, List<Change> changes) {
        Scene scene = scenes.scene(project.id());
        if (scene.models().stream().noneMatch(Scene.PlacedModel::locked)) {
            return;
        }
        Set<Integer> parts = new HashSet<>();
        Set<Integer> sets = new HashSet<>();
        Set<UUID> looks = new HashSet<>();
        for (Change c : changes) {
            if (c instanceof Change.OfPart p) {
                parts.add(p.part());
            } else if (c instanceof Change.OfEntry e) {
                (e.level().equals(Level.PART.name()) ? parts : sets).add(e.target());
            } else if (c instanceof Change.OfMaterial m && m.isAnotherLook()) {
                looks.add(m.id());
            }
        }
        LookTable worn = schemes.looks(project);
        for (Scene.Part p : scene.parts()) {
            boolean changed = parts.contains(p.index()) || p.sets().stream().anyMatch(sets::contains);
            for (int span = 0; span < p.sets().size() && !changed; span++) {
                MaterialRow material = worn.shown(p.index(), span).material();
                changed = material != null && looks.contains(material.id());
            }
            if (changed) {
                scene.model(p.model()).requireUnlocked();
            }
        }
    }

    private void apply(Project project, Change change) {
        if (change instanceof Change.OfEntry e) {
            if (e.after() == null) {
                mapper.deleteEntry(e.scheme(), e.level(), e.target(), e.side());
            } else {
                mapper.putEntry(e.after());
            }
        } else if (change instanceof Change.OfMaterial m) {
            materials.write(m.id(), m.after());
        } else if (change instanceof Change.OfPlaced m) {
            scenes.place(project.id(), m.model(), m.after());
        } else if (change instanceof Change.OfImage i) {
            scenes.showImage(project.id(), i.sha256(), i.after());
        } else if (change instanceof Change.OfModel m) {
            scenes.restore(project.id(), m.after());
        } else if (change instanceof Change.OfSet n) {
            scenes.nameSet(project.id(), n.set(), n.after());
        } else if (change instanceof Change.OfProject p) {
            projects.write(
                    project.id(),
                    p.after().name(),
                    p.after().client(),
                    p.after().unit());
        }
    }

    Project begin(Account account, UUID projectId, long seen) {
        Project project = projects.require(account, projectId);
        projects.touch(project, seen);
        return project;
    }

    /** The same for work that began earlier and goes on whatever has changed meanwhile. */
    Project beginAnyway(Account account, UUID projectId) {
        Project project = projects.require(account, projectId);
        projects.touch(project.id());
        return project;
    }

    ProjectState commit(Account account, Project project, String label, List<Change> changes) {
        apply(project, changes);
        mapper.forgetUndone(project.id(), account.id());
        String stored = json.writerFor(json.getTypeFactory().constructCollectionType(List.class, Change.class))
                .writeValueAsString(changes);
        mapper.insertCommand(project.id(), account.id(), label, stored);
        return finish(account, project.id());
    }

    private ProjectState finish(Account account, UUID projectId) {
        ProjectState state = state(account, projectId);
        events.announce(account.id(), "project", Map.of("id", projectId, "version", state.version()));
        return state;
    }

    /** Everything about the project that changes, as it stands. */
    @Transactional
    public ProjectState state(Account account, UUID projectId) {
        Project project = projects.require(account, projectId);
        LookTable looks = schemes.looks(project);
        List<RegionWire> regions = new ArrayList<>();
        for (Scene.Part part : looks.scene().parts()) {
            for (int span = 0; span < part.sets().size(); span++) {
                regions.add(new RegionWire(part.index(), span, looks.lookIndex(part.index(), span)));
            }
        }
        List<UsedMaterial> palette = new ArrayList<>();
        List<UsedMaterial> arrived = new ArrayList<>();
        Map<UUID, MaterialRow> originals = new LinkedHashMap<>();
        for (MaterialRow m : materials.ofProject(projectId)) {
            MaterialRow origin = m.origin() == null ? null : originals.computeIfAbsent(m.origin(), materials::find);
            (m.arrived() ? arrived : palette)
                    .add(new UsedMaterial(MaterialWire.of(m, origin), looks.partsShowing(m.id())));
        }
        return new ProjectState(
                projectId,
                project.version(),
                looks.scene().revision(),
                project.name(),
                project.client(),
                project.unit().symbol(),
                project.unit().metres(),
                project.unit().decimals(),
                looks.looks().stream().map(CommandService::wire).toList(),
                regions,
                palette,
                arrived,
                originals.values().stream()
                        .filter(m -> m != null && m.projectId() == null)
                        .map(m -> MaterialWire.of(m, null))
                        .toList(),
                mapper.lastDone(projectId, account.id())
                        .map(SchemeMapper.CommandRow::label)
                        .orElse(null),
                mapper.firstUndone(projectId, account.id())
                        .map(SchemeMapper.CommandRow::label)
                        .orElse(null));
    }

    static LookWire wire(LookTable.Shown shown) {
        Look look = shown.look();
        return new LookWire(
                shown.material() == null ? null : shown.material().id(),
                look.from() == null ? null : look.from().word(),
                look.mapping() instanceof Mapping.Box ? "metric" : "model",
                Undressed.is(look),
                PhysicalWire.of(look.physical()));
    }

    /** The levels that hold something for a region, broad to narrow, and which wins. */
    public List<Stratum> strata(Account account, UUID projectId, int part, int span) {
        Project project = projects.require(account, projectId);
        LookTable looks = schemes.looks(project);
        Scene scene = looks.scene();
        scene.requireRegion(part, span);
        LookTrace trace = looks.trace(part, span, Aspect.MATERIAL);
        List<Stratum> strata = new ArrayList<>();
        for (int i = 0; i < trace.steps().size(); i++) {
            LookTrace.Step step = trace.steps().get(i);
            Level level = step.target().level();
            int index = Integer.parseInt(step.target().id());
            if (level == Level.GROUP || level == Level.FACE) {
                continue; // nothing is given to these yet
            }
            strata.add(new Stratum(
                    level.word(),
                    index,
                    covered(scene, level, index),
                    step.entry() == null ? null : UUID.fromString(step.entry().material()),
                    step.outcome() == LookTrace.Outcome.WINS,
                    step.entry() != null && step.entry().onTop(),
                    trace.why(i)));
        }
        return strata;
    }

    private static int covered(Scene scene, Level level, int index) {
        return switch (level) {
            case MODEL -> scene.model(index).parts();
            case SET -> scene.sets().get(index).parts();
            default -> 1;
        };
    }

    /** Has what a level shows win over everything narrower, or no longer. */
    @Transactional
    public ProjectState putOnTop(Account account, UUID projectId, long seen, Level level, int target, boolean onTop) {
        Project project = begin(account, projectId, seen);
        Scene scene = scenes.scene(projectId);
        requireTarget(scene, level, target);
        UUID scheme = schemes.schemeId(projectId);
        SchemeMapper.EntryRow before =
                mapper.entry(scheme, level.name(), target, BOTH).orElseThrow(() -> Problem.notFound("look"));
        SchemeMapper.EntryRow after = new SchemeMapper.EntryRow(
                scheme, level.name(), target, BOTH, before.materialId(), before.mapping(), onTop);
        return commit(
                account,
                project,
                (onTop ? "On top: " : "No longer on top: ") + describe(scene, level, List.of(target)),
                List.of(new Change.OfEntry(scheme, level.name(), target, BOTH, before, after)));
    }

    /**
     * One level's say about a region.
     *
     * @param target index of the model, set or part
     * @param parts  how many parts it covers
     * @param onTop  whether it wins over everything narrower
     * @param why    whether and why it shows, in words; empty where it has nothing
     */
    public record Stratum(
            String level, int target, int parts, @Nullable UUID material, boolean wins, boolean onTop, String why) {}
}
