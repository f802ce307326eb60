package app.zolvan.core.render.chip;

import app.zolvan.core.ageing.AgeBake;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.texture.Png;
import java.util.Arrays;
import java.util.List;
import java.util.function.BooleanSupplier;
import java.util.function.Function;

/**
 * Where samples are looked at: even grey walls, bright strips that tell how sharp a surface reflects, and a table of dark bars
 * that tell what is seen through it.
 */
final class Booth {
    private static final int BOUNCES = 16;
    private static final int DPI = 96;
    private static final double[] BACKDROP = {0.36, 0.35, 0.335};
    /** The table lies this far below what stands on it, in metres, so that the two don't touch. */
    private static final double BELOW = 0.0005;

    private final Mesh table;

    /**
     * @param foot  the height of what stands on the table, in metres
     * @param scale 1 for bars 12 mm wide
     */
    Booth(double foot, double scale) {
        table = bars(foot - BELOW * scale, scale);
    }

    /**
     * Traces a picture of a form, the same each time.
     *
     * @param images bytes of the surfaces' images by digest
     * @param goOn   asked now and then; false ends the work
     * @return a PNG; null where the work was ended
     */
    byte[] picture(
            Mesh form,
            Transform toWorld,
            List<Dress> dress,
            Function<String, byte[]> images,
            Camera camera,
            int width,
            int height,
            int threads,
            Kernel.Kind kind,
            Quality quality,
            BooleanSupplier goOn) {
        Surface grey =
                Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.36, 0.35, 0.335);
        Surface dark = grey.with(Parameter.BASE_COLOR, 0.09, 0.088, 0.084);
        RenderScene scene = new RenderScene.Builder(kind, new Textures(images, Textures.BUDGET))
                .addDressed(form, toWorld, dress)
                .add(table, Transform.IDENTITY, List.of(dark, grey))
                .build();
        Still still = new Still(scene, walls(), BACKDROP, camera, width, height, 1, BOUNCES);
        still.render(quality, new Region(0, 0, width, height), threads, (share, samples) -> goOn.getAsBoolean());
        if (!goOn.getAsBoolean()) {
            return null;
        }
        Development development = Development.PLAIN.denoised(true);
        float[] radiance = development.radiance(still.film(), 0, 0, width, height);
        return Png.encode(width, height, development.bytes(radiance), DPI);
    }

    /** How readily a form ages where it stands alone. */
    static AgeFields age(Mesh form, double thickness, double foot, boolean corrodes) {
        RenderScene scene = new RenderScene.Builder(Kernel.Kind.SCALAR)
                .add(form, Transform.IDENTITY, List.of(Surface.STANDARD))
                .build();
        return AgeBake.of(form, Transform.IDENTITY, thickness, foot, corrodes, () -> new SceneSight(scene));
    }

    /** Even grey walls, a broad light above, and two strips across that glossy samples mirror. */
    private static Environment walls() {
        return Environment.painted(
                (up, around) -> { // 0.25 lies behind the tile, 0.75 behind the eye
                    double v = 0.38 + (up > 0 ? 0.12 * up : 0.2 * up);
                    boolean behind = around > 0.14 && around < 0.36;
                    v += behind && up > 0.52 && up < 0.60 ? 7 : 0;
                    v += behind && up > 0.70 && up < 0.73 ? 7 : 0;
                    v += up > 0.86 ? 1.5 : 0;
                    v += around > 0.9 && around < 0.97 && Math.abs(up - 0.25) < 0.35 ? 4.5 : 0;
                    v += around > 0.6 && around < 0.66 && up > 0.1 && up < 0.7 ? 2.5 : 0;
                    return v;
                },
                0.95);
    }

    /** The table under the form: dark bars on grey. */
    private static Mesh bars(double y, double scale) {
        TriangleSoup dark = new TriangleSoup();
        TriangleSoup light = new TriangleSoup();
        double wide = 0.012 * scale;
        for (int i = -40; i < 40; i++) {
            (i % 2 == 0 ? dark : light)
                    .quad(
                            new Vec3(i * wide, y, scale),
                            new Vec3((i + 1) * wide, y, scale),
                            new Vec3((i + 1) * wide, y, -1.5 * scale),
                            new Vec3(i * wide, y, -1.5 * scale));
        }
        Mesh a = dark.toMesh(0.1);
        Mesh b = light.toMesh(0.1);
        int vertices = a.vertexCount();
        float[] p = Arrays.copyOf(a.positions(), a.positions().length + b.positions().length);
        System.arraycopy(b.positions(), 0, p, a.positions().length, b.positions().length);
        float[] n = Arrays.copyOf(a.normals(), p.length);
        System.arraycopy(b.normals(), 0, n, a.normals().length, b.normals().length);
        int[] t = Arrays.copyOf(a.indices(), a.indices().length + b.indices().length);
        for (int i = 0; i < b.indices().length; i++) {
            t[a.indices().length + i] = vertices + b.indices()[i];
        }
        int[] spans = {0, a.triangleCount(), t.length / 3};
        return new Mesh(p, n, null, null, t, spans, null);
    }
}
