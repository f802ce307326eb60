package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.asset.SmallPicture;
import app.zolvan.server.project.Edit;
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
    ProjectState keep(Edit edit, @Validated @RequestBody ViewWanted w) {
        return commands.keep(edit, w.id(), w.name(), w.camera(), w.lookedInto());
    }

    @PostMapping("/{view}/camera")
    ProjectState take(Edit edit, @PathVariable UUID view, @Validated @RequestBody ViewCamera c) {
        return commands.take(edit, view, c);
    }

    record ViewName(@NotNull @Size(max = 200) String name) {}

    @PostMapping("/{view}/name")
    ProjectState rename(Edit edit, @PathVariable UUID view, @Validated @RequestBody ViewName n) {
        return commands.rename(edit, view, n.name());
    }

    record SeenThrough(@NotNull @Size(max = 10_000) List<Integer> parts) {}

    @PostMapping("/{view}/looked-into")
    ProjectState lookInto(Edit edit, @PathVariable UUID view, @Validated @RequestBody SeenThrough s) {
        return commands.lookInto(edit, view, s.parts());
    }

    @DeleteMapping("/{view}")
    ProjectState drop(Edit edit, @PathVariable UUID view) {
        return commands.drop(edit, view);
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
