package app.zolvan.server.scheme;

import app.zolvan.server.problem.Problem;
import java.util.UUID;
import org.springframework.stereotype.Service;

/** Which schemes a project has. There is one a project so far. */
@Service
public class SchemeStore {
    private final SchemeMapper mapper;

    SchemeStore(SchemeMapper mapper) {
        this.mapper = mapper;
    }

    public void createFirst(UUID project) {
        mapper.insertScheme(UUID.randomUUID(), project, "A");
    }

    UUID first(UUID project) {
        return mapper.firstScheme(project)
                .map(SchemeMapper.SchemeRow::id)
                .orElseThrow(() -> Problem.notFound("scheme"));
    }
}
