package app.zolvan.core.texture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.PictureMeasure;
import app.zolvan.core.texture.EdgeFit.Holds;
import java.awt.image.BufferedImage;
import java.util.Arrays;
import java.util.Random;
import java.util.function.IntBinaryOperator;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class EdgeFitTest {
    private static BufferedImage image(int w, int h, IntBinaryOperator grey) {
        BufferedImage image = new BufferedImage(w, h, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int g = Math.max(0, Math.min(255, grey.applyAsInt(x, y)));
                image.setRGB(x, y, g << 16 | g << 8 | g);
            }
        }
        return image;
    }

    /** Specks a few pixels large, in light that falls off to the right and below. */
    private static BufferedImage photograph(int w, int h) {
        Random random = new Random(7);
        double[] v = new double[w * h];
        for (int speck = 0; speck < w * h / 12; speck++) {
            int at = random.nextInt(w * h);
            double by = 50 * random.nextGaussian();
            for (int k = 0; k < 9; k++) {
                int x = at % w + k % 3;
                int y = at / w + k / 3;
                if (x < w && y < h) {
                    v[y * w + x] += by;
                }
            }
        }
        return image(w, h, (x, y) -> (int) Math.round(150 + v[y * w + x] - 40.0 * x / w - 25.0 * y / h));
    }

    private static int grey(BufferedImage image, int x, int y) {
        return image.getRGB(x, y) & 255;
    }

    /** Q06, and rules.md section 5: it tiles afterwards and keeps its mean colour; nor is the strip fainter than the rest. */
    @Test
    void aPhotographTilesAndKeepsItsColourAndContrast() {
        BufferedImage taken = photograph(420, 360);
        PictureMeasure before = PictureMeasure.ofColours(taken);
        assertThat(before.tiles()).isFalse();
        EdgeFit fit = EdgeFit.of(taken);
        BufferedImage met = fit.cut(taken, Holds.COLOURS);
        PictureMeasure after = PictureMeasure.ofColours(met);
        assertThat(after.seamU()).isLessThanOrEqualTo(PictureMeasure.SEAM);
        assertThat(after.seamV()).isLessThanOrEqualTo(PictureMeasure.SEAM);
        assertThat(CieLab.of(after.mean()).difference(CieLab.of(before.mean()))).isLessThan(0.5);
        RealSize left = fit.left(new RealSize(4.2, 3.6));
        assertThat(left.width()).isCloseTo(0.01 * met.getWidth(), within(1e-9)).isGreaterThan(2.1);
        assertThat(left.height()).isCloseTo(0.01 * met.getHeight(), within(1e-9));

        int strip = 420 - met.getWidth();
        double inside = roughness(met, strip + 8, met.getWidth() - 8);
        assertThat(roughness(met, 2, strip - 2) / inside).isBetween(0.9, 1.1);
    }

    /** Mean square of the steps along rows between two columns. */
    private static double roughness(BufferedImage image, int from, int to) {
        double sum = 0;
        for (int y = 0; y < image.getHeight(); y++) {
            for (int x = from; x < to; x++) {
                sum += Math.pow(grey(image, x + 1, y) - grey(image, x, y), 2);
            }
        }
        return sum / (image.getHeight() * (to - from));
    }

    /** A wall whose courses and joints don't go into the picture a whole number of times meets itself to the code. */
    @Test
    void aRegularPatternMeetsItself() {
        IntBinaryOperator wall = (x, y) -> {
            int course = y / 23;
            return y % 23 < 3 || (x + course % 2 * 30) % 60 < 3 ? 220 : 90 + 7 * (x % 60 / 20);
        };
        BufferedImage taken = image(500, 400, wall);
        BufferedImage met = EdgeFit.of(taken).cut(taken, Holds.COLOURS);
        assertThat(met.getWidth() % 60).isZero();
        assertThat(met.getHeight() % 46).isZero();
        for (int y = 0; y < met.getHeight(); y++) {
            for (int x = 0; x < met.getWidth(); x++) {
                assertThat(grey(met, x, y)).isCloseTo(wall.applyAsInt(x, y), within(2));
            }
        }
    }

    /** What lies with it is cut alike: the same picture of half as many pixels a side shows the same places afterwards. */
    @Test
    void allPicturesOfOneMaterialStayInStep() {
        BufferedImage large = photograph(256, 256);
        BufferedImage small = halved(large);
        EdgeFit fit = EdgeFit.of(large);
        BufferedImage expected = halved(fit.cut(large, Holds.NUMBERS));
        BufferedImage met = fit.cut(small, Holds.NUMBERS);
        assertThat(met.getWidth()).isCloseTo(expected.getWidth(), within(1));
        assertThat(met.getHeight()).isCloseTo(expected.getHeight(), within(1));
        double apart = apart(expected, met, 0);
        assertThat(apart).isLessThan(2);
        assertThat(apart(expected, met, 1)).as("a pixel aside").isGreaterThan(4 * apart);
    }

    private static BufferedImage halved(BufferedImage image) {
        return image(
                image.getWidth() / 2,
                image.getHeight() / 2,
                (x, y) -> (grey(image, 2 * x, 2 * y)
                                + grey(image, 2 * x + 1, 2 * y)
                                + grey(image, 2 * x, 2 * y + 1)
                                + grey(image, 2 * x + 1, 2 * y + 1)
                                + 2)
                        / 4);
    }

    private static double apart(BufferedImage a, BufferedImage b, int aside) {
        double sum = 0;
        int w = Math.min(a.getWidth(), b.getWidth()) - 1;
        int h = Math.min(a.getHeight(), b.getHeight());
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                sum += Math.abs(grey(a, x + aside, y) - grey(b, x, y));
            }
        }
        return sum / (w * h);
    }

    @Test
    void normalsStayOfLengthOne() {
        BufferedImage relief = new BufferedImage(128, 128, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < 128; y++) {
            for (int x = 0; x < 128; x++) {
                double tilt = Math.sin(x * 0.3 + y * 0.1);
                double n = Math.sqrt(1 + tilt * tilt);
                int r = (int) Math.round(127.5 + 127.5 * tilt / n);
                relief.setRGB(x, y, r << 16 | 128 << 8 | (int) Math.round(127.5 + 127.5 / n));
            }
        }
        BufferedImage met = EdgeFit.of(relief).cut(relief, Holds.NORMALS);
        for (int y = 0; y < met.getHeight(); y += 5) {
            for (int x = 0; x < met.getWidth(); x += 5) {
                int rgb = met.getRGB(x, y);
                double length = Math.sqrt(Math.pow((rgb >> 16 & 255) / 127.5 - 1, 2)
                        + Math.pow((rgb >> 8 & 255) / 127.5 - 1, 2)
                        + Math.pow((rgb & 255) / 127.5 - 1, 2));
                assertThat(length).isCloseTo(1, within(0.01));
            }
        }
    }

    /** As cheap as the cheapest that trying every start by itself finds. */
    @Property(tries = 200)
    void noClosedCutIsCheaper(
            @ForAll @IntRange(min = 5, max = 14) int width,
            @ForAll @IntRange(min = 2, max = 20) int rows,
            @ForAll @IntRange(max = 1_000_000) int seed) {
        Random random = new Random(seed);
        float[] cost = new float[width * rows];
        for (int i = 0; i < cost.length; i++) {
            cost[i] = 1 + random.nextInt(9) * random.nextInt(9);
        }
        int room = 1;
        int[] cut = SeamCut.through(cost, width, room);
        assertThat(Math.abs(cut[0] - cut[rows - 1])).isLessThanOrEqualTo(1);
        double cheapest = Double.POSITIVE_INFINITY;
        for (int start = room; start < width - room; start++) {
            cheapest = Math.min(cheapest, cheapestFrom(start, cost, width, rows, room));
        }
        assertThat(cheapest(cut, cost, width, rows)).isEqualTo(cheapest);
    }

    /** By relaxing until nothing gets cheaper, row by row. */
    private static double cheapestFrom(int start, float[] cost, int width, int rows, int room) {
        double[] sum = new double[width];
        Arrays.fill(sum, Double.POSITIVE_INFINITY);
        sum[start] = cost[start];
        for (int y = 1; y < rows; y++) {
            double[] next = new double[width];
            Arrays.fill(next, Double.POSITIVE_INFINITY);
            for (int round = 0; round < width; round++) {
                for (int x = room; x < width - room; x++) {
                    double here = cost[y * width + x];
                    for (int d = -1; d <= 1; d++) {
                        next[x] = Math.min(next[x], here + Math.min(sum[x + d], d == 0 ? next[x] : next[x + d]));
                    }
                }
            }
            sum = next;
        }
        return Math.min(sum[start], Math.min(sum[start - 1], sum[start + 1]));
    }

    /** What a cut costs at least that leaves its rows where it says. */
    private static double cheapest(int[] cut, float[] cost, int width, int rows) {
        double sum = cost[cut[0]];
        for (int y = 1; y < rows; y++) {
            double best = Double.POSITIVE_INFINITY;
            for (int x = Math.max(0, cut[y - 1] - 1); x <= Math.min(width - 1, cut[y - 1] + 1); x++) {
                double run = 0;
                for (int i = Math.min(x, cut[y]); i <= Math.max(x, cut[y]); i++) {
                    run += cost[y * width + i];
                }
                best = Math.min(best, run);
            }
            sum += best;
        }
        return sum;
    }

    /** The cut is closed, never jumps, and goes round what is dear. */
    @Test
    void theCutIsClosedAndCheapest() {
        int width = 20;
        int rows = 60;
        float[] cost = new float[width * rows];
        for (int y = 0; y < rows; y++) {
            int valley = 9 + (int) Math.round(4 * Math.sin(2 * Math.PI * y / rows));
            for (int x = 0; x < width; x++) {
                cost[y * width + x] = x == valley ? 0 : 1;
            }
        }
        cost[30 * width + 9] = 5; // something dear in the valley
        int[] cut = SeamCut.through(cost, width, 2);
        double sum = 0;
        for (int y = 0; y < rows; y++) {
            assertThat(Math.abs(cut[y] - cut[(y + 1) % rows])).isLessThanOrEqualTo(1);
            assertThat(cut[y]).isBetween(2, 17);
            sum += cost[y * width + cut[y]];
        }
        assertThat(sum).isEqualTo(1);

        Arrays.fill(cost, 1); // a joint that steps aside along a course, and back along the last one
        for (int y = 0; y < rows; y++) {
            for (int x = 4; x <= 15; x++) {
                boolean joint = y == 30 || y == rows - 1 || x == (y < 30 ? 4 : 15);
                cost[y * width + x] = joint ? 0.001f : 1;
            }
        }
        int[] stepped = SeamCut.through(cost, width, 2);
        for (int y = 0; y < rows; y++) {
            assertThat(stepped[y]).as("row %d", y).isCloseTo(y < 30 || y == rows - 1 ? 4 : 15, within(1));
        }
    }
}
