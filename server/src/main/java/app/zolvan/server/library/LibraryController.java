package app.zolvan.server.library;

import app.zolvan.core.material.Substance;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;

/** The library's materials. */
@RestController
class LibraryController {
    private final MaterialService materials;

    LibraryController(MaterialService materials) {
        this.materials = materials;
    }

    /** A substance by its index of refraction. */
    record SubstanceWire(String name, double ior) {}

    @GetMapping("/api/library/substances")
    List<SubstanceWire> substances() {
        return Arrays.stream(Substance.values())
                .map(s -> new SubstanceWire(s.label(), s.ior()))
                .toList();
    }

    @GetMapping("/api/library/materials")
    List<MaterialWire> materials() {
        return materials.library().stream().map(m -> MaterialWire.of(m, null)).toList();
    }
}
