package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.prepare.DressingTable.By;
import app.zolvan.core.prepare.DressingTable.Row;
import app.zolvan.core.prepare.DressingTable.Source;
import java.util.List;
import org.junit.jupiter.api.Test;

/** needs.md A39: a kept table of what source materials become, applied to the next import. */
class DressingTableTest {
    private static final LinearRgb BROWN = Srgb.fromCodes(120, 80, 50);
    private static final LinearRgb NEARLY_BROWN = Srgb.fromCodes(121, 81, 50);
    private static final LinearRgb BLUE = Srgb.fromCodes(40, 60, 140);

    private final DressingTable table = new DressingTable(List.of(
            new Row("Oak*", BROWN, null, "oak"),
            new Row("mat_07", BROWN, Role.WALL, "pine"),
            new Row("mat_08", BLUE, Role.FLOOR, "slate")));

    private String becomes(String name, LinearRgb colour, Role role) {
        return table.find(new Source(name, colour, role))
                .map(h -> h.row().material() + " " + h.by())
                .orElse("");
    }

    @Test
    void aNameThatSaysSomethingDecidesWhateverTheColour() {
        assertThat(becomes("OAK veneer", BLUE, Role.FLOOR)).isEqualTo("oak " + By.NAME);
        assertThat(becomes("Old oak", BLUE, null)).as("it begins otherwise").isEmpty();
    }

    @Test
    void aNumberedNameNeedsNearlyTheSameColour() {
        assertThat(becomes("mat_07", NEARLY_BROWN, null)).isEqualTo("pine " + By.NAME);
        assertThat(becomes("mat_07", BLUE, null)).as("another program's mat_07").isEmpty();
    }

    @Test
    void withoutANameTheColourDecidesAmongEqualRoles() {
        assertThat(becomes("Solid 12 copy", NEARLY_BROWN, Role.WALL)).isEqualTo("pine " + By.COLOUR);
        assertThat(becomes("Solid 12 copy", BLUE, Role.FLOOR)).isEqualTo("slate " + By.COLOUR);
        assertThat(becomes("Solid 12 copy", BLUE, Role.WALL)).isEmpty();
    }
}
