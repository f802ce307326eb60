package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.project.Edit;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Faces that designers cut into a project's parts. */
@RestController
@RequestMapping("/api/projects/{id}/own-faces")
class FaceController {
    private final FaceCommands commands;

    FaceController(FaceCommands commands) {
        this.commands = commands;
    }

    /**
     * @param mesh    SHA-256 of the geometry that its corners are of
     * @param corners vertices that the way goes through
     */
    record WayWanted(
            int part,
            @NotNull @Size(max = 64) String mesh,
            @NotEmpty @Size(max = 200) List<Integer> corners,
            boolean closed) {}

    /** The way along edges through some corners, and what it parts; changes nothing. */
    @PostMapping("/ways")
    FaceCommands.Way way(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody WayWanted w) {
        return commands.way(account, id, new FaceCommands.Picked(w.part(), w.mesh(), w.corners()), w.closed());
    }

    /** @param mesh SHA-256 of the geometry that its triangles are of */
    record FaceWanted(
            int part,
            @NotNull @Size(max = 64) String mesh,
            @NotEmpty @Size(max = 2_000_000) List<Integer> triangles,
            @NotNull @Size(max = 200) String name) {}

    @PostMapping
    ProjectState cut(Edit edit, @Validated @RequestBody FaceWanted f) {
        return commands.cut(edit, new FaceCommands.Picked(f.part(), f.mesh(), f.triangles()), f.name());
    }

    record FaceName(@NotNull @Size(max = 200) String name) {}

    @PostMapping("/{face}/name")
    ProjectState rename(Edit edit, @PathVariable int face, @Validated @RequestBody FaceName n) {
        return commands.rename(edit, face, n.name());
    }

    /** Makes a face nothing but its part again. */
    @PostMapping("/{face}/join")
    ProjectState join(Edit edit, @PathVariable int face) {
        return commands.join(edit, face);
    }
}
