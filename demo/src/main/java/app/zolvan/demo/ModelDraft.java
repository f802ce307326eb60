package app.zolvan.demo;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A demo model while it is put together: groups, parts and source materials by name. */
final class ModelDraft {
    private final List<Model.Group> groups = new ArrayList<>();
    private final List<Model.Part> parts = new ArrayList<>();
    private final List<Mesh> meshes = new ArrayList<>();
    private final Map<String, Integer> sourceIndex = new LinkedHashMap<>();
    private final List<SourceMaterial> sources = new ArrayList<>();

    int group(int parent, String name, Transform local) {
        groups.add(new Model.Group(parent, name, local));
        return groups.size() - 1;
    }

    int mesh(Mesh mesh) {
        meshes.add(mesh);
        return meshes.size() - 1;
    }

    void part(int group, String name, String source, int mesh, Transform local) {
        parts.add(new Model.Part(group, name, local, mesh, List.of(sourceIndex.get(source))));
    }

    void source(String name, String hex, double roughness, double opacity) {
        Surface surface = Surface.STANDARD
                .with(Parameter.BASE_COLOR, ColourNotation.parse(hex).orElseThrow())
                .with(Parameter.SPECULAR_ROUGHNESS, roughness)
                .with(Parameter.GEOMETRY_OPACITY, opacity);
        sourceIndex.put(name, sources.size());
        sources.add(new SourceMaterial(name, new Material("", name, null, surface)));
    }

    Model finish() {
        return new Model(groups, parts, meshes, sources, Map.of(), List.of());
    }
}
