package app.zolvan.bench;

import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.render.trace.Ray;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.FloatBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.Arrays;
import java.util.Locale;
import java.util.concurrent.ForkJoinPool;

/**
 * How many rays a second a kernel takes through the mesh of a .zray file, on one thread, as one JSON line: building,
 * coherent and incoherent rays to their nearest hit, and whether anything lies within a distance. {@code --dump FILE}
 * writes the distance (float32) and triangle (int32, −1 for none) of each ray.
 */
public final class RayThroughput {
    private static final int MAGIC = 0x5941525A; // ZRAY
    private static final int HEAD = 20;

    private final float[] vertices;
    private final int[] indices;
    private final float[] rays;
    private final int primary;

    private RayThroughput(ByteBuffer b) {
        if (b.getInt(0) != MAGIC) {
            throw new IllegalArgumentException("That is no .zray file.");
        }
        int v = b.getInt(4);
        int t = b.getInt(8);
        int r = b.getInt(12);
        primary = b.getInt(16);
        vertices = new float[3 * v];
        indices = new int[3 * t];
        rays = new float[8 * r];
        FloatBuffer floats =
                b.position(HEAD).slice().order(ByteOrder.LITTLE_ENDIAN).asFloatBuffer();
        floats.get(vertices);
        b.position(HEAD + 12 * v)
                .slice()
                .order(ByteOrder.LITTLE_ENDIAN)
                .asIntBuffer()
                .get(indices);
        b.position(HEAD + 12 * v + 12 * t)
                .slice()
                .order(ByteOrder.LITTLE_ENDIAN)
                .asFloatBuffer()
                .get(rays);
    }

    /** @param args FILE [--kernel vector|scalar] [--reps N] [--dump FILE] */
    public static void main(String[] args) throws Exception {
        Kernel.Kind kind = Kernel.Kind.best();
        int reps = 5;
        Path dump = null;
        for (int i = 1; i + 1 < args.length; i += 2) {
            switch (args[i]) {
                case "--kernel" -> kind = Kernel.Kind.valueOf(args[i + 1].toUpperCase(Locale.ROOT));
                case "--reps" -> reps = Integer.parseInt(args[i + 1]);
                case "--dump" -> dump = Path.of(args[i + 1]);
                default -> throw new IllegalArgumentException("There is no option " + args[i] + ".");
            }
        }
        ByteBuffer bytes;
        try (FileChannel file = FileChannel.open(Path.of(args[0]))) {
            bytes = file.map(FileChannel.MapMode.READ_ONLY, 0, file.size()).order(ByteOrder.LITTLE_ENDIAN);
        }
        new RayThroughput(bytes).run(kind, reps, dump, System.out);
    }

    private void run(Kernel.Kind kind, int reps, Path dump, PrintStream out) throws Exception {
        double[] build = new double[3];
        double[] buildOnAll = new double[3];
        ForkJoinPool one = new ForkJoinPool(1);
        ForkJoinPool every = new ForkJoinPool(Runtime.getRuntime().availableProcessors());
        Kernel kernel = null;
        for (int i = -8; i < build.length; i++) { // the first eight warm the compiler up
            long start = System.nanoTime();
            kernel = one.submit(() -> Kernel.of(kind, vertices, indices)).get();
            long then = System.nanoTime();
            if (i >= 0) {
                build[i] = (then - start) / 1e6;
                every.submit(() -> Kernel.of(kind, vertices, indices)).get();
                buildOnAll[i] = (System.nanoTime() - then) / 1e6;
            }
        }
        int all = rays.length / 8;
        double[] sums = new double[3];
        long[] hits = new long[3];
        double[][] speeds = new double[3][reps];
        for (int rep = -2; rep < reps; rep++) {
            for (int what = 0; what < 3; what++) {
                int from = what == 0 ? 0 : primary;
                int to = what == 0 ? primary : all;
                long start = System.nanoTime();
                pass(kernel, what, from, to, sums, hits);
                if (rep >= 0) {
                    speeds[what][rep] = (to - from) / ((System.nanoTime() - start) / 1e3);
                }
            }
        }
        if (dump != null) {
            dump(kernel, all, dump);
        }
        out.printf(
                Locale.ROOT,
                "{\"engine\":\"zolvan\",\"kernel\":\"%s\",\"java\":\"%s\",\"triangles\":%d,\"primary_rays\":%d,"
                        + "\"incoherent_rays\":%d,\"reps\":%d,\"build_ms\":%.1f,\"build_all_cores_ms\":%.1f,\"primary_mrays\":%.3f,"
                        + "\"incoherent_mrays\":%.3f,\"occluded_mrays\":%.3f,\"primary_best\":%.3f,"
                        + "\"incoherent_best\":%.3f,\"occluded_best\":%.3f,\"checksum\":{\"primary_hits\":%d,"
                        + "\"primary_t\":%.3f,\"incoherent_hits\":%d,\"incoherent_t\":%.3f,\"occluded_hits\":%d}}%n",
                kind.word(),
                System.getProperty("java.version"),
                indices.length / 3,
                primary,
                all - primary,
                reps,
                median(build),
                median(buildOnAll),
                median(speeds[0]),
                median(speeds[1]),
                median(speeds[2]),
                best(speeds[0]),
                best(speeds[1]),
                best(speeds[2]),
                hits[0],
                sums[0],
                hits[1],
                sums[1],
                hits[2]);
    }

    private void pass(Kernel kernel, int what, int from, int to, double[] sums, long[] hits) {
        Ray ray = new Ray();
        long n = 0;
        double sum = 0;
        for (int i = from; i < to; i++) {
            set(ray, i, what == 2);
            if (what == 2) {
                n += kernel.occluded(ray) ? 1 : 0;
            } else if (kernel.closest(ray)) {
                n++;
                sum += ray.tMax;
            }
        }
        sums[what] = sum;
        hits[what] = n;
    }

    private void set(Ray ray, int i, boolean bounded) {
        int at = 8 * i;
        ray.set(
                rays[at],
                rays[at + 1],
                rays[at + 2],
                rays[at + 4],
                rays[at + 5],
                rays[at + 6],
                rays[at + 3],
                bounded ? rays[at + 7] : Float.POSITIVE_INFINITY);
    }

    private void dump(Kernel kernel, int all, Path file) throws IOException {
        ByteBuffer out = ByteBuffer.allocate(8 * all).order(ByteOrder.LITTLE_ENDIAN);
        Ray ray = new Ray();
        for (int i = 0; i < all; i++) {
            set(ray, i, false);
            boolean hit = kernel.closest(ray);
            out.putFloat(ray.tMax).putInt(hit ? ray.primitive : Ray.NOTHING);
        }
        try (FileChannel channel = FileChannel.open(
                file, StandardOpenOption.CREATE, StandardOpenOption.WRITE, StandardOpenOption.TRUNCATE_EXISTING)) {
            channel.write(out.flip());
        }
    }

    private static double median(double[] v) {
        double[] sorted = v.clone();
        Arrays.sort(sorted);
        return sorted[sorted.length / 2];
    }

    private static double best(double[] v) {
        return Arrays.stream(v).max().orElse(0);
    }
}
