package app.zolvan.server.asset;

import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** Pictures that designers bring to a project's materials. */
@RestController
class PictureController {
    private static final int MOST_BYTES = 64 << 20;
    private static final int LONGEST_SIDE = 8192;
    private static final int LOOKED_AT = 100_000;
    private static final Set<String> KINDS = Set.of("image/png", "image/jpeg");

    private final AssetService assets;
    private final ProjectService projects;

    PictureController(AssetService assets, ProjectService projects) {
        this.assets = assets;
        this.projects = projects;
    }

    /** A picture of the project, by its digest. */
    record KeptPicture(String sha256, String mediaType) {}

    @GetMapping("/api/projects/{id}/pictures")
    List<KeptPicture> pictures(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return assets.ofProject(id).stream()
                .filter(a -> KINDS.contains(a.mediaType()))
                .map(a -> new KeptPicture(a.sha256(), a.mediaType()))
                .toList();
    }

    /** Takes a PNG or JPEG as the request's body; the same one is kept once. */
    @PostMapping("/api/projects/{id}/pictures")
    @Transactional
    public KeptPicture add(@AuthenticationPrincipal Account account, @PathVariable UUID id, HttpServletRequest request)
            throws IOException {
        projects.require(account, id);
        byte[] bytes = request.getInputStream().readNBytes(MOST_BYTES + 1);
        if (bytes.length > MOST_BYTES) {
            throw AssetService.tooLarge(MOST_BYTES);
        }
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(bytes))
                .filter(h -> KINDS.contains(h.mediaType()))
                .orElseThrow(PictureController::unreadable);
        if (Math.max(header.width(), header.height()) > LONGEST_SIDE) {
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "too-wide",
                    "The picture is " + header.width() + " × " + header.height()
                            + " pixels; 8192 along a side is the most. Save it smaller.");
        }
        try {
            ImageFile.decode(bytes, LOOKED_AT);
        } catch (IOException e) {
            throw unreadable();
        }
        String sha256 = assets.store(bytes, header.mediaType());
        assets.addToProject(id, sha256);
        return new KeptPicture(sha256, header.mediaType());
    }

    private static Problem unreadable() {
        return Problem.of(
                HttpStatus.UNPROCESSABLE_CONTENT,
                "damaged",
                "This is no PNG or JPEG that can be read. Save the picture anew and choose it again.");
    }
}
