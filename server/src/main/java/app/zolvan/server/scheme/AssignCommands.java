package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.LookTrace.Outcome;
import app.zolvan.core.assign.Side;
import app.zolvan.core.material.Facts;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.scheme.ProjectState.LookWire;
import app.zolvan.server.scheme.SchemeMapper.EntryRow;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Giving looks to things and taking them off, at every level and in one scheme or several; and why what shows shows. */
@Service
public class AssignCommands {
    private static final Side BOTH = Side.BOTH;
    private static final int MOST_AT_ONCE = 200_000;

    private final CommandService commands;
    private final SchemeService schemes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final SceneSource scenes;

    AssignCommands(
            CommandService commands,
            SchemeService schemes,
            MaterialService materials,
            ProjectService projects,
            SceneSource scenes) {
        this.commands = commands;
        this.schemes = schemes;
        this.materials = materials;
        this.projects = projects;
        this.scenes = scenes;
    }

    /** Something that can hold a look. */
    public record Spot(Level level, int target) {}

    /**
     * What is given to what.
     *
     * @param material null to take off
     * @param mapping  how it is to lie, as entries have it; null for as it does
     * @param lookOnly whether each stays made of what it is made of now
     * @param in       the schemes; none for the one in view
     */
    public record Giving(
            List<Spot> to,
            @Nullable UUID material,
            @Nullable String mapping,
            boolean lookOnly,
            List<UUID> in) {}

    @Transactional
    public ProjectState assign(Account account, UUID projectId, long seen, Giving g) {
        Project project = commands.begin(account, projectId, seen);
        LookTable looks = schemes.looks(project);
        Scene scene = looks.scene();
        List<SchemeRow> in = chosen(projectId, g.in());
        List<Spot> to = g.to().stream().distinct().toList();
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
        to.forEach(t -> scene.requireTarget(t.level(), t.target()));
        for (SchemeRow scheme : in) {
            SchemeEntries entries = schemes.entries(projectId, scheme);
            for (Spot t : to) {
                if (g.material() == null) {
                    add(changes, entries.take(t.level(), t.target(), BOTH));
                    continue;
                }
                Facts kept = g.lookOnly() ? substanceOf(looks, t.level(), t.target()) : Facts.NONE;
                MaterialRow row = copies.computeIfAbsent(
                        kept, f -> commands.usableCopy(project, g.material(), f.hasSubstance() ? f : null, changes));
                name = row.name();
                changes.add(entries.put(t.level(), t.target(), BOTH, row.id(), g.mapping()));
            }
        }
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "There is nothing to take off there.", null);
        }
        copies.values().forEach(row -> materials.noteUse(account.id(), row));
        String where = told(scene, to);
        String what = name + (g.lookOnly() ? ", the look alone," : "") + " on " + where;
        return commands.commit(
                account, project, (g.material() == null ? "Take off " + where : what) + suffix(projectId, in), changes);
    }

    private static String told(Scene scene, List<Spot> spots) {
        Spot first = spots.get(0);
        if (spots.size() == 1) {
            return scene.told(first.level(), first.target());
        }
        boolean alike = spots.stream().allMatch(s -> s.level() == first.level());
        return spots.size() + (alike ? " " + first.level().word() + "s" : " places");
    }

    /**
     * Where regions would be given a look.
     *
     * @param level null for the one at which each shows what it is given
     */
    List<Spot> spots(Account account, UUID projectId, @Nullable Level level, List<Region> regions) {
        LookTable looks = schemes.looks(projects.require(account, projectId));
        return regions.stream()
                .map(r -> {
                    Scene.Part p = looks.scene().requireRegion(r.part(), r.span());
                    return level == null ? standing(looks, p, r.span()) : spot(looks.scene(), level, p, r.span());
                })
                .distinct()
                .toList();
    }

    private static Spot spot(Scene scene, Level level, Scene.Part part, int span) {
        return switch (level) {
            case MODEL -> new Spot(level, part.model());
            case SET -> new Spot(level, part.sets().get(span));
            case GROUP -> {
                List<Integer> around = scene.groupsAround(part);
                if (around.isEmpty()) {
                    throw Problem.ofField("level", part.name() + " is in no group.");
                }
                yield new Spot(level, around.get(around.size() - 1));
            }
            default -> new Spot(Level.PART, part.index());
        };
    }

    /** Where a look would show that is put on a region: at the level that shows now, else for its matching set. */
    private static Spot standing(LookTable looks, Scene.Part part, int span) {
        LookTrace trace = looks.trace(part.index(), span, Aspect.MATERIAL);
        LookTrace.Step winner = trace.winner() < 0 ? null : trace.steps().get(trace.winner());
        boolean broad = winner == null
                || (winner.target().level() == Level.MODEL && !winner.entry().onTop());
        return broad
                ? spot(looks.scene(), Level.SET, part, span)
                : new Spot(
                        winner.target().level(),
                        Integer.parseInt(winner.target().id()));
    }

    private static void add(List<Change> changes, @Nullable Change change) {
        if (change != null) {
            changes.add(change);
        }
    }

    private List<SchemeRow> chosen(UUID project, List<UUID> in) {
        return in.isEmpty()
                ? List.of(schemes.current(project))
                : in.stream().distinct().map(id -> schemes.require(project, id)).toList();
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
        /** What the part holds by itself. */
        PART,
        /** The material that it shows, wherever the scheme has it. */
        MATERIAL
    }

    /** Takes off several things at once in the scheme in view; what lies beneath shows. */
    @Transactional
    ProjectState takeOff(Account account, UUID projectId, long seen, int part, int span, Extent extent) {
        Project project = commands.begin(account, projectId, seen);
        LookTable looks = schemes.looks(project);
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        MaterialRow shown = looks.shown(part, span).material();
        SchemeRow scheme = schemes.current(projectId);
        SchemeEntries entries = schemes.entries(projectId, scheme);
        List<Change> changes = new ArrayList<>();
        for (EntryRow e : entries.inForce().values()) {
            Level level = Level.valueOf(e.level());
            boolean goes = switch (extent) {
                case LADDER -> scene.covers(level, e.target(), p, span);
                case PART -> level.compareTo(Level.PART) >= 0 && scene.covers(level, e.target(), p, span);
                case MATERIAL -> shown != null && shown.id().equals(e.materialId());
            };
            if (goes) {
                add(changes, entries.take(level, e.target(), Side.valueOf(e.side())));
            }
        }
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "Nothing has been put there that could be taken off.", null);
        }
        String what = switch (extent) {
            case LADDER -> "Take everything off " + p.name();
            case PART -> "Take its own look off " + p.name();
            case MATERIAL -> "Take " + Objects.requireNonNull(shown).name() + " off everywhere";
        };
        return commands.commit(account, project, what + suffix(projectId, List.of(scheme)), changes);
    }

    /** Has a slot of the scheme in view hold again what its base has. */
    @Transactional
    ProjectState back(Account account, UUID projectId, long seen, Level level, int target) {
        Project project = commands.begin(account, projectId, seen);
        SchemeRow scheme = schemes.current(projectId);
        SchemeEntries entries = schemes.entries(projectId, scheme);
        if (!entries.differs(level, target, BOTH)) {
            throw Problem.conflict("nothing", "Nothing differs there from the scheme that this one is based on.", null);
        }
        String base = schemes.require(projectId, Objects.requireNonNull(scheme.base()))
                .letter();
        return commands.commit(
                account,
                project,
                scenes.scene(projectId).told(level, target) + " as in " + base,
                List.of(entries.back(level, target, BOTH)));
    }

    /** What another material is shown in the place of one. */
    record Replacing(UUID material, UUID by, @Nullable List<Integer> parts, List<UUID> in) {}

    /**
     * Has another material shown wherever one is: in some schemes or in all, on some parts or everywhere; where what arrived is
     * shown, its sets get the other. Mappings stay.
     */
    @Transactional
    ProjectState replace(Account account, UUID projectId, long seen, Replacing r) {
        Project project = commands.begin(account, projectId, seen);
        MaterialRow old = materials.requireUsable(projectId, r.material());
        List<Change> changes = new ArrayList<>();
        MaterialRow other = commands.usableCopy(project, r.by(), null, changes);
        if (other.id().equals(old.id())) {
            throw Problem.ofField("by", "“" + old.name() + "” is shown there already.");
        }
        int brought = changes.size();
        List<SchemeRow> in = r.in().isEmpty() ? schemes.schemes(projectId) : chosen(projectId, r.in());
        for (SchemeRow scheme : in) {
            if (r.parts() != null) {
                replaceOn(project, scheme, old, other, r.parts(), changes);
            } else {
                replaceIn(projectId, scheme, in, old, other, changes);
            }
        }
        int places = changes.size() - brought;
        if (places == 0) {
            throw Problem.conflict("nothing", "“" + old.name() + "” is on nothing that could show another.", null);
        }
        materials.noteUse(account.id(), other);
        String where = places == 1 ? "1 place" : places + " places";
        return commands.commit(
                account,
                project,
                "Replace " + old.name() + " by " + other.name() + " in " + where
                        + (r.in().isEmpty() ? "" : "," + suffix(projectId, in)),
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
        for (EntryRow e : follows ? entries.own() : entries.inForce().values()) {
            if (old.id().equals(e.materialId())) {
                changes.add(entries.put(e.showing(other.id())));
            }
        }
        for (Scene.MatchingSet set : scenes.scene(project).sets()) {
            boolean bare = entries.at(Level.SET, set.index(), BOTH) == null;
            boolean differs = entries.differs(Level.SET, set.index(), BOTH);
            if (old.id().equals(set.source()) && bare && (!follows || differs)) {
                changes.add(entries.put(Level.SET, set.index(), BOTH, other.id(), null));
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
        LookTable looks = schemes.looks(project, scheme.id());
        SchemeEntries entries = schemes.entries(project.id(), scheme);
        for (int p : new LinkedHashSet<>(parts)) {
            if (looks.shows(looks.scene().requireRegion(p, 0), old.id())) {
                changes.add(entries.put(Level.PART, p, BOTH, other.id(), null));
            }
        }
    }

    /** What a target is made of now, by its name and numbers. */
    private static Facts substanceOf(LookTable looks, Level level, int target) {
        Scene scene = looks.scene();
        for (Scene.Part p : scene.parts()) {
            for (int span = 0; span < p.sets().size(); span++) {
                if (!scene.covers(level, target, p, span)) {
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
     * @param wanted library materials by set
     */
    @Transactional
    ProjectState dress(Account account, UUID projectId, long seen, String table, Map<Integer, UUID> wanted) {
        Project project = commands.begin(account, projectId, seen);
        if (wanted.isEmpty()) {
            throw Problem.conflict("nothing", "No set without a look fits a row of “" + table + "”.", null);
        }
        SchemeEntries entries = schemes.entries(projectId, schemes.current(projectId));
        List<Change> changes = new ArrayList<>();
        Map<UUID, UUID> copies = new HashMap<>();
        wanted.forEach((set, material) -> {
            UUID copy = copies.computeIfAbsent(
                    material,
                    m -> commands.usableCopy(project, m, null, changes).id());
            changes.add(entries.put(Level.SET, set, BOTH, copy, null));
        });
        return commands.commit(
                account,
                project,
                "Dress " + (wanted.size() == 1 ? "1 set" : wanted.size() + " sets") + " by " + table,
                changes);
    }

    /** Has what a level shows win over everything narrower, or no longer. */
    @Transactional
    ProjectState putOnTop(Account account, UUID projectId, long seen, Level level, int target, boolean onTop) {
        Project project = commands.begin(account, projectId, seen);
        Scene scene = scenes.scene(projectId);
        scene.requireTarget(level, target);
        SchemeEntries entries = schemes.entries(projectId, schemes.current(projectId));
        EntryRow before = entries.at(level, target, BOTH);
        if (before == null) {
            throw Problem.notFound("look");
        }
        return commands.commit(
                account,
                project,
                (onTop ? "On top: " : "No longer on top: ") + scene.told(level, target),
                List.of(entries.put(before.in(entries.scheme().id()).onTop(onTop))));
    }

    /**
     * What would come of putting a material somewhere, before it is.
     *
     * @param level    where
     * @param target   its index
     * @param look     what the part at hand would show
     * @param reached  the regions that would show it, as part and span
     * @param parts    how many parts that is
     * @param hidden   how many more parts are covered and keep something else
     * @param hiddenBy the level whose look hides it on the part at hand, and at which it would show; null where it shows
     * @param alsoIn   letters of schemes that take it over from this one
     */
    record Trial(
            String level,
            int target,
            LookWire look,
            List<Region> reached,
            int parts,
            int hidden,
            @Nullable String hiddenBy,
            List<String> alsoIn) {}

    record Region(int part, int span) {}

    /** @param wanted where; null for where it shows */
    Trial trial(Account account, UUID projectId, @Nullable Spot wanted, int part, int span, UUID material) {
        Project project = projects.require(account, projectId);
        SchemeRow scheme = schemes.current(projectId);
        LookTable looks = schemes.looks(project, scheme.id());
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        Spot spot = wanted == null ? standing(looks, p, span) : wanted;
        scene.requireTarget(spot.level(), spot.target());
        MaterialRow row = materials.requireUsable(projectId, material);
        Look look = Look.of(row.toMaterial(), null, p.ownThickness(), null);
        LookTrace trace = looks.trace(part, span, Aspect.MATERIAL);
        Set<Integer> showing = Arrays.stream(looks.wouldShow(spot.level(), spot.target(), material.toString()))
                .boxed()
                .collect(Collectors.toSet());
        List<Region> reached = new ArrayList<>();
        Set<Integer> shown = new HashSet<>();
        Set<Integer> covered = new HashSet<>();
        for (Scene.Part each : scene.parts()) {
            for (int s = 0; s < each.sets().size(); s++) {
                if (showing.contains(looks.region(each.index(), s))) {
                    reached.add(new Region(each.index(), s));
                    shown.add(each.index());
                } else if (scene.covers(spot.level(), spot.target(), each, s)) {
                    covered.add(each.index());
                }
            }
        }
        covered.removeAll(shown);
        boolean shows = showing.contains(looks.region(part, span)) || trace.winner() < 0;
        return new Trial(
                spot.level().word(),
                spot.target(),
                CommandService.wire(new LookTable.Shown(look, row)),
                reached,
                shown.size(),
                covered.size(),
                shows
                        ? null
                        : trace.steps().get(trace.winner()).target().level().word(),
                inheriting(projectId, scheme, spot.level(), spot.target()));
    }

    /** Letters of the schemes that have in a slot what this one has. */
    private List<String> inheriting(UUID project, SchemeRow scheme, Level level, int target) {
        return schemes.allEntries(project).stream()
                .filter(e -> e.takesOver(scheme.id(), level, target, BOTH))
                .map(e -> e.scheme().letter())
                .toList();
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
     * @param target    index of the model, set, group or part
     * @param name      of the set or group; empty elsewhere
     * @param parts     how many parts it covers
     * @param onTop     whether it wins over everything narrower
     * @param why       whether and why it shows, in words; empty where it has nothing
     * @param inherited the letter of the scheme that it comes from; null where it is this scheme's own
     * @param differs   whether this scheme has something else there, or nothing, than the one it is based on
     */
    record Stratum(
            String level,
            int target,
            String name,
            int parts,
            @Nullable UUID material,
            boolean wins,
            boolean onTop,
            String why,
            @Nullable String inherited,
            boolean differs) {}

    Why why(Account account, UUID projectId, int part, int span) {
        Project project = projects.require(account, projectId);
        SchemeRow scheme = schemes.currentOrFirst(projectId);
        LookTable looks = schemes.looks(project, scheme.id());
        SchemeEntries entries = schemes.entries(projectId, scheme);
        Scene scene = looks.scene();
        Scene.Part p = scene.requireRegion(part, span);
        LookTrace trace = looks.trace(part, span, Aspect.MATERIAL);
        List<Stratum> strata = new ArrayList<>();
        for (int i = 0; i < trace.steps().size(); i++) {
            LookTrace.Step step = trace.steps().get(i);
            Level level = step.target().level();
            int target = Integer.parseInt(step.target().id());
            strata.add(new Stratum(
                    level.word(),
                    target,
                    switch (level) {
                        case SET -> scene.sets().get(target).name();
                        case GROUP -> scene.groups().get(target).name();
                        default -> "";
                    },
                    (int) scene.parts().stream()
                            .filter(o -> scene.covers(level, target, o))
                            .count(),
                    step.entry() == null ? null : UUID.fromString(step.entry().material()),
                    step.outcome() == Outcome.WINS,
                    step.entry() != null && step.entry().onTop(),
                    trace.why(i),
                    entries.inheritedFrom(level, target, BOTH),
                    entries.differs(level, target, BOTH)));
        }
        return new Why(sentence(looks, p, span, trace, strata), strata);
    }

    private String sentence(LookTable looks, Scene.Part part, int span, LookTrace trace, List<Stratum> strata) {
        MaterialRow shown = looks.shown(part.index(), span).material();
        String arrived = looks.arrived(part, span);
        if (trace.winner() < 0) {
            return part.name() + " shows " + arrived
                    + ": nothing has been put on it, nor on anything that it belongs to.";
        }
        Stratum winner = strata.get(trace.winner());
        String beneath = trace.ifCleared() < 0
                ? arrived
                : nameOf(strata.get(trace.ifCleared()).material());
        String where = winner.inherited() == null ? "" : " in scheme " + winner.inherited();
        return part.name() + " shows " + Objects.requireNonNull(shown).name() + " because "
                + owner(winner) + (winner.onTop() ? " has it on top" : " has it") + where + ", and "
                + (winner.onTop() ? "nothing broader is on top" : "nothing narrower has a look")
                + ". Without it, " + beneath + " would show.";
    }

    private static String owner(Stratum s) {
        return switch (s.level()) {
            case "model" -> "the whole model";
            case "set" -> "its matching set “" + s.name() + "”";
            case "group" -> "the group “" + s.name() + "”";
            default -> "the part itself";
        };
    }

    private String nameOf(@Nullable UUID material) {
        MaterialRow row = material == null ? null : materials.find(material);
        return row == null ? "what arrived" : row.name();
    }
}
