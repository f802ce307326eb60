package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Edit;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What has been done to a project. */
@RestController
@RequestMapping("/api/projects/{id}/history")
class HistoryController {
    private final HistoryCommands commands;

    HistoryController(HistoryCommands commands) {
        this.commands = commands;
    }

    @GetMapping
    List<HistoryCommands.MomentWire> list(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @RequestParam(required = false) Long before) {
        return commands.list(account, id, before);
    }

    record MomentName(@NotNull @Size(max = 120) String name) {}

    @PutMapping("/{moment}/name")
    void name(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable long moment,
            @Validated @RequestBody MomentName name) {
        commands.name(account, id, moment, name.name());
    }

    @PostMapping("/{moment}/return")
    ProjectState backTo(Edit edit, @PathVariable long moment, @RequestParam(defaultValue = "false") boolean force) {
        return commands.backTo(edit, moment, force);
    }
}
