package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.FindingService;
import app.zolvan.server.library.MaterialWire;
import app.zolvan.server.project.ProjectService;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What to begin with on a part that nobody has dressed. */
@RestController
class SuggestionController {
    private static final int FEW = 3;

    private final ProjectService projects;
    private final ModelSurvey survey;
    private final FindingService finding;

    SuggestionController(ProjectService projects, ModelSurvey survey, FindingService finding) {
        this.projects = projects;
        this.survey = survey;
        this.finding = finding;
    }

    /**
     * @param role      what the part is, as a designer reads it; null where too little is known
     * @param materials what such parts are often made of, a few of them
     */
    record Suggestions(@Nullable String role, List<MaterialWire> materials) {}

    @GetMapping("/api/projects/{id}/parts/{part}/suggestions")
    Suggestions suggestions(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable int part) {
        projects.require(account, id);
        Role role = survey.roleOf(id, part);
        return role == null
                ? new Suggestions(null, List.of())
                : new Suggestions(role.word(), finding.first(account.id(), role.suits(), FEW));
    }
}
