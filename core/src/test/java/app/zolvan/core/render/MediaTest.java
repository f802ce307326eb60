package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.GLASS;
import static app.zolvan.core.render.Sheets.PATIENT;
import static app.zolvan.core.render.Sheets.centre;
import static app.zolvan.core.render.Sheets.eye;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.AreaLamp;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Spectrum;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.ArrayList;
import java.util.List;
import org.assertj.core.data.Percentage;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What happens to light inside bodies: absorbed, scattered, bent; told by either way of modelling a vessel. */
class MediaTest {
    private static final Environment WHITE = Environment.uniform(1, 1, 1);
    private static final Surface CLOUDY =
            GLASS.with(Parameter.SPECULAR_IOR, 1.0001).with(Parameter.TRANSMISSION_DEPTH, 0.05);

    private static RenderScene ball(Surface surface) {
        return new RenderScene.Builder(Kind.SCALAR)
                .add(AreaLamp.sphere(0.1), Transform.IDENTITY, List.of(surface))
                .build();
    }

    /** A body that scatters and takes nothing vanishes in an even white surrounding. */
    @ParameterizedTest
    @CsvSource({"0", "0.7", "-0.4"})
    void aCloudThatAbsorbsNothingLosesNothing(double cosine) {
        double colour = Math.exp(-1);
        Surface cloud = CLOUDY.with(Parameter.TRANSMISSION_COLOR, colour, colour, colour)
                .with(Parameter.TRANSMISSION_SCATTER, 1, 1, 1)
                .with(Parameter.TRANSMISSION_SCATTER_ANISOTROPY, cosine);
        double[] seen = centre(ball(cloud), WHITE, eye(new Vec3(0, 0, 2), Vec3.ZERO, 1), 512);
        assertThat(seen[1]).isCloseTo(1, within(0.01));
    }

    /** A bulb in a cloud that takes nothing: all its light comes out, the same to all sides; a point itself is not seen. */
    @ParameterizedTest
    @CsvSource({"0, true, 0.03", "0.6, true, 0.05", "0, false, 0.04"})
    void lampsInACloudAreFoundFromWithin(double cosine, boolean isPoint, double tolerance) {
        double colour = Math.exp(-1);
        Surface cloud = CLOUDY.with(Parameter.TRANSMISSION_COLOR, colour, colour, colour)
                .with(Parameter.TRANSMISSION_SCATTER, 1, 1, 1)
                .with(Parameter.TRANSMISSION_SCATTER_ANISOTROPY, cosine);
        RenderScene.Builder b =
                new RenderScene.Builder(Kind.SCALAR).add(AreaLamp.sphere(0.1), Transform.IDENTITY, List.of(cloud));
        double lumens = 500;
        if (isPoint) {
            b.lamp(Lamp.Point.ofFlux(Vec3.ZERO, lumens, LinearRgb.WHITE, 0));
        } else {
            Mesh bulb = AreaLamp.sphere(0.02);
            Surface white = AreaLamp.glowing(lumens, bulb.area(), LinearRgb.WHITE)
                    .with(Parameter.BASE_WEIGHT, 1)
                    .with(Parameter.BASE_COLOR, 1, 1, 1);
            b.add(bulb, Transform.IDENTITY, List.of(white));
        }
        int n = 24;
        double tan = 0.12;
        Camera camera = eye(new Vec3(0, 0, 1), Vec3.ZERO, 2 * Math.toDegrees(Math.atan(tan)));
        Still still = new Still(b.build(), Sheets.DARK, null, camera, n, n, 1, 400);
        still.render(Quality.samples(128), new Region(0, 0, n, n), 2, PATIENT);
        double lux = 0;
        double[] seen = new double[3];
        for (int i = 0; i < n * n; i++) {
            still.film().mean(i % n, i / n, seen);
            int row = i / n;
            double u = tan * (2 * (i % n + 0.5) / n - 1);
            double v = tan * (2 * (row + 0.5) / n - 1);
            double cos2 = 1 / (1 + u * u + v * v);
            lux += 1000 * seen[1] * cos2 * cos2 * 4 * tan * tan / (n * n);
        }
        double scattered = isPoint ? 1 - Math.exp(-2) : 1; // two mean free paths
        assertThat(lux).isCloseTo(scattered * lumens / (4 * Math.PI), Percentage.withPercentage(100 * tolerance));
    }

    /**
     * The side of a body within one that goes before it is not there: not for those who look for light, nor for what they
     * leave to chance.
     */
    @ParameterizedTest
    @CsvSource({"0", "1"})
    void whatIsWithinABodyThatGoesBeforeItChangesNothing(double scatter) {
        double[] seen = new double[2];
        for (int i = 0; i < 2; i++) {
            Surface glass = CLOUDY.with(Parameter.TRANSMISSION_SCATTER, scatter, scatter, scatter);
            RenderScene.Builder b = new RenderScene.Builder(Kind.SCALAR)
                    .add(Cubes.box(1, 1, 1), Transform.IDENTITY, List.of(glass), 2)
                    .add(Cubes.box(0.2, 0.02, 0.2), Transform.translation(0, -0.2, 0), List.of(Sheets.MATT), 0)
                    .add(Cubes.box(0.4, 0.02, 0.4), Transform.translation(0, 0.3, 0), List.of(Sheets.glowing(5000)), 0);
            if (i == 1) {
                b.add(Cubes.box(0.9, 0.3, 0.9), Transform.IDENTITY, List.of(GLASS), 1);
            }
            seen[i] = Sheets.mean(
                    b.build(), Sheets.DARK, eye(new Vec3(0, -0.1, 0.25), new Vec3(0, -0.19, 0), 10), 8, 8, 256)[1];
        }
        assertThat(seen[1]).isCloseTo(seen[0], within(0.05 * seen[0]));
    }

    /** A translucent body shows the colour it was given, and loses nothing when that is white. */
    @ParameterizedTest
    @CsvSource({"1, 0.006", "0.8, 0.03", "0.3, 0.03"})
    void aTranslucentBodyShowsItsColour(double colour, double tolerance) {
        Surface wax = Surface.STANDARD
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.SUBSURFACE_WEIGHT, 1)
                .with(Parameter.SUBSURFACE_COLOR, colour, colour, colour)
                .with(Parameter.SUBSURFACE_RADIUS, 0.004);
        double[] seen = centre(ball(wax), WHITE, eye(new Vec3(0, 0, 2), Vec3.ZERO, 1), 1024);
        assertThat(seen[1]).isCloseTo(colour, within(tolerance));
    }

    /** Light comes out where it did not go in: a thin translucent plate lit from behind glows, an opaque one does not. */
    @Test
    void lightWandersThroughATranslucentPlate() {
        float[] rgb = new float[3 * 64 * 32];
        for (int i = 3 * 64 * 16; i < rgb.length; i++) {
            rgb[i] = 1;
        }
        Environment below = new Environment(64, 32, rgb, 0, 1);
        Surface wax = Surface.STANDARD
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.SUBSURFACE_WEIGHT, 1)
                .with(Parameter.SUBSURFACE_COLOR, 0.9, 0.9, 0.9)
                .with(Parameter.SUBSURFACE_RADIUS, 0.002);
        double before = 1;
        for (double thickness : new double[] {0.002, 0.006, 0.03}) {
            RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                    .add(Cubes.box(1, thickness, 1), Transform.IDENTITY, List.of(wax))
                    .build();
            double seen = centre(scene, below, eye(new Vec3(0, 3, 0.001), Vec3.ZERO, 1), 512)[0];
            assertThat(seen).isPositive().isLessThan(0.75 * before);
            before = seen;
        }
    }

    @Test
    void anEyeWithinABodySeesThroughItsMedium() {
        Surface tinted = GLASS.with(Parameter.SPECULAR_IOR, 1.0001)
                .with(Parameter.TRANSMISSION_COLOR, 0.5, 0.7, 0.9)
                .with(Parameter.TRANSMISSION_DEPTH, 0.5);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(2, 2, 2), Transform.IDENTITY, List.of(tinted))
                .build();
        double[] seen = centre(scene, WHITE, eye(Vec3.ZERO, new Vec3(0, 0, -1), 1), 64);
        for (int c = 0; c < 3; c++) {
            assertThat(seen[c]).isCloseTo(Math.pow(0.5 + 0.2 * c, 2), within(0.002));
        }
    }

    /** Outside a prism stands a picture whose red says where in it one looks: so the way of one ray can be read off. */
    @ParameterizedTest
    @CsvSource({"1.5168, 64.17", "1.7618, 26.52", "1.33, 55.8"})
    void aPrismFansColoursByItsAbbeNumber(double index, double abbe) {
        TriangleSoup soup = new TriangleSoup();
        Vec3[] low = new Vec3[3];
        Vec3[] high = new Vec3[3];
        for (int i = 0; i < 3; i++) {
            double a = Math.PI / 2 + 2 * Math.PI * i / 3;
            low[i] = new Vec3(Math.cos(a), Math.sin(a), -2);
            high[i] = new Vec3(Math.cos(a), Math.sin(a), 2);
        }
        for (int i = 0; i < 3; i++) {
            int k = (i + 1) % 3;
            soup.quad(low[i], low[k], high[k], high[i]);
        }
        soup.triangle(high[0], high[1], high[2]);
        soup.triangle(low[2], low[1], low[0]);
        int wide = 1 << 15;
        float[] rgb = new float[3 * wide];
        for (int x = 0; x < wide; x++) {
            rgb[3 * x] = (x + 0.5f) / wide;
            rgb[3 * x + 1] = 1;
            rgb[3 * x + 2] = 1;
        }
        Environment ruler = new Environment(wide, 1, rgb, 0, 1);
        // lying down, so that the fan opens in the horizontal plane of the ruler
        Transform flat = Transform.rotation(Vec3.axis(0), -Math.PI / 2);
        Surface prism = GLASS.with(Parameter.SPECULAR_IOR, index)
                .with(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER, abbe)
                .with(Parameter.TRANSMISSION_DISPERSION_SCALE, 1);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(soup.toMesh(0.1), flat, List.of(prism))
                .build();
        double in = Math.asin(index * 0.5); // for least deviation, at the d line
        double turn = in - Math.PI / 6; // the ray comes in this much above the base's direction
        double[] angle = new double[2];
        double[] lines = {486.13, 656.27};
        for (int i = 0; i < 2; i++) {
            Vec3 through = new Vec3(-0.43, 0, -0.25); // the middle of the left face
            Vec3 d = new Vec3(Math.cos(turn), 0, -Math.sin(turn));
            angle[i] = Rays.leaving(scene, ruler, through.minus(d.times(3)), d, lines[i]);
        }
        double expected = deviation(Spectrum.index(index, abbe, 1, lines[0]), in)
                - deviation(Spectrum.index(index, abbe, 1, lines[1]), in);
        assertThat(Math.abs(angle[0] - angle[1])).isCloseTo(expected, within(6e-4));
        assertThat(Math.toDegrees(expected)).isGreaterThan(0.3);
    }

    private static double deviation(double n, double in) {
        double first = Math.asin(Math.sin(in) / n);
        return in + Math.asin(n * Math.sin(Math.PI / 3 - first)) - Math.PI / 3;
    }

    /** needs.md Q28: a tube filled with liquid of the glass's own index looks filled to its rim when r ≥ R/n. */
    @ParameterizedTest
    @CsvSource({"0.70, true", "0.60, false"})
    void aThickTubeLooksFilledToItsRim(double inner, boolean filled) {
        Surface liquid = GLASS.with(Parameter.TRANSMISSION_COLOR, 0, 0, 0)
                .with(Parameter.TRANSMISSION_DEPTH, 1e-6)
                .with(Parameter.SPECULAR_IOR, 1.5);
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(tube(1, 4), Transform.IDENTITY, List.of(GLASS), 1)
                .add(tube(inner, 4), Transform.IDENTITY, List.of(liquid), 2)
                .build();
        // looking at just inside the rim, from far away: 1 is the rim
        Camera camera = new Camera(new Vec3(0.98, 0, 3000), new Vec3(0.98, 0, 0), Vec3.axis(1), 1e-6);
        double seen = centre(scene, WHITE, camera, 256)[1];
        double mirrored = 1; // what the outer face reflects is still white
        assertThat(seen < 0.75 * mirrored).isEqualTo(filled);
    }

    private static Mesh tube(double radius, double length) {
        TriangleSoup soup = new TriangleSoup();
        int n = 720;
        for (int i = 0; i < n; i++) {
            double a = 2 * Math.PI * i / n;
            double b = 2 * Math.PI * (i + 1) / n;
            Vec3 p = new Vec3(radius * Math.cos(a), -length / 2, -radius * Math.sin(a));
            Vec3 q = new Vec3(radius * Math.cos(b), -length / 2, -radius * Math.sin(b));
            Vec3 up = new Vec3(0, length, 0);
            soup.quad(p, q, q.plus(up), p.plus(up));
            soup.triangle(new Vec3(0, -length / 2, 0), q, p);
            soup.triangle(new Vec3(0, length / 2, 0), p.plus(up), q.plus(up));
        }
        return soup.toMesh(0.5);
    }

    /** The same filled vessel as overlapping bodies and as boundary surfaces: mean ΔE2000 under 1. */
    @Test
    void bothWaysOfModellingAFilledVesselLookTheSame() {
        Surface glass = GLASS.with(Parameter.SPECULAR_IOR, 1.52);
        Surface water = GLASS.with(Parameter.SPECULAR_IOR, 1.333)
                .with(Parameter.TRANSMISSION_COLOR, 0.3, 0.6, 0.8)
                .with(Parameter.TRANSMISSION_DEPTH, 0.5);
        RenderScene bodies = new RenderScene.Builder(Kind.SCALAR)
                .add(Cubes.box(1, 1, 1), Transform.IDENTITY, List.of(glass), 1)
                .add(Cubes.box(0.7, 0.7, 0.7), Transform.IDENTITY, List.of(water), 2)
                .build();
        RenderScene boundaries = new RenderScene.Builder(Kind.SCALAR)
                .addDressed(
                        Cubes.box(1, 1, 1),
                        Transform.IDENTITY,
                        List.of(Dress.of(GLASS).between(null, glass)))
                .addDressed(
                        Cubes.box(0.7, 0.7, 0.7),
                        Transform.IDENTITY,
                        List.of(Dress.of(GLASS).between(glass, water)))
                .build();
        Camera camera = eye(new Vec3(1.5, 1.2, 3), Vec3.ZERO, 26);
        List<float[]> pictures = new ArrayList<>();
        int n = 24;
        for (RenderScene scene : List.of(bodies, boundaries)) {
            Still still = new Still(scene, Environment.studio(1), null, camera, n, n, 1, 24);
            still.render(Quality.samples(1024), new Region(0, 0, n, n), 2, PATIENT);
            pictures.add(Development.PLAIN.radiance(still.film(), 0, 0, n, n));
        }
        double sum = 0;
        for (int i = 0; i < n * n; i++) {
            sum += lab(pictures.get(0), i).difference(lab(pictures.get(1), i));
        }
        assertThat(sum / (n * n)).isLessThan(1);
    }

    private static CieLab lab(float[] rgb, int pixel) {
        return CieLab.of(new LinearRgb(rgb[3 * pixel], rgb[3 * pixel + 1], rgb[3 * pixel + 2]).clamped());
    }
}
