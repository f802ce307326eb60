package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.imageio.ImageIO;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class PatternsTest {
    private static final List<Pattern> ALL = List.of(
            Patterns.leather(2, 20),
            Patterns.wood(4, 10),
            Patterns.weave(3, 12),
            Patterns.brushed(21, 120),
            Patterns.bubbles(12, 9),
            Patterns.diamonds(4));

    @Property(tries = 200)
    void everyPatternRepeatsExactly(
            @ForAll @DoubleRange(min = 0, max = 1) double u, @ForAll @DoubleRange(min = 0, max = 1) double v) {
        for (Pattern p : ALL) {
            assertThat(p.at(u + 1, v)).isCloseTo(p.at(u, v), within(1e-6)); // rules.md, section 5
            assertThat(p.at(u, v + 1)).isCloseTo(p.at(u, v), within(1e-6));
            assertThat(p.at(u, v)).isBetween(0.0, 1.0);
        }
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
        PatternImages images = new PatternImages((u, v) -> 0.5 + 0.5 * Math.sin(2 * Math.PI * u), 256);
        BufferedImage normals = ImageIO.read(new ByteArrayInputStream(images.normals(0.001, 0.1, 0.1)));
        double slope = 2 * Math.PI * 0.0005 / 0.1;
        int red = (normals.getRGB(0, 0) >> 16) & 255;
        assertThat(red).isEqualTo((int) Math.round(127.5 * (1 - slope / Math.hypot(1, slope))));
        assertThat(normals.getRGB(0, 0) >> 8 & 255).isEqualTo(128);
    }

    @Test
    void anImagesSizeIsReadFromItsHeadAlone() throws Exception {
        byte[] png = new PatternImages((u, v) -> u, 16).tone(0, 255);
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
