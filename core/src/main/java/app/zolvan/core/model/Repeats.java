package app.zolvan.core.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.RigidMotion;
import app.zolvan.core.geometry.Transform;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Finds geometry that a file holds several times, each copy moved and turned, and keeps it once: parts of the copies show
 * the first one, placed so that nothing moves.
 */
public final class Repeats {
    /** So many different shapes of one kinship are compared; more are kept apart. */
    private static final int MOST_SHAPES = 64;

    private Repeats() {}

    public static Model joined(Model model) {
        Map<Integer, List<Integer>> shapes = new HashMap<>();
        List<Mesh> kept = new ArrayList<>();
        int[] newIndex = new int[model.meshes().size()];
        Transform[] motion = new Transform[model.meshes().size()];
        for (int m = 0; m < model.meshes().size(); m++) {
            Mesh mesh = model.meshes().get(m);
            List<Integer> kin = shapes.computeIfAbsent(RigidMotion.kinship(mesh), k -> new ArrayList<>());
            for (int candidate : kin) {
                Optional<Transform> found = RigidMotion.between(kept.get(candidate), mesh);
                if (found.isPresent()) {
                    newIndex[m] = candidate;
                    motion[m] = found.get();
                    break;
                }
            }
            if (motion[m] == null) {
                motion[m] = Transform.IDENTITY;
                newIndex[m] = kept.size();
                kept.add(mesh);
                if (kin.size() < MOST_SHAPES) {
                    kin.add(newIndex[m]);
                }
            }
        }
        if (kept.size() == model.meshes().size()) {
            return model;
        }
        List<Model.Part> parts = model.parts().stream()
                .map(p -> new Model.Part(
                        p.group(),
                        p.name(),
                        motion[p.mesh()].equals(Transform.IDENTITY)
                                ? p.local()
                                : p.local().after(motion[p.mesh()]),
                        newIndex[p.mesh()],
                        p.sourceOfSpan()))
                .toList();
        return new Model(model.groups(), parts, kept, model.sources(), model.images(), model.notes());
    }
}
