package app.zolvan.core.render;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;

/** What small test pictures are made of. */
final class Sheets {
    static final Surface MATT =
            Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5);
    static final Surface GLASS =
            Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, 0);
    static final Still.Watcher PATIENT = (share, samples) -> true;
    static final Environment DARK = Environment.uniform(0, 0, 0);

    private Sheets() {}

    /** A rectangle in the x, z plane at a height, looking up or down; u along x and v along z from 0 to 1. */
    static Mesh sheet(double half, double y, boolean up) {
        float h = (float) half;
        float[] p = {-h, (float) y, -h, h, (float) y, -h, h, (float) y, h, -h, (float) y, h};
        float ny = up ? 1 : -1;
        float[] n = {0, ny, 0, 0, ny, 0, 0, ny, 0, 0, ny, 0};
        float[] uv = {0, 0, 1, 0, 1, 1, 0, 1};
        int[] index = up ? new int[] {0, 2, 1, 0, 3, 2} : new int[] {0, 1, 2, 0, 2, 3};
        return new Mesh(p, n, uv, null, index, new int[] {0, 2}, null);
    }

    static Surface glowing(double nits) {
        return Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.EMISSION_LUMINANCE, nits);
    }

    static Camera eye(Vec3 at, Vec3 target, double degrees) {
        return new Camera(at, target, Vec3.axis(1), Math.toRadians(degrees));
    }

    /** Mean radiance of a small picture. */
    static double[] mean(RenderScene scene, Environment sky, Camera camera, int width, int height, int samples) {
        Still still = new Still(scene, sky, null, camera, width, height, 1, 24);
        still.render(Quality.samples(samples), new Region(0, 0, width, height), 2, PATIENT);
        double[] out = new double[3];
        double[] sum = new double[3];
        for (int i = 0; i < width * height; i++) {
            still.film().mean(i % width, i / width, out);
            for (int c = 0; c < 3; c++) {
                sum[c] += out[c] / (width * height);
            }
        }
        return sum;
    }

    static double[] centre(RenderScene scene, Environment sky, Camera camera, int samples) {
        return mean(scene, sky, camera, 5, 5, samples);
    }
}
