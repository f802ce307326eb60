package app.zolvan.core.render.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.SplittableRandom;
import java.util.function.ToDoubleFunction;
import org.junit.jupiter.api.Test;

class GuideTest {
    private static final int MANY = 60_000;

    private static double[] anywhere(SplittableRandom random) {
        double z = 2 * random.nextDouble() - 1;
        double phi = 2 * Math.PI * random.nextDouble();
        double r = Math.sqrt(1 - z * z);
        return new double[] {r * Math.cos(phi), r * Math.sin(phi), z};
    }

    /** Findings of paths that set out evenly in all directions, in a room two metres wide. */
    private static GuideRecords found(ToDoubleFunction<double[]> light, Guide by) {
        SplittableRandom random = new SplittableRandom(5);
        GuideRecords out = new GuideRecords();
        double even = 1 / (4 * Math.PI);
        for (int i = 0; i < MANY; i++) {
            double x = 2 * random.nextDouble();
            double[] d = anywhere(random);
            double guide = by == null ? -1 : by.density(by.cell(x, 0, 0), d[0], d[1], d[2]);
            double mirrored = x < 1 ? d[0] : -d[0];
            double radiance = light.applyAsDouble(new double[] {mirrored, d[1], d[2]});
            out.open(x, 0, 0, d[0], d[1], d[2], 1, even, even, guide, 1, 0.25, 3);
            out.close(3 + 0.25 * radiance);
        }
        return out;
    }

    /** Light from about +x in the room's low half, from −x in its high one, over a faint glow. */
    private static double patch(double[] d) {
        return d[0] > 0.9 ? 40 : 0.5;
    }

    /** Directions are given as often as their density says, and densities add up to one. */
    @Test
    void directionsComeWithTheDensityTold() {
        Guide guide = GuideGrowth.of(found(GuideTest::patch, null));
        SplittableRandom random = new SplittableRandom(1);
        double[] d = new double[3];
        int grid = 512; // finer than the quadtree, whose density is even within a quarter
        int n = 200_000;
        for (double x : new double[] {0.3, 1.7}) {
            int cell = guide.cell(x, 0, 0);
            double all = 0;
            double[] told = new double[64];
            for (int i = 0; i < grid * grid; i++) {
                Octahedron.direction((i % grid + 0.5) / grid, (Math.floorDiv(i, grid) + 0.5) / grid, d);
                double share = guide.density(cell, d[0], d[1], d[2])
                        / Octahedron.perSteradian(d[0], d[1], d[2])
                        / (grid * grid);
                all += share;
                told[quarter(d)] += share;
            }
            assertThat(all).isCloseTo(1, within(1e-5));
            double[] seen = new double[64];
            for (int i = 0; i < n; i++) {
                guide.sample(cell, random.nextDouble(), random.nextDouble(), d);
                seen[quarter(d)] += 1.0 / n;
            }
            for (int k = 0; k < 64; k++) {
                double sigma = Math.sqrt(told[k] * (1 - told[k]) / n);
                assertThat(seen[k]).isCloseTo(told[k], within(4.5 * sigma + 1e-5));
            }
        }
    }

    private static int quarter(double[] d) {
        return 8 * (int) (8 * Octahedron.v(d[0], d[1], d[2])) + (int) (8 * Octahedron.u(d[0], d[1], d[2]));
    }

    /** The map keeps directions, and its densities per steradian: evenly spread ones make up 4π. */
    @Test
    void theOctahedronIsUnfoldedWithItsAreas() {
        SplittableRandom random = new SplittableRandom(3);
        double[] back = new double[3];
        double sum = 0;
        int n = 100_000;
        for (int i = 0; i < n; i++) {
            double[] d = anywhere(random);
            Octahedron.direction(Octahedron.u(d[0], d[1], d[2]), Octahedron.v(d[0], d[1], d[2]), back);
            assertThat(back).containsExactly(d, within(1e-6));
            sum += d[2] > 0.3 ? Octahedron.perSteradian(d[0], d[1], d[2]) * 4 * Math.PI / n : 0;
        }
        int inside = 0;
        for (int i = 0; i < n; i++) {
            Octahedron.direction(random.nextDouble(), random.nextDouble(), back);
            inside += back[2] > 0.3 ? 1 : 0;
        }
        assertThat((double) inside / n).isCloseTo(sum, within(0.006));
    }

    /** Four fifths of the light come from the patch (a twentieth of the sphere, 40 against 0.5); quarters reach beyond it. */
    @Test
    void eachPlaceKnowsItsOwnLight() {
        Guide guide = GuideGrowth.of(found(GuideTest::patch, null));
        SplittableRandom random = new SplittableRandom(2);
        double[] d = new double[3];
        for (double x : new double[] {0.3, 1.7}) {
            int hits = 0;
            for (int i = 0; i < 20_000; i++) {
                guide.sample(guide.cell(x, 0, 0), random.nextDouble(), random.nextDouble(), d);
                hits += (x < 1 ? d[0] : -d[0]) > 0.89 ? 1 : 0;
            }
            assertThat(hits / 20_000.0).isBetween(0.5, 0.85);
        }
    }

    /** It is followed where light is uneven, and not where the surface's own choice is as good. */
    @Test
    void itIsFollowedWhereItHelps() {
        Guide first = GuideGrowth.of(found(GuideTest::patch, null));
        Guide second = GuideGrowth.of(found(GuideTest::patch, first));
        assertThat(second.share(second.cell(0.3, 0, 0))).isGreaterThanOrEqualTo(0.5);
        Guide even = GuideGrowth.of(found(d -> 1, null));
        assertThat(GuideGrowth.of(found(d -> 1, even))).isNull();
    }

    /** One path in sixty thousand that met the sun's glint does not lead all others there. */
    @Test
    void oneLuckyPathLeadsNobody() {
        GuideRecords records = found(d -> 1, null);
        records.open(0.3, 0, 0, 0, 1, 0, 1, 1 / (4 * Math.PI), 1 / (4 * Math.PI), -1, 1, 1, 0);
        records.close(1e6);
        Guide guide = GuideGrowth.of(records);
        assertThat(guide.density(guide.cell(0.3, 0, 0), 0, 1, 0)).isLessThan(1);
    }
}
