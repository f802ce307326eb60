package app.zolvan.core.render;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.render.path.PathTracer;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Spectrum;
import java.util.Arrays;

/** Single rays, followed until they leave a scene. */
final class Rays {
    private Rays() {}

    /**
     * Where a ray of one wavelength leaves to, as the ruler around the scene tells: its red grows with the angle, its green
     * is 1. Of many tries the middle one counts; few are mirrored instead of passing.
     *
     * @return angle in radians
     */
    static double leaving(RenderScene scene, Environment ruler, Vec3 from, Vec3 direction, double nm) {
        PathTracer tracer = new PathTracer(scene, ruler, null, null, 24).only(nm);
        Sampler random = new Sampler();
        double[] weight = new double[3];
        Spectrum.weight(nm, weight);
        double[] angles = new double[101];
        for (int i = 0; i < angles.length; i++) {
            random.start(0, 0, i, 7);
            tracer.trace(from, direction.x(), direction.y(), direction.z(), 0, random);
            int sky = 3 * scene.surroundings();
            angles[i] = 2 * Math.PI * (tracer.sum[sky] / weight[0]) / (tracer.sum[sky + 1] / weight[1]);
        }
        Arrays.sort(angles);
        return angles[50];
    }
}
