package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.material.TextureUse.Channel;
import java.awt.image.BufferedImage;
import java.io.IOException;
import org.junit.jupiter.api.Test;

class PictureTest {
    private static byte[] picture(int w, int h, int... argb) throws IOException {
        BufferedImage image = new BufferedImage(w, h, BufferedImage.TYPE_INT_ARGB);
        image.setRGB(0, 0, w, h, argb, 0, w);
        return ImageFile.png(image);
    }

    private static int[] pixels(byte[] file) throws IOException {
        BufferedImage image = ImageFile.decode(file, 1 << 20);
        return image.getRGB(0, 0, image.getWidth(), image.getHeight(), null, 0, image.getWidth());
    }

    @Test
    void slopesThatAreLostInHalvingAreToldAsSpread() throws IOException {
        // a zigzag: half the pixels lean by a slope of 0.5 one way, half the other
        int right = code(0.5);
        int left = code(-0.5);
        byte[] zigzag = picture(4, 4, row(left, right), row(left, right), row(left, right), row(left, right));
        double[] spreads = Picture.decode(zigzag, Picture.Holds.NORMALS, 16).spreads();
        assertThat(spreads[0]).isZero();
        // along one axis ± 0.5, along the other none: the root of the mean of their squares
        assertThat(spreads[1]).isCloseTo(0.5 / Math.sqrt(2), within(0.01));
        assertThat(spreads[2]).as("nothing is lost further on").isCloseTo(spreads[1], within(0.01));
    }

    private static int code(double slope) {
        double l = Math.hypot(1, slope);
        return 0xFF000000
                | (int) Math.round(127.5 * (1 + slope / l)) << 16
                | 128 << 8
                | (int) Math.round(127.5 * (1 + 1 / l));
    }

    private static int[] row(int a, int b) {
        return new int[] {a, b, a, b};
    }

    private static byte[] picture(int w, int h, int[]... rows) throws IOException {
        int[] all = new int[w * h];
        for (int y = 0; y < h; y++) {
            System.arraycopy(rows[y], 0, all, w * y, w);
        }
        return picture(w, h, all);
    }

    @Test
    void aTonedPictureIsThePictureMultipliedInLinearLight() throws IOException {
        byte[] file = picture(2, 1, 0xFF804020, 0x80FFFFFF);
        Tone grey = new Tone(LinearRgb.WHITE, 0, 1, 1, LinearRgb.WHITE, 0, LinearRgb.WHITE, 0);
        int[] toned = pixels(TonedPicture.of(file, grey));
        double y = 0.2126 * Srgb.fromCode(0x80) + 0.7152 * Srgb.fromCode(0x40) + 0.0722 * Srgb.fromCode(0x20);
        assertThat(toned[0] & 255).isCloseTo((int) Math.round(255 * Srgb.encode(y)), within(1));
        assertThat(toned[0] >>> 24).isEqualTo(255);
        assertThat(toned[1] >>> 24).as("alpha stays").isEqualTo(128);
    }

    @Test
    void aShapeIsCutOutOfColoursWhicheverIsLarger() throws IOException {
        byte[] colours = picture(1, 1, 0xFF112233);
        byte[] shape = picture(2, 2, 0xFFFF0000, 0xFF00FF00, 0xFF400000, 0xFF000000);
        assertThat(pixels(CutOutPicture.of(colours, shape, Channel.R)))
                .containsExactly(0xFF112233, 0x00112233, 0x40112233, 0x00112233);
        assertThat(pixels(CutOutPicture.of(null, picture(1, 1, 0xFF0000FF), Channel.B)))
                .containsExactly(0xFFFFFFFF);
        assertThatThrownBy(() -> CutOutPicture.of(null, new byte[] {1, 2, 3}, Channel.R))
                .isInstanceOf(IOException.class);
    }
}
