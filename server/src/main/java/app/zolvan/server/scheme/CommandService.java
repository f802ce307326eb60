package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.prepare.Undressed;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.library.MaterialWire;
import app.zolvan.server.library.PhysicalWire;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.light.LightService;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectRequest;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Seen;
import app.zolvan.server.scheme.ProjectState.CandidatesWire;
import app.zolvan.server.scheme.ProjectState.LookWire;
import app.zolvan.server.scheme.ProjectState.RegionWire;
import app.zolvan.server.scheme.ProjectState.SchemeWire;
import app.zolvan.server.scheme.ProjectState.UsedMaterial;
import app.zolvan.server.view.ViewMapper;
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
import java.util.stream.Collectors;
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
    /** So many of the newest changes are compared with what somebody asks for who has not seen them. */
    private static final int REMEMBERED = 1_000;

    /** So many entries are written in one statement. */
    private static final int AT_ONCE = 500;

    private final SchemeMapper mapper;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final SceneSource scenes;
    private final JsonMapper json;
    private final LockedParts locked;
    private final ViewMapper views;
    private final NoteMapper notes;
    private final LightService lights;

    CommandService(
            SchemeMapper mapper,
            SchemeService schemes,
            MaterialService materials,
            ProjectService projects,
            SceneSource scenes,
            JsonMapper json,
            LockedParts locked,
            ViewMapper views,
            NoteMapper notes,
            LightService lights) {
        this.lights = lights;
        this.notes = notes;
        this.locked = locked;
        this.views = views;
        this.mapper = mapper;
        this.schemes = schemes;
        this.materials = materials;
        this.projects = projects;
        this.scenes = scenes;
        this.json = json;
    }

    /**
     * The project's own material for a library one: an untouched copy it has already, or a new one.
     *
     * @param of what it is made of instead; null for what the library says
     */
    MaterialRow usableCopy(Account account, Project project, UUID material, @Nullable Facts of, List<Change> changes) {
        MaterialRow wanted = materials.requireUsable(account, project.id(), material);
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

    private PartState partState(Project project, int part) {
        return PartState.of(scenes.scene(project.id()).requireRegion(part, 0));
    }

    /** Changes a project's name, client or unit. */
    @Transactional
    public ProjectState changeDetails(Edit edit, String name, String client, LengthUnit unit) {
        Project project = begin(edit);
        Change.Details before = new Change.Details(project.name(), project.client(), project.unit());
        Change.Details after = new Change.Details(GivenName.require(name), client.strip(), unit);
        return commit(edit, project, "Project details", List.of(new Change.OfProject(before, after)));
    }

    /** Takes back the account's last command. Where others have built on it, asks first, unless forced. */
    @Transactional
    public ProjectState undo(Edit edit, boolean force) {
        Project project = begin(edit);
        SchemeMapper.CommandRow last = mapper.lastDone(
                        edit.project(), edit.account().id())
                .orElseThrow(() -> Problem.conflict("nothing", "There is nothing to undo.", null));
        requireSameModel(project, last);
        List<Change> inverses = takeBack(edit, project, last, force);
        mapper.setUndone(last.id(), true);
        return finish(edit, project, "Undo: " + last.label(), inverses);
    }

    /** Takes back what a command has done; the changes that does it. */
    List<Change> takeBack(Edit edit, Project project, SchemeMapper.CommandRow command, boolean force) {
        List<Change> inverses = new ArrayList<>();
        for (Change c : changes(command)) {
            inverses.add(0, c.inverse());
        }
        replay(edit, project, command, inverses, force);
        return inverses;
    }

    /** Does again what undo took back. */
    @Transactional
    public ProjectState redo(Edit edit, boolean force) {
        Project project = begin(edit);
        SchemeMapper.CommandRow next = mapper.firstUndone(
                        edit.project(), edit.account().id())
                .orElseThrow(() -> Problem.conflict("nothing", "There is nothing to do again.", null));
        requireSameModel(project, next);
        replay(edit, project, next, changes(next), force);
        mapper.setUndone(next.id(), false);
        return finish(edit, project, next.label(), changes(next));
    }

    private List<Change> changes(SchemeMapper.CommandRow command) {
        return Arrays.asList(json.readValue(command.changes(), Change[].class));
    }

    /** Numbers of parts mean something else once somebody has brought the model up to date. */
    private void requireSameModel(Project project, SchemeMapper.CommandRow command) {
        if (mapper.isModelReplacedSince(project.id(), command.accountId(), command.id())) {
            throw Problem.conflict(
                    "replaced",
                    "Somebody has brought the model up to date since “" + command.label()
                            + "”. Until they take that back, what was done before stays.",
                    null);
        }
    }

    private void replay(
            Edit edit, Project project, SchemeMapper.CommandRow command, List<Change> changes, boolean force) {
        requireSchemes(project, command, changes);
        Standing now = new Standing(project);
        if (!force && !changes.stream().allMatch(now::has)) {
            throw Problem.conflict(
                    "built-upon",
                    "Somebody has changed the same thing since “" + command.label()
                            + "”. Going back would undo their change too. Do it anyway?",
                    null);
        }
        apply(edit, project, changes);
    }

    /** Nothing can be put into a scheme that is gone. */
    private void requireSchemes(Project project, SchemeMapper.CommandRow command, List<Change> changes) {
        Set<UUID> there = new HashSet<>();
        schemes.schemes(project.id()).forEach(s -> there.add(s.id()));
        for (Change c : changes) {
            if (c instanceof Change.OfScheme s && s.after() != null) {
                there.add(s.id());
            } else if (c instanceof Change.OfEntry e && e.after() != null && !there.contains(e.scheme())) {
                throw Problem.conflict(
                        "scheme-gone",
                        "The scheme that “" + command.label()
                                + "” was done in has been deleted since. Bring it back first.",
                        null);
            }
        }
    }

    /** How things are now, each scheme's entries read once. */
    private final class Standing {
        private final Project project;
        private final Map<UUID, Map<List<Object>, SchemeMapper.EntryRow>> entries = new HashMap<>();

        Standing(Project project) {
            this.project = project;
        }

        /** Whether the thing still is as the change expects it. */
        boolean has(Change change) {
            if (!(change instanceof Change.OfEntry e)) {
                return stands(project, change);
            }
            SchemeMapper.EntryRow now =
                    entries.computeIfAbsent(e.scheme(), this::read).get(List.of(e.level(), e.target(), e.side()));
            return Objects.equals(now, e.before());
        }

        private Map<List<Object>, SchemeMapper.EntryRow> read(UUID scheme) {
            return mapper.entries(scheme).stream()
                    .collect(Collectors.toMap(e -> List.<Object>of(e.level(), e.target(), e.side()), e -> e));
        }
    }

    private boolean stands(Project project, Change change) {
        if (change instanceof Change.OfCandidate c) {
            Integer now = mapper.candidates(project.id()).stream()
                    .filter(k -> k.level().equals(c.level())
                            && k.target() == c.target()
                            && k.materialId().equals(c.material()))
                    .findFirst()
                    .map(SchemeMapper.CandidateRow::position)
                    .orElse(null);
            return Objects.equals(now, c.before());
        }
        if (change instanceof Change.OfScheme c) {
            return Objects.equals(mapper.scheme(c.id()).orElse(null), c.before());
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
        if (change instanceof Change.OfView v) {
            return Objects.equals(views.view(project.id(), v.id()).orElse(null), v.before());
        }
        if (change instanceof Change.OfLight l) {
            LightRow now = lights.setups(project.id()).stream()
                    .filter(s -> s.id().equals(l.id()))
                    .findFirst()
                    .orElse(null);
            return Objects.equals(now, l.before());
        }
        if (change instanceof Change.OfNote n) {
            return Objects.equals(notes.note(project.id(), n.id()).orElse(null), n.before());
        }
        if (change instanceof Change.OfFace f) {
            return scenes.scene(project.id()).ownFaces().get(f.face()).name().equals(f.before());
        }
        Change.OfProject p = (Change.OfProject) change;
        return p.before().equals(new Change.Details(project.name(), project.client(), project.unit()));
    }

    private void apply(Edit edit, Project project, List<Change> changes) {
        requireUnlocked(edit, project, changes);
        Map<UUID, Map<Integer, List<LockedParts.Worn>>> kept = locked.shown(project);
        Map<Integer, PartState> parts = new TreeMap<>();
        Map<List<Object>, SchemeMapper.EntryRow> entries = new LinkedHashMap<>();
        for (Change c : changes) {
            if (c instanceof Change.OfPart p) {
                parts.put(p.part(), partState(project, p.part()).changed(p.before(), p.after()));
            } else if (c instanceof Change.OfEntry e && e.after() != null) {
                entries.put(List.of(e.scheme(), e.level(), e.target(), e.side()), e.after());
                if (entries.size() == AT_ONCE) {
                    put(entries);
                }
            } else {
                put(entries);
                apply(project, c);
            }
        }
        put(entries);
        if (!parts.isEmpty()) {
            scenes.change(project.id(), parts);
        }
        locked.requireSame(project, kept);
    }

    private void put(Map<List<Object>, SchemeMapper.EntryRow> entries) {
        if (!entries.isEmpty()) {
            mapper.putEntries(List.copyOf(entries.values()));
            entries.clear();
        }
    }

    /** Nothing that a locked model shows is changed, and none of its parts. */
    private void requireUnlocked(Edit edit, Project project, List<Change> changes) {
        Scene scene = scenes.scene(project.id());
        if (scene.models().stream().noneMatch(Scene.PlacedModel::locked)) {
            return;
        }
        Set<Integer> parts = new HashSet<>();
        List<Change.OfEntry> entries = new ArrayList<>();
        Set<UUID> looks = new HashSet<>();
        for (Change c : changes) {
            if (c instanceof Change.OfPart p) {
                parts.add(p.part());
            } else if (c instanceof Change.OfEntry e && e.level().equals(Level.PART.name())) {
                parts.add(e.target());
            } else if (c instanceof Change.OfEntry e) {
                entries.add(e);
            } else if (c instanceof Change.OfMaterial m && m.isAnotherLook()) {
                looks.add(m.id());
            }
        }
        LookTable worn = schemes.looks(project, edit);
        for (Scene.Part p : scene.parts()) {
            boolean changed = parts.contains(p.index())
                    || entries.stream().anyMatch(e -> scene.covers(Level.valueOf(e.level()), e.target(), p))
                    || looks.stream().anyMatch(material -> worn.shows(p, material));
            if (changed) {
                scene.model(p.model()).requireUnlocked();
            }
        }
    }

    /** Applies changes to a project that was just made, which nobody has seen yet: no history, no locks. */
    void putOnNew(Project project, List<Change> changes) {
        for (Change c : changes) {
            if (c instanceof Change.OfEntry e) {
                mapper.putEntries(List.of(Objects.requireNonNull(e.after())));
            } else {
                apply(project, c);
            }
        }
    }

    private void apply(Project project, Change change) {
        if (change instanceof Change.OfEntry e) {
            mapper.deleteEntry(e.scheme(), e.level(), e.target(), e.side());
        } else if (change instanceof Change.OfScheme c) {
            if (c.after() == null) {
                mapper.deleteScheme(c.id());
            } else {
                mapper.putScheme(c.after());
            }
        } else if (change instanceof Change.OfCandidate c) {
            if (c.after() == null) {
                mapper.deleteCandidate(project.id(), c.level(), c.target(), c.material());
            } else {
                mapper.putCandidate(
                        new SchemeMapper.CandidateRow(project.id(), c.level(), c.target(), c.material(), c.after()));
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
        } else if (change instanceof Change.OfView v) {
            if (v.after() == null) {
                views.delete(project.id(), v.id());
            } else {
                views.put(v.after());
            }
        } else if (change instanceof Change.OfLight l) {
            if (l.after() == null) {
                lights.delete(project.id(), l.id());
            } else {
                lights.put(l.after());
            }
        } else if (change instanceof Change.OfNote n) {
            if (n.after() == null) {
                notes.delete(project.id(), n.id());
            } else {
                notes.put(n.after());
            }
        } else if (change instanceof Change.OfFace f) {
            scenes.nameOwnFace(project.id(), f.face(), f.after());
        } else if (change instanceof Change.OfProject p) {
            projects.write(
                    project.id(),
                    p.after().name(),
                    p.after().client(),
                    p.after().unit());
        }
    }

    /**
     * Locks the project for a command, to the end of the transaction.
     *
     * @throws DoneBefore where this very command has been done
     */
    Project begin(Edit edit) {
        Project project = projects.require(edit.account(), edit.project());
        projects.touch(project.id());
        if (edit.seen().key() != null
                && mapper.isDone(
                        edit.project(), edit.account().id(), edit.seen().key())) {
            throw new DoneBefore(edit);
        }
        return project.asSeen(edit.seen());
    }

    /**
     * Makes sure that nobody has touched the same things since whoever asks for changes has looked. Changes of other things
     * go together.
     */
    private void requireUntouched(Account account, Project project, List<Change> changes) {
        long now = projects.require(account, project.id()).version();
        List<SchemeMapper.TouchedRow> since = mapper.touchedSince(project.id(), project.version());
        if (since.size() != now - 1 - project.version()) {
            throw projects.stale(project.id());
        }
        Set<String> mine = Set.copyOf(Touched.by(changes));
        for (SchemeMapper.TouchedRow other : since) {
            List<String> theirs = Arrays.asList(other.things());
            if (theirs.contains("all") || mine.contains("all")) {
                throw projects.stale(project.id());
            }
            if (theirs.stream().anyMatch(mine::contains)) {
                throw Problem.conflict(
                        "met",
                        (other.accountId().equals(account.id()) ? "You have" : other.name() + " has")
                                + " just done “" + other.label()
                                + "”, which is about the same thing. Do yours as well, over it?",
                        null);
            }
        }
    }

    /** A command at the project's newest version, for work that began earlier; locks the project as {@link #begin} does. */
    Edit editOfJob(Account account, UUID projectId) {
        Project project = projects.require(account, projectId);
        return Edit.of(account, projectId, Seen.of(projects.touch(project.id()) - 1));
    }

    /** The project as a command that has locked it already sees it. */
    Project seenBy(Edit edit) {
        return projects.require(edit.account(), edit.project()).asSeen(edit.seen());
    }

    /** The same for what things are given: locked parts stay as they are. */
    ProjectState commitAround(Edit edit, Project project, String label, List<Change> changes) {
        return commit(edit, project, label, locked.pinned(project, changes));
    }

    ProjectState commit(Edit edit, Project project, String label, List<Change> changes) {
        requireUntouched(edit.account(), project, changes);
        apply(edit, project, changes);
        return record(edit, project, label, changes);
    }

    /** Keeps what has been done already as a command. */
    ProjectState record(Edit edit, Project project, String label, List<Change> changes) {
        mapper.forgetUndone(project.id(), edit.account().id());
        String stored = json.writerFor(json.getTypeFactory().constructCollectionType(List.class, Change.class))
                .writeValueAsString(changes);
        mapper.insertCommand(project.id(), edit.account().id(), label, stored);
        return finish(edit, project, label, changes);
    }

    private ProjectState finish(Edit edit, Project project, String label, List<Change> changes) {
        ProjectState state = state(edit);
        String[] things = Touched.by(changes).toArray(String[]::new);
        mapper.insertTouched(project.id(), state.version(), edit.account().id(), label, things, project.command());
        mapper.forgetTouched(project.id(), state.version() - REMEMBERED);
        projects.announce(project.id(), state.version());
        return state;
    }

    /** Everything about the project that changes, as it stands. */
    @Transactional
    public ProjectState state(ProjectRequest request) {
        UUID projectId = request.project();
        Account account = request.account();
        Project project = projects.require(account, projectId);
        SchemeMapper.SchemeRow scheme = schemes.currentOrFirst(request);
        List<SchemeEntries> all = schemes.allEntries(projectId);
        LookTable looks = schemes.looks(
                project,
                all.stream()
                        .filter(s -> s.row().id().equals(scheme.id()))
                        .findFirst()
                        .orElseThrow(),
                request.side());
        List<MaterialRow> own = materials.ofProject(projectId);
        Set<UUID> clear = own.stream()
                .filter(m -> m.toSurface().isSeenThrough())
                .map(MaterialRow::id)
                .collect(Collectors.toSet());
        List<SchemeWire> dividers = new ArrayList<>();
        Map<UUID, List<String>> elsewhere = new HashMap<>();
        for (SchemeEntries entries : all) {
            SchemeMapper.SchemeRow s = entries.row();
            dividers.add(wire(entries, entries.sign(schemes.areas(looks.scene()), clear)));
            if (!s.id().equals(scheme.id())) {
                entries.scheme().effective().values().stream()
                        .map(Entry::material)
                        .filter(Objects::nonNull)
                        .distinct()
                        .forEach(m -> elsewhere
                                .computeIfAbsent(UUID.fromString(m), k -> new ArrayList<>())
                                .add(s.letter()));
            }
        }
        List<RegionWire> regions = new ArrayList<>();
        for (Scene.Part part : looks.scene().parts()) {
            for (int span = 0; span < part.sets().size(); span++) {
                regions.add(new RegionWire(
                        part.index(), span, looks.lookIndex(part.index(), span), looks.backIndex(part.index(), span)));
            }
        }
        List<UsedMaterial> palette = new ArrayList<>();
        List<UsedMaterial> arrived = new ArrayList<>();
        Map<UUID, MaterialRow> known = materials.origins(projectId);
        Map<UUID, MaterialRow> originals = new LinkedHashMap<>();
        Map<UUID, Long> showing = looks.partsShowing();
        for (MaterialRow m : own) {
            MaterialRow origin = m.origin() == null ? null : known.get(m.origin());
            if (origin != null && origin.projectId() == null) {
                originals.put(origin.id(), origin);
            }
            (m.arrived() ? arrived : palette)
                    .add(new UsedMaterial(
                            MaterialWire.of(m, origin),
                            showing.getOrDefault(m.id(), 0L),
                            elsewhere.getOrDefault(m.id(), List.of())));
        }
        Set<UUID> pictured = views.pictured(projectId);
        return new ProjectState(
                projectId,
                project.version(),
                looks.scene().revision(),
                project.name(),
                project.client(),
                project.unit().symbol(),
                project.unit().metres(),
                project.unit().decimals(),
                scheme.id(),
                dividers,
                candidates(projectId, looks.scene()),
                notes.notes(projectId).stream()
                        .map(n -> ProjectState.NoteWire.of(n, looks.scene()))
                        .toList(),
                views.views(projectId).stream()
                        .map(v -> ProjectState.ViewWire.of(v, pictured.contains(v.id())))
                        .toList(),
                lights.setups(projectId).stream()
                        .map(ProjectState.LightWire::of)
                        .toList(),
                looks.looks().stream().map(CommandService::wire).toList(),
                regions,
                palette,
                arrived,
                originals.values().stream().map(m -> MaterialWire.of(m, null)).toList(),
                mapper.lastDone(projectId, account.id())
                        .map(SchemeMapper.CommandRow::label)
                        .orElse(null),
                mapper.firstUndone(projectId, account.id())
                        .map(SchemeMapper.CommandRow::label)
                        .orElse(null));
    }

    private List<CandidatesWire> candidates(UUID project, Scene scene) {
        Map<AssignCommands.Spot, List<UUID>> kept = new LinkedHashMap<>();
        mapper.candidates(project)
                .forEach(c -> kept.computeIfAbsent(
                                new AssignCommands.Spot(Level.valueOf(c.level()), c.target(), null),
                                k -> new ArrayList<>())
                        .add(c.materialId()));
        List<CandidatesWire> out = new ArrayList<>();
        kept.forEach((spot, of) -> out.add(
                new CandidatesWire(spot.level().word(), spot.target(), scene.told(spot.level(), spot.target()), of)));
        return out;
    }

    private static SchemeWire wire(SchemeEntries entries, @Nullable UUID sign) {
        SchemeMapper.SchemeRow s = entries.row();
        List<UUID> bases = new ArrayList<>();
        for (Scheme b = entries.scheme().base(); b != null; b = b.base()) {
            bases.add(UUID.fromString(b.id()));
        }
        return new SchemeWire(
                s.id(),
                s.letter(),
                s.name(),
                s.description(),
                s.state(),
                s.reason(),
                bases,
                entries.scheme().entries().size(),
                sign);
    }

    /** How a look lies, in a word. */
    static String mapping(Look look) {
        return look.mapping() instanceof Mapping.Box ? "metric" : "model";
    }

    static LookWire wire(LookTable.Shown shown) {
        Look look = shown.look();
        return new LookWire(
                shown.material() == null ? null : shown.material().id(),
                look.from() == null ? null : look.from().word(),
                mapping(look),
                shown.mapped(),
                Undressed.is(look),
                PhysicalWire.of(look.physical()));
    }
}
