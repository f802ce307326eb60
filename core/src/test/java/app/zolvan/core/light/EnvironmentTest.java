package app.zolvan.core.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class EnvironmentTest {

    /** A picture of random brightness, one spot a thousand times brighter than the rest. */
    private static Environment uneven(double turn) {
        SplittableRandom random = new SplittableRandom(2);
        float[] rgb = new float[3 * 32 * 16];
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] = (float) random.nextDouble();
        }
        rgb[3 * (5 * 32 + 7)] = 1000;
        return new Environment(32, 16, rgb, turn, 1.5);
    }

    @Test
    void aSampledDirectionIsFoundAgainWithItsLightAndItsDensity() {
        Environment sky = uneven(0.7);
        Environment.Sample sampled = new Environment.Sample();
        Environment.Sample seen = new Environment.Sample();
        SplittableRandom random = new SplittableRandom(3);
        for (int i = 0; i < 2000; i++) {
            sky.sample(random.nextDouble(), random.nextDouble(), sampled);
            assertThat(sampled.x * sampled.x + sampled.y * sampled.y + sampled.z * sampled.z)
                    .isCloseTo(1, within(1e-12));
            sky.look(sampled.x, sampled.y, sampled.z, seen);
            assertThat(seen.pdf).isCloseTo(sampled.pdf, within(1e-9 * sampled.pdf));
            assertThat(seen.r).isEqualTo(sampled.r);
        }
    }

    /** By chance and by sum: what falls on level ground from above it. */
    @Test
    void groundGetsWhatComesFromAbove() {
        Environment sky = uneven(0.7);
        Environment.Sample at = new Environment.Sample();
        SplittableRandom random = new SplittableRandom(5);
        int n = 400_000;
        double sum = 0;
        for (int i = 0; i < n; i++) {
            sky.sample(random.nextDouble(), random.nextDouble(), at);
            sum += at.g * Math.max(0, at.y) / at.pdf / n;
        }
        double[] ground = sky.onTheGround();
        assertThat(ground[1]).isCloseTo(sum, within(0.01 * sum));
        assertThat(Environment.uniform(2, 2, 2).onTheGround()[0]).isCloseTo(2 * Math.PI, within(1e-6));
    }

    /** The density is one: over directions taken evenly its mean is 1/4π; and light/density has no outliers. */
    @Test
    void theDensityIntegratesToOneAndFollowsTheLight() {
        Environment sky = uneven(0);
        Environment.Sample at = new Environment.Sample();
        SplittableRandom random = new SplittableRandom(4);
        double sum = 0;
        int n = 6000;
        int columns = 64; // two in each of the picture's
        for (int i = 0; i < n; i++) {
            double y = 1 - 2 * (i + 0.5) / n;
            double s = Math.sqrt(1 - y * y);
            for (int k = 0; k < columns; k++) {
                double phi = 2 * Math.PI * (k + 0.5) / columns;
                sky.look(s * Math.cos(phi), y, s * Math.sin(phi), at);
                sum += at.pdf;
            }
        }
        assertThat(sum / (n * columns) * 4 * Math.PI).isCloseTo(1, within(0.002));
        double most = 0;
        double mean = 0;
        for (int i = 0; i < 20_000; i++) {
            sky.sample(random.nextDouble(), random.nextDouble(), at);
            double weight = (0.2126 * at.r + 0.7152 * at.g + 0.0722 * at.b) / at.pdf;
            most = Math.max(most, weight);
            mean += weight / 20_000;
        }
        assertThat(most).isLessThan(1.05 * mean); // only the sine within a pixel is left
    }

    /** needs.md Q37: the picture's middle column lies towards +x, its top row at the zenith; a turn moves it about y. */
    @Test
    void directionsFallOnTheirPixels() {
        float[] rgb = new float[3 * 8 * 4];
        rgb[3 * (8 + 4)] = 1; // row 1 of 4, column 4 of 8: just below 45° up, from +x towards +z
        Environment.Sample at = new Environment.Sample();
        double up = Math.sqrt(0.5) * 0.9;
        double flat = Math.sqrt(1 - up * up);
        new Environment(8, 4, rgb, 0, 1).look(flat * Math.cos(0.1), up, flat * Math.sin(0.1), at);
        assertThat(at.r).isEqualTo(1);
        new Environment(8, 4, rgb, Math.PI / 2, 1).look(flat * Math.cos(0.1), up, flat * Math.sin(0.1), at);
        assertThat(at.r).isZero();
        new Environment(8, 4, rgb, Math.PI / 2, 1)
                .look(flat * Math.cos(0.1 - Math.PI / 2), up, flat * Math.sin(0.1 - Math.PI / 2), at);
        assertThat(at.r).isEqualTo(1);
    }

    @Test
    void aRadiancePictureIsReadPlainAndInRuns() throws IOException {
        byte[] one = {(byte) 128, 64, 32, (byte) 129}; // 1, 0.5, 0.25
        ByteArrayOutputStream plain = new ByteArrayOutputStream();
        plain.write("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 8\n".getBytes(StandardCharsets.US_ASCII));
        for (int i = 0; i < 8; i++) {
            plain.write(one);
        }
        ByteArrayOutputStream runs = new ByteArrayOutputStream();
        runs.write("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 8\n".getBytes(StandardCharsets.US_ASCII));
        runs.write(new byte[] {2, 2, 0, 8});
        for (byte b : one) {
            runs.write(new byte[] {(byte) (128 + 5), b, 3, b, b, b}); // five at once, then three as they are
        }
        Environment.Sample at = new Environment.Sample();
        for (byte[] file : new byte[][] {plain.toByteArray(), runs.toByteArray()}) {
            RadianceHdr.read(file).look(0, 1, 0, at);
            assertThat(new double[] {at.r, at.g, at.b}).containsExactly(1, 0.5, 0.25);
        }
        byte[] cut = Arrays.copyOf(runs.toByteArray(), runs.size() - 3);
        assertThatThrownBy(() -> RadianceHdr.read(cut))
                .isInstanceOf(IOException.class)
                .hasMessageContaining("cut off");
        assertThatThrownBy(() -> RadianceHdr.read("nothing\n".getBytes(StandardCharsets.US_ASCII)))
                .hasMessageContaining("no Radiance picture");
    }

    /** Khronos PBR Neutral: 0.04 off for what is bright enough, colours kept up to 0.8, never beyond 1. */
    @Test
    void theToneCurveKeepsColoursUpToEightTenths() {
        double[] c = {0.5, 0.3, 0.2};
        ToneCurve.neutral(c);
        assertThat(c).containsExactly(new double[] {0.46, 0.26, 0.16}, within(1e-12));
        double before = 0;
        for (double v = 0; v < 50; v += 0.01) {
            double[] grey = {v, v, v};
            ToneCurve.neutral(grey);
            assertThat(grey[0]).isBetween(before, 1.0);
            before = grey[0];
        }
    }

    /** What is written as radiance comes back within RGBE's step of 1 in 128; narrow pictures have no rows of their own. */
    @ParameterizedTest
    @ValueSource(ints = {4, 200})
    void radianceIsReadBackAsItWasWritten(int width) throws IOException {
        int height = 3;
        float[] rgb = new float[3 * width * height];
        for (int i = 0; i < rgb.length; i++) {
            rgb[i] = (float) Math.pow(10, i % 7 - 3) * (1 + i % 3);
        }
        Environment back = RadianceHdr.read(RadianceHdr.write(width, height, rgb));
        Environment.Sample out = new Environment.Sample();
        for (int i = 0; i < width * height; i++) {
            int row = i / width;
            double v = Math.PI * (row + 0.5) / height;
            double u = 2 * Math.PI * ((i % width + 0.5) / width - 0.5);
            back.look(Math.sin(v) * Math.cos(u), Math.cos(v), Math.sin(v) * Math.sin(u), out);
            double most = Math.max(rgb[3 * i], Math.max(rgb[3 * i + 1], rgb[3 * i + 2]));
            assertThat(out.r).isCloseTo(rgb[3 * i], within(most / 128));
            assertThat(out.g).isCloseTo(rgb[3 * i + 1], within(most / 128));
            assertThat(out.b).isCloseTo(rgb[3 * i + 2], within(most / 128));
        }
    }
}
