package app.zolvan.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.util.List;
import org.junit.jupiter.api.Test;

class PictureColoursTest {
    /** Three quarters warm white, a quarter black, with a small red spot. */
    private static PictureColours poster() {
        BufferedImage image = new BufferedImage(400, 200, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(0xF2, 0xEC, 0xE0));
        g.fillRect(0, 0, 300, 200);
        g.setColor(new Color(0xC0, 0x20, 0x18));
        g.fillRect(100, 80, 12, 12);
        g.dispose();
        return new PictureColours(image);
    }

    @Test
    void aMeanIsTakenInLinearLight() {
        PictureColours.Area half = poster().area(200, 0, 200, 50); // half of it is black
        LinearRgb white = Srgb.fromCodes(0xF2, 0xEC, 0xE0);
        assertThat(half.mean().g()).isCloseTo(white.g() / 2, within(1e-12));
        assertThat(half.spread()).isGreaterThan(20);
        assertThat(poster().area(0, 0, 50, 50).spread()).isCloseTo(0, within(1e-9));
        assertThat(poster().area(-20, 900, 3, 3).spread()).as("brought within").isCloseTo(0, within(1e-9));
    }

    @Test
    void theTailOfAPictureTellsOfACastThatTheMeanHides() {
        BufferedImage image = new BufferedImage(100, 10, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 10; y++) {
            for (int x = 0; x < 100; x++) { // two in a hundred are greener, one is greener still
                image.setRGB(x, y, x == 40 ? 0xB8C8B8 : x == 41 || x == 42 ? 0xC0C8C0 : 0xC8C8C8);
            }
        }
        PictureColours.Area all = new PictureColours(image).whole();
        assertThat(Undertone.of(all.mean()).words()).isEqualTo("no undertone");
        assertThat(Srgb.toHex(all.at95())).isEqualTo("#C8C8C8");
        assertThat(Srgb.toHex(all.at99())).isEqualTo("#C0C8C0");
        assertThat(Undertone.of(all.at99()).isCast()).isTrue();
        assertThat(Undertone.of(Srgb.fromPacked(0xC8C6C0)).isCast()).as("warm").isFalse();
        assertThat(Undertone.of(Srgb.fromPacked(0xC6C0C8)).isCast())
                .as("purple")
                .isTrue();
        assertThat(Undertone.of(Srgb.fromPacked(0x2020E0)).isCast()).as("blue").isFalse();
    }

    @Test
    void aPaletteHasTheColoursWithTheirShares() {
        List<PictureColours.Share> palette = poster().palette(5, 7);
        assertThat(palette).hasSize(3); // there are no more
        assertThat(Srgb.toHex(palette.get(0).colour())).isEqualTo("#F2ECE0");
        assertThat(palette.get(0).share()).isCloseTo(0.75, within(0.01));
        assertThat(palette.get(1).share()).isCloseTo(0.25, within(0.01));
        assertThat(Srgb.toHex(palette.get(2).colour())).isEqualTo("#C02018");
        assertThat(poster().palette(5, 7)).isEqualTo(palette);
    }

    @Test
    void theMostColouredSpotIsFound() {
        List<PictureColours.Spot> spots = poster().mostColoured(3);
        assertThat(spots.get(0).x()).isBetween(98, 114);
        assertThat(spots.get(0).y()).isBetween(78, 94);
        assertThat(spots.get(0).chroma()).isGreaterThan(60);
        assertThat(spots.get(1).chroma()).isLessThan(15);
    }
}
