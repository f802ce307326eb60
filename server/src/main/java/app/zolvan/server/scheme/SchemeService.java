package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Slot;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.project.Project;
import java.util.HashMap;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Schemes and the looks they give. There is one scheme a project so far. */
@Service
public class SchemeService {
    private final SchemeMapper mapper;
    private final MaterialService materials;
    private final SchemeStore store;
    private final SceneSource scenes;

    SchemeService(SchemeMapper mapper, SchemeStore store, MaterialService materials, SceneSource scenes) {
        this.mapper = mapper;
        this.materials = materials;
        this.store = store;
        this.scenes = scenes;
    }

    UUID schemeId(UUID project) {
        return store.first(project);
    }

    /** The look of every region as things stand. */
    public LookTable looks(Project project) {
        Map<Slot, Entry> entries = new HashMap<>();
        UUID scheme = schemeId(project.id());
        mapper.entries(scheme).forEach(e -> entries.put(LookTable.slot(e), LookTable.entry(e)));
        Map<UUID, MaterialRow> rows = materials.ofProject(project.id()).stream()
                .collect(Collectors.toMap(MaterialRow::id, Function.identity()));
        return new LookTable(scenes.scene(project.id()), new Scheme(scheme.toString(), null, entries), rows);
    }
}
