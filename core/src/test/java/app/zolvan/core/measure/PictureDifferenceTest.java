package app.zolvan.core.measure;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Png;
import java.awt.image.BufferedImage;
import java.io.IOException;
import org.junit.jupiter.api.Test;

/** needs.md O23 and R25. */
class PictureDifferenceTest {
    /** Greys of ten by ten pixels, the last {@code odd} of them one of another. */
    private static byte[] greys(int grey, int odd, int other) {
        byte[] rgb = new byte[300];
        for (int i = 0; i < 100; i++) {
            for (int k = 0; k < 3; k++) {
                rgb[3 * i + k] = (byte) (i >= 100 - odd ? other : grey);
            }
        }
        return Png.encode(10, 10, rgb, 96);
    }

    private static CieLab lab(int grey) {
        return CieLab.of(Srgb.fromCodes(grey, grey, grey));
    }

    @Test
    void differencesAreThoseOfTheirPixels() throws IOException {
        PictureDifference d = PictureDifference.of(greys(120, 0, 0), greys(120, 10, 160));
        double step = lab(120).difference(lab(160));
        assertThat(d.same()).isEqualTo(0.9);
        assertThat(d.mean()).isCloseTo(step / 10, within(1e-6));
        assertThat(d.within(0.89)).isZero();
        assertThat(d.within(0.95)).isEqualTo(d.within(1)).isCloseTo(step, within(1e-5));
        assertThat(d.word()).isEqualTo(PictureDifference.Word.PLAIN);
        assertThat(PictureDifference.of(greys(120, 0, 0), greys(120, 4, 160)).word())
                .isEqualTo(PictureDifference.Word.NONE);
        assertThat(PictureDifference.of(greys(120, 0, 0), greys(125, 0, 0)).word())
                .isEqualTo(PictureDifference.Word.BESIDE);
    }

    /** Four times the step in lightness, to half a code; no further than black; once is the other picture itself. */
    @Test
    void aDifferenceIsExaggeratedInLightnessAndColour() throws IOException {
        PictureDifference d = PictureDifference.of(greys(120, 0, 0), greys(130, 0, 0));
        assertThat(code(d.exaggerated(1))).isEqualTo(130);
        double wanted = lab(120).l() + 4 * (lab(130).l() - lab(120).l());
        assertThat(lab(code(d.exaggerated(4))).l()).isCloseTo(wanted, within(0.25));
        assertThat(code(PictureDifference.of(greys(120, 0, 0), greys(100, 0, 0)).exaggerated(16)))
                .isZero();
    }

    private static int code(byte[] png) throws IOException {
        BufferedImage image = ImageFile.decode(png, 1000);
        return image.getRGB(3, 3) & 0xFF;
    }

    @Test
    void picturesOfOtherSizesAreRefusedAndWhatIsNone() {
        byte[] wide = Png.encode(20, 5, new byte[300], 96);
        assertThatThrownBy(() -> PictureDifference.of(greys(1, 0, 0), wide))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("10 × 10 pixels, the second 20 × 5");
        assertThatThrownBy(() -> PictureDifference.of(wide, new byte[] {1, 2, 3}))
                .isInstanceOf(IOException.class)
                .hasMessage("The second picture is damaged, or neither PNG nor JPEG.");
    }
}
