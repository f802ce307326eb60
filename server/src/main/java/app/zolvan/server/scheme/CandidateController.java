package app.zolvan.server.scheme;

import app.zolvan.server.project.Edit;
import app.zolvan.server.scheme.AssignCommands.Spot;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.validation.annotation.Validated;
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
    ProjectState keep(Edit edit, @Validated @RequestBody Candidate c) {
        return commands.keep(edit, c.spot(), c.material());
    }

    @PostMapping("/dropped")
    ProjectState drop(Edit edit, @Validated @RequestBody Candidate c) {
        return commands.drop(edit, c.spot(), c.material());
    }

    /** A scheme of every combination. */
    @PostMapping("/schemes")
    ProjectState combine(Edit edit, @Validated @RequestBody Combined wanted) {
        return commands.combine(
                edit, wanted.of().stream().map(AssignController.SlotOf::spot).toList());
    }
}
