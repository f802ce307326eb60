package app.zolvan.server.model;

import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.job.Job;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import jakarta.servlet.http.HttpServletRequest;
import java.io.IOException;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Models in (upload, import) and out (export). */
@RestController
class ModelController {
    private final AssetService assets;
    private final ImportService imports;
    private final ModelStore store;
    private final ProjectService projects;
    private final SchemeService schemes;
    private final ZolvanProperties properties;

    ModelController(
            AssetService assets,
            ImportService imports,
            ModelStore store,
            ProjectService projects,
            SchemeService schemes,
            ZolvanProperties properties) {
        this.assets = assets;
        this.imports = imports;
        this.store = store;
        this.projects = projects;
        this.schemes = schemes;
        this.properties = properties;
    }

    record Limits(long uploadBytes) {}

    @GetMapping("/api/limits")
    Limits limits() {
        return new Limits(properties.uploadLimit().toBytes());
    }

    /**
     * Takes a file as the request's body, stored as it streams in, and starts importing it.
     *
     * @param fileName URL-encoded, so that any name fits into a header
     */
    @PostMapping("/api/imports")
    @ResponseStatus(HttpStatus.ACCEPTED)
    Job upload(
            @AuthenticationPrincipal Account account,
            @RequestHeader("X-File-Name") String fileName,
            HttpServletRequest request)
            throws IOException {
        long limit = properties.uploadLimit().toBytes();
        if (request.getContentLengthLong() > limit) {
            throw AssetService.tooLarge(limit);
        }
        String name = URLDecoder.decode(fileName, StandardCharsets.UTF_8)
                .replaceAll("[\\p{Cntrl}/\\\\]", " ")
                .strip();
        if (name.isEmpty() || name.length() > 200) {
            throw Problem.ofField("fileName", "The file needs a name of up to 200 characters.");
        }
        return imports.receive(account.id(), name, request.getInputStream(), limit);
    }

    @GetMapping("/api/projects/{id}/scene")
    Scene scene(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        projects.require(account, id);
        return store.scene(id);
    }

    /** The model as GLB with the looks it shows now. */
    @GetMapping("/api/projects/{id}/export.glb")
    ResponseEntity<StreamingResponseBody> export(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        Project project = projects.require(account, id);
        LookTable looks = schemes.looks(project);
        DressedModel dressed =
                new DressedModel(project.name(), store.model(id), looks::of, digest -> assets.bytes(digest));
        ContentDisposition attachment = ContentDisposition.attachment()
                .filename(project.name() + ".glb", StandardCharsets.UTF_8)
                .build();
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, attachment.toString())
                .contentType(MediaType.parseMediaType("model/gltf-binary"))
                .body(out -> GltfWriter.write(dressed, out));
    }
}
