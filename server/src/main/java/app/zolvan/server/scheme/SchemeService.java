package app.zolvan.server.scheme;

import app.zolvan.core.assign.Entry;
import app.zolvan.core.assign.Ladders;
import app.zolvan.core.assign.Scheme;
import app.zolvan.core.assign.Side;
import app.zolvan.core.assign.Slot;
import app.zolvan.core.assign.Target;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectRequest;
import app.zolvan.server.scheme.SchemeMapper.EntryRow;
import app.zolvan.server.scheme.SchemeMapper.SchemeRow;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Schemes and the looks they give. */
@Service
public class SchemeService {
    private final SchemeMapper mapper;
    private final MaterialService materials;
    private final SceneSource scenes;
    /** By the very scene: they stand until the model changes. */
    private final Cache<Scene, Ladders> ladders =
            Caffeine.newBuilder().weakKeys().build();

    private final Cache<Scene, Map<Target, Double>> areas =
            Caffeine.newBuilder().weakKeys().build();

    SchemeService(SchemeMapper mapper, MaterialService materials, SceneSource scenes) {
        this.mapper = mapper;
        this.materials = materials;
        this.scenes = scenes;
    }

    /** A project's schemes in the order of their dividers; never none. */
    List<SchemeRow> schemes(UUID project) {
        return mapper.schemes(project);
    }

    /** The scheme that a request is about; the project's first where it names none. */
    SchemeRow current(ProjectRequest request) {
        List<SchemeRow> all = schemes(request.project());
        UUID named = request.scheme() == null ? all.get(0).id() : request.scheme();
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
    SchemeRow currentOrFirst(ProjectRequest request) {
        List<SchemeRow> all = schemes(request.project());
        UUID named = request.scheme() == null ? all.get(0).id() : request.scheme();
        return all.stream().filter(s -> s.id().equals(named)).findFirst().orElse(all.get(0));
    }

    SchemeRow require(UUID project, UUID scheme) {
        return schemes(project).stream()
                .filter(s -> s.id().equals(scheme))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("scheme"));
    }

    /** A scheme, to make changes of what its slots hold. */
    SchemeEntries entries(UUID project, SchemeRow scheme) {
        return entries(rows(project), mapper::entries, scheme);
    }

    /** All schemes, in the order of their dividers. */
    List<SchemeEntries> allEntries(UUID project) {
        Map<UUID, SchemeRow> rows = rows(project);
        Map<UUID, List<EntryRow>> own =
                mapper.entriesOfProject(project).stream().collect(Collectors.groupingBy(EntryRow::schemeId));
        return rows.values().stream()
                .map(s -> entries(rows, id -> own.getOrDefault(id, List.of()), s))
                .toList();
    }

    private Map<UUID, SchemeRow> rows(UUID project) {
        Map<UUID, SchemeRow> rows = new LinkedHashMap<>();
        schemes(project).forEach(s -> rows.put(s.id(), s));
        return rows;
    }

    private static SchemeEntries entries(
            Map<UUID, SchemeRow> rows, Function<UUID, List<EntryRow>> ownOf, SchemeRow row) {
        Scheme base = row.base() == null
                ? null
                : entries(rows, ownOf, Objects.requireNonNull(rows.get(row.base())))
                        .scheme();
        Map<Slot, Entry> own =
                ownOf.apply(row.id()).stream().collect(Collectors.toMap(EntryRow::slot, EntryRow::entry));
        return new SchemeEntries(row, new Scheme(row.id().toString(), base, own));
    }

    /** The look of every region in the scheme that a request is about. */
    public LookTable looks(Project project, ProjectRequest request) {
        return looks(project, currentOrFirst(request).id(), request.side());
    }

    Ladders ladders(Scene scene) {
        return ladders.get(scene, s -> Ladders.of(LookTable.ladders(s)));
    }

    /** What each target covers, in m². */
    Map<Target, Double> areas(Scene scene) {
        return areas.get(scene, s -> {
            Map<Target, Double> out = new HashMap<>();
            for (Scene.Part p : s.parts()) {
                LookTable.targets(s, p).forEach(t -> out.merge(t, p.area(), Double::sum));
            }
            return out;
        });
    }

    public LookTable looks(Project project, UUID scheme, Side side) {
        return looks(project, entries(project.id(), require(project.id(), scheme)), side);
    }

    LookTable looks(Project project, SchemeEntries scheme, Side side) {
        Map<UUID, MaterialRow> rows = materials.ofProject(project.id()).stream()
                .collect(Collectors.toMap(MaterialRow::id, Function.identity()));
        Scene scene = scenes.scene(project.id());
        return new LookTable(scene, ladders(scene), scheme.scheme(), side, rows);
    }
}
