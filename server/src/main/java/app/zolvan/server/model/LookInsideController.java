package app.zolvan.server.model;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.ProjectService;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Which faces one looks through from outside. */
@RestController
class LookInsideController {
    private final LookInsideService inside;
    private final ProjectService projects;

    LookInsideController(LookInsideService inside, ProjectService projects) {
        this.inside = inside;
        this.projects = projects;
    }

    /**
     * Which triangles of a part that one looks into face the outside: a byte for each, 1 where it does.
     *
     * @param view in which one may look into more than always; null for none
     */
    @GetMapping(value = "/api/projects/{id}/parts/{part}/outer", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    ResponseEntity<byte[]> outer(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int part,
            @RequestParam(required = false) UUID view) {
        projects.require(account, id);
        return ResponseEntity.ok().cacheControl(CacheControl.noStore()).body(inside.outer(id, part, view));
    }
}
