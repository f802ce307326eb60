package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.library.FindingService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.library.MeasureWire;
import app.zolvan.server.project.ProjectService;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What is measured of materials, on a project's own model. */
@RestController
class MeasureController {
    private final ProjectService projects;
    private final MaterialService materials;
    private final FindingService finding;
    private final SceneSource scenes;

    MeasureController(ProjectService projects, MaterialService materials, FindingService finding, SceneSource scenes) {
        this.projects = projects;
        this.materials = materials;
        this.finding = finding;
        this.scenes = scenes;
    }

    /** Of a material that the project may show. */
    @GetMapping("/api/projects/{id}/materials/{material}/measure")
    MeasureWire measure(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID material) {
        projects.require(account, id);
        MaterialRow row = materials.requireUsable(account, id, material);
        return MeasureWire.of(
                finding.measure(row), scenes.scene(id).box().size(), finding.projectsWith(account.id(), row));
    }
}
