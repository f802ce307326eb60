package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.ModelInspection;
import app.zolvan.core.prepare.ModelSnag;
import app.zolvan.core.snag.Snag;
import java.util.List;
import org.junit.jupiter.api.Test;

class InspectionTest {
    @Test
    void theTidyLanternLacksNothingButCoordinatesAndNames() {
        List<Snag> found = inspect(DemoFiles.stormLantern());
        assertThat(found).extracting(Snag::kind).containsOnly(ModelSnag.NO_COORDINATES, ModelSnag.NAMELESS);
    }

    /** What the sauna was given on purpose: boards inside out, a board there twice, panes drawn twice, general names. */
    @Test
    void theSaunasMessIsFound() {
        List<Snag> found = inspect(FloatingSauna.model());
        assertThat(of(found, ModelSnag.FLIPPED, "Panel board").parts()).hasSize(24);
        assertThat(of(found, ModelSnag.DUPLICATE, "Board").count()).isEqualTo(28);
        for (int i = 1; i <= 3; i++) {
            Snag pane = of(found, ModelSnag.COINCIDENT, "Pane " + i);
            assertThat(pane.parts()).hasSize(2);
            assertThat(pane.amount()).as("all six sides of it").isGreaterThan(4.5);
        }
        assertThat(found)
                .filteredOn(f -> f.kind() == ModelSnag.NAMELESS && f.parts().isEmpty())
                .extracting(Snag::count)
                .containsExactly(11);
        assertThat(found)
                .filteredOn(f -> f.kind() == ModelSnag.GAP || f.kind() == ModelSnag.STRAY)
                .isEmpty();
    }

    private static List<Snag> inspect(Model model) {
        return ModelInspection.of(Preparation.of(model, share -> {}), share -> {});
    }

    private static Snag of(List<Snag> found, ModelSnag kind, String name) {
        return found.stream()
                .filter(f -> f.kind() == kind && f.says().contains("“" + name + "”"))
                .findFirst()
                .orElseThrow();
    }
}
