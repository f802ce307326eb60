package app.zolvan.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class ColourTest {

    @Test
    void srgbDecodesAsItsStandardSays() { // IEC 61966-2-1; needs.md Q01
        assertThat(Srgb.decode(0.5)).isCloseTo(0.2140, within(5e-5));
        assertThat(Srgb.decode(128 / 255.0)).isCloseTo(0.2159, within(5e-5));
        assertThat(Srgb.decode(188 / 255.0)).isCloseTo(0.503, within(5e-4));
    }

    @Property(tries = 300)
    void everyCodeSurvivesTheWayThroughEverySpace(
            @ForAll @IntRange(max = 255) int r,
            @ForAll @IntRange(max = 255) int g,
            @ForAll @IntRange(max = 255) int b) {
        LinearRgb c = Srgb.fromCodes(r, g, b);
        assertThat(Srgb.toCodes(OkLch.of(c).toLinear())).containsExactly(r, g, b);
        assertThat(Srgb.toCodes(CieLab.of(c).toLinear())).containsExactly(r, g, b);
        assertThat(Srgb.toCodes(HueColour.hsv(c).fromHsv())).containsExactly(r, g, b);
        assertThat(Srgb.toCodes(HueColour.hsl(c).fromHsl())).containsExactly(r, g, b);
        assertThat(ColourNotation.parse(Srgb.toHex(c))).contains(c);
    }

    @Test
    void okLabGivesThePublishedValues() { // Ottosson 2020, table of test pairs, given for XYZ; here the sRGB primaries
        OkLch white = OkLch.of(LinearRgb.WHITE);
        assertThat(white.lightness()).isCloseTo(1, within(1e-6));
        assertThat(white.chroma()).isCloseTo(0, within(1e-6));
        OkLch red = OkLch.of(new LinearRgb(1, 0, 0)); // CSS Color 4: oklch(62.796% 0.25768 29.234)
        assertThat(red.lightness()).isCloseTo(0.62796, within(1e-4));
        assertThat(red.chroma()).isCloseTo(0.25768, within(1e-4));
        assertThat(red.hue()).isCloseTo(29.234, within(0.01));
    }

    @Test
    void lightnessesStandInTheRatioThatWcagCounts() { // needs.md Q11
        assertThat(LinearRgb.WHITE.contrastRatio(LinearRgb.BLACK)).isCloseTo(21, within(1e-12));
        LinearRgb grey = Srgb.fromPacked(0x777777); // WCAG 2.2, F24 and common tables: 4.48 against white
        assertThat(grey.contrastRatio(LinearRgb.WHITE)).isCloseTo(4.48, within(0.005));
        assertThat(grey.contrastRatio(grey)).isEqualTo(1);
    }

    @Test
    void theColourWheelReachesToWhatAScreenShows() {
        double[] limits = OkLch.chromaLimits(0.62796, 720); // sRGB red is 0.25768 strong at 29.234°
        assertThat(limits[58]).isCloseTo(0.25768, within(2e-3)).isGreaterThan(limits[40]);
        assertThat(OkLch.chromaLimits(1, 2)).containsExactly(new double[] {0, 0}, within(1e-4));
    }

    @Property(tries = 300)
    void bringingAColourIntoTheScreensRangeKeepsLightnessAndHue(
            @ForAll @DoubleRange(min = 0.05, max = 0.95) double l,
            @ForAll @DoubleRange(min = 0.01, max = 0.4) double c,
            @ForAll @DoubleRange(min = 0, max = 359) double h) {
        LinearRgb shown = new OkLch(l, c, h).toSrgbGamut();
        assertThat(shown.isInUnitCube()).isTrue();
        OkLch back = OkLch.of(shown);
        assertThat(back.lightness()).isCloseTo(l, within(1e-3));
        if (back.chroma() > 0.01) {
            double turn = Math.abs(back.hue() - h);
            assertThat(Math.min(turn, 360 - turn)).isLessThan(1.0);
        }
    }

    @Test
    void coloursAreReadInEveryNotationDesignersType() {
        LinearRgb red = Srgb.fromCodes(165, 40, 31);
        assertThat(ColourNotation.parse("#A5281F")).contains(red);
        assertThat(ColourNotation.parse(" a5281f ")).contains(red);
        assertThat(ColourNotation.parse("165, 40, 31")).contains(red);
        assertThat(ColourNotation.parse("rgb(165 40 31)")).contains(red);
        assertThat(ColourNotation.parse("#abc")).contains(Srgb.fromCodes(0xAA, 0xBB, 0xCC));
        assertThat(ColourNotation.parse("100% 0% 50%")).contains(new LinearRgb(1, 0, Srgb.decode(0.5)));
        assertThat(ColourNotation.parse("0.5 0.5 1")).contains(new LinearRgb(Srgb.decode(0.5), Srgb.decode(0.5), 1));
        assertThat(ColourNotation.parse("hsl(4, 68%, 38%)").map(Srgb::toHex)).contains("#A3281F");
        assertThat(ColourNotation.parse("hsv 4 81 65").map(Srgb::toHex)).contains("#A6281F");
        assertThat(ColourNotation.parse("lab(53.24, 80.09, 67.20)").map(Srgb::toHex))
                .contains("#FF0000");
        assertThat(ColourNotation.parse("lch 53.24 104.55 40").map(Srgb::toHex)).contains("#FF0000");
        assertThat(ColourNotation.parse("oklch(62.796% 0.25768 29.234)").map(Srgb::toHex))
                .contains("#FF0000");
        assertThat(ColourNotation.parse("oklab(1, 0, 0)").map(Srgb::toHex)).contains("#FFFFFF");
        assertThat(ColourNotation.parse("lab(140, 0, 0)")).isEmpty();
        assertThat(ColourNotation.parse("hsl(4, 168%, 38%)")).isEmpty();
        assertThat(ColourNotation.parse("300 0 0")).isEmpty();
        assertThat(ColourNotation.parse("50% 20 20")).isEmpty();
        assertThat(ColourNotation.parse("red-ish")).isEmpty();
    }

    @Property(tries = 300)
    void aColourKeepsItsUndertoneWhileItsLightnessChanges(
            @ForAll @DoubleRange(min = 25, max = 90) double l,
            @ForAll @DoubleRange(min = 0, max = 10) double chroma,
            @ForAll @DoubleRange(min = 0, max = 359) double hue,
            @ForAll @DoubleRange(min = 0.4, max = 0.9) double lightness) {
        LinearRgb from = CieLab.ofLch(l, chroma, hue).toLinear();
        LinearRgb to = Undertone.kept(from, lightness);
        assertThat(OkLch.of(to).lightness()).isCloseTo(lightness, within(1e-6));
        assertThat(Undertone.of(to).apart(Undertone.of(from))).isLessThan(1e-3);
        assertThat(Undertone.of(ColourStep.DARKER.from(from)).apart(Undertone.of(from)))
                .isLessThan(1e-3);
        assertThat(CieLab.of(ColourStep.CALMER.from(from)).l()).isCloseTo(l, within(1e-3));
    }

    @Test
    void aGreyGetsNoColourOfItsOwnAccord() {
        LinearRgb grey = Srgb.fromCodes(128, 128, 128);
        assertThat(Srgb.toHex(ColourStep.STRONGER.from(grey))).isEqualTo("#808080");
        assertThat(Srgb.toHex(ColourStep.CALMER.from(grey))).isEqualTo("#808080");
        assertThat(Srgb.toHex(TargetTone.CHARCOAL.from(grey))).matches("#(..)\\1\\1");
    }

    @Test
    void undertonesAreNamedAndCompared() {
        Undertone green = Undertone.of(CieLab.ofLch(80, 1.2, 150).toLinear());
        assertThat(green.words()).isEqualTo("a trace of green, 1.2");
        assertThat(Undertone.of(LinearRgb.grey(0.4)).words()).isEqualTo("no undertone");
        assertThat(Undertone.of(CieLab.ofLch(80, 8, 3).toLinear()).words()).isEqualTo("clearly pink, 8.0");
        Undertone pink = Undertone.of(CieLab.ofLch(70, 4, 0).toLinear());
        assertThat(green.beside(green)).startsWith("The undertones agree");
        assertThat(green.beside(pink)).startsWith("The undertones quarrel: green beside pink (5.");
    }

    @Property(tries = 100)
    void whatGoesWithAColourCanBeShownAndIsAsLight(
            @ForAll @IntRange(max = 255) int r,
            @ForAll @IntRange(max = 255) int g,
            @ForAll @IntRange(max = 255) int b) {
        LinearRgb c = Srgb.fromCodes(r, g, b);
        for (Harmony h : Harmony.values()) {
            for (LinearRgb other : h.with(c)) {
                assertThat(other.isInUnitCube()).isTrue();
                if (h != Harmony.TONES) {
                    assertThat(OkLch.of(other).lightness())
                            .isCloseTo(OkLch.of(c).lightness(), within(2e-3));
                }
            }
        }
    }

    @Test
    void lightReflectanceIsTheShareOfLightAColourReturns() {
        assertThat(LinearRgb.WHITE.lightReflectanceValue()).isCloseTo(100, within(1e-9));
        assertThat(Srgb.fromCodes(128, 128, 128).lightReflectanceValue()).isCloseTo(21.59, within(0.01));
    }
}
