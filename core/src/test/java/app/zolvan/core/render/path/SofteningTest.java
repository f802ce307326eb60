package app.zolvan.core.render.path;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

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
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.trace.Kernel.Kind;
import java.util.List;
import org.junit.jupiter.api.Test;

class SofteningTest {
    private static final int N = 60_000;
    private static final double BALL = 0.3;

    /** A polished ball on a matt floor in the sun. */
    private static RenderScene ball() {
        Mesh floor = new TriangleSoup()
                .quad(new Vec3(-9, 0, 9), new Vec3(9, 0, 9), new Vec3(9, 0, -9), new Vec3(-9, 0, -9))
                .toMesh(0.1);
        Surface matt = Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5);
        Surface brass = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.15)
                .with(Parameter.BASE_COLOR, 0.9, 0.9, 0.9);
        return new RenderScene.Builder(Kind.SCALAR)
                .add(floor, Transform.IDENTITY, List.of(matt))
                .add(AreaLamp.sphere(BALL), Transform.translation(0, BALL, 0), List.of(brass))
                .lamp(new Lamp.Sun(new Vec3(1, 1, 0).normalised(), 0.05, LinearRgb.grey(10_000), 0))
                .build();
    }

    /** What is seen of the floor a little before the ball, from above: the mean, and the mean square. */
    private static double[] floor(double softening) {
        Vec3 eye = new Vec3(0.55, 2, 0.1);
        PathTracer tracer = new PathTracer(ball(), Environment.uniform(0, 0, 0), eye, null, 8);
        Sampler random = new Sampler();
        double mean = 0;
        double square = 0;
        for (int i = 0; i < N; i++) {
            random.start(i, 0, 0, 5);
            tracer.soften(softening);
            tracer.trace(eye, 0, -1, 0, 1e-3, random);
            mean += tracer.sum[1] / N;
            square += tracer.sum[1] * tracer.sum[1] / N;
        }
        return new double[] {mean, square - mean * mean};
    }

    /** Softened, the ball's light on the floor comes in many faint finds rather than in a few sparks: as much of it. */
    @Test
    void sparksBecomeFaintWithoutLightBeingLost() {
        double[] sharp = floor(0);
        double[] soft = floor(0.3);
        assertThat(soft[1]).isLessThan(sharp[1] / 4);
        assertThat(soft[0]).isCloseTo(sharp[0], within(0.03 * sharp[0] + 3 * Math.sqrt(sharp[1] / N)));
    }
}
