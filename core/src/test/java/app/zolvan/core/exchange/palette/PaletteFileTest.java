package app.zolvan.core.exchange.palette;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.Palette;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.Swatch;
import app.zolvan.core.exchange.ImportException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.IntRange;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PaletteFileTest {

    /** Greys are what they are called, within what eight bits allow; no two palettes have one name. */
    @Test
    void whatShipsIsWhatItIsCalled() {
        List<Palette> all = ShippedPalettes.all();
        assertThat(all.stream().map(Palette::name).distinct()).hasSameSizeAs(all);
        for (Swatch s : all.get(0).swatches()) {
            CieLab lab = CieLab.of(s.colour());
            assertThat(lab.l())
                    .as(s.name())
                    .isCloseTo(Double.parseDouble(s.name().substring(3)), within(0.25));
            assertThat(Math.hypot(lab.a(), lab.b())).isLessThan(0.01);
        }
    }

    @Property(tries = 100)
    void whatIsWrittenIsReadAgain(
            @ForAll PaletteFile format,
            @ForAll @Size(min = 1, max = 20) List<@IntRange(max = 0xFFFFFF) Integer> colours,
            @ForAll @StringLength(min = 1, max = 12) @CharRange(from = '!', to = 'ÿ') String name)
            throws ImportException {
        List<Swatch> swatches = colours.stream()
                .map(c -> new Swatch(name.strip() + c, Srgb.fromCodes(c >> 16, (c >> 8) & 255, c & 255)))
                .toList();
        Palette back = PaletteFile.read(format.write(new Palette("Harbour", swatches)), "Harbour.csv");
        assertThat(back.name()).isEqualTo("Harbour");
        assertThat(back.swatches()).hasSameSizeAs(swatches);
        for (int i = 0; i < swatches.size(); i++) {
            assertThat(Srgb.toHex(back.swatches().get(i).colour()))
                    .isEqualTo(Srgb.toHex(swatches.get(i).colour()));
            assertThat(back.swatches().get(i).name())
                    .isEqualTo(tidy(swatches.get(i).name()));
        }
    }

    private static String tidy(String name) {
        return name.replaceAll("\\p{Cc}+", " ").strip();
    }

    @Test
    void othersFilesAreRead() throws ImportException {
        Palette gpl = read("GIMP Palette\nName: Quay\nColumns: 4\n#\n165  40  31\tHull red\n  0 0 0\n");
        assertThat(gpl.name()).isEqualTo("Quay");
        assertThat(gpl.swatches()).extracting(Swatch::name).containsExactly("Hull red", "#000000");
        Palette csv = read("Name;x,Colour\n\"Sand, dry\",#D8C9A8\nTar,20 18 16\nSlate,60,64,68\n");
        assertThat(csv.name()).isEqualTo("mine");
        assertThat(csv.swatches()).extracting(Swatch::name).containsExactly("Sand, dry", "Tar", "Slate");
        assertThat(read("[{\"name\": \"Ash\", \"colour\": \"lab(80, 1, 4)\"}]").swatches())
                .hasSize(1);
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "GIMP Palette\\nred green blue|Line 2",
                "Tar,#D8\\nSoot,none|Line 2",
                "{}|no colour",
                "[{\"name\": \"Ash\"}]|colour",
                "name,colour|no colour",
                "GIMP Palette\\n900 0 0 x|Line 2"
            })
    void aBadFileIsRefusedWithItsLine(String text, String sentence) {
        assertThatThrownBy(() -> read(text.replace("\\n", "\n")))
                .isInstanceOf(ImportException.class)
                .hasMessageContaining(sentence);
    }

    private static Palette read(String text) throws ImportException {
        return PaletteFile.read(text.getBytes(StandardCharsets.UTF_8), "mine.txt");
    }
}
