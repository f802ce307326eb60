package app.zolvan.core.model;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.RealSize;
import java.io.Serializable;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.DoubleConsumer;

/**
 * Makes a freshly read model ready to be dressed: numbers each mesh's smooth faces, lays metric texture coordinates on it
 * and measures every part. A mesh that parts show at different sizes becomes one mesh a size, since texture coordinates
 * are in world metres.
 *
 * @param model    the model with prepared meshes; groups, parts and their order unchanged
 * @param measures area, volume and closedness of each part, in world units
 */
public record Preparation(Model model, List<MeshMeasure> measures) implements Serializable {
    /** Triangles that meet at less than this angle belong to one face. */
    public static final double CREASE_ANGLE = Math.toRadians(30);

    /** @param progress told the share done, in [0, 1] */
    public static Preparation of(Model raw, DoubleConsumer progress) {
        Map<Variant, Integer> variants = new HashMap<>();
        Map<Integer, Topology> topologies = new HashMap<>();
        List<Mesh> meshes = new ArrayList<>();
        List<Model.Part> parts = new ArrayList<>();
        List<MeshMeasure> measures = new ArrayList<>();
        for (Model.Part part : raw.parts()) {
            Mesh mesh = raw.meshOf(part);
            Topology topology = topologies.computeIfAbsent(part.mesh(), m -> Topology.of(mesh));
            Vec3 stretch = rounded(raw.partToWorld(part).stretch());
            int index = variants.computeIfAbsent(new Variant(part.mesh(), stretch), v -> {
                meshes.add(RealSize.apply(withFaces(mesh, topology), stretch));
                return meshes.size() - 1;
            });
            parts.add(new Model.Part(part.group(), part.name(), part.local(), index, part.sourceOfSpan()));
            measures.add(MeshMeasure.of(mesh, topology, raw.partToWorld(part)));
            progress.accept((double) parts.size() / raw.parts().size());
        }
        Model model = new Model(raw.groups(), parts, meshes, raw.sources(), raw.images(), raw.notes());
        return new Preparation(model, List.copyOf(measures));
    }

    /** The mesh with its faces numbered: the file's own where it named them, else the connected smooth regions. */
    public static Mesh withFaces(Mesh mesh, Topology topology) {
        return mesh.faces() != null ? mesh : mesh.withFaces(topology.smoothFaces(CREASE_ANGLE));
    }

    /** One part's mesh that was changed after it had been made ready: its coordinates laid anew, and measured. */
    public static Shape again(Mesh mesh, Transform toWorld) {
        Mesh laid = RealSize.apply(mesh, rounded(toWorld.stretch()));
        return new Shape(laid, MeshMeasure.of(mesh, Topology.of(mesh), toWorld));
    }

    /** @param measure in world units */
    public record Shape(Mesh mesh, MeshMeasure measure) {}

    /** To nine significant digits, so that rounding in the hierarchy does not split what was one size. */
    private static Vec3 rounded(Vec3 v) {
        return new Vec3(rounded(v.x()), rounded(v.y()), rounded(v.z()));
    }

    private static double rounded(double v) {
        if (v == 0) {
            return 0;
        }
        double unit = Math.pow(10, Math.floor(Math.log10(v)) - 8);
        return Math.rint(v / unit) * unit;
    }

    private record Variant(int mesh, Vec3 stretch) {}
}
