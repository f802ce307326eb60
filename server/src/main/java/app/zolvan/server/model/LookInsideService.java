package app.zolvan.server.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.prepare.OuterFaces;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.view.ViewMapper;
import app.zolvan.server.view.ViewRow;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Arrays;
import java.util.BitSet;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** Which triangles of the parts that one looks into face the outside: worked out when it is asked for. */
@Service
public class LookInsideService {
    private static final Duration IDLE = Duration.ofMinutes(10);

    private final ModelStore store;
    private final ModelSight sight;
    private final ViewMapper views;
    private final Cache<SceneKey, Rest> rests =
            Caffeine.newBuilder().maximumSize(2).expireAfterAccess(IDLE).build();
    private final Cache<PartKey, BitSet> outer =
            Caffeine.newBuilder().maximumSize(2_000).expireAfterAccess(IDLE).build();

    LookInsideService(ModelStore store, ModelSight sight, ViewMapper views) {
        this.views = views;
        this.store = store;
        this.sight = sight;
    }

    /** @param also parts that one looks into besides those that one always does */
    private record SceneKey(UUID project, long revision, Set<Integer> also) {}

    private record PartKey(SceneKey scene, int part) {}

    /**
     * All that one does not look into.
     *
     * @param scene null where that is nothing
     */
    private record Rest(@Nullable RenderScene scene, Vec3 middle, double size) {}

    /**
     * A byte for each triangle: 1 where it faces the outside.
     *
     * @param view in which one may look into more than always; null for none
     */
    public byte[] outer(UUID project, int index, @Nullable UUID view) {
        Scene scene = store.scene(project);
        byte[] out = new byte[scene.requireRegion(index, 0).triangles()];
        outer(scene, index, lookedInto(project, view)).stream().forEach(t -> out[t] = 1);
        return out;
    }

    /**
     * The triangles that face the outside.
     *
     * @param also parts that one looks into besides those that one always does
     */
    public BitSet outer(Scene scene, int index, Set<Integer> also) {
        Scene.Part part = scene.requireRegion(index, 0);
        SceneKey key = new SceneKey(scene.projectId(), scene.revision(), also);
        return outer.get(
                new PartKey(key, index), k -> work(rests.get(key, r -> rest(scene, also)), sight.mesh(part), part));
    }

    /** Which parts one looks into in a view besides those that one always does; null for no view. */
    public Set<Integer> lookedInto(UUID project, @Nullable UUID view) {
        if (view == null) {
            return Set.of();
        }
        ViewRow row = views.view(project, view).orElseThrow(() -> Problem.notFound("view"));
        return Arrays.stream(row.lookedInto()).boxed().collect(Collectors.toSet());
    }

    private static BitSet work(Rest rest, Mesh mesh, Scene.Part part) {
        RenderScene all = rest.scene;
        return OuterFaces.of(
                mesh, part.toWorld(), () -> all == null ? Sight.CLEAR : new SceneSight(all), rest.middle, rest.size);
    }

    private Rest rest(Scene scene, Set<Integer> also) {
        return sight.of(scene, p -> !p.lookedInto() && !also.contains(p.index()))
                .map(s -> new Rest(
                        s.scene(),
                        s.box().min().plus(s.box().max()).times(0.5),
                        2 * s.box().size().length()))
                .orElse(new Rest(null, Vec3.ZERO, 1));
    }
}
