package app.zolvan.core.find;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.find.Shelf.Facet;
import app.zolvan.core.find.Shelf.Found;
import app.zolvan.core.find.Shelf.Order;
import app.zolvan.core.find.Shelf.Wish;
import app.zolvan.core.measure.ShippedMeasures;
import app.zolvan.core.render.chip.Chip;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.junit.jupiter.api.Test;

class FindTest {
    private static final List<Sample> ALL = ShippedLibrary.load().materials().stream()
            .map(m -> Sample.of(
                    m,
                    ShippedMeasures.of(Chip.key(m.surface())).orElseThrow(),
                    ShippedLibrary.load().facts().get(m.code())))
            .toList();

    private static Found<Sample> find(Wish wish) {
        return Shelf.find(ALL, Function.identity(), wish);
    }

    @Test
    void wordsAreTakenApartWithTheTradesOthers() {
        assertThat(Words.terms("Matt-white  PLÂSTER for the wall"))
                .extracting(Words.Term::word)
                .containsExactly("matt", "white", "plaster", "wall");
        assertThat(Words.terms("see-through")).extracting(Words.Term::word).containsExactly("clear");
        assertThat(Words.terms("timber").get(0).others()).containsExactly("wood");
        assertThat(Words.terms("pt-014, PT 14")).extracting(Words.Term::word).startsWith("pt014");
        assertThat(Words.terms("")).isEmpty();
        assertThat(Words.terms("x ".repeat(5000))).hasSizeLessThanOrEqualTo(12);
    }

    @Test
    void aFacetCountsWhatThereWouldBeWithoutItsOwnWish() {
        Found<Sample> all = find(Wish.NONE);
        assertThat(all.samples()).isEqualTo(ALL);
        Found<Sample> metals = find(new Wish(Map.of(Facet.KIND, Set.of("metal")), null, null, null));
        assertThat(metals.samples())
                .hasSize(all.counts().get(Facet.KIND).get("metal"))
                .allMatch(s -> s.material().code().startsWith("MT"));
        assertThat(metals.counts().get(Facet.KIND)).isEqualTo(all.counts().get(Facet.KIND));
        int glossy = metals.counts().get(Facet.FINISH).get("gloss");
        Found<Sample> both =
                find(new Wish(Map.of(Facet.KIND, Set.of("metal"), Facet.FINISH, Set.of("gloss")), null, null, null));
        assertThat(both.samples()).hasSize(glossy);
        assertThat(both.counts().get(Facet.FINISH)).isEqualTo(metals.counts().get(Facet.FINISH));
        assertThat(both.counts().get(Facet.KIND).get("metal")).isEqualTo(glossy);
    }

    @Test
    void orderIsByWhatIsMeasuredAndTheUnknownComesLast() {
        List<Sample> sharp =
                find(new Wish(Map.of(), Order.SHARPEST, null, null)).samples();
        assertThat(sharp.get(0).measure().pattern().pixelsPerMetre()).isGreaterThan(40_000);
        assertThat(sharp.get(sharp.size() - 1).measure().pattern()).isNull();
        List<Sample> cheap =
                find(new Wish(Map.of(), Order.CHEAPEST, null, null)).samples();
        assertThat(cheap)
                .isSortedAccordingTo(
                        (a, b) -> Double.compare(a.facts().price(), b.facts().price()));
        List<Sample> navy =
                find(new Wish(Map.of(), null, Srgb.fromCodes(30, 42, 74), null)).samples();
        assertThat(navy.subList(0, 5)).extracting(s -> s.material().code()).contains("PT-049");
        List<Sample> like = find(new Wish(
                        Map.of(), null, null, ALL.get(0).measure().look()))
                .samples();
        assertThat(like.get(0)).isSameAs(ALL.get(0));
        assertThat(like.get(1).material().code()).startsWith("P");
    }
}
