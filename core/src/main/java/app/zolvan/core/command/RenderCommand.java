package app.zolvan.core.command;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.light.RadianceHdr;
import app.zolvan.core.light.WhiteBalance;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.film.Development.Curve;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.film.Tiff;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Caustics;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.texture.Png;
import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.io.UncheckedIOException;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;

/** {@code render}: a picture of a model with the looks it arrived with, on a neutral floor. */
final class RenderCommand {
    static final String USAGE = "render MODEL OUT.png [--size WxH] [--quality proof|review|print | --samples N]"
            + " [--region x,y,w,h]\n    [--environment FILE.hdr] [--camera px,py,pz,tx,ty,tz,field] [--stops N]"
            + " [--sun azimuth,altitude,lux]\n    [--caustics PHOTONS,RADIUS] [--keep FILE] [--white K]\n    [--curve neutral|filmic] [--grain kept|smoothed] [--bits 8|16] [--seed N] [--threads N]"
            + " [--kernel vector|scalar] [--json]\n    OUT may also end in .tif (16 bits) or .hdr (radiance).";

    private static final double[] BACKDROP = {0.56, 0.56, 0.56};
    private static final int BOUNCES = 24;
    private static final int DPI = 150;
    private static final int LARGEST = 16384;
    private static final double SUN_RADIUS = 0.00465;
    /** What another value of makes another picture, so that a kept one can't be gone on with. */
    private static final Set<String> DECISIVE =
            Set.of("--size", "--camera", "--sun", "--caustics", "--seed", "--kernel");

    private int width = 1280;
    private int height = 800;
    private Quality quality = Quality.PROOF;
    private Region region;
    private Environment environment = Environment.studio(1);
    private double[] view;
    private double stops;
    private long seed = 1;
    private int threads = Runtime.getRuntime().availableProcessors();
    private Kernel.Kind kind = Kernel.Kind.best();
    private final Map<String, String> chosen = new TreeMap<>();
    private boolean json;
    private boolean denoise;
    private boolean deep;
    private double kelvin;
    private Lamp.Sun sun;
    private Caustics caustics;
    private Path kept;
    private String identity;
    private Curve curve = Curve.NEUTRAL;

    /**
     * Takes one option.
     *
     * @return whether it is one
     * @throws IllegalArgumentException if its value is not what it takes
     */
    boolean option(String name, String value) throws IOException {
        if (DECISIVE.contains(name)) {
            chosen.put(name, value);
        }
        switch (name) {
            case "--size" -> {
                int[] size = numbers(value, "x", 2);
                width = size[0];
                height = size[1];
                if (width < 1 || height < 1 || width > LARGEST || height > LARGEST) {
                    throw new IllegalArgumentException("size");
                }
            }
            case "--quality" ->
                quality = switch (value) {
                    case "proof" -> Quality.PROOF;
                    case "review" -> Quality.REVIEW;
                    case "print" -> Quality.PRINT;
                    default -> throw new IllegalArgumentException("quality");
                };
            case "--samples" -> quality = Quality.samples(Math.max(1, Integer.parseInt(value)));
            case "--region" -> {
                int[] r = numbers(value, ",", 4);
                region = new Region(r[0], r[1], r[2], r[3]);
            }
            case "--environment" -> {
                byte[] file = Files.readAllBytes(Path.of(value));
                chosen.put(name, Digest.of(file));
                environment = RadianceHdr.read(file);
            }
            case "--camera" -> {
                view = decimals(value, 7);
                if (!(view[6] > 0 && view[6] < 180)) {
                    throw new IllegalArgumentException("camera");
                }
            }
            case "--stops" -> stops = Double.parseDouble(value);
            case "--sun" -> {
                double[] s = decimals(value, 3);
                double around = Math.toRadians(s[0]);
                double up = Math.toRadians(s[1]);
                Vec3 towards =
                        new Vec3(Math.sin(around) * Math.cos(up), Math.sin(up), -Math.cos(around) * Math.cos(up));
                sun = new Lamp.Sun(towards, SUN_RADIUS, LinearRgb.grey(s[2]), 0);
            }
            case "--caustics" -> {
                double[] c = decimals(value, 2);
                caustics = new Caustics((int) c[0], c[1], 1);
            }
            case "--keep" -> kept = Path.of(value);
            case "--curve" -> curve = Curve.valueOf(value.toUpperCase(Locale.ROOT));
            case "--white" -> {
                kelvin = Double.parseDouble(value);
                new WhiteBalance(kelvin);
            }
            case "--bits" -> {
                deep = value.equals("16");
                if (!deep && !value.equals("8")) {
                    throw new IllegalArgumentException("bits");
                }
            }
            case "--grain" -> {
                denoise = value.equals("smoothed");
                if (!denoise && !value.equals("kept")) {
                    throw new IllegalArgumentException("grain");
                }
            }
            case "--seed" -> seed = Long.parseLong(value);
            case "--threads" -> threads = Math.max(1, Integer.parseInt(value));
            case "--kernel" -> kind = Kernel.Kind.valueOf(value.toUpperCase(Locale.ROOT));
            default -> {
                return false;
            }
        }
        return true;
    }

    void asJson() {
        json = true;
    }

    private static double[] decimals(String text, int n) {
        double[] out =
                Arrays.stream(text.split(",")).mapToDouble(Double::parseDouble).toArray();
        if (out.length != n || !Arrays.stream(out).allMatch(Double::isFinite)) {
            throw new IllegalArgumentException(text);
        }
        return out;
    }

    private static int[] numbers(String text, String between, int n) {
        int[] out =
                Arrays.stream(text.split(between)).mapToInt(Integer::parseInt).toArray();
        if (out.length != n) {
            throw new IllegalArgumentException(text);
        }
        return out;
    }

    void run(Model model, Path to, PrintStream out, PrintStream err) throws IOException, ImportException {
        long start = System.nanoTime();
        Textures textures = new Textures(
                digest -> model.images().containsKey(digest)
                        ? model.images().get(digest).bytes()
                        : null,
                Textures.BUDGET);
        RenderScene scene = StandingModel.scene(model, kind, textures, sun);
        textures.problems().forEach(err::println);
        double built = seconds(start);
        Region all = new Region(0, 0, width, height);
        Region wanted = region == null ? all : region;
        if (wanted.x() < 0
                || wanted.y() < 0
                || wanted.width() < 1
                || wanted.height() < 1
                || wanted.x() + wanted.width() > width
                || wanted.y() + wanted.height() > height) {
            throw new ImportException(
                    "region",
                    "The region does not lie within the picture of " + width + " × " + height
                            + " pixels. Choose one that does.");
        }
        Still still =
                new Still(scene, environment, BACKDROP, camera(model.bounds()), width, height, seed, BOUNCES).guided();
        if (caustics != null) {
            still.with(caustics);
        }
        identity = identity(model);
        takeUp(still.film(), err);
        double[] first = {0};
        int[] samples = {0};
        still.render(quality, wanted, threads, (share, n) -> {
            if (n == 0) {
                first[0] = seconds(start);
                err.printf(Locale.ROOT, "the whole, coarse, after %.1f s%n", first[0]);
                return true;
            }
            samples[0] = n;
            keep(still.film());
            double gone = seconds(start);
            err.printf(
                    Locale.ROOT,
                    "%3.0f %% after %.1f s, about %.0f s left (%d samples)%n",
                    100 * share,
                    gone,
                    gone * (1 - share) / share,
                    n);
            return true;
        });
        double traced = seconds(start);
        write(still.film(), wanted, to);
        if (json) {
            out.printf(
                    Locale.ROOT,
                    "{\"width\":%d,\"height\":%d,\"kernel\":\"%s\",\"threads\":%d,\"mostSamples\":%d,\"buildSeconds\":%.3f,"
                            + "\"firstPictureSeconds\":%.3f,\"seconds\":%.3f,\"rays\":%d,\"raysPerSecond\":%.0f,\"developSeconds\":%.3f,"
                            + "\"heapMB\":%.0f}%n",
                    wanted.width(),
                    wanted.height(),
                    kind.word(),
                    threads,
                    samples[0],
                    built,
                    first[0],
                    traced,
                    still.rays(),
                    still.rays() / (traced - built),
                    seconds(start) - traced,
                    peakHeap() / 1e6);
        }
    }

    /** Names the picture that model and options make. */
    private String identity(Model model) {
        return Digest.of((chosen + StandingModel.identity(model)).getBytes(StandardCharsets.UTF_8));
    }

    /** Goes on with a picture that was kept, if there is one. */
    private void takeUp(Film film, PrintStream err) throws IOException {
        if (kept == null || !Files.exists(kept)) {
            return;
        }
        try (DataInputStream in = new DataInputStream(new BufferedInputStream(Files.newInputStream(kept)))) {
            if (!in.readUTF().equals(identity)) {
                throw new IOException(
                        "“" + kept.getFileName() + "” keeps another picture: of another model, or with other"
                                + " options. Name another file to begin anew.");
            }
            film.read(in);
            err.println("Going on with the picture kept in “" + kept.getFileName() + "”.");
        }
    }

    /** Writes down how far the picture has come, whole or not at all. */
    private void keep(Film film) {
        if (kept == null) {
            return;
        }
        Path draft = kept.resolveSibling(kept.getFileName() + ".part");
        try {
            try (DataOutputStream out = new DataOutputStream(new BufferedOutputStream(Files.newOutputStream(draft)))) {
                out.writeUTF(identity);
                film.write(out);
            }
            Files.move(draft, kept, StandardCopyOption.REPLACE_EXISTING, StandardCopyOption.ATOMIC_MOVE);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Writes the kind of picture that the name's ending asks for. */
    private void write(Film film, Region r, Path to) throws IOException {
        Development development = new Development(stops, kelvin, curve, null, denoise);
        float[] radiance = development.radiance(film, r.x(), r.y(), r.width(), r.height());
        String name = to.toString().toLowerCase(Locale.ROOT);
        byte[] file;
        if (name.endsWith(".hdr")) {
            file = RadianceHdr.write(r.width(), r.height(), radiance);
        } else if (name.endsWith(".tif") || name.endsWith(".tiff")) {
            file = Tiff.encode(r.width(), r.height(), development.words(radiance), DPI);
        } else if (deep) {
            file = Png.encode(r.width(), r.height(), development.words(radiance), DPI);
        } else {
            file = Png.encode(r.width(), r.height(), development.bytes(radiance), DPI);
        }
        Files.write(to, file);
    }

    private Camera camera(Box3 bounds) {
        if (view == null) {
            return Camera.framing(bounds, (double) width / height);
        }
        return Camera.upright(
                new Vec3(view[0], view[1], view[2]), new Vec3(view[3], view[4], view[5]), Math.toRadians(view[6]));
    }

    private static long peakHeap() {
        long sum = 0;
        for (MemoryPoolMXBean pool : ManagementFactory.getMemoryPoolMXBeans()) {
            sum += pool.getType() == MemoryType.HEAP ? pool.getPeakUsage().getUsed() : 0;
        }
        return sum;
    }

    private static double seconds(long since) {
        return (System.nanoTime() - since) / 1e9;
    }
}
