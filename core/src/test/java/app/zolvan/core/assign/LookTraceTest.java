package app.zolvan.core.assign;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.assign.LookTrace.Aspect;
import app.zolvan.core.assign.LookTrace.Outcome;
import app.zolvan.core.mapping.Mapping;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class LookTraceTest {
    private static final List<Target> LADDER = List.of(
            new Target(Level.MODEL, "m"),
            new Target(Level.SET, "s"),
            new Target(Level.GROUP, "outer"),
            new Target(Level.GROUP, "inner"),
            new Target(Level.PART, "p"),
            new Target(Level.FACE, "f"));

    private final Map<Slot, Entry> entries = new HashMap<>();

    @Test
    void aPartsOwnMaterialBeatsItsSetsAndTheSetsShowsAgainWhenItIsTakenOff() {
        put(Level.SET, "s", "brass");
        put(Level.PART, "p", "enamel");
        LookTrace trace = front();
        assertThat(trace.winningEntry().material()).isEqualTo("enamel");
        assertThat(trace.steps().get(1).outcome()).isEqualTo(Outcome.HIDDEN_BY_NARROWER);
        assertThat(trace.ifCleared()).isEqualTo(1);
    }

    @Test
    void everyLevelSaysWhyItShowsOrDoesNot() {
        put(Level.MODEL, "m", "chalk");
        put(Level.SET, "s", "brass");
        put(Level.PART, "p", "enamel");
        assertThat(front().why(0)).isEqualTo("hidden: the part has its own");
        assertThat(front().why(2)).as("a group without a look").isEmpty();
        assertThat(front().why(4)).startsWith("shows");
        entries.put(slot(Level.SET, "s", Side.BOTH), new Entry("brass", null, true));
        assertThat(front().why(0)).isEqualTo("hidden: the set’s is on top");
        assertThat(front().why(1)).startsWith("shows").contains("on top");
        assertThat(front().why(4)).isEqualTo("hidden: the set’s is on top");
    }

    @Test
    void anInnerGroupBeatsAnOuterOne() {
        put(Level.GROUP, "outer", "oak");
        put(Level.GROUP, "inner", "ash");
        assertThat(front().winningEntry().material()).isEqualTo("ash");
    }

    @Test
    void theBroadestOnTopEntryWinsOverEverythingNarrower() {
        entries.put(slot(Level.SET, "s", Side.BOTH), new Entry("chalk", null, true));
        entries.put(slot(Level.PART, "p", Side.BOTH), new Entry("slate", null, true));
        put(Level.FACE, "f", "brass");
        LookTrace trace = front();
        assertThat(trace.winningEntry().material()).isEqualTo("chalk");
        assertThat(trace.steps().get(5).outcome()).isEqualTo(Outcome.HIDDEN_BY_ON_TOP);
        assertThat(trace.steps().get(trace.ifCleared()).entry().material()).isEqualTo("slate");
    }

    @Test
    void withinALevelTheSideSpecificEntryComesFirstUnlessOnlyTheOtherIsOnTop() {
        entries.put(slot(Level.PART, "p", Side.FRONT), Entry.ofMaterial("front"));
        entries.put(slot(Level.PART, "p", Side.BOTH), Entry.ofMaterial("both"));
        assertThat(front().winningEntry().material()).isEqualTo("front");
        assertThat(side(Side.BACK).winningEntry().material()).isEqualTo("both");
        entries.put(slot(Level.PART, "p", Side.BOTH), new Entry("both", null, true));
        assertThat(front().winningEntry().material()).isEqualTo("both");
    }

    @Test
    void aPartWithItsOwnMappingStillFollowsItsSetsMaterial() {
        put(Level.SET, "s", "ash");
        entries.put(slot(Level.PART, "p", Side.BOTH), new Entry(null, new Mapping.ModelUvs(), false));
        assertThat(front().winningEntry().material()).isEqualTo("ash");
        LookTrace mapping = LookTrace.of(new Scheme("a", null, entries), LADDER, Side.FRONT, Aspect.MAPPING);
        assertThat(mapping.winningEntry().mapping()).isEqualTo(new Mapping.ModelUvs());
    }

    @Test
    void aSchemeReplacesItsBaseSlotBySlotAndAClearedSlotHidesOnlyThatOne() {
        put(Level.SET, "s", "brass");
        put(Level.PART, "p", "enamel");
        Scheme base = new Scheme("b", null, entries);
        Scheme cleared = new Scheme("a", base, Map.of(slot(Level.PART, "p", Side.BOTH), Entry.CLEARED));
        LookTrace trace = LookTrace.of(cleared, LADDER, Side.FRONT, Aspect.MATERIAL);
        assertThat(trace.winningEntry().material()).isEqualTo("brass");
    }

    @Test
    void aLookIsExplainedInASentence() {
        assertThat(front().sentence(NAMES))
                .isEqualTo(
                        "Hood shows “mat_07” as it arrived: nothing has been put on it, nor on anything that it belongs to.");
        put(Level.SET, "s", "Brass");
        entries.put(slot(Level.PART, "p", Side.FRONT), Entry.ofMaterial("Enamel"));
        entries.put(slot(Level.PART, "p", Side.BOTH), Entry.ofMaterial("Primer"));
        assertThat(front().sentence(NAMES))
                .isEqualTo("Hood shows Enamel because the part itself has it, and nothing narrower has a look."
                        + " Without it, Primer would show.");
        entries.put(slot(Level.SET, "s", Side.BOTH), new Entry("Brass", null, true));
        Scheme heir = new Scheme("heir", new Scheme("A", null, entries), Map.of());
        LookTrace trace = LookTrace.of(heir, LADDER, Side.FRONT, Aspect.MATERIAL);
        assertThat(trace.sentence(NAMES))
                .isEqualTo("Hood shows Brass because its matching set “Fittings” has it on top in scheme A, and nothing"
                        + " broader is on top. Without it, Enamel would show.");
    }

    @Test
    void aLookIsPutWhereItShows() {
        assertThat(front().standing()).as("what arrived").isEqualTo(new Target(Level.SET, "s"));
        put(Level.MODEL, "m", "chalk");
        assertThat(front().standing()).as("a set beats the model").isEqualTo(new Target(Level.SET, "s"));
        put(Level.GROUP, "inner", "oak");
        assertThat(front().standing()).isEqualTo(new Target(Level.GROUP, "inner"));
        entries.remove(slot(Level.MODEL, "m", Side.BOTH));
        assertThat(front().stepped(1)).isEqualTo(new Target(Level.PART, "p"));
        assertThat(front().stepped(-1)).isEqualTo(new Target(Level.GROUP, "outer"));
        assertThat(front().stepped(99)).isEqualTo(new Target(Level.FACE, "f"));
        assertThat(front().stepped(-99)).isEqualTo(new Target(Level.MODEL, "m"));
        entries.put(slot(Level.MODEL, "m", Side.BOTH), new Entry("chalk", null, true));
        assertThat(front().standing()).as("on top of all").isEqualTo(new Target(Level.MODEL, "m"));
    }

    private static final LookTrace.Names NAMES = new LookTrace.Names() {
        @Override
        public String part() {
            return "Hood";
        }

        @Override
        public String of(Target target) {
            return "Fittings";
        }

        @Override
        public String material(String id) {
            return id;
        }

        @Override
        public String arrived() {
            return "“mat_07” as it arrived";
        }

        @Override
        public String scheme(Slot slot) {
            return slot.target().level() == Level.SET ? "A" : "";
        }
    };

    @Test
    void withoutAnEntryNothingWins() {
        assertThat(front().winner()).isEqualTo(-1);
        assertThat(front().winningEntry()).isNull();
    }

    /** The rule again, written as rules.md words it, with no thought of speed. */
    @Property(tries = 500)
    void theRuleAgreesWithItsSlowReading(@ForAll Random random) {
        Scheme base = new Scheme("b", null, randomEntries(random));
        Scheme scheme = new Scheme("a", base, randomEntries(random));
        for (Side side : List.of(Side.FRONT, Side.BACK)) {
            String fast =
                    material(LookTrace.of(scheme, LADDER, side, Aspect.MATERIAL).winningEntry());
            assertThat(fast).isEqualTo(material(slowly(scheme, side)));
        }
    }

    private static Entry slowly(Scheme scheme, Side side) {
        List<List<Entry>> levels = new ArrayList<>();
        for (Target t : LADDER) {
            List<Entry> ofLevel = new ArrayList<>(); // side-specific first
            for (Side s : List.of(side, Side.BOTH)) {
                Slot slot = new Slot(t, s);
                Entry e = scheme.entries().containsKey(slot)
                        ? scheme.entries().get(slot)
                        : scheme.base().entries().get(slot);
                if (e != null && e.material() != null) {
                    ofLevel.add(e);
                }
            }
            levels.add(ofLevel);
        }
        for (List<Entry> level : levels) {
            for (Entry e : level) {
                if (e.onTop()) {
                    return e;
                }
            }
        }
        for (int i = levels.size() - 1; i >= 0; i--) {
            if (!levels.get(i).isEmpty()) {
                return levels.get(i).get(0);
            }
        }
        return null;
    }

    private static Map<Slot, Entry> randomEntries(Random random) {
        Map<Slot, Entry> map = new HashMap<>();
        for (Target t : LADDER) {
            for (Side s : Side.values()) {
                int dice = random.nextInt(8);
                if (dice == 0) {
                    map.put(new Slot(t, s), Entry.CLEARED);
                } else if (dice < 4) {
                    map.put(new Slot(t, s), new Entry("m" + random.nextInt(100), null, random.nextInt(5) == 0));
                }
            }
        }
        return map;
    }

    private static String material(Entry e) {
        return e == null ? "none" : e.material();
    }

    private void put(Level level, String id, String material) {
        entries.put(slot(level, id, Side.BOTH), Entry.ofMaterial(material));
    }

    private static Slot slot(Level level, String id, Side side) {
        return new Slot(new Target(level, id), side);
    }

    private LookTrace front() {
        return LookTrace.of(new Scheme("a", null, entries), LADDER, Side.FRONT, Aspect.MATERIAL);
    }

    private LookTrace side(Side side) {
        return LookTrace.of(new Scheme("a", null, entries), LADDER, side, Aspect.MATERIAL);
    }
}
