package app.zolvan.server.scheme;

import app.zolvan.core.prepare.Splitting;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelSurvey;
import app.zolvan.server.model.SetWire;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
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
    ProjectState rename(Edit edit, @PathVariable int set, @Validated @RequestBody SetName n) {
        return commands.renameSet(edit, set, n.name());
    }

    record Merging(@NotEmpty @Size(max = 100_000) List<Integer> sets) {}

    /** Makes one of several sets. */
    @PostMapping("/merge")
    ProjectState merge(Edit edit, @Validated @RequestBody Merging m) {
        return commands.merge(edit, m.sets());
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
    ProjectState split(Edit edit, @PathVariable int set, @Validated @RequestBody SplitBy s) {
        return commands.split(edit, set, s.by());
    }
}
