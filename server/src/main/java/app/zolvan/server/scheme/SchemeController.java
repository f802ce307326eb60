package app.zolvan.server.scheme;

import app.zolvan.core.assign.SchemeState;
import app.zolvan.server.account.Account;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Query;
import app.zolvan.server.scheme.SchemeCommands.Beginning;
import jakarta.validation.constraints.NotEmpty;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A project's schemes. */
@RestController
@RequestMapping("/api/projects/{id}/schemes")
class SchemeController {
    private final SchemeCommands commands;
    private final DiagramService diagrams;

    SchemeController(SchemeCommands commands, DiagramService diagrams) {
        this.commands = commands;
        this.diagrams = diagrams;
    }

    /** @param of the scheme to copy or to be based on; null for an empty one */
    record NewScheme(
            @NotNull @Size(max = 120) String name,
            @NotNull Beginning beginning,
            @Nullable UUID of) {}

    record SchemeText(
            @NotNull @Size(max = 120) String name,
            @NotNull @Size(max = 2000) String description,
            @NotNull SchemeState state,
            @NotNull @Size(max = 500) String reason) {}

    record SchemeOrder(@NotEmpty @Size(max = 1000) List<UUID> schemes) {}

    @PostMapping
    ProjectState create(Edit edit, @Validated @RequestBody NewScheme wanted) {
        if (wanted.beginning() != Beginning.EMPTY && wanted.of() == null) {
            throw Problem.ofField("of", "Say which scheme it is to begin with.");
        }
        return commands.create(edit, UUID.randomUUID(), wanted.name(), wanted.beginning(), wanted.of());
    }

    @PutMapping("/{scheme}")
    ProjectState describe(Edit edit, @PathVariable UUID scheme, @Validated @RequestBody SchemeText text) {
        return commands.describe(
                edit, scheme, new SchemeCommands.Words(text.name(), text.description(), text.state(), text.reason()));
    }

    @PutMapping("/order")
    ProjectState order(Edit edit, @Validated @RequestBody SchemeOrder order) {
        return commands.order(edit, order.schemes());
    }

    @DeleteMapping("/{scheme}")
    ProjectState delete(Edit edit, @PathVariable UUID scheme) {
        return commands.delete(edit, scheme);
    }

    /** Colours and hatches by which what surfaces are is told apart: materials as the scheme in view has them. */
    @GetMapping("/diagram")
    DiagramService.Diagram diagram(Query query, @RequestParam DiagramService.By by) {
        return diagrams.of(query, by);
    }

    /** Materials that nearly match in the scheme in view, those that come nearest first. */
    @GetMapping("/near-twins")
    List<SchemeCommands.TwinsWire> nearTwins(Query query) {
        return commands.nearTwins(query);
    }

    /** What looks different in another scheme, most of it first. */
    @GetMapping("/{scheme}/differences")
    List<SchemeCommands.DifferenceWire> differences(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID scheme,
            @RequestParam UUID other) {
        return commands.differences(account, id, scheme, other);
    }
}
