package app.zolvan.server.library;

import app.zolvan.core.material.Substance;
import app.zolvan.server.account.Account;
import app.zolvan.server.project.ProjectService;
import java.util.Arrays;
import java.util.List;
import java.util.UUID;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** The library's materials. */
@RestController
class LibraryController {
    private final MaterialService materials;
    private final ChipService chips;
    private final ProjectService projects;

    LibraryController(MaterialService materials, ChipService chips, ProjectService projects) {
        this.materials = materials;
        this.chips = chips;
        this.projects = projects;
    }

    /** A substance by its index of refraction, and the share of its speed that it leaves to light. */
    record SubstanceWire(String name, double ior, double lightShare) {}

    @GetMapping("/api/library/substances")
    List<SubstanceWire> substances() {
        return Arrays.stream(Substance.values())
                .map(s -> new SubstanceWire(s.label(), s.ior(), s.lightSpeed() / Substance.LIGHT))
                .toList();
    }

    /** The traced picture of a material that a project may show; 202 while it is being made. */
    @GetMapping("/api/projects/{projectId}/materials/{id}/chip")
    ResponseEntity<byte[]> chip(
            @AuthenticationPrincipal Account account, @PathVariable UUID projectId, @PathVariable UUID id) {
        projects.require(account, projectId);
        return chips.find(materials.requireUsable(projectId, id), account.id())
                .map(png -> ResponseEntity.ok()
                        .contentType(MediaType.IMAGE_PNG)
                        .cacheControl(CacheControl.noCache().cachePrivate())
                        .body(png))
                .orElseGet(() -> ResponseEntity.accepted().build());
    }

    @GetMapping("/api/library/materials")
    List<MaterialWire> materials() {
        return materials.library().stream().map(m -> MaterialWire.of(m, null)).toList();
    }
}
