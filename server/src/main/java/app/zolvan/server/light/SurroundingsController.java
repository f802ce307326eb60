package app.zolvan.server.light;

import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RestController;

/** What the stage needs to know of supplied surroundings beside their pictures; for whoever is signed in. */
@RestController
class SurroundingsController {
    private final SurroundingsService surroundings;

    SurroundingsController(SurroundingsService surroundings) {
        this.surroundings = surroundings;
    }

    @GetMapping("/api/surroundings/{name}")
    SurroundingsWire parted(@PathVariable String name) {
        return SurroundingsWire.of(surroundings.parted(name));
    }
}
