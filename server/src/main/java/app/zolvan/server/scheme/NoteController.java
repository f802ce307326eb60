package app.zolvan.server.scheme;

import app.zolvan.server.project.Edit;
import app.zolvan.server.scheme.AssignCommands.Spot;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
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
    ProjectState write(Edit edit, @Validated @RequestBody NoteWanted n) {
        return commands.write(edit, n.id(), n.about(), n.text());
    }

    record NoteText(@NotNull @Size(max = 5000) String text) {}

    @PostMapping("/{note}/text")
    ProjectState rewrite(Edit edit, @PathVariable UUID note, @Validated @RequestBody NoteText t) {
        return commands.rewrite(edit, note, t.text());
    }

    record NoteSettled(boolean settled) {}

    @PostMapping("/{note}/settled")
    ProjectState settle(Edit edit, @PathVariable UUID note, @Validated @RequestBody NoteSettled s) {
        return commands.settle(edit, note, s.settled());
    }

    @DeleteMapping("/{note}")
    ProjectState drop(Edit edit, @PathVariable UUID note) {
        return commands.drop(edit, note);
    }
}
