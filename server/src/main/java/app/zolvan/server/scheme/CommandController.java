package app.zolvan.server.scheme;

import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Seen;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
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

    record NewDetails(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String client,
            @NotNull String unit) {}

    @GetMapping("/state")
    ResponseEntity<ProjectState> state(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return tagged(commands.state(account, id));
    }

    @PostMapping("/details")
    ResponseEntity<ProjectState> changeDetails(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody NewDetails d) {
        LengthUnit unit;
        try {
            unit = LengthUnit.ofSymbol(d.unit());
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("unit", "Lengths can be shown in mm, cm, m, in or ft.");
        }
        return tagged(commands.changeDetails(account, id, seen, d.name(), d.client(), unit));
    }

    @PostMapping("/undo")
    ResponseEntity<ProjectState> undo(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @RequestParam(defaultValue = "false") boolean force) {
        return tagged(commands.undo(account, id, seen, force));
    }

    @PostMapping("/redo")
    ResponseEntity<ProjectState> redo(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @RequestParam(defaultValue = "false") boolean force) {
        return tagged(commands.redo(account, id, seen, force));
    }

    /** A browser that has seen another scheme of the same version may not take that for this one. */
    static ResponseEntity<ProjectState> tagged(ProjectState state) {
        return ResponseEntity.ok()
                .eTag("\"" + state.version() + "-" + state.scheme() + "\"")
                .varyBy(SchemeInView.HEADER)
                .body(state);
    }
}
