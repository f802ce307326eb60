package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What a project shows, and the commands that change it. Every command needs If-Match and answers with the new state. */
@RestController
@RequestMapping("/api/projects/{id}")
class CommandController {
    private final CommandService commands;

    CommandController(CommandService commands) {
        this.commands = commands;
    }

    /** @param lookOnly whether each stays made of what it is made of now; null for no */
    record Assignment(
            @NotNull String level,
            @NotEmpty @Size(max = 100_000) List<Integer> targets,
            @Nullable UUID material,
            @Nullable Boolean lookOnly) {}

    record NewDetails(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String client,
            @NotNull String unit) {}

    @GetMapping("/state")
    ResponseEntity<ProjectState> state(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return tagged(commands.state(account, id));
    }

    @GetMapping("/strata")
    List<CommandService.Stratum> strata(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestParam int part,
            @RequestParam int span) {
        return commands.strata(account, id, part, span);
    }

    @PostMapping("/assignments")
    ResponseEntity<ProjectState> assign(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @Validated @RequestBody Assignment a) {
        Level level = Level.ofWord(a.level())
                .filter(l -> l != Level.GROUP && l != Level.FACE)
                .orElseThrow(() -> Problem.ofField(
                        "level", "A material can be given to the model, a matching set or a part so far."));
        return tagged(commands.assign(
                account,
                id,
                ProjectService.version(seen),
                level,
                a.targets(),
                a.material(),
                a.lookOnly() != null && a.lookOnly()));
    }

    /** @param target index of the model, set or part */
    record OnTop(@NotNull String level, int target, boolean onTop) {}

    /** Has what a level shows win over everything narrower, or no longer. */
    @PostMapping("/on-top")
    ResponseEntity<ProjectState> onTop(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @Validated @RequestBody OnTop wish) {
        Level level = Level.ofWord(wish.level()).orElseThrow(() -> Problem.notFound("level"));
        return tagged(commands.putOnTop(account, id, ProjectService.version(seen), level, wish.target(), wish.onTop()));
    }

    @GetMapping("/trial")
    ProjectState.LookWire trial(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestParam int part,
            @RequestParam UUID material) {
        return commands.trial(account, id, part, material);
    }

    @PostMapping("/details")
    ResponseEntity<ProjectState> changeDetails(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @Validated @RequestBody NewDetails d) {
        LengthUnit unit;
        try {
            unit = LengthUnit.ofSymbol(d.unit());
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("unit", "Lengths can be shown in mm, cm, m, in or ft.");
        }
        return tagged(commands.changeDetails(account, id, ProjectService.version(seen), d.name(), d.client(), unit));
    }

    record Replacement(@NotNull UUID by) {}

    /** Another material wherever this one is shown, in all schemes. */
    @PostMapping("/materials/{material}/replacement")
    ResponseEntity<ProjectState> replace(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID material,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @Validated @RequestBody Replacement replacement) {
        return tagged(commands.replace(account, id, ProjectService.version(seen), material, replacement.by()));
    }

    @PostMapping("/undo")
    ResponseEntity<ProjectState> undo(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @RequestParam(defaultValue = "false") boolean force) {
        return tagged(commands.undo(account, id, ProjectService.version(seen), force));
    }

    @PostMapping("/redo")
    ResponseEntity<ProjectState> redo(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestHeader(value = HttpHeaders.IF_MATCH, required = false) String seen,
            @RequestParam(defaultValue = "false") boolean force) {
        return tagged(commands.redo(account, id, ProjectService.version(seen), force));
    }

    static ResponseEntity<ProjectState> tagged(ProjectState state) {
        return ResponseEntity.ok().eTag("\"" + state.version() + "\"").body(state);
    }
}
