package app.zolvan.bench;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Solids;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.AreaLamp;
import app.zolvan.core.light.Blackbody;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.film.Development.Curve;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Caustics;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.texture.Png;
import com.sun.management.OperatingSystemMXBean;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.lang.management.ManagementFactory;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.function.Supplier;
import javax.imageio.ImageIO;

/** Small scenes that show what the tracer does, to be looked at: a picture and its figures each. */
public final class EyeScenes {
    private static final int THREADS = Runtime.getRuntime().availableProcessors();
    private static final Surface MATT =
            Surface.STANDARD.with(Parameter.SPECULAR_WEIGHT, 0).with(Parameter.BASE_COLOR, 0.55, 0.54, 0.52);
    private static final Surface GLASS =
            Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, 0);

    /** A scene, how it is lit and looked at, and how good the picture is to be. */
    private record View(
            RenderScene.Builder scene,
            Environment sky,
            Camera camera,
            Caustics caustics,
            double stops,
            double kelvin) {}

    private EyeScenes() {}

    /**
     * @param args a folder; samples a pixel, proof or review, and {@code /N} to measure on one block in N, or
     *             {@code against/N} for how far pictures, smoothed or not, are from one of N samples; WIDTHxHEIGHT; then the
     *             scenes wanted, all when none is named, of which there will be one sheet, too
     */
    public static void main(String[] args) throws IOException {
        Map<String, Supplier<View>> all = new LinkedHashMap<>();
        all.put("room", EyeScenes::room);
        all.put("slabs", EyeScenes::slabs);
        all.put("prism", EyeScenes::prism);
        all.put("vessels", EyeScenes::vessels);
        all.put("caustic", EyeScenes::caustic);
        all.put("metals", EyeScenes::metals);
        all.put("cloth", EyeScenes::cloth);
        all.put("angles", EyeScenes::angles);
        Path folder = Path.of(args[0]);
        Files.createDirectories(folder);
        String[] wish = args[1].split("/", 2);
        Quality quality = switch (wish[0]) {
            case "proof" -> Quality.PROOF;
            case "review" -> Quality.REVIEW;
            case "against" -> Quality.samples(Integer.parseInt(wish[1]));
            default -> Quality.samples(Integer.parseInt(wish[0]));
        };
        String[] size = args[2].split("x", 2);
        Region whole = new Region(0, 0, Integer.parseInt(size[0]), Integer.parseInt(size[1]));
        List<String> wanted = List.of(args).subList(3, args.length);
        List<BufferedImage> made = new ArrayList<>();
        for (Map.Entry<String, Supplier<View>> e : all.entrySet()) {
            if (wanted.isEmpty() || wanted.contains(e.getKey())) {
                View view = e.getValue().get();
                if (wish[0].equals("against")) {
                    against(e.getKey(), view, quality, whole);
                } else if (wish.length > 1) {
                    part(e.getKey(), view, quality, whole, Integer.parseInt(wish[1]));
                } else {
                    made.add(picture(e.getKey(), view, quality, whole, folder));
                }
            }
        }
        if (made.size() > 1) {
            ImageIO.write(sheet(made), "png", folder.resolve("sheet.png").toFile());
        }
    }

    /** Two beside each other, and the next two below. */
    private static BufferedImage sheet(List<BufferedImage> pictures) {
        int w = pictures.get(0).getWidth();
        int h = pictures.get(0).getHeight();
        BufferedImage sheet = new BufferedImage(2 * w, (pictures.size() + 1) / 2 * h, BufferedImage.TYPE_INT_RGB);
        Graphics2D pen = sheet.createGraphics();
        for (int i = 0; i < pictures.size(); i++) {
            pen.drawImage(pictures.get(i), i % 2 * w, i / 2 * h, null);
        }
        pen.dispose();
        return sheet;
    }

    private static Still still(View v, Region r) {
        return still(v, r, 1);
    }

    private static Still still(View v, Region r, long seed) {
        Still still = new Still(v.scene.build(), v.sky, null, v.camera, r.width(), r.height(), seed, 32).guided();
        return v.caustics == null ? still : still.with(v.caustics);
    }

    /** Seconds to the first, coarse picture of the whole. */
    private static double first(View v, Region r) {
        long start = System.nanoTime();
        still(v, r).render(Quality.samples(1), r, THREADS, (share, n) -> false);
        return (System.nanoTime() - start) / 1e9;
    }

    /** Prints the error of pixels as shown, with ever more samples, before smoothing and after. */
    private static void against(String name, View v, Quality quality, Region r) {
        Still right = still(v, r, 2);
        right.render(quality, r, THREADS, (share, n) -> true);
        float[] truth = Development.PLAIN.radiance(right.film(), 0, 0, r.width(), r.height());
        Still still = still(v, r);
        still.render(Quality.samples(quality.most() / 4), r, THREADS, (share, n) -> {
            if (n > 0) {
                double[] errors = new double[2];
                for (int smooth = 0; smooth < 2; smooth++) {
                    Development d = Development.PLAIN.denoised(smooth == 1);
                    errors[smooth] = apart(truth, d.radiance(still.film(), 0, 0, r.width(), r.height()));
                }
                System.out.printf(
                        Locale.ROOT, "%-8s %4d samples: error %.4f, smoothed %.4f%n", name, n, errors[0], errors[1]);
            }
            return true;
        });
    }

    private static double apart(float[] one, float[] other) {
        double sum = 0;
        for (int i = 0; i < one.length; i += 3) {
            double d = Film.shown(one[i], one[i + 1], one[i + 2]) - Film.shown(other[i], other[i + 1], other[i + 2]);
            sum += d * d;
        }
        return Math.sqrt(3 * sum / one.length);
    }

    /** @return the smoothed one */
    private static BufferedImage picture(String name, View v, Quality quality, Region r, Path folder)
            throws IOException {
        double cold = first(v, r);
        first(v, r);
        double warm = first(v, r);
        long start = System.nanoTime();
        Still still = still(v, r);
        int[] most = {0};
        still.render(quality, r, THREADS, (share, n) -> {
            most[0] = n;
            return true;
        });
        double seconds = (System.nanoTime() - start) / 1e9;
        System.out.printf(
                Locale.ROOT,
                "%-8s first %.2f s cold, %.2f s warm; %d samples at most in %.1f s, %.2f million rays/s%n",
                name,
                cold,
                warm,
                most[0],
                seconds,
                still.rays() / seconds / 1e6);
        for (boolean smooth : new boolean[] {false, true}) {
            Development d = new Development(v.stops, v.kelvin, Curve.NEUTRAL, null, smooth);
            long before = System.nanoTime();
            float[] radiance = d.radiance(still.film(), 0, 0, r.width(), r.height());
            String file = name + (smooth ? "-smoothed" : "") + ".png";
            Files.write(folder.resolve(file), Png.encode(r.width(), r.height(), d.bytes(radiance), 150));
            if (smooth) {
                System.out.printf(Locale.ROOT, "%-8s smoothing %.1f s%n", name, (System.nanoTime() - before) / 1e9);
            }
        }
        return ImageIO.read(folder.resolve(name + "-smoothed.png").toFile());
    }

    /** Works on one block in so many, drawn by seed from every so many that follow each other, and tells of the whole. */
    private static void part(String name, View v, Quality quality, Region r, int oneIn) {
        List<Region> blocks = new ArrayList<>();
        SplittableRandom random = new SplittableRandom(4);
        int across = (r.width() + Still.BLOCK - 1) / Still.BLOCK;
        int all = across * ((r.height() + Still.BLOCK - 1) / Still.BLOCK);
        for (int i = 0; i < all; i += oneIn) {
            int b = Math.min(all - 1, i + random.nextInt(oneIn));
            blocks.add(new Region(b % across * Still.BLOCK, b / across * Still.BLOCK, Still.BLOCK, Still.BLOCK));
        }
        long begun = System.nanoTime();
        still(v, r).render(Quality.samples(quality.most()), blocks.subList(0, 1), THREADS, (share, n) -> true);
        double once = (System.nanoTime() - begun) / 1e9; // scouts, photons and one block, however many blocks there are
        long before = processorTime();
        long start = System.nanoTime();
        Still still = still(v, r);
        still.render(quality, blocks, THREADS, (share, n) -> true);
        double seconds = (System.nanoTime() - start) / 1e9;
        double[] samples = blocks.stream()
                .mapToDouble(b -> still.film().samples(b.x(), b.y()))
                .toArray();
        double mean = Arrays.stream(samples).average().orElseThrow();
        double variance =
                Arrays.stream(samples).map(s -> (s - mean) * (s - mean)).sum() / (samples.length - 1);
        System.out.printf(
                Locale.ROOT,
                "%-8s %d of %d blocks: %.1f s (%.1f s of processor time, %.1f s for one), %.0f million rays; samples a pixel %.0f ± %.0f, "
                        + "%.0f %% of blocks have the most; the whole about %.0f s%n",
                name,
                samples.length,
                all,
                seconds,
                (processorTime() - before) / 1e9,
                once,
                still.rays() / 1e6,
                mean,
                Math.sqrt(variance / samples.length),
                100.0 * Arrays.stream(samples).filter(s -> s == quality.most()).count() / samples.length,
                once + (seconds - once) * (all - 1) / (samples.length - 1));
    }

    private static long processorTime() {
        return ((OperatingSystemMXBean) ManagementFactory.getOperatingSystemMXBean()).getProcessCpuTime();
    }

    private static Camera camera(Vec3 at, Vec3 target, double degrees) {
        return new Camera(at, target, Vec3.axis(1), Math.toRadians(degrees));
    }

    private static RenderScene.Builder builder() {
        return new RenderScene.Builder(Kernel.Kind.best());
    }

    private static Mesh quad(Vec3 a, Vec3 b, Vec3 c, Vec3 d) {
        return new TriangleSoup().quad(a, b, c, d).toMesh(0.1);
    }

    private static Mesh floor(double half, double y) {
        return quad(
                new Vec3(-half, y, half), new Vec3(half, y, half), new Vec3(half, y, -half), new Vec3(-half, y, -half));
    }

    private static Mesh box(double x, double y, double z) {
        TriangleSoup soup = new TriangleSoup();
        for (int axis = 0; axis < 3; axis++) {
            for (int sign : new int[] {1, -1}) {
                Vec3 n = Vec3.axis(axis).times(sign);
                Vec3 u = Vec3.axis((axis + 1) % 3);
                Vec3 v = n.cross(u);
                Vec3[] c = new Vec3[4];
                for (int i = 0; i < 4; i++) {
                    Vec3 p = n.plus(u.times(i == 0 || i == 3 ? -1 : 1)).plus(v.times(i < 2 ? -1 : 1));
                    c[i] = new Vec3(p.x() * x / 2, p.y() * y / 2, p.z() * z / 2);
                }
                soup.quad(c[0], c[1], c[2], c[3]);
            }
        }
        return soup.toMesh(0.1);
    }

    /** A line of radius and height turned about the y axis. */
    private static Mesh turned(double[]... line) {
        return Solids.latheOpen(List.of(line), 128).toMesh(Math.toRadians(35));
    }

    /** A closed room with a window, sun through it, and one lamp of 800 lm at 2,700 K. */
    private static View room() {
        RenderScene.Builder b = builder();
        double x = 2.5;
        double y = 2.6;
        double z = 3;
        Surface wall = MATT.with(Parameter.BASE_COLOR, 0.72, 0.7, 0.66);
        Surface wood =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.22, 0.12, 0.06).with(Parameter.SPECULAR_ROUGHNESS, 0.35);
        b.add(floor(3.1, 0), Transform.IDENTITY, List.of(wood));
        TriangleSoup walls = new TriangleSoup();
        walls.quad(new Vec3(-x, y, -z), new Vec3(x, y, -z), new Vec3(x, y, z), new Vec3(-x, y, z)); // ceiling
        walls.quad(new Vec3(-x, 0, -z), new Vec3(x, 0, -z), new Vec3(x, y, -z), new Vec3(-x, y, -z));
        walls.quad(new Vec3(x, 0, z), new Vec3(-x, 0, z), new Vec3(-x, y, z), new Vec3(x, y, z));
        walls.quad(new Vec3(x, 0, -z), new Vec3(x, 0, z), new Vec3(x, y, z), new Vec3(x, y, -z));
        double[] hole = {0.8, 2.1, -1.2, 0.6}; // y from, y to, z from, z to
        walls.quad(new Vec3(-x, 0, z), new Vec3(-x, 0, -z), new Vec3(-x, hole[0], -z), new Vec3(-x, hole[0], z));
        walls.quad(new Vec3(-x, hole[1], z), new Vec3(-x, hole[1], -z), new Vec3(-x, y, -z), new Vec3(-x, y, z));
        walls.quad(
                new Vec3(-x, hole[0], hole[2]),
                new Vec3(-x, hole[0], -z),
                new Vec3(-x, hole[1], -z),
                new Vec3(-x, hole[1], hole[2]));
        walls.quad(
                new Vec3(-x, hole[0], z),
                new Vec3(-x, hole[0], hole[3]),
                new Vec3(-x, hole[1], hole[3]),
                new Vec3(-x, hole[1], z));
        b.add(walls.toMesh(0.1), Transform.IDENTITY, List.of(wall));
        Mesh pane = quad(
                new Vec3(-x, hole[0], hole[3]),
                new Vec3(-x, hole[0], hole[2]),
                new Vec3(-x, hole[1], hole[2]),
                new Vec3(-x, hole[1], hole[3]));
        b.add(pane, Transform.IDENTITY, List.of(GLASS.with(Parameter.GEOMETRY_THIN_WALLED, true)));
        Surface red = MATT.with(Parameter.BASE_COLOR, 0.45, 0.06, 0.05);
        b.add(box(0.9, 0.7, 0.9), Transform.translation(0.9, 0.35, -1.6), List.of(red));
        b.add(AreaLamp.sphere(0.25), Transform.translation(0.9, 0.95, -1.6), List.of(GLASS));
        Surface brass = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_COLOR, 0.887, 0.71, 0.42)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.15);
        b.add(AreaLamp.sphere(0.3), Transform.translation(-0.7, 0.3, -1.9), List.of(brass));
        Mesh bulb = AreaLamp.sphere(0.08);
        b.addDressed(
                bulb,
                Transform.translation(1.6, 2.2, -0.6),
                List.of(Dress.of(AreaLamp.glowing(800, bulb.area(), Blackbody.colour(2700)))
                        .circuit(1)));
        b.lamp(new Lamp.Sun(new Vec3(-1, 0.75, 0.35).normalised(), 0.00465, LinearRgb.grey(40_000), 2));
        return new View(
                b,
                Environment.uniform(5, 6, 8),
                camera(new Vec3(0.6, 1.5, 2.9), new Vec3(-0.1, 1.0, -2), 58),
                new Caustics(1_500_000, 0.03, 1),
                1.2,
                0);
    }

    /** Four slabs of growing index before a striped card. */
    private static View slabs() {
        RenderScene.Builder b = builder().add(floor(20, 0), Transform.IDENTITY, List.of(MATT));
        Surface dark = MATT.with(Parameter.BASE_COLOR, 0.05, 0.05, 0.06);
        Surface light = MATT.with(Parameter.BASE_COLOR, 0.8, 0.8, 0.78);
        for (int i = -20; i < 20; i++) {
            double x = 0.05 * i;
            b.add(
                    quad(
                            new Vec3(x, 0, -0.3),
                            new Vec3(x + 0.05, 0, -0.3),
                            new Vec3(x + 0.05, 0.7, -0.3),
                            new Vec3(x, 0.7, -0.3)),
                    Transform.IDENTITY,
                    List.of(i % 2 == 0 ? dark : light));
        }
        double[] indices = {1.0001, 1.333, 1.5, 2.0};
        for (int i = 0; i < 4; i++) {
            Transform at = Transform.translation(-0.6 + 0.4 * i, 0.22, 0)
                    .after(Transform.rotation(Vec3.axis(1), Math.toRadians(35)));
            b.add(box(0.3, 0.42, 0.12), at, List.of(GLASS.with(Parameter.SPECULAR_IOR, indices[i])));
        }
        return new View(b, Environment.studio(1), camera(new Vec3(0, 0.5, 2.2), new Vec3(0, 0.27, 0), 30), null, 0, 0);
    }

    /** A slit of light through a prism onto a screen. */
    private static View prism() {
        TriangleSoup soup = new TriangleSoup();
        Vec3[] low = new Vec3[3];
        Vec3[] high = new Vec3[3];
        for (int i = 0; i < 3; i++) {
            double a = Math.PI / 2 + 2 * Math.PI * i / 3;
            low[i] = new Vec3(0.12 * Math.cos(a), 0.0, -0.12 * Math.sin(a));
            high[i] = low[i].plus(new Vec3(0, 0.25, 0));
        }
        for (int i = 0; i < 3; i++) {
            int k = (i + 1) % 3;
            soup.quad(low[i], low[k], high[k], high[i]);
        }
        soup.triangle(high[0], high[1], high[2]);
        soup.triangle(low[2], low[1], low[0]);
        Surface flint = GLASS.with(Parameter.SPECULAR_IOR, 1.72)
                .with(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER, 20)
                .with(Parameter.TRANSMISSION_DISPERSION_SCALE, 1);
        RenderScene.Builder b = builder()
                .add(floor(3, -0.001), Transform.IDENTITY, List.of(MATT.with(Parameter.BASE_COLOR, 0.8, 0.8, 0.8)))
                .add(soup.toMesh(0.1), Transform.IDENTITY, List.of(flint));
        Surface black = MATT.with(Parameter.BASE_COLOR, 0.02, 0.02, 0.02);
        // two boards that leave a slit of 12 mm
        b.add(box(0.01, 0.8, 3), Transform.translation(-0.42, 0.4, 1.682), List.of(black));
        b.add(box(0.01, 0.8, 3), Transform.translation(-0.42, 0.4, -1.330), List.of(black));
        Surface white = MATT.with(Parameter.BASE_COLOR, 0.85, 0.85, 0.85);
        b.add(box(0.01, 0.3, 0.9), Transform.translation(0.95, 0.15, 0.47), List.of(white));
        b.lamp(new Lamp.Sun(new Vec3(-0.872, 0.12, 0.489).normalised(), 0.002, LinearRgb.grey(30_000), 0));
        return new View(
                b,
                Environment.uniform(0.03, 0.03, 0.035),
                camera(new Vec3(-0.25, 0.75, 1.25), new Vec3(0.3, 0.02, 0.2), 46),
                new Caustics(1_000_000, 0.004, 1),
                0.5,
                0);
    }

    /** The same filled tumbler twice: as overlapping bodies, and as boundaries between media. */
    private static View vessels() {
        double[][] outer = {{0, 0}, {0.04, 0}, {0.045, 0.12}};
        double[][] rim = {{0.045, 0.12}, {0.042, 0.12}};
        double[][] wet = {{0.0404, 0.08}, {0.0375, 0.012}, {0, 0.012}};
        double[][] dry = {{0.042, 0.12}, {0.0404, 0.08}};
        double[][] top = {{0.0404, 0.08}, {0, 0.08}};
        double[][] body = {{0, 0}, {0.04, 0}, {0.045, 0.12}, {0.042, 0.12}, {0.0404, 0.08}, {0.0375, 0.012}, {0, 0.012}
        };
        // the liquid pokes half a millimetre into the wall
        double[][] liquid = {{0, 0.0115}, {0.038, 0.0115}, {0.0409, 0.08}, {0, 0.08}};
        Surface glass = GLASS.with(Parameter.SPECULAR_IOR, 1.52);
        Surface juice = GLASS.with(Parameter.SPECULAR_IOR, 1.34)
                .with(Parameter.TRANSMISSION_COLOR, 0.85, 0.35, 0.05)
                .with(Parameter.TRANSMISSION_DEPTH, 0.03);
        RenderScene.Builder b = builder().add(floor(3, 0), Transform.IDENTITY, List.of(MATT));
        Transform left = Transform.translation(-0.07, 0.0005, 0);
        b.add(turned(body), left, List.of(glass), 2);
        b.add(turned(liquid), left, List.of(juice), 1);
        Transform right = Transform.translation(0.07, 0.0005, 0);
        List<double[][]> shapes = new ArrayList<>(List.of(outer, rim, dry, wet, top));
        Surface[][] media = {{null, glass}, {null, glass}, {null, glass}, {juice, glass}, {null, juice}};
        for (int i = 0; i < shapes.size(); i++) {
            b.addDressed(turned(shapes.get(i)), right, List.of(Dress.of(GLASS).between(media[i][0], media[i][1])));
        }
        return new View(
                b, Environment.studio(1), camera(new Vec3(0, 0.17, 0.5), new Vec3(0, 0.055, 0), 26), null, 0, 0);
    }

    /** A glass ball and a ring of metal under one small lamp: light gathered on the table. */
    private static View caustic() {
        RenderScene.Builder b = builder().add(floor(5, 0), Transform.IDENTITY, List.of(MATT));
        b.add(AreaLamp.sphere(0.06), Transform.translation(-0.1, 0.0605, 0), List.of(GLASS));
        double[][] ring = {{0.09, 0}, {0.09, 0.035}, {0.084, 0.035}, {0.084, 0}, {0.09, 0}};
        Surface gold = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_COLOR, 0.94, 0.78, 0.34)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.01);
        b.add(turned(ring), Transform.translation(0.12, 0.0005, 0.02), List.of(gold));
        b.lamp(new Lamp.Point(new Vec3(-0.5, 0.5, -0.35), LinearRgb.grey(900), 0));
        return new View(
                b,
                Environment.uniform(0.12, 0.12, 0.13),
                camera(new Vec3(0.05, 0.36, 0.62), new Vec3(0.02, 0.02, 0), 30),
                new Caustics(500_000, 0.003, 1),
                0,
                0);
    }

    /** Brass, steel and copper at three roughnesses. */
    private static View metals() {
        RenderScene.Builder b = builder().add(floor(5, 0), Transform.IDENTITY, List.of(MATT));
        double[][] colours = {{0.887, 0.71, 0.42}, {0.56, 0.57, 0.58}, {0.926, 0.72, 0.5}};
        double[] roughness = {0.02, 0.2, 0.45};
        for (int i = 0; i < 3; i++) {
            for (int k = 0; k < 3; k++) {
                Surface metal = Surface.STANDARD
                        .with(Parameter.BASE_METALNESS, 1)
                        .with(Parameter.BASE_COLOR, colours[i])
                        .with(Parameter.SPECULAR_ROUGHNESS, roughness[k]);
                Transform at = Transform.translation(0.13 * (k - 1), 0.0505, 0.13 * (i - 1));
                b.add(AreaLamp.sphere(0.05), at, List.of(metal));
            }
        }
        return new View(
                b, Environment.studio(1), camera(new Vec3(0, 0.45, 0.75), new Vec3(0, 0.03, 0.01), 30), null, 0, 0);
    }

    /** Reflectance by angle in four ways (its index, strong at the edge, constant, under a film), before a relief of studs. */
    private static View angles() {
        byte[] studs = studs(256);
        RenderScene.Builder b = new RenderScene.Builder(Kernel.Kind.best(), new Textures(d -> studs, Textures.BUDGET))
                .add(floor(5, 0), Transform.IDENTITY, List.of(MATT));
        Surface relief = MATT.with(Parameter.GEOMETRY_HEIGHT, 0.004)
                .withTexture(
                        Parameter.GEOMETRY_HEIGHT,
                        TextureUse.repeating("studs", Channel.R, new ModelUv(0, 0, 0, 10, 4)));
        float[] p = {-0.35f, 0, -0.15f, 0.35f, 0, -0.15f, 0.35f, 0.28f, -0.15f, -0.35f, 0.28f, -0.15f};
        float[] n = {0, 0, 1, 0, 0, 1, 0, 0, 1, 0, 0, 1};
        float[] uv = {0, 1, 1, 1, 1, 0, 0, 0};
        Mesh wall = new Mesh(p, n, uv, null, new int[] {0, 1, 2, 0, 2, 3}, new int[] {0, 2}, null);
        b.add(wall, Transform.IDENTITY, List.of(relief));
        Surface red =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.35, 0.03, 0.03).with(Parameter.SPECULAR_ROUGHNESS, 0.05);
        Surface edge = red.with(Parameter.GENERALIZED_SCHLICK, true)
                .with(Parameter.SCHLICK_COLOR0, 0.02, 0.02, 0.02)
                .with(Parameter.SCHLICK_COLOR90, 0.4, 0.7, 1)
                .with(Parameter.SCHLICK_EXPONENT, 2);
        Surface constant =
                edge.with(Parameter.SCHLICK_COLOR0, 0.5, 0.5, 0.5).with(Parameter.SCHLICK_COLOR90, 0.5, 0.5, 0.5);
        Surface film = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0.02, 0.02, 0.02)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.05)
                .with(Parameter.SPECULAR_IOR, 1.8)
                .with(Parameter.THIN_FILM_WEIGHT, 1)
                .with(Parameter.THIN_FILM_THICKNESS, 0.42);
        List<Surface> balls = List.of(red, edge, constant, film);
        for (int i = 0; i < 4; i++) {
            Transform at = Transform.translation(0.13 * (i - 1.5), 0.0505, 0);
            b.add(AreaLamp.sphere(0.05), at, List.of(balls.get(i)));
        }
        return new View(b, Environment.studio(1), camera(new Vec3(0, 0.22, 0.7), new Vec3(0, 0.07, 0), 30), null, 0, 0);
    }

    /** Round studs, as a picture of heights. */
    private static byte[] studs(int side) {
        byte[] out = new byte[3 * side * side];
        for (int i = 0; i < side * side; i++) {
            double x = 2.0 * (i % side) / side - 1;
            double y = 2.0 * Math.floorDiv(i, side) / side - 1;
            double h = Math.sqrt(Math.max(0, 0.49 - x * x - y * y)) / 0.7;
            Arrays.fill(out, 3 * i, 3 * i + 3, (byte) Math.round(255 * h));
        }
        return Png.encode(side, side, out, 72);
    }

    /** Plain cloth, cloth with fuzz, and wax: three balls. */
    private static View cloth() {
        RenderScene.Builder b = builder().add(floor(5, 0), Transform.IDENTITY, List.of(MATT));
        Surface plain = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0.05, 0.07, 0.2)
                .with(Parameter.SPECULAR_WEIGHT, 0.2)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.7);
        Surface fuzzy = plain.with(Parameter.FUZZ_WEIGHT, 1)
                .with(Parameter.FUZZ_COLOR, 0.7, 0.75, 0.95)
                .with(Parameter.FUZZ_ROUGHNESS, 0.35);
        Surface wax = Surface.STANDARD
                .with(Parameter.SUBSURFACE_WEIGHT, 1)
                .with(Parameter.SUBSURFACE_COLOR, 0.9, 0.75, 0.55)
                .with(Parameter.SUBSURFACE_RADIUS, 0.02)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.25);
        List<Surface> three = List.of(plain, fuzzy, wax);
        for (int i = 0; i < 3; i++) {
            b.add(AreaLamp.sphere(0.06), Transform.translation(0.15 * (i - 1), 0.0605, 0), List.of(three.get(i)));
        }
        b.lamp(new Lamp.Point(new Vec3(-0.3, 0.4, -0.5), LinearRgb.grey(700), 0));
        return new View(
                b, Environment.studio(0.5), camera(new Vec3(0, 0.25, 0.75), new Vec3(0, 0.05, 0), 26), null, 0.3, 0);
    }
}
