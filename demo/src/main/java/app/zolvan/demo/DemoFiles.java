package app.zolvan.demo;

import app.zolvan.core.assign.Level;
import app.zolvan.core.assign.Look;
import app.zolvan.core.command.CommandLine;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.collada.ColladaWriter;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.exchange.obj.ObjWriter;
import app.zolvan.core.exchange.stl.StlWriter;
import app.zolvan.core.exchange.threemf.ThreeMfWriter;
import app.zolvan.core.material.Material;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.demo.StormLantern.Vessel;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * Writes the demo scenario into a folder: each model as GLB by our own writer, and {@code demo.json}, which says in which
 * schemes each model is dressed and which library material each matching set has in them.
 */
public final class DemoFiles {
    private DemoFiles() {}

    /** @param args the folder to write into */
    public static void main(String[] args) throws IOException {
        write(Path.of(args[0]));
    }

    public static void write(Path folder) throws IOException {
        Files.createDirectories(folder);
        glb(folder.resolve("storm-lantern.glb"), "Pilot storm lantern", StormLantern.model(Vessel.CLOSED_BODIES));
        Map<String, Object> sets = new LinkedHashMap<>();
        sets.put("mat_07", "PT-014");
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
        project.put(
                "schemes",
                List.of(
                        scheme("Harbour red", "As the harbour boats are painted.", "READY", null, sets),
                        scheme(
                                "Raw brass",
                                "Nothing painted: brass that may age.",
                                "IDEA",
                                "Harbour red",
                                Map.of("mat_07", "MT-039", "Material #4", "LE-011")),
                        scheme(
                                "Night black",
                                "For the winter catalogue.",
                                "IDEA",
                                "Harbour red",
                                Map.of("mat_07", "PT-022", "Solid 12 copy", "MT-045", "Material #4", "LE-005"))));
        Map<String, Object> demo = new LinkedHashMap<>();
        demo.put("studio", "Alder & Quay");
        demo.put("projects", List.of(project, sauna(folder)));
        Files.write(folder.resolve("demo.json"), JsonText.utf8(demo));
        DressedModel lantern = CommandLine.asArrived("Pilot storm lantern", StormLantern.model(Vessel.CLOSED_BODIES));
        glb(
                folder.resolve("storm-lantern-dressed.glb"),
                "Pilot storm lantern",
                dressed(StormLantern.model(Vessel.CLOSED_BODIES), sets));
        write(new ThreeMfWriter(), lantern, folder, "storm-lantern");
        write(new StlWriter(), lantern, folder, "storm-lantern");
        glb(
                folder.resolve("storm-lantern-boundaries.glb"),
                "Pilot storm lantern, boundary surfaces",
                stormLanternOfBoundaries());
        Files.writeString(folder.resolve("bracket.stp"), Bracket.step(), StandardCharsets.US_ASCII);
    }

    /** The model with the library materials that the demo project gives its matching sets, without their textures. */
    private static Model dressed(Model model, Map<String, Object> codes) {
        Map<String, Material> library = new LinkedHashMap<>();
        ShippedLibrary.plain().forEach(m -> library.put(m.code(), m));
        List<SourceMaterial> sources = model.sources().stream()
                .map(s -> codes.get(s.name()) instanceof String code
                        ? new SourceMaterial(s.name(), library.get(code))
                        : s)
                .toList();
        return new Model(model.groups(), model.parts(), model.meshes(), sources, Map.of(), List.of());
    }

    /** The sauna as its modelling program exports it: COLLADA in millimetres, and OBJ with MTL. */
    private static Map<String, Object> sauna(Path folder) throws IOException {
        DressedModel sauna = CommandLine.asArrived("Lomma floating sauna", FloatingSauna.model());
        write(new ColladaWriter(0.001, "millimeter"), sauna, folder, "floating-sauna");
        write(new ObjWriter(), sauna, folder, "floating-sauna");
        Map<String, Object> sets = new LinkedHashMap<>();
        sets.put("Default", "WD-011");
        sets.put("mat_03", "GL-001");
        sets.put("mat_14", "LQ-001");
        sets.put("mat_02 (2)", "ST-002");
        sets.put("mat_11", "PT-022");
        sets.put("Color_A05", "FB-016");
        sets.put("mat_19", "LI-002");
        Map<String, Object> project = new LinkedHashMap<>();
        project.put("name", "Lomma floating sauna");
        project.put("client", "Harbour Bathing Society");
        project.put("unit", "mm");
        project.put("file", "floating-sauna.dae");
        Map<String, Object> pale = new LinkedHashMap<>(sets);
        pale.put("Default", "WD-004");
        pale.put("mat_07", "WD-044");
        pale.put("mat_07.001", "WD-034");
        pale.put("Material #4", "WD-004");
        pale.put("mat_02 (2)", "MT-009");
        project.put(
                "schemes",
                List.of(
                        scheme("Tarred pine", "Dark against the water, slate above.", "IDEA", null, sets),
                        scheme("Pale ash", "Light inside and out, zinc above.", "READY", null, pale),
                        scheme(
                                "Larch and copper",
                                "Pale ash inside; what the weather reaches may change.",
                                "IDEA",
                                "Pale ash",
                                Map.of("Default", "WD-031", "mat_02 (2)", "MT-012"))));
        return project;
    }

    /** @param base the name of the scheme that it is based on; null for none */
    private static Map<String, Object> scheme(
            String name, String description, String state, String base, Map<String, Object> sets) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("name", name);
        out.put("description", description);
        out.put("state", state);
        if (base != null) {
            out.put("base", base);
        }
        out.put("sets", sets);
        return out;
    }

    private static void write(ModelWriter writer, DressedModel model, Path folder, String base) throws IOException {
        writer.write(model, base, (path, content) -> {
            Path file = folder.resolve(path);
            Files.createDirectories(file.getParent());
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
                content.writeTo(out);
            }
        });
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

    /** The sauna's model, likewise. */
    public static Model floatingSauna() {
        return FloatingSauna.model();
    }

    /** The lantern with its reservoir and oil as open boundary surfaces. */
    public static Model stormLanternOfBoundaries() {
        return StormLantern.model(Vessel.BOUNDARY_SURFACES);
    }

    /** The lantern's model, for tests and benchmarks that need something real to work on. */
    public static Model stormLantern() {
        return StormLantern.model(Vessel.CLOSED_BODIES);
    }
}
