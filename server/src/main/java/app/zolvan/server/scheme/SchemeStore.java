package app.zolvan.server.scheme;

import app.zolvan.core.assign.SchemeState;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Gives a project that was just made its first scheme. */
@Service
public class SchemeStore {
    /** How the scheme is called that a project is made with. */
    public static final String FIRST = "First looks";

    private final SchemeMapper mapper;

    SchemeStore(SchemeMapper mapper) {
        this.mapper = mapper;
    }

    public void createFirst(UUID project) {
        mapper.putScheme(
                new SchemeMapper.SchemeRow(UUID.randomUUID(), project, null, "A", FIRST, "", SchemeState.IDEA, "", 0));
    }
}
