package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.GLASS;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.PATIENT;
import static app.zolvan.core.render.Sheets.centre;
import static app.zolvan.core.render.Sheets.eye;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
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
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel.Kind;
import app.zolvan.core.texture.Png;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Small pictures whose right answer is known in closed form, and pictures that must be the same however they are made. */
class StillTest {
    private static final Vec3 CORNER = new Vec3(4, 3, 5);

    /** A matt surface that sees nothing but a uniform sky sends back albedo · L. */
    @Test
    void aMattSheetUnderAUniformSkyShowsItsAlbedo() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .build();
        Camera camera = eye(new Vec3(0.1, 2, 0.3), Vec3.ZERO, 10);
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
        double[] seen = centre(scene, Environment.uniform(1, 1, 1), eye(new Vec3(0.1, 2, 0.3), Vec3.ZERO, 10), 4096);
        assertThat(seen[1]).isCloseTo(0.25, within(0.004));
    }

    /** needs.md Q32: sheets that let 60 % by let 0.6, 0.36 and 0.216 by together; so do sheets that cover 40 %. */
    @ParameterizedTest
    @CsvSource({"1, 0.6", "2, 0.36", "3, 0.216"})
    void sheetsOneBehindAnotherMultiply(int sheets, double expected) {
        Surface veil = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.GEOMETRY_OPACITY, 0.4);
        RenderScene.Builder builder = new RenderScene.Builder(Kind.SCALAR);
        for (int i = 0; i < sheets; i++) {
            builder.add(sheet(50, 0.3 * i, true), Transform.IDENTITY, List.of(veil));
        }
        Camera down = eye(new Vec3(0, 5, 0.001), Vec3.ZERO, 2);
        double[] seen = centre(builder.build(), Environment.uniform(1, 1, 1), down, 2048);
        assertThat(seen[1]).isCloseTo(expected, within(0.01));
    }

    /** A thin pane's highlight is the same whatever the colour of what it lets through. */
    @ParameterizedTest
    @CsvSource({"1", "0.5", "0"})
    void aPanesHighlightDoesNotDependOnItsClarity(double clarity) {
        Surface pane = GLASS.with(Parameter.GEOMETRY_THIN_WALLED, true)
                .with(Parameter.TRANSMISSION_COLOR, clarity, clarity, clarity);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(pane))
                .build();
        float[] rgb = new float[3 * 64 * 32];
        Arrays.fill(rgb, 0, 3 * 64 * 16, 1); // light from above only
        Camera down = eye(new Vec3(0, 5, 0.001), Vec3.ZERO, 2);
        double[] seen = centre(scene, new Environment(64, 32, rgb, 0, 1), down, 4096);
        assertThat(seen[1]).isCloseTo(2 * 0.04 / 1.04, within(0.003));
    }

    /** What the first hit was is kept beside the light: part, material, distance, normal and colour; nothing off the model. */
    @Test
    void thePictureRemembersWhatItSawFirst() {
        Surface other = MATT.with(Parameter.BASE_COLOR, 0.1, 0.2, 0.3);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(1, 0, true), Transform.IDENTITY, List.of(other))
                .add(sheet(1, 0, true), Transform.translation(-3, 0, 0), List.of(MATT))
                .add(sheet(0.3, 0.5, true), Transform.IDENTITY, List.of(MATT))
                .build();
        Still still = new Still(
                scene, Environment.uniform(1, 1, 1), null, eye(new Vec3(0, 4.5, 0.001), Vec3.ZERO, 40), 25, 25, 1, 4);
        still.render(Quality.samples(4), new Region(0, 0, 25, 25), 1, PATIENT);
        int[][] seen = {{12, 12, 2, 1}, {12, 6, 0, 0}, {0, 0, -1, -1}}; // column, row, part, material
        for (int[] p : seen) {
            assertThat(still.film().part(p[0], p[1])).isEqualTo(p[2]);
            assertThat(still.film().material(p[0], p[1])).isEqualTo(p[3]);
        }
        assertThat(still.film().depth(12, 12)).isCloseTo(4, within(0.01));
        double[] v = new double[3];
        still.film().normal(12, 12, v);
        assertThat(v[1]).isCloseTo(1, within(1e-6));
        still.film().albedo(12, 6, v);
        assertThat(v).containsExactly(new double[] {0.1, 0.2, 0.3}, within(1e-6));
    }

    /** Polished white things and matt white ones show each other the white around them, however sharp reflections are softened. */
    @ParameterizedTest
    @CsvSource({"1", "16"})
    void softenedReflectionsMakeNoLightAndLoseNone(int samples) {
        Surface white = MATT.with(Parameter.BASE_COLOR, 1, 1, 1);
        Surface mirror = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_COLOR, 1, 1, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.1);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(white))
                .add(Cubes.box(1, 1, 1), Transform.translation(0.8, 0.5, 0), List.of(mirror))
                .build();
        double[] seen = Sheets.mean(
                scene,
                Environment.uniform(1, 1, 1),
                eye(new Vec3(-1, 1, 0.5), new Vec3(0.3, 0.2, 0), 40),
                32,
                24,
                samples);
        assertThat(seen[1]).isCloseTo(1, within(0.01));
    }

    /** needs.md Q42: a stop doubles light before the tone curve, and leaves the stored radiance alone. */
    @ParameterizedTest
    @CsvSource({"-1, NEUTRAL", "2, NEUTRAL", "1, FILMIC"})
    void aStopDoublesTheLight(int stops, Development.Curve curve) {
        float[] radiance = {0.02f, 0.1f, 0.4f, 0.9f, 1.5f, 3};
        float[] times = new float[radiance.length];
        for (int i = 0; i < times.length; i++) {
            times[i] = radiance[i] * (float) Math.pow(2, stops);
        }
        short[] exposed = new Development(stops, 0, curve, null, false).words(radiance);
        assertThat(exposed).isEqualTo(new Development(0, 0, curve, null, false).words(times));
        assertThat(radiance[1]).isEqualTo(0.1f);
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
        Camera camera = eye(new Vec3(0.5, 1, 0.5), Vec3.ZERO, 1);
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
        Camera down = eye(new Vec3(0, 5, 0.001), Vec3.ZERO, 2);
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
        double[] seen = centre(scene, Environment.uniform(1, 1, 1), eye(new Vec3(0, 5, 0.001), Vec3.ZERO, 1), 2048);
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

    /** One picture, four ways: other numbers of threads, and two rectangles of it alone. */
    @ParameterizedTest
    @CsvSource({"corner", "room", "cave"})
    void aPictureIsTheSameForAnyNumberOfThreadsAndInParts(String where) {
        boolean guided = !where.equals("corner");
        RenderScene scene = where.equals("cave") ? cave() : guided ? room() : corner();
        Quality quality = new Quality(0.02, guided ? 16 : 64);
        int w = 70;
        int h = 50;
        Still one = corner(scene, guided, w, h);
        one.render(quality, new Region(0, 0, w, h), 1, PATIENT);
        for (int threads : new int[] {2, 7}) {
            Still many = corner(scene, guided, w, h);
            many.render(quality, new Region(0, 0, w, h), threads, PATIENT);
            assertSame(one, many, new Region(0, 0, w, h));
        }
        Region part = new Region(23, 11, 20, 17);
        Still some = corner(scene, guided, w, h);
        Region other = new Region(30, 20, 30, 9); // they share a block
        some.render(quality, List.of(part, other), 2, PATIENT);
        assertSame(one, some, part);
        assertSame(one, some, other);
        assertThat(some.film().samples(0, 49)).as("elsewhere").isZero();
    }

    private static Still corner(RenderScene scene, boolean guided, int w, int h) {
        return guided
                ? inRoom(scene, w, h).guided()
                : new Still(scene, Environment.studio(1), null, eye(CORNER, new Vec3(0.5, 0.5, 0.5), 30), w, h, 42, 12);
    }

    private static Still inRoom(RenderScene scene, int w, int h) {
        Camera camera = eye(new Vec3(1.9, 1.2, 1.9), new Vec3(0, 0.9, 0), 60);
        return new Still(scene, Environment.uniform(5, 6, 8), null, camera, w, h, 42, 12);
    }

    /** A closed room of 4 × 2 × 4 m, lit by way of a small patch of its ceiling alone: no pane, nothing else to look for. */
    private static RenderScene cave() {
        Lamp.Spot up = new Lamp.Spot(
                new Vec3(1.2, 1, -1.2),
                Vec3.axis(1),
                Math.toRadians(24),
                Math.toRadians(26),
                LinearRgb.grey(90_000),
                0);
        return new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(4, 2, 4), Transform.translation(0, 1, 0), List.of(MATT))
                .lamp(up)
                .build();
    }

    /** A closed room of 4 × 2 × 4 m with a pane in one wall, through which the sun shines on the floor. */
    private static RenderScene room() {
        Mesh pane = new TriangleSoup()
                .quad(new Vec3(-2, 0.8, 0.7), new Vec3(-2, 0.8, -0.7), new Vec3(-2, 1.7, -0.7), new Vec3(-2, 1.7, 0.7))
                .toMesh(0.1);
        TriangleSoup walls = new TriangleSoup();
        double[] y = {0, 0.8, 1.7, 2};
        double[] z = {-2, -0.7, 0.7, 2};
        for (int i = 0; i < 3; i++) {
            for (int k = 0; k < 3; k++) {
                if (i != 1 || k != 1) {
                    walls.quad(
                            new Vec3(-2, y[i], z[k + 1]),
                            new Vec3(-2, y[i], z[k]),
                            new Vec3(-2, y[i + 1], z[k]),
                            new Vec3(-2, y[i + 1], z[k + 1]));
                }
            }
        }
        walls.quad(new Vec3(2, 0, -2), new Vec3(2, 0, 2), new Vec3(2, 2, 2), new Vec3(2, 2, -2));
        walls.quad(new Vec3(-2, 0, -2), new Vec3(2, 0, -2), new Vec3(2, 2, -2), new Vec3(-2, 2, -2));
        walls.quad(new Vec3(2, 0, 2), new Vec3(-2, 0, 2), new Vec3(-2, 2, 2), new Vec3(2, 2, 2));
        return new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(2, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(sheet(2, 2, false), Transform.IDENTITY, List.of(MATT))
                .add(walls.toMesh(0.1), Transform.IDENTITY, List.of(MATT))
                .add(pane, Transform.IDENTITY, List.of(GLASS.with(Parameter.GEOMETRY_THIN_WALLED, true)))
                .lamp(new Lamp.Sun(new Vec3(-1, 0.8, 0.1).normalised(), 0.00465, LinearRgb.grey(40_000), 0))
                .build();
    }

    /** Looks through panes in the one and guided paths in the other find the same light, with less of the error's square. */
    @ParameterizedTest
    @CsvSource({"room, 0.4", "cave, 0.7"})
    void aGuidedPictureIsTheSameWithLessNoise(String where, double left) {
        RenderScene scene = where.equals("cave") ? cave() : room();
        int n = 40;
        Region all = new Region(0, 0, n, n);
        double[] mean = new double[2];
        double[] error = new double[2];
        for (int guided = 0; guided < 2; guided++) {
            Still still = guided == 1 ? inRoom(scene, n, n).guided() : inRoom(scene, n, n);
            still.render(Quality.samples(256), all, 2, PATIENT);
            error[guided] = still.film().error(0, 0, n, n);
            double[] rgb = new double[3];
            for (int i = 0; i < n * n; i++) {
                still.film().mean(i % n, i / n, rgb);
                mean[guided] += rgb[1] / n / n;
            }
        }
        assertThat(mean[1]).isCloseTo(mean[0], within(0.02 * mean[0]));
        assertThat(error[1] * error[1]).isLessThan(left * error[0] * error[0]);
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
        Camera camera = eye(new Vec3(1.2, 0.6, 6), new Vec3(1, 0.5, 0.5), 14);
        double[] a = centre(one, Environment.studio(1), camera, 1024);
        double[] b = centre(two, Environment.studio(1), camera, 1024);
        assertThat(b[1]).isCloseTo(a[1], within(0.02 * a[1]));
    }

    private static RenderScene corner() {
        return new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(5, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(Cubes.box(1, 1, 1), Transform.translation(0.5, 0.51, 0.5), List.of(GLASS))
                .add(Cubes.box(1, 1, 1), Transform.translation(1.7, 0.51, 0.5), List.of(MATT))
                .build();
    }

    /** Stopped after every report, written down, and gone on with in another object: the picture does not show it. */
    @Test
    void aPictureThatIsPausedAndTakenUpAgainIsTheSame() throws Exception {
        RenderScene scene = corner();
        Camera camera = eye(new Vec3(4, 3, 5), new Vec3(0.5, 0.5, 0.5), 30);
        Quality quality = new Quality(0.02, 64);
        Region all = new Region(0, 0, 40, 30);
        Still one = new Still(scene, Environment.studio(1), null, camera, 40, 30, 42, 12);
        one.render(quality, all, 2, PATIENT);
        byte[] kept = null;
        Still still = null;
        boolean done = false;
        int pauses = 0;
        while (!done) {
            still = new Still(scene, Environment.studio(1), null, camera, 40, 30, 42, 12);
            if (kept != null) {
                still.film().read(new DataInputStream(new ByteArrayInputStream(kept)));
            }
            int after = pauses++;
            int[] reports = {0};
            done = still.render(quality, all, 2, (share, samples) -> reports[0]++ < after);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            still.film().write(new DataOutputStream(out));
            kept = out.toByteArray();
        }
        assertThat(pauses).isGreaterThan(4);
        assertSame(one, still, all);
    }

    private static Still rendered(RenderScene scene, Camera camera, Region all, long seed, Quality quality) {
        Still still = new Still(scene, Environment.studio(1), null, camera, all.width(), all.height(), seed, 12);
        still.render(quality, all, 2, PATIENT);
        return still;
    }

    /** Four times the samples halve the error, or better: samples are stratified. */
    /** What is no kept picture, or one of another size, is told as such, and nothing is taken from it. */
    @Test
    void aFilmOnlyReadsItsOwnKind() throws Exception {
        ByteArrayOutputStream kept = new ByteArrayOutputStream();
        new Film(4, 3).write(new DataOutputStream(kept));
        Film other = new Film(3, 4);
        assertThatThrownBy(() -> other.read(new DataInputStream(new ByteArrayInputStream(kept.toByteArray()))))
                .hasMessageContaining("another size");
        byte[] old = new byte[200];
        assertThatThrownBy(() -> other.read(new DataInputStream(new ByteArrayInputStream(old))))
                .hasMessageContaining("another edition");
        assertThat(other.samples(0, 0)).isZero();
    }

    @Test
    void noiseFallsAtLeastWithTheRootOfTheSamples() {
        RenderScene scene = corner();
        Camera camera = eye(new Vec3(4, 3, 5), new Vec3(0.5, 0.5, 0.5), 30);
        Region all = new Region(0, 0, 24, 18);
        Still truth = rendered(scene, camera, all, 5, Quality.samples(1024));
        double before = 0;
        for (int n = 8; n <= 32; n *= 4) {
            Still still = rendered(scene, camera, all, 6, Quality.samples(n));
            double error = distance(truth, still, all);
            if (before > 0) {
                assertThat(before / error).isGreaterThan(1.75);
            }
            before = error;
        }
    }

    /** Root mean square difference as shown, v/(1 + v). */
    private static double distance(Still a, Still b, Region r) {
        double[] x = new double[3];
        double[] y = new double[3];
        double sum = 0;
        for (int i = 0; i < r.width() * r.height(); i++) {
            a.film().mean(i % r.width(), i / r.width(), x);
            b.film().mean(i % r.width(), i / r.width(), y);
            double d = x[1] / (1 + x[1]) - y[1] / (1 + y[1]);
            sum += d * d;
        }
        return Math.sqrt(sum / (r.width() * r.height()));
    }

    /** A block is left when its expected error is the one promised; measured against the truth it is, within a fifth. */
    @Test
    void theErrorThatAPictureStopsAtIsTheOnePromised() {
        RenderScene scene = corner();
        Camera camera = eye(new Vec3(4, 3, 5), new Vec3(0.5, 0.5, 0.5), 30);
        Region all = new Region(0, 0, 32, 16);
        Still truth = rendered(scene, camera, all, 5, Quality.samples(1024));
        Still still = rendered(scene, camera, all, 6, new Quality(0.015, 1024));
        double error = distance(truth, still, all);
        assertThat(error).isLessThan(0.015 * 1.2);
    }

    /** Smoothing takes most of the grain and leaves the check of a floor as sharp as it was. */
    @Test
    void smoothingTakesGrainAndKeepsDetail() {
        byte[] check = new byte[3 * 16 * 16];
        for (int i = 0; i < 256; i++) {
            Arrays.fill(check, 3 * i, 3 * i + 3, (byte) (((i ^ i >> 4) & 1) == 0 ? 230 : 60));
        }
        byte[] png = Png.encode(16, 16, check, 72);
        Surface tiles = MATT.with(Parameter.BASE_COLOR, 1, 1, 1)
                .withTexture(
                        Parameter.BASE_COLOR, TextureUse.repeating("tiles", Channel.RGB, new ModelUv(0, 0, 0, 2, 2)));
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR, new Textures(d -> png, Textures.BUDGET))
                .add(sheet(2, 0, true), Transform.IDENTITY, List.of(tiles))
                .add(Cubes.box(0.8, 0.8, 0.8), Transform.translation(0, 0.41, 0), List.of(MATT))
                .build();
        Camera camera = eye(new Vec3(3, 2.4, 4), new Vec3(0, 0.2, 0), 30);
        int n = 96;
        Region all = new Region(0, 0, n, n);
        Still truth = rendered(scene, camera, all, 5, Quality.samples(512));
        Still still = rendered(scene, camera, all, 6, Quality.samples(16));
        float[] right = Development.PLAIN.radiance(truth.film(), 0, 0, n, n);
        float[] grainy = Development.PLAIN.radiance(still.film(), 0, 0, n, n);
        float[] smooth = Development.PLAIN.denoised(true).radiance(still.film(), 0, 0, n, n);
        assertThat(distance(right, smooth)).isLessThan(0.6 * distance(right, grainy));
        assertThat(contrast(smooth, n)).isCloseTo(contrast(right, n), within(0.03 * contrast(right, n)));
    }

    private static double distance(float[] a, float[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            double d = a[i] / (1 + a[i]) - b[i] / (1 + b[i]);
            sum += d * d;
        }
        return Math.sqrt(sum / a.length);
    }

    /** Mean step between neighbours in a row. */
    private static double contrast(float[] rgb, int n) {
        double sum = 0;
        for (int i = 0; i + 1 < n * n; i++) {
            sum += Math.min(1, Math.abs(rgb[3 * i] - rgb[3 * i + 3]));
        }
        return sum;
    }
}
