package app.zolvan.server.proof;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.RadianceHdr;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.path.Backcloth;
import app.zolvan.core.render.path.Camera;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.texture.Png;
import app.zolvan.server.account.Account;
import app.zolvan.server.event.EventService;
import app.zolvan.server.model.LookInsideService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.proof.DressedScenes.Wanted;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.concurrent.atomic.AtomicLong;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/**
 * Proofs: what the stage shows with its light traced, from where it is looked at. Each account has one, and the next takes its
 * place; they are traced one after the other, and whoever asked hears how far theirs has come. They are kept in memory
 * alone: whoever finds theirs gone asks for it again.
 */
@Service
class ProofService {
    private static final Logger LOG = LoggerFactory.getLogger(ProofService.class);
    private static final Duration KEPT = Duration.ofMinutes(10);
    private static final int MOST_KEPT = 100;
    /** It ends after so long with what is there: whoever asked may have left. */
    private static final Duration LONGEST = Duration.ofMinutes(15);

    private static final Duration BETWEEN_NEWS = Duration.ofMillis(500);
    /** What is there first is by so much smaller, with few samples. */
    private static final int[] SMALLER = {4, 2};

    private static final Quality FIRST = Quality.samples(4);
    private static final int BOUNCES = 24;
    private static final int DPI = 96;
    /** The stage's own backdrop, scene-linear before exposure. */
    private static final double CLOTH_TOP = 0.64;

    private static final double CLOTH_BOTTOM = 0.56;
    /** As a share of the design's size, the ground lies lower than what stands on it, so that the two don't touch. */
    private static final double BELOW = 1e-4;

    private final DressedScenes scenes;
    private final SchemeService schemes;
    private final LookInsideService lookInside;
    private final EventService events;
    private final Cache<UUID, Proof> proofs = Caffeine.newBuilder()
            .maximumSize(MOST_KEPT)
            .expireAfterAccess(KEPT)
            .evictionListener((UUID account, Proof p, RemovalCause why) -> p.ended = true)
            .build();
    private final Cache<String, Environment> surroundings =
            Caffeine.newBuilder().maximumSize(2).build();
    private final Deque<Asked> waiting = new ArrayDeque<>();
    private final ExecutorService tracer = Executors.newSingleThreadExecutor(work -> {
        Thread t = new Thread(work, "proofs");
        t.setDaemon(true);
        return t;
    });

    ProofService(DressedScenes scenes, SchemeService schemes, LookInsideService lookInside, EventService events) {
        this.scenes = scenes;
        this.schemes = schemes;
        this.lookInside = lookInside;
        this.events = events;
    }

    @PreDestroy
    void stop() {
        proofs.asMap().values().forEach(p -> p.ended = true);
        tracer.shutdownNow();
    }

    /**
     * How the stage is looked at and lit.
     *
     * @param degrees      of the height that the picture takes in
     * @param surroundings the name of a supplied picture
     * @param turn         of the surroundings, in degrees
     * @param stops        of exposure; the backdrop keeps its tone
     * @param only         the parts that are shown, with no ground under them; null for all
     * @param view         in which one may look into more than always; null for none
     */
    record Shot(
            Vec3 eye,
            Vec3 target,
            double degrees,
            int width,
            int height,
            String surroundings,
            double strength,
            double turn,
            double stops,
            @Nullable Set<Integer> only,
            @Nullable UUID view) {
        Shot smaller(int less) {
            return new Shot(
                    eye,
                    target,
                    degrees,
                    Math.max(1, width / less),
                    Math.max(1, height / less),
                    surroundings,
                    strength,
                    turn,
                    stops,
                    only,
                    view);
        }
    }

    /** @param pictures how many there have been; the next is better than the last */
    record News(UUID proof, double share, @Nullable Integer secondsLeft, int pictures, boolean done, boolean failed) {}

    /** One that is asked for, being traced, or there. */
    private static final class Proof {
        final UUID id = UUID.randomUUID();
        final UUID account;
        final Shot shot;
        final Wanted wanted;
        final AtomicLong told = new AtomicLong();
        final AtomicInteger pictures = new AtomicInteger();
        volatile byte @Nullable [] png;
        volatile double share;
        volatile boolean done;
        volatile boolean failed;
        volatile boolean ended;
        volatile long began;
        /** What was there when the last pass began, and when that was: how fast the rest comes is told by what came since. */
        volatile double shareThen;

        volatile long then;

        Proof(UUID account, Shot shot, Wanted wanted) {
            this.account = account;
            this.shot = shot;
            this.wanted = wanted;
        }

        boolean goesOn() {
            return !ended && System.nanoTime() - began < LONGEST.toNanos();
        }

        News news() {
            double since = (System.nanoTime() - then) / 1e9;
            double came = share - shareThen;
            Integer left = came > 0.005 && !done ? (int) Math.ceil(since * (1 - share) / came) : null;
            return new News(id, share, left, pictures.get(), done, failed);
        }
    }

    /** One whose turn has not come. */
    private record Asked(Proof proof, LookTable looks) {}

    /**
     * Begins a proof of the scheme that the request is about, in the place of the account's last one.
     *
     * @return its name
     */
    UUID begin(Account account, Project project, Shot shot) {
        surroundings(shot.surroundings);
        LookTable looks = schemes.looks(project);
        if (DressedScenes.shown(looks.scene(), shot.only).isEmpty()) {
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "nothing-shown",
                    "Nothing is shown. Show a part of the model first.");
        }
        Wanted wanted = new Wanted(
                project.id(),
                project.version(),
                looks.scheme(),
                shot.only,
                lookInside.lookedInto(project.id(), shot.view));
        Proof proof = new Proof(account.id(), shot, wanted);
        synchronized (waiting) {
            end(account);
            waiting.add(new Asked(proof, looks));
            proofs.put(account.id(), proof);
        }
        tracer.execute(this::traceNext);
        return proof.id;
    }

    /** Ends the account's proof, wherever it is. */
    void end(Account account) {
        Proof last = proofs.getIfPresent(account.id());
        if (last != null) {
            last.ended = true;
            synchronized (waiting) {
                waiting.removeIf(a -> a.proof == last);
            }
        }
    }

    /** How far a proof of the account's has come, with its picture so far. */
    record Found(News news, byte @Nullable [] png) {}

    Found find(Account account, UUID project, UUID proof) {
        Proof p = proofs.getIfPresent(account.id());
        if (p == null || !p.id.equals(proof) || !p.wanted.project().equals(project)) {
            throw Problem.notFound("proof");
        }
        return new Found(p.news(), p.png);
    }

    private Environment surroundings(String name) {
        return surroundings.get(name, n -> {
            ClassPathResource file = new ClassPathResource("META-INF/resources/environments/" + n + ".hdr");
            if (!n.matches("[a-z-]{1,40}") || !file.exists()) {
                throw Problem.ofField("surroundings", "There are no such surroundings. Choose some under Light.");
            }
            try {
                return RadianceHdr.read(file.getContentAsByteArray());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        });
    }

    private void traceNext() {
        Asked asked;
        synchronized (waiting) {
            asked = waiting.poll();
        }
        if (asked == null) {
            return;
        }
        Proof next = asked.proof;
        try {
            next.began = System.nanoTime();
            trace(next, asked.looks);
            if (!next.done && !next.ended) { // it took too long
                next.done = true;
                tell(next);
            }
        } catch (RuntimeException e) {
            LOG.error("a proof could not be traced", e);
            next.failed = true;
            next.done = true;
            tell(next);
        }
    }

    private void trace(Proof p, LookTable looks) {
        RenderScene scene = scenes.of(p.wanted, looks);
        double ground = ground(looks.scene(), p.shot);
        for (int less : SMALLER) {
            Shot small = p.shot.smaller(less);
            Still still = still(small, scene, ground);
            still.render(FIRST, all(small), threads(), new Still.Watcher() {
                @Override
                public boolean at(double share, int samples) {
                    return goesOn(share);
                }

                @Override
                public boolean goesOn(double share) {
                    return p.goesOn();
                }
            });
            if (!p.goesOn()) {
                return;
            }
            show(p, small, still.film(), false);
        }
        Still still = still(p.shot, scene, ground);
        boolean isWithin = scene.bounds().contains(p.shot.eye);
        (isWithin ? still.guided() : still).render(Quality.PROOF, all(p.shot), threads(), new Still.Watcher() {
            @Override
            public boolean at(double share, int samples) {
                p.share = share;
                p.shareThen = share;
                p.then = System.nanoTime();
                if (samples > 0) {
                    show(p, p.shot, still.film(), share >= 1);
                }
                return p.goesOn();
            }

            @Override
            public boolean goesOn(double share) {
                p.share = Math.max(p.share, share);
                tellNowAndThen(p);
                return p.goesOn();
            }
        });
    }

    private Still still(Shot shot, RenderScene scene, double ground) {
        Environment light = surroundings(shot.surroundings).turned(Math.toRadians(shot.turn), shot.strength);
        double unexposed = StrictMath.pow(2, -shot.stops);
        Backcloth cloth = new Backcloth(CLOTH_TOP * unexposed, CLOTH_BOTTOM * unexposed, ground);
        Camera camera = Camera.upright(shot.eye, shot.target, Math.toRadians(shot.degrees));
        return new Still(scene, light, null, camera, shot.width, shot.height, 1, BOUNCES).before(cloth);
    }

    private static Region all(Shot shot) {
        return new Region(0, 0, shot.width, shot.height);
    }

    private static int threads() {
        int cores = Runtime.getRuntime().availableProcessors();
        return Math.min(cores, Math.max(2, cores - 1)); // somebody waits for it
    }

    /** Under what stands free; where the design stands on a ground of its own, that one is seen. */
    private static double ground(Scene scene, Shot shot) {
        List<Integer> floors = scene.models().stream()
                .filter(m -> m.floor() && !m.hidden())
                .map(Scene.PlacedModel::index)
                .toList();
        if (shot.only != null || !floors.isEmpty()) {
            return Double.NEGATIVE_INFINITY;
        }
        return scene.box().min().y() - BELOW * scene.box().size().length();
    }

    private void show(Proof p, Shot shot, Film film, boolean last) {
        Development development = new Development(shot.stops, 0, Development.Curve.NEUTRAL, null, true);
        float[] radiance = development.radiance(film, 0, 0, shot.width, shot.height);
        p.png = Png.encode(shot.width, shot.height, development.bytes(radiance), DPI);
        p.done = last;
        p.pictures.incrementAndGet();
        tell(p);
    }

    private void tellNowAndThen(Proof p) {
        long now = System.nanoTime();
        long before = p.told.get();
        if (now - before > BETWEEN_NEWS.toNanos() && p.told.compareAndSet(before, now)) {
            tell(p);
        }
    }

    private void tell(Proof p) {
        p.told.set(System.nanoTime());
        if (!p.ended) {
            events.announce(p.account, "proof", p.news());
        }
    }
}
