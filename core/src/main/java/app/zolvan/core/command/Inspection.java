package app.zolvan.core.command;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshFaces;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.Repeats;
import app.zolvan.core.model.SourceMaterial;
import java.lang.management.ManagementFactory;
import java.lang.management.MemoryPoolMXBean;
import java.lang.management.MemoryType;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/** What a file holds, counted and measured, as plain values for JSON. Lengths in metres. */
final class Inspection {
    private Inspection() {}

    static Map<String, Object> of(Arrival arrival) {
        Model model = Repeats.joined(arrival.model());
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("format", arrival.format());
        out.put(
                "unit",
                ordered(
                        "name",
                        arrival.unit().label(),
                        "metres",
                        arrival.unit().metres(),
                        "certain",
                        arrival.unit().certain(),
                        "reason",
                        arrival.unit().reason()));
        out.put(
                "upAxis",
                ordered(
                        "axis",
                        arrival.up().axis().name(),
                        "certain",
                        arrival.up().certain(),
                        "reason",
                        arrival.up().reason()));
        out.put("groups", model.groups().size());
        out.put("parts", model.parts().size());
        Counts counts = new Counts();
        Topology[] topologies = new Topology[model.meshes().size()];
        MeshFaces[] faces = new MeshFaces[topologies.length];
        for (int m = 0; m < topologies.length; m++) {
            Mesh mesh = model.meshes().get(m);
            topologies[m] = Topology.of(mesh);
            faces[m] = MeshFaces.of(Preparation.withFaces(mesh, topologies[m]));
        }
        for (Model.Part part : model.parts()) {
            counts.add(model, part, topologies[part.mesh()], faces[part.mesh()]);
        }
        out.put("triangles", counts.triangles);
        out.put("vertices", counts.vertices);
        out.put(
                "faces",
                ordered(
                        "all",
                        counts.faces,
                        "planar",
                        counts.planar,
                        "cylindrical",
                        counts.cylindrical,
                        "free",
                        counts.faces - counts.planar - counts.cylindrical));
        out.put("meshes", model.meshes().size());
        out.put("instances", model.parts().size() - model.meshes().size());
        List<Object> sources = new ArrayList<>();
        for (SourceMaterial s : model.sources()) {
            sources.add(ordered(
                    "name",
                    s.name(),
                    "colour",
                    CommandLine.hex(s.material()),
                    "textures",
                    s.material().surface().textures().size()));
        }
        out.put("sourceMaterials", sources);
        List<Object> textures = new ArrayList<>();
        model.images()
                .forEach((digest, i) -> textures.add(
                        ordered("name", i.name(), "type", i.mediaType(), "width", i.width(), "height", i.height())));
        out.put("textures", textures);
        List<Object> variants = new ArrayList<>();
        arrival.variants().forEach(v -> variants.add(v.name()));
        out.put("variants", variants);
        Box3 b = model.bounds();
        out.put(
                "bounds",
                ordered(
                        "min",
                        List.of(b.min().x(), b.min().y(), b.min().z()),
                        "max",
                        List.of(b.max().x(), b.max().y(), b.max().z())));
        out.put("surfaceArea", counts.area);
        out.put("volumeOfClosedParts", counts.volume);
        out.put("closedParts", counts.closed);
        out.put("withoutCoordinates", counts.bare);
        Set<String> warnings = new LinkedHashSet<>();
        if (!arrival.unit().certain()) {
            warnings.add(arrival.unit().reason());
        }
        if (!arrival.up().certain()) {
            warnings.add(arrival.up().reason());
        }
        out.put("warnings", List.copyOf(warnings));
        out.put("unused", model.notes());
        return out;
    }

    static long peakHeapMb() {
        long bytes = 0;
        for (MemoryPoolMXBean pool : ManagementFactory.getMemoryPoolMXBeans()) {
            if (pool.getType() == MemoryType.HEAP) {
                bytes += pool.getPeakUsage().getUsed();
            }
        }
        return bytes >> 20;
    }

    private static Map<String, Object> ordered(Object... keysAndValues) {
        Map<String, Object> map = new LinkedHashMap<>();
        for (int i = 0; i < keysAndValues.length; i += 2) {
            map.put((String) keysAndValues[i], keysAndValues[i + 1]);
        }
        return map;
    }

    /** Sums over parts. */
    private static final class Counts {
        private long triangles;
        private long vertices;
        private long faces;
        private long planar;
        private long cylindrical;
        private double area;
        private double volume;
        private int closed;
        private int bare;

        void add(Model model, Model.Part part, Topology topology, MeshFaces meshFaces) {
            Mesh mesh = model.meshOf(part);
            MeshMeasure measure = MeshMeasure.of(mesh, topology, model.partToWorld(part));
            triangles += mesh.triangleCount();
            vertices += mesh.vertexCount();
            faces += meshFaces.count();
            planar += meshFaces.count(MeshFaces.Shape.PLANAR);
            cylindrical += meshFaces.count(MeshFaces.Shape.CYLINDRICAL);
            area += measure.area();
            volume += measure.volume();
            closed += measure.closed() ? 1 : 0;
            bare += mesh.uv() == null ? 1 : 0;
        }
    }
}
