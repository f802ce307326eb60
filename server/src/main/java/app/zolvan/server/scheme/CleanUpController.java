package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.model.Leftovers;
import app.zolvan.server.project.Edit;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What nothing of a project uses. */
@RestController
@RequestMapping("/api/projects/{id}/leftovers")
class CleanUpController {
    private final CleanUpCommands commands;

    CleanUpController(CleanUpCommands commands) {
        this.commands = commands;
    }

    @GetMapping
    Leftovers leftovers(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return commands.leftovers(account, id);
    }

    @PostMapping("/remove")
    ProjectState remove(Edit edit, @RequestBody CleanUpCommands.Going going) {
        return commands.remove(edit, going);
    }
}
