package app.zolvan.demo;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.material.Material;
import app.zolvan.core.model.Model;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes the demo scenario into a folder: each model as GLB by our own writer, and {@code demo.json}, which says which
 * library material each matching set and part starts with.
 */
public final class DemoFiles {
    private DemoFiles() {}

    /** @param args the folder to write into */
    public static void main(String[] args) throws IOException {
        write(Path.of(args[0]));
    }

    public static void write(Path folder) throws IOException {
        Files.createDirectories(folder);
        glb(folder.resolve("storm-lantern.glb"), "Pilot storm lantern", StormLantern.model());
        Map<String, Object> sets = new LinkedHashMap<>();
        sets.put("mat_07", "PT-017");
        sets.put("Solid 12 copy", "MT-003");
        sets.put("mat_03", "GL-001");
        sets.put("mat_03.001", "LQ-004");
        sets.put("Default", "FB-011");
        sets.put("mat_11", "LI-001");
        sets.put("Material #4", "LE-002");
        sets.put("Solid 12", "MT-009");
        sets.put("mat_09", "MT-003");
        Map<String, Object> project = new LinkedHashMap<>();
        project.put("name", "Pilot storm lantern");
        project.put("client", "Brannoch Outfitters");
        project.put("unit", "mm");
        project.put("file", "storm-lantern.glb");
        project.put("sets", sets);
        Map<String, Object> demo = new LinkedHashMap<>();
        demo.put("studio", "Alder & Quay");
        demo.put("projects", List.of(project));
        Files.write(folder.resolve("demo.json"), JsonText.utf8(demo));
    }

    /** Writes a model with the looks it was modelled with. */
    public static void glb(Path file, String name, Model model) throws IOException {
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
            GltfWriter.write(
                    new DressedModel(name, model, (p, s) -> sourceLook(model, p, s), image -> new byte[0]), out);
        }
    }

    private static Look sourceLook(Model model, int part, int span) {
        Material material = model.sources()
                .get(model.parts().get(part).sourceOfSpan().get(span))
                .material();
        return Look.of(material, null, 0, Level.PART);
    }

    /** The lantern's model, for tests and benchmarks that need something real to work on. */
    public static Model stormLantern() {
        return StormLantern.model();
    }
}
