package app.zolvan.server.model;

import app.zolvan.core.texture.DrawnRelief;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.PostedPicture;
import app.zolvan.server.asset.Quota;
import app.zolvan.server.project.ProjectService;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.io.IOException;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Pictures that designers bring to a project's materials. */
@RestController
class PictureController {
    private static final int MOST_BYTES = 64 << 20;
    private static final int LOOKED_AT = 100_000;

    private final ModelStore models;
    private final ProjectService projects;
    private final Quota quota;

    private static final String PNG = "image/png";

    PictureController(ModelStore models, ProjectService projects, Quota quota) {
        this.quota = quota;
        this.models = models;
        this.projects = projects;
    }

    record KeptPicture(String sha256) {}

    /**
     * @param detail width of a detail in metres
     * @param depth  in metres
     */
    record NewRelief(
            @NotNull DrawnRelief name,
            double detail,
            double depth,
            @Min(0) @Max(1_000_000) int seed) {}

    /**
     * @param sha256  of the picture of its normals
     * @param heights of that of its heights
     * @param size    of one repeat, in metres
     */
    record ReliefMade(String sha256, String heights, double size) {}

    /** Draws the normals and heights of a relief; the same one is kept once. */
    @PostMapping("/api/projects/{id}/reliefs")
    @Transactional
    public ReliefMade draw(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody NewRelief r) {
        projects.require(account, id);

        DrawnRelief.Pictures drawn = r.name().drawn(r.detail(), r.depth(), r.seed());
        return new ReliefMade(
                models.bring(id, drawn.normals(), PNG),
                models.bring(id, drawn.heights(), PNG),
                DrawnRelief.repeat(r.detail()));
    }

    /** Takes a PNG or JPEG as the request's body; the same one is kept once. */
    @PostMapping("/api/projects/{id}/pictures")
    public KeptPicture add(@AuthenticationPrincipal Account account, @PathVariable UUID id, HttpServletRequest request)
            throws IOException {
        projects.require(account, id);
        quota.require(account.id(), request.getContentLengthLong());
        PostedPicture picture = PostedPicture.of(request, MOST_BYTES, LOOKED_AT);
        return new KeptPicture(
                models.bring(id, picture.bytes(), picture.header().mediaType()));
    }
}
