package app.zolvan.server.library;

import app.zolvan.core.prepare.Renaming;
import app.zolvan.server.account.Account;
import app.zolvan.server.project.ProjectService;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What lies in libraries that are somebody's own or a team's. */
@RestController
class ItemController {
    private final ItemService items;
    private final MaterialService materials;
    private final ProjectService projects;
    private final FindingService finding;

    ItemController(ItemService items, MaterialService materials, ProjectService projects, FindingService finding) {
        this.items = items;
        this.materials = materials;
        this.projects = projects;
        this.finding = finding;
    }

    record Keeping(
            @NotNull UUID library,
            @Nullable UUID drawer,
            @NotNull @Size(min = 1, max = 500) List<@NotNull UUID> materials) {}

    record KeptWire(List<UUID> items) {}

    /** Keeps materials that a project may show in a library. */
    @PostMapping("/api/projects/{id}/library/kept")
    KeptWire keep(@AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Keeping k) {
        projects.require(account, id);
        return new KeptWire(items.keep(account, id, k.materials(), k.library(), k.drawer()));
    }

    /**
     * How a project's material stands to a library's.
     *
     * @param item    null where no library has it
     * @param mayEdit whether the account may change it there
     * @param same    whether it is the same there
     */
    record StandingWire(
            @Nullable MaterialWire item, @Nullable String library, boolean mayEdit, boolean same) {}

    @GetMapping("/api/projects/{id}/materials/{material}/kept")
    StandingWire standing(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID material) {
        projects.require(account, id);
        ItemService.Standing s = items.standing(account, materials.requireUsable(account, id, material));
        return s == null
                ? new StandingWire(null, null, false, false)
                : new StandingWire(
                        MaterialWire.of(s.item(), null),
                        s.library().name(),
                        s.library().role().mayEdit(),
                        s.same());
    }

    /** Brings what a project's material has become to the library's. */
    @PostMapping("/api/projects/{id}/materials/{material}/kept")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void update(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID material) {
        projects.require(account, id);
        items.update(account, id, material);
    }

    record Description(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 200) String code,
            @Nullable @Size(max = 40) String kind,
            @NotNull FactsWire facts) {}

    /** Changes what a library's material is called and known for. */
    @PutMapping("/api/libraries/items/{item}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void describe(
            @AuthenticationPrincipal Account account, @PathVariable UUID item, @Validated @RequestBody Description d) {
        items.describe(account, item, d.name(), d.code(), d.kind(), d.facts().facts());
    }

    /** @param drawer null for none */
    record ItemMove(
            @NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> items,
            @Nullable UUID drawer) {}

    @PostMapping("/api/libraries/{library}/items/place")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void move(
            @AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody ItemMove m) {
        items.move(account, library, m.items(), m.drawer());
    }

    record Approval(@NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> items, boolean approved) {}

    @PostMapping("/api/libraries/{library}/items/approval")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void approve(
            @AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody Approval a) {
        items.approve(account, library, a.items(), a.approved());
    }

    record Removal(@NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> items) {}

    @PostMapping("/api/libraries/{library}/items/removal")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            @AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody Removal r) {
        items.remove(account, library, r.items());
    }

    /**
     * @param pattern with {name} and #; null to replace a text
     * @param first   the number of the first
     */
    record ItemNames(
            @NotNull @Size(min = 1, max = 5_000) List<@NotNull UUID> items,
            @Nullable @Size(max = 200) String pattern,
            @Min(0) @Max(1_000_000) int first,
            @NotNull @Size(max = 200) String find,
            @NotNull @Size(max = 200) String replacement) {
        Renaming.Wish wish() {
            return new Renaming.Wish(pattern, first, find, replacement);
        }
    }

    record ItemName(UUID item, String name) {}

    /** The names that materials would get. */
    @PostMapping("/api/libraries/{library}/items/names/preview")
    List<ItemName> names(
            @AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody ItemNames n) {
        return items.names(account, library, n.items(), n.wish()).entrySet().stream()
                .map(e -> new ItemName(e.getKey(), e.getValue()))
                .toList();
    }

    @PostMapping("/api/libraries/{library}/items/names")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rename(
            @AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody ItemNames n) {
        items.rename(account, library, n.items(), n.wish());
    }

    /** Groups of a library's materials that look alike. */
    @GetMapping("/api/libraries/{library}/alikes")
    List<List<MaterialWire>> alikes(@AuthenticationPrincipal Account account, @PathVariable UUID library) {
        return items.alikes(account, library).stream()
                .map(g -> g.stream().map(finding::wire).toList())
                .toList();
    }

    record Merger(
            @NotNull UUID keep,
            @NotNull @Size(min = 1, max = 500) List<@NotNull UUID> gone) {}

    /** Makes one material of several that look alike. */
    @PostMapping("/api/libraries/{library}/merges")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void merge(@AuthenticationPrincipal Account account, @PathVariable UUID library, @Validated @RequestBody Merger m) {
        items.merge(account, library, m.keep(), m.gone());
    }

    /** @param bytes that taking it out would win */
    record UnusedWire(MaterialWire material, long bytes) {}

    /** Materials of a library that no project shows. */
    @GetMapping("/api/libraries/{library}/unused")
    List<UnusedWire> unused(@AuthenticationPrincipal Account account, @PathVariable UUID library) {
        return items.unused(account, library).stream()
                .map(u -> new UnusedWire(finding.wire(u.kept()), u.bytes()))
                .toList();
    }
}
