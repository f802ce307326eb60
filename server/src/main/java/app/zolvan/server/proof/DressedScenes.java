package app.zolvan.server.proof;

import app.zolvan.core.ageing.Leaves;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.material.Foliage;
import app.zolvan.core.render.scene.Dress;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.texture.Textures;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.model.AgeingService;
import app.zolvan.server.model.LookInsideService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.scheme.LookTable;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.ArrayList;
import java.util.BitSet;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;

/** A project's model as a scheme dresses it, ready to be traced; the last one is kept, so that another view of it begins at once. */
@Service
class DressedScenes {
    private static final Duration IDLE = Duration.ofMinutes(10);

    private final AssetService assets;
    private final AgeingService ageing;
    private final LookInsideService lookInside;
    private final Cache<Wanted, RenderScene> last =
            Caffeine.newBuilder().maximumSize(1).expireAfterAccess(IDLE).build();

    DressedScenes(AssetService assets, AgeingService ageing, LookInsideService lookInside) {
        this.assets = assets;
        this.ageing = ageing;
        this.lookInside = lookInside;
    }

    /**
     * What is to be seen.
     *
     * @param version of the project
     * @param only    the parts that are shown; null for all
     * @param into    parts that one looks into besides those that one always does
     */
    record Wanted(
            UUID project,
            long version,
            String scheme,
            @Nullable Set<Integer> only,
            Set<Integer> into) {}

    /** The parts of which something is seen. */
    static List<Scene.Part> shown(Scene scene, @Nullable Set<Integer> only) {
        return scene.shownParts().stream()
                .filter(p -> only == null || only.contains(p.index()))
                .toList();
    }

    /** @param looks of the same project at the same version; something of it is shown */
    RenderScene of(Wanted wanted, LookTable looks) {
        return last.get(wanted, w -> build(w, looks));
    }

    private RenderScene build(Wanted wanted, LookTable looks) {
        Scene scene = looks.scene();
        RenderScene.Builder all =
                new RenderScene.Builder(Kernel.Kind.best(), new Textures(assets::bytes, Textures.BUDGET));
        Map<String, Mesh> meshes = new HashMap<>();
        for (Scene.Part part : shown(scene, wanted.only)) {
            Mesh mesh = meshes.computeIfAbsent(part.mesh(), m -> MeshCodec.decode(assets.bytes(m)));
            List<Dress> spans = new ArrayList<>();
            for (int s = 0; s < mesh.spanCount(); s++) {
                Dress worn = Dress.of(
                        looks.of(part.index(), s),
                        looks.back(part.index(), s),
                        corrodes -> ageing.of(scene, part.index(), corrodes));
                spans.add(part.closed() ? worn : worn.open());
                grow(all, looks, part, s);
            }
            boolean into = part.lookedInto() || wanted.into.contains(part.index());
            BitSet outer = into ? lookInside.outer(scene, part.index(), wanted.into) : null;
            all.addDressed(mesh, part.toWorld(), spans, outer);
        }
        return all.build();
    }

    /** The leaves on a span, each in its place. */
    private void grow(RenderScene.Builder all, LookTable looks, Scene.Part part, int span) {
        Foliage foliage = Foliage.of(looks.of(part.index(), span).material().surface());
        if (foliage == null) {
            return;
        }
        Leaves leaves = ageing.leaves(looks.scene(), part.index(), span, foliage.size());
        List<Dress> dress = List.of(Dress.of(foliage.surface()));
        leaves.covering(foliage.cover()).forEach(leaf -> all.addDressed(Leaves.BLADE, leaf.toWorld(), dress));
    }
}
