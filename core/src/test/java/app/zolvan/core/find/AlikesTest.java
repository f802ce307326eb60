package app.zolvan.core.find;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.ShippedMeasures;
import app.zolvan.core.render.chip.Chip;
import java.util.ArrayList;
import java.util.List;
import java.util.function.Function;
import org.junit.jupiter.api.Test;

class AlikesTest {
    private static Sample sample(String name, Surface s) {
        MaterialMeasure m = ShippedMeasures.of(Chip.key(s)).orElseGet(() -> MaterialMeasure.of(s, i -> new byte[0]));
        return Sample.of(new Material("", name, null, s), m, Facts.NONE);
    }

    @Test
    void copiesThatHardlyDifferAreFoundAndOthersLeftAlone() {
        Surface red =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.37, 0.02, 0.014).with(Parameter.SPECULAR_ROUGHNESS, 0.3);
        List<Sample> some = List.of(
                sample("red", red),
                sample("redder", red.with(Parameter.BASE_COLOR, 0.375, 0.02, 0.014)),
                sample("matt red", red.with(Parameter.SPECULAR_ROUGHNESS, 0.6)),
                sample("orange", red.with(Parameter.BASE_COLOR, 0.5, 0.1, 0.014)),
                sample("red again", red.with(Parameter.SPECULAR_ROUGHNESS, 0.302)),
                sample("red metal", red.with(Parameter.BASE_METALNESS, 1)));
        assertThat(Alikes.groups(some, Function.identity()))
                .extracting(g -> g.stream().map(s -> s.material().name()).toList())
                .containsExactly(List.of("red", "redder", "red again"));
    }

    /** What ships was made so that no two look alike; a copy of each does. */
    @Test
    void amongWhatShipsOnlyCopiesAreAlike() {
        List<Sample> all = new ArrayList<>();
        ShippedLibrary.load().materials().forEach(m -> all.add(sample(m.name(), m.surface())));
        assertThat(Alikes.groups(all, Function.identity())).isEmpty();
        List<Sample> twice = new ArrayList<>(all);
        twice.addAll(all);
        assertThat(Alikes.groups(twice, Function.identity())).hasSize(all.size());
    }

    @Test
    void whatCanNotBeTrueIsSaid() {
        assertThat(Facts.NONE.missing()).containsExactly("density", "price", "waste", "carbon");
        Facts.NONE.check();
        Facts iron = Facts.of(7_200, 40, 5, 30, List.of("cast"));
        assertThat(iron.missing()).isEmpty();
        assertThat(Facts.NONE.madeOf("Cast iron", iron).density()).isEqualTo(7_200);
        assertThat(Facts.NONE.madeOf("Cast iron", iron).withoutSubstance()).isEqualTo(Facts.NONE);
        iron.check();
        assertRefused(Facts.of(Double.NaN, 1, 1, 1, List.of()), "density");
        assertRefused(Facts.of(1, 1, 101, 1, List.of()), "waste");
        assertRefused(Facts.of(1, 1, 1, 1, List.of(" ")), "tags");
    }

    private static void assertRefused(Facts facts, String field) {
        assertThatThrownBy(facts::check)
                .isInstanceOfSatisfying(
                        ParameterException.class, e -> assertThat(e.field()).isEqualTo(field));
    }
}
