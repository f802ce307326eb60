package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.prepare.Finding;
import app.zolvan.core.prepare.Finding.Kind;
import app.zolvan.core.prepare.ModelInspection;
import java.util.List;
import org.junit.jupiter.api.Test;

class InspectionTest {
    @Test
    void theTidyLanternLacksNothingButCoordinatesAndNames() {
        List<Finding> found = inspect(DemoFiles.stormLantern());
        assertThat(found).extracting(Finding::kind).containsOnly(Kind.NO_COORDINATES, Kind.NAMELESS);
    }

    /** What the sauna was given on purpose: boards inside out, a board there twice, panes drawn twice, general names. */
    @Test
    void theSaunasMessIsFound() {
        List<Finding> found = inspect(FloatingSauna.model());
        assertThat(of(found, Kind.FLIPPED, "Panel board").parts()).hasSize(24);
        assertThat(of(found, Kind.DUPLICATE, "Board").count()).isEqualTo(28);
        for (int i = 1; i <= 3; i++) {
            Finding pane = of(found, Kind.COINCIDENT, "Pane " + i);
            assertThat(pane.parts()).hasSize(2);
            assertThat(pane.amount()).as("all six sides of it").isGreaterThan(4.5);
        }
        assertThat(found)
                .filteredOn(f -> f.kind() == Kind.NAMELESS && f.parts().isEmpty())
                .extracting(Finding::count)
                .containsExactly(11);
        assertThat(found)
                .filteredOn(f -> f.kind() == Kind.GAP || f.kind() == Kind.STRAY)
                .isEmpty();
    }

    private static List<Finding> inspect(Model model) {
        return ModelInspection.of(Preparation.of(model, share -> {}), share -> {});
    }

    private static Finding of(List<Finding> found, Kind kind, String name) {
        return found.stream()
                .filter(f -> f.kind() == kind && f.says().contains("“" + name + "”"))
                .findFirst()
                .orElseThrow();
    }
}
