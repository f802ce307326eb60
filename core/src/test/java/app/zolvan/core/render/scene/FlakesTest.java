package app.zolvan.core.render.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.SurfaceValues;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class FlakesTest {
    private static final double SIZE = 3e-4;
    private static final Surface SILVER = Surface.STANDARD
            .with(Parameter.BASE_METALNESS, 1)
            .with(Parameter.BASE_COLOR, 1, 1, 1)
            .with(Parameter.SPECULAR_ROUGHNESS, 0.45)
            .with(Parameter.FLAKE_WEIGHT, 1)
            .with(Parameter.FLAKE_SIZE, SIZE);
    private static final SurfaceValues PLAIN = SurfaceValues.of(SILVER);

    private static SurfaceValues at(double x, double z, double footprint) {
        SurfaceValues s = new SurfaceValues();
        s.copy(PLAIN);
        Flakes.lay(s, x, 0, z, footprint);
        return s;
    }

    /** What comes back of even light, by sampling. */
    private static double albedo(SurfaceValues s, double sine, int samples, Random random) {
        Bsdf bsdf = new Bsdf();
        bsdf.set(s, sine, 0, Math.sqrt(1 - sine * sine), 1.5, false);
        double sum = 0;
        for (int i = 0; i < samples; i++) {
            if (bsdf.sample(random.nextDouble(), random.nextDouble(), random.nextDouble())) {
                sum += bsdf.r / bsdf.pdf;
            }
        }
        return sum / samples;
    }

    @Test
    void onePointIsOneFlakeAndItsNeighbourAnother() {
        SurfaceValues one = at(0.1, 0.1, 0);
        assertThat(at(0.1 + SIZE / 100, 0.1, 0).tiltX).isEqualTo(one.tiltX);
        assertThat(at(0.1 + 3 * SIZE, 0.1, 0).tiltX).isNotEqualTo(one.tiltX);
        assertThat(one.roughness).isLessThan(0.3);
    }

    @Test
    void seenFromAfarThereAreNone() {
        SurfaceValues s = at(0.1, 0.1, 2 * SIZE);
        assertThat(s.tiltX).isZero();
        assertThat(s.roughness).isEqualTo(0.45);
        // halfway the flake lies flatter and is blurred more
        SurfaceValues near = at(0.1, 0.1, 0);
        SurfaceValues half = at(0.1, 0.1, 1.25 * SIZE);
        assertThat(Math.abs(half.tiltX)).isLessThan(Math.abs(near.tiltX));
        assertThat(half.roughness).isBetween(near.roughness, 0.45);
    }

    @Test
    void theShareOfCellsThatHoldOneIsTheWeight() {
        Random random = new Random(4);
        int flakes = 0;
        for (int i = 0; i < 4000; i++) {
            SurfaceValues s = new SurfaceValues();
            s.copy(PLAIN);
            s.flakes = 0.3;
            Flakes.lay(s, random.nextDouble(), random.nextDouble(), random.nextDouble(), 0);
            flakes += s.tiltX != 0 ? 1 : 0;
        }
        assertThat(flakes / 4000.0).isCloseTo(0.3, within(0.03)); // four standard deviations
    }

    @Test
    void noLightIsMadeOrLost() {
        Random random = new Random(5);
        for (double sine : new double[] {0, 0.6}) {
            double all = 0;
            int n = 3000;
            for (int i = 0; i < n; i++) {
                all += albedo(at(random.nextDouble(), random.nextDouble(), 0), sine, 40, random);
            }
            assertThat(all / n).isBetween(0.97, 1.005);
        }
    }

    /** Many flakes together blur as the surface without does: light from so far about the mirrored direction. */
    @ParameterizedTest
    @CsvSource({"0, 4", "0, 12", "0, 24", "0.6, 4", "0.6, 12", "0.6, 24"})
    void togetherTheyBlurAsTheSurfaceWithout(double sine, double degrees) {
        Random random = new Random(6);
        Bsdf bsdf = new Bsdf();
        double cosine = Math.sqrt(1 - sine * sine);
        double with = 0;
        double without = 0;
        for (int i = 0; i < 100_000; i++) {
            double tilt = Math.toRadians(degrees);
            double around = 2 * Math.PI * random.nextDouble();
            // a direction that lies so far from the mirrored one, which is (−sine, 0, cosine)
            double side = StrictMath.sin(tilt) * StrictMath.cos(around);
            double up = StrictMath.sin(tilt) * StrictMath.sin(around);
            double x = -sine * StrictMath.cos(tilt) + cosine * side;
            double z = cosine * StrictMath.cos(tilt) + sine * side;
            bsdf.set(at(random.nextDouble(), random.nextDouble(), 0), sine, 0, cosine, 1.5, false);
            bsdf.evaluate(x, up, z);
            with += bsdf.r;
            bsdf.set(PLAIN, sine, 0, cosine, 1.5, false);
            bsdf.evaluate(x, up, z);
            without += bsdf.r;
        }
        assertThat(with / without).isCloseTo(1, within(0.08));
    }
}
