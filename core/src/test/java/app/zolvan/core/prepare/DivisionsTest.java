package app.zolvan.core.prepare;

import static app.zolvan.core.model.Model.NONE;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class DivisionsTest {

    @Test
    void theFirstLevelWithSeveralGroupsDividesAModel() {
        // house › (cabin › bench, deck › (rail, steps))
        assertThat(Divisions.of(List.of(NONE, 0, 1, 0, 3, 3))).containsExactly(NONE, 1, 1, 3, 3, 3);
    }

    @Test
    void severalModelsDivideByThemselves() {
        assertThat(Divisions.of(List.of(NONE, 0, NONE, 2))).containsExactly(0, 0, 2, 2);
    }

    @Test
    void whereEachGroupHoldsOneNothingDivides() {
        assertThat(Divisions.of(List.of(NONE, 0, 1))).containsExactly(NONE, NONE, NONE);
        assertThat(Divisions.of(List.of())).isEmpty();
    }
}
