package app.zolvan.core.assign;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.assign.SchemeDifferences.Difference;
import app.zolvan.core.mapping.Mapping;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import org.junit.jupiter.api.Test;

class SchemesTest {
    private static final Slot SEAT = new Slot(new Target(Level.PART, "1"), Side.BOTH);
    private static final Slot LEG = new Slot(new Target(Level.SET, "2"), Side.BOTH);

    /** What is in force is what the slow reading of rules.md, section 1.1, says; and a base can go without a trace. */
    @Property(tries = 300)
    void aBaseThatGoesLeavesEveryLookAsItIs(@ForAll Random random) {
        List<Scheme> line = line(random);
        Scheme heir = line.get(line.size() - 1);
        Map<Slot, Entry> slow = new HashMap<>();
        for (Scheme s : line) {
            s.entries().forEach((slot, e) -> {
                if (e.material() == null) {
                    slow.remove(slot);
                } else {
                    slow.put(slot, e);
                }
            });
        }
        assertThat(heir.effective()).isEqualTo(slow);
        assertThat(heir.settled().effective()).isEqualTo(slow);
        for (Slot slot : List.of(SEAT, LEG)) {
            Scheme from = heir.inheritedFrom(slot);
            boolean own = heir.entries().containsKey(slot);
            assertThat(from == null ? null : from.entries().get(slot)).isEqualTo(own ? null : slow.get(slot));
            Map<Slot, Entry> taken = new HashMap<>(heir.entries());
            taken.remove(slot);
            if (heir.taken(slot) != null) {
                taken.put(slot, heir.taken(slot));
            }
            assertThat(new Scheme("taken", heir.base(), taken).at(slot))
                    .as("taken off")
                    .isNull();
        }
    }

    private static List<Scheme> line(Random random) {
        List<Scheme> line = new ArrayList<>();
        for (int i = 0; i < 4; i++) {
            Map<Slot, Entry> own = new HashMap<>();
            for (Slot slot : List.of(SEAT, LEG)) {
                int dice = random.nextInt(4);
                if (dice < 3) {
                    own.put(slot, dice == 0 ? Entry.CLEARED : Entry.ofMaterial("m" + random.nextInt(9)));
                }
            }
            line.add(new Scheme("s" + i, i == 0 ? null : line.get(i - 1), own));
        }
        return line;
    }

    @Test
    void aSlotIsTakenOverUntilSomethingDiffers() {
        Scheme a = new Scheme("a", null, Map.of(SEAT, new Entry("oak", new Mapping.ModelUvs(), true)));
        Scheme b = new Scheme("b", a, Map.of(LEG, Entry.CLEARED));
        Scheme c = new Scheme("c", b, Map.of());
        assertThat(c.takesOver("a", SEAT)).isTrue();
        assertThat(c.takesOver("a", LEG)).as("b has it cleared").isFalse();
        assertThat(c.takesOver("b", LEG)).isTrue();
        assertThat(b.differs(LEG)).isTrue();
        assertThat(b.differs(SEAT)).isFalse();
        assertThat(c.given(SEAT, "ash", null))
                .as("lies and stands as it did")
                .isEqualTo(new Entry("ash", new Mapping.ModelUvs(), true));
        assertThat(c.given(SEAT, "ash", new Mapping.Box()).mapping()).isEqualTo(new Mapping.Box());
        assertThat(a.taken(SEAT)).as("nothing need be stored").isNull();
    }

    @Test
    void dividersGoOnAfterZ() {
        assertThat(IntStream.of(0, 25, 26, 51, 52, 701, 702).mapToObj(SchemeLetter::of))
                .containsExactly("A", "Z", "AA", "AZ", "BA", "ZZ", "AAA");
        assertThat(SchemeLetter.next(Set.of("A", "B", "D"))).isEqualTo("C");
    }

    @Test
    void whatChangesAlikeStandsTogetherAndMostComesFirst() {
        List<Difference<String>> found = SchemeDifferences.of(
                List.of("oak", "oak", "steel", "chalk"),
                List.of("ash", "ash", "steel", "slate"),
                new double[] {1, 2, 9, 4});
        assertThat(found)
                .containsExactly(
                        new Difference<>("chalk", "slate", List.of(3), 4),
                        new Difference<>("oak", "ash", List.of(0, 1), 3));
    }

    @Test
    void fourTimesThreeTimesTwoChoicesAreTwentyFour() {
        List<List<String>> choices = List.of(List.of("a", "b", "c", "d"), List.of("e", "f", "g"), List.of("h", "i"));
        assertThat(Combinations.count(choices)).isEqualTo(24);
        assertThat(Combinations.of(choices)).hasSize(24).doesNotHaveDuplicates().startsWith(List.of("a", "e", "h"));
        assertThat(Combinations.count(List.of(List.of("a"), List.of()))).isZero();
        assertThat(Combinations.count(Collections.nCopies(70, List.of("a", "b"))))
                .isEqualTo(Long.MAX_VALUE);
    }

    @Test
    void onlyWhatIsRejectedHasToSayWhy() {
        assertThat(SchemeState.values()).filteredOn(SchemeState::needsReason).containsExactly(SchemeState.REJECTED);
    }
}
