package app.zolvan.server.model;

import app.zolvan.core.geometry.FilledSpace;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.prepare.Exposure;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Which surfaces of a project's model one can come to see because nothing lies on them that one does not see through. */
@Service
public class ExposureService {
    private final ModelStore store;
    private final ModelSight sight;
    private final Cache<Covering, Covers> covers = Caffeine.newBuilder()
            .maximumSize(2)
            .expireAfterAccess(Duration.ofMinutes(10))
            .build();

    ExposureService(ModelStore store, ModelSight sight) {
        this.store = store;
        this.sight = sight;
    }

    /** A part's surface that arrived as one, or is a face of its own. */
    public record SeenSurface(int part, int span) {}

    private record Covering(UUID project, long revision, Set<Integer> clear) {}

    /** @param scene null where there is nothing */
    private record Covers(@Nullable RenderScene scene, FilledSpace filled) {
        Sight sight() {
            return scene == null ? Sight.CLEAR : new SceneSight(scene);
        }
    }

    /**
     * Those of some parts' surfaces that are seen.
     *
     * @param clear parts that cover nothing since one sees through them
     */
    public List<SeenSurface> seen(UUID project, Collection<Integer> parts, Set<Integer> clear) {
        Scene scene = store.scene(project);
        List<Scene.Part> asked =
                parts.stream().distinct().map(p -> scene.requireRegion(p, 0)).toList();
        Covers around = covers.get(
                new Covering(project, scene.revision(), clear),
                k -> sight.of(scene, p -> !clear.contains(p.index()))
                        .map(s -> new Covers(s.scene(), new FilledSpace(s.closed())))
                        .orElseGet(() -> new Covers(null, new FilledSpace(List.of()))));
        double stretch = Exposure.stretch(scene.box());
        return asked.parallelStream()
                .flatMap(p -> {
                    double[] open =
                            Exposure.of(sight.mesh(p), p.toWorld(), p.closed(), around.sight(), around.filled, stretch);
                    return IntStream.range(0, open.length)
                            .filter(s -> open[s] >= Exposure.SEEN)
                            .mapToObj(s -> new SeenSurface(p.index(), s));
                })
                .toList();
    }
}
