package app.zolvan.server.scheme;

import app.zolvan.server.library.FactsWire;
import app.zolvan.server.project.Edit;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** What comes into a project from libraries: kits, materials as they are kept, substances. */
@RestController
@RequestMapping("/api/projects/{id}")
class KeepController {
    private final KeepCommands commands;
    private final SupplierCommands suppliers;

    KeepController(KeepCommands commands, SupplierCommands suppliers) {
        this.commands = commands;
        this.suppliers = suppliers;
    }

    @PostMapping("/kits/{kit}")
    ProjectState lay(Edit edit, @PathVariable UUID kit) {
        return commands.lay(edit, kit);
    }

    @PostMapping("/materials/{material}/as-kept")
    ProjectState takeKept(Edit edit, @PathVariable UUID material) {
        return commands.takeKept(edit, material);
    }

    @PostMapping("/materials/{material}/facts")
    ProjectState tell(Edit edit, @PathVariable UUID material, @RequestBody FactsWire facts) {
        return commands.tell(edit, material, facts.facts());
    }

    /**
     * @param width of what the photograph shows, in metres; null for what the supplier says
     * @param meet  whether its edges are made to meet; null for no
     */
    record Bringing(@Nullable Double width, @Nullable Boolean meet) {}

    /** Brings an article of the supplier's into the palette. */
    @PostMapping("/supplier/{number}")
    ProjectState bring(Edit edit, @PathVariable String number, @RequestBody Bringing b) {
        boolean meet = b.meet() != null && b.meet();
        return suppliers.bring(edit, number, b.width(), meet);
    }

    /**
     * @param of another material; null for nothing known
     * @param withLook whether its look comes along
     */
    record MadeOf(@Nullable UUID of, boolean withLook) {}

    @PostMapping("/materials/{material}/substance")
    ProjectState setSubstance(Edit edit, @PathVariable UUID material, @Validated @RequestBody MadeOf m) {
        return commands.setSubstance(edit, material, m.of(), m.withLook());
    }
}
