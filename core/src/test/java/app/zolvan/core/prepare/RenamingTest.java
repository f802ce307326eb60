package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.junit.jupiter.api.Test;

class RenamingTest {
    @Test
    void aPatternNumbersInOrderAndKeepsTheNameWhereItIsAskedFor() {
        List<String> names = List.of("a$1", "b");
        assertThat(Renaming.byPattern(names, "Board ## ({name})", 9)).containsExactly("Board 09 (a$1)", "Board 10 (b)");
        assertThat(Renaming.byPattern(names, "  Leg  # ", 1)).containsExactly("Leg 1", "Leg 2");
        assertThat(Renaming.byPattern(names, "Rail", 1)).containsExactly("Rail", "Rail");
    }

    @Test
    void textIsReplacedAsItStandsInAnyCase() {
        assertThat(Renaming.byReplacing(List.of("MESH.012 (copy)", "mesh_x", "Seat"), "mesh", "Board $1"))
                .containsExactly("Board $1.012 (copy)", "Board $1_x", "Seat");
        assertThat(Renaming.byReplacing(List.of("(copy)"), "(COPY)", "")).containsExactly("");
        assertThat(Renaming.byReplacing(List.of("Seat"), "", "x")).containsExactly("Seat");
    }

    @Test
    void aNameIsCutWhereItIsTooLongAndNotWithinALetter() {
        String cut = Renaming.byPattern(List.of("x"), "a".repeat(119) + "😀 and more", 1)
                .get(0);
        assertThat(cut).isEqualTo("a".repeat(119));
    }
}
