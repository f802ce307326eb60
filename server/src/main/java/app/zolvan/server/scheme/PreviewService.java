package app.zolvan.server.scheme;

import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Digest;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.chip.Preview;
import app.zolvan.core.render.chip.SampleForm;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.event.EventService;
import app.zolvan.server.library.ChipService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.model.AgeingService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.Query;
import app.zolvan.server.render.Picture;
import app.zolvan.server.render.RenderQueue;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/**
 * Materials seen closely, on forms and on parts. A coarse picture is there first, and who asked hears of each. What was asked
 * last is traced first, and a fine picture gives way to it; who asks for much at once gets the last few.
 */
@Service
class PreviewService {
    private static final Logger LOG = LoggerFactory.getLogger(PreviewService.class);
    private static final int MOST_WAITING = 6;
    private static final int COARSE_KEPT = 50;

    private final ChipService chips;
    private final AssetService assets;
    private final EventService events;
    private final SchemeService schemes;
    private final AgeingService ageing;
    private final Cache<String, byte[]> coarse =
            Caffeine.newBuilder().maximumSize(COARSE_KEPT).build();
    private final RenderQueue queue;
    /** Pictures asked for and not done, the last asked for last. */
    private final Map<String, Closer> asked = new LinkedHashMap<>();

    PreviewService(
            ChipService chips,
            AssetService assets,
            EventService events,
            SchemeService schemes,
            AgeingService ageing,
            RenderQueue queue) {
        this.queue = queue;
        this.chips = chips;
        this.assets = assets;
        this.events = events;
        this.schemes = schemes;
        this.ageing = ageing;
    }

    /**
     * @param png  null where nothing is there yet
     * @param done whether it is the last
     */
    record Seen(String key, byte @Nullable [] png, boolean done) {}

    /** A material on a form. */
    Seen onForm(Account account, MaterialRow material, SampleForm form) {
        Surface surface = material.toSurface();
        return find(account, key(surface, form.name()), surface, () -> Preview.of(form, surface));
    }

    /** A material on a part of a model, lying as what the part shows lies. */
    Seen onPart(Query query, Project project, MaterialRow material, int index, int span) {
        LookTable looks = schemes.looks(project, query);
        Scene.Part part = looks.scene().requireRegion(index, span);
        Surface surface = material.toSurface();
        boolean metric = looks.shown(index, span).look().mapping() instanceof Mapping.Box;
        Ageing aged = Ageing.of(surface);
        String where = part.mesh() + part.toWorld() + metric;
        String scene = aged.isNone() ? "" : project.id() + "/" + looks.scene().revision() + "/" + index;
        return find(
                query.account(),
                key(surface, where + scene),
                surface,
                () -> new Preview(
                        MeshCodec.decode(assets.bytes(part.mesh())),
                        part.toWorld(),
                        part.meanThickness(),
                        metric,
                        aged.isNone() ? null : ageing.of(looks.scene(), index, aged.corrodes())));
    }

    private static String key(Surface surface, String on) {
        return Digest.of((Chip.key(surface) + on + Preview.EDITION).getBytes(StandardCharsets.UTF_8));
    }

    private Seen find(Account account, String key, Surface surface, Supplier<Preview> preview) {
        byte[] done = chips.kept(key).orElse(null);
        if (done != null) {
            return new Seen(key, done, true);
        }
        synchronized (asked) {
            Closer closer = asked.remove(key);
            if (closer == null) {
                closer = new Closer(key, surface, preview);
            }
            closer.who.add(account.id());
            asked.put(key, closer);
            queue.add(closer);
            if (asked.size() > MOST_WAITING) {
                String oldest = asked.keySet().iterator().next();
                asked.remove(oldest);
                queue.remove(oldest);
            }
        }
        return new Seen(key, coarse.getIfPresent(key), false);
    }

    private void forget(Closer closer) {
        synchronized (asked) {
            asked.remove(closer.key, closer);
        }
    }

    private void tell(Closer closer) {
        closer.who.forEach(account -> events.announce(account, "chip", Map.of("key", closer.key)));
    }

    /** A closer look: a coarse picture first, then a fine one, begun anew after it has given way. */
    private final class Closer implements Picture {
        private final String key;
        private final Surface surface;
        private final Supplier<Preview> preview;
        private final Set<UUID> who = ConcurrentHashMap.newKeySet();

        Closer(String key, Surface surface, Supplier<Preview> preview) {
            this.key = key;
            this.surface = surface;
            this.preview = preview;
        }

        @Override
        public Object key() {
            return key;
        }

        @Override
        public Set<UUID> accounts() {
            return Set.copyOf(who);
        }

        @Override
        public Rank rank() {
            return coarse.getIfPresent(key) == null ? Rank.FIRST : Rank.CLOSER;
        }

        @Override
        public boolean work(Turn turn) {
            boolean more = false;
            try {
                more = !trace(turn);
            } catch (RuntimeException e) {
                LOG.error("a closer look could not be traced", e);
            }
            if (!more) {
                forget(this);
            }
            return more;
        }

        private boolean trace(Turn turn) {
            if (chips.kept(key).isPresent()) { // another process was quicker
                tell(this);
                return true;
            }
            Preview form = preview.get();
            if (coarse.getIfPresent(key) == null) {
                coarse.put(key, form.coarse(surface, assets::bytes, turn.threads(), Kernel.Kind.best()));
                tell(this);
            }
            byte[] fine =
                    form.picture(surface, assets::bytes, turn.threads(), Kernel.Kind.best(), () -> !turn.isOver());
            if (fine == null) {
                return false;
            }
            chips.keep(key, fine);
            tell(this);
            return true;
        }
    }
}
