package app.zolvan.core.render.chip;

import app.zolvan.core.ageing.AgeBake;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.mapping.BoxProjection;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Digest;
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
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Function;

/**
 * The picture of a sample: a tile that lies flat, rolls over its front edge and shows its cut side, over dark and light
 * bars that tell what is seen through it, under a neutral studio with bright strips that tell how sharp it reflects.
 */
public final class Chip {
    public static final int WIDTH = 184;
    public static final int HEIGHT = 156;
    /** Raised when form, light or tracing change, so that kept pictures are made anew. */
    private static final int EDITION = 2;

    private static final double HALF = 0.062;
    private static final double BACK = -0.14;
    private static final double EDGE = 0.026;
    private static final double RADIUS = 0.02;
    private static final double THICK = 0.009;
    private static final double FOOT = -0.05;
    private static final int ROUND = 24;
    private static final Quality GOOD = new Quality(0.01, 96);
    private static final int BOUNCES = 16;
    private static final int DPI = 96;
    private static final double[] BACKDROP = {0.36, 0.35, 0.335};
    private static final Mesh TILE = BoxProjection.apply(tile(), new Vec3(1, 1, 1));
    private static final Mesh BARS = bars();
    private static final Map<Boolean, AgeFields> AGES = new ConcurrentHashMap<>();

    private Chip() {}

    /** What the picture depends on, as 64 hexadecimal digits; the same for looks that give the same picture. */
    public static String key(Surface surface) {
        byte[] json = JsonText.utf8(MaterialJson.write(surface));
        byte[] all = Arrays.copyOf(json, json.length + 1);
        all[json.length] = EDITION;
        return Digest.of(all);
    }

    /** The picture that ships with a look of the library; empty for any other. */
    public static Optional<byte[]> shipped(String key) {
        try (InputStream in = Chip.class.getResourceAsStream(key + ".png")) {
            return in == null ? Optional.empty() : Optional.of(in.readAllBytes());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * Traces the picture, the same each time.
     *
     * @param images bytes of the surface's images by digest
     * @return a PNG of {@link #WIDTH} × {@link #HEIGHT} pixels
     */
    public static byte[] picture(Surface surface, Function<String, byte[]> images, int threads, Kernel.Kind kind) {
        return picture(surface, images, threads, kind, GOOD);
    }

    /** The same, as good as wanted. */
    public static byte[] picture(
            Surface surface, Function<String, byte[]> images, int threads, Kernel.Kind kind, Quality quality) {
        Surface grey =
                Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.36, 0.35, 0.335);
        Surface dark = grey.with(Parameter.BASE_COLOR, 0.09, 0.088, 0.084);
        RenderScene scene = new RenderScene.Builder(kind, new Textures(images, Textures.BUDGET))
                .addDressed(
                        TILE,
                        Transform.IDENTITY,
                        List.of(Dress.of(surface).metric(true).aged(age(surface))))
                .add(BARS, Transform.IDENTITY, List.of(dark, grey))
                .build();
        Camera camera = new Camera(
                new Vec3(0.118, 0.182, 0.255), new Vec3(0.010, -0.020, 0.000), Vec3.axis(1), Math.toRadians(25));
        Still still = new Still(scene, booth(), BACKDROP, camera, WIDTH, HEIGHT, 1, BOUNCES);
        Region all = new Region(0, 0, WIDTH, HEIGHT);
        still.render(quality, all, threads, (share, samples) -> true);
        Development development = Development.PLAIN.denoised(true);
        float[] radiance = development.radiance(still.film(), 0, 0, WIDTH, HEIGHT);
        return Png.encode(WIDTH, HEIGHT, development.bytes(radiance), DPI);
    }

    /** How readily the tile ages; worked out once for each weathering, where something has aged. */
    private static AgeFields age(Surface surface) {
        Ageing ageing = Ageing.of(surface);
        return ageing.isNone() ? null : AGES.computeIfAbsent(ageing.corrodes(), Chip::age);
    }

    private static AgeFields age(boolean corrodes) {
        RenderScene scene = new RenderScene.Builder(Kernel.Kind.SCALAR)
                .add(TILE, Transform.IDENTITY, List.of(Surface.STANDARD))
                .build();
        return AgeBake.of(TILE, Transform.IDENTITY, THICK, FOOT, corrodes, () -> new SceneSight(scene));
    }

    /** A viewing booth: even grey walls, a broad light above, and two strips across that glossy samples mirror. */
    private static Environment booth() {
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

    /** The form that samples are shown on: a closed body, its profile in z and y drawn along x. */
    public static Mesh tile() {
        List<double[]> outer = new ArrayList<>();
        List<double[]> inner = new ArrayList<>();
        outer.add(new double[] {BACK, 0});
        inner.add(new double[] {BACK, -THICK});
        for (int i = 0; i <= ROUND; i++) {
            double a = Math.PI / 2 * i / ROUND;
            outer.add(new double[] {EDGE + RADIUS * StrictMath.sin(a), RADIUS * StrictMath.cos(a) - RADIUS});
            double r = RADIUS - THICK;
            inner.add(new double[] {EDGE + r * StrictMath.sin(a), r * StrictMath.cos(a) - RADIUS});
        }
        outer.add(new double[] {EDGE + RADIUS, FOOT});
        inner.add(new double[] {EDGE + RADIUS - THICK, FOOT});
        TriangleSoup soup = new TriangleSoup();
        int n = outer.size();
        for (int i = 0; i + 1 < n; i++) {
            soup.quad(at(-HALF, outer, i), at(-HALF, outer, i + 1), at(HALF, outer, i + 1), at(HALF, outer, i));
            soup.quad(at(HALF, inner, i), at(HALF, inner, i + 1), at(-HALF, inner, i + 1), at(-HALF, inner, i));
            soup.quad(at(HALF, outer, i), at(HALF, outer, i + 1), at(HALF, inner, i + 1), at(HALF, inner, i));
            soup.quad(at(-HALF, inner, i), at(-HALF, inner, i + 1), at(-HALF, outer, i + 1), at(-HALF, outer, i));
        }
        soup.quad(at(-HALF, inner, 0), at(-HALF, outer, 0), at(HALF, outer, 0), at(HALF, inner, 0));
        soup.quad(at(-HALF, outer, n - 1), at(-HALF, inner, n - 1), at(HALF, inner, n - 1), at(HALF, outer, n - 1));
        return soup.toMesh(Math.toRadians(30));
    }

    private static Vec3 at(double x, List<double[]> profile, int i) {
        return new Vec3(x, profile.get(i)[1], profile.get(i)[0]);
    }

    /** The table under the tile: dark bars on grey. */
    private static Mesh bars() {
        TriangleSoup dark = new TriangleSoup();
        TriangleSoup light = new TriangleSoup();
        double y = FOOT - 0.0005;
        for (int i = -40; i < 40; i++) {
            (i % 2 == 0 ? dark : light)
                    .quad(
                            new Vec3(i * 0.012, y, 1),
                            new Vec3((i + 1) * 0.012, y, 1),
                            new Vec3((i + 1) * 0.012, y, -1.5),
                            new Vec3(i * 0.012, y, -1.5));
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
