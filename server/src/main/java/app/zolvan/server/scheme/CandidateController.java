package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Seen;
import app.zolvan.server.scheme.AssignCommands.Spot;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Looks to choose from. */
@RestController
@RequestMapping("/api/projects/{id}/candidates")
class CandidateController {
    private final CandidateCommands commands;

    CandidateController(CandidateCommands commands) {
        this.commands = commands;
    }

    /** @param target index of the model, set, group or part */
    record Candidate(
            @NotNull String level, int target, @NotNull UUID material) {
        Spot spot() {
            return new Spot(AssignController.level(level), target, null);
        }
    }

    record Combined(@NotEmpty @Size(max = 100) List<AssignController.SlotOf> of) {}

    @PostMapping
    ResponseEntity<ProjectState> keep(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody Candidate c) {
        return CommandController.tagged(commands.keep(account, id, seen, c.spot(), c.material()));
    }

    @PostMapping("/dropped")
    ResponseEntity<ProjectState> drop(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody Candidate c) {
        return CommandController.tagged(commands.drop(account, id, seen, c.spot(), c.material()));
    }

    /** A scheme of every combination. */
    @PostMapping("/schemes")
    ResponseEntity<ProjectState> combine(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody Combined wanted) {
        return CommandController.tagged(commands.combine(
                account,
                id,
                seen,
                wanted.of().stream().map(AssignController.SlotOf::spot).toList()));
    }
}
