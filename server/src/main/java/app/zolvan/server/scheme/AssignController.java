package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Side;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.AssignCommands.Where;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Giving looks to a project's model, parts and all between, in the scheme in view or in others. */
@RestController
@RequestMapping("/api/projects/{id}")
class AssignController {
    private final AssignCommands commands;

    AssignController(AssignCommands commands) {
        this.commands = commands;
    }

    /**
     * @param level    null for the one at which each region shows what it is given
     * @param targets  by their indices at that level; null where regions are named
     * @param side     which of their sides; null for those that what shows there is for
     * @param regions  null where targets are named
     * @param material null to take off
     * @param mapping  metric (real size, projected) or model (the file's coordinates); null for as it lies
     * @param lookOnly whether each stays made of what it is made of now; null for no
     * @param schemes  in which; null for the one in view
     */
    record Assignment(
            @Nullable String level,
            @Nullable @Size(min = 1, max = 100_000) List<Integer> targets,
            @Nullable Side side,
            @Nullable @Size(min = 1, max = 100_000) List<AssignCommands.Region> regions,
            @Nullable UUID material,
            @Nullable @Pattern(regexp = "metric|model") String mapping,
            @Nullable Boolean lookOnly,
            @Nullable @Size(max = 1000) List<UUID> schemes) {}

    @PostMapping("/assignments")
    ProjectState assign(Edit edit, @Validated @RequestBody Assignment a) {
        return commands.assign(
                edit,
                new AssignCommands.Giving(
                        where(a),
                        a.material(),
                        mapping(a.mapping()),
                        Boolean.TRUE.equals(a.lookOnly()),
                        a.schemes() == null ? List.of() : a.schemes()));
    }

    private static Where where(Assignment a) {
        Level level = a.level() == null ? null : level(a.level());
        if (a.regions() != null) {
            return new Where.Showing(level, a.side(), a.regions());
        }
        if (level == null || a.targets() == null) {
            throw Problem.ofField("targets", "Say what it is to be put on.");
        }
        return new Where.Named(a.targets().stream()
                .map(t -> new AssignCommands.Spot(level, t, a.side()))
                .toList());
    }

    private static @Nullable Mapping mapping(@Nullable String word) {
        return word == null ? null : word.equals("metric") ? new Mapping.Box() : new Mapping.ModelUvs();
    }

    static Level level(String word) {
        return Level.ofWord(word)
                .orElseThrow(() -> Problem.ofField(
                        "level", "A material can be given to the model, a matching set, a group, a part or a face."));
    }

    /**
     * @param target index of the model, set, group, part or face
     * @param side   for which of its sides; null for those that what shows is for
     */
    record OnTop(
            @NotNull String level, int target, @Nullable Side side, boolean onTop) {}

    /** Has what a level shows win over everything narrower, or no longer. */
    @PostMapping("/on-top")
    ProjectState onTop(Edit edit, @Validated @RequestBody OnTop wish) {
        return commands.putOnTop(
                edit, new AssignCommands.Spot(level(wish.level()), wish.target(), wish.side()), wish.onTop());
    }

    record SlotOf(
            @NotNull String level, int target, @Nullable Side side) {
        AssignCommands.Spot spot() {
            return new AssignCommands.Spot(AssignController.level(level), target, side);
        }
    }

    /** A slot holds again what the scheme that this one is based on has there. */
    @PostMapping("/as-in-base")
    ProjectState asInBase(Edit edit, @Validated @RequestBody SlotOf slot) {
        return commands.back(edit, slot.spot());
    }

    record TakingOff(int part, int span, @NotNull AssignCommands.Extent extent) {}

    /** Takes several things off at once. */
    @PostMapping("/taken-off")
    ProjectState takeOff(Edit edit, @Validated @RequestBody TakingOff t) {
        return commands.takeOff(edit, t.part(), t.span(), t.extent());
    }

    /** What would come of putting a material on a level of a region; where none is named, on the one that shows or some steps from it. */
    @GetMapping("/trial")
    AssignCommands.Trial trial(
            Query query,
            @RequestParam(required = false) String level,
            @RequestParam(defaultValue = "0") int target,
            @RequestParam(required = false) Side side,
            @RequestParam(defaultValue = "0") int steps,
            @RequestParam int part,
            @RequestParam int span,
            @RequestParam UUID material) {
        AssignCommands.Spot spot = level == null ? null : new AssignCommands.Spot(level(level), target, side);
        return commands.trial(query, spot, side, steps, part, span, material);
    }

    /** Why a region looks as it does. */
    @GetMapping("/why")
    AssignCommands.Why why(Query query, @RequestParam int part, @RequestParam int span) {
        return commands.why(query, part, span);
    }

    /**
     * @param parts   only on these; null for everywhere
     * @param schemes only in these; null for all
     */
    record Replacement(
            @NotNull UUID by,
            @Nullable @Size(max = 100_000) List<Integer> parts,
            @Nullable @Size(max = 1000) List<UUID> schemes) {}

    /** Another material wherever this one is shown. */
    @PostMapping("/materials/{material}/replacement")
    ProjectState replace(Edit edit, @PathVariable UUID material, @Validated @RequestBody Replacement r) {
        return commands.replace(
                edit,
                new AssignCommands.Replacing(
                        material, r.by(), r.parts(), r.schemes() == null ? List.of() : r.schemes()));
    }
}
