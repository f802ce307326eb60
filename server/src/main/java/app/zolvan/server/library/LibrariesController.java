package app.zolvan.server.library;

import app.zolvan.core.keep.Drawers;
import app.zolvan.core.keep.LibraryRole;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.FindingService.Kept;
import app.zolvan.server.library.LibraryMapper.LibraryRow;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
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

/** Libraries, their members and their drawers. */
@RestController
@RequestMapping("/api/libraries")
class LibrariesController {
    private final LibraryService libraries;
    private final FindingService finding;
    private final KitService kits;

    LibrariesController(LibraryService libraries, FindingService finding, KitService kits) {
        this.libraries = libraries;
        this.finding = finding;
        this.kits = kits;
    }

    record KindCount(String kind, int count) {}

    /**
     * @param depth how many drawers hold it
     * @param path  its name after theirs
     * @param items how many materials lie in it and in those within
     */
    record DrawerWire(UUID id, @Nullable UUID parent, String name, int depth, String path, int items) {}

    /**
     * @param own     whether it is the account's own
     * @param items   how many materials the account sees there
     * @param waiting how many of them wait for approval
     */
    record LibraryWire(
            UUID id, String name, boolean own, LibraryRole role, int items, int waiting, List<DrawerWire> drawers) {}

    /**
     * @param kinds   how many materials ship of each kind
     * @param kits    that the account sees
     * @param starter the kit that its new projects begin with
     */
    record LibrariesWire(
            List<KindCount> kinds,
            List<LibraryWire> libraries,
            List<KitService.KitWire> kits,
            @Nullable UUID starter) {}

    /** What an account can take materials from. */
    @GetMapping
    LibrariesWire all(@AuthenticationPrincipal Account account) {
        return new LibrariesWire(
                finding.kinds().entrySet().stream()
                        .map(e -> new KindCount(e.getKey(), e.getValue()))
                        .toList(),
                libraries.of(account.id()).stream().map(this::wire).toList(),
                kits.of(account),
                kits.starter(account));
    }

    private LibraryWire wire(LibraryRow l) {
        Drawers<UUID> drawers = libraries.drawers(l.id());
        Collection<Kept> seen = finding.in(l);
        Map<UUID, Long> lying = seen.stream()
                .map(k -> k.place().drawerId())
                .filter(d -> d != null)
                .collect(Collectors.groupingBy(d -> d, TreeMap::new, Collectors.counting()));
        return new LibraryWire(
                l.id(),
                l.name(),
                l.owner() != null,
                l.role(),
                seen.size(),
                l.role().mayEdit() ? l.waiting() : 0,
                drawers.all().stream()
                        .map(d -> {
                            Set<UUID> within = drawers.within(d.id());
                            long items = within.stream()
                                    .mapToLong(w -> lying.getOrDefault(w, 0L))
                                    .sum();
                            return new DrawerWire(
                                    d.id(), d.parent(), d.name(), drawers.depth(d.id()), drawers.path(d.id()), (int)
                                            items);
                        })
                        .toList());
    }

    record Named(@NotNull @Size(max = 200) String name) {}

    record Made(UUID id) {}

    /** Makes a team's library. */
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Made create(@AuthenticationPrincipal Account account, @Validated @RequestBody Named n) {
        return new Made(libraries.create(account, n.name()));
    }

    @PutMapping("/{id}/name")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void rename(@AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Named n) {
        libraries.rename(account, id, n.name());
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        libraries.delete(account, id);
    }

    record MemberWire(UUID account, String login, String name, LibraryRole role) {}

    @GetMapping("/{id}/members")
    List<MemberWire> members(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return libraries.members(account, id).stream()
                .map(m -> new MemberWire(m.accountId(), m.login(), m.displayName(), m.role()))
                .toList();
    }

    record Membership(
            @NotNull @Size(max = 200) String login, @NotNull LibraryRole role) {}

    /** Takes somebody in, or gives a member another role. */
    @PutMapping("/{id}/members")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void putMember(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Membership m) {
        libraries.putMember(account, id, m.login(), m.role());
    }

    @DeleteMapping("/{id}/members/{member}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeMember(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID member) {
        libraries.removeMember(account, id, member);
    }

    record NewDrawer(
            @NotNull @Size(max = 200) String name, @Nullable UUID parent) {}

    @PostMapping("/{id}/drawers")
    @ResponseStatus(HttpStatus.CREATED)
    Made addDrawer(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody NewDrawer n) {
        return new Made(libraries.addDrawer(account, id, n.name(), n.parent()));
    }

    @PutMapping("/{id}/drawers/{drawer}/name")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void renameDrawer(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID drawer,
            @Validated @RequestBody Named n) {
        libraries.renameDrawer(account, id, drawer, n.name());
    }

    /** @param at its place among those that lie there, from 0 */
    record NewPlace(
            @Nullable UUID into, @Min(0) @Max(10_000) int at) {}

    @PutMapping("/{id}/drawers/{drawer}/place")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void moveDrawer(
            @AuthenticationPrincipal Account account,
            @PathVariable UUID id,
            @PathVariable UUID drawer,
            @Validated @RequestBody NewPlace p) {
        libraries.moveDrawer(account, id, drawer, p.into(), p.at());
    }

    @DeleteMapping("/{id}/drawers/{drawer}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void deleteDrawer(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID drawer) {
        libraries.deleteDrawer(account, id, drawer);
    }

    record NewKit(
            @NotNull UUID project,
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(min = 1, max = 500) List<@NotNull UUID> materials) {}

    /** Makes a kit of materials that a project shows; one of that name is replaced. */
    @PostMapping("/{id}/kits")
    @ResponseStatus(HttpStatus.CREATED)
    Made makeKit(@AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody NewKit k) {
        return new Made(kits.make(account, id, k.project(), k.name(), k.materials()));
    }

    @DeleteMapping("/{id}/kits/{kit}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void deleteKit(@AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable UUID kit) {
        kits.delete(account, id, kit);
    }

    /** @param kit null for none */
    record Starter(@Nullable UUID kit) {}

    /** Says what the account's new projects begin with. */
    @PutMapping("/starter")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void start(@AuthenticationPrincipal Account account, @RequestBody Starter s) {
        kits.setStarter(account, s.kit());
    }
}
