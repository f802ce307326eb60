package app.zolvan.server.project;

import app.zolvan.server.account.Account;
import app.zolvan.server.account.Audit;
import app.zolvan.server.event.EventService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.TeamController.ColleagueWire;
import app.zolvan.server.project.TeamController.Looking;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Designers who work on a project together. */
@Service
public class TeamService {
    private final ProjectService projects;
    private final ProjectMapper mapper;
    private final EventService events;
    private final Audit audit;

    TeamService(ProjectService projects, ProjectMapper mapper, EventService events, Audit audit) {
        this.projects = projects;
        this.mapper = mapper;
        this.events = events;
        this.audit = audit;
    }

    List<ColleagueWire> of(Account account, UUID project) {
        projects.require(account, project);
        return mapper.team(project);
    }

    /** Whoever owns a project takes somebody in. */
    @Transactional
    List<ColleagueWire> join(Account account, UUID project, String login) {
        projects.requireOwned(account, project);
        UUID colleague = mapper.account(login.strip().toLowerCase(Locale.ROOT))
                .orElseThrow(() -> Problem.ofField(
                        "login", "Nobody here signs in as “" + login.strip() + "”. Look at how they spell it."));
        if (!colleague.equals(account.id())) {
            mapper.join(project, colleague);
            audit.note(account.login(), "taken into a project", login.strip());
        }
        return mapper.team(project);
    }

    /** Whoever owns a project lets somebody go; anybody but the owner may leave. */
    @Transactional
    List<ColleagueWire> leave(Account account, UUID project, UUID colleague) {
        Project p = projects.require(account, project);
        if (colleague.equals(p.owner())) {
            throw Problem.conflict("owner", "Whoever made the project can’t leave it. Delete it instead.", null);
        }
        if (!colleague.equals(account.id())) {
            projects.requireOwned(account, project);
        }
        mapper.leave(project, colleague);
        audit.note(account.login(), "no longer on a project", p.name());
        return mapper.team(project);
    }

    /** Tells everybody else on the project, and the account's own other pages, what one looks at. */
    @Transactional
    void look(Account account, UUID project, Looking l) {
        projects.require(account, project);
        Map<String, Object> told = new HashMap<>(
                Map.of("project", project, "page", l.page(), "name", account.displayName(), "parts", l.parts()));
        told.put("scheme", l.scheme());
        events.announce(mapper.accounts(project), "presence", told);
    }
}
