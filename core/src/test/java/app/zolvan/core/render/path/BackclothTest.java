package app.zolvan.core.render.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.path.Still.Watcher;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;

class BackclothTest {
    private static final int W = 32;
    private static final int H = 24;
    private static final double HIGH = 0.4;
    private static final double RADIUS = 0.3;
    private static final Backcloth CLOTH = new Backcloth(0.6, 0.5, 0);
    private static final Surface BLACK =
            Surface.STANDARD.with(Parameter.BASE_COLOR, 0, 0, 0).with(Parameter.SPECULAR_WEIGHT, 0);
    /** A black disc over the ground. */
    private static final RenderScene UNDER_A_DISC = scene(disc(), BLACK);

    private static Mesh disc() {
        TriangleSoup soup = new TriangleSoup();
        int corners = 256;
        Vec3[] rim = new Vec3[corners];
        for (int i = 0; i < corners; i++) {
            double a = 2 * Math.PI * i / corners;
            rim[i] = new Vec3(RADIUS * Math.cos(a), HIGH, -RADIUS * Math.sin(a));
        }
        for (int i = 0; i < corners; i++) {
            soup.triangle(new Vec3(0, HIGH, 0), rim[i], rim[(i + 1) % corners]);
        }
        return soup.toMesh(0.1);
    }

    private static RenderScene scene(Mesh mesh, Surface surface) {
        return new RenderScene.Builder(Kind.SCALAR)
                .add(mesh, Transform.IDENTITY, List.of(surface))
                .build();
    }

    private static Still still(RenderScene scene, Environment sky, Camera camera, int samples, Watcher watcher) {
        Still still = new Still(scene, sky, null, camera, W, H, 1, 8).before(CLOTH);
        still.render(Quality.samples(samples), new Region(0, 0, W, H), 2, watcher);
        return still;
    }

    private static double[] mean(Still still, Region r) {
        double[] sum = new double[3];
        double[] c = new double[3];
        double[] all = new double[still.film().circuits()];
        Arrays.fill(all, 1);
        for (int y = r.y(); y < r.y() + r.height(); y++) {
            for (int x = r.x(); x < r.x() + r.width(); x++) {
                still.film().mean(x, y, all, c);
                for (int k = 0; k < 3; k++) {
                    sum[k] += c[k] / (r.width() * r.height());
                }
            }
        }
        return sum;
    }

    /** Straight under a disc ground sees h²/(r² + h²) of an even sky; each channel alike, though the sky is blue. */
    @Test
    void theGroundTellsWhatTheModelTakesOfTheLight() {
        Camera low = new Camera(new Vec3(0, 0.3, 2), Vec3.ZERO, Vec3.axis(1), Math.toRadians(1));
        double[] seen = mean(
                still(UNDER_A_DISC, Environment.uniform(0.3, 0.6, 1.2), low, 1024, (share, n) -> true),
                new Region(12, 8, 8, 8));
        double open = HIGH * HIGH / (RADIUS * RADIUS + HIGH * HIGH);
        for (double v : seen) {
            assertThat(v).isCloseTo(open * 0.55, within(0.006));
        }
    }

    /** In its umbra the sun is missing, too, and what is left is the sky beside the disc. */
    @Test
    void theSunIsMissingInItsShadow() {
        double sunlit = 2;
        double perUnit = 1000; // cd/m² of a unit of radiance
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(disc(), Transform.IDENTITY, List.of(BLACK))
                .lamp(new Lamp.Sun(Vec3.axis(1), 0.005, LinearRgb.grey(sunlit * perUnit), 0))
                .build();
        Camera low = new Camera(new Vec3(0, 0.3, 2), Vec3.ZERO, Vec3.axis(1), Math.toRadians(1));
        double[] seen = mean(
                still(scene, Environment.uniform(1, 1, 1), low, 1024, (share, n) -> true), new Region(12, 8, 8, 8));
        double open = HIGH * HIGH / (RADIUS * RADIUS + HIGH * HIGH);
        assertThat(seen[0]).isCloseTo(0.55 * open * Math.PI / (Math.PI + sunlit), within(0.005));
    }

    /** What is red and stands on the ground makes it redder, and never greener than open ground. */
    @Test
    void whatShinesBackIsSeenOnTheGround() {
        Surface red = BLACK.with(Parameter.BASE_COLOR, 0.9, 0, 0);
        RenderScene wall = scene(Cubes.box(4, 2, 0.02), red);
        Camera down = new Camera(new Vec3(0, 2, 1), new Vec3(0, 0, 0.2), Vec3.axis(1), Math.toRadians(2));
        double[] seen =
                mean(still(wall, Environment.uniform(1, 1, 1), down, 512, (share, n) -> true), new Region(8, 8, 8, 8));
        assertThat(seen[1]).isEqualTo(seen[2]).isLessThan(0.45);
        assertThat(seen[0]).isGreaterThan(seen[1] + 0.05).isLessThan(0.55);
    }

    /** Straight down what lies towards −z is at the top, and there is a picture. */
    @Test
    void oneCanLookStraightDown() {
        Camera down = Camera.upright(new Vec3(0, 5, 0), Vec3.ZERO, Math.toRadians(20));
        assertThat(down.up()).isEqualTo(new Vec3(0, 0, -1));
        assertThat(Camera.upright(Vec3.ZERO, new Vec3(0, 5, 0), 1).up()).isEqualTo(Vec3.axis(2));
        RenderScene ahead = scene(Cubes.box(1, 0.5, 1), BLACK);
        double[] seen =
                mean(still(ahead, Environment.uniform(1, 1, 1), down, 16, (share, n) -> true), new Region(12, 8, 8, 8));
        assertThat(seen[0]).as("the black lid").isCloseTo(0, within(1e-6));
    }

    /** Where nothing stands in the way the ground is the cloth, in whatever light, with hardly a sample; the horizon can't be seen. */
    @Test
    void openGroundIsTheCloth() {
        Camera level = new Camera(new Vec3(40, 1, 2), new Vec3(42, 1, 2), Vec3.axis(1), Math.toRadians(40));
        Still still = still(UNDER_A_DISC, Environment.studio(1).turned(1, 0.3), level, 8, (share, n) -> true);
        for (int row = 0; row < H; row += 4) {
            double grey = CLOTH.grey(1 - (row + 2.0) / H);
            for (double v : mean(still, new Region(0, row, W, 4))) {
                assertThat(v).isCloseTo(grey, within(0.002));
            }
        }
    }

    /** needs.md R02: glass stands before the cloth. A slab straight on lets (1 − R)/(1 + R) of it through, R = 0.04. */
    @Test
    void theClothIsSeenThroughClearBodies() {
        Surface glass = Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, 0);
        RenderScene slab = scene(Cubes.box(1, 1, 0.1), glass);
        Camera ahead = new Camera(new Vec3(0, 0.25, 5), new Vec3(0, 0.25, 0), Vec3.axis(1), Math.toRadians(0.5));
        double[] seen = mean(
                still(slab, Environment.uniform(0, 0, 0), ahead, 1024, (share, n) -> true), new Region(8, 8, 8, 8));
        assertThat(seen[1]).isCloseTo(0.96 / 1.04 * 0.55, within(0.004));
    }

    @Test
    void aTurnedSkyIsTheSameSky() {
        Environment sky = Environment.studio(1);
        Environment.Sample there = new Environment.Sample();
        Environment.Sample here = new Environment.Sample();
        for (double a = 0; a < 6; a += 0.37) {
            sky.look(Math.cos(a + 0.8), 0.1, Math.sin(a + 0.8), there);
            sky.turned(0.8, 3).look(Math.cos(a), 0.1, Math.sin(a), here);
            assertThat(here.g).isEqualTo(3 * there.g);
        }
    }

    /** Work that is ended between blocks is taken up where it was, and comes out the same. */
    @Test
    void whatWasEndedGoesOnWhereItWas() {
        Camera low = new Camera(new Vec3(0, 0.3, 2), Vec3.ZERO, Vec3.axis(1), Math.toRadians(20));
        Environment sky = Environment.uniform(1, 1, 1);
        Still whole = still(UNDER_A_DISC, sky, low, 32, (share, n) -> true);
        AtomicInteger asked = new AtomicInteger();
        double[] last = {0};
        Still ended = still(UNDER_A_DISC, sky, low, 32, new Watcher() {
            @Override
            public boolean at(double share, int samples) {
                return true;
            }

            @Override
            public synchronized boolean goesOn(double share) {
                assertThat(share).isBetween(0.0, 1.0);
                last[0] = Math.max(last[0], share);
                return asked.incrementAndGet() < 15;
            }
        });
        assertThat(ended.film().samples(W - 1, H - 1)).isLessThan(32);
        assertThat(last[0]).isPositive();
        Region all = new Region(0, 0, W, H);
        assertThat(ended.render(Quality.samples(32), all, 2, (share, n) -> true))
                .isTrue();
        assertThat(mean(ended, all)).isEqualTo(mean(whole, all));
    }
}
