package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.LookTrace.Outcome;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Facts;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.ProjectState.LookWire;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Giving looks to things and taking them off, at every level and in one scheme or several; and why what shows shows. */
@Service
public class AssignCommands {
    private static final int MOST_AT_ONCE = 200_000;

    private final CommandService commands;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final SceneSource scenes;
    private final OwnPlaces places;

    AssignCommands(
            CommandService commands,
            SchemeService schemes,
            MaterialService materials,
            ProjectService projects,
            SceneSource scenes,
            OwnPlaces places) {
        this.places = places;
        this.commands = commands;
        this.schemes = schemes;
        this.materials = materials;
        this.projects = projects;
        this.scenes = scenes;
    }

    /**
     * Something that can hold a look.
     *
     * @param side for which of its sides; null for those that what shows there is for
     */
    public record Spot(Level level, int target, @Nullable Side side) {
        static Spot of(Target target) {
            return of(target, null);
        }

        static Spot of(Target target, @Nullable Side side) {
            return new Spot(target.level(), LookTable.index(target), side);
        }

        /**
         * Where it holds it.
         *
         * @param seen the side that is looked at
         */
        Slot slot(Scheme scheme, Side seen) {
            return side == null
                    ? scheme.speaking(LookTable.target(level, target), seen)
                    : LookTable.slot(level, target, side);
        }

        /** What is said of the side after its name. */
        String sideWord() {
            return side == Side.FRONT ? ", front" : side == Side.BACK ? ", back" : "";
        }
    }

    /** Target of an assignment, chosen under the project's lock, so that what it was chosen by can't change. */
    public sealed interface Where {
        /** Things that are named. */
        record Named(List<Spot> spots) implements Where {}

        /**
         * The things that hold what regions show.
         *
         * @param level null for the one at which each shows what it is given
         * @param side  which of their sides; null for those that what they show is for
         */
        record Showing(@Nullable Level level, @Nullable Side side, List<Region> regions) implements Where {}
    }

    /**
     * What is given to what.
     *
     * @param material null to take off
     * @param mapping  how it is to lie; null for as it does
     * @param lookOnly whether each stays made of what it is made of now
     * @param in       the schemes; none for the one in view
     */
    public record Giving(
            Where to, @Nullable UUID material, @Nullable Mapping mapping, boolean lookOnly, List<UUID> in) {}

    @Transactional
    public ProjectState assign(Edit edit, Giving g) {
        Project project = commands.begin(edit);
        Scene scene = scenes.scene(edit.project());
        List<SchemeRow> in = chosen(edit, g.in());
        List<Spot> to = unlocked(scene, spots(edit, project, g.to()));
        List<Change> changes = new ArrayList<>();
        Map<Facts, MaterialRow> copies = new HashMap<>();
        String name = "";
        if ((long) to.size() * in.size() > MOST_AT_ONCE) {
            throw Problem.ofField(
                    "schemes",
                    String.format(
                            "That would be more than %,d changes at once. Choose fewer parts or fewer schemes.",
                            MOST_AT_ONCE));
        }
        for (SchemeRow scheme : in) {
            SchemeEntries entries = schemes.entries(edit.project(), scheme);
            LookTable looks = g.lookOnly() ? schemes.looks(project, scheme.id(), edit.side()) : null;
            for (Spot t : to) {
                Slot slot = t.slot(entries.scheme(), edit.side());
                if (g.material() == null) {
                    add(changes, entries.take(slot));
                    continue;
                }
                Facts kept = looks == null ? Facts.NONE : substanceOf(looks, t);
                MaterialRow row = copies.computeIfAbsent(
                        kept,
                        f -> commands.usableCopy(
                                edit.account(), project, g.material(), f.hasSubstance() ? f : null, changes));
                name = row.name();
                changes.add(entries.put(slot, row.id(), g.mapping()));
            }
        }
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "There is nothing to take off there.", null);
        }
        copies.values().forEach(row -> materials.noteUse(edit.account().id(), row));
        String where = told(scene, to);
        String what = name + (g.lookOnly() ? ", the look alone," : "") + " on " + where;
        return commands.commitAround(
                edit,
                project,
                (g.material() == null ? "Take off " + where : what) + suffix(edit.project(), in),
                changes);
    }

    /** Of several things those that may be given something. */
    private static List<Spot> unlocked(Scene scene, List<Spot> to) {
        to.forEach(t -> scene.requireTarget(t.level(), t.target()));
        List<Spot> all = to.stream().distinct().toList();
        List<Spot> free = all.stream()
                .filter(t -> !LockedParts.isOwn(scene, LookTable.slot(t.level(), t.target())))
                .toList();
        return free.isEmpty() ? all : free;
    }

    private static String told(Scene scene, List<Spot> spots) {
        Spot first = spots.get(0);
        if (spots.size() == 1) {
            return scene.told(first.level(), first.target()) + first.sideWord();
        }
        boolean alike = spots.stream().allMatch(s -> s.level() == first.level());
        return spots.size() + (alike ? " " + first.level().word() + "s" : " places") + first.sideWord();
    }

    private List<Spot> spots(Edit edit, Project project, Where where) {
        if (where instanceof Where.Named named) {
            return named.spots();
        }
        Where.Showing showing = (Where.Showing) where;
        LookTable looks = schemes.looks(project, edit);
        return showing.regions().stream()
                .map(r -> {
                    Scene.Part p = looks.scene().requireRegion(r.part(), r.span());
                    return showing.level() == null
                            ? Spot.of(
                                    looks.trace(r.part(), r.span(), Aspect.MATERIAL)
                                            .standing(),
                                    showing.side())
                            : spot(looks.scene(), showing.level(), p, r.span(), showing.side());
                })
                .distinct()
                .toList();
    }

    private static Spot spot(Scene scene, Level level, Scene.Part part, int span, @Nullable Side side) {
        return switch (level) {
            case MODEL -> new Spot(level, part.model(), side);
            case SET -> new Spot(level, part.sets().get(span), side);
            case GROUP -> {
                List<Integer> around = scene.groupsAround(part);
                if (around.isEmpty()) {
                    throw Problem.ofField("level", part.name() + " is in no group.");
                }
                yield new Spot(level, around.get(around.size() - 1), side);
            }
            case FACE -> {
                if (part.narrowest(span) != Level.FACE) {
                    throw Problem.ofField("level", part.name() + " has no face of its own there.");
                }
                yield new Spot(level, part.narrowestIndex(span), side);
            }
            case PART -> new Spot(level, part.index(), side);
        };
    }

    private static void add(List<Change> changes, @Nullable Change change) {
        if (change != null) {
            changes.add(change);
        }
    }

    private List<SchemeRow> chosen(Edit edit, List<UUID> in) {
        return in.isEmpty()
                ? List.of(schemes.current(edit))
                : in.stream()
                        .distinct()
                        .map(id -> schemes.require(edit.project(), id))
                        .toList();
    }

    /** Names schemes where that says something. */
    private String suffix(UUID project, List<SchemeRow> in) {
        return schemes.schemes(project).size() == 1
                ? ""
                : " in " + in.stream().map(SchemeRow::letter).collect(Collectors.joining(", "));
    }

    /** What is taken off a region at once. */
    enum Extent {
        /** All that its levels hold, broad ones for all they cover. */
        LADDER,
        /** The material that it shows, wherever the scheme has it. */
        MATERIAL
    }

    /** Takes off several things at once in the scheme in view; what lies beneath shows. */
    @Transactional
    ProjectState takeOff(Edit edit, int part, int span, Extent extent) {
        Project project = commands.begin(edit);
        LookTable looks = schemes.looks(project, edit);
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        MaterialRow shown = looks.shown(part, span).material();
        SchemeRow scheme = schemes.current(edit);
        SchemeEntries entries = schemes.entries(edit.project(), scheme);
        List<Change> changes = new ArrayList<>();
        entries.scheme().effective().forEach((slot, entry) -> {
            Target t = slot.target();
            boolean goes = extent == Extent.LADDER
                    ? scene.covers(t.level(), LookTable.index(t), p, span)
                    : shown != null
                            && shown.id().toString().equals(entry.material())
                            && !LockedParts.isOwn(scene, slot);
            if (goes) {
                add(changes, entries.take(slot));
            }
        });
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "Nothing has been put there that could be taken off.", null);
        }
        String what = extent == Extent.LADDER
                ? "Take everything off " + p.name()
                : "Take " + Objects.requireNonNull(shown).name() + " off everywhere";
        return commands.commitAround(edit, project, what + suffix(edit.project(), List.of(scheme)), changes);
    }

    /** Has a slot of the scheme in view hold again what its base has. */
    @Transactional
    ProjectState back(Edit edit, Spot spot) {
        Project project = commands.begin(edit);
        SchemeRow scheme = schemes.current(edit);
        SchemeEntries entries = schemes.entries(edit.project(), scheme);
        Slot slot = spot.slot(entries.scheme(), edit.side());
        if (!entries.scheme().differs(slot)) {
            throw Problem.conflict("nothing", "Nothing differs there from the scheme that this one is based on.", null);
        }
        String base = schemes.require(edit.project(), Objects.requireNonNull(scheme.base()))
                .letter();
        return commands.commitAround(
                edit,
                project,
                scenes.scene(edit.project()).told(spot.level(), spot.target()) + spot.sideWord() + " as in " + base,
                List.of(entries.put(slot, (Entry) null)));
    }

    /** What another material is shown in the place of one. */
    record Replacing(UUID material, UUID by, @Nullable List<Integer> parts, List<UUID> in) {}

    /**
     * Has another material shown wherever one is: in some schemes or in all, on some parts or everywhere; where what arrived is
     * shown, its sets get the other. Mappings stay.
     */
    @Transactional
    ProjectState replace(Edit edit, Replacing r) {
        Project project = commands.begin(edit);
        MaterialRow old = materials.requireUsable(edit.account(), edit.project(), r.material());
        List<Change> changes = new ArrayList<>();
        MaterialRow other = commands.usableCopy(edit.account(), project, r.by(), null, changes);
        if (other.id().equals(old.id())) {
            throw Problem.ofField("by", "“" + old.name() + "” is shown there already.");
        }
        int brought = changes.size();
        List<SchemeRow> in = r.in().isEmpty() ? schemes.schemes(edit.project()) : chosen(edit, r.in());
        for (SchemeRow scheme : in) {
            if (r.parts() != null) {
                replaceOn(project, scheme, old, other, r.parts(), changes);
            } else {
                replaceIn(edit.project(), scheme, in, old, other, changes);
            }
        }
        int places = changes.size() - brought;
        if (places == 0) {
            throw Problem.conflict("nothing", "“" + old.name() + "” is on nothing that could show another.", null);
        }
        materials.noteUse(edit.account().id(), other);
        String where = places == 1 ? "1 place" : places + " places";
        return commands.commitAround(
                edit,
                project,
                "Replace " + old.name() + " by " + other.name() + " in " + where
                        + (r.in().isEmpty() ? "" : "," + suffix(edit.project(), in)),
                changes);
    }

    /** Of a scheme whose base is among those that change, too, only what it has itself. */
    private void replaceIn(
            UUID project,
            SchemeRow scheme,
            List<SchemeRow> all,
            MaterialRow old,
            MaterialRow other,
            List<Change> changes) {
        SchemeEntries entries = schemes.entries(project, scheme);
        boolean follows = all.stream().anyMatch(s -> s.id().equals(scheme.base()));
        Map<Slot, Entry> there =
                follows ? entries.scheme().entries() : entries.scheme().effective();
        Scene scene = scenes.scene(project);
        there.forEach((slot, entry) -> {
            if (old.id().toString().equals(entry.material()) && !LockedParts.isOwn(scene, slot)) {
                changes.add(entries.put(slot, other.id(), null));
            }
        });
        for (Scene.MatchingSet set : scene.sets()) {
            Slot slot = LookTable.slot(Level.SET, set.index());
            boolean bare = entries.scheme().at(slot) == null;
            if (old.id().equals(set.source())
                    && bare
                    && (!follows || entries.scheme().differs(slot))) {
                changes.add(entries.put(slot, other.id(), null));
            }
        }
    }

    /** Parts that show a material get the other by themselves. */
    private void replaceOn(
            Project project,
            SchemeRow scheme,
            MaterialRow old,
            MaterialRow other,
            List<Integer> parts,
            List<Change> changes) {
        LookTable looks = schemes.looks(project, scheme.id(), Side.FRONT);
        SchemeEntries entries = schemes.entries(project.id(), scheme);
        for (int p : new LinkedHashSet<>(parts)) {
            Scene.Part each = looks.scene().requireRegion(p, 0);
            if (!each.locked() && looks.shows(each, old.id())) {
                places.put(looks, entries, each, old.id(), other.id(), changes);
            }
        }
    }

    /** What a target is made of now, by its name and numbers. */
    private static Facts substanceOf(LookTable looks, Spot spot) {
        Scene scene = looks.scene();
        for (Scene.Part p : scene.parts()) {
            for (int span = 0; span < p.sets().size(); span++) {
                if (!scene.covers(spot.level(), spot.target(), p, span)) {
                    continue;
                }
                MaterialRow worn = looks.shown(p.index(), span).material();
                if (worn != null && worn.known().hasSubstance()) {
                    return Facts.NONE.madeOf(KeepCommands.nameOf(worn), worn.known());
                }
            }
        }
        return Facts.NONE;
    }

    /**
     * Gives sets the materials that a table says, in the scheme in view.
     *
     * @param wanted library materials by set; asked for once the project is locked
     */
    @Transactional
    ProjectState dress(Edit edit, String table, Supplier<Map<Integer, UUID>> wanted) {
        return give(edit, table, () -> {
            Map<Slot, UUID> slots = new LinkedHashMap<>();
            wanted.get().forEach((set, material) -> slots.put(LookTable.slot(Level.SET, set), material));
            return slots;
        });
    }

    /**
     * Gives things what a table or rules say, in the scheme in view.
     *
     * @param choosing library materials by where they go; asked for once the project is locked
     */
    @Transactional
    ProjectState give(Edit edit, String by, Supplier<Map<Slot, UUID>> choosing) {
        Project project = commands.begin(edit);
        Map<Slot, UUID> wanted = choosing.get();
        if (wanted.isEmpty()) {
            throw Problem.conflict("nothing", "Nothing is left that “" + by + "” would give something.", null);
        }
        SchemeEntries entries = schemes.entries(edit.project(), schemes.current(edit));
        List<Change> changes = new ArrayList<>();
        Map<UUID, UUID> copies = new HashMap<>();
        wanted.forEach((slot, material) -> {
            UUID copy = copies.computeIfAbsent(
                    material,
                    m -> commands.usableCopy(edit.account(), project, m, null, changes)
                            .id());
            changes.add(entries.put(slot, copy, null));
        });
        boolean sets = wanted.keySet().stream().allMatch(s -> s.target().level() == Level.SET);
        String what = sets ? "set" : "place";
        return commands.commitAround(
                edit,
                project,
                "Dress " + wanted.size() + " " + what + (wanted.size() == 1 ? "" : "s") + " by " + by,
                changes);
    }

    /** Has what a level shows win over everything narrower, or no longer. */
    @Transactional
    ProjectState putOnTop(Edit edit, Spot spot, boolean onTop) {
        Project project = commands.begin(edit);
        Scene scene = scenes.scene(edit.project());
        scene.requireTarget(spot.level(), spot.target());
        SchemeEntries entries = schemes.entries(edit.project(), schemes.current(edit));
        Slot slot = spot.slot(entries.scheme(), edit.side());
        Entry before = entries.scheme().at(slot);
        if (before == null) {
            throw Problem.notFound("look");
        }
        return commands.commitAround(
                edit,
                project,
                (onTop ? "On top: " : "No longer on top: ") + scene.told(spot.level(), spot.target()) + spot.sideWord(),
                List.of(entries.put(slot, new Entry(before.material(), before.mapping(), onTop))));
    }

    /**
     * What would come of putting a material somewhere, before it is.
     *
     * @param level    where
     * @param target   its index
     * @param side     for which of its sides
     * @param name     of the set, group, part or face; empty for models
     * @param look     what the part at hand would show
     * @param reached  the regions that would show it
     * @param parts    how many parts that is
     * @param hidden   how many more parts are covered and keep something else
     * @param hiddenBy the level whose look hides it on the part at hand, and at which it would show; null where it shows
     * @param locked   whether the part at hand is locked and keeps what it shows
     * @param alsoIn   letters of schemes that take it over from this one
     */
    record Trial(
            String level,
            int target,
            Side side,
            String name,
            LookWire look,
            List<Reached> reached,
            int parts,
            int hidden,
            @Nullable String hiddenBy,
            boolean locked,
            List<String> alsoIn) {}

    record Region(int part, int span) {}

    /** A region that would show something on its front, its back, or both. */
    record Reached(int part, int span, boolean front, boolean back) {}

    /**
     * @param wanted where; null for where it shows
     * @param side   which of its sides, where no place is named; null for those that what shows there is for
     * @param steps  how many levels narrower than that; broader below 0
     */
    Trial trial(Query query, @Nullable Spot wanted, @Nullable Side side, int steps, int part, int span, UUID material) {
        Project project = projects.require(query.account(), query.project());
        SchemeRow scheme = schemes.current(query);
        LookTable looks = schemes.looks(project, scheme.id(), query.side());
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        LookTrace trace = looks.trace(part, span, Aspect.MATERIAL);
        Spot spot = wanted == null ? Spot.of(trace.stepped(steps), side) : wanted;
        scene.requireTarget(spot.level(), spot.target());
        Slot slot = spot.slot(schemes.entries(query.project(), scheme).scheme(), looks.seen());
        MaterialRow row = materials.requireUsable(query.account(), query.project(), material);
        Mapping mapping = looks.mapping(part, span);
        Look look = Look.of(row.toMaterial(), mapping, p.ownThickness(), null);
        BitSet front = looks.wouldShow(slot, material.toString(), Side.FRONT);
        BitSet back = looks.wouldShow(slot, material.toString(), Side.BACK);
        List<Reached> reached = new ArrayList<>();
        Set<Integer> shown = new HashSet<>();
        Set<Integer> covered = new HashSet<>();
        for (Scene.Part each : scene.parts()) {
            for (int s = 0; s < each.sets().size(); s++) {
                int region = looks.region(each.index(), s);
                if (!each.locked() && (front.get(region) || back.get(region))) {
                    reached.add(new Reached(each.index(), s, front.get(region), back.get(region)));
                    shown.add(each.index());
                } else if (scene.covers(spot.level(), spot.target(), each, s)) {
                    covered.add(each.index());
                }
            }
        }
        covered.removeAll(shown);
        Side judged = slot.side() == Side.BOTH ? looks.seen() : slot.side();
        BitSet showing = judged == Side.FRONT ? front : back;
        LookTrace standing = looks.trace(part, span, judged, Aspect.MATERIAL);
        boolean hidden = !showing.get(looks.region(part, span)) && standing.winner() >= 0;
        return new Trial(
                spot.level().word(),
                spot.target(),
                slot.side(),
                name(scene, spot),
                CommandService.wire(new LookTable.Shown(look, row, mapping != null)),
                reached,
                shown.size(),
                covered.size(),
                hidden
                        ? standing.steps()
                                .get(standing.winner())
                                .target()
                                .level()
                                .word()
                        : null,
                p.locked(),
                schemes.allEntries(query.project()).stream()
                        .filter(e -> e.scheme().takesOver(scheme.id().toString(), slot))
                        .map(e -> e.row().letter())
                        .toList());
    }

    private static String name(Scene scene, Spot spot) {
        return switch (spot.level()) {
            case SET -> scene.sets().get(spot.target()).name();
            case GROUP -> scene.groups().get(spot.target()).name();
            case PART -> scene.parts().get(spot.target()).name();
            case FACE -> scene.ownFaces().get(spot.target()).name();
            case MODEL -> "";
        };
    }

    /**
     * Why a region looks as it does.
     *
     * @param sentence in words
     * @param levels   broad to narrow
     */
    record Why(String sentence, List<Stratum> levels) {}

    /**
     * One level's say about a region.
     *
     * @param target    index of the model, set, group, part or face
     * @param side      for which of its sides it is
     * @param name      of the set, group, part or face; empty for models
     * @param parts     how many parts it covers
     * @param onTop     whether it wins over everything narrower
     * @param why       whether and why it shows, in words; empty where it has nothing
     * @param inherited the letter of the scheme that it comes from; null where it is this scheme's own
     * @param differs   whether this scheme has something else there, or nothing, than the one it is based on
     */
    record Stratum(
            String level,
            int target,
            Side side,
            String name,
            int parts,
            @Nullable UUID material,
            boolean wins,
            boolean onTop,
            String why,
            @Nullable String inherited,
            boolean differs) {}

    Why why(Query query, int part, int span) {
        Project project = projects.require(query.account(), query.project());
        SchemeRow row = schemes.currentOrFirst(query);
        LookTable looks = schemes.looks(project, row.id(), query.side());
        Scheme scheme = schemes.entries(query.project(), row).scheme();
        Map<String, String> letters = new HashMap<>();
        schemes.schemes(query.project()).forEach(s -> letters.put(s.id().toString(), s.letter()));
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        LookTrace trace = looks.trace(part, span, Aspect.MATERIAL);
        List<Stratum> strata = new ArrayList<>();
        for (int i = 0; i < trace.steps().size(); i++) {
            LookTrace.Step step = trace.steps().get(i);
            Spot spot = Spot.of(step.target());
            Slot slot = step.slot() == null ? spot.slot(scheme, looks.seen()) : step.slot();
            Scheme source = scheme.inheritedFrom(slot);
            strata.add(new Stratum(
                    spot.level().word(),
                    spot.target(),
                    slot.side(),
                    name(scene, spot),
                    (int) scene.parts().stream()
                            .filter(o -> scene.covers(spot.level(), spot.target(), o))
                            .count(),
                    step.entry() == null ? null : UUID.fromString(step.entry().material()),
                    step.outcome() == Outcome.WINS,
                    step.entry() != null && step.entry().onTop(),
                    trace.why(i),
                    source == null ? null : letters.get(source.id()),
                    scheme.differs(slot)));
        }
        return new Why(trace.sentence(new Names(looks, p, span, scheme, letters)), strata);
    }

    /** What things of a project are called. */
    private record Names(LookTable looks, Scene.Part of, int span, Scheme scheme, Map<String, String> letters)
            implements LookTrace.Names {
        @Override
        public String part() {
            return of.name();
        }

        @Override
        public String of(Target target) {
            return name(looks.scene(), Spot.of(target));
        }

        @Override
        public String material(String id) {
            return looks.nameOf(id);
        }

        @Override
        public String arrived() {
            return looks.arrived(of, span);
        }

        @Override
        public String scheme(Slot slot) {
            Scheme source = scheme.inheritedFrom(slot);
            return source == null ? "" : letters.get(source.id());
        }
    }
}
