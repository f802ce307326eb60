package app.zolvan.server.model;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.ageing.Leaves;
import app.zolvan.core.material.Parameter;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
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

/** How parts age. */
@RestController
class AgeingController {
    private final AgeingService ageing;
    private final ProjectService projects;

    AgeingController(AgeingService ageing, ProjectService projects) {
        this.ageing = ageing;
        this.projects = projects;
    }

    /**
     * How readily a part ages from place to place, as {@link AgeFields#encode} writes it.
     *
     * @param corrodes whether it weathers as metal does
     */
    @GetMapping(value = "/api/projects/{id}/parts/{part}/ageing", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    ResponseEntity<byte[]> ageing(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int part,
            @RequestParam(defaultValue = "false") boolean corrodes) {
        projects.require(account, id);
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(ageing.of(id, part, corrodes).encode());
    }

    /**
     * The leaves that cover a span of a part wholly, in the order in which they come, as {@link Leaves#encode} writes them.
     *
     * @param size mean length of a leaf in metres
     */
    @GetMapping(value = "/api/projects/{id}/parts/{part}/leaves", produces = MediaType.APPLICATION_OCTET_STREAM_VALUE)
    ResponseEntity<byte[]> leaves(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable int part,
            @RequestParam int span,
            @RequestParam double size) {
        projects.require(account, id);
        if (!(size >= Parameter.LEAF_SIZE.min() && size <= Parameter.LEAF_SIZE.max())) {
            throw Problem.ofField("size", "Leaves are 10 to 500 mm long.");
        }
        return ResponseEntity.ok()
                .cacheControl(CacheControl.noStore())
                .body(ageing.leaves(id, part, span, size).encode());
    }
}
