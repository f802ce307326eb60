package app.zolvan.core.assign;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.mapping.Mapping;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class ResolutionTest {
    private static final List<Side> SIDES = List.of(Side.FRONT, Side.BACK);
    private static final List<Side> SLOT_SIDES = List.of(Side.FRONT, Side.BACK, Side.BOTH);

    /** rules.md, section 1: over random models and assignments the quick way agrees with the ladder of each region. */
    @Property(tries = 300)
    void everyRegionShowsWhatItsOwnLadderSays(@ForAll Random random) {
        List<List<Target>> model = randomModel(random);
        Scheme scheme = new Scheme("a", new Scheme("b", null, some(random, model)), some(random, model));
        agrees(Resolution.of(Ladders.of(model), scheme), model, scheme);
    }

    @Property(tries = 200)
    void aChangeReachesExactlyTheRegionsThatShowSomethingElse(@ForAll Random random) {
        List<List<Target>> model = randomModel(random);
        Map<Slot, Entry> entries = new HashMap<>(some(random, model));
        Resolution quick = Resolution.of(Ladders.of(model), new Scheme("a", null, entries));
        for (int i = 0; i < 12; i++) {
            List<List<Object>> before = shown(quick, model.size());
            Slot slot = randomSlot(random, model);
            Entry entry = randomEntry(random);
            int[] reached = quick.change(slot, entry);
            if (entry.isCleared()) {
                entries.remove(slot);
            } else {
                entries.put(slot, entry);
            }
            agrees(quick, model, new Scheme("a", null, entries));
            List<List<Object>> after = shown(quick, model.size());
            assertThat(IntStream.of(reached).boxed().toList())
                    .isEqualTo(IntStream.range(0, model.size())
                            .filter(r -> !before.get(r).equals(after.get(r)))
                            .boxed()
                            .toList());
        }
    }

    @Test
    void whatIsHiddenReachesNothing() {
        List<List<Target>> model = List.of(
                List.of(target(Level.MODEL, 0), target(Level.SET, 0), target(Level.PART, 0)),
                List.of(target(Level.MODEL, 0), target(Level.SET, 0), target(Level.PART, 1)));
        Slot own = new Slot(target(Level.PART, 0), Side.BOTH);
        Resolution quick =
                Resolution.of(Ladders.of(model), new Scheme("a", null, Map.of(own, Entry.ofMaterial("oak"))));
        Slot set = new Slot(target(Level.SET, 0), Side.BOTH);
        assertThat(quick.change(set, Entry.ofMaterial("ash"))).containsExactly(1);
        assertThat(quick.change(set, Entry.ofMaterial("ash"))).as("no change").isEmpty();
        assertThat(quick.change(set, new Entry("ash", null, true))).as("on top").containsExactly(0, 1);
        assertThat(quick.change(own, Entry.ofMaterial("elm"))).as("below it").isEmpty();
        assertThat(quick.slot(0, Side.FRONT, Aspect.MATERIAL)).isEqualTo(set);
    }

    /** What is pinned shows on both its sides what it showed, by its ladder; and what needs none gets none. */
    @Property(tries = 400)
    void pinsKeepWhatTheirPartsShow(@ForAll Random random) {
        List<List<Target>> model = randomModel(random).stream()
                .map(l -> l.stream().filter(t -> t.level() != Level.FACE).toList())
                .toList();
        Scheme before = new Scheme("a", null, some(random, model));
        Map<Slot, Entry> changes = some(random, model);
        changes.keySet().removeIf(s -> s.target().level() == Level.PART);
        int kept = random.nextInt(model.size());
        Target part = model.get(kept).get(model.get(kept).size() - 1);
        List<Pins.Kept> regions = IntStream.range(0, model.size())
                .filter(r -> model.get(r).contains(part))
                .mapToObj(r -> new Pins.Kept(r, part, "arrived"))
                .toList();
        Map<Slot, Entry> after = new HashMap<>(before.entries());
        after.putAll(changes);
        after.values().removeIf(Entry::isCleared);
        boolean same = regions.stream().allMatch(r -> worn(before, model, r).equals(worn(with(after), model, r)));
        try {
            Map<Slot, Entry> pins = Pins.of(Ladders.of(model), before, changes, regions);
            assertThat(pins.isEmpty()).isEqualTo(same);
            after.putAll(pins);
            regions.forEach(r -> assertThat(worn(with(after), model, r)).isEqualTo(worn(before, model, r)));
        } catch (Pins.CannotStayException e) {
            assertThat(same).isFalse();
            assertThat(e.target()).isEqualTo(part);
            boolean plain = Stream.concat(before.entries().values().stream(), changes.values().stream())
                    .noneMatch(x -> x.onTop() || x.mapping() != null);
            assertThat(plain && regions.size() == 1)
                    .as("nothing stands in the way")
                    .isFalse();
        }
    }

    private static Scheme with(Map<Slot, Entry> entries) {
        return new Scheme("b", null, entries);
    }

    private static List<Object> worn(Scheme scheme, List<List<Target>> model, Pins.Kept r) {
        List<Object> out = new ArrayList<>();
        for (Side side : SIDES) {
            Entry m = LookTrace.of(scheme, model.get(r.number()), side, Aspect.MATERIAL)
                    .winningEntry();
            Entry lies = LookTrace.of(scheme, model.get(r.number()), side, Aspect.MAPPING)
                    .winningEntry();
            out.add(m == null ? "arrived" : m.material());
            out.add(lies == null ? "as it does" : lies.mapping());
        }
        return out;
    }

    private static void agrees(Resolution quick, List<List<Target>> model, Scheme scheme) {
        for (int r = 0; r < model.size(); r++) {
            for (Side side : SIDES) {
                for (Aspect aspect : Aspect.values()) {
                    LookTrace trace = LookTrace.of(scheme, model.get(r), side, aspect);
                    assertThat(quick.entry(r, side, aspect)).isEqualTo(trace.winningEntry());
                    assertThat(quick.slot(r, side, aspect))
                            .isEqualTo(
                                    trace.winner() < 0
                                            ? null
                                            : trace.steps().get(trace.winner()).slot());
                }
            }
        }
    }

    private static List<List<Object>> shown(Resolution quick, int regions) {
        List<List<Object>> out = new ArrayList<>();
        for (int r = 0; r < regions; r++) {
            List<Object> all = new ArrayList<>();
            for (Side side : SIDES) {
                for (Aspect aspect : Aspect.values()) {
                    Entry e = quick.entry(r, side, aspect);
                    all.add(quick.slot(r, side, aspect));
                    all.add(
                            e == null
                                    ? "nothing"
                                    : List.of(e.onTop(), aspect == Aspect.MATERIAL ? e.material() : e.mapping()));
                }
            }
            out.add(all);
        }
        return out;
    }

    /** Parts in groups of groups, of one set or several, some with faces of their own. */
    private static List<List<Target>> randomModel(Random random) {
        List<List<Target>> out = new ArrayList<>();
        int face = 0;
        int[] parent = IntStream.range(0, 1 + random.nextInt(5))
                .map(g -> random.nextInt(g + 1) - 1)
                .toArray();
        for (int part = 0; part < 1 + random.nextInt(8); part++) {
            int group = random.nextInt(parent.length + 1) - 1;
            for (int span = 0; span < 1 + random.nextInt(3); span++) {
                List<Target> groups = new ArrayList<>();
                for (int g = group; g >= 0; g = parent[g]) {
                    groups.add(0, target(Level.GROUP, g));
                }
                List<Target> ladder = new ArrayList<>();
                ladder.add(target(Level.MODEL, random.nextInt(8) == 0 ? 1 : 0));
                ladder.add(target(Level.SET, random.nextInt(3)));
                ladder.addAll(groups);
                ladder.add(target(Level.PART, part));
                if (random.nextInt(3) == 0) {
                    ladder.add(target(Level.FACE, face++));
                }
                out.add(ladder);
            }
        }
        return out;
    }

    private static Map<Slot, Entry> some(Random random, List<List<Target>> model) {
        Map<Slot, Entry> map = new HashMap<>();
        for (int i = 0; i < random.nextInt(20); i++) {
            map.put(randomSlot(random, model), randomEntry(random));
        }
        return map;
    }

    private static Slot randomSlot(Random random, List<List<Target>> model) {
        List<Target> ladder = model.get(random.nextInt(model.size()));
        return new Slot(ladder.get(random.nextInt(ladder.size())), SLOT_SIDES.get(random.nextInt(3)));
    }

    private static Entry randomEntry(Random random) {
        Mapping mapping = random.nextBoolean() ? new Mapping.Box() : new Mapping.ModelUvs();
        return new Entry(
                random.nextInt(4) == 0 ? null : "m" + random.nextInt(4),
                random.nextInt(3) == 0 ? mapping : null,
                random.nextInt(5) == 0);
    }

    private static Target target(Level level, int index) {
        return new Target(level, String.valueOf(index));
    }
}
