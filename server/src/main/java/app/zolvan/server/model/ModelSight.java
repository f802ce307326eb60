package app.zolvan.server.model;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.FilledSpace;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.server.asset.AssetService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Predicate;
import org.springframework.stereotype.Component;

/** What rays meet of a project's model. */
@Component
class ModelSight {
    private static final Duration IDLE = Duration.ofMinutes(10);

    private final AssetService assets;
    private final Cache<SceneKey, Optional<RenderScene>> whole =
            Caffeine.newBuilder().maximumSize(2).expireAfterAccess(IDLE).build();

    ModelSight(AssetService assets) {
        this.assets = assets;
    }

    private record SceneKey(UUID project, long revision) {}

    /** All that is not hidden, for one thread; kept for a while. */
    Sight whole(Scene scene) {
        return whole.get(
                        new SceneKey(scene.projectId(), scene.revision()),
                        k -> of(scene, p -> true).map(Seen::scene))
                .<Sight>map(SceneSight::new)
                .orElse(Sight.CLEAR);
    }

    /**
     * @param closed its parts that bound a volume
     * @param box    around all of it
     */
    record Seen(RenderScene scene, List<FilledSpace.Body> closed, Box3 box) {}

    Mesh mesh(Scene.Part part) {
        return MeshCodec.decode(assets.bytes(part.mesh()));
    }

    /** Some of the parts that are not hidden; nothing where there are none. */
    Optional<Seen> of(Scene scene, Predicate<Scene.Part> taken) {
        Map<String, Mesh> meshes = new HashMap<>();
        RenderScene.Builder all = new RenderScene.Builder(Kernel.Kind.best());
        List<FilledSpace.Body> closed = new ArrayList<>();
        Box3 box = Box3.EMPTY;
        for (Scene.Part p : scene.shownParts()) {
            if (taken.test(p)) {
                Mesh m = meshes.computeIfAbsent(p.mesh(), d -> mesh(p));
                all.add(m, p.toWorld(), Collections.nCopies(m.spanCount(), Surface.STANDARD));
                box = box.with(m.bounds(p.toWorld()));
                if (p.closed()) {
                    closed.add(new FilledSpace.Body(m, p.toWorld()));
                }
            }
        }
        return box.equals(Box3.EMPTY) ? Optional.empty() : Optional.of(new Seen(all.build(), closed, box));
    }
}
