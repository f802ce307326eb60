package app.zolvan.server.scheme;

import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
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
    ProjectState state(Query query) {
        return commands.state(query);
    }

    @PostMapping("/details")
    ProjectState changeDetails(Edit edit, @Validated @RequestBody NewDetails d) {
        LengthUnit unit;
        try {
            unit = LengthUnit.ofSymbol(d.unit());
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("unit", "Lengths can be shown in mm, cm, m, in or ft.");
        }
        return commands.changeDetails(edit, d.name(), d.client(), unit);
    }

    @PostMapping("/undo")
    ProjectState undo(Edit edit, @RequestParam(defaultValue = "false") boolean force) {
        return commands.undo(edit, force);
    }

    @PostMapping("/redo")
    ProjectState redo(Edit edit, @RequestParam(defaultValue = "false") boolean force) {
        return commands.redo(edit, force);
    }
}
