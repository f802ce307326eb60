package app.zolvan.server.project;

import app.zolvan.server.account.Account;
import app.zolvan.server.asset.SmallPicture;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
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

    /** @param own whether the designer has made it; else they work on it with whoever has */
    record ProjectCard(
            UUID id,
            boolean own,
            String name,
            String client,
            int parts,
            int triangles,
            boolean pictured,
            Instant touchedAt) {}

    @GetMapping
    List<ProjectCard> list(@AuthenticationPrincipal Account account) {
        return projects.ofAccount(account).stream()
                .map(c -> new ProjectCard(
                        c.id(),
                        c.owner().equals(account.id()),
                        c.name(),
                        c.client(),
                        c.parts(),
                        c.triangles(),
                        c.pictured(),
                        c.touchedAt()))
                .toList();
    }

    @GetMapping(path = "/{id}/thumbnail", produces = MediaType.IMAGE_JPEG_VALUE)
    byte[] thumbnail(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return projects.thumbnail(account, id);
    }

    @PutMapping(path = "/{id}/thumbnail", consumes = MediaType.IMAGE_JPEG_VALUE)
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putThumbnail(@AuthenticationPrincipal Account account, @PathVariable UUID id, HttpServletRequest request)
            throws IOException {
        projects.putThumbnail(account, id, SmallPicture.of(request));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.delete(account, id);
    }
}
