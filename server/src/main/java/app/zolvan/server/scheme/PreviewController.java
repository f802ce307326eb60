package app.zolvan.server.scheme;

import app.zolvan.core.render.chip.SampleForm;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Materials seen closely. */
@RestController
class PreviewController {
    private final ProjectService projects;
    private final MaterialService materials;
    private final PreviewService previews;

    PreviewController(ProjectService projects, MaterialService materials, PreviewService previews) {
        this.projects = projects;
        this.materials = materials;
        this.previews = previews;
    }

    /**
     * A picture of a material on a form, or on a part; 202 while there is none. The header X-Picture names it, and whoever asked
     * hears of that name when there is one, or a finer one; X-Final tells whether it is the last.
     *
     * @param form null for the part
     */
    @GetMapping("/api/projects/{id}/materials/{material}/closer")
    ResponseEntity<byte[]> picture(
            Query query,
            @PathVariable UUID material,
            @RequestParam(required = false) @Nullable SampleForm form,
            @RequestParam(required = false) @Nullable Integer part,
            @RequestParam(required = false, defaultValue = "0") int span) {
        Project project = projects.require(query.account(), query.project());
        MaterialRow row = materials.requireUsable(query.account(), query.project(), material);
        if (form == null && part == null) {
            throw Problem.ofField("form", "Choose a form or a part to see it on.");
        }
        PreviewService.Seen p = form == null
                ? previews.onPart(query, project, row, part, span)
                : previews.onForm(query.account(), row, form);
        ResponseEntity.BodyBuilder answer = p.png() == null ? ResponseEntity.accepted() : ResponseEntity.ok();
        answer.cacheControl(CacheControl.noStore())
                .header("X-Picture", p.key())
                .header("X-Final", Boolean.toString(p.done()));
        return p.png() == null
                ? answer.build()
                : answer.contentType(MediaType.IMAGE_PNG).body(p.png());
    }
}
