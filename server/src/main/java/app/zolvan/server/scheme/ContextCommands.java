package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.context.Placement;
import app.zolvan.core.context.Repeating;
import app.zolvan.core.context.Resting;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Preparation;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.PartShapes;
import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PlacedModels;
import app.zolvan.server.model.PlacedState;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.OptionalDouble;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What designers do to the models of a project besides the one that it was made of. Each is a command with a way back. */
@Service
public class ContextCommands {
    /** Less than this is no way to fall, in metres. */
    private static final double STILL = 1e-9;

    private final CommandService commands;
    private final EntryMoves moves;
    private final SchemeMapper schemes;
    private final ModelStore models;
    private final PlacedModels placing;
    private final PartShapes shapes;
    private final AccountService accounts;

    ContextCommands(
            CommandService commands,
            EntryMoves moves,
            SchemeMapper schemes,
            ModelStore models,
            PlacedModels placing,
            PartShapes shapes,
            AccountService accounts) {
        this.commands = commands;
        this.moves = moves;
        this.schemes = schemes;
        this.models = models;
        this.placing = placing;
        this.shapes = shapes;
        this.accounts = accounts;
    }

    /** Adds what a job has read; done a second time, nothing is there twice. */
    @Transactional
    public void add(UUID account, UUID projectId, PlacedModels.Addition addition) {
        Account owner = accounts.require(account);
        Edit edit = commands.editOfJob(owner, projectId);
        if (addition.job() == null || !placing.isThere(projectId, addition.job())) {
            add(edit, commands.seenBy(edit), addition);
        }
    }

    private ProjectState add(Edit edit, Project project, PlacedModels.Addition addition) {
        String before = models.keep(project.id());
        PlacedModels.Added added = placing.add(project.id(), addition);
        List<Change> changes = new ArrayList<>();
        added.materials().forEach(m -> changes.add(new Change.OfMaterial(m.id(), null, m)));
        changes.add(new Change.OfModel(before, added.kept()));
        return commands.commit(edit, project, "Add " + addition.name(), changes);
    }

    @Transactional
    public ProjectState addForm(Edit edit, HelperForm form) {
        Project project = commands.begin(edit);
        Box3 design = models.scene(edit.project()).box();
        return add(
                edit,
                project,
                new PlacedModels.Addition(
                        form.word(),
                        "",
                        Belonging.SURROUNDINGS,
                        form,
                        Preparation.of(form.model(design), s -> {}),
                        form.place(design),
                        null,
                        null));
    }

    /** Gives a model another name, or has it belong elsewhere, hides or locks it. */
    @Transactional
    public ProjectState change(Edit edit, int index, String name, Belonging belonging, boolean hidden, boolean locked) {
        Project project = commands.begin(edit);
        Scene.PlacedModel model = models.scene(edit.project()).model(index);
        if (model.form() != null && belonging == Belonging.DESIGN) {
            throw Problem.ofField("belonging", "Helper forms are no part of the design.");
        }
        if (index == 0 && belonging != Belonging.DESIGN) {
            throw Problem.ofField("belonging", "The model that the project was made of is the design.");
        }
        PlacedState before = model.state();
        PlacedState after = new PlacedState(GivenName.require(name), belonging, hidden, locked, before.place());
        if (locked && !after.equals(before)) {
            model.requireUnlocked();
        }
        return commands.commit(edit, project, did(before, after), List.of(new Change.OfPlaced(index, before, after)));
    }

    private static String did(PlacedState before, PlacedState after) {
        if (before.hidden() != after.hidden()) {
            return (after.hidden() ? "Hide " : "Show ") + after.name();
        }
        if (before.locked() != after.locked()) {
            return (after.locked() ? "Lock " : "Unlock ") + after.name();
        }
        if (before.belonging() != after.belonging()) {
            return after.name() + (after.belonging() == Belonging.DESIGN ? " joins the design" : " is surroundings");
        }
        return "Rename " + before.name();
    }

    private Scene.PlacedModel requireMovable(UUID project, int index) {
        Scene.PlacedModel model = models.scene(project).model(index);
        if (model.group() < 0) {
            throw Problem.conflict(
                    "first-model",
                    "The model that the project was made of stays where it is; the others are placed around it.",
                    null);
        }
        model.requireUnlocked();
        return model;
    }

    /** Puts a model somewhere else. */
    @Transactional
    public ProjectState place(Edit edit, int index, Placement to) {
        Project project = commands.begin(edit);
        if (!to.isWithinReach()) {
            throw Problem.ofField(
                    "place", "A model is placed within 100 km of the origin, at 0.001 to 1,000 times its size.");
        }
        return place(edit, project, requireMovable(edit.project(), index), to);
    }

    private ProjectState place(Edit edit, Project project, Scene.PlacedModel model, Placement to) {
        PlacedState before = model.state();
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfPlaced(model.index(), before, before.at(to)));
        if (to.scale() != before.place().scale()) {
            Transform move = to.transform(model.footPoint())
                    .after(before.place().transform(model.footPoint()).inverse());
            for (Scene.Part p : models.scene(project.id()).parts()) {
                if (p.model() == model.index()) {
                    PartState was = PartState.of(p);
                    changes.add(new Change.OfPart(
                            p.index(), was, shapes.resized(project.id(), p, move.after(p.toWorld()))));
                }
            }
        }
        return commands.commit(edit, project, "Place " + model.name(), changes);
    }

    /** Lets a model down, or lifts it, until it stands on what is below it. */
    @Transactional
    public ProjectState setDown(Edit edit, int index) {
        Project project = commands.begin(edit);
        Scene.PlacedModel model = requireMovable(edit.project(), index);
        Scene scene = models.scene(edit.project());
        OptionalDouble drop = Resting.drop(
                placing.bodies(edit.project(), p -> p.model() == index),
                placing.bodies(
                        edit.project(),
                        p -> p.model() != index && !scene.model(p.model()).hidden()));
        if (drop.isEmpty()) {
            throw Problem.conflict(
                    "nothing", "There is nothing below “" + model.name() + "” that it could stand on.", null);
        }
        if (Math.abs(drop.getAsDouble()) < STILL) {
            throw Problem.conflict("nothing", "“" + model.name() + "” stands already.", null);
        }
        Placement place = model.state().place();
        return place(
                edit,
                project,
                model,
                place.movedTo(place.at().minus(Vec3.axis(1).times(drop.getAsDouble()))));
    }

    /** How a model is repeated. */
    public enum Arrangement {
        /** Along a line. */
        LINE,
        /** Around an upright axis. */
        AROUND,
        /** Over the surfaces of a part that look up. */
        OVER
    }

    /**
     * @param count   how many more
     * @param step    from one to the next, in metres; of a line
     * @param centre  where the upright axis is; of around
     * @param degrees from the first to the last; of around
     * @param part    whose surfaces; of over
     * @param apart   how near two may be to each other, in metres; of over
     * @param seed    draws the places; of over
     */
    public record Repetition(
            Arrangement arrangement,
            int count,
            Vec3 step,
            Vec3 centre,
            double degrees,
            int part,
            double apart,
            long seed) {}

    @Transactional
    public ProjectState repeat(Edit edit, int index, Repetition r) {
        Project project = commands.begin(edit);
        Scene.PlacedModel model = requireMovable(edit.project(), index);
        List<Transform> moves = moves(edit.project(), model, r);
        if (moves.isEmpty()) {
            throw Problem.conflict(
                    "nothing",
                    "There is no room for copies: the surface is too small for that distance, or too steep.",
                    null);
        }
        String before = models.keep(edit.project());
        PlacedModels.Repeated repeated = placing.repeat(edit.project(), index, moves);
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfModel(before, repeated.kept()));
        for (SchemeMapper.SchemeRow s : schemes.schemes(edit.project())) {
            copyEntries(s.id(), Level.PART, repeated.copies(), changes);
            copyEntries(s.id(), Level.GROUP, repeated.groups(), changes);
        }
        return commands.commit(
                edit,
                project,
                "Repeat " + model.name() + " " + moves.size() + (moves.size() == 1 ? " time" : " times"),
                changes);
    }

    private List<Transform> moves(UUID project, Scene.PlacedModel model, Repetition r) {
        return switch (r.arrangement) {
            case LINE -> {
                if (!(r.step.length() > 0) || !(r.step.length() * r.count <= Placement.REACH)) {
                    throw Problem.ofField("step", "Say how far the next one is, along x, y or z.");
                }
                yield Repeating.line(r.count, r.step);
            }
            case AROUND -> {
                if (!(Math.abs(r.degrees) > 0) || !(Math.abs(r.degrees) <= 360)) {
                    throw Problem.ofField("degrees", "Copies are spread over 1 to 360 degrees.");
                }
                yield Repeating.around(r.count, r.centre, r.degrees);
            }
            case OVER -> {
                if (!(r.apart > 0)) {
                    throw Problem.ofField("apart", "Say how near two may stand to each other.");
                }
                Scene.Part on = models.scene(project).requireRegion(r.part, 0);
                if (on.model() == model.index()) {
                    throw Problem.ofField("part", "Select a part of another model to spread copies over.");
                }
                yield Repeating.over(
                        r.count,
                        placing.bodies(project, p -> p.index() == r.part),
                        r.apart,
                        model.state().place().at(),
                        r.seed);
            }
        };
    }

    /** Copies get the looks that their parts and groups had got by themselves. */
    private void copyEntries(UUID scheme, Level level, Map<Integer, Integer> copies, List<Change> changes) {
        List<SchemeMapper.EntryRow> own = schemes.entries(scheme).stream()
                .filter(e -> e.level().equals(level.name()))
                .toList();
        copies.forEach((copy, original) -> own.stream()
                .filter(e -> Objects.equals(e.target(), original))
                .map(e -> e.on(copy))
                .forEach(e -> changes.add(new Change.OfEntry(scheme, e.level(), copy, e.side(), null, e))));
    }

    @Transactional
    public ProjectState remove(Edit edit, int index) {
        Project project = commands.begin(edit);
        Scene.PlacedModel model = requireMovable(edit.project(), index);
        String before = models.keep(edit.project());
        PlacedModels.Removed removed = placing.without(edit.project(), index);
        List<Change> changes = new ArrayList<>();
        changes.add(new Change.OfModel(before, removed.kept()));
        moves.moveParts(edit.project(), removed.newerOf()::get, changes);
        moves.move(edit.project(), Level.GROUP, removed.groups()::get, changes);
        moves.keep(edit.project(), Level.FACE, removed.ownFaces(), changes);
        return commands.commit(edit, project, "Remove " + model.name(), changes);
    }
}
