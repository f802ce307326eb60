package app.zolvan.server.library;

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

    @GetMapping("/api/library/materials")
    List<MaterialWire> materials() {
        return materials.library().stream().map(m -> MaterialWire.of(m, null)).toList();
    }
}
