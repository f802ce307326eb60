package app.zolvan.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.ToneWord;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.core.texture.Png;
import java.awt.image.BufferedImage;
import java.util.Comparator;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.IntBinaryOperator;
import org.assertj.core.data.MapEntry;
import org.junit.jupiter.api.Test;

class MeasureTest {
    private static final int SIDE = 64;

    private static BufferedImage image(IntBinaryOperator grey) {
        BufferedImage image = new BufferedImage(SIDE, SIDE, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                image.setRGB(x, y, 0x10101 * grey.applyAsInt(x, y));
            }
        }
        return image;
    }

    private static int wave(double turns, int x) {
        return (int) Math.round(127 + 100 * Math.sin(2 * Math.PI * turns * x / SIDE));
    }

    @Test
    void aStepAcrossTheEdgeThatIsLargerThanThoseWithinIsASeam() {
        PictureMeasure whole = PictureMeasure.ofColours(image((x, y) -> wave(3, x)));
        assertThat(whole.tiles()).isTrue();
        PictureMeasure cut = PictureMeasure.ofColours(image((x, y) -> wave(2.5, x) / 2 + x));
        assertThat(cut.seamU()).isEqualTo(1);
        assertThat(cut.seamV()).isZero();
        assertThat(cut.tiles()).isFalse();
        // joints of a regular pattern, one of them at the edge
        assertThat(PictureMeasure.ofColours(image((x, y) -> x / 16 % 2 == 0 ? 90 : 200))
                        .tiles())
                .isTrue();
    }

    @Test
    void detailsOfAllSizesAddUpToTheVariance() {
        SplittableRandom random = new SplittableRandom(4);
        float[] values = new float[SIDE * SIDE];
        double sum = 0;
        double squares = 0;
        for (int i = 0; i < values.length; i++) {
            values[i] = (float) (10 * random.nextDouble() + i % 7);
            sum += values[i];
            squares += (double) values[i] * values[i];
        }
        double variance = squares / values.length - Math.pow(sum / values.length, 2);
        double parts = 0;
        for (double d : PictureMeasure.details(values, SIDE, SIDE)) {
            parts += d * d;
        }
        assertThat(parts).isCloseTo(variance, within(1e-4 * variance));
    }

    private static MaterialMeasure measure(BufferedImage image, Channel channel, Parameter p, double width) {
        byte[] rgb = new byte[3 * SIDE * SIDE];
        for (int i = 0; i < SIDE * SIDE; i++) {
            int c = image.getRGB(i % SIDE, i / SIDE);
            rgb[3 * i] = (byte) (c >> 16);
            rgb[3 * i + 1] = (byte) (c >> 8);
            rgb[3 * i + 2] = (byte) c;
        }
        byte[] png = Png.encode(SIDE, SIDE, rgb, 72);
        Surface s = Surface.STANDARD
                .with(Parameter.BASE_COLOR, LinearRgb.WHITE)
                .with(Parameter.SPECULAR_ROUGHNESS, 1)
                .withTexture(p, TextureUse.repeating("a", channel, new RealSize(width, width)));
        return MaterialMeasure.of(s, Map.of("a", png)::get);
    }

    @Test
    void busynessGrowsWithContrastAndFallsWhereTheEyeSeesNoDetail() {
        BufferedImage strong = image((x, y) -> (x / 2 + y / 2) % 2 == 0 ? 60 : 200);
        BufferedImage weak = image((x, y) -> (x / 2 + y / 2) % 2 == 0 ? 120 : 140);
        double near = measure(strong, Channel.RGB, Parameter.BASE_COLOR, 0.15)
                .pattern()
                .busyness();
        assertThat(measure(weak, Channel.RGB, Parameter.BASE_COLOR, 0.15)
                        .pattern()
                        .busyness())
                .isLessThan(near / 4);
        assertThat(measure(strong, Channel.RGB, Parameter.BASE_COLOR, 0.005)
                        .pattern()
                        .busyness())
                .as("finer than the eye sees from a metre")
                .isLessThan(near / 10);
        PatternMeasure even = measure(image((x, y) -> 100), Channel.RGB, Parameter.BASE_COLOR, 1)
                .pattern();
        assertThat(even.busyness()).isZero();
        assertThat(even.word()).isEqualTo("plain");
        assertThat(even.pixelsPerMetre()).isEqualTo(SIDE);
        assertThat(even.sharpFrom(1920)).isEqualTo(30);
        assertThat(even.isSharp(new Vec3(18, 5, 24), 1920))
                .as("just 30 m across")
                .isTrue();
        assertThat(even.isSharp(new Vec3(18, 5, 23), 1920)).isFalse();
        assertThat(even.isSharp(new Vec3(1, 20, 1), 1920)).as("high").isTrue();
        assertThat(PatternMeasure.sensitivity(8)).isCloseTo(1, within(0.02)); // Mannos & Sakrison's peak
    }

    @Test
    void theMeterReadsAMeanOverWhatThePictureMakesRoughAndSmooth() {
        BufferedImage halves = image((x, y) -> x < SIDE / 2 ? 51 : 204);
        Surface plain = Surface.STANDARD.with(Parameter.BASE_COLOR, LinearRgb.WHITE);
        double smooth = GlossMeter.measure(plain.with(Parameter.SPECULAR_ROUGHNESS, 0.2));
        double rough = GlossMeter.measure(plain.with(Parameter.SPECULAR_ROUGHNESS, 0.8));
        assertThat(measure(halves, Channel.G, Parameter.SPECULAR_ROUGHNESS, 1).gloss())
                .isCloseTo((smooth + rough) / 2, within(0.01));
    }

    @Test
    void coloursHaveTheNameThatPeopleGiveThem() {
        Map<String, ToneWord> named = Map.ofEntries(
                MapEntry.entry("#f7f5f0", ToneWord.WHITE),
                MapEntry.entry("#9a9a98", ToneWord.GREY),
                MapEntry.entry("#1b1b1d", ToneWord.BLACK),
                MapEntry.entry("#e3d5b8", ToneWord.BEIGE),
                MapEntry.entry("#6b4423", ToneWord.BROWN),
                MapEntry.entry("#b01c24", ToneWord.RED),
                MapEntry.entry("#ef7f1a", ToneWord.ORANGE),
                MapEntry.entry("#f2c713", ToneWord.YELLOW),
                MapEntry.entry("#2f6b35", ToneWord.GREEN),
                MapEntry.entry("#148080", ToneWord.TEAL),
                MapEntry.entry("#27408b", ToneWord.BLUE),
                MapEntry.entry("#7a2f8a", ToneWord.PURPLE),
                MapEntry.entry("#f0a8b8", ToneWord.PINK));
        named.forEach((hex, tone) -> {
            int c = Integer.parseInt(hex.substring(1), 16);
            LinearRgb colour = Srgb.fromCodes(c >> 16, c >> 8 & 255, c & 255);
            assertThat(ToneWord.of(CieLab.of(colour))).as(hex).isEqualTo(tone);
        });
    }

    /** What ships was measured of what ships, and shows no seams. */
    @Test
    void shippedNumbersAreThoseOfTheShippedMaterials() {
        ShippedLibrary library = ShippedLibrary.load();
        assertThat(library.materials())
                .as("run bench/measures")
                .allMatch(m -> ShippedMeasures.of(Chip.key(m.surface())).isPresent());
        assertThat(library.materials())
                .allMatch(m -> ShippedMeasures.of(Chip.key(m.surface()))
                        .map(MaterialMeasure::pattern)
                        .map(PatternMeasure::tiles)
                        .orElse(true));
        for (int i = 3; i < library.materials().size(); i += 31) {
            Material m = library.materials().get(i);
            MaterialMeasure shipped = ShippedMeasures.of(Chip.key(m.surface())).orElseThrow();
            MaterialMeasure now = MaterialMeasure.of(m.surface(), library.images()::get);
            assertThat(CieLab.of(now.mean()).difference(CieLab.of(shipped.mean())))
                    .isLessThan(1e-3);
            assertThat(now.gloss()).isCloseTo(shipped.gloss(), within(1e-3));
            assertThat(now.look().distance(shipped.look())).isLessThan(1e-2);
        }
    }

    /** Similarity by reflectance: those that reflect alike are near whatever they are called. */
    @Test
    void metalsLieAmongMetalsAndTheGlossyAmongTheGlossy() {
        assertThat(nearest("MT-036")).isIn("MT-031", "MT-015", "MT-037");
        assertThat(nearest("FB-028")).startsWith("FB");
        assertThat(nearest("PT-053")).isIn("PT-017", "ST-013");
        assertThat(nearest("GL-001")).startsWith("GL-0");
        assertThat(nearest("PL-014")).isIn("PT-014", "RB-013", "PL-007", "PT-072");
    }

    private static String nearest(String code) {
        Map<String, MaterialMeasure> all = new java.util.HashMap<>();
        for (Material m : ShippedLibrary.load().materials()) {
            all.put(m.code(), ShippedMeasures.of(Chip.key(m.surface())).orElseThrow());
        }
        Likeness to = all.get(code).look();
        return all.keySet().stream()
                .filter(c -> !c.equals(code))
                .min(Comparator.comparingDouble(c -> all.get(c).look().distance(to)))
                .orElseThrow();
    }
}
