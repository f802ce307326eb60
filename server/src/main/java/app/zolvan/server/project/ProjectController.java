package app.zolvan.server.project;

import app.zolvan.server.account.Account;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** The list of projects. */
@RestController
@RequestMapping("/api/projects")
class ProjectController {
    private final ProjectService projects;

    ProjectController(ProjectService projects) {
        this.projects = projects;
    }

    record ProjectCard(UUID id, String name, String client, int parts, int triangles, Instant touchedAt) {}

    @GetMapping
    List<ProjectCard> list(@AuthenticationPrincipal Account account) {
        return projects.ofOwner(account).stream()
                .map(c -> new ProjectCard(c.id(), c.name(), c.client(), c.parts(), c.triangles(), c.touchedAt()))
                .toList();
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.delete(account, id);
    }
}
