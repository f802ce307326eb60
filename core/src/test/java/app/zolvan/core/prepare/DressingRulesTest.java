package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.prepare.DressingRules.Lie;
import app.zolvan.core.prepare.DressingRules.Rule;
import app.zolvan.core.prepare.DressingRules.Thing;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DressingRulesTest {
    private static final Thing BOARD =
            new Thing("Deck board 12", Role.FLOOR, new Vec3(2.4, 0.02, 0.12), List.of("mat_3"));

    private static Rule rule(String name, String source, Role role, Lie lie, double shortest, double longest) {
        return new Rule(name, source, role, lie, shortest, longest, "oak");
    }

    @Test
    void theFirstThatFitsDecides() {
        DressingRules rules = new DressingRules(List.of(
                rule("rail*", "", null, null, 0, 0),
                rule("deck *", "", null, null, 0, 0),
                rule("*", "", Role.FLOOR, null, 0, 0)));
        assertThat(rules.first(BOARD)).contains(1);
        assertThat(rules.first(new Thing("Slab", Role.FLOOR, BOARD.size(), List.of())))
                .contains(2);
        assertThat(rules.first(new Thing("Slab", null, BOARD.size(), List.of())))
                .isEmpty();
    }

    /** All that is said has to fit. */
    @ParameterizedTest
    @CsvSource({
        "deck*, '', FLOOR, FLAT, 1, 3, true",
        "DECK BOARD*, mat_?, , , 0, 0, false",
        "'', MAT_*, , , 0, 0, true",
        "board, '', , , 0, 0, false",
        "*board*, '', WALL, , 0, 0, false",
        "'', '', , UPRIGHT, 0, 0, false",
        "'', '', , , 2.5, 0, false",
        "'', '', , , 0, 2.3, false",
        "'', '', , , 2.4, 2.4, true"
    })
    void allThatIsSaidHasToFit(
            String name, String source, Role role, Lie lie, double shortest, double longest, boolean fits) {
        assertThat(new DressingRules(List.of(rule(name, source, role, lie, shortest, longest)))
                        .first(BOARD)
                        .isPresent())
                .isEqualTo(fits);
    }

    @Test
    void howAPartLies() {
        assertThat(Lie.of(new Vec3(2, 0.1, 1))).isEqualTo(Lie.FLAT);
        assertThat(Lie.of(new Vec3(4, 2.5, 0.2))).isEqualTo(Lie.UPRIGHT);
        assertThat(Lie.of(new Vec3(0.1, 0.9, 0.1))).isEqualTo(Lie.TALL);
        assertThat(rule("", " ", null, null, 0, 0).isOpen()).isTrue();
        assertThat(rule("a", "", null, null, 0, 0).isOpen()).isFalse();
    }
}
