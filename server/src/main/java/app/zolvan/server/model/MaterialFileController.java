package app.zolvan.server.model;

import app.zolvan.core.exchange.formats.MaterialFiles;
import app.zolvan.core.material.Material;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

/** Materials as files for other projects and programs. */
@RestController
class MaterialFileController {
    private final ProjectService projects;
    private final MaterialService materials;
    private final AssetService assets;

    MaterialFileController(ProjectService projects, MaterialService materials, AssetService assets) {
        this.projects = projects;
        this.materials = materials;
        this.assets = assets;
    }

    /**
     * Materials in a zip together with their pictures.
     *
     * @param material one that the project may use; left out for all that it made
     */
    @GetMapping("/api/projects/{id}/material-files/{ending}")
    ResponseEntity<StreamingResponseBody> file(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable String ending,
            @RequestParam(required = false) @Nullable UUID material) {
        Project project = projects.require(account, id);
        if (!MaterialFiles.endings().contains(ending)) {
            throw Problem.notFound("format");
        }
        List<Material> wanted = material == null
                ? materials.ofProject(id).stream()
                        .filter(m -> !m.arrived())
                        .map(MaterialRow::toMaterial)
                        .toList()
                : List.of(materials.requireUsable(account, id, material).toMaterial());
        String name =
                material == null ? project.name() + " materials" : wanted.get(0).name();
        String base = name.replaceAll("[^\\p{L}\\p{N} ._-]", "_");
        ContentDisposition attachment = ContentDisposition.attachment()
                .filename(name + "." + ending + ".zip", StandardCharsets.UTF_8)
                .build();
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, attachment.toString())
                .contentType(MediaType.parseMediaType("application/zip"))
                .body(out -> MaterialFiles.zip(ending, wanted, assets::bytes, base, out));
    }
}
