package app.zolvan.core.render.chip;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.BoxProjection;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Digest;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.trace.Kernel;
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
    private static final Mesh TILE = BoxProjection.apply(tile(), new Vec3(1, 1, 1));
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
        Camera camera = new Camera(
                new Vec3(0.118, 0.182, 0.255), new Vec3(0.010, -0.020, 0.000), Vec3.axis(1), Math.toRadians(25));
        List<Dress> dress = List.of(Dress.of(surface).metric(true).aged(age(surface)));
        return new Booth(FOOT, 1)
                .picture(
                        TILE,
                        Transform.IDENTITY,
                        dress,
                        images,
                        camera,
                        WIDTH,
                        HEIGHT,
                        threads,
                        kind,
                        quality,
                        () -> true);
    }

    /** How readily the tile ages; worked out once for each weathering, where something has aged. */
    private static AgeFields age(Surface surface) {
        Ageing ageing = Ageing.of(surface);
        return ageing.isNone()
                ? null
                : AGES.computeIfAbsent(ageing.corrodes(), corrodes -> Booth.age(TILE, THICK, FOOT, corrodes));
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
}
