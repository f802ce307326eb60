package app.zolvan.core.render;

import static app.zolvan.core.render.Sheets.GLASS;
import static app.zolvan.core.render.Sheets.MATT;
import static app.zolvan.core.render.Sheets.sheet;
import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.Cubes;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.render.path.PathTracer;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.trace.Kernel.Kind;
import com.sun.management.ThreadMXBean;
import java.lang.management.ManagementFactory;
import java.util.List;
import org.junit.jupiter.api.Test;

class AllocationTest {
    private static final int PATHS = 60_000;

    /** Following a path leaves nothing behind for the collector: less than a byte a path, of some ten rays each. */
    @Test
    void aPathAllocatesNothing() {
        RenderScene scene = new RenderScene.Builder(Kind.SCALAR)
                .add(sheet(5, 0, true), Transform.IDENTITY, List.of(MATT))
                .add(Cubes.box(1, 1, 1), Transform.translation(0, 0.51, 0), List.of(GLASS))
                .lamp(new Lamp.Sun(Vec3.axis(1), 0.00465, LinearRgb.grey(10_000), 0))
                .lamp(Lamp.Point.ofFlux(new Vec3(1, 2, 0), 800, LinearRgb.WHITE, 0))
                .build();
        PathTracer tracer = new PathTracer(scene, Environment.studio(1), null, null, 16);
        Sampler random = new Sampler();
        ThreadMXBean threads = (ThreadMXBean) ManagementFactory.getThreadMXBean();
        long bytes = Long.MAX_VALUE;
        for (int round = 0; round < 3; round++) { // the first rounds warm it up
            long before = threads.getThreadAllocatedBytes(Thread.currentThread().getId());
            follow(tracer, random);
            bytes = threads.getThreadAllocatedBytes(Thread.currentThread().getId()) - before;
        }
        assertThat((double) bytes / PATHS).isLessThan(1);
    }

    private static void follow(PathTracer tracer, Sampler random) {
        Vec3 eye = new Vec3(0, 2, 4);
        for (int i = 0; i < PATHS; i++) {
            random.start(i & 255, i >> 8, 0, 1);
            double x = ((i & 255) - 128) / 500.0;
            double y = -0.35 + (i >> 8) / 1500.0;
            double l = 1 / Math.sqrt(x * x + y * y + 1);
            tracer.trace(eye, x * l, y * l, -l, 1e-3, random);
        }
    }
}
