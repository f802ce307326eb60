package app.zolvan.server.model;

import app.zolvan.server.account.Account;
import app.zolvan.server.asset.PostedPicture;
import app.zolvan.server.project.ProjectService;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** Pictures that designers bring to a project's materials. */
@RestController
class PictureController {
    private static final int MOST_BYTES = 64 << 20;
    private static final int LOOKED_AT = 100_000;

    private final ModelStore models;
    private final ProjectService projects;

    PictureController(ModelStore models, ProjectService projects) {
        this.models = models;
        this.projects = projects;
    }

    record KeptPicture(String sha256) {}

    /** Takes a PNG or JPEG as the request's body; the same one is kept once. */
    @PostMapping("/api/projects/{id}/pictures")
    @Transactional
    public KeptPicture add(@AuthenticationPrincipal Account account, @PathVariable UUID id, HttpServletRequest request)
            throws IOException {
        projects.require(account, id);
        return new KeptPicture(models.bring(id, PostedPicture.of(request, MOST_BYTES, LOOKED_AT)));
    }
}
