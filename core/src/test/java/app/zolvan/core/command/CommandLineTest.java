package app.zolvan.core.command;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.texture.Png;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class CommandLineTest {
    /** A box of 20 × 30 × 40 mm: area 5,200 mm², volume 24,000 mm³. */
    private static final String BOX = """
            mtllib box.mtl
            v 0 0 0
            v 20 0 0
            v 20 30 0
            v 0 30 0
            v 0 0 40
            v 20 0 40
            v 20 30 40
            v 0 30 40
            usemtl red
            f 4 3 2 1
            f 5 6 7 8
            f 1 2 6 5
            f 2 3 7 6
            f 3 4 8 7
            f 4 1 5 8
            """;

    /** Coordinates are single precision: each length is right to 6e-8, a product of three to 2e-7. */
    private static final double SINGLE = 2e-7;

    private final ByteArrayOutputStream out = new ByteArrayOutputStream();
    private final ByteArrayOutputStream err = new ByteArrayOutputStream();

    private int run(String... args) {
        out.reset();
        err.reset();
        return new CommandLine(
                        new PrintStream(out, true, StandardCharsets.UTF_8),
                        new PrintStream(err, true, StandardCharsets.UTF_8))
                .run(args);
    }

    private JsonValue report() throws Exception {
        return JsonValue.parse(out.toByteArray());
    }

    @Test
    void aFileIsCountedAndMeasuredInMetres(@TempDir Path folder) throws Exception {
        Path box = Files.writeString(folder.resolve("box.obj"), BOX);
        Files.writeString(folder.resolve("box.mtl"), "newmtl red\nKd 1 0 0\n");
        assertThat(run("inspect", box.toString(), "--unit", "mm")).isEqualTo(CommandLine.DONE);
        JsonValue r = report();
        assertThat(r.text("format", "")).isEqualTo("OBJ");
        assertThat(r.number("triangles", 0)).isEqualTo(12);
        assertThat(r.number("surfaceArea", 0)).isCloseTo(5200e-6, within(5200e-6 * SINGLE));
        assertThat(r.number("volumeOfClosedParts", 0)).isCloseTo(24000e-9, within(24000e-9 * SINGLE));
        assertThat(r.get("faces").number("planar", 0)).isEqualTo(6);
        assertThat(r.get("sourceMaterials").elements().get(0).text("colour", ""))
                .isEqualTo("#FF0000");
        assertThat(r.get("unit").flag("certain", false)).isTrue();
        assertThat(r.list("warnings")).isEmpty();
    }

    @Test
    void whatIsMissingOrGuessedIsSaid(@TempDir Path folder) throws Exception {
        Path box = Files.writeString(folder.resolve("box.obj"), BOX);
        assertThat(run("inspect", box.toString())).isEqualTo(CommandLine.DONE);
        assertThat(report().get("unit").flag("certain", true)).isFalse();
        assertThat(report().list("warnings")).hasSize(1);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("box.mtl");
    }

    @Test
    void aConvertedFileHoldsTheSame(@TempDir Path folder) throws Exception {
        Path box = Files.writeString(folder.resolve("box.obj"), BOX);
        Path made = folder.resolve("made/box.3mf");
        assertThat(run("convert", box.toString(), made.toString(), "--unit", "cm"))
                .isEqualTo(CommandLine.DONE);
        assertThat(run("inspect", made.toString())).isEqualTo(CommandLine.DONE);
        assertThat(report().text("format", "")).isEqualTo("3MF");
        assertThat(report().number("volumeOfClosedParts", 0)).isCloseTo(24000e-6, within(24000e-6 * SINGLE));
    }

    @Test
    void aPictureIsTracedAndARegionOfItHasItsOwnSize(@TempDir Path folder) throws Exception {
        Path box = Files.writeString(folder.resolve("box.obj"), BOX);
        Path all = folder.resolve("all.png");
        Path part = folder.resolve("part.png");
        assertThat(run("render", box.toString(), all.toString(), "--size", "40x24", "--samples", "4", "--json"))
                .isEqualTo(CommandLine.DONE);
        assertThat(report().number("mostSamples", 0)).isEqualTo(4);
        assertThat(run(
                        "render",
                        box.toString(),
                        part.toString(),
                        "--size",
                        "40x24",
                        "--samples",
                        "4",
                        "--region",
                        "10,5,16,9"))
                .isEqualTo(CommandLine.DONE);
        BufferedImage whole = ImageIO.read(all.toFile());
        BufferedImage cut = ImageIO.read(part.toFile());
        assertThat(new int[] {cut.getWidth(), cut.getHeight()}).containsExactly(16, 9);
        for (int i = 0; i < 16 * 9; i++) {
            assertThat(cut.getRGB(i % 16, i / 16)).isEqualTo(whole.getRGB(10 + i % 16, 5 + i / 16));
        }
        assertThat(run("render", box.toString(), part.toString(), "--size", "40x24", "--region", "30,0,16,9"))
                .isEqualTo(CommandLine.BAD_INPUT);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("within the picture of 40 × 24");
    }

    /** Written as radiance, with 16 bits, and from a picture that was kept: always the same picture. */
    @Test
    void aPictureComesInDeepFormatsAndIsTakenUpAgain(@TempDir Path folder) throws Exception {
        String box = Files.writeString(folder.resolve("box.obj"), BOX).toString();
        String kept = folder.resolve("kept.bin").toString();
        Path first = folder.resolve("a.tif");
        Path again = folder.resolve("b.tif");
        Path radiance = folder.resolve("c.hdr");
        String[] half = {"render", box, first.toString(), "--size", "40x24", "--samples", "4", "--keep", kept};
        assertThat(run(half)).isEqualTo(CommandLine.DONE);
        assertThat(run("render", box, first.toString(), "--size", "40x24", "--samples", "8"))
                .isEqualTo(CommandLine.DONE);
        assertThat(run("render", box, again.toString(), "--size", "40x24", "--samples", "8", "--keep", kept))
                .isEqualTo(CommandLine.DONE);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("Going on with the picture");
        assertThat(again).hasSameBinaryContentAs(first);
        BufferedImage deep = ImageIO.read(first.toFile());
        assertThat(deep.getSampleModel().getSampleSize(0)).isEqualTo(16);
        assertThat(run("render", box, radiance.toString(), "--size", "40x24", "--samples", "8"))
                .isEqualTo(CommandLine.DONE);
        assertThat(Files.readAllBytes(radiance)).startsWith("#?RADIANCE".getBytes(StandardCharsets.US_ASCII));
        String[] wrong = {"render", box, first.toString(), "--size", "40x24", "--seed", "2", "--keep", kept};
        assertThat(run(wrong)).isEqualTo(CommandLine.BAD_INPUT);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("keeps another picture");
    }

    @Test
    void badInputIsASentenceAndExitCodeTwo(@TempDir Path folder) throws Exception {
        Path broken = Files.writeString(folder.resolve("x.obj"), "v 0 0 0\nv 1 0 0\nv 1 1 0\nf 1 2 9\n");
        assertThat(run("inspect", broken.toString())).isEqualTo(CommandLine.BAD_INPUT);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("Line 4").contains("position 9");
        assertThat(out.size()).isZero();
        assertThat(run("inspect", folder.resolve("gone.glb").toString())).isEqualTo(CommandLine.BAD_INPUT);
        assertThat(run("convert", broken.toString(), "x.abc")).isEqualTo(CommandLine.BAD_INPUT);
        assertThat(run("inspect", broken.toString(), "--unit", "cubit")).isEqualTo(CommandLine.BAD_INPUT);
        assertThat(run()).isEqualTo(CommandLine.BAD_INPUT);
    }

    @Test
    void materialsAreListedAndWrittenInAnotherFormat(@TempDir Path folder) throws Exception {
        Path mtl =
                Files.writeString(folder.resolve("two.mtl"), "newmtl red\nKd 1 0 0\nPr 0.25\nnewmtl blue\nKd 0 0 1\n");
        Path to = folder.resolve("two.mtlx");
        assertThat(run("material", mtl.toString(), "--to", to.toString())).isZero();
        JsonValue red = report().list("materials").get(0);
        assertThat(red.get("name").text()).isEqualTo("red");
        assertThat(red.get("parameters").get("specular_roughness").number()).isEqualTo(0.25);
        assertThat(run("material", to.toString())).isZero();
        assertThat(report().list("materials").get(0).get("parameters").numbers("base_color", 0, 0, 0))
                .containsExactly(1, 0, 0);
        assertThat(run(
                        "material",
                        mtl.toString(),
                        "--to",
                        folder.resolve("two.exe").toString()))
                .isEqualTo(CommandLine.BAD_INPUT);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("“exe”");
    }

    /** needs.md R25: pictures that should be the same are, or it is said by how much they are not. */
    @Test
    void picturesAreCompared(@TempDir Path folder) throws Exception {
        Path grey = Files.write(folder.resolve("grey.png"), Png.encode(4, 2, new byte[24], 96));
        byte[] other = new byte[24];
        other[0] = (byte) 255;
        Path spot = Files.write(folder.resolve("spot.png"), Png.encode(4, 2, other, 96));
        assertThat(run("compare", grey.toString(), grey.toString())).isEqualTo(CommandLine.DONE);
        assertThat(report().number("same", 0)).isEqualTo(1);
        assertThat(report().number("most", 1)).isZero();
        Path shown = folder.resolve("shown.png");
        assertThat(run("compare", grey.toString(), spot.toString(), "--to", shown.toString()))
                .isEqualTo(CommandLine.DONE);
        assertThat(report().number("same", 0)).isEqualTo(7.0 / 8);
        assertThat(report().number("most", 0)).isGreaterThan(40);
        assertThat(Files.exists(shown)).isTrue();
        assertThat(run("compare", grey.toString(), folder.resolve("none.png").toString()))
                .isEqualTo(CommandLine.BAD_INPUT);
        assertThat(err.toString(StandardCharsets.UTF_8)).contains("There is no file");
        assertThat(run("compare", grey.toString(), spot.toString(), "--times", "-1"))
                .isEqualTo(CommandLine.BAD_INPUT);
    }
}
