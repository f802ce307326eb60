package app.zolvan.core.exchange.collada;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Arrival.UnitDecision;
import app.zolvan.core.exchange.Arrival.UpDecision;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Reads COLLADA 1.4 and 1.5: nodes and instances of nodes, units and up axis, the common profile's materials, triangles,
 * polygons with holes, lists, strips and fans. Skins and morphs show their base shape; animation, cameras, lights and
 * physics are left out with a note.
 */
public final class ColladaReader implements ModelReader {
    private static final Set<String> NUMBER_LISTS = Set.of("float_array", "p", "vcount", "h", "v");

    @Override
    public String format() {
        return "COLLADA";
    }

    @Override
    public boolean recognises(FileSet files) {
        String head = files.head();
        return head.contains("<COLLADA") || head.contains("collada.org/2005/11/COLLADASchema");
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        XmlTree root = XmlTree.parse(files.bytes(), "COLLADA", NUMBER_LISTS, null, reading);
        if (!root.name().equals("COLLADA")) {
            throw new ImportException(
                    "wrong-type", "This XML file is not COLLADA. Choose the file your program exported.");
        }
        return new Pass(root, files, reading).run();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final XmlTree root;
        private final Reading reading;
        private final ModelAssembly model;
        private final Map<String, XmlTree> byId = new HashMap<>();
        private final ColladaMaterials materials;
        private final Map<String, Shape> shapes = new HashMap<>();
        private final Deque<XmlTree> path = new ArrayDeque<>();

        /** A geometry's mesh; spans carry the numbers of material symbols. */
        private record Shape(int mesh, List<String> symbols) {}

        Pass(XmlTree root, FileSet files, Reading reading) {
            this.root = root;
            this.reading = reading;
            this.model = new ModelAssembly("COLLADA", reading);
            this.materials = new ColladaMaterials(byId, files, model, reading);
        }

        Arrival run() throws ImportException {
            collectIds();
            XmlTree unit = root.path("asset", "unit");
            double metres = unit == null ? 1 : unit.number("meter", 1);
            XmlTree axis = root.path("asset", "up_axis");
            String up = axis == null ? "Y_UP" : axis.text();
            XmlTree scene = root.path("scene", "instance_visual_scene");
            List<XmlTree> scenes = new ArrayList<>();
            if (scene != null && target(scene) != null) {
                scenes.add(target(scene));
            } else {
                root.all("library_visual_scenes").forEach(l -> scenes.addAll(l.all("visual_scene")));
            }
            for (XmlTree s : scenes) {
                for (XmlTree node : s.all("node")) {
                    node(node, Model.NONE, 0);
                }
            }
            if (scenes.isEmpty()) {
                looseGeometry();
            }
            noteUnused();
            String label = unit == null ? "m" : label(metres, unit.attribute("name", "unit"));
            return model.finish(
                    new UnitDecision(
                            metres,
                            label,
                            unit == null
                                    ? "The COLLADA file names no unit; its standard one is the metre."
                                    : "The COLLADA file says that one unit is " + label + ".",
                            true,
                            List.of()),
                    new UpDecision(
                            up.startsWith("Z") ? UpAxis.Z : up.startsWith("X") ? UpAxis.X : UpAxis.Y,
                            axis == null
                                    ? "The COLLADA file names no up axis; its standard one is Y."
                                    : "The COLLADA file says that " + up.substring(0, 1) + " points up.",
                            true));
        }

        private static String label(double metres, String name) {
            if (metres == 1) {
                return "m";
            }
            if (metres == 0.001) {
                return "mm";
            }
            if (metres == 0.01) {
                return "cm";
            }
            return Math.abs(metres - 0.0254) < 1e-9 ? "in" : TextNames.shown(name, "unit");
        }

        private void collectIds() {
            Deque<XmlTree> open = new ArrayDeque<>(List.of(root));
            while (!open.isEmpty()) {
                XmlTree e = open.pop();
                String id = e.attribute("id");
                if (id != null) {
                    byId.putIfAbsent(id, e);
                }
                e.children().forEach(open::push);
            }
        }

        private XmlTree target(XmlTree instance) {
            String url = instance.attribute("url", "");
            return url.startsWith("#") ? byId.get(url.substring(1)) : null;
        }

        private void looseGeometry() throws ImportException {
            for (XmlTree library : root.all("library_geometries")) {
                for (XmlTree g : library.all("geometry")) {
                    Shape shape = shape(g);
                    if (shape != null) {
                        part(shape, Map.of(), Model.NONE, g.attribute("name", g.attribute("id")), Transform.IDENTITY);
                    }
                }
            }
        }

        private void node(XmlTree node, int parent, int depth) throws ImportException {
            if (depth > reading.limits().depth() || path.contains(node)) {
                throw new ImportException(
                        "cyclic",
                        "“" + TextNames.shown(node.attribute("name", node.attribute("id")), "A group")
                                + "” in the COLLADA file holds itself, or is nested too deep. Export it again.");
            }
            path.push(node);
            Transform local = transform(node);
            String name = node.attribute("name", node.attribute("id"));
            List<XmlTree> shapesHere = new ArrayList<>(node.all("instance_geometry"));
            shapesHere.addAll(node.all("instance_controller"));
            List<XmlTree> inner = node.all("node");
            List<XmlTree> repeats = node.all("instance_node");
            boolean group = !inner.isEmpty() || !repeats.isEmpty() || shapesHere.size() > 1;
            int own = parent;
            int before = model.partCount();
            int groupsBefore = model.groupCount();
            if (group) {
                own = model.group(parent, name, local);
            }
            for (XmlTree instance : shapesHere) {
                XmlTree geometry = geometry(instance);
                Shape shape = geometry == null ? null : shape(geometry);
                if (shape != null) {
                    String partName = shapesHere.size() > 1 ? geometry.attribute("name", name) : name;
                    part(shape, bindings(instance), own, partName, group ? Transform.IDENTITY : local);
                }
            }
            for (XmlTree child : inner) {
                node(child, own, depth + 1);
            }
            for (XmlTree repeat : repeats) {
                XmlTree target = target(repeat);
                if (target == null) {
                    reading.note("“" + repeat.attribute("url", "")
                            + "” is kept in another file and was left out. Export everything into one file.");
                } else {
                    node(target, own, depth + 1);
                }
            }
            if (group && model.partCount() == before && model.groupCount() == groupsBefore + 1) {
                model.dropNewestGroup(); // holds cameras or lights only
            }
            path.pop();
        }

        private XmlTree geometry(XmlTree instance) {
            XmlTree target = target(instance);
            if (target == null) {
                reading.note("“" + instance.attribute("url", "") + "” is missing in the file and was left out.");
                return null;
            }
            if (target.name().equals("geometry")) {
                return target;
            }
            XmlTree skin = target.first("skin") != null ? target.first("skin") : target.first("morph");
            String source = skin == null ? "" : skin.attribute("source", "");
            reading.note("Skins and morphs show the shape they start from.");
            XmlTree base = source.startsWith("#") ? byId.get(source.substring(1)) : null;
            return base != null && base.name().equals("geometry") ? base : null;
        }

        private static Map<String, String> bindings(XmlTree instance) {
            Map<String, String> out = new HashMap<>();
            XmlTree common = instance.path("bind_material", "technique_common");
            if (common != null) {
                for (XmlTree m : common.all("instance_material")) {
                    String target = m.attribute("target", "");
                    out.put(m.attribute("symbol", ""), target.startsWith("#") ? target.substring(1) : target);
                }
            }
            return out;
        }

        private void part(Shape shape, Map<String, String> bindings, int group, String name, Transform local)
                throws ImportException {
            List<Integer> sources = new ArrayList<>();
            for (String symbol : shape.symbols) {
                sources.add(symbol.isEmpty() ? Model.NONE : materials.source(bindings.getOrDefault(symbol, symbol)));
            }
            model.part(group, name, local, shape.mesh, sources);
        }

        private Shape shape(XmlTree geometry) throws ImportException {
            String id = geometry.attribute("id", "");
            if (shapes.containsKey(id) && !id.isEmpty()) {
                return shapes.get(id);
            }
            XmlTree mesh = geometry.first("mesh") != null ? geometry.first("mesh") : geometry.first("convex_mesh");
            Shape shape = null;
            if (mesh == null) {
                reading.note("Splines and free-form shapes are left out; export them as meshes.");
            } else {
                ColladaMesh read = new ColladaMesh(mesh, byId, geometry.attribute("name", id), reading);
                CornerMesh.Built built = read.build();
                if (built != null && built.mesh().triangleCount() > 0) {
                    List<String> symbols = built.sources().stream()
                            .map(s -> s == Model.NONE ? "" : read.symbols().get(s))
                            .toList();
                    shape = new Shape(model.mesh(built.mesh()), symbols);
                }
            }
            shapes.put(id, shape);
            reading.progress(0.5 + 0.5 * shapes.size() / (shapes.size() + 20.0), "Building parts");
            return shape;
        }

        private static Transform transform(XmlTree node) {
            Transform t = Transform.IDENTITY;
            for (XmlTree e : node.children()) {
                double[] v;
                switch (e.name()) {
                    case "matrix" -> {
                        v = numbers(e, 16);
                        t = t.after(Transform.ofColumns(new double[] {
                            v[0], v[4], v[8], 0, v[1], v[5], v[9], 0, v[2], v[6], v[10], 0, v[3], v[7], v[11], 1
                        }));
                    }
                    case "translate" -> {
                        v = numbers(e, 3);
                        t = t.after(Transform.translation(v[0], v[1], v[2]));
                    }
                    case "rotate" -> {
                        v = numbers(e, 4);
                        Vec3 axis = new Vec3(v[0], v[1], v[2]);
                        if (axis.length() > 0) {
                            t = t.after(Transform.rotation(axis.normalised(), Math.toRadians(v[3])));
                        }
                    }
                    case "scale" -> {
                        v = numbers(e, 3);
                        t = t.after(Transform.scale(v[0], v[1], v[2]));
                    }
                    default -> {
                        // lookat and skew place cameras and cartoons
                    }
                }
            }
            return t;
        }

        /** So many numbers; not a number where the text has fewer. */
        private static double[] numbers(XmlTree e, int n) {
            double[] given = e.textNumbers();
            double[] out = new double[n];
            for (int i = 0; i < n; i++) {
                out[i] = i < given.length ? given[i] : Double.NaN;
            }
            return out;
        }

        private void noteUnused() {
            Set<String> seen = new HashSet<>();
            for (XmlTree library : root.children()) {
                if (!library.children().isEmpty() && seen.add(library.name())) {
                    switch (library.name()) {
                        case "library_animations", "library_animation_clips" ->
                            reading.note("Movements (animations) are left out.");
                        case "library_cameras" -> reading.note("Cameras are left out.");
                        case "library_lights" -> reading.note("Lights are left out; set them in the Light step.");
                        case "library_physics_scenes", "library_physics_models" ->
                            reading.note("Physics are left out.");
                        default -> {
                            // used, or nothing to see
                        }
                    }
                }
            }
        }
    }
}
