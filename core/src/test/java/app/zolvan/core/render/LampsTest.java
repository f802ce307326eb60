package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.DARK;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.PATIENT;
import static app.zolvan.core.render.Sheets.centre;
import static app.zolvan.core.render.Sheets.eye;
import static app.zolvan.core.render.Sheets.glowing;
import static app.zolvan.core.render.Sheets.mean;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.AreaLamp;
import app.zolvan.core.light.Blackbody;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.IesProfile;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.light.WhiteBalance;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Fresnel;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** Lamps in photometric units against closed forms. A matt floor of albedo ½ under E lux shows ½ E/π cd/m². */
class LampsTest {
    private static final Camera SLANTED = eye(new Vec3(0.5, 1, 0.5), Vec3.ZERO, 1);

    private static RenderScene.Builder floor() {
        return new RenderScene.Builder(Kind.SCALAR).add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT));
    }

    /** Lux on the floor at the origin. */
    private static double lux(RenderScene scene, int samples) {
        return centre(scene, DARK, SLANTED, samples)[1] * 1000 * Math.PI / 0.5;
    }

    /** rules.md, section 7: a bulb of 1,000 lm gives 19.9 lx at 2 m. */
    @Test
    void aBulbLightsByItsFluxAndTheSquareOfTheDistance() {
        RenderScene scene = floor().lamp(Lamp.Point.ofFlux(new Vec3(0, 2, 0), 1000, LinearRgb.WHITE, 0))
                .build();
        assertThat(lux(scene, 16)).isCloseTo(1000 / (4 * Math.PI) / 4, within(0.02));
    }

    @Test
    void aSpotIsFullWithinItsInnerConeAndDarkBeyondTheOuterOne() {
        for (double aside : new double[] {0, 0.5, 3}) {
            RenderScene scene = floor().lamp(new Lamp.Spot(
                            new Vec3(aside, 2, 0),
                            Vec3.axis(1).times(-1),
                            Math.toRadians(20),
                            Math.toRadians(40),
                            LinearRgb.grey(500),
                            0))
                    .build();
            double d2 = 4 + aside * aside;
            double expected = aside > 2 ? 0 : 500 / d2 * 2 / Math.sqrt(d2);
            assertThat(lux(scene, 16)).isCloseTo(expected, within(0.1));
        }
    }

    @Test
    void theSunGivesItsIlluminanceOnAFaceTurnedToIt() {
        RenderScene scene = floor().lamp(new Lamp.Sun(new Vec3(0.6, 0.8, 0), 0.00465, LinearRgb.grey(100_000), 0))
                .build();
        assertThat(lux(scene, 64)).isCloseTo(80_000, within(80.0));
    }

    /** Two parallel unit squares a unit apart exchange F = 0.1998 of their light (Howell's catalogue, C-11). */
    @Test
    void parallelSquaresExchangeWhatTheirFormFactorSays() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(0.5, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(sheet(0.5, 1, false), Transform.IDENTITY, List.of(glowing(10_000)))
                .build();
        // from far away under the lit square, so that the other one fills the picture evenly
        double far = 4000;
        Vec3 at = new Vec3(Math.cos(Math.PI / 6) * far, Math.sin(Math.PI / 6) * far, 0);
        Camera camera = new Camera(at, Vec3.ZERO, Vec3.axis(1), 2 * Math.atan(0.249 / far));
        double[] seen = mean(scene, DARK, camera, 240, 120, 4);
        double f = 0.199825;
        assertThat(seen[1]).isCloseTo(0.5 * f * 10, within(0.01 * f * 5));
    }

    /**
     * Under a square opening in a black ceiling, as far up as it is wide, the sky gives πL · 4/π · a/√(1 + a²) ·
     * atan(a/√(1 + a²)), a = ½ (Howell's catalogue, B-4).
     */
    @Test
    void throughAnOpeningComesWhatItsFormFactorSays() {
        Surface black = MATT.with(Parameter.BASE_COLOR, 0, 0, 0);
        RenderScene.Builder builder = floor();
        for (int i = 0; i < 8; i++) {
            int k = i < 4 ? i : i + 1; // eight squares around an empty one
            builder.add(sheet(0.5, 1, false), Transform.translation(k % 3 - 1, 0, k / 3 - 1), List.of(black));
        }
        double s = 0.5 / Math.sqrt(1.25);
        double expected = 0.5 * 4 / Math.PI * s * Math.atan(s);
        Camera camera = new Camera(new Vec3(0.3, 0.7, 0.3), Vec3.ZERO, Vec3.axis(1), Math.toRadians(1));
        double[] seen = centre(builder.build(), overhead(), camera, 1024);
        assertThat(seen[1]).isCloseTo(expected, within(0.01 * expected));
    }

    /** Light from less than 45° off the zenith alone, of radiance 1: that it shines on the floor elsewhere is no matter. */
    private static Environment overhead() {
        return Environment.painted((up, around) -> up > Math.sqrt(0.5) ? 1 : 0, 1);
    }

    @ParameterizedTest
    @ValueSource(strings = {"rectangle", "disc", "sphere"})
    void anAreaLampSendsOutItsFlux(String shape) {
        Mesh mesh = switch (shape) {
            case "rectangle" -> AreaLamp.rectangle(0.2, 0.1);
            case "disc" -> AreaLamp.disc(0.05);
            default -> AreaLamp.sphere(0.05);
        };
        assertThat(mesh.area())
                .isCloseTo(
                        switch (shape) {
                            case "rectangle" -> 0.02;
                            case "disc" -> Math.PI * 0.0025;
                            default -> 4 * Math.PI * 0.0025;
                        },
                        within(shape.equals("sphere") ? 2e-4 : 1e-7));
        Surface glow = AreaLamp.glowing(800, mesh.area(), LinearRgb.WHITE);
        Transform down = Transform.translation(0, 3, 0).after(Transform.rotation(Vec3.axis(0), Math.PI / 2));
        RenderScene scene = floor().add(mesh, down, List.of(glow)).build();
        double candela = shape.equals("sphere") ? 800 / (4 * Math.PI) : 800 / Math.PI;
        double expected = candela / 9;
        assertThat(lux(scene, 1024)).isCloseTo(expected, within(0.012 * expected));
    }

    /** Many lamps: one look at one of them, chosen well, has the right mean, and little noise where few matter. */
    @Test
    void aThousandLampsAddUp() {
        RenderScene.Builder builder = floor();
        double expected = 0;
        for (int i = 0; i < 1000; i++) {
            double x = 0.7 * (i % 40 - 20);
            double z = 0.7 * (i / 40 - 12);
            double y = 1 + 0.02 * (i * 37 % 50);
            builder.lamp(Lamp.Point.ofFlux(new Vec3(x, y, z), 100, LinearRgb.WHITE, i % 3));
            double d2 = x * x + y * y + z * z;
            expected += 100 / (4 * Math.PI) / d2 * y / Math.sqrt(d2);
        }
        assertThat(lux(builder.build(), 1024)).isCloseTo(expected, within(0.01 * expected));
    }

    private static Still lit(int bulb, int panel) {
        return lit(bulb, panel, 1);
    }

    private static Still lit(int bulb, int panel, double power) {
        RenderScene scene = floor().lamp(Lamp.Point.ofFlux(new Vec3(0, 2, 0), 1000 * power, LinearRgb.WHITE, bulb))
                .addDressed(
                        sheet(0.3, 1.5, false),
                        Transform.translation(1, 0, 0),
                        List.of(Dress.of(glowing(2000 * power)).circuit(panel)))
                .build();
        Still still = new Still(scene, Environment.uniform(0.1, 0.1, 0.1), null, SLANTED, 4, 4, 1, 8);
        still.render(Quality.samples(64), new Region(0, 0, 4, 4), 2, PATIENT);
        return still;
    }

    /**
     * Kept apart by circuit, light adds up to what the same lamps give on one circuit; the bulb's own is what it gives
     * alone: 19.9 lx on a matt ½. The surroundings have the last circuit for themselves.
     */
    @Test
    void circuitsSumToTheWholeAndEachIsItsLampsAlone() {
        Still apart = lit(1, 2);
        Still together = lit(0, 0);
        Still dark = lit(1, 2, 0);
        assertThat(apart.film().circuits()).isEqualTo(4);
        assertThat(together.film().circuits()).isEqualTo(2);
        double[] whole = new double[3];
        double[] sum = new double[3];
        double[] bulb = new double[3];
        double[] none = new double[3];
        double[] around = new double[3];
        double[] unlit = new double[3];
        double sky = 0;
        for (int p = 0; p < 16; p++) {
            together.film().mean(p % 4, p / 4, whole);
            apart.film().mean(p % 4, p / 4, sum);
            apart.film().mean(p % 4, p / 4, new double[] {0, 1, 0, 0}, bulb);
            apart.film().mean(p % 4, p / 4, new double[] {1, 0, 0, 0}, none);
            apart.film().mean(p % 4, p / 4, new double[] {0, 0, 0, 1}, around);
            assertThat(sum).containsExactly(whole, within(1e-6 * whole[1]));
            assertThat(none).containsOnly(0);
            dark.film().mean(p % 4, p / 4, unlit);
            sky += around[1] - unlit[1];
            assertThat(bulb[1]).isCloseTo(0.5 * 0.0199 / Math.PI, within(1e-4));
        }
        assertThat(sky / 16).isCloseTo(0, within(3e-4)); // of 0.05 or so
    }

    /** Under a pane, both looking for the sun and meeting it by chance see (1 − R)/(1 + R) of it. */
    @Test
    void theSunShinesThroughAThinPane() {
        Surface pane = Sheets.GLASS.with(Parameter.GEOMETRY_THIN_WALLED, true);
        RenderScene scene = floor().add(sheet(50, 3, true), Transform.IDENTITY, List.of(pane))
                .lamp(new Lamp.Sun(Vec3.axis(1), 0.3, LinearRgb.grey(10_000), 0))
                .build();
        double seen = lux(scene, 2048);
        // what the floor sends back up, the pane mirrors down in part, again and again
        double mirrored = 0;
        for (int i = 0; i < 1000; i++) {
            double cosine = (i + 0.5) / 1000;
            double r = Fresnel.dielectric(cosine, 1.5);
            mirrored += 2 * cosine * 2 * r / (1 + r) / 1000;
        }
        double expected = 10_000 * 0.9231 / (1 - 0.5 * mirrored);
        assertThat(seen).isCloseTo(expected, within(0.01 * expected));
    }

    /** A file of 90° … 270° is mirrored, one that stops before 360° is closed. */
    @Test
    void luminairesThatAreNotGivenAllAroundAreCompleted() throws IOException {
        String head = "TILT=NONE\n1 1000 1 2 3 1 2 0 0 0\n1 1 20\n0 90\n";
        IesProfile half = IesProfile.read((head + "90 180 270\n1 10 2 20 3 30\n").getBytes(StandardCharsets.US_ASCII));
        assertThat(half.candela(0, Math.PI)).isCloseTo(2, within(1e-9));
        assertThat(half.candela(0, 0)).isCloseTo(2, within(1e-9));
        assertThat(half.candela(0, Math.PI / 2)).isCloseTo(1, within(1e-9));
        assertThat(half.candela(0, Math.PI / 4)).isCloseTo(1.5, within(1e-9));
        IesProfile open = IesProfile.read((head + "0 120 240\n1 10 2 20 3 30\n").getBytes(StandardCharsets.US_ASCII));
        assertThat(open.candela(0, Math.toRadians(300))).isCloseTo(2, within(1e-9));
    }

    private static final String IES =
            "IESNA:LM-63-2002\n[TEST] made up\nTILT=NONE\n1 1000 2 3 1 1 2 0 0 0\n1 1 20\n" + "0 45 90\n0\n300 200 0\n";

    @Test
    void aMeasuredLuminaireShinesAsItsFileSays() throws IOException {
        IesProfile profile = IesProfile.read(IES.getBytes(StandardCharsets.US_ASCII));
        assertThat(profile.candela(0, 1)).isEqualTo(600);
        assertThat(profile.candela(Math.PI / 8, 4)).isCloseTo(500, within(1e-9));
        assertThat(profile.candela(2, 0)).isZero();
        RenderScene scene = floor().lamp(new Lamp.Measured(
                        new Vec3(1.5, 1.5, 0), Vec3.axis(1).times(-1), Vec3.axis(0), profile, LinearRgb.WHITE, 0))
                .build();
        assertThat(lux(scene, 16)).isCloseTo(400 / 4.5 * Math.sqrt(0.5), within(0.2));
        for (String bad :
                List.of("hello", IES.replace("NONE", "INCLUDE"), IES.replace("300", "x"), IES.substring(0, 80))) {
            assertThatThrownBy(() -> IesProfile.read(bad.getBytes(StandardCharsets.US_ASCII)))
                    .isInstanceOf(IOException.class)
                    .hasMessageMatching("(?s)(The|That).*\\.");
        }
    }

    /** What a camera balanced for a lamp sees of it is neutral; candle light is redder than daylight. */
    @Test
    void colourTemperaturesAreThoseOfGlowingBodies() {
        for (double k : new double[] {2200, 2700, 3500}) {
            LinearRgb seen = new WhiteBalance(k).apply(Blackbody.colour(k));
            assertThat(seen.r() / seen.g()).isCloseTo(1, within(0.04));
            assertThat(seen.b() / seen.g()).isCloseTo(1, within(0.08));
        }
        LinearRgb warm = Blackbody.colour(2700);
        assertThat(warm.luminance()).isCloseTo(1, within(1e-9));
        assertThat(warm.r()).isGreaterThan(warm.g());
        assertThat(warm.g()).isGreaterThan(warm.b());
        LinearRgb daylight = new WhiteBalance(6504).apply(LinearRgb.WHITE);
        assertThat(daylight.r()).isCloseTo(1, within(0.01));
        assertThat(daylight.b()).isCloseTo(1, within(0.01));
    }
}
