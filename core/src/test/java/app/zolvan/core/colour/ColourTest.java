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
    void everyCodeSurvivesTheWayThroughOkLch(
            @ForAll @IntRange(max = 255) int r,
            @ForAll @IntRange(max = 255) int g,
            @ForAll @IntRange(max = 255) int b) {
        LinearRgb c = Srgb.fromCodes(r, g, b);
        assertThat(Srgb.toCodes(OkLch.of(c).toLinear())).containsExactly(r, g, b);
        assertThat(Srgb.parse(Srgb.toHex(c))).contains(c);
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
        assertThat(Srgb.parse("#A5281F")).contains(red);
        assertThat(Srgb.parse(" a5281f ")).contains(red);
        assertThat(Srgb.parse("165, 40, 31")).contains(red);
        assertThat(Srgb.parse("rgb(165 40 31)")).contains(red);
        assertThat(Srgb.parse("#abc")).contains(Srgb.fromCodes(0xAA, 0xBB, 0xCC));
        assertThat(Srgb.parse("100% 0% 50%")).contains(new LinearRgb(1, 0, Srgb.decode(0.5)));
        assertThat(Srgb.parse("0.5 0.5 1")).contains(new LinearRgb(Srgb.decode(0.5), Srgb.decode(0.5), 1));
        assertThat(Srgb.parse("300 0 0")).isEmpty();
        assertThat(Srgb.parse("50% 20 20")).isEmpty();
        assertThat(Srgb.parse("red-ish")).isEmpty();
    }

    @Test
    void lightReflectanceIsTheShareOfLightAColourReturns() {
        assertThat(LinearRgb.WHITE.lightReflectanceValue()).isCloseTo(100, within(1e-9));
        assertThat(Srgb.fromCodes(128, 128, 128).lightReflectanceValue()).isCloseTo(21.59, within(0.01));
    }
}
