package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Seen;
import app.zolvan.server.scheme.AssignCommands.Spot;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Decisions that are left open. */
@RestController
@RequestMapping("/api/projects/{id}/notes")
class NoteController {
    private final NoteCommands commands;

    NoteController(NoteCommands commands) {
        this.commands = commands;
    }

    /**
     * @param id     made by whoever asks, so that asking twice writes it once
     * @param target index of the model, set, group, part or face
     */
    record NoteWanted(
            @NotNull UUID id,
            @NotNull String level,
            int target,
            @NotNull @Size(max = 5000) String text) {
        Spot about() {
            return new Spot(AssignController.level(level), target, null);
        }
    }

    @PostMapping
    ResponseEntity<ProjectState> write(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody NoteWanted n) {
        return CommandController.tagged(commands.write(account, id, seen, n.id(), n.about(), n.text()));
    }

    record NoteText(@NotNull @Size(max = 5000) String text) {}

    @PostMapping("/{note}/text")
    ResponseEntity<ProjectState> rewrite(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID note,
            Seen seen,
            @Validated @RequestBody NoteText t) {
        return CommandController.tagged(commands.rewrite(account, id, seen, note, t.text()));
    }

    record NoteSettled(boolean settled) {}

    @PostMapping("/{note}/settled")
    ResponseEntity<ProjectState> settle(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID note,
            Seen seen,
            @Validated @RequestBody NoteSettled s) {
        return CommandController.tagged(commands.settle(account, id, seen, note, s.settled()));
    }

    @DeleteMapping("/{note}")
    ResponseEntity<ProjectState> drop(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID note, Seen seen) {
        return CommandController.tagged(commands.drop(account, id, seen, note));
    }
}
