package app.zolvan.server.model;

import app.zolvan.core.context.Standpoint;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.problem.Problem;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/** Where one can stand in a project's model, and whether one is inside it there. */
@Service
public class StandingService {
    private final ModelStore store;
    private final ModelSight sight;

    StandingService(ModelStore store, ModelSight sight) {
        this.store = store;
        this.sight = sight;
    }

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
        return sight.whole(store.scene(project));
    }
}
