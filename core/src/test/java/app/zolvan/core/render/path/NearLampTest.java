package app.zolvan.core.render.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class NearLampTest {
    private static final int N = 200_000;

    /** The mean of 1/density is the length of the way; of f/density, what f sums up to along it. */
    @ParameterizedTest
    @CsvSource({"0.5, 0.1, 2, 3", "-0.4, 0.2, 1, 0.1", "3, 0.5, 1, 20", "0.2, 0, 0.4, 5"})
    void placesAreChosenWithTheDensityThatIsTold(double along, double aside, double way, double extinction) {
        NearLamp near = new NearLamp();
        SplittableRandom random = new SplittableRandom(7);
        double length = 0;
        double scattered = 0;
        for (int i = 0; i < N; i++) {
            near.choose(along, aside, way, extinction, random.nextDouble(), random.nextDouble());
            assertThat(near.at).isBetween(0.0, way);
            length += 1 / near.density / N;
            scattered += extinction * Math.exp(-extinction * near.at) / near.density / N;
        }
        assertThat(scattered).isCloseTo(1 - Math.exp(-extinction * way), within(0.01));
        if (aside > 0) { // on the lamp itself hardly any place is chosen but there
            assertThat(length).isCloseTo(way, within(0.03 * way));
        }
    }

    /** A way without an end has one all the same: half its places by the angle, half by the medium. */
    @Test
    void aWayWithoutEndIsChosenFrom() {
        NearLamp near = new NearLamp();
        SplittableRandom random = new SplittableRandom(8);
        double scattered = 0;
        for (int i = 0; i < N; i++) {
            near.choose(1, 0.3, Double.POSITIVE_INFINITY, 2, random.nextDouble(), random.nextDouble());
            scattered += 2 * Math.exp(-2 * near.at) / near.density / N;
        }
        assertThat(scattered).isCloseTo(1, within(0.01));
    }
}
