package app.zolvan.server.proof;

import app.zolvan.core.light.Environment;
import app.zolvan.core.light.LightSetup;
import app.zolvan.core.render.path.Backcloth;
import app.zolvan.server.account.Account;
import app.zolvan.server.event.EventService;
import app.zolvan.server.light.SurroundingsService;
import app.zolvan.server.model.LookInsideService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.Query;
import app.zolvan.server.proof.DressedScenes.Wanted;
import app.zolvan.server.render.RenderQueue;
import app.zolvan.server.scheme.LookTable;
import app.zolvan.server.scheme.SchemeService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import com.github.benmanes.caffeine.cache.RemovalCause;
import jakarta.annotation.PreDestroy;
import java.time.Duration;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/**
 * Proofs: what the stage shows with its light traced, from where it is looked at. Each account has one, and the next takes its
 * place; they are traced with all other pictures, and whoever asked hears how far theirs has come. They are kept in memory
 * alone: whoever finds theirs gone asks for it again.
 */
@Service
class ProofService {
    private static final Duration KEPT = Duration.ofMinutes(10);
    private static final int MOST_KEPT = 100;
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
    private final RenderQueue queue;

    ProofService(
            DressedScenes scenes,
            SchemeService schemes,
            LookInsideService lookInside,
            EventService events,
            SurroundingsService surroundings,
            RenderQueue queue) {
        this.queue = queue;
        this.scenes = scenes;
        this.schemes = schemes;
        this.lookInside = lookInside;
        this.events = events;
        this.surroundings = surroundings;
    }

    @PreDestroy
    void stop() {
        proofs.asMap().values().forEach(Proof::end);
    }

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
        end(account);
        proofs.put(account.id(), proof);
        LightSetup l = shot.light();
        Environment light = surroundings.picture(l.surroundings()).turned(Math.toRadians(l.turn()), l.strength());
        queue.add(
                new ProofPicture(proof, () -> scenes.of(wanted, looks), light, cloth(looks.scene(), shot), this::tell));
        return proof.id;
    }

    /** Ends the account's proof, wherever it is. */
    void end(Account account) {
        Proof last = proofs.getIfPresent(account.id());
        if (last != null) {
            last.end();
            queue.remove(last.id);
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

    /** There is a ground under what stands free; where the design stands on one of its own, that one is seen. */
    private static Backcloth cloth(Scene scene, Shot shot) {
        double unexposed = StrictMath.pow(2, -shot.light().stops());
        Backcloth cloth =
                new Backcloth(shot.backdrop().top() * unexposed, shot.backdrop().bottom() * unexposed);
        boolean isFree = shot.only() == null && scene.models().stream().noneMatch(m -> m.floor() && !m.hidden());
        return isFree ? cloth.under(scene.box()) : cloth;
    }

    private void tell(Proof p) {
        if (!p.isEnded()) {
            events.announce(p.account, "proof", p.news());
        }
    }
}
