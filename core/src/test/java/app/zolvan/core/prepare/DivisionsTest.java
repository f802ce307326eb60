package app.zolvan.core.prepare;

import static app.zolvan.core.model.Model.NONE;
import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Set;
import org.junit.jupiter.api.Test;

class DivisionsTest {

    @Test
    void theFirstLevelWithSeveralGroupsDividesAModel() {
        // house › (cabin › bench, deck › (rail, steps))
        assertThat(Divisions.of(List.of(NONE, 0, 1, 0, 3, 3), Set.of())).containsExactly(NONE, 1, 1, 3, 3, 3);
    }

    @Test
    void severalModelsDivideByThemselves() {
        assertThat(Divisions.of(List.of(NONE, 0, NONE, 2), Set.of())).containsExactly(0, 0, 2, 2);
    }

    @Test
    void whatStandsAroundADesignDoesNotDivideIt() {
        // lamp › (base, shade), and a ground that is none of it
        assertThat(Divisions.of(List.of(NONE, 0, 0, NONE, 3), Set.of(3))).containsExactly(NONE, 1, 2, NONE, NONE);
    }

    @Test
    void whereEachGroupHoldsOneNothingDivides() {
        assertThat(Divisions.of(List.of(NONE, 0, 1), Set.of())).containsExactly(NONE, NONE, NONE);
        assertThat(Divisions.of(List.of(), Set.of())).isEmpty();
    }
}
