package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.util.Random;
import org.junit.jupiter.api.Test;

class StraightenTest {
    @Test
    void cornersGoToCornersAndEveryPlaceComesBack() {
        Random random = new Random(3);
        for (int i = 0; i < 200; i++) {
            double[][] c = {
                {random.nextDouble(40), random.nextDouble(40)},
                {100 + random.nextDouble(40), random.nextDouble(40)},
                {100 + random.nextDouble(40), 100 + random.nextDouble(40)},
                {random.nextDouble(40), 100 + random.nextDouble(40)}
            };
            double[] h = Straighten.projection(c);
            double[][] square = {{0, 0}, {1, 0}, {1, 1}, {0, 1}};
            for (int k = 0; k < 4; k++) {
                double[] uv = Straighten.inverse(h, c[k][0], c[k][1]);
                assertThat(uv[0]).isCloseTo(square[k][0], within(1e-9));
                assertThat(uv[1]).isCloseTo(square[k][1], within(1e-9));
            }
        }
    }

    /** A chequered piece photographed at a slant: straightened, every field is where it was. */
    @Test
    void aSlantedPictureIsUprightAgain() {
        double[][] corners = {{60, 40}, {260, 70}, {230, 250}, {30, 210}};
        double[] h = Straighten.projection(corners);
        BufferedImage taken = new BufferedImage(300, 300, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 300; y++) {
            for (int x = 0; x < 300; x++) {
                double[] uv = Straighten.inverse(h, x + 0.5, y + 0.5);
                boolean light = ((int) Math.floor(uv[0] * 8) + (int) Math.floor(uv[1] * 8)) % 2 == 0;
                taken.setRGB(x, y, light ? 0xE0E0E0 : 0x303030);
            }
        }
        BufferedImage upright = Straighten.of(taken, corners, 0);
        int wrong = 0;
        for (int i = 0; i < 8; i++) {
            for (int j = 0; j < 8; j++) {
                int x = (int) ((i + 0.5) / 8 * upright.getWidth());
                int y = (int) ((j + 0.5) / 8 * upright.getHeight());
                boolean light = (upright.getRGB(x, y) & 255) > 128;
                wrong += light == ((i + j) % 2 == 0) ? 0 : 1;
            }
        }
        assertThat(wrong).isZero();
        assertThat(upright.getWidth()).isBetween(195, 205);
    }
}
