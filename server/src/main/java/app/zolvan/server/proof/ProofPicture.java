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
import app.zolvan.server.render.Picture;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.function.Consumer;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;

/** A proof as it is traced: small pictures first, then the whole one, which gets finer pass by pass. */
final class ProofPicture implements Picture {
    private static final Logger LOG = LoggerFactory.getLogger(ProofPicture.class);
    /** Factors by which the first pictures are smaller, made with few samples. */
    private static final int[] SMALLER = {4, 2};

    private static final Quality FIRST = Quality.samples(4);
    private static final int BOUNCES = 24;
    private static final int DPI = 96;

    private final Proof proof;
    private final Supplier<RenderScene> dressed;
    private final Environment light;
    private final Backcloth cloth;
    private final Consumer<Proof> news;
    private @Nullable RenderScene scene;
    /** Number of small pictures that are there. */
    private final AtomicInteger small = new AtomicInteger();

    private @Nullable Still still;

    /**
     * @param dressed the model as it is to be seen
     * @param light   as it stands about the model
     * @param news    told when there is a better picture, and how far it has come
     */
    ProofPicture(Proof proof, Supplier<RenderScene> dressed, Environment light, Backcloth cloth, Consumer<Proof> news) {
        this.proof = proof;
        this.dressed = dressed;
        this.light = light;
        this.cloth = cloth;
        this.news = news;
    }

    @Override
    public Object key() {
        return proof.id;
    }

    @Override
    public Set<UUID> accounts() {
        return Set.of(proof.account);
    }

    @Override
    public Rank rank() {
        return small.get() < SMALLER.length ? Rank.FIRST : Rank.PROOF;
    }

    @Override
    public boolean work(Turn turn) {
        boolean more = false;
        try {
            more = !trace(turn) && proof.goesOn();
            if (!more) {
                proof.finish();
            }
        } catch (RuntimeException e) {
            LOG.error("a proof could not be traced", e);
            proof.fail();
        }
        news.accept(proof);
        return more;
    }

    /** @return whether it is as good as it is to be */
    private boolean trace(Turn turn) {
        if (scene == null) {
            proof.begin();
            scene = dressed.get();
        }
        while (small.get() < SMALLER.length) {
            Shot shot = proof.shot.smaller(SMALLER[small.get()]);
            Still coarse = still(shot, scene);
            if (!coarse.render(FIRST, all(shot), turn.threads(), whileWanted())) {
                return false;
            }
            proof.show(develop(shot, coarse.film()));
            news.accept(proof);
            small.incrementAndGet();
        }
        if (still == null) {
            still = still(proof.shot, scene);
            boolean isWithin = scene.bounds().contains(proof.shot.camera().position());
            if (isWithin) {
                still.guided();
            }
        }
        return still.render(Quality.PROOF, all(proof.shot), turn.threads(), refining(still, turn));
    }

    private Still.Watcher refining(Still of, Turn turn) {
        return new Still.Watcher() {
            @Override
            public boolean at(double share, int samples) {
                if (samples > 0) {
                    proof.show(develop(proof.shot, of.film()));
                }
                proof.pass(share);
                news.accept(proof);
                return proof.goesOn() && !turn.isOver();
            }

            @Override
            public boolean goesOn(double share) {
                if (proof.comes(share)) {
                    news.accept(proof);
                }
                return proof.goesOn() && !turn.isOver();
            }
        };
    }

    private Still.Watcher whileWanted() {
        return new Still.Watcher() {
            @Override
            public boolean at(double share, int samples) {
                return true;
            }

            @Override
            public boolean goesOn(double share) {
                return proof.goesOn();
            }
        };
    }

    private Still still(Shot shot, RenderScene of) {
        return new Still(of, light, null, shot.camera(), shot.width(), shot.height(), 1, BOUNCES).before(cloth);
    }

    private static Region all(Shot shot) {
        return new Region(0, 0, shot.width(), shot.height());
    }

    private static byte[] develop(Shot shot, Film film) {
        LightSetup l = shot.light();
        Development development = new Development(l.stops(), 0, Development.Curve.NEUTRAL, null, true);
        float[] radiance = development.radiance(film, 0, 0, shot.width(), shot.height());
        return Png.encode(shot.width(), shot.height(), development.bytes(radiance), DPI);
    }
}
