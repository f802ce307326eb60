package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class PatternsTest {
    /** Each by itself, and bonds of each. */
    private static List<Pattern> all() {
        List<Pattern> all = new ArrayList<>();
        Recipe wood = new Recipe("wood", 0.6, 0.2, 4, 6);
        for (String name : Patterns.NAMES) {
            // counts that suit every bond and binding; hexagons as high as wide
            int rows = name.equals("hexagons") ? 40 : 80;
            all.add(Patterns.of(new Recipe(name, 0.8, 0.8, 7, 80, rows, 0.002, 0.5, null, 0.001)));
            all.add(Patterns.of(new Recipe(name, 0.8, 0.8, 7, 80, rows, 0.002, 1, wood, 0.001)));
        }
        return all;
    }

    private static final List<Pattern> ALL = all();

    @Test
    void everyPatternRepeatsExactly() {
        Random random = new Random(3);
        for (int n = 0; n < 100; n++) { // by chance between edges, where pieces change at once
            repeats(random.nextDouble(), random.nextDouble());
        }
    }

    private static void repeats(double u, double v) {
        for (int i = 0; i < ALL.size(); i++) {
            double[] here = at(ALL.get(i), u, v);
            // rules.md, section 5
            assertThat(at(ALL.get(i), u + 1, v)).as("pattern " + i).containsExactly(here, within(1e-6));
            assertThat(at(ALL.get(i), u, v + 1)).as("pattern " + i).containsExactly(here, within(1e-6));
            for (double value : here) {
                assertThat(value).isBetween(0.0, 1.0);
            }
        }
    }

    private static double[] at(Pattern p, double u, double v) {
        Pattern.Point out = new Pattern.Point();
        p.at(u, v, out);
        return new double[] {out.tone, out.height, out.joint, out.piece, out.cover};
    }

    @Test
    void aRampRisingAt45DegreesTowardsXLeansAwayFromIt() { // rules.md, section 5; needs.md Q08
        assertThat(PatternImages.normalCode(1, 0)).isEqualTo(37 << 16 | 128 << 8 | 218);
        assertThat(PatternImages.normalCode(-1, 0)).isEqualTo(218 << 16 | 128 << 8 | 218);
        assertThat(PatternImages.normalCode(0, 0)).isEqualTo(128 << 16 | 128 << 8 | 255);
    }

    @Test
    void slopesComeFromReliefAndRealSize() throws Exception {
        // a wave of 1 mm along x on 0.1 m: steepest slope is 2π · 0.5 mm / 0.1 m
        PatternImages images = new PatternImages(Pattern.grey((u, v) -> 0.5 + 0.5 * Math.sin(2 * Math.PI * u)), 256);
        BufferedImage normals = ImageIO.read(new ByteArrayInputStream(images.normals(0.001, 0.1, 0.1)));
        double slope = 2 * Math.PI * 0.0005 / 0.1;
        int red = (normals.getRGB(0, 0) >> 16) & 255;
        assertThat(red).isEqualTo((int) Math.round(127.5 * (1 - slope / Math.hypot(1, slope))));
        assertThat(normals.getRGB(0, 0) >> 8 & 255).isEqualTo(128);
    }

    @Test
    void anImagesSizeIsReadFromItsHeadAlone() throws Exception {
        byte[] png = new PatternImages(Pattern.grey((u, v) -> u), 16).tone(0, 255);
        assertThat(ImageHeader.read(ByteBuffer.wrap(png, 0, 40))).contains(new ImageHeader("image/png", 16, 16));
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(30, 20, BufferedImage.TYPE_INT_RGB), "jpg", jpeg);
        assertThat(ImageHeader.read(ByteBuffer.wrap(jpeg.toByteArray())))
                .contains(new ImageHeader("image/jpeg", 30, 20));
        assertThat(ImageHeader.read(
                        ByteBuffer.wrap("GIF89a, and more than enough bytes".getBytes(StandardCharsets.UTF_8))))
                .isEmpty();
    }
}
