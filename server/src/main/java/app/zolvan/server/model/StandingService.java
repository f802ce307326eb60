package app.zolvan.server.model;

import app.zolvan.core.context.Standpoint;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.server.problem.Problem;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/** Where one can stand in a project's model, and whether one is inside it there. */
@Service
public class StandingService {
    private static final Duration IDLE = Duration.ofMinutes(10);

    private final ModelStore store;
    private final ModelSight sight;
    private final Cache<SceneKey, Optional<RenderScene>> models =
            Caffeine.newBuilder().maximumSize(2).expireAfterAccess(IDLE).build();

    StandingService(ModelStore store, ModelSight sight) {
        this.store = store;
        this.sight = sight;
    }

    private record SceneKey(UUID project, long revision) {}

    public boolean isEnclosed(UUID project, Vec3 point) {
        return Standpoint.isEnclosed(sight(project), point);
    }

    /** See {@link Standpoint#at}. */
    public Standpoint at(UUID project, Vec3 picked, Vec3 seen, Vec3 along) {
        return Standpoint.at(sight(project), picked, seen, along)
                .orElseThrow(() -> Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "no-room",
                        "Nobody can stand there: what is above is too low. Click a free spot of the floor."));
    }

    private Sight sight(UUID project) {
        Scene scene = store.scene(project);
        Optional<RenderScene> all = models.get(
                new SceneKey(project, scene.revision()),
                k -> sight.of(scene, p -> true).map(ModelSight.Seen::scene));
        return all == null || all.isEmpty() ? Sight.CLEAR : new SceneSight(all.get());
    }
}
