package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.DARK;
import static app.zolvan.core.render.Sheets.GLASS;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.PATIENT;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Caustics;
import app.zolvan.core.render.path.Photons;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Light through glass, gathered as photons. */
class CausticsTest {
    /** A glass of next to no index hides a lamp from those who look for it; only photons come through it. */
    private static RenderScene hidden(Lamp lamp, double index) {
        return hidden(lamp, GLASS.with(Parameter.SPECULAR_IOR, index));
    }

    private static RenderScene hidden(Lamp lamp, Surface glass) {
        return new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(Cubes.box(2, 0.01, 2), Transform.translation(0, 0.3, 0), List.of(glass))
                .lamp(lamp)
                .build();
    }

    private static double lux(Still still, int n) {
        double[] out = new double[3];
        double sum = 0;
        for (int i = 0; i < n * n; i++) {
            still.film().mean(i % n, i / n, out);
            sum += out[1] / (n * n);
        }
        return sum * 1000 * Math.PI / 0.5;
    }

    private static Still view(RenderScene scene, int n) {
        return new Still(scene, DARK, null, Sheets.eye(new Vec3(0.3, 0.2, 0), Vec3.ZERO, 30), n, n, 3, 24);
    }

    /** needs.md Q36: how widely photons are gathered does not change how much light there is. */
    @ParameterizedTest
    @ValueSource(doubles = {0.02, 0.05})
    void theRadiusChangesSoftnessNotTheAmount(double radius) {
        RenderScene scene = hidden(new Lamp.Sun(Vec3.axis(1), 0.00465, LinearRgb.grey(10_000), 0), 1.0001);
        Still still = view(scene, 8).with(new Caustics(150_000, radius, 1));
        still.render(Quality.samples(4), new Region(0, 0, 8, 8), 2, PATIENT);
        assertThat(lux(still, 8)).isCloseTo(10_000, within(150.0));
    }

    @Test
    void photonsCarryTheLampsFluxLessWhatTheGlassMirrors() {
        Lamp bulb = Lamp.Point.ofFlux(new Vec3(0, 2, 0), 1000, LinearRgb.WHITE, 0);
        Still still = view(hidden(bulb, 1.0001), 4).with(new Caustics(200_000, 0.05, 1));
        Photons photons = still.photons(4, 2);
        double half = 1 / Math.hypot(1, 2 - 0.305); // solid angle of a square from above its middle, of side 2
        double share = 4 * Math.asin(half * half) / (4 * Math.PI);
        assertThat(photons.flux()).isCloseTo(1000 * share, within(0.02 * 1000 * share));
        assertThat(photons.count()).isGreaterThan(20_000);
    }

    /** A glowing panel sends its light out as well, and is not met by it. */
    @Test
    void aPanelsPhotonsCarryItsFlux() {
        double nits = 5000;
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(
                        Cubes.box(2, 0.01, 2),
                        Transform.translation(0, 0.3, 0),
                        List.of(GLASS.with(Parameter.SPECULAR_IOR, 1.0001)))
                .add(sheet(0.05, 2, false), Transform.IDENTITY, List.of(Sheets.glowing(nits)))
                .build();
        Photons photons = view(scene, 4).with(new Caustics(200_000, 0.05, 1)).photons(4, 2);
        // L times area times the projected solid angle of the plate, π times the form factor from a small patch (Howell
        // B-4)
        double h = 2 - 0.305;
        double x = 1 / h;
        double s = Math.sqrt(1 + x * x);
        double factor = 4 / (2 * Math.PI) * 2 * (x / s) * Math.atan(x / s);
        assertThat(photons.flux())
                .isCloseTo(nits * 0.01 * Math.PI * factor, within(0.03 * nits * 0.01 * Math.PI * factor));
    }

    private static final Surface BRASS =
            Surface.STANDARD.with(Parameter.BASE_METALNESS, 1).with(Parameter.BASE_COLOR, 0.887, 0.71, 0.42);

    /** Two plates of metal facing each other across the floor, one so low that the lamp shines over it at the other. */
    private static RenderScene between(Lamp lamp, double roughness) {
        Surface metal = BRASS.with(Parameter.SPECULAR_ROUGHNESS, roughness);
        return new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(50, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(Cubes.box(0.02, 1, 1), Transform.translation(0.35, 0.5, 0), List.of(metal))
                .add(Cubes.box(0.02, 0.15, 1), Transform.translation(-0.35, 0.075, 0), List.of(metal))
                .lamp(lamp)
                .build();
    }

    /**
     * Without photons the same light is found by chance when the lamp has a size; the two must agree, whether mirrors and
     * lenses are smooth or merely polished, and where what is mirrored is mirrored again.
     */
    @ParameterizedTest
    @CsvSource({"true, 0", "true, 0.2", "false, 0", "false, 0.25"})
    void photonsAndPathsFindTheSameLight(boolean through, double roughness) {
        Vec3 from = (through ? new Vec3(0.3, 1, 0.2) : new Vec3(-0.8, 1, 0.1)).normalised();
        Lamp wide = new Lamp.Sun(from, 0.5, LinearRgb.grey(10_000), 0);
        RenderScene scene =
                through ? hidden(wide, GLASS.with(Parameter.SPECULAR_ROUGHNESS, roughness)) : between(wide, roughness);
        Still paths = view(scene, 8);
        paths.render(Quality.samples(1024), new Region(0, 0, 8, 8), 2, PATIENT);
        Still photons = view(scene, 8).with(new Caustics(100_000, 0.05, 1));
        photons.render(Quality.samples(16), new Region(0, 0, 8, 8), 2, PATIENT);
        double expected = lux(paths, 8);
        assertThat(lux(photons, 8)).isCloseTo(expected, within(0.03 * expected));
        assertThat(photons.photons(4, 2).count()).isGreaterThan(5_000);
    }
}
