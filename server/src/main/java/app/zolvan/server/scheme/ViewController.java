package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.asset.SmallPicture;
import app.zolvan.server.project.Seen;
import app.zolvan.server.view.ViewCamera;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Named views of a project's model. */
@RestController
@RequestMapping("/api/projects/{id}/views")
class ViewController {
    private final ViewCommands commands;

    ViewController(ViewCommands commands) {
        this.commands = commands;
    }

    /**
     * @param id         made by whoever asks, so that asking twice keeps it once
     * @param lookedInto parts that one sees through in it
     */
    record ViewWanted(
            @NotNull UUID id,
            @NotNull @Size(max = 200) String name,
            @NotNull @Valid ViewCamera camera,
            @NotNull @Size(max = 10_000) List<Integer> lookedInto) {}

    @PostMapping
    ResponseEntity<ProjectState> keep(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            Seen seen,
            @Validated @RequestBody ViewWanted w) {
        return CommandController.tagged(commands.keep(account, id, seen, w.id(), w.name(), w.camera(), w.lookedInto()));
    }

    @PostMapping("/{view}/camera")
    ResponseEntity<ProjectState> take(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID view,
            Seen seen,
            @Validated @RequestBody ViewCamera c) {
        return CommandController.tagged(commands.take(account, id, seen, view, c));
    }

    record ViewName(@NotNull @Size(max = 200) String name) {}

    @PostMapping("/{view}/name")
    ResponseEntity<ProjectState> rename(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID view,
            Seen seen,
            @Validated @RequestBody ViewName n) {
        return CommandController.tagged(commands.rename(account, id, seen, view, n.name()));
    }

    record SeenThrough(@NotNull @Size(max = 10_000) List<Integer> parts) {}

    @PostMapping("/{view}/looked-into")
    ResponseEntity<ProjectState> lookInto(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID view,
            Seen seen,
            @Validated @RequestBody SeenThrough s) {
        return CommandController.tagged(commands.lookInto(account, id, seen, view, s.parts()));
    }

    @DeleteMapping("/{view}")
    ResponseEntity<ProjectState> drop(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID view, Seen seen) {
        return CommandController.tagged(commands.drop(account, id, seen, view));
    }

    @GetMapping(path = "/{view}/picture", produces = MediaType.IMAGE_JPEG_VALUE)
    byte[] picture(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID view) {
        return commands.picture(account, id, view);
    }

    @PutMapping(path = "/{view}/picture", consumes = MediaType.IMAGE_JPEG_VALUE)
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putPicture(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID view,
            HttpServletRequest request)
            throws IOException {
        commands.putPicture(account, id, view, SmallPicture.of(request));
    }
}
