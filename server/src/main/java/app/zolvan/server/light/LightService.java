package app.zolvan.server.light;

import app.zolvan.core.light.LightSetup;
import app.zolvan.server.problem.Problem;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** The light set-ups of projects, as they are stored. */
@Service
public class LightService {
    private static final String FIRST_NAME = "Light";

    private final LightMapper mapper;

    LightService(LightMapper mapper) {
        this.mapper = mapper;
    }

    /** Gives a project that was just made its first set-up. */
    public void createFirst(UUID project) {
        mapper.put(first(project));
    }

    /** A set-up to begin with. */
    public static LightRow first(UUID project) {
        return LightRow.of(project, UUID.randomUUID(), FIRST_NAME, LightSetup.FIRST, 0);
    }

    /** Never none, the first in view first. */
    public List<LightRow> setups(UUID project) {
        return mapper.setups(project);
    }

    /** @param id null for the first */
    public LightRow require(UUID project, @Nullable UUID id) {
        return id == null
                ? mapper.setups(project).get(0)
                : mapper.setup(project, id)
                        .orElseThrow(() -> Problem.conflict(
                                "light-gone",
                                "The light set-up that you were looking at is gone: somebody has removed it or taken it back."
                                        + " Choose another one.",
                                null));
    }

    public void put(LightRow row) {
        mapper.put(row);
    }

    public void delete(UUID project, UUID id) {
        mapper.delete(project, id);
    }
}
