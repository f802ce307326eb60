package app.zolvan.server.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.find.Sample;
import app.zolvan.core.find.Shelf;
import app.zolvan.core.find.Shelf.Facet;
import app.zolvan.core.find.Shelf.Found;
import app.zolvan.core.find.Shelf.Order;
import app.zolvan.core.find.Shelf.Wish;
import app.zolvan.core.find.Words;
import app.zolvan.core.find.Words.Term;
import app.zolvan.core.measure.Likeness;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.MeasureJson;
import app.zolvan.core.measure.ShippedMeasures;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.LibraryMapper.LibraryRow;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/**
 * Finds materials of libraries: by their words through PostgreSQL, by what is measured of them through {@link Shelf}. Those of a
 * library are kept in memory with their measures; they are read again when the library has changed.
 */
@Service
public class FindingService {
    /** From here on the word being typed finds what begins with it. */
    private static final int BEGINS = 3;
    /** The most that are shown where nothing answers everything. */
    private static final int MOST_PARTLY = 200;

    private static final int RECENT = 24;

    private final MaterialMapper materials;
    private final FindingMapper mapper;
    private final ItemMapper items;
    private final LibraryService libraries;
    private final AssetService assets;
    private final Cache<String, MaterialMeasure> measured =
            Caffeine.newBuilder().maximumSize(5_000).build();

    /** @param library null for the one that ships */
    private record Edition(@Nullable UUID library, long revision) {}

    private final Cache<Edition, Map<UUID, Kept>> kept =
            Caffeine.newBuilder().maximumSize(200).build();

    FindingService(
            MaterialMapper materials,
            FindingMapper mapper,
            ItemMapper items,
            LibraryService libraries,
            AssetService assets) {
        this.materials = materials;
        this.mapper = mapper;
        this.items = items;
        this.libraries = libraries;
        this.assets = assets;
    }

    /**
     * A material with what it is found by.
     *
     * @param place    where it lies; null for what ships
     * @param revision of its library when it was read
     */
    public record Kept(MaterialRow row, Sample sample, ItemMapper.@Nullable PlaceRow place, long revision) {}

    private record Shown(UUID id, long revision) {}

    private final Cache<Shown, MaterialWire> wires =
            Caffeine.newBuilder().maximumSize(2_000).build();

    /** A material of a library as it is shown. */
    MaterialWire wire(Kept k) {
        return wires.get(new Shown(k.row.id(), k.revision), s -> MaterialWire.of(k.row, null, k.place));
    }

    /**
     * What an account sees: what ships, and the libraries that it is a member of.
     *
     * @param shelves materials by their ids, a map for each library
     * @param ids     of its libraries, for PostgreSQL
     */
    private record Visible(List<Map<UUID, Kept>> shelves, String[] ids) {
        @Nullable
        Kept get(UUID id) {
            return shelves.stream()
                    .map(s -> s.get(id))
                    .filter(Objects::nonNull)
                    .findFirst()
                    .orElse(null);
        }

        Collection<Kept> all() {
            return shelves.size() == 1
                    ? shelves.get(0).values()
                    : shelves.stream().flatMap(s -> s.values().stream()).toList();
        }
    }

    private Visible visible(UUID account, @Nullable Place place) {
        List<LibraryRow> own = libraries.of(account);
        List<Map<UUID, Kept>> shelves = new ArrayList<>();
        for (LibraryRow l : own) {
            if (place == null || l.id().equals(place.library())) {
                shelves.add(sees(l, place == null ? null : place.drawer()));
            }
        }
        if (place == null || place.library() == null) {
            shelves.add(shipped());
        }
        return new Visible(shelves, own.stream().map(l -> l.id().toString()).toArray(String[]::new));
    }

    private Map<UUID, Kept> sees(LibraryRow l, @Nullable UUID drawer) {
        Map<UUID, Kept> all = of(l);
        if (drawer == null && (l.role().mayEdit() || l.waiting() == 0)) {
            return all;
        }
        Set<UUID> within = drawer == null ? Set.of() : libraries.drawers(l.id()).within(drawer);
        Map<UUID, Kept> some = new LinkedHashMap<>();
        all.forEach((id, k) -> {
            ItemMapper.PlaceRow at = Objects.requireNonNull(k.place);
            if (l.role().sees(at.approved()) && (drawer == null || within.contains(at.drawerId()))) {
                some.put(id, k);
            }
        });
        return some;
    }

    /** How many materials ship of each kind. */
    Map<String, Integer> kinds() {
        Map<String, Integer> all = new LinkedHashMap<>();
        for (Kept k : shipped().values()) {
            String kind = k.row.kind();
            all.merge(kind == null ? "other" : kind, 1, Integer::sum);
        }
        return all;
    }

    /** What a member sees of a library. */
    Collection<Kept> in(LibraryRow library) {
        return sees(library, null).values();
    }

    /**
     * What is sought.
     *
     * @param account who seeks
     * @param place   where to look; null for everywhere
     * @param words   as typed
     * @param wanted  values of facets, any of each facet's
     * @param near    a colour; the nearest come first
     * @param like    a material; those that reflect most like it come first
     */
    public record Sought(
            UUID account,
            @Nullable Place place,
            String words,
            Map<Facet, Set<String>> wanted,
            @Nullable Order order,
            @Nullable LinearRgb near,
            @Nullable Likeness like) {}

    /**
     * A place to look in.
     *
     * @param library null for the one that ships
     * @param drawer  of the library, and all within it; null for all of it
     */
    public record Place(@Nullable UUID library, @Nullable UUID drawer) {}

    /** @param told what was taken otherwise than typed, a sentence; null where nothing was */
    public record Answer(Found<Kept> found, @Nullable String told) {}

    /** The first few that some words find. */
    public List<MaterialWire> first(UUID account, String words, int few) {
        Sought sought = new Sought(account, null, words, Map.of(), null, null, null);
        return find(sought).found().samples().stream()
                .limit(few)
                .map(this::wire)
                .toList();
    }

    public Answer find(Sought s) {
        Visible visible = visible(s.account, s.place);
        Wish wish = new Wish(s.wanted, s.order, s.near, s.like);
        List<Term> terms = Words.terms(s.words);
        if (terms.isEmpty()) {
            return new Answer(Shelf.find(visible.all(), Kept::sample, wish), null);
        }
        boolean goesOn = !s.words.isEmpty() && Character.isLetterOrDigit(s.words.charAt(s.words.length() - 1));
        List<String> told = new ArrayList<>();
        List<Term> known = spelt(terms, goesOn, visible, told);
        if (known.isEmpty()) {
            return new Answer(
                    Shelf.find(List.<Kept>of(), Kept::sample, wish),
                    "Nothing is called “" + s.words.strip()
                            + "”. Try a kind (metal), a tone (blue) or a finish (satin).");
        }
        return new Answer(
                Shelf.find(answering(known, goesOn, visible, told), Kept::sample, wish),
                told.isEmpty() ? null : String.join(" ", told));
    }

    /** The materials that answer most of the terms. */
    private Collection<Kept> answering(List<Term> terms, boolean goesOn, Visible visible, List<String> told) {
        String[] each = queries(terms, goesOn);
        String typed = terms.stream().map(Term::word).collect(Collectors.joining(" | "));
        List<FindingMapper.Hit> hits = mapper.findAll(String.join(" & ", each), typed, each.length, visible.ids);
        if (hits.isEmpty()) {
            hits = mapper.findAny(each, String.join(" | ", each), typed, MOST_PARTLY, visible.ids);
        }
        int most = hits.isEmpty() ? 0 : hits.get(0).matched();
        if (most < each.length && most > 0) {
            told.add("Nothing answers all of these words; shown is what answers " + most + " of " + each.length + ".");
        }
        return hits.stream()
                .filter(h -> h.matched() == most)
                .map(h -> visible.get(h.id()))
                .filter(Objects::nonNull)
                .toList();
    }

    /** The terms that something answers; those that nothing does are taken for the words nearest to them, or left out. */
    private List<Term> spelt(List<Term> terms, boolean goesOn, Visible visible, List<String> told) {
        Set<Integer> unanswered = Set.copyOf(mapper.unanswered(queries(terms, goesOn), visible.ids));
        List<Term> known = new ArrayList<>();
        for (int i = 0; i < terms.size(); i++) {
            Term t = terms.get(i);
            if (!unanswered.contains(i)) {
                known.add(t);
                continue;
            }
            List<String> near = mapper.near(t.word(), visible.ids);
            if (near.isEmpty()) {
                told.add("Nothing is called “" + t.word() + "”.");
            } else {
                told.add("“" + t.word() + "” taken as “" + near.get(0) + "”.");
                known.addAll(Words.terms(near.get(0)));
            }
        }
        return known;
    }

    /** Each term as a query: letters, digits and what joins them, nothing else. */
    private static String[] queries(List<Term> terms, boolean goesOn) {
        String[] all = new String[terms.size()];
        for (int i = 0; i < all.length; i++) {
            Term t = terms.get(i);
            boolean begins = goesOn && i == all.length - 1 && t.word().length() >= BEGINS;
            all[i] = Stream.concat(Stream.of(begins ? t.word() + ":*" : t.word()), t.others().stream())
                    .collect(Collectors.joining(" | ", "(", ")"));
        }
        return all;
    }

    /** Keeps that a designer put a material of the library on something. */
    public void used(UUID account, UUID material) {
        mapper.used(account, material);
    }

    /** Everything that an account sees. */
    Collection<Kept> all(UUID account) {
        return visible(account, null).all();
    }

    /** What the designer used last, the latest first. */
    List<Kept> recent(UUID account) {
        Visible visible = visible(account, null);
        return mapper.recent(account, RECENT).stream()
                .map(visible::get)
                .filter(Objects::nonNull)
                .toList();
    }

    /** The designer's projects that show a material or one made from it. */
    public List<String> projectsWith(UUID account, MaterialRow material) {
        UUID original = material.projectId() == null || material.origin() == null ? material.id() : material.origin();
        return mapper.projectsWith(account, original);
    }

    /** What is measured of any material. */
    public MaterialMeasure measure(MaterialRow row) {
        String key = Chip.key(row.toSurface());
        return ShippedMeasures.of(key)
                .orElseGet(() -> measured.get(key, k -> MaterialMeasure.of(row.toSurface(), assets::bytes)));
    }

    /**
     * Gives materials their words and measures, in a transaction of the caller's.
     *
     * @param library that they are all of; null for the one that ships
     */
    void index(@Nullable UUID library, List<MaterialRow> some) {
        Set<String> words = library == null ? new TreeSet<>(Words.known()) : new TreeSet<>();
        for (MaterialRow row : some) {
            MaterialMeasure m = measure(row);
            List<String> texts = sample(row, m).texts();
            String json = new String(JsonText.utf8(MeasureJson.write(m)), StandardCharsets.UTF_8);
            mapper.index(row.id(), json, texts);
            texts.forEach(t -> words.addAll(Words.split(t)));
        }
        words.removeIf(w -> w.contains(" "));
        mapper.know(words.toArray(String[]::new), library);
        if (library == null) {
            forget();
        }
    }

    /** Has what ships read anew by whoever looks next. */
    public void forget() {
        kept.invalidateAll();
        wires.invalidateAll();
    }

    private static Sample sample(MaterialRow row, MaterialMeasure m) {
        return Sample.of(row.toMaterial(), m, row.known());
    }

    private Map<UUID, Kept> shipped() {
        return kept.get(new Edition(null, 0), e -> read(0, materials.library(), Map.of(), mapper.indexed(null)));
    }

    private Map<UUID, Kept> of(LibraryRow l) {
        return kept.get(new Edition(l.id(), l.revision()), e -> {
            Map<UUID, ItemMapper.PlaceRow> places =
                    items.places(l.id()).stream().collect(Collectors.toMap(ItemMapper.PlaceRow::id, p -> p));
            return read(l.revision(), materials.ofLibrary(l.id()), places, mapper.indexed(l.id()));
        });
    }

    private static Map<UUID, Kept> read(
            long revision,
            List<MaterialRow> rows,
            Map<UUID, ItemMapper.PlaceRow> places,
            List<FindingMapper.Indexed> measures) {
        Map<UUID, String> measured =
                measures.stream().collect(Collectors.toMap(FindingMapper.Indexed::id, FindingMapper.Indexed::measure));
        Map<UUID, Kept> known = new LinkedHashMap<>();
        for (MaterialRow row : rows) {
            String m = measured.get(row.id());
            if (m != null) {
                known.put(row.id(), new Kept(row, sample(row, read(m)), places.get(row.id()), revision));
            }
        }
        return known;
    }

    private static MaterialMeasure read(String json) {
        try {
            return MeasureJson.read(JsonValue.parse(json.getBytes(StandardCharsets.UTF_8)));
        } catch (ImportException e) {
            throw new IllegalStateException("a stored measure can't be read", e);
        }
    }

    /** Values of a facet in the order in which they are shown: the commonest first. */
    static Set<String> ordered(Map<String, Integer> counts) {
        return counts.entrySet().stream()
                .sorted(Map.Entry.<String, Integer>comparingByValue()
                        .reversed()
                        .thenComparing(Map.Entry.comparingByKey()))
                .map(Map.Entry::getKey)
                .collect(Collectors.toCollection(LinkedHashSet::new));
    }
}
