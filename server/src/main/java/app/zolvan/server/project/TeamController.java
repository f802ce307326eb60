package app.zolvan.server.project;

import app.zolvan.server.account.Account;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
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

/** Who works on a project, and what they look at now. */
@RestController
@RequestMapping("/api/projects/{id}")
class TeamController {
    private final TeamService team;

    TeamController(TeamService team) {
        this.team = team;
    }

    /** @param owner whether it is whoever made the project */
    record ColleagueWire(UUID id, String login, String name, boolean owner) {}

    record Joining(@NotBlank @Size(max = 120) String login) {}

    @GetMapping("/team")
    List<ColleagueWire> team(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return team.of(account, id);
    }

    @PostMapping("/team")
    List<ColleagueWire> join(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Joining j) {
        return team.join(account, id, j.login());
    }

    @DeleteMapping("/team/{colleague}")
    List<ColleagueWire> leave(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID colleague) {
        return team.leave(account, id, colleague);
    }

    /**
     * What somebody looks at.
     *
     * @param page   which of their pages
     * @param scheme null once they have left
     * @param parts  what they have selected; of many the first
     */
    record Looking(
            @NotNull UUID page,
            @Nullable UUID scheme,
            @NotNull @Size(max = 100) List<Integer> parts) {}

    /** Tells the others what one looks at. */
    @PostMapping("/presence")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void look(@AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Looking l) {
        team.look(account, id, l);
    }
}
