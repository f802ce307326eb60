package app.zolvan.server.library;

import app.zolvan.core.find.Alikes;
import app.zolvan.core.keep.ItemCode;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.prepare.Renaming;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.FindingService.Kept;
import app.zolvan.server.library.LibraryMapper.LibraryRow;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What designers keep in libraries: from a project's materials, changed there, found twice, taken out again. */
@Service
public class ItemService {
    private static final int MOST_ITEMS = 100_000;

    private final ItemMapper mapper;
    private final MaterialMapper rows;
    private final MaterialService materials;
    private final LibraryService libraries;
    private final FindingService finding;
    private final AssetService assets;

    ItemService(
            ItemMapper mapper,
            MaterialMapper rows,
            MaterialService materials,
            LibraryService libraries,
            FindingService finding,
            AssetService assets) {
        this.mapper = mapper;
        this.rows = rows;
        this.materials = materials;
        this.libraries = libraries;
        this.finding = finding;
        this.assets = assets;
    }

    /**
     * Keeps materials that a project may show in a library, under codes that are free there.
     *
     * @param drawer null for none
     * @return the library's materials, in the order of those that were given
     */
    @Transactional
    public List<UUID> keep(Account account, UUID project, Collection<UUID> some, UUID library, @Nullable UUID drawer) {
        LibraryRow into = libraries.requireEdit(account, library);
        libraries.requireDrawer(library, drawer);
        if (into.items() + some.size() > MOST_ITEMS) {
            throw Problem.conflict("too-many", "A library holds at most 100,000 materials.", null);
        }
        Set<String> taken = codes(library, null);
        int position = mapper.nextPosition(library);
        List<UUID> kept = new ArrayList<>();
        for (UUID id : some) {
            MaterialRow from = materials.requireUsable(account, project, id);
            String code = freeCode(from, taken);
            taken.add(code.toLowerCase(Locale.ROOT));
            MaterialRow item = from.kept(UUID.randomUUID(), library, code, position++);
            write(into, item, drawer, account);
            if (project.equals(from.projectId())) {
                mapper.setKeptAs(from.id(), item.id());
            }
            kept.add(item.id());
        }
        libraries.announce(library);
        return kept;
    }

    private Set<String> codes(UUID library, @Nullable UUID but) {
        return rows.ofLibrary(library).stream()
                .filter(m -> !m.id().equals(but))
                .map(m -> m.code().toLowerCase(Locale.ROOT))
                .collect(Collectors.toCollection(HashSet::new));
    }

    private String freeCode(MaterialRow from, Set<String> taken) {
        MaterialRow origin =
                from.origin() == null ? from : rows.find(from.origin()).orElse(from);
        String own = origin.isShipped() ? "" : from.code();
        return ItemCode.free(own, from.toMaterial().kind(), taken);
    }

    /** Stores it with its pictures and words; it waits for approval unless its keeper approves there. */
    private void write(LibraryRow library, MaterialRow item, @Nullable UUID drawer, Account by) {
        mapper.put(item, drawer, library.role().mayApprove(), by.id());
        for (TextureUse use : item.toSurface().textures().values()) {
            assets.addToLibrary(use.image(), library.id());
        }
        finding.index(library.id(), List.of(item));
    }

    /** A material of the library that ships, or of one that the account is in. */
    public Optional<MaterialRow> seen(Account account, UUID id) {
        return Optional.ofNullable(materials.find(id))
                .filter(m -> m.projectId() == null)
                .filter(m -> m.libraryId() == null
                        || libraries.of(account.id()).stream().anyMatch(l -> l.id().equals(m.libraryId())));
    }

    /** A library's material that the account may change. */
    private MaterialRow requireItem(Account account, UUID id) {
        MaterialRow row =
                rows.find(id).filter(m -> m.libraryId() != null).orElseThrow(() -> Problem.notFound("material"));
        UUID library = Objects.requireNonNull(row.libraryId());
        if (!libraries.isMember(account, library)) {
            throw Problem.notFound("material"); // as if there were none
        }
        libraries.requireEdit(account, library);
        return row;
    }

    /**
     * How a project's material stands to the library's that it was kept as or came from.
     *
     * @param same whether name, look and what is known are the same
     */
    public record Standing(MaterialRow item, LibraryRow library, boolean same) {}

    /** Nothing where no library that the account is in has it. */
    public @Nullable Standing standing(Account account, MaterialRow material) {
        UUID id = mapper.keptAs(material.id());
        MaterialRow item = id == null
                ? null
                : rows.findUsable(account.id(), Objects.requireNonNull(material.projectId()), id)
                        .orElse(null);
        if (item == null) {
            return null;
        }
        return libraries.of(account.id()).stream()
                .filter(l -> l.id().equals(item.libraryId()))
                .findFirst()
                .map(l -> new Standing(item, l, isSame(item, material)))
                .orElse(null);
    }

    private static boolean isSame(MaterialRow a, MaterialRow b) {
        return a.name().equals(b.name())
                && Objects.equals(a.kind(), b.kind())
                && a.known().equals(b.known())
                && a.toSurface().equals(b.toSurface());
    }

    /** Brings what a project's material has become to the library's that it was kept as or came from. */
    @Transactional
    public void update(Account account, UUID project, UUID material) {
        MaterialRow from = materials.requireUsable(account, project, material);
        UUID id = mapper.keptAs(from.id());
        if (id == null) {
            throw Problem.conflict("nothing", "No library has it yet. Keep it in one first.", null);
        }
        MaterialRow before = requireItem(account, id);
        LibraryRow library = libraries.require(account, Objects.requireNonNull(before.libraryId()));
        MaterialRow after = from.kept(id, library.id(), before.code(), before.position());
        write(library, after, place(library.id(), id).drawerId(), account);
        tidy(library.id());
    }

    private ItemMapper.PlaceRow place(UUID library, UUID item) {
        return mapper.places(library).stream()
                .filter(p -> p.id().equals(item))
                .findFirst()
                .orElseThrow();
    }

    /**
     * Changes what a library's material is called and known for.
     *
     * @param code none is a code, too
     */
    @Transactional
    void describe(Account account, UUID id, String name, String code, @Nullable String kind, Facts facts) {
        MaterialRow row = requireItem(account, id);
        LibraryRow library = libraries.require(account, Objects.requireNonNull(row.libraryId()));
        String given = code.strip();
        if (!ItemCode.isAllowed(given)) {
            throw Problem.ofField(
                    "code",
                    "A code has up to 24 letters, digits, dots, dashes or slashes, and begins with a letter or digit.");
        }
        if (!given.isEmpty() && codes(library.id(), id).contains(given.toLowerCase(Locale.ROOT))) {
            throw Problem.ofField("code", "“" + given + "” is taken in “" + library.name() + "”.");
        }
        facts.check();
        MaterialRow after = row.kept(id, library.id(), given, row.position())
                .with(new Material(given, name, kind(kind), row.toSurface()))
                .with(GivenName.require(name), row.toSurface())
                .made(facts);
        write(library, after, place(library.id(), id).drawerId(), account);
        libraries.announce(library.id());
    }

    private static @Nullable MaterialKind kind(@Nullable String word) {
        try {
            return word == null || word.isEmpty() ? null : MaterialKind.ofWord(word);
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("kind", "There is no kind “" + word + "”.");
        }
    }

    /** Puts materials into another drawer of their library. */
    @Transactional
    void move(Account account, UUID library, List<UUID> items, @Nullable UUID drawer) {
        libraries.requireEdit(account, library);
        libraries.requireDrawer(library, drawer);
        requireAll(items, mapper.move(library, texts(items), drawer));
        libraries.announce(library);
    }

    /** Lets all members use materials, or only those who edit. */
    @Transactional
    void approve(Account account, UUID library, List<UUID> items, boolean approved) {
        libraries.requireApprove(account, library);
        requireAll(items, mapper.approve(library, texts(items), approved));
        libraries.announce(library);
    }

    /** Takes materials out; projects keep what they have of them. */
    @Transactional
    void remove(Account account, UUID library, List<UUID> items) {
        libraries.requireEdit(account, library);
        requireAll(items, mapper.delete(library, texts(items)));
        tidy(library);
    }

    private static void requireAll(Collection<UUID> items, int done) {
        if (done < Set.copyOf(items).size()) {
            throw Problem.notFound("material");
        }
    }

    private static String[] texts(Collection<UUID> ids) {
        return ids.stream().map(UUID::toString).toArray(String[]::new);
    }

    /** Lets go of pictures that nothing in the library shows any more. */
    private void tidy(UUID library) {
        assets.keepInLibrary(library, pictures(rows.ofLibrary(library)));
        assets.deleteUnused();
        libraries.announce(library);
    }

    private static Set<String> pictures(Collection<MaterialRow> some) {
        return some.stream()
                .flatMap(m -> m.toSurface().textures().values().stream())
                .map(TextureUse::image)
                .collect(Collectors.toSet());
    }

    /** The names that materials would get, by their ids, in order. */
    Map<UUID, String> names(Account account, UUID library, List<UUID> items, Renaming.Wish wish) {
        libraries.require(account, library);
        Map<UUID, MaterialRow> there =
                rows.ofLibrary(library).stream().collect(Collectors.toMap(MaterialRow::id, m -> m));
        List<UUID> ids = items.stream().filter(there::containsKey).toList();
        requireAll(items, ids.size());
        List<String> names = ids.stream().map(i -> there.get(i).name()).toList();
        List<String> made = wish.of(names);
        Map<UUID, String> out = new LinkedHashMap<>();
        for (int i = 0; i < ids.size(); i++) {
            out.put(ids.get(i), made.get(i).isEmpty() ? names.get(i) : made.get(i));
        }
        return out;
    }

    /** Gives materials the names that {@link #names} tells. */
    @Transactional
    void rename(Account account, UUID library, List<UUID> items, Renaming.Wish wish) {
        LibraryRow into = libraries.requireEdit(account, library);
        Map<UUID, String> names = names(account, library, items, wish);
        Map<UUID, UUID> drawers = new LinkedHashMap<>();
        mapper.places(library).forEach(p -> drawers.put(p.id(), p.drawerId()));
        for (MaterialRow m : rows.ofLibrary(library)) {
            String name = names.get(m.id());
            if (name != null && !name.equals(m.name())) {
                write(into, m.with(name, m.toSurface()), drawers.get(m.id()), account);
            }
        }
        libraries.announce(library);
    }

    /** Groups of a library's materials that look alike; those that projects show more often come first in each. */
    List<List<Kept>> alikes(Account account, UUID library) {
        LibraryRow row = libraries.require(account, library);
        Set<UUID> unused = Set.copyOf(mapper.unused(library));
        return Alikes.groups(finding.in(row), Kept::sample).stream()
                .map(g -> g.stream()
                        .sorted((a, b) -> Boolean.compare(
                                unused.contains(a.row().id()),
                                unused.contains(b.row().id())))
                        .toList())
                .toList();
    }

    /** Makes one material of several: what went by the others goes by the one that stays. */
    @Transactional
    void merge(Account account, UUID library, UUID keep, List<UUID> gone) {
        libraries.requireEdit(account, library);
        Set<UUID> there = rows.ofLibrary(library).stream().map(MaterialRow::id).collect(Collectors.toSet());
        if (!there.contains(keep) || !there.containsAll(gone)) {
            throw Problem.notFound("material");
        }
        if (gone.contains(keep)) {
            throw Problem.ofField("gone", "The one that stays can’t go.");
        }
        mapper.goBy(keep, texts(gone));
        gone.forEach(g -> mapper.dressBy(keep.toString(), g.toString()));
        mapper.delete(library, texts(gone));
        tidy(library);
    }

    /** @param bytes that pictures take which only it shows */
    record Unused(Kept kept, long bytes) {}

    /** A library's materials that no project shows, with what taking them out would win. */
    List<Unused> unused(Account account, UUID library) {
        LibraryRow row = libraries.require(account, library);
        Set<UUID> ids = Set.copyOf(mapper.unused(library));
        Collection<Kept> all = finding.in(row);
        Map<String, Long> shown = all.stream()
                .flatMap(k -> pictures(List.of(k.row())).stream())
                .collect(Collectors.groupingBy(i -> i, Collectors.counting()));
        return all.stream()
                .filter(k -> ids.contains(k.row().id()))
                .map(k -> new Unused(
                        k,
                        assets.sizeOfThoseOnlyIn(
                                library,
                                pictures(List.of(k.row())).stream()
                                        .filter(i -> shown.get(i) == 1)
                                        .toList())))
                .toList();
    }
}
