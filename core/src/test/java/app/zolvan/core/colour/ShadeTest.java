package app.zolvan.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class ShadeTest {
    private static final LinearRgb TEAL = new LinearRgb(0.05, 0.21, 0.24);

    @Test
    void itsEndsAreBlackItselfAndWhite() {
        assertNear(new Shade(-1).of(TEAL), LinearRgb.BLACK, 1e-3);
        assertThat(new Shade(0).of(TEAL)).isEqualTo(TEAL);
        assertNear(new Shade(1).of(TEAL), LinearRgb.WHITE, 1e-3);
    }

    /** Lightness goes evenly, and the hue stays: within 0.01, what the two matrices of sRGB leave. */
    @Property(tries = 300)
    void lightnessGoesEvenlyAndTheHueStays(
            @ForAll @DoubleRange(min = 0.02, max = 0.9) double r,
            @ForAll @DoubleRange(min = 0.02, max = 0.9) double g,
            @ForAll @DoubleRange(min = 0.02, max = 0.9) double b,
            @ForAll @DoubleRange(min = -0.9, max = 0.9) double share) {
        CieLab main = CieLab.of(new LinearRgb(r, g, b));
        CieLab shade = CieLab.of(new Shade(share).of(new LinearRgb(r, g, b)));
        double end = share < 0 ? 0 : 100;
        assertThat(shade.l()).isCloseTo(main.l() + Math.abs(share) * (end - main.l()), within(0.01));
        assertThat(shade.a() * main.b() - shade.b() * main.a())
                .as("parallel in the a*b* plane")
                .isCloseTo(0, within(0.01 * Math.max(1, main.chroma())));
    }

    @Property(tries = 300)
    void theNearestShadeOfAShadeIsThatShade(
            @ForAll @DoubleRange(min = 0.1, max = 0.6) double r,
            @ForAll @DoubleRange(min = 0.1, max = 0.6) double g,
            @ForAll @DoubleRange(min = 0.1, max = 0.6) double b,
            @ForAll @DoubleRange(min = -0.5, max = 0.9) double share) {
        LinearRgb main = new LinearRgb(r, g, b);
        LinearRgb shade = new Shade(share).of(main);
        Shade nearest = Shade.nearest(main, shade);
        CieLab again = CieLab.of(nearest.of(main));
        assertThat(again.difference(CieLab.of(shade))).isLessThan(0.5);
    }

    /** A stained picture is seen as the colour that it was given, whatever its own mean: within 1e-12. */
    @Test
    void aPictureTakesTheColourAsItsMean() {
        LinearRgb mean = new LinearRgb(0.42, 0.27, 0.14);
        Surface wood = Surface.STANDARD.withTexture(
                Parameter.BASE_COLOR,
                TextureUse.repeating("grain", TextureUse.Channel.RGB, new TextureUse.RealSize(1, 1)));
        assertNear(MainColour.seen(wood.with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5), d -> mean), mean.times(0.5), 1e-12);
        assertNear(MainColour.seen(MainColour.with(wood, TEAL, d -> mean), d -> mean), TEAL, 1e-12);
        Tone strong = new Tone(mean, 1, 1.6, 1, mean, 0, mean, 0);
        Surface contrasty = wood.withTexture(
                Parameter.BASE_COLOR, wood.textures().get(Parameter.BASE_COLOR).toned(strong));
        Surface stained = MainColour.with(contrasty, TEAL, d -> mean);
        assertNear(MainColour.seen(stained, d -> mean), TEAL, 1e-12);
        assertThat(stained.textures().get(Parameter.BASE_COLOR).tone().contrast())
                .isEqualTo(1.6);
        assertThat(MainColour.with(Surface.STANDARD, TEAL, d -> mean).colour(Parameter.BASE_COLOR))
                .isEqualTo(TEAL);
    }

    private static void assertNear(LinearRgb a, LinearRgb b, double tolerance) {
        assertThat(a.r()).isCloseTo(b.r(), within(tolerance));
        assertThat(a.g()).isCloseTo(b.g(), within(tolerance));
        assertThat(a.b()).isCloseTo(b.b(), within(tolerance));
    }
}
