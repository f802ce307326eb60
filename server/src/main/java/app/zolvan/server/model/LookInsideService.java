package app.zolvan.server.model;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Surface;
import app.zolvan.core.prepare.OuterFaces;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.scene.SceneSight;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.server.asset.AssetService;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.BitSet;
import java.util.Collections;
import java.util.HashMap;
import java.util.Map;
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
    private final AssetService assets;
    private final Cache<SceneKey, Rest> rests =
            Caffeine.newBuilder().maximumSize(2).expireAfterAccess(IDLE).build();
    private final Cache<PartKey, BitSet> outer =
            Caffeine.newBuilder().maximumSize(2_000).expireAfterAccess(IDLE).build();

    LookInsideService(ModelStore store, AssetService assets) {
        this.store = store;
        this.assets = assets;
    }

    private record SceneKey(UUID project, long revision) {}

    private record PartKey(SceneKey scene, int part) {}

    /**
     * All that one does not look into.
     *
     * @param scene null where that is nothing
     */
    private record Rest(@Nullable RenderScene scene, Vec3 middle, double size) {}

    /** A byte for each triangle: 1 where it faces the outside. */
    public byte[] outer(UUID project, int index) {
        Scene scene = store.scene(project);
        Scene.Part part = scene.requireRegion(index, 0);
        SceneKey key = new SceneKey(project, scene.revision());
        Mesh mesh = mesh(part);
        BitSet found = outer.get(new PartKey(key, index), k -> work(rests.get(key, r -> rest(scene)), mesh, part));
        byte[] out = new byte[mesh.triangleCount()];
        found.stream().forEach(t -> out[t] = 1);
        return out;
    }

    private static BitSet work(Rest rest, Mesh mesh, Scene.Part part) {
        OuterFaces.Sight sight = rest.scene == null
                ? (from, towards, most) -> Double.POSITIVE_INFINITY
                : new SceneSight(rest.scene)::distance;
        return OuterFaces.of(mesh, part.toWorld(), sight, rest.middle, rest.size);
    }

    private Rest rest(Scene scene) {
        Set<Integer> hidden = scene.models().stream()
                .filter(Scene.PlacedModel::hidden)
                .map(Scene.PlacedModel::index)
                .collect(Collectors.toSet());
        Map<String, Mesh> meshes = new HashMap<>();
        RenderScene.Builder all = new RenderScene.Builder(Kernel.Kind.best());
        Box3 box = Box3.EMPTY;
        for (Scene.Part p : scene.parts()) {
            if (!p.lookedInto() && !hidden.contains(p.model())) {
                Mesh m = meshes.computeIfAbsent(p.mesh(), d -> mesh(p));
                all.add(m, p.toWorld(), Collections.nCopies(m.spanCount(), Surface.STANDARD));
                box = box.with(m.bounds(p.toWorld()));
            }
        }
        if (box.equals(Box3.EMPTY)) {
            return new Rest(null, Vec3.ZERO, 1);
        }
        return new Rest(
                all.build(),
                box.min().plus(box.max()).times(0.5),
                2 * box.size().length());
    }

    private Mesh mesh(Scene.Part part) {
        return MeshCodec.decode(assets.bytes(part.mesh()));
    }
}
