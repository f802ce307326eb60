package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.RuleService.Outcome;
import app.zolvan.server.scheme.RuleService.RuleListWire;
import app.zolvan.server.scheme.RuleService.RuleWire;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rules that dress parts by what is known of them. */
@RestController
class RuleController {
    private final RuleService rules;

    RuleController(RuleService rules) {
        this.rules = rules;
    }

    record RuleListName(@NotNull @Size(max = 120) String name) {}

    record Rules(@NotNull @Size(max = 200) List<@NotNull RuleWire> rules) {}

    @GetMapping("/api/rule-lists")
    List<RuleListWire> lists(@AuthenticationPrincipal Account account) {
        return rules.lists(account);
    }

    @PostMapping("/api/rule-lists")
    RuleListWire create(@AuthenticationPrincipal Account account, @Validated @RequestBody RuleListName n) {
        return rules.create(account, n.name());
    }

    @PutMapping("/api/rule-lists/{list}")
    RuleListWire change(
            @AuthenticationPrincipal Account account, @PathVariable UUID list, @Validated @RequestBody Rules r) {
        return rules.change(account, list, r.rules());
    }

    @DeleteMapping("/api/rule-lists/{list}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID list) {
        rules.delete(account, list);
    }

    /** What each rule would do in this project; changes nothing. */
    @GetMapping("/api/projects/{id}/rule-lists/{list}")
    List<Outcome> preview(Query query, @PathVariable UUID list) {
        return rules.preview(query, list);
    }

    @PostMapping("/api/projects/{id}/rule-lists/{list}/apply")
    ProjectState apply(Edit edit, @PathVariable UUID list) {
        return rules.apply(edit, list);
    }
}
