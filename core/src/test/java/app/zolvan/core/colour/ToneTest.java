package app.zolvan.core.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

/** Sums of linear light: within 1e-12. */
class ToneTest {
    private static final LinearRgb MEAN = new LinearRgb(0.42, 0.27, 0.14);
    private static final LinearRgb DARK = new LinearRgb(0.2, 0.11, 0.05);

    @Property(tries = 200)
    void aPlainToneChangesNothing(
            @ForAll @DoubleRange(max = 1) double r,
            @ForAll @DoubleRange(max = 1) double g,
            @ForAll @DoubleRange(max = 1) double b) {
        assertNear(Tone.plain(MEAN).of(new LinearRgb(r, g, b)), new LinearRgb(r, g, b));
    }

    @Test
    void withoutSaturationLuminanceStays() {
        Tone grey = new Tone(MEAN, 0, 1, 1, MEAN, 0, MEAN, 0);
        assertNear(grey.of(DARK), LinearRgb.grey(DARK.luminance()));
    }

    @Test
    void contrastLeavesTheMeanWhereItIs() {
        assertNear(new Tone(MEAN, 1, 1.7, 1, MEAN, 0, MEAN, 0).of(MEAN), MEAN);
        assertNear(new Tone(MEAN, 1, 0, 1, MEAN, 0, MEAN, 0).of(DARK), MEAN);
    }

    /** A stain: the mean is the colour asked for, whatever came before, and light and dark keep their ratio. */
    @Property(tries = 200)
    void aFullTintMakesItShadesOfOneColour(
            @ForAll @DoubleRange(max = 2) double saturation,
            @ForAll @DoubleRange(min = 0.1, max = 3) double brightness) {
        LinearRgb teal = new LinearRgb(0.05, 0.21, 0.24);
        Tone t = new Tone(MEAN, saturation, 1, brightness, teal, 1, MEAN, 0);
        assertNear(t.of(MEAN), teal);
        assertNear(t.of(DARK), teal.times(DARK.luminance() / MEAN.luminance()));
    }

    @Test
    void aFadeGoesToItsColourInLinearLight() {
        LinearRgb chalk = new LinearRgb(0.8, 0.79, 0.75);
        assertNear(new Tone(MEAN, 1, 1, 1, MEAN, 0, chalk, 0.25).of(DARK), DARK.mix(chalk, 0.25));
        assertNear(new Tone(MEAN, 1.5, 0.5, 2, MEAN, 0.3, chalk, 1).of(DARK), chalk);
    }

    private static void assertNear(LinearRgb a, LinearRgb b) {
        assertThat(a.r()).isCloseTo(b.r(), within(1e-12));
        assertThat(a.g()).isCloseTo(b.g(), within(1e-12));
        assertThat(a.b()).isCloseTo(b.b(), within(1e-12));
    }
}
