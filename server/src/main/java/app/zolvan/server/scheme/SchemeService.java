package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Ladders;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Slot;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Schemes and the looks they give. */
@Service
public class SchemeService {
    private final SchemeMapper mapper;
    private final MaterialService materials;
    private final SceneSource scenes;
    private final SchemeInView inView;
    /** By the very scene: they stand until the model changes. */
    private final Cache<Scene, Ladders> ladders =
            Caffeine.newBuilder().weakKeys().build();

    SchemeService(SchemeMapper mapper, MaterialService materials, SceneSource scenes, SchemeInView inView) {
        this.mapper = mapper;
        this.materials = materials;
        this.scenes = scenes;
        this.inView = inView;
    }

    /** A project's schemes in the order of their dividers; never none. */
    List<SchemeRow> schemes(UUID project) {
        return mapper.schemes(project);
    }

    /** The scheme that the request is about, of this project; its first where the request names none. */
    SchemeRow current(UUID project) {
        List<SchemeRow> all = schemes(project);
        UUID named = inView.named().orElse(all.get(0).id());
        return all.stream()
                .filter(s -> s.id().equals(named))
                .findFirst()
                .orElseThrow(() -> Problem.conflict(
                        "scheme-gone",
                        "The scheme that you were looking at is gone: somebody has deleted it or taken it back. Choose another"
                                + " one.",
                        null));
    }

    /** The same; the first where the one that is named is gone. */
    SchemeRow currentOrFirst(UUID project) {
        List<SchemeRow> all = schemes(project);
        UUID named = inView.named().orElse(all.get(0).id());
        return all.stream().filter(s -> s.id().equals(named)).findFirst().orElse(all.get(0));
    }

    SchemeRow require(UUID project, UUID scheme) {
        return schemes(project).stream()
                .filter(s -> s.id().equals(scheme))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("scheme"));
    }

    /** A scheme with those it is based on, as core has them. */
    Scheme resolved(UUID project, UUID scheme) {
        Map<UUID, SchemeRow> rows =
                schemes(project).stream().collect(Collectors.toMap(SchemeRow::id, Function.identity()));
        return resolved(rows, rows.get(scheme));
    }

    private @Nullable Scheme resolved(Map<UUID, SchemeRow> rows, @Nullable SchemeRow row) {
        if (row == null) {
            return null;
        }
        Map<Slot, Entry> entries = new HashMap<>();
        mapper.entries(row.id()).forEach(e -> entries.put(LookTable.slot(e), LookTable.entry(e)));
        return new Scheme(
                row.id().toString(), resolved(rows, row.base() == null ? null : rows.get(row.base())), entries);
    }

    /** The entries of a scheme, to make changes of. */
    SchemeEntries entries(UUID project, SchemeRow scheme) {
        Map<UUID, SchemeRow> rows =
                schemes(project).stream().collect(Collectors.toMap(SchemeRow::id, Function.identity()));
        return SchemeEntries.of(rows, mapper::entries, scheme);
    }

    /** The entries of all schemes, in the order of their dividers. */
    List<SchemeEntries> allEntries(UUID project) {
        List<SchemeRow> all = schemes(project);
        Map<UUID, SchemeRow> rows = all.stream().collect(Collectors.toMap(SchemeRow::id, Function.identity()));
        Map<UUID, List<SchemeMapper.EntryRow>> own = mapper.entriesOfProject(project).stream()
                .collect(Collectors.groupingBy(SchemeMapper.EntryRow::schemeId));
        return all.stream()
                .map(s -> SchemeEntries.of(rows, id -> own.getOrDefault(id, List.of()), s))
                .toList();
    }

    /** The look of every region in the scheme that the request is about. */
    public LookTable looks(Project project) {
        return looks(project, currentOrFirst(project.id()).id());
    }

    LookTable looks(Project project, UUID scheme) {
        Map<UUID, MaterialRow> rows = materials.ofProject(project.id()).stream()
                .collect(Collectors.toMap(MaterialRow::id, Function.identity()));
        Scene scene = scenes.scene(project.id());
        return new LookTable(
                scene, ladders.get(scene, s -> Ladders.of(LookTable.ladders(s))), resolved(project.id(), scheme), rows);
    }
}
