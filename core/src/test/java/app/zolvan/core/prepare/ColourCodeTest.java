package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Drawing;
import app.zolvan.core.material.Facts;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.ColourCode.Entry;
import app.zolvan.core.prepare.ColourCode.Thing;
import app.zolvan.core.prepare.PlainColours.Mark;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;

/** needs.md O14: colours as a code for what things are. */
class ColourCodeTest {

    /** Cubes with edges of 1, 2, 3, … m. */
    private static Model cubes(int count) {
        List<Model.Part> parts = new ArrayList<>();
        List<Mesh> meshes = new ArrayList<>();
        for (int i = 0; i < count; i++) {
            parts.add(new Model.Part(Model.NONE, "Cube", Transform.IDENTITY, i, List.of(Model.NONE)));
            meshes.add(Cubes.box(i + 1, i + 1, i + 1));
        }
        return new Model(List.of(), parts, meshes, List.of(), Map.of(), List.of());
    }

    @Test
    void whatHasMostAreaComesFirstAndWhatIsNothingLast() {
        List<String> are = List.of("door", "wall", "door", "");
        ColourCode<String> code = ColourCode.of(
                cubes(4), (p, s) -> new Thing<>(are.get(p).isEmpty() ? null : are.get(p), "a " + are.get(p)));
        assertThat(code.entries()).extracting(e -> e.thing().key()).containsExactly("door", "wall", null);
        assertThat(code.entries()).extracting(Entry::parts).containsExactly(2, 1, 1);
        assertThat(code.entries().get(0).area()).isCloseTo(6 * (1 + 9), within(1e-9));
        assertThat(code.entries().get(2).area()).as("more than all others").isCloseTo(6 * 16, within(1e-9));
        assertThat(code.spans()).containsExactly(List.of(0), List.of(1), List.of(0), List.of(2));
        assertThat(code.entries().get(2).mark().hatch()).isZero();
    }

    /** Neighbours of the legend differ in hatch, and clearly in colour; what is nothing takes none of the colours. */
    @Test
    void thingsAreToldApartByColourAndByHatch() {
        ColourCode<Integer> code =
                ColourCode.of(cubes(12), (p, s) -> new Thing<>(p == 5 ? null : Integer.valueOf(p), "part " + p));
        List<Entry<Integer>> entries = code.entries();
        for (int i = 0; i + 2 < entries.size(); i++) {
            CieLab one = CieLab.of(entries.get(i).mark().colour());
            assertThat(one.difference(CieLab.of(entries.get(i + 1).mark().colour())))
                    .isGreaterThan(15);
            assertThat(entries.get(i).mark().hatch())
                    .isNotEqualTo(entries.get(i + 1).mark().hatch());
        }
        assertThat(IntStream.range(0, 12).mapToObj(p -> code.spans().get(p).get(0)))
                .as("largest first")
                .containsExactly(10, 9, 8, 7, 6, 11, 5, 4, 3, 2, 1, 0);
    }

    /** needs.md J74: what has a mark of its own keeps it, and the others theirs. */
    @Test
    void aMarkOfItsOwnStays() {
        Mark green = new Mark(Srgb.fromCodes(0, 128, 0), 2);
        ColourCode<Integer> usual = ColourCode.of(cubes(5), (p, s) -> new Thing<>(p, "part " + p));
        ColourCode<Integer> own = ColourCode.of(cubes(5), (p, s) -> new Thing<>(p, "part " + p, p == 3 ? green : null));
        for (int i = 0; i < 5; i++) {
            assertThat(own.entries().get(i).mark())
                    .isEqualTo(i == 1 ? green : usual.entries().get(i).mark());
        }
        LinearRgb oak = Srgb.fromCodes(180, 140, 90);
        assertThat(new Drawing("#008000", 2).colour(() -> oak)).isEqualTo(green.colour());
        assertThat(new Drawing(null, 0).colour(() -> oak)).isEqualTo(oak);
        assertThatThrownBy(() -> facts(new Drawing("greenish", 0)).check()).hasMessageContaining("#rrggbb");
        assertThatThrownBy(() -> facts(new Drawing(null, 6)).check()).hasMessageContaining("six ways");
    }

    private static Facts facts(Drawing drawing) {
        return new Facts(null, null, null, null, List.of(), null, null, null, null, null, drawing);
    }
}
