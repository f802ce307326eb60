package app.zolvan.core.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.BrightPatches.Patch;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class BrightPatchesTest {
    private static final int WIDTH = 128;
    private static final int HEIGHT = 64;
    private static final Vec3 KEY = new Vec3(0.3, 0.8, 0.5).normalised();
    private static final double REST = 0.3;

    /** A warm round lamp, and a blue strip around a fifth of the horizon. */
    private static LinearRgb radiance(Vec3 d) {
        if (d.dot(KEY) > 0.97) {
            return new LinearRgb(40, 36, 30);
        }
        return isStrip(d) ? new LinearRgb(9, 10, 14) : LinearRgb.grey(REST);
    }

    private static boolean isStrip(Vec3 d) {
        return d.x() < -0.6 && Math.abs(d.y() - 0.2) < 0.1;
    }

    private static Environment painted() {
        float[] rgb = new float[3 * WIDTH * HEIGHT];
        new Environment(WIDTH, HEIGHT, rgb, 0, 1).forEachPixel(new Environment.Look() {
            private int at;

            @Override
            public void at(Vec3 direction, double solidAngle, LinearRgb radiance) {
                for (double v : radiance(direction).toArray()) {
                    rgb[at++] = (float) v;
                }
            }
        });
        return new Environment(WIDTH, HEIGHT, rgb, 0, 1);
    }

    /** Irradiance of the picture, none of it brighter than a limit. */
    private static double[] irradiance(Environment picture, Vec3 normal, double limit) {
        double[] sum = new double[3];
        picture.forEachPixel((d, solidAngle, radiance) -> {
            double dimmed = Math.min(1, limit / radiance.luminance());
            double cosine = Math.max(0, d.dot(normal));
            double[] rgb = radiance.toArray();
            Arrays.setAll(sum, k -> sum[k] + solidAngle * cosine * dimmed * rgb[k]);
        });
        return sum;
    }

    @ParameterizedTest
    @CsvSource({"0.3, 0.8, 0.5", "-0.9, 0.2, 0", "0, 1, 0", "1, 0, 0", "0, -1, 0", "0.4, -0.2, -0.9"})
    void patchesAndTheRestLightAsThePictureDid(double x, double y, double z) {
        Vec3 normal = new Vec3(x, y, z).normalised();
        Environment picture = painted();
        BrightPatches lamps = BrightPatches.of(picture);
        double[] before = irradiance(picture, normal, Double.MAX_VALUE);
        double[] after = irradiance(picture, normal, lamps.limit());
        for (Patch p : lamps.patches()) {
            double[] light = p.light().toArray();
            Arrays.setAll(after, k -> after[k] + Math.max(0, p.direction().dot(normal)) * light[k]);
        }
        for (int k = 0; k < 3; k++) {
            assertThat(after[k]).isCloseTo(before[k], within(0.02 * before[k]));
        }
    }

    @Test
    void aLongLampIsPartedIntoSmallPatchesThatLieOnIt() {
        List<Patch> patches = BrightPatches.of(painted()).patches();
        assertThat(patches).hasSizeBetween(6, BrightPatches.MOST);
        for (Patch p : patches) {
            assertThat(p.direction().length()).isCloseTo(1, within(1e-12));
            boolean warm = p.light().r() > p.light().b();
            assertThat(warm ? p.direction().dot(KEY) > 0.97 : isStrip(p.direction()))
                    .isTrue();
            assertThat(Math.sqrt(p.spread())).isLessThan(0.15);
        }
    }

    /** A disc of angle a, three of its picture's 128 rows: its directions deviate by sin² a / 4 along each axis across. */
    @Test
    void aRoundLampSpreadsAsADiscDoes() {
        Environment disc = Environment.painted((up, around) -> up > 0.998 ? 1000 : 0, 1);
        assertThat(BrightPatches.of(disc).patches()).singleElement().satisfies(p -> {
            assertThat(p.direction().y()).isCloseTo(1, within(1e-9));
            assertThat(p.spread()).isCloseTo(Math.pow(Math.sin(3 * Math.PI / 128), 2) / 4, within(1e-4));
        });
    }

    @Test
    void evenLightHasNoLamps() {
        assertThat(BrightPatches.of(Environment.uniform(0.5, 0.6, 0.7)).patches())
                .isEmpty();
    }

    /** A sky brighter by the height it is at, 1 + y: the light vector points up, 4π/3 long. */
    @Test
    void lightMostlyComesFromWhereItIsBrightest() {
        Vec3 mostly =
                BrightPatches.of(Environment.painted((up, around) -> 1 + up, 1)).mostly();
        assertThat(mostly.y()).isCloseTo(4 * Math.PI / 3, within(1e-3));
        assertThat(Math.hypot(mostly.x(), mostly.z())).isLessThan(1e-6);
    }
}
