package app.zolvan.core.assign;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.assign.SchemeDifferences.Difference;
import java.util.Collections;
import java.util.List;
import java.util.Set;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

class SchemesTest {
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
