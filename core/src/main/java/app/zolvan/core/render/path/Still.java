package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.RenderScene;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.concurrent.atomic.AtomicBoolean;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.LongAdder;
import java.util.function.BooleanSupplier;
import java.util.function.DoublePredicate;
import java.util.function.IntConsumer;
import java.util.function.Supplier;

/**
 * A picture in the making. It is worked on in blocks that are anchored to the full picture; every block gets the same first
 * samples, then those whose expected error is above the target get more, twice as many each time. What a block needs is
 * decided by its own pixels alone, so the result is the same for any number of threads, and a rectangle of a picture is the
 * same as that part of the whole.
 */
public final class Still {
    /** Rows and columns of a block. */
    public static final int BLOCK = 16;

    private static final int FIRST = 4;

    private static final int PROVEN = 16;
    private static final int PHOTON_CHUNK = 1 << 14;
    private static final int MOST_PHOTONS = 20_000_000;
    private static final int SCOUT_CHUNK = 1 << 10;
    private static final int FEWEST_SCOUTS = 1 << 15;
    private static final int MOST_SCOUTS = 1 << 18;
    private static final int ROUNDS = 4;
    /** So few samples are not worth sending scouts. */
    private static final int NO_SCOUTS = 8;

    /** How often scouts look for the surroundings through panes. */
    private static final double UNTRIED_PANES = 0.5;
    /** How much the first sample softens patches of light that polished things throw. */
    private static final double SOFTENING = 0.3;

    /** What of the picture is wanted: columns x … x + width − 1, rows y … y + height − 1. */
    public record Region(int x, int y, int width, int height) {}

    /**
     * How good a picture is to be.
     *
     * @param noise expected error of a pixel as shown (0 … 1) at which a block is done; 0 for always the most samples
     * @param most  samples a pixel
     */
    public record Quality(double noise, int most) {
        public static final Quality PROOF = new Quality(0.02, 128);
        public static final Quality REVIEW = new Quality(0.008, 1024);
        public static final Quality PRINT = new Quality(0.003, 8192);

        public static Quality samples(int n) {
            return new Quality(0, n);
        }
    }

    /** Hears how far a picture has come; may stop it by returning false. */
    public interface Watcher {
        boolean at(double share, int samples);

        /** Asked by every thread before each block; false ends the work there, to be taken up again. */
        default boolean goesOn(double share) {
            return true;
        }
    }

    private final RenderScene scene;
    private final Environment environment;
    private final double[] backdrop;
    private final Camera camera;
    private final Film film;
    private final long seed;
    private final int bounces;
    private final Vec3 right;
    private final Vec3 above;
    private final Vec3 ahead;
    /** By how much a pixel's view widens per metre. */
    private final double spread;

    private final LongAdder rays = new LongAdder();
    private Caustics caustics;
    private Photons photons;
    private int photonPass;
    private boolean guided;
    /** Whether paths follow what scouts have learnt. */
    private boolean knowing;

    private boolean scouted;
    private Guide guide;
    /** How often the surroundings are looked for through panes. */
    private double paned;
    /** Null for an even backdrop, or none. */
    private Backcloth cloth;

    /**
     * @param backdrop what lies behind everything, scene-linear; null for the surroundings
     * @param seed     another one gives other noise
     * @param bounces  how often light may be scattered on its way
     */
    public Still(
            RenderScene scene,
            Environment environment,
            double[] backdrop,
            Camera camera,
            int width,
            int height,
            long seed,
            int bounces) {
        this.scene = scene;
        this.environment = environment;
        this.backdrop = backdrop == null ? null : backdrop.clone();
        this.camera = camera;
        this.film = new Film(width, height, scene.circuits());
        this.spread = 2 * StrictMath.tan(camera.fieldOfView() / 2) / height;
        this.seed = seed;
        this.bounces = bounces;
        this.ahead = camera.target().minus(camera.position()).normalised();
        double tan = StrictMath.tan(camera.fieldOfView() / 2);
        Vec3 side = ahead.cross(camera.up()).normalised();
        this.above = side.cross(ahead).times(tan);
        this.right = side.times(tan * width / height);
    }

    public Film film() {
        return film;
    }

    /** How many rays were sent through the scene so far, photons' ways not counted. */
    public long rays() {
        return rays.sum();
    }

    /** Gathers caustics of lamps and suns by photons; without this they are only found by chance. */
    public Still with(Caustics wanted) {
        caustics = wanted;
        return this;
    }

    /** Shows it before a cloth instead, which runs on as the ground. */
    public Still before(Backcloth wanted) {
        cloth = wanted;
        return this;
    }

    /** Learns from where light comes at each place, and looks there; it pays where most of it comes by way of others. */
    public Still guided() {
        guided = true;
        return this;
    }

    /**
     * Sends scouts all over the picture, in rounds of twice as many each, and makes of each round the guide for the next.
     * What they find depends on the whole picture, the scene and the seed alone.
     *
     * @return whether they all came back; else they will all be sent again
     */
    private boolean scout(int threads, BooleanSupplier goesOn) {
        guide = null;
        paned = scene.panes().isEmpty() ? 0 : UNTRIED_PANES;
        int paths = Math.max(FEWEST_SCOUTS, Math.min(MOST_SCOUTS, film.width * film.height));
        sendPhotons(FIRST, threads);
        AtomicBoolean ended = new AtomicBoolean();
        for (int round = ROUNDS - 1; round >= 0; round--) {
            int count = paths >> round;
            int chunks = (count + SCOUT_CHUNK - 1) / SCOUT_CHUNK;
            GuideRecords[] found = new GuideRecords[chunks];
            int salt = round;
            share(threads, chunks, () -> {
                PathTracer tracer = tracer();
                tracer.soften(softening(0));
                Sampler random = new Sampler();
                return i -> {
                    found[i] = new GuideRecords();
                    if (ended.get() || !goesOn.getAsBoolean()) {
                        ended.set(true);
                        return;
                    }
                    tracer.scout(found[i]);
                    for (int k = i * SCOUT_CHUNK; k < Math.min(count, (i + 1) * SCOUT_CHUNK); k++) {
                        random.start(k, salt, 0, ~seed);
                        sample(random.next() * film.width, random.next() * film.height, tracer, random);
                    }
                };
            });
            if (ended.get()) {
                return false;
            }
            GuideRecords all = GuideRecords.joined(List.of(found));
            guide = GuideGrowth.of(all);
            if (round == 0) {
                paned = all.steadiestLook();
            }
        }
        scouted = true;
        return true;
    }

    /**
     * The photons for a pass: as many for each sample, gathered the more narrowly the more samples there are (radius² falls
     * with their number's cube root; Knaus & Zwicker 2011).
     */
    public Photons photons(int pass, int threads) {
        Box3 focus = scene.focusing();
        if (focus.isEmpty() || (scene.lamps().isEmpty() && scene.suns().isEmpty())) {
            return new Photons(List.of(), caustics.radius());
        }
        double passes = (double) pass / FIRST;
        double radius = caustics.radius() * StrictMath.pow(passes, -1.0 / 6);
        int count = (int) Math.min(MOST_PHOTONS, caustics.photons() * Math.min(8, passes));
        int chunks = (count + PHOTON_CHUNK - 1) / PHOTON_CHUNK;
        Photons.Found[] found = new Photons.Found[chunks];
        share(threads, chunks, () -> {
            Emitter emitter = new Emitter(scene, environment, focus, bounces, seed);
            return i -> {
                found[i] = new Photons.Found();
                int to = Math.min(count, (i + 1) * PHOTON_CHUNK);
                emitter.emit(i * PHOTON_CHUNK, to, count, pass, found[i]);
            };
        });
        return new Photons(List.of(found), radius);
    }

    /**
     * Works until the quality is reached or the watcher stops it; called again it goes on from there, and so does another
     * process that has read the film. The first report is of a coarse picture of the whole.
     *
     * @return whether the quality was reached
     */
    public boolean render(Quality quality, Region region, int threads, Watcher watcher) {
        return render(quality, List.of(region), threads, watcher);
    }

    /** The same for several rectangles, which may overlap: blocks that some of them share are worked on once. */
    public boolean render(Quality quality, List<Region> regions, int threads, Watcher watcher) {
        Work work = new Work(blocks(regions), quality);
        boolean whole = pass(threads, work.open, 1, Film.COARSE, part -> watcher.goesOn(0));
        if (!whole || !watcher.at(0, 0)) {
            return false;
        }
        knowing = guided && quality.most > NO_SCOUTS;
        if (knowing && !scouted && !scout(threads, () -> watcher.goesOn(0))) {
            return false;
        }
        int from = 0;
        int to = Math.min(FIRST, quality.most);
        while (true) {
            int before = from;
            int reached = to;
            if (!pass(
                    threads,
                    work.open,
                    reached,
                    1,
                    part -> watcher.goesOn(work.share(before + part * (reached - before))))) {
                return false;
            }
            from = reached;
            work.judge(reached);
            boolean finished = work.open.isEmpty() || reached >= quality.most;
            boolean goOn = watcher.at(finished ? 1 : work.share(reached), reached);
            if (finished || !goOn) {
                return finished;
            }
            to = Math.min(quality.most, 2 * reached);
        }
    }

    private List<Block> blocks(List<Region> regions) {
        Set<Block> all = new LinkedHashSet<>();
        for (Region region : regions) {
            for (int y = region.y / BLOCK * BLOCK; y < region.y + region.height; y += BLOCK) {
                for (int x = region.x / BLOCK * BLOCK; x < region.x + region.width; x += BLOCK) {
                    all.add(new Block(x, y, Math.min(film.width, x + BLOCK), Math.min(film.height, y + BLOCK)));
                }
            }
        }
        return new ArrayList<>(all);
    }

    /** The pixels of columns x0 … x1 − 1, rows y0 … y1 − 1. */
    private record Block(int x0, int y0, int x1, int y1) {}

    /** The blocks that are not good enough yet, and how much there is to do. */
    private final class Work {
        final List<Block> open;
        private final Quality quality;
        /** Samples a pixel, summed over blocks: of those that are good, and of what the others will probably have. */
        private double done;

        private double wanted;

        Work(List<Block> all, Quality quality) {
            this.open = all;
            this.quality = quality;
            this.wanted = (double) quality.most * all.size();
        }

        /** Takes out what is good enough after so many samples. */
        void judge(int reached) {
            if (quality.noise <= 0) {
                return;
            }
            double[] errors = open.stream()
                    .mapToDouble(b -> film.error(b.x0, b.y0, b.x1, b.y1))
                    .toArray();
            List<Block> left = new ArrayList<>();
            wanted = 0;
            for (int i = 0; i < errors.length; i++) {
                double over = errors[i] / quality.noise;
                if (reached >= PROVEN && over <= 1 && !hasMore(open.get(i), reached)) {
                    done += reached;
                } else { // an error halves with four times the samples
                    left.add(open.get(i));
                    wanted += Math.min(quality.most, Math.max(PROVEN, Math.max(2.0 * reached, reached * over * over)));
                }
            }
            open.clear();
            open.addAll(left);
        }

        /** What share of all is there once the open ones have so many samples a pixel. */
        double share(double samples) {
            return (done + open.size() * samples) / Math.max(1, done + wanted);
        }
    }

    /** Whether a block was worked on beyond a number of samples before: it was not good enough there, then. */
    private boolean hasMore(Block b, int samples) {
        for (int y = b.y0; y < b.y1; y++) {
            for (int x = b.x0; x < b.x1; x++) {
                if (film.samples(x, y) > samples) {
                    return true;
                }
            }
        }
        return false;
    }

    /** Keeps the photons of a pass: the coarse picture and the first pass share theirs. */
    private void sendPhotons(int pass, int threads) {
        if (caustics != null && photonPass != pass) {
            photons = photons(pass, threads);
            photonPass = pass;
        }
    }

    /**
     * Brings every {@code step}th pixel of the blocks to a number of samples.
     *
     * @param goesOn asked with the share of blocks that are there
     * @return whether all are
     */
    private boolean pass(int threads, List<Block> blocks, int to, int step, DoublePredicate goesOn) {
        sendPhotons(Math.max(FIRST, to), threads);
        AtomicBoolean ended = new AtomicBoolean();
        share(threads, blocks.size(), () -> {
            PathTracer tracer = tracer();
            Sampler random = new Sampler();
            return i -> {
                if (ended.get() || !goesOn.test((double) i / blocks.size())) {
                    ended.set(true);
                    return;
                }
                long before = tracer.rays();
                block(blocks.get(i), to, step, tracer, random);
                rays.add(tracer.rays() - before);
            };
        });
        return !ended.get();
    }

    private PathTracer tracer() {
        PathTracer tracer = new PathTracer(scene, environment, camera.position(), backdrop, bounces);
        if (cloth != null) {
            tracer.standOn(cloth);
        }
        if (photons != null) {
            tracer.gather(photons, caustics.strength());
        }
        if (knowing) {
            tracer.follow(guide, paned);
        }
        return tracer;
    }

    /** Does tasks on threads, each of which takes the next that is left. */
    private static void share(int threads, int tasks, Supplier<IntConsumer> worker) {
        AtomicInteger next = new AtomicInteger();
        ExecutorService pool = Executors.newFixedThreadPool(threads);
        try {
            List<Future<?>> workers = new ArrayList<>();
            for (int t = 0; t < threads; t++) {
                workers.add(pool.submit(() -> {
                    IntConsumer at = worker.get();
                    for (int i = next.getAndIncrement(); i < tasks; i = next.getAndIncrement()) {
                        at.accept(i);
                    }
                }));
            }
            await(workers);
        } finally {
            pool.shutdown();
        }
    }

    private static void await(List<Future<?>> workers) {
        for (Future<?> w : workers) {
            try {
                w.get();
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException("The picture was interrupted.", e);
            } catch (ExecutionException e) {
                throw new IllegalStateException(e.getCause());
            }
        }
    }

    private void block(Block b, int to, int step, PathTracer tracer, Sampler random) {
        for (int y = b.y0; y < b.y1; y += step) {
            for (int x = b.x0; x < b.x1; x += step) {
                for (int s = film.samples(x, y); s < to; s++) {
                    random.start(x, y, s, seed);
                    tracer.soften(softening(s));
                    sample(x + 0.5 + tent(random.next()), y + 0.5 + tent(random.next()), tracer, random);
                    film.add(x, y, tracer.sum);
                    film.see(x, y, tracer.albedo, tracer.normal, tracer.depth, tracer.part, tracer.material);
                }
            }
        }
    }

    /** Of the n-th sample (from 0): so that what is added by softening falls as fast as noise does. */
    private static double softening(int n) {
        return SOFTENING * StrictMath.pow(n + 1, -1.0 / 6);
    }

    /** Follows one path from a point of the picture, in pixels from its corner at the top left. */
    private void sample(double x, double y, PathTracer tracer, Sampler random) {
        double u = 2 * x / film.width - 1;
        double v = 1 - 2 * y / film.height;
        if (cloth != null) {
            tracer.behind(cloth.grey(0.5 + 0.5 * v));
        }
        double dx = ahead.x() + u * right.x() + v * above.x();
        double dy = ahead.y() + u * right.y() + v * above.y();
        double dz = ahead.z() + u * right.z() + v * above.z();
        double l = 1 / Math.sqrt(dx * dx + dy * dy + dz * dz);
        tracer.trace(camera.position(), dx * l, dy * l, dz * l, spread, random);
    }

    /** A tent over the pixel and half of its neighbours: the picture's filter, by where samples are taken. */
    private static double tent(double u) {
        return u < 0.5 ? Math.sqrt(2 * u) - 1 : 1 - Math.sqrt(2 - 2 * u);
    }
}
