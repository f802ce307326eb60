package app.zolvan.server.scheme;

import app.zolvan.core.prepare.Splitting;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelSurvey;
import app.zolvan.server.model.SetWire;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Seen;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
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

/** The matching sets of a project's model and the commands that change them. */
@RestController
@RequestMapping("/api/projects/{id}/sets")
class SetController {
    private final PartCommands commands;
    private final ProjectService projects;
    private final ModelSurvey survey;

    SetController(PartCommands commands, ProjectService projects, ModelSurvey survey) {
        this.commands = commands;
        this.projects = projects;
        this.survey = survey;
    }

    @GetMapping
    List<SetWire> sets(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return survey.sets(id);
    }

    record SetName(@NotNull @Size(max = 200) String name) {}

    @PostMapping("/{set}/name")
    ResponseEntity<ProjectState> rename(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int set,
            Seen seen,
            @Validated @RequestBody SetName n) {
        return CommandController.tagged(commands.renameSet(account, id, seen, set, n.name()));
    }

    record Merging(@NotEmpty @Size(max = 100_000) List<Integer> sets) {}

    /** Makes one of several sets. */
    @PostMapping("/merge")
    ResponseEntity<ProjectState> merge(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody Merging m) {
        return CommandController.tagged(commands.merge(account, id, seen, m.sets()));
    }

    /** What a split would make of a set, the one that stays first; changes nothing. */
    @GetMapping("/{set}/kinds")
    List<Splitting.Kind> kinds(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int set,
            @RequestParam Splitting.By by) {
        return commands.splitting(account, id, set, by).kinds();
    }

    record SplitBy(Splitting.@NotNull By by) {}

    @PostMapping("/{set}/split")
    ResponseEntity<ProjectState> split(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int set,
            Seen seen,
            @Validated @RequestBody SplitBy s) {
        return CommandController.tagged(commands.split(account, id, seen, set, s.by()));
    }
}
