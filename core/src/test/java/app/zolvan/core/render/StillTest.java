package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Small pictures whose right answer is known in closed form, and pictures that must be the same however they are made. */
class StillTest {
    private static final Surface MATT =
            Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5);
    private static final Surface GLASS =
            Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, 0);
    private static final Still.Watcher PATIENT = (share, samples) -> true;

    /** A rectangle in the x, z plane at a height, looking up or down. */
    private static Mesh sheet(double half, double y, boolean up) {
        float h = (float) half;
        float[] p = {-h, (float) y, -h, h, (float) y, -h, h, (float) y, h, -h, (float) y, h};
        float ny = up ? 1 : -1;
        float[] n = {0, ny, 0, 0, ny, 0, 0, ny, 0, 0, ny, 0};
        int[] index = up ? new int[] {0, 2, 1, 0, 3, 2} : new int[] {0, 1, 2, 0, 2, 3};
        return new Mesh(p, n, null, null, index, new int[] {0, 2}, null);
    }

    private static Camera from(Vec3 eye, Vec3 target, double degrees) {
        return new Camera(eye, target, Vec3.axis(1), Math.toRadians(degrees));
    }

    private static double[] centre(RenderScene scene, Environment sky, Camera camera, int samples) {
        int n = 5;
        Still still = new Still(scene, sky, null, camera, n, n, 1, 24);
        still.render(Quality.samples(samples), new Region(0, 0, n, n), 2, PATIENT);
        double[] out = new double[3];
        double[] sum = new double[3];
        for (int i = 0; i < n * n; i++) {
            still.film().mean(i % n, i / n, out);
            for (int c = 0; c < 3; c++) {
                sum[c] += out[c] / (n * n);
            }
        }
        return sum;
    }

    /** A matt surface that sees nothing but a uniform sky sends back albedo · L. */
    @Test
    void aMattSheetUnderAUniformSkyShowsItsAlbedo() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .build();
        Camera camera = from(new Vec3(0.1, 2, 0.3), Vec3.ZERO, 10);
        double[] seen = centre(scene, Environment.uniform(1, 2, 4), camera, 1024);
        assertThat(seen[0]).isCloseTo(0.5, within(0.005));
        assertThat(seen[1]).isCloseTo(1.0, within(0.01));
        assertThat(seen[2]).isCloseTo(2.0, within(0.02));
    }

    /** Under a black sheet that lets half of all light by, the floor gets half the sky: seen once, not twice, not less. */
    @Test
    void lightThatPassesAHalfOpaqueSheetIsCountedOnce() {
        Surface veil = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.GEOMETRY_OPACITY, 0.5);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(sheet(5000, 3, true), Transform.IDENTITY, List.of(veil))
                .build();
        double[] seen = centre(scene, Environment.uniform(1, 1, 1), from(new Vec3(0.1, 2, 0.3), Vec3.ZERO, 10), 4096);
        assertThat(seen[1]).isCloseTo(0.25, within(0.004));
    }

    /**
     * A small panel of side a at height h over the middle of a matt floor: the illuminance below is L · a² / h² for a ≪ h,
     * so the floor shows albedo · L · a² / (π h²). Found by looking for lamps and by hitting them alike.
     */
    @Test
    void aSmallPanelLightsTheFloorByTheInverseSquare() {
        double luminance = 50_000;
        Surface lamp = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.EMISSION_LUMINANCE, luminance);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(sheet(0.05, 2.4, false), Transform.IDENTITY, List.of(lamp))
                .build();
        Camera camera = from(new Vec3(0.5, 1, 0.5), Vec3.ZERO, 1);
        double[] seen = centre(scene, Environment.uniform(0, 0, 0), camera, 4096);
        double expected = 0.5 * luminance / 1000 * 0.01 / (Math.PI * 2.4 * 2.4);
        assertThat(seen[1]).isCloseTo(expected, within(0.02 * expected));
    }

    /** needs.md Q25: a pane of two faces passes (1 − R)/(1 + R) = 0.923; R comes back from the black behind the eye. */
    @Test
    void aClearSlabPassesWhatItsTwoFacesDoNotReflect() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(20, 0.01, 20), Transform.IDENTITY, List.of(GLASS))
                .build();
        float[] rgb = new float[3 * 64 * 32];
        Arrays.fill(rgb, 3 * 64 * 16, rgb.length, 1); // light from below only
        Environment below = new Environment(64, 32, rgb, 0, 1);
        Camera down = from(new Vec3(0, 5, 0.001), Vec3.ZERO, 2);
        double[] seen = centre(scene, below, down, 4096);
        assertThat(seen[1]).isCloseTo(0.923, within(0.004));
    }

    /** needs.md Q26: over twice the depth of its colour c, light comes out as c², less the faces' reflections. */
    @ParameterizedTest
    @CsvSource({"0.5, 0.7071", "1, 0.5", "2, 0.25", "4, 0.0625"})
    void colourDeepensWithTheWayThroughABody(double depths, double transmitted) {
        Surface tinted = GLASS.with(Parameter.SPECULAR_IOR, 1.0001)
                .with(Parameter.TRANSMISSION_COLOR, 0.5, 0.5, 0.5)
                .with(Parameter.TRANSMISSION_DEPTH, 0.02);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(20, 0.02 * depths, 20), Transform.IDENTITY, List.of(tinted))
                .build();
        double[] seen = centre(scene, Environment.uniform(1, 1, 1), from(new Vec3(0, 5, 0.001), Vec3.ZERO, 1), 2048);
        assertThat(seen[1]).isCloseTo(transmitted, within(2e-3));
    }

    /** needs.md Q22: behind a slab of 10 mm at 45° things are shifted by 3.29 mm (n 1.5), 1.91 (1.2), 0 (1). */
    @ParameterizedTest
    @CsvSource({"1.5, 3.29", "1.2, 1.91", "1.333, 2.65"})
    void aSlabShiftsWhatIsSeenThroughIt(double index, double millimetres) {
        double cos = Math.cos(Math.PI / 4);
        double sin = Math.sin(Math.PI / 4);
        double t = 0.010;
        double inside = Math.asin(sin / index);
        double expected = t * Math.sin(Math.PI / 4 - inside) / Math.cos(inside);
        assertThat(expected * 1000).isCloseTo(millimetres, within(0.006));
        // below the slab: dark to the left of an edge, bright to the right; the edge is where brightness halves
        Surface glow = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.EMISSION_LUMINANCE, 1000);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(2, t, 2), Transform.IDENTITY, List.of(GLASS.with(Parameter.SPECULAR_IOR, index)))
                .add(sheet(1, 0, true), Transform.translation(1, -0.1, 0), List.of(glow))
                .build();
        // an eye far away looks along 45°; the unshifted sight line would meet the edge at x = 0, y = −0.1
        double far = 200;
        double x = -sin * far;
        double y = -0.1 + cos * far;
        int n = 400;
        double field = 0.020 / far;
        Still still = new Still(
                scene,
                Environment.uniform(0, 0, 0),
                new double[3],
                new Camera(new Vec3(x, y, 0), new Vec3(0, -0.1, 0), Vec3.axis(2), field),
                n,
                n,
                1,
                8);
        still.render(Quality.samples(32), new Region(0, n / 2 - 8, n, 16), 2, PATIENT);
        double[] c = new double[3];
        int lit = 0;
        for (int column = 0; column < n; column++) {
            for (int row = n / 2 - 8; row < n / 2 + 8; row++) {
                still.film().mean(column, row, c);
                lit += c[1] > 0.5 ? 1 : 0;
            }
        }
        double shift = Math.abs((double) lit / 16 / n - 0.5) * 0.020;
        assertThat(shift * 1000).isCloseTo(millimetres, within(0.15));
    }

    /** One picture, four ways: another number of threads, and a rectangle of it alone. */
    @Test
    void aPictureIsTheSameForAnyNumberOfThreadsAndInParts() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(5, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(Cubes.box(1, 1, 1), Transform.translation(0.5, 0.51, 0.5), List.of(GLASS))
                .add(Cubes.box(1, 1, 1), Transform.translation(1.7, 0.51, 0.5), List.of(MATT))
                .build();
        Camera camera = from(new Vec3(4, 3, 5), new Vec3(0.5, 0.5, 0.5), 30);
        Quality quality = new Quality(0.02, 64);
        int w = 70;
        int h = 50;
        Still one = new Still(scene, Environment.studio(1), null, camera, w, h, 42, 12);
        one.render(quality, new Region(0, 0, w, h), 1, PATIENT);
        for (int threads : new int[] {2, 7}) {
            Still many = new Still(scene, Environment.studio(1), null, camera, w, h, 42, 12);
            many.render(quality, new Region(0, 0, w, h), threads, PATIENT);
            assertSame(one, many, new Region(0, 0, w, h));
        }
        Region part = new Region(23, 11, 20, 17);
        Still some = new Still(scene, Environment.studio(1), null, camera, w, h, 42, 12);
        some.render(quality, part, 2, PATIENT);
        assertSame(one, some, part);
    }

    private static void assertSame(Still a, Still b, Region r) {
        double[] x = new double[3];
        double[] y = new double[3];
        for (int row = r.y(); row < r.y() + r.height(); row++) {
            for (int column = r.x(); column < r.x() + r.width(); column++) {
                a.film().mean(column, row, x);
                b.film().mean(column, row, y);
                assertThat(y).containsExactly(x);
                assertThat(b.film().samples(column, row)).isEqualTo(a.film().samples(column, row));
            }
        }
    }

    /** Two bodies of the same glass that overlap are one body: the boundary of the weaker within the stronger is not there. */
    @Test
    void overlappingBodiesOfOneGlassLookLikeOneBody() {
        RenderScene one = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(2, 1, 1), Transform.translation(1, 0.5, 0.5), List.of(GLASS), 1)
                .build();
        RenderScene two = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(1.3, 1, 1), Transform.translation(0.65, 0.5, 0.5), List.of(GLASS), 2)
                .add(Cubes.box(1, 1, 1), Transform.translation(1.5, 0.5, 0.5), List.of(GLASS), 1)
                .build();
        Camera camera = from(new Vec3(1.2, 0.6, 6), new Vec3(1, 0.5, 0.5), 14);
        double[] a = centre(one, Environment.studio(1), camera, 1024);
        double[] b = centre(two, Environment.studio(1), camera, 1024);
        assertThat(b[1]).isCloseTo(a[1], within(0.02 * a[1]));
    }
}
