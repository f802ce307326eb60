package app.zolvan.server.model;

import app.zolvan.core.geometry.FilledSpace;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.prepare.Exposure;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import java.util.stream.IntStream;
import org.springframework.stereotype.Service;

/** Which surfaces of a project's model one can come to see because nothing lies on them. */
@Service
public class ExposureService {
    /** So far a way has to be free from a surface, in metres, or as a share of a small model. */
    private static final double STRETCH = 0.05;

    private static final double SHARE = 0.02;

    private final ModelStore store;
    private final ModelSight sight;

    ExposureService(ModelStore store, ModelSight sight) {
        this.store = store;
        this.sight = sight;
    }

    /** A part's surface that arrived as one, or is a face of its own. */
    public record SeenSurface(int part, int span) {}

    /** Those of some parts' surfaces that are seen. */
    public List<SeenSurface> seen(UUID project, Collection<Integer> parts) {
        Scene scene = store.scene(project);
        List<Scene.Part> asked =
                parts.stream().distinct().map(p -> scene.requireRegion(p, 0)).toList();
        FilledSpace filled = sight.filled(scene);
        double stretch = Math.min(STRETCH, SHARE * scene.box().size().length());
        return asked.parallelStream()
                .flatMap(p -> {
                    Mesh mesh = sight.mesh(p);
                    double[] open = Exposure.of(mesh, p.toWorld(), p.closed(), sight.whole(scene), filled, stretch);
                    return IntStream.range(0, open.length)
                            .filter(s -> open[s] >= Exposure.SEEN)
                            .mapToObj(s -> new SeenSurface(p.index(), s));
                })
                .toList();
    }
}
