package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Ladders;
import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.assign.LookTrace;
import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.Resolution;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.Scene;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.BitSet;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/**
 * The look of every region of a project's model in one scheme, as core resolves it, seen from one side. Made from one state of the database
 * and not changed afterwards.
 */
public final class LookTable {
    private final Scene scene;
    private final Ladders ladders;
    private final Scheme scheme;
    private final Map<UUID, MaterialRow> rows;
    private final Map<UUID, Material> materials = new HashMap<>();
    private final Map<LookKey, Integer> index = new LinkedHashMap<>();
    private final List<Shown> looks = new ArrayList<>();
    private final List<int[]> fronts = new ArrayList<>();
    private final List<int[]> backs = new ArrayList<>();
    private final Side seen;
    private final Resolution resolution;
    /** The number that the first span of each part has among all regions. */
    private final int[] firstRegion;

    /**
     * @param material the material shown, or null for neutral grey
     * @param mapped   whether how it lies is assigned, too
     */
    record Shown(Look look, @Nullable MaterialRow material, boolean mapped) {}

    private record LookKey(
            @Nullable UUID material,
            @Nullable Mapping mapping,
            double thickness,
            @Nullable Level from) {}

    /**
     * @param ladders of {@link #ladders} of the same scene
     * @param seen    the side that is looked at, FRONT or BACK
     */
    LookTable(Scene scene, Ladders ladders, Scheme scheme, Side seen, Map<UUID, MaterialRow> rows) {
        this.seen = seen;
        this.scene = scene;
        this.ladders = ladders;
        this.scheme = scheme;
        this.rows = rows;
        resolution = Resolution.of(ladders, scheme);
        firstRegion = new int[scene.parts().size()];
        int regions = 0;
        for (Scene.Part part : scene.parts()) {
            firstRegion[part.index()] = regions;
            regions += part.sets().size();
            fronts.add(resolve(part, Side.FRONT));
            backs.add(resolve(part, Side.BACK));
        }
    }

    private int[] resolve(Scene.Part part, Side side) {
        int[] ofPart = new int[part.sets().size()];
        for (int span = 0; span < ofPart.length; span++) {
            ofPart[span] = resolve(part, span, side);
        }
        return ofPart;
    }

    private int resolve(Scene.Part part, int span, Side side) {
        int region = region(part.index(), span);
        Entry winner = resolution.entry(region, side, Aspect.MATERIAL);
        Mapping mapped = mapping(region, side);
        UUID material = winner != null
                ? UUID.fromString(winner.material())
                : scene.sets().get(part.sets().get(span)).source();
        Level from = winner == null
                ? null
                : resolution.slot(region, side, Aspect.MATERIAL).target().level();
        Material m = material == null
                ? Look.NEUTRAL
                : materials.computeIfAbsent(material, id -> rows.get(id).toMaterial());
        boolean clear = m.surface().number(Parameter.TRANSMISSION_WEIGHT) > 0;
        double thickness = clear ? part.ownThickness() : 0; // says nothing about an opaque body
        LookKey key = new LookKey(material, mapped, thickness, from);
        return index.computeIfAbsent(key, k -> {
            looks.add(new Shown(
                    Look.of(m, mapped, thickness, from), material == null ? null : rows.get(material), mapped != null));
            return looks.size() - 1;
        });
    }

    /** Why a region shows what it shows on the side that is looked at. */
    LookTrace trace(int part, int span, Aspect aspect) {
        return trace(part, span, seen, aspect);
    }

    LookTrace trace(int part, int span, Side side, Aspect aspect) {
        return LookTrace.of(scheme, ladder(scene, scene.parts().get(part), span), side, aspect);
    }

    /** The ladders of all regions: of the spans of the first part, then of the second's. */
    static List<List<Target>> ladders(Scene scene) {
        List<List<Target>> out = new ArrayList<>();
        for (Scene.Part part : scene.parts()) {
            for (int span = 0; span < part.sets().size(); span++) {
                out.add(ladder(scene, part, span));
            }
        }
        return out;
    }

    /** All that a part is in or is. */
    static Set<Target> targets(Scene scene, Scene.Part part) {
        Set<Target> all = new LinkedHashSet<>();
        for (int span = 0; span < part.sets().size(); span++) {
            all.addAll(ladder(scene, part, span));
        }
        return all;
    }

    private static List<Target> ladder(Scene scene, Scene.Part part, int span) {
        List<Target> ladder = new ArrayList<>();
        ladder.add(target(Level.MODEL, part.model()));
        ladder.add(target(Level.SET, part.sets().get(span)));
        scene.groupsAround(part).forEach(g -> ladder.add(target(Level.GROUP, g)));
        ladder.add(target(Level.PART, part.index()));
        if (part.narrowest(span) == Level.FACE) {
            ladder.add(target(Level.FACE, part.narrowestIndex(span)));
        }
        return ladder;
    }

    static Target target(Level level, int index) {
        return new Target(level, String.valueOf(index));
    }

    /** What a target of this model is by its number. */
    static int index(Target target) {
        return Integer.parseInt(target.id());
    }

    /** The slot of a target that holds what is for both its sides. */
    static Slot slot(Level level, int index) {
        return slot(level, index, Side.BOTH);
    }

    static Slot slot(Level level, int index, Side side) {
        return new Slot(target(level, index), side);
    }

    /** The side that is looked at, FRONT or BACK. */
    Side seen() {
        return seen;
    }

    /**
     * Where a material would show that is put into a slot: regions by their numbers, see {@link #ladders}.
     *
     * @param side FRONT or BACK
     */
    BitSet wouldShow(Slot slot, String material, Side side) {
        Resolution then = Resolution.of(ladders, scheme);
        then.change(slot, scheme.given(slot, material, null));
        BitSet out = new BitSet();
        for (int r = 0; r < regionCount(); r++) {
            out.set(r, slot.equals(then.slot(r, side, Aspect.MATERIAL)));
        }
        return out;
    }

    /** How a region's textures lie where that is assigned; null for each material's natural way. */
    @Nullable
    Mapping mapping(int part, int span) {
        return mapping(region(part, span), seen);
    }

    @Nullable
    private Mapping mapping(int region, Side side) {
        Entry mapped = resolution.entry(region, side, Aspect.MAPPING);
        return mapped == null ? null : mapped.mapping();
    }

    /** What a region shows where nobody has put anything, in words. */
    String arrived(Scene.Part part, int span) {
        UUID source = scene.sets().get(part.sets().get(span)).source();
        return source == null
                ? "plain grey"
                : "“" + Objects.requireNonNull(rows.get(source)).name() + "” as it arrived";
    }

    String nameOf(String material) {
        return Objects.requireNonNull(rows.get(UUID.fromString(material))).name();
    }

    int regionCount() {
        int last = firstRegion.length - 1;
        return last < 0 ? 0 : firstRegion[last] + fronts.get(last).length;
    }

    /** The number of a region. */
    int region(int part, int span) {
        return firstRegion[part] + span;
    }

    /** What the front of a part's span shows. */
    public Look of(int part, int span) {
        return looks.get(fronts.get(part)[span]).look();
    }

    /** What its back shows; null for the same. */
    public @Nullable Look back(int part, int span) {
        return isTwoSided(part, span) ? looks.get(backs.get(part)[span]).look() : null;
    }

    private boolean isTwoSided(int part, int span) {
        return fronts.get(part)[span] != backs.get(part)[span];
    }

    /** What the side shows that is looked at. */
    Shown shown(int part, int span) {
        return looks.get((seen == Side.BACK ? backs : fronts).get(part)[span]);
    }

    /** By the number of a region, see {@link #ladders}; {@code side} is FRONT or BACK. */
    Shown shownAt(int region, Side side) {
        int part = partAt(region);
        return looks.get((side == Side.BACK ? backs : fronts).get(part)[region - firstRegion[part]]);
    }

    boolean isTwoSidedAt(int region) {
        int part = partAt(region);
        return isTwoSided(part, region - firstRegion[part]);
    }

    private int partAt(int region) {
        int at = Arrays.binarySearch(firstRegion, region);
        return at >= 0 ? at : -at - 2;
    }

    List<Shown> looks() {
        return looks;
    }

    int lookIndex(int part, int span) {
        return fronts.get(part)[span];
    }

    /** Null where the back shows what the front does. */
    @Nullable
    Integer backIndex(int part, int span) {
        return isTwoSided(part, span) ? backs.get(part)[span] : null;
    }

    public Scene scene() {
        return scene;
    }

    /** The scheme whose looks these are. */
    public String scheme() {
        return scheme.id();
    }

    /** Parts that one sees something through from in front, wherever one looks at them. */
    Set<Integer> seenThrough() {
        return scene.parts().stream()
                .map(Scene.Part::index)
                .filter(p -> Arrays.stream(fronts.get(p))
                        .allMatch(look ->
                                looks.get(look).look().material().surface().isSeenThrough()))
                .collect(Collectors.toSet());
    }

    /** How many parts show the material somewhere. */
    long partsShowing(UUID material) {
        return partsShowing().getOrDefault(material, 0L);
    }

    /** How many parts show each material somewhere. */
    Map<UUID, Long> partsShowing() {
        Map<UUID, Long> out = new HashMap<>();
        Set<UUID> seen = new HashSet<>();
        for (Scene.Part part : scene.parts()) {
            seen.clear();
            for (int[] side : List.of(fronts.get(part.index()), backs.get(part.index()))) {
                for (int look : side) {
                    MaterialRow m = looks.get(look).material();
                    if (m != null && seen.add(m.id())) {
                        out.merge(m.id(), 1L, Long::sum);
                    }
                }
            }
        }
        return out;
    }

    /** What of a part can hold something of its own, and the spans of each: the part, and its faces that hold something. */
    Map<Target, List<Integer>> holders(Scene.Part part) {
        Map<Target, List<Integer>> holders = new LinkedHashMap<>();
        Target self = target(Level.PART, part.index());
        for (int span = 0; span < part.sets().size(); span++) {
            Target narrowest = target(part.narrowest(span), part.narrowestIndex(span));
            holders.computeIfAbsent(holdsAny(narrowest) ? narrowest : self, t -> new ArrayList<>())
                    .add(span);
        }
        return holders;
    }

    /** The sets of which something shows a material that it arrived with. */
    Set<Integer> setsAsArrived(UUID material) {
        Set<Integer> out = new TreeSet<>();
        for (Scene.Part part : scene.parts()) {
            for (int span = 0; span < part.sets().size(); span++) {
                for (int look : new int[] {fronts.get(part.index())[span], backs.get(part.index())[span]}) {
                    if (shows(look, material) && looks.get(look).look().from() == null) {
                        out.add(part.sets().get(span));
                    }
                }
            }
        }
        return out;
    }

    boolean frontShows(Scene.Part part, int span, @Nullable UUID material) {
        return shows(fronts.get(part.index())[span], material);
    }

    boolean backShows(Scene.Part part, int span, @Nullable UUID material) {
        return shows(backs.get(part.index())[span], material);
    }

    private boolean holdsAny(Target target) {
        return Arrays.stream(Side.values()).anyMatch(side -> scheme.at(new Slot(target, side)) != null);
    }

    /** The slots of a target by which something else takes its place on one side or, where neither is asked for, on both. */
    List<Slot> slots(Target target, boolean front, boolean back) {
        Slot ofFront = new Slot(target, Side.FRONT);
        Slot ofBack = new Slot(target, Side.BACK);
        if (front == back && scheme.at(ofFront) == null && scheme.at(ofBack) == null) {
            return List.of(new Slot(target, Side.BOTH));
        }
        List<Slot> out = new ArrayList<>();
        if (front || !back) {
            out.add(ofFront);
        }
        if (back || !front) {
            out.add(ofBack);
        }
        return out;
    }

    /** The materials that a part shows, each once. */
    Set<MaterialRow> shownBy(Scene.Part part) {
        Set<MaterialRow> out = new LinkedHashSet<>();
        IntStream.concat(Arrays.stream(fronts.get(part.index())), Arrays.stream(backs.get(part.index())))
                .mapToObj(look -> looks.get(look).material())
                .filter(Objects::nonNull)
                .forEach(out::add);
        return out;
    }

    boolean shows(Scene.Part part, @Nullable UUID material) {
        return Arrays.stream(fronts.get(part.index())).anyMatch(look -> shows(look, material))
                || Arrays.stream(backs.get(part.index())).anyMatch(look -> shows(look, material));
    }

    private boolean shows(int look, @Nullable UUID material) {
        MaterialRow m = looks.get(look).material();
        return Objects.equals(m == null ? null : m.id(), material);
    }
}
