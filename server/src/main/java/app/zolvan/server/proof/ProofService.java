package app.zolvan.server.proof;

import app.zolvan.core.light.Environment;
import app.zolvan.core.light.LightSetup;
import app.zolvan.core.render.film.Development;
import app.zolvan.core.render.film.Film;
import app.zolvan.core.render.path.Backcloth;
import app.zolvan.core.render.path.Still;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.path.Still.Region;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.texture.Png;
import app.zolvan.server.account.Account;
import app.zolvan.server.event.EventService;
import app.zolvan.server.light.SurroundingsService;
import app.zolvan.server.model.LookInsideService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.Query;
import app.zolvan.server.proof.DressedScenes.Wanted;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
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
    /** What is there first is by so much smaller, with few samples. */
    private static final int[] SMALLER = {4, 2};

    private static final Quality FIRST = Quality.samples(4);
    private static final int BOUNCES = 24;
    private static final int DPI = 96;

    private final DressedScenes scenes;
    private final SchemeService schemes;
    private final LookInsideService lookInside;
    private final EventService events;
    private final SurroundingsService surroundings;
    private final Cache<UUID, Proof> proofs = Caffeine.newBuilder()
            .maximumSize(MOST_KEPT)
            .expireAfterAccess(KEPT)
            .evictionListener((UUID account, Proof p, RemovalCause why) -> p.end())
            .build();
    private final Deque<Asked> waiting = new ArrayDeque<>();
    private final ExecutorService tracer = Executors.newSingleThreadExecutor(work -> {
        Thread t = new Thread(work, "proofs");
        t.setDaemon(true);
        return t;
    });

    ProofService(
            DressedScenes scenes,
            SchemeService schemes,
            LookInsideService lookInside,
            EventService events,
            SurroundingsService surroundings) {
        this.scenes = scenes;
        this.schemes = schemes;
        this.lookInside = lookInside;
        this.events = events;
        this.surroundings = surroundings;
    }

    @PreDestroy
    void stop() {
        proofs.asMap().values().forEach(Proof::end);
        tracer.shutdownNow();
    }

    /** One whose turn has not come. */
    private record Asked(Proof proof, LookTable looks) {}

    /**
     * Begins a proof of the scheme that the request is about, in the place of the account's last one.
     *
     * @return its name
     */
    UUID begin(Query query, Project project, Shot shot) {
        Account account = query.account();
        surroundings.picture(shot.light().surroundings());
        LookTable looks = schemes.looks(project, query);
        if (DressedScenes.shown(looks.scene(), shot.only()).isEmpty()) {
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "nothing-shown",
                    "Nothing is shown. Show a part of the model first.");
        }
        Wanted wanted = new Wanted(
                project.id(),
                project.version(),
                looks.scheme(),
                shot.only(),
                lookInside.lookedInto(project.id(), shot.view()));
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
            last.end();
            synchronized (waiting) {
                waiting.removeIf(a -> a.proof == last);
            }
        }
    }

    /** A proof of the account's. */
    Proof find(Account account, UUID project, UUID proof) {
        Proof p = proofs.getIfPresent(account.id());
        if (p == null || !p.id.equals(proof) || !p.wanted.project().equals(project)) {
            throw Problem.notFound("proof");
        }
        return p;
    }

    private void traceNext() {
        Asked asked;
        synchronized (waiting) {
            asked = waiting.poll();
        }
        if (asked == null) {
            return;
        }
        Proof p = asked.proof;
        try {
            p.begin();
            trace(p, asked.looks);
            p.finish();
        } catch (RuntimeException e) {
            LOG.error("a proof could not be traced", e);
            p.fail();
        }
        tell(p);
    }

    private void trace(Proof p, LookTable looks) {
        RenderScene scene = scenes.of(p.wanted, looks);
        Backcloth cloth = cloth(looks.scene(), p.shot);
        for (int less : SMALLER) {
            Shot small = p.shot.smaller(less);
            Still still = still(small, scene, cloth);
            if (!still.render(FIRST, all(small), threads(), whileWanted(p))) {
                return;
            }
            p.show(develop(small, still.film()));
            tell(p);
        }
        Still still = still(p.shot, scene, cloth);
        boolean isWithin = scene.bounds().contains(p.shot.camera().position());
        (isWithin ? still.guided() : still).render(Quality.PROOF, all(p.shot), threads(), new Still.Watcher() {
            @Override
            public boolean at(double share, int samples) {
                if (samples > 0) {
                    p.show(develop(p.shot, still.film()));
                }
                p.pass(share);
                tell(p);
                return p.goesOn();
            }

            @Override
            public boolean goesOn(double share) {
                if (p.comes(share)) {
                    tell(p);
                }
                return p.goesOn();
            }
        });
    }

    private static Still.Watcher whileWanted(Proof p) {
        return new Still.Watcher() {
            @Override
            public boolean at(double share, int samples) {
                return true;
            }

            @Override
            public boolean goesOn(double share) {
                return p.goesOn();
            }
        };
    }

    private Still still(Shot shot, RenderScene scene, Backcloth cloth) {
        LightSetup l = shot.light();
        Environment light = surroundings.picture(l.surroundings()).turned(Math.toRadians(l.turn()), l.strength());
        return new Still(scene, light, null, shot.camera(), shot.width(), shot.height(), 1, BOUNCES).before(cloth);
    }

    private static Region all(Shot shot) {
        return new Region(0, 0, shot.width(), shot.height());
    }

    private static int threads() {
        int cores = Runtime.getRuntime().availableProcessors();
        return Math.min(cores, Math.max(2, cores - 1)); // somebody waits for it
    }

    /** There is a ground under what stands free; where the design stands on one of its own, that one is seen. */
    private static Backcloth cloth(Scene scene, Shot shot) {
        double unexposed = StrictMath.pow(2, -shot.light().stops());
        Backcloth cloth =
                new Backcloth(shot.backdrop().top() * unexposed, shot.backdrop().bottom() * unexposed);
        boolean isFree = shot.only() == null && scene.models().stream().noneMatch(m -> m.floor() && !m.hidden());
        return isFree ? cloth.under(scene.box()) : cloth;
    }

    private static byte[] develop(Shot shot, Film film) {
        Development development = new Development(shot.light().stops(), 0, Development.Curve.NEUTRAL, null, true);
        float[] radiance = development.radiance(film, 0, 0, shot.width(), shot.height());
        return Png.encode(shot.width(), shot.height(), development.bytes(radiance), DPI);
    }

    private void tell(Proof p) {
        if (!p.isEnded()) {
            events.announce(p.account, "proof", p.news());
        }
    }
}
