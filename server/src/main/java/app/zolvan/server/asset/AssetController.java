package app.zolvan.server.asset;

import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import java.time.Duration;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Meshes and textures, for those who may see the project they belong to. What a digest names never changes. */
@RestController
class AssetController {
    private final AssetService assets;
    private final ProjectService projects;

    AssetController(AssetService assets, ProjectService projects) {
        this.assets = assets;
        this.projects = projects;
    }

    @GetMapping("/api/projects/{projectId}/assets/{sha256}")
    ResponseEntity<StreamingResponseBody> projectAsset(
            @AuthenticationPrincipal Account account, @PathVariable UUID projectId, @PathVariable String sha256) {
        requireReadable(account, projectId, sha256);
        return send(sha256);
    }

    @GetMapping("/api/projects/{projectId}/assets/{sha256}/relief")
    ResponseEntity<FineReliefWire> relief(
            @AuthenticationPrincipal Account account, @PathVariable UUID projectId, @PathVariable String sha256) {
        requireReadable(account, projectId, sha256);
        return ResponseEntity.ok().cacheControl(forGood()).body(assets.relief(sha256));
    }

    private void requireReadable(Account account, UUID projectId, String sha256) {
        projects.require(account, projectId);
        if (!assets.isReadable(account.id(), projectId, sha256)) {
            throw Problem.notFound("file");
        }
    }

    private static CacheControl forGood() {
        return CacheControl.maxAge(Duration.ofDays(365)).cachePrivate().immutable();
    }

    @GetMapping("/api/library/assets/{sha256}")
    ResponseEntity<StreamingResponseBody> libraryAsset(@PathVariable String sha256) {
        if (!assets.isInLibrary(sha256)) {
            throw Problem.notFound("file");
        }
        return send(sha256);
    }

    private ResponseEntity<StreamingResponseBody> send(String sha256) {
        AssetMapper.Row asset = assets.find(sha256);
        return ResponseEntity.ok()
                .eTag("\"" + sha256 + "\"")
                .cacheControl(forGood())
                .header("X-Content-Type-Options", "nosniff")
                .contentType(MediaType.parseMediaType(asset.mediaType()))
                .contentLength(asset.size())
                .body(out -> assets.copy(sha256, out));
    }
}
