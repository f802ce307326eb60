package app.zolvan.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.List;
import org.junit.jupiter.api.Test;

class NearTwinsTest {
    private static final LinearRgb RED = new LinearRgb(0.42, 0.04, 0.03);
    private static final LinearRgb NEARLY = new LinearRgb(0.44, 0.045, 0.03);
    private static final LinearRgb BLUE = new LinearRgb(0.03, 0.05, 0.4);

    @Test
    void whatNearlyMatchesIsFoundNearestFirst() {
        List<NearTwins.Pair<String>> pairs = NearTwins.among(List.of(
                finish("red", MaterialKind.PAINT, RED, 0.15),
                finish("blue", MaterialKind.PAINT, BLUE, 0.15),
                finish("nearly", MaterialKind.PAINT, NEARLY, 0.15),
                finish("twice", MaterialKind.PAINT, BLUE, 0.15),
                finish("matt", MaterialKind.PAINT, RED, 0.9),
                finish("cloth", MaterialKind.FABRIC, RED, 0.15),
                finish("arrived", null, NEARLY, 0.15)));
        assertThat(pairs)
                .extracting(p -> p.one() + " " + p.other())
                .containsExactly("blue twice", "nearly arrived", "red nearly", "red arrived", "cloth arrived");
        assertThat(pairs)
                .filteredOn(NearTwins.Pair::matches)
                .extracting(NearTwins.Pair::one)
                .containsExactly("blue", "nearly");
        assertThat(pairs.get(2).difference())
                .isCloseTo(CieLab.of(RED).difference(CieLab.of(NEARLY)), within(1e-9))
                .isBetween(0.5, NearTwins.DIFFERENCE);
        assertThat(pairs).allSatisfy(p -> assertThat(p.gloss()).isCloseTo(0, within(0.1)));
    }

    private static NearTwins.Finish<String> finish(String name, MaterialKind kind, LinearRgb c, double roughness) {
        Surface s =
                Surface.STANDARD.with(Parameter.BASE_COLOR, c.toArray()).with(Parameter.SPECULAR_ROUGHNESS, roughness);
        return new NearTwins.Finish<>(name, kind, MaterialMeasure.of(s, digest -> new byte[0]));
    }
}
