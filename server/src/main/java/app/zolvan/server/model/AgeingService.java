package app.zolvan.server.model;

import app.zolvan.core.ageing.AgeBake;
import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.ageing.Leaves;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.UUID;
import org.springframework.stereotype.Service;

/**
 * How readily parts age, place by place: worked out when it is asked for and kept while there is room. It depends on shapes
 * and places alone, so that it comes out the same each time.
 */
@Service
public class AgeingService {
    private static final long MOST_BYTES = 192L << 20;

    private final ModelStore store;
    private final ModelSight sight;
    private final Cache<PartKey, AgeFields> fields = Caffeine.newBuilder()
            .maximumWeight(MOST_BYTES)
            .weigher((PartKey k, AgeFields f) ->
                    f.resistances().length + 4 * f.atlas().uv().length)
            .build();

    AgeingService(ModelStore store, ModelSight sight) {
        this.store = store;
        this.sight = sight;
    }

    private record PartKey(UUID project, long revision, int part, boolean corrodes) {}

    /** @param corrodes whether it weathers as metal does */
    public AgeFields of(Scene scene, int index, boolean corrodes) {
        Scene.Part part = scene.requireRegion(index, 0);
        PartKey key = new PartKey(scene.projectId(), scene.revision(), index, corrodes);
        return fields.get(key, k -> bake(scene, part, corrodes));
    }

    /** The scene as it is shown now. */
    public AgeFields of(UUID project, int index, boolean corrodes) {
        return of(store.scene(project), index, corrodes);
    }

    /** The leaves that cover a span wholly, of the scene as it is shown now. */
    public Leaves leaves(UUID project, int index, int span, double size) {
        return leaves(store.scene(project), index, span, size);
    }

    /** The same of a scene. */
    public Leaves leaves(Scene scene, int index, int span, double size) {
        Scene.Part part = scene.requireRegion(index, span);
        return Leaves.on(sight.mesh(part), part.toWorld(), span, of(scene, index, false), size);
    }

    /** One at a time: it takes all cores. */
    private synchronized AgeFields bake(Scene scene, Scene.Part part, boolean corrodes) {
        double ground = scene.bounds().get(1);
        return AgeBake.of(
                sight.mesh(part), part.toWorld(), part.meanThickness(), ground, corrodes, () -> sight.whole(scene));
    }
}
