package app.zolvan.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.util.Random;
import org.junit.jupiter.api.Test;

class PhotographTest {
    private static final int SIDE = 320;

    /** Noise that was averaged over so many pixels each way, around the edges. */
    private static BufferedImage noise(int blur) {
        Random random = new Random(5);
        double[] v = new double[SIDE * SIDE];
        for (int i = 0; i < v.length; i++) {
            v[i] = random.nextGaussian();
        }
        for (int pass = 0; pass < 4 && blur > 0; pass++) {
            double[] to = new double[v.length];
            for (int i = 0; i < v.length; i++) {
                for (int k = -blur; k <= blur; k++) {
                    int x = Math.floorMod(i % SIDE + (pass % 2 == 0 ? k : 0), SIDE);
                    int y = Math.floorMod(i / SIDE + (pass % 2 == 0 ? 0 : k), SIDE);
                    to[i] += v[y * SIDE + x] / Math.sqrt(2 * blur + 1);
                }
            }
            v = to;
        }
        BufferedImage image = new BufferedImage(SIDE, SIDE, BufferedImage.TYPE_INT_RGB);
        for (int i = 0; i < v.length; i++) {
            int g = (int) Math.max(0, Math.min(255, 128 + 40 * v[i]));
            image.setRGB(i % SIDE, i / SIDE, g << 16 | g << 8 | g);
        }
        return image;
    }

    /** The wider the blur, the larger the finest details; none is ever taken for sharp. */
    @Test
    void sharpnessFollowsTheBlur() {
        assertThat(Photograph.of(noise(0)).isSoft()).isFalse();
        double before = 1;
        for (int blur : new int[] {1, 3, 6, 12, 24}) {
            Photograph p = Photograph.of(noise(blur));
            assertThat(p.isSoft()).as("%d", blur).isEqualTo(blur > 3);
            assertThat(p.sharpness()).as("%d", blur).isGreaterThanOrEqualTo(before);
            before = p.sharpness();
        }
        BufferedImage even = new BufferedImage(SIDE, SIDE, BufferedImage.TYPE_INT_RGB);
        assertThat(Photograph.of(even).isSoft()).as("an even colour").isFalse();
    }

    @Test
    void aPieceIsMeasuredAndCutOut() {
        BufferedImage image = noise(0);
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                if (x < 40 || x >= 280 || y < 100 || y >= 220) {
                    image.setRGB(x, y, 0xF4F4F0);
                }
            }
        }
        Photograph p = Photograph.of(image);
        assertThat(p.shows()).isEqualTo(Photograph.Shows.PIECE);
        assertThat(p.aspect()).isCloseTo(2, within(0.03));
        BufferedImage piece = p.mended(image);
        assertThat(piece.getWidth()).isCloseTo((int) (240 * p.left()), within(2));
        Photograph twice = p.of(2 * SIDE, 2 * SIDE);
        assertThat(twice.aspect()).isCloseTo(p.aspect(), within(1e-9));
        assertThat(twice.corners()[2][0]).isCloseTo(2 * p.corners()[2][0], within(1e-9));
    }
}
