package app.zolvan.core.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.RigidMotion;
import app.zolvan.core.geometry.Transform;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;

/**
 * Finds geometry that a file holds several times, each copy moved and turned, and keeps it once: parts of the copies show
 * the first one, placed so that nothing moves.
 */
public final class Repeats {
    /** Copies agree in area to this share, whatever their placement did to the last digits. */
    private static final double SAME_AREA = 1e-4;

    private Repeats() {}

    public static Model joined(Model model) {
        Map<Integer, TreeMap<Double, List<Integer>>> shapes = new HashMap<>();
        List<Mesh> kept = new ArrayList<>();
        int[] newIndex = new int[model.meshes().size()];
        Transform[] motion = new Transform[model.meshes().size()];
        for (int m = 0; m < model.meshes().size(); m++) {
            Mesh mesh = model.meshes().get(m);
            double area = mesh.area();
            TreeMap<Double, List<Integer>> kin =
                    shapes.computeIfAbsent(RigidMotion.kinship(mesh), k -> new TreeMap<>());
            newIndex[m] = kept.size();
            motion[m] = Transform.IDENTITY;
            for (List<Integer> alike : kin.subMap(area * (1 - SAME_AREA), true, area * (1 + SAME_AREA), true)
                    .values()) {
                for (int candidate : alike) {
                    Optional<Transform> found = newIndex[m] == kept.size()
                            ? RigidMotion.between(kept.get(candidate), mesh)
                            : Optional.empty();
                    if (found.isPresent()) {
                        newIndex[m] = candidate;
                        motion[m] = found.get();
                    }
                }
            }
            if (newIndex[m] == kept.size()) {
                kept.add(mesh);
                kin.computeIfAbsent(area, k -> new ArrayList<>()).add(newIndex[m]);
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
