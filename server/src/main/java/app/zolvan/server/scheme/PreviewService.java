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
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import jakarta.annotation.PreDestroy;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashSet;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
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
    private final Deque<Wanted> waiting = new ArrayDeque<>();
    private final ExecutorService tracer = Executors.newSingleThreadExecutor(work -> {
        Thread t = new Thread(work, "previews");
        t.setDaemon(true);
        return t;
    });

    PreviewService(
            ChipService chips, AssetService assets, EventService events, SchemeService schemes, AgeingService ageing) {
        this.chips = chips;
        this.assets = assets;
        this.events = events;
        this.schemes = schemes;
        this.ageing = ageing;
    }

    @PreDestroy
    void stop() {
        tracer.shutdownNow();
    }

    /** @param who waits for it */
    private record Wanted(String key, Set<UUID> who, Surface surface, Supplier<Preview> preview) {
        Wanted and(Set<UUID> others) {
            Set<UUID> all = new HashSet<>(who);
            all.addAll(others);
            return new Wanted(key, all, surface, preview);
        }
    }

    /**
     * @param png  null where nothing is there yet
     * @param done whether it is the last
     */
    record Picture(String key, byte @Nullable [] png, boolean done) {}

    /** A material on a form. */
    Picture onForm(Account account, MaterialRow material, SampleForm form) {
        Surface surface = material.toSurface();
        return find(
                new Wanted(key(surface, form.name()), Set.of(account.id()), surface, () -> Preview.of(form, surface)));
    }

    /** A material on a part of a model, lying as what the part shows lies. */
    Picture onPart(Query query, Project project, MaterialRow material, int index, int span) {
        LookTable looks = schemes.looks(project, query);
        Scene.Part part = looks.scene().requireRegion(index, span);
        Surface surface = material.toSurface();
        boolean metric = looks.shown(index, span).look().mapping() instanceof Mapping.Box;
        Ageing aged = Ageing.of(surface);
        String where = part.mesh() + part.toWorld() + metric;
        String scene = aged.isNone() ? "" : project.id() + "/" + looks.scene().revision() + "/" + index;
        return find(new Wanted(
                key(surface, where + scene),
                Set.of(query.account().id()),
                surface,
                () -> new Preview(
                        MeshCodec.decode(assets.bytes(part.mesh())),
                        part.toWorld(),
                        part.meanThickness(),
                        metric,
                        aged.isNone() ? null : ageing.of(looks.scene(), index, aged.corrodes()))));
    }

    private static String key(Surface surface, String on) {
        return Digest.of((Chip.key(surface) + on + Preview.EDITION).getBytes(StandardCharsets.UTF_8));
    }

    private Picture find(Wanted wanted) {
        byte[] done = chips.kept(wanted.key).orElse(null);
        if (done != null) {
            return new Picture(wanted.key, done, true);
        }
        synchronized (waiting) {
            Wanted before = waiting.stream()
                    .filter(w -> w.key.equals(wanted.key))
                    .findFirst()
                    .orElse(null);
            if (before != null) {
                waiting.remove(before);
            }
            waiting.addFirst(before == null ? wanted : wanted.and(before.who));
            if (waiting.size() > MOST_WAITING) {
                waiting.removeLast();
            }
            if (before == null) {
                tracer.execute(this::trace);
            }
        }
        return new Picture(wanted.key, coarse.getIfPresent(wanted.key), false);
    }

    private void trace() {
        Wanted next;
        synchronized (waiting) {
            next = waiting.pollFirst();
        }
        if (next == null) {
            return;
        }
        if (chips.kept(next.key).isPresent()) { // it was being traced when somebody asked
            tell(next);
            return;
        }
        try {
            int threads = Math.max(1, Runtime.getRuntime().availableProcessors() - 1);
            Preview preview = next.preview.get();
            if (coarse.getIfPresent(next.key) == null) {
                coarse.put(next.key, preview.coarse(next.surface, assets::bytes, threads, Kernel.Kind.best()));
                tell(next);
            }
            byte[] fine = preview.picture(next.surface, assets::bytes, threads, Kernel.Kind.best(), this::isIdle);
            if (fine == null) {
                waitOn(next);
            } else {
                chips.keep(next.key, fine);
                tell(next);
            }
        } catch (RuntimeException e) {
            LOG.error("a closer look could not be traced", e);
        }
    }

    /** A finer picture gives way to those of which there is none yet. */
    private boolean isIdle() {
        synchronized (waiting) {
            return waiting.stream().allMatch(w -> coarse.getIfPresent(w.key) != null);
        }
    }

    /** Goes on with it when all others are there. */
    private void waitOn(Wanted given) {
        synchronized (waiting) {
            if (waiting.size() < MOST_WAITING && waiting.stream().noneMatch(w -> w.key.equals(given.key))) {
                waiting.addLast(given);
                tracer.execute(this::trace);
            }
        }
    }

    private void tell(Wanted w) {
        w.who.forEach(account -> events.announce(account, "chip", Map.of("key", w.key)));
    }
}
