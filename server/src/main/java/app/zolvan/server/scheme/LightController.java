package app.zolvan.server.scheme;

import app.zolvan.core.light.LightSetup;
import app.zolvan.server.project.Edit;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.UUID;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** A project's light set-ups. */
@RestController
@RequestMapping("/api/projects/{id}/lights")
class LightController {
    private final LightCommands commands;

    LightController(LightCommands commands) {
        this.commands = commands;
    }

    record LightValues(@NotNull @Size(max = 40) String surroundings, double strength, double turn, double stops) {}

    @PutMapping("/{light}")
    ProjectState set(Edit edit, @PathVariable UUID light, @Validated @RequestBody LightValues v) {
        return commands.set(edit, light, new LightSetup(v.surroundings(), v.strength(), v.turn(), v.stops()));
    }

    record LightName(@NotNull @Size(max = 120) String name) {}

    @PostMapping("/{light}/name")
    ProjectState rename(Edit edit, @PathVariable UUID light, @Validated @RequestBody LightName n) {
        return commands.rename(edit, light, n.name());
    }

    /** @param id made by whoever asks, so that asking twice makes it once */
    record LightCopy(
            @NotNull UUID id, @NotNull @Size(max = 120) String name) {}

    @PostMapping("/{light}/copies")
    ProjectState copy(Edit edit, @PathVariable UUID light, @Validated @RequestBody LightCopy c) {
        return commands.copy(edit, c.id(), light, c.name());
    }

    @DeleteMapping("/{light}")
    ProjectState remove(Edit edit, @PathVariable UUID light) {
        return commands.remove(edit, light);
    }
}
