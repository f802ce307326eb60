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
 * Finds materials of the library: by their words through PostgreSQL, by what is measured of them through {@link Shelf}. All of
 * them with their measures are kept in memory; they are read again when the library has changed.
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
    private final AssetService assets;
    private final Cache<String, MaterialMeasure> measured =
            Caffeine.newBuilder().maximumSize(5_000).build();
    private volatile @Nullable Map<UUID, Kept> kept;

    FindingService(MaterialMapper materials, FindingMapper mapper, AssetService assets) {
        this.materials = materials;
        this.mapper = mapper;
        this.assets = assets;
    }

    /** A material with what it is found by. */
    public record Kept(MaterialRow row, Sample sample) {}

    private final Cache<UUID, MaterialWire> wires =
            Caffeine.newBuilder().maximumSize(2_000).build();

    /** A material of the library as it is shown. */
    MaterialWire wire(Kept k) {
        return wires.get(k.row.id(), id -> MaterialWire.of(k.row, null));
    }

    /**
     * What is sought.
     *
     * @param words  as typed
     * @param wanted values of facets, any of each facet's
     * @param near   a colour; the nearest come first
     * @param like   a material; those that reflect most like it come first
     */
    public record Sought(
            String words,
            Map<Facet, Set<String>> wanted,
            @Nullable Order order,
            @Nullable LinearRgb near,
            @Nullable Likeness like) {}

    /** @param told what was taken otherwise than typed, a sentence; null where nothing was */
    public record Answer(Found<Kept> found, @Nullable String told) {}

    public Answer find(Sought s) {
        Map<UUID, Kept> all = all();
        Wish wish = new Wish(s.wanted, s.order, s.near, s.like);
        List<Term> terms = Words.terms(s.words);
        if (terms.isEmpty()) {
            return new Answer(Shelf.find(all.values(), Kept::sample, wish), null);
        }
        boolean goesOn = !s.words.isEmpty() && Character.isLetterOrDigit(s.words.charAt(s.words.length() - 1));
        List<String> told = new ArrayList<>();
        List<Term> known = spelt(terms, goesOn, told);
        if (known.isEmpty()) {
            return new Answer(
                    Shelf.find(List.<Kept>of(), Kept::sample, wish),
                    "Nothing is called “" + s.words.strip()
                            + "”. Try a kind (metal), a tone (blue) or a finish (satin).");
        }
        return new Answer(
                Shelf.find(answering(known, goesOn, all, told), Kept::sample, wish),
                told.isEmpty() ? null : String.join(" ", told));
    }

    /** The materials that answer most of the terms. */
    private Collection<Kept> answering(List<Term> terms, boolean goesOn, Map<UUID, Kept> all, List<String> told) {
        String[] each = queries(terms, goesOn);
        String typed = terms.stream().map(Term::word).collect(Collectors.joining(" | "));
        List<FindingMapper.Hit> hits = mapper.findAll(String.join(" & ", each), typed, each.length);
        if (hits.isEmpty()) {
            hits = mapper.findAny(each, String.join(" | ", each), typed, MOST_PARTLY);
        }
        int most = hits.isEmpty() ? 0 : hits.get(0).matched();
        if (most < each.length && most > 0) {
            told.add("Nothing answers all of these words; shown is what answers " + most + " of " + each.length + ".");
        }
        return hits.stream()
                .filter(h -> h.matched() == most)
                .map(h -> all.get(h.id()))
                .filter(Objects::nonNull)
                .toList();
    }

    /** The terms that something answers; those that nothing does are taken for the words nearest to them, or left out. */
    private List<Term> spelt(List<Term> terms, boolean goesOn, List<String> told) {
        Set<Integer> unanswered = Set.copyOf(mapper.unanswered(queries(terms, goesOn)));
        List<Term> known = new ArrayList<>();
        for (int i = 0; i < terms.size(); i++) {
            Term t = terms.get(i);
            if (!unanswered.contains(i)) {
                known.add(t);
                continue;
            }
            List<String> near = mapper.near(t.word());
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

    /** What the designer used last, the latest first. */
    List<Kept> recent(UUID account) {
        Map<UUID, Kept> all = all();
        return mapper.recent(account, RECENT).stream()
                .map(all::get)
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

    /** Gives the materials their words and measures, in a transaction of the caller's. */
    void index(List<MaterialRow> some) {
        Set<String> words = new TreeSet<>(Words.known());
        for (MaterialRow row : some) {
            MaterialMeasure m = measure(row);
            List<String> texts = sample(row, m).texts();
            String json = new String(JsonText.utf8(MeasureJson.write(m)), StandardCharsets.UTF_8);
            mapper.index(row.id(), json, texts);
            texts.forEach(t -> words.addAll(Words.split(t)));
        }
        words.removeIf(w -> w.contains(" "));
        mapper.know(words.toArray(String[]::new));
        forget();
    }

    /** Has the library read anew by whoever looks next. */
    public void forget() {
        kept = null;
        wires.invalidateAll();
    }

    private static Sample sample(MaterialRow row, MaterialMeasure m) {
        FactsWire facts = FactsWire.of(row.facts());
        return Sample.of(row.toMaterial(), m, facts == null ? null : facts.facts());
    }

    private Map<UUID, Kept> all() {
        Map<UUID, Kept> known = kept;
        if (known == null) {
            known = new LinkedHashMap<>();
            Map<UUID, MaterialRow> rows =
                    materials.library().stream().collect(Collectors.toMap(MaterialRow::id, r -> r));
            for (FindingMapper.Indexed i : mapper.indexed()) {
                MaterialRow row = rows.get(i.id());
                known.put(i.id(), new Kept(row, sample(row, read(i.measure()))));
            }
            kept = known;
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
