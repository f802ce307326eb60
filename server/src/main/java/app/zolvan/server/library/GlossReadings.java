package app.zolvan.server.library;

import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.GlossMeter;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;

/** What the gloss meter reads, kept for surfaces that are asked about again and again. */
final class GlossReadings {
    private static final Cache<Surface, Double> READ =
            Caffeine.newBuilder().maximumSize(10_000).build();

    private GlossReadings() {}

    static double of(Surface s) {
        return READ.get(s, GlossMeter::measure);
    }
}
