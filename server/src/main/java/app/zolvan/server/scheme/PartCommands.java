package app.zolvan.server.scheme;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.EasedEdges;
import app.zolvan.core.prepare.Names;
import app.zolvan.core.prepare.Repair;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.prepare.Splitting;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.ModelSurvey;
import app.zolvan.server.model.PartShapes;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PartState.Spans;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.UUID;
import java.util.function.Function;
import java.util.function.IntUnaryOperator;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What designers do to the parts of a model, and to the matching sets they are in. Applied as {@link CommandService} does. */
@Service
public class PartCommands {
    private final CommandService commands;
    private final ProjectService projects;
    private final ModelStore models;
    private final ModelSurvey survey;
    private final PartShapes shapes;

    PartCommands(
            CommandService commands,
            ProjectService projects,
            ModelStore models,
            ModelSurvey survey,
            PartShapes shapes) {
        this.commands = commands;
        this.projects = projects;
        this.models = models;
        this.survey = survey;
        this.shapes = shapes;
    }

    /** What parts are called, in the order asked for. */
    public List<String> names(Account account, UUID projectId, List<Integer> parts) {
        projects.require(account, projectId);
        Scene scene = models.scene(projectId);
        return parts.stream().map(p -> require(scene, p).name()).toList();
    }

    private static Scene.Part require(Scene scene, int part) {
        return scene.requireRegion(part, 0);
    }

    /**
     * Gives parts other names.
     *
     * @param names by the part's index
     */
    @Transactional
    public ProjectState rename(Edit edit, Map<Integer, String> names) {
        return changeEach(
                edit, "Rename ", names.keySet(), p -> PartState.of(p).named(GivenName.require(names.get(p.index()))));
    }

    /** Says what parts are in the design; null for nothing in particular. */
    @Transactional
    public ProjectState giveRoles(Edit edit, Map<Integer, Role> roles) {
        return changeEach(edit, "Role of ", roles.keySet(), p -> PartState.of(p).as(roles.get(p.index())));
    }

    /** Has parts keep what they show whatever is given around them, or no longer. */
    @Transactional
    public ProjectState lock(Edit edit, Collection<Integer> parts, boolean on) {
        String did = on ? "Lock " : "Unlock ";
        return changeEach(edit, did, parts, p -> PartState.of(p).locked(on));
    }

    /** Has parts be looked through from outside, or be solid from anywhere. */
    @Transactional
    public ProjectState lookInto(Edit edit, Collection<Integer> parts, boolean on) {
        String did = on ? "Look through " : "Close ";
        return changeEach(edit, did, parts, p -> PartState.of(p).lookedInto(on));
    }

    /** Turns the triangles of parts. */
    @Transactional
    public ProjectState turn(Edit edit, Collection<Integer> parts, PartShapes.Turn how) {
        String did = how == PartShapes.Turn.FLIP ? "Flip " : "Turn outward ";
        return changeEach(edit, did, parts, p -> shapes.turned(edit.project(), p, how));
    }

    /** Puts parts into sets of their own, one for each set that they leave. Sets that would lose everything stay. */
    @Transactional
    public ProjectState takeOut(Edit edit, Collection<Integer> parts) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Set<Integer> leaving = new TreeSet<>(parts);
        leaving.forEach(p -> require(scene, p));
        Set<Integer> staying = new HashSet<>();
        scene.parts().stream().filter(p -> !leaving.contains(p.index())).forEach(p -> staying.addAll(p.sets()));
        Map<Integer, Integer> own = new HashMap<>();
        IntUnaryOperator to = s -> staying.contains(s)
                ? own.computeIfAbsent(s, old -> addSet(project, scene.sets().get(old), ""))
                : s;
        Map<Integer, PartState> changed = moved(scene, leaving, to);
        return commit(edit, project, scene, "Take ", changed, " out of " + (own.size() > 1 ? "their sets" : "the set"));
    }

    /** Puts parts back into the sets that they came from. */
    @Transactional
    public ProjectState putBack(Edit edit, Collection<Integer> parts) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Map<Integer, PartState> changed = new TreeMap<>();
        for (int p : parts) {
            PartState before = PartState.of(require(scene, p));
            Scene.Part part = scene.parts().get(p);
            changed.put(p, before.in(new Spans(part.homes(), part.homes(), part.ownFaces())));
        }
        return commit(edit, project, scene, "Put ", changed, " back");
    }

    /** Puts everything that is in some sets into one of them: the first whose name says something, else the first. */
    @Transactional
    public ProjectState merge(Edit edit, List<Integer> sets) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        int into = sets.stream()
                .filter(s -> !Names.saysNothing(requireSet(scene, s).name()))
                .findFirst()
                .orElse(sets.get(0));
        sets.forEach(s -> requireSet(scene, s));
        Set<Integer> all = new TreeSet<>();
        scene.parts().forEach(p -> all.add(p.index()));
        Map<Integer, PartState> changed = moved(scene, all, s -> sets.contains(s) ? into : s);
        return commit(
                edit,
                project,
                scene,
                "Merge ",
                changed,
                " into " + scene.sets().get(into).name());
    }

    /** How a set could be split; see {@link Splitting}. */
    public Splitting splitting(Account account, UUID projectId, int set, Splitting.By by) {
        projects.require(account, projectId);
        requireSet(models.scene(projectId), set);
        Splitting splitting = survey.splitting(projectId, set, by);
        if (splitting.kinds().size() > Splitting.MOST) {
            throw Problem.conflict(
                    "too-many",
                    "That would make more than " + Splitting.MOST + " sets. Take out by hand what is to be apart.",
                    null);
        }
        return splitting;
    }

    /** Makes a set of its own of each kind of surface in a set but the largest, which stays. */
    @Transactional
    public ProjectState split(Edit edit, int set, Splitting.By by) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Splitting splitting = splitting(edit.account(), edit.project(), set, by);
        Scene.MatchingSet old = scene.sets().get(set);
        List<Integer> sets = new ArrayList<>(List.of(set));
        for (Splitting.Kind k : splitting.kinds().stream().skip(1).toList()) {
            sets.add(addSet(project, old, k.name()));
        }
        Map<Integer, PartState> changed = new TreeMap<>();
        for (Scene.Part p : scene.parts()) {
            if (p.sets().contains(set)) {
                changed.put(
                        p.index(),
                        shapes.split(
                                edit.project(),
                                p,
                                splitting,
                                (span, kind) -> new PartShapes.Piece(
                                        p.sets().get(span) == set
                                                ? sets.get(kind)
                                                : p.sets().get(span),
                                        p.ownFaces().get(span))));
            }
        }
        return commit(edit, project, scene, changed, "Split " + old.name() + " in " + sets.size());
    }

    /** Turns some faces of a part over. */
    @Transactional
    public ProjectState flipFaces(Edit edit, int part, Set<Integer> faces) {
        String did = "Flip " + countedFaces(faces) + " of ";
        return changeEach(edit, did, List.of(part), p -> shapes.flipped(edit.project(), p, faces));
    }

    private static String countedFaces(Set<Integer> faces) {
        return faces.size() == 1 ? "1 face" : faces.size() + " faces";
    }

    /** Puts some faces of a part into sets of their own, one for each set that they leave. */
    @Transactional
    public ProjectState splitFaces(Edit edit, int part, Set<Integer> faces) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Scene.Part p = require(scene, part);
        Splitting splitting = Splitting.ofFaces(models.model(edit.project()), part, faces);
        Map<Integer, Integer> split = new HashMap<>();
        PartState state = shapes.split(edit.project(), p, splitting, (span, kind) -> {
            int set = p.sets().get(span);
            int to = kind == 0
                    ? set
                    : split.computeIfAbsent(
                            set, s -> addSet(project, scene.sets().get(s), ""));
            return new PartShapes.Piece(to, p.ownFaces().get(span));
        });
        Map<Integer, PartState> changed = Map.of(part, state);
        return commit(edit, project, scene, changed, "Split " + countedFaces(faces) + " off " + p.name());
    }

    /** What a repair would do; changes nothing. */
    public RepairPreview repairing(
            Account account, UUID projectId, Collection<Integer> parts, Repair repair, double amount) {
        projects.require(account, projectId);
        requireAmount(repair.requireAmount(amount), "amount");
        Scene scene = models.scene(projectId);
        Map<String, Repair.Extent> known = new HashMap<>(); // a mesh has one size, however many parts show it
        List<Repair.Extent> extents = parts.stream()
                .map(p -> require(scene, p))
                .map(p -> known.computeIfAbsent(
                        p.plain(),
                        k -> shapes.repairing(p, repair, amount)
                                .map(Repair.Outcome::extent)
                                .orElse(Repair.Extent.NONE)))
                .toList();
        return new RepairPreview(repair.sentence(extents), extents.stream().anyMatch(e -> e.count() > 0));
    }

    private static void requireAmount(Optional<String> refusal, String field) {
        refusal.ifPresent(sentence -> {
            throw Problem.ofField(field, sentence);
        });
    }

    /**
     * @param sentence what would be done
     * @param changes  whether that is anything
     */
    public record RepairPreview(String sentence, boolean changes) {}

    private Map<Integer, PartShapes.Repaired> repaired(
            UUID project, Scene scene, Collection<Integer> parts, Repair repair, double amount) {
        requireAmount(repair.requireAmount(amount), "amount");
        Map<Integer, PartShapes.Repaired> out = new TreeMap<>();
        Map<String, PartShapes.Repaired> known = new HashMap<>(); // a mesh has one size, however many parts show it
        for (int p : parts) {
            Scene.Part part = require(scene, p);
            PartShapes.Repaired like =
                    known.computeIfAbsent(part.mesh(), k -> shapes.repaired(project, part, repair, amount));
            out.put(
                    p,
                    new PartShapes.Repaired(
                            PartState.of(part).shaped(like.state().shape()), like.extent()));
        }
        return out;
    }

    /** What easing edges would do; changes nothing. */
    public RepairPreview easing(Account account, UUID projectId, Collection<Integer> parts, double width) {
        projects.require(account, projectId);
        requireAmount(EasedEdges.requireWidth(width), "width");
        if (width == 0) {
            return new RepairPreview(EasedEdges.sharpened(parts.size()), true);
        }
        Scene scene = models.scene(projectId);
        Map<String, Optional<EasedEdges.Outcome>> known = new HashMap<>(); // a mesh has one size, however many show it
        int eased = 0;
        int less = 0;
        for (int index : parts) {
            Scene.Part p = require(scene, index);
            EasedEdges.Outcome o = known.computeIfAbsent(p.plain(), k -> shapes.easing(p, width))
                    .orElse(null);
            eased += o != null ? 1 : 0;
            less += o != null && o.isLess() ? 1 : 0;
        }
        return new RepairPreview(EasedEdges.sentence(eased, less), eased > 0);
    }

    /**
     * Lets the sharp outer edges of parts catch light as if they were eased; shapes and measures stay.
     *
     * @param width of what is eased on either side of an edge, in metres; 0 for none
     */
    @Transactional
    public ProjectState ease(Edit edit, Collection<Integer> parts, double width) {
        requireAmount(EasedEdges.requireWidth(width), "width");
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Map<Integer, PartState> changed = new TreeMap<>();
        Map<String, PartState.Shape> known = new HashMap<>(); // a mesh has one size, however many parts show it
        for (int index : parts) {
            Scene.Part p = require(scene, index);
            PartState.Shape eased = known.computeIfAbsent(p.plain(), k -> shapes.eased(edit.project(), p, width));
            if (width == 0 || eased.plainMesh() != null) {
                changed.put(index, PartState.of(p).shaped(eased));
            }
        }
        return commit(edit, project, scene, width == 0 ? "Sharpen edges of " : "Ease edges of ", changed, "");
    }

    /** Mends the meshes of parts, all or none. */
    @Transactional
    public ProjectState repair(Edit edit, Collection<Integer> parts, Repair repair, double amount) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Map<Integer, PartShapes.Repaired> repaired = repaired(edit.project(), scene, parts, repair, amount);
        Map<Integer, PartState> changed = new TreeMap<>();
        repaired.forEach((p, r) -> changed.put(p, r.state()));
        String did = repair.sentence(
                repaired.values().stream().map(PartShapes.Repaired::extent).toList());
        return commit(edit, project, scene, changed, did);
    }

    /**
     * Moves parts and turns them about the middle of them all.
     *
     * @param way     in metres along the world's axes
     * @param axis    0 for x, 1 for y, 2 for z
     * @param degrees anticlockwise as seen from where the axis points
     */
    @Transactional
    public ProjectState move(Edit edit, Collection<Integer> parts, Vec3 way, int axis, double degrees) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        parts.forEach(p -> require(scene, p));
        Model model = models.model(edit.project());
        Box3 box = Box3.EMPTY;
        for (int p : parts) {
            box = box.with(model.boundsOf(model.parts().get(p)));
        }
        Vec3 middle = box.min().plus(box.max()).times(0.5);
        Transform motion = Transform.translation(middle.x() + way.x(), middle.y() + way.y(), middle.z() + way.z())
                .after(Transform.rotation(Vec3.axis(axis), Math.toRadians(degrees)))
                .after(Transform.translation(-middle.x(), -middle.y(), -middle.z()));
        Map<Integer, PartState> changed = new TreeMap<>();
        for (int p : parts) {
            Model.Part part = model.parts().get(p);
            Transform group = model.groupToWorld(part.group());
            Transform local = group.inverse().after(motion).after(group).after(part.local());
            List<Double> place = Arrays.stream(local.columns()).boxed().toList();
            changed.put(p, PartState.of(scene.parts().get(p)).at(place));
        }
        return commit(edit, project, scene, "Move ", changed, "");
    }

    /** Gives a matching set another name. */
    @Transactional
    public ProjectState renameSet(Edit edit, int set, String name) {
        Project project = commands.begin(edit);
        Scene.MatchingSet old = requireSet(models.scene(edit.project()), set);
        String wanted = GivenName.require(name);
        return commands.commit(
                edit, project, "Rename set " + old.name(), List.of(new Change.OfSet(set, old.name(), wanted)));
    }

    private static Scene.MatchingSet requireSet(Scene scene, int set) {
        if (set < 0 || set >= scene.sets().size() || scene.sets().get(set).parts() == 0) {
            throw Problem.notFound("set");
        }
        return scene.sets().get(set);
    }

    /** A set with the same source, called after the old one with a word or a number that no other has. */
    private int addSet(Project project, Scene.MatchingSet old, String word) {
        List<String> taken = models.scene(project.id()).sets().stream()
                .map(Scene.MatchingSet::name)
                .toList();
        String name = old.name() + (word.isEmpty() ? " 2" : ", " + word);
        for (int n = 2; taken.contains(name); n++) {
            name = old.name() + (word.isEmpty() ? " " : ", " + word + " ") + n;
        }
        return models.addSet(project.id(), name, old.source());
    }

    private static Map<Integer, PartState> moved(Scene scene, Set<Integer> parts, IntUnaryOperator to) {
        Map<Integer, PartState> changed = new TreeMap<>();
        for (int p : parts) {
            Scene.Part part = scene.parts().get(p);
            List<Integer> sets = part.sets().stream().map(to::applyAsInt).toList();
            changed.put(p, PartState.of(part).in(new Spans(sets, part.homes(), part.ownFaces())));
        }
        return changed;
    }

    private ProjectState changeEach(
            Edit edit, String did, Collection<Integer> parts, Function<Scene.Part, PartState> to) {
        Project project = commands.begin(edit);
        Scene scene = models.scene(edit.project());
        Map<Integer, PartState> changed = new TreeMap<>();
        for (int part : parts) {
            changed.put(part, to.apply(require(scene, part)));
        }
        return commit(edit, project, scene, did, changed, "");
    }

    private ProjectState commit(
            Edit edit, Project project, Scene scene, String before, Map<Integer, PartState> to, String after) {
        List<Integer> others = to.entrySet().stream()
                .filter(e -> !e.getValue().equals(PartState.of(scene.parts().get(e.getKey()))))
                .map(Map.Entry::getKey)
                .toList();
        String what = others.size() == 1 ? scene.parts().get(others.get(0)).name() : others.size() + " parts";
        return commit(edit, project, scene, to, before + what + after);
    }

    /** A command on parts; none where nothing changes. */
    private ProjectState commit(Edit edit, Project project, Scene scene, Map<Integer, PartState> to, String label) {
        List<Change> changes = new ArrayList<>();
        to.forEach((part, after) -> {
            PartState before = PartState.of(scene.parts().get(part));
            if (!after.equals(before)) {
                changes.add(new Change.OfPart(part, before, after));
            }
        });
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "These parts are like that already; nothing was changed.", null);
        }
        return commands.commit(edit, project, label, changes);
    }
}
