package app.zolvan.server.library;

import app.zolvan.core.material.Surface;
import app.zolvan.core.measure.PictureDifference;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.event.EventService;
import app.zolvan.server.render.Picture;
import app.zolvan.server.render.RenderQueue;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.stereotype.Service;

/**
 * Traced pictures of samples, kept by what they depend on. What is asked for and not there is traced behind the scenes; who asked hears when it is done. Nothing is lost in a crash: it is asked for again.
 */
@Service
public class ChipService {
    private static final Logger LOG = LoggerFactory.getLogger(ChipService.class);

    private final ChipMapper mapper;
    private final AssetService assets;
    private final EventService events;
    /** Who waits for which picture. */
    private final Map<String, Set<UUID>> waiting = new ConcurrentHashMap<>();

    private final RenderQueue queue;
    private final ZolvanProperties properties;

    ChipService(
            ChipMapper mapper,
            AssetService assets,
            EventService events,
            ZolvanProperties properties,
            RenderQueue queue) {
        this.queue = queue;
        this.properties = properties;
        this.mapper = mapper;
        this.assets = assets;
        this.events = events;
    }

    /** A picture that was kept. */
    public Optional<byte[]> kept(String key) {
        return mapper.find(key).map(ChipMapper.Picture::png);
    }

    /** Keeps another picture of a material under a name of its own. */
    public void keep(String key, byte[] png) {
        mapper.put(key, png);
    }

    /** The picture, or nothing yet: then it is on its way, and the account is told. */
    Optional<byte[]> find(MaterialRow material, UUID account) {
        Surface surface = material.toSurface();
        String key = Chip.key(surface);
        Optional<byte[]> known = Chip.shipped(key).or(() -> kept(key));
        if (known.isEmpty()) {
            ask(key, surface, account);
        }
        return known;
    }

    /** How two samples' pictures differ; nothing while either is on its way. */
    Optional<PictureDifference> difference(MaterialRow one, MaterialRow other, UUID account) {
        Optional<byte[]> first = find(one, account);
        Optional<byte[]> second = find(other, account);
        if (first.isEmpty() || second.isEmpty()) {
            return Optional.empty();
        }
        try {
            return Optional.of(PictureDifference.of(first.get(), second.get()));
        } catch (IOException e) {
            throw new UncheckedIOException(e); // they are our own
        }
    }

    private void ask(String key, Surface surface, UUID account) {
        boolean[] first = {false};
        waiting.compute(key, (k, who) -> {
            first[0] = who == null;
            Set<UUID> all = who == null ? ConcurrentHashMap.newKeySet() : who;
            all.add(account);
            return all;
        });
        if (!first[0]) {
            return;
        }
        if (!queue.add(new ChipPicture(key, surface))) {
            waiting.remove(key); // too many at once: the next look asks again
        }
    }

    /** A sample's picture, made in one turn. */
    private final class ChipPicture implements Picture {
        private final String key;
        private final Surface surface;

        ChipPicture(String key, Surface surface) {
            this.key = key;
            this.surface = surface;
        }

        @Override
        public Object key() {
            return key;
        }

        @Override
        public Set<UUID> accounts() {
            return Set.copyOf(waiting.getOrDefault(key, Set.of()));
        }

        @Override
        public Rank rank() {
            return Rank.CHIP;
        }

        @Override
        public boolean work(Turn turn) {
            trace(key, surface, turn.threads());
            return false;
        }
    }

    private byte[] picture(Surface surface, int threads) {
        int samples = properties.chips().samples();
        return samples == 0
                ? Chip.picture(surface, assets::bytes, threads, Kernel.Kind.best())
                : Chip.picture(surface, assets::bytes, threads, Kernel.Kind.best(), Quality.samples(samples));
    }

    private void trace(String key, Surface surface, int threads) {
        boolean made = false;
        try {
            if (mapper.find(key).isEmpty()) {
                mapper.put(key, picture(surface, threads));
            }
            made = true;
        } catch (RuntimeException e) {
            LOG.error("chip {} could not be traced", key, e); // nobody is told, or they would ask for it again at once
        }
        Set<UUID> who = waiting.remove(key);
        if (made && who != null) {
            who.forEach(account -> events.announce(account, "chip", Map.of("key", key)));
        }
    }
}
