package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelUpdates;
import app.zolvan.server.model.ModelUpdates.UpdateWire;
import app.zolvan.server.model.Scene;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** A newer file of a project's model that waits for the designer's word. */
@RestController
@RequestMapping("/api/projects/{id}/update")
class UpdateController {
    private final UpdateCommands commands;
    private final ModelUpdates updates;
    private final ProjectService projects;

    UpdateController(UpdateCommands commands, ModelUpdates updates, ProjectService projects) {
        this.commands = commands;
        this.updates = updates;
        this.projects = projects;
    }

    /** What waits; nothing (204) where none does. */
    @GetMapping
    ResponseEntity<UpdateWire> pending(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        UpdateWire pending = updates.pending(id);
        return pending == null ? ResponseEntity.noContent().build() : ResponseEntity.ok(pending);
    }

    /** The model as the newer file has it. */
    @GetMapping("/scene")
    Scene scene(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return updates.scene(id);
    }

    /** @param older the part of the model that it is; null for none, so that it is new */
    record PartPair(int newer, @Nullable Integer older) {}

    /** @param pairs what the designer has decided, doubtful parts among them */
    record Applying(@NotNull @Size(max = 100_000) List<PartPair> pairs) {}

    @PostMapping
    ProjectState apply(Edit edit, @Validated @RequestBody Applying a) {
        Map<Integer, @Nullable Integer> pairs = new HashMap<>();
        a.pairs().forEach(p -> pairs.put(p.newer(), p.older()));
        return commands.apply(edit, pairs);
    }

    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void leave(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        updates.leave(id);
    }
}
