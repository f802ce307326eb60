package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.library.FactsWire;
import app.zolvan.server.project.Seen;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
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
    ResponseEntity<ProjectState> lay(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID kit, Seen seen) {
        return CommandController.tagged(commands.lay(account, id, seen, kit));
    }

    @PostMapping("/materials/{material}/as-kept")
    ResponseEntity<ProjectState> takeKept(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID material, Seen seen) {
        return CommandController.tagged(commands.takeKept(account, id, seen, material));
    }

    @PostMapping("/materials/{material}/facts")
    ResponseEntity<ProjectState> tell(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID material,
            Seen seen,
            @RequestBody FactsWire facts) {
        return CommandController.tagged(commands.tell(account, id, seen, material, facts.facts()));
    }

    /**
     * @param width of what the photograph shows, in metres; null for what the supplier says
     * @param meet  whether its edges are made to meet; null for no
     */
    record Bringing(@Nullable Double width, @Nullable Boolean meet) {}

    /** Brings an article of the supplier's into the palette. */
    @PostMapping("/supplier/{number}")
    ResponseEntity<ProjectState> bring(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable String number,
            Seen seen,
            @RequestBody Bringing b) {
        boolean meet = b.meet() != null && b.meet();
        return CommandController.tagged(suppliers.bring(account, id, seen, number, b.width(), meet));
    }

    /**
     * @param of another material; null for nothing known
     * @param withLook whether its look comes along
     */
    record MadeOf(@Nullable UUID of, boolean withLook) {}

    @PostMapping("/materials/{material}/substance")
    ResponseEntity<ProjectState> setSubstance(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID material,
            Seen seen,
            @Validated @RequestBody MadeOf m) {
        return CommandController.tagged(commands.setSubstance(account, id, seen, material, m.of(), m.withLook()));
    }
}
