package app.zolvan.core.render.scene;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.Cubes;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.render.trace.Ray;
import java.util.List;
import java.util.Random;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** What a ray sees of a part that has aged, or glitters, is what is known of the place that it meets. */
class AgedSceneTest {
    private static final Surface ENAMEL = Surface.STANDARD
            .with(Parameter.BASE_COLOR, 0.05, 0.2, 0.3)
            .with(Parameter.SPECULAR_ROUGHNESS, 0.2)
            .with(Parameter.COAT_WEIGHT, 1)
            .with(Parameter.AGE_WEATHERING, 0.5)
            .with(Parameter.AGE_GROWTH, 0.6)
            .with(Parameter.AGE_WEAR, 0.4)
            .with(Parameter.AGE_DUST, 0.3);
    private static final Surface GLITTERING = Surface.STANDARD
            .with(Parameter.BASE_METALNESS, 1)
            .with(Parameter.SPECULAR_ROUGHNESS, 0.45)
            .with(Parameter.FLAKE_WEIGHT, 1)
            .with(Parameter.FLAKE_SIZE, 0.01);
    /** 2 × 1 × 0.5, mirrored and turned. */
    private static final Mesh BLOCK = Cubes.box(2, 1, 0.5);

    private static final Transform PLACE = Transform.translation(3, 1, -2)
            .after(Transform.rotation(Vec3.axis(1), 0.7))
            .after(Transform.scale(-1, 1, 1));
    private final Random random = new Random(11);
    private final Hit hit = new Hit();

    /** @param often how many stand there: one is laid together with others, several are placed */
    private static RenderScene scene(int often, Dress dress) {
        RenderScene.Builder b = new RenderScene.Builder(Kernel.Kind.SCALAR)
                .add(Cubes.box(1, 1, 1), Transform.translation(20, 0, 0), List.of(Surface.STANDARD));
        for (int i = 0; i < often; i++) {
            b.addDressed(BLOCK, Transform.translation(0, 10 * i, 0).after(PLACE), List.of(dress));
        }
        return b.build();
    }

    /** Has a ray meet a place on one triangle straight on, and says which place on which triangle. */
    private double[] meet(RenderScene scene, int triangle) {
        double root = Math.sqrt(random.nextDouble());
        double b1 = root * (1 - random.nextDouble());
        double b2 = root - b1;
        Vec3[] c = new Vec3[3];
        for (int k = 0; k < 3; k++) {
            int v = 3 * BLOCK.indices()[3 * triangle + k];
            float[] p = BLOCK.positions();
            c[k] = PLACE.point(new Vec3(p[v], p[v + 1], p[v + 2]));
        }
        Vec3 at = c[0].plus(c[1].minus(c[0]).times(b1)).plus(c[2].minus(c[0]).times(b2));
        Vec3 out = c[1].minus(c[0]).cross(c[2].minus(c[0])).normalised().times(-1); // mirrored
        Vec3 from = at.plus(out);
        Ray ray = new Ray();
        ray.set(from.x(), from.y(), from.z(), -out.x(), -out.y(), -out.z(), 0, 10);
        assertThat(scene.closest(ray, hit)).isTrue();
        scene.dress(hit, 1e-4);
        assertThat(hit.distance).isCloseTo(1, within(1e-5));
        return new double[] {1 - b1 - b2, b1, b2};
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2})
    void aRaySeesTheAgeOfThePlaceItMeets(int often) {
        Atlas atlas = Atlas.of(BLOCK, PLACE, 2000);
        byte[] resistances = new byte[4 * atlas.width() * atlas.height()];
        random.nextBytes(resistances);
        AgeFields fields = new AgeFields(atlas, resistances);
        RenderScene scene = scene(often, Dress.of(ENAMEL).aged(fields));
        LinearRgb fresh = ENAMEL.colour(Parameter.BASE_COLOR);
        double[] four = new double[4];
        for (int i = 0; i < 600; i++) {
            int triangle = i % BLOCK.triangleCount();
            double[] w = meet(scene, triangle);
            double u = 0;
            double v = 0;
            for (int k = 0; k < 3; k++) {
                u += w[k] * atlas.uv()[6 * triangle + 2 * k];
                v += w[k] * atlas.uv()[6 * triangle + 2 * k + 1];
            }
            fields.at(u, v, four);
            Ageing.Laid laid = Ageing.Laid.over(Ageing.of(ENAMEL), four, fresh, 0.2, 0);
            SurfaceValues seen = hit.surface;
            // 1e-3: a ray's floats move the place by 1e-6 of the atlas, and the fields are noise from texel to texel
            assertThat(seen.baseG).isCloseTo(laid.colour().g(), within(1e-3));
            assertThat(seen.roughness).isCloseTo(laid.roughness(), within(1e-3));
            assertThat(seen.coat).isCloseTo(laid.bare(), within(1e-3));
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {1, 2})
    void aRaySeesTheFlakeItMeets(int often) {
        RenderScene scene = scene(often, Dress.of(GLITTERING));
        SurfaceValues flake = new SurfaceValues();
        for (int i = 0; i < 200; i++) {
            meet(scene, i % BLOCK.triangleCount());
            flake.copy(SurfaceValues.of(GLITTERING));
            Flakes.lay(flake, hit.x, hit.y, hit.z, 1e-4);
            assertThat(hit.surface.tiltX).isNotZero().isEqualTo(flake.tiltX);
            assertThat(hit.surface.roughness).isLessThan(0.4).isEqualTo(flake.roughness);
        }
    }
}
