package app.zolvan.core.exchange.usd;

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
import app.zolvan.core.exchange.archive.ZipArchive;
import app.zolvan.core.exchange.usd.UsdMesh.Shape;
import app.zolvan.core.geometry.CornerMesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Reads USD as text, in its binary form and as a USDZ package: layers with references, payloads, inherited prims and
 * chosen variants, transforms, meshes with subsets, simple bodies, point instancers, and preview surfaces with their
 * pictures. Values over time show their first moment; lights, cameras, curves and skins are left out with a note.
 */
public final class UsdReader implements ModelReader {

    @Override
    public String format() {
        return "USD";
    }

    @Override
    public boolean recognises(FileSet files) {
        String head = files.head();
        return CrateReader.recognises(head)
                || UsdTextReader.recognises(head)
                || (files.companions() instanceof ZipArchive archive
                        && ZipArchive.looksLikeZip(files.bytes())
                        && !archive.paths().isEmpty()
                        && isLayer(archive.paths().get(0)));
    }

    private static boolean isLayer(String path) {
        String p = path.toLowerCase(Locale.ROOT);
        return p.endsWith(".usd") || p.endsWith(".usda") || p.endsWith(".usdc");
    }

    /** A package's first file; null where that is no layer. */
    static FileSet mainLayer(ZipArchive archive, Reading reading) throws ImportException {
        String first = archive.paths().isEmpty() ? "" : archive.paths().get(0);
        return isLayer(first) ? new FileSet(first, archive.open(first, reading).orElseThrow(), archive) : null;
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        reading.progress(0, "Opening");
        FileSet main = files;
        if (ZipArchive.looksLikeZip(files.bytes())) {
            main = mainLayer(ZipArchive.open(files.bytes(), reading.limits()), reading);
        }
        return new Pass(UsdStage.open(main, reading), reading).run();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final UsdStage stage;
        private final Reading reading;
        private final ModelAssembly model;
        private final UsdMaterials materials;
        private final UsdMesh meshes;
        private final Map<Shape, Integer> meshIndex = new HashMap<>();

        Pass(UsdStage stage, Reading reading) {
            this.stage = stage;
            this.reading = reading;
            this.model = new ModelAssembly("USD", reading);
            this.materials = new UsdMaterials(stage, model, reading);
            this.meshes = new UsdMesh(stage, reading);
        }

        Arrival run() throws ImportException {
            UsdNode root = stage.root();
            List<UsdNode> top = new ArrayList<>(root.children(stage).values());
            top.removeIf(n -> !n.isDefined());
            if (top.size() == 1 && isWrapper(top.get(0))) {
                top = new ArrayList<>(top.get(0).children(stage).values());
            }
            for (UsdNode n : top) {
                visit(n, Model.NONE, Transform.IDENTITY, binding(n.parent(), null), 0);
            }
            Object unit = root.metadata("metersPerUnit");
            double metres = unit instanceof double[] d && d.length == 1 ? d[0] : 0.01;
            String label = "unit";
            for (LengthUnit u : LengthUnit.values()) {
                label = Math.abs(u.metres() - metres) < 1e-9 ? u.symbol() : label;
            }
            boolean up = root.metadata("upAxis") instanceof String;
            boolean z = up && root.metadata("upAxis").equals("Z");
            return model.finish(
                    new UnitDecision(
                            metres,
                            label,
                            unit == null
                                    ? "The USD file names no unit; its standard one is the centimetre."
                                    : "The USD file says that one unit is " + metres + " m.",
                            true,
                            List.of()),
                    new UpDecision(
                            z ? UpAxis.Z : UpAxis.Y,
                            up
                                    ? "The USD file says that " + (z ? "Z" : "Y") + " points up."
                                    : "The USD file names no up axis; its standard one is Y.",
                            true));
        }

        /** The one prim that files hold so that others can refer to it: it says nothing itself. */
        private boolean isWrapper(UsdNode n) throws ImportException {
            return (n.type().equals("Xform")
                            || n.type().equals("Scope")
                            || n.type().isEmpty())
                    && n.property("xformOpOrder") == null
                    && isShown(n)
                    && !n.children(stage).isEmpty();
        }

        /** The material bound to a node, or the one that it gets from above. */
        private String binding(UsdNode n, String above) {
            String own = n == null ? null : n.target("material:binding");
            own = own == null && n != null ? n.target("material:binding:preview") : own;
            return own == null ? above : own;
        }

        private boolean isShown(UsdNode n) throws ImportException {
            if (Boolean.FALSE.equals(n.metadata("active"))) {
                return false;
            }
            String purpose = n.token("purpose", "default");
            if (purpose.equals("guide") || purpose.equals("proxy")) {
                reading.note("Stand-ins and guides in the USD file (purpose “" + purpose + "”) are left out.");
                return false;
            }
            if (n.token("visibility", "inherited").equals("invisible")) {
                reading.note("“" + TextNames.shown(UsdMaterials.name(n), "A group")
                        + "” is hidden in the USD file and was left out.");
                return false;
            }
            return true;
        }

        private void visit(UsdNode n, int parent, Transform world, String above, int depth) throws ImportException {
            if (!n.isDefined() || !isShown(n)) {
                return;
            }
            String type = n.type();
            switch (type) {
                case "Material", "Shader", "NodeGraph", "GeomSubset" -> {
                    return;
                }
                case "Camera", "Skeleton", "SkelAnimation", "BasisCurves", "NurbsCurves", "Points", "NurbsPatch" -> {
                    reading.note(n.type() + " prims of the USD file are left out.");
                    return;
                }
                default -> {
                    if (type.endsWith("Light")) {
                        reading.note("Lights are left out; set them in the Light step.");
                        return;
                    }
                }
            }
            String bound = binding(n, above);
            Transform local = transform(n, world);
            String name = UsdMaterials.name(n);
            Shape shape = shape(n, bound);
            boolean instances = type.equals("PointInstancer");
            List<UsdNode> inner = new ArrayList<>(n.children(stage).values());
            inner.removeIf(c -> c.type().equals("GeomSubset"));
            int before = model.partCount();
            if (instances || (shape == null && inner.isEmpty())) {
                if (instances) {
                    int group = model.group(parent, name, local);
                    repeat(n, group, world.after(local), bound, depth);
                    dropIfEmpty(group, before);
                }
                return;
            }
            if (inner.isEmpty()) {
                part(n, shape, parent, name, local, bound);
                return;
            }
            UsdNode only = shape == null ? onlyMesh(n, inner) : null;
            if (only != null) {
                String boundThere = binding(only, bound);
                Shape there = isShown(only) ? shape(only, boundThere) : null;
                if (there != null) {
                    part(only, there, parent, name, local, boundThere);
                }
                return;
            }
            int group = model.group(parent, name, local);
            if (shape != null) {
                part(n, shape, group, name, Transform.IDENTITY, bound);
            }
            for (UsdNode child : inner) {
                visit(child, group, world.after(local), bound, depth + 1);
            }
            dropIfEmpty(group, before);
        }

        /** Where a prim only places one mesh, as many programs write an object, that mesh; else null. */
        private static UsdNode onlyMesh(UsdNode n, List<UsdNode> inner) {
            boolean places = n.type().equals("Xform") || n.type().isEmpty();
            UsdNode only = inner.size() == 1 ? inner.get(0) : null;
            return places
                            && only != null
                            && only.isDefined()
                            && only.type().equals("Mesh")
                            && only.metadata("displayName") == null
                            && only.property("xformOpOrder") == null
                    ? only
                    : null;
        }

        /** Takes back a group that holds materials, cameras or lights only. */
        private void dropIfEmpty(int group, int partsBefore) {
            if (model.groupCount() == group + 1 && model.partCount() == partsBefore) {
                model.dropNewestGroup();
            }
        }

        private Shape shape(UsdNode n, String bound) throws ImportException {
            if (n.type().equals("Mesh")) {
                UsdMaterials.Source source = bound == null ? null : materials.source(bound);
                return meshes.of(n, source == null ? "" : source.coordinates(), s -> {
                    String own = binding(s, null);
                    UsdMaterials.Source of = own == null ? null : materials.source(own);
                    return of == null ? "" : of.coordinates();
                });
            }
            if (!UsdShapes.knows(n.type())) {
                return null;
            }
            CornerMesh.Built built = UsdShapes.of(n);
            return built.mesh().triangleCount() == 0 ? null : new Shape(built, List.of(), null);
        }

        private void part(UsdNode n, Shape shape, int group, String name, Transform local, String bound)
                throws ImportException {
            Integer mesh = meshIndex.get(shape);
            if (mesh == null) {
                mesh = model.mesh(shape.built().mesh());
                meshIndex.put(shape, mesh);
            }
            List<Integer> sources = new ArrayList<>();
            for (int region : shape.built().sources()) {
                String path = bound;
                if (region >= 0) {
                    UsdNode subset = n.children(stage).get(shape.subsets().get(region));
                    path = subset == null ? bound : binding(subset, bound);
                }
                UsdMaterials.Source source = path == null ? null : materials.source(path);
                sources.add(
                        source != null
                                ? source.index()
                                : shape.colour() == null ? Model.NONE : materials.plain(shape.colour()));
            }
            model.part(group, name, local, mesh, sources);
            reading.progress(0.5 + 0.5 * model.partCount() / (model.partCount() + 50.0), "Building parts");
        }

        private void repeat(UsdNode n, int group, Transform world, String bound, int depth) throws ImportException {
            List<String> prototypes = n.targets("prototypes");
            UsdProperty which = n.property("protoIndices");
            UsdProperty places = n.property("positions");
            if (which == null || places == null || prototypes.isEmpty()) {
                return;
            }
            int[] index = which.integers();
            float[] at = places.floats();
            float[] turn = n.property("orientations") == null
                    ? new float[0]
                    : n.property("orientations").floats();
            float[] scale = n.property("scales") == null
                    ? new float[0]
                    : n.property("scales").floats();
            Map<Integer, UsdNode> nodes = new LinkedHashMap<>();
            for (int i = 0; i < index.length && 3 * i + 2 < at.length; i++) {
                if (index[i] < 0 || index[i] >= prototypes.size()) {
                    continue;
                }
                if (!nodes.containsKey(index[i])) {
                    nodes.put(index[i], stage.at(prototypes.get(index[i])));
                }
                UsdNode prototype = nodes.get(index[i]);
                if (prototype == null) {
                    continue;
                }
                double[] t = {at[3 * i], at[3 * i + 1], at[3 * i + 2]};
                double[] q = 4 * i + 3 < turn.length
                        ? new double[] {turn[4 * i + 1], turn[4 * i + 2], turn[4 * i + 3], turn[4 * i]}
                        : new double[] {0, 0, 0, 1};
                double[] s = 3 * i + 2 < scale.length
                        ? new double[] {scale[3 * i], scale[3 * i + 1], scale[3 * i + 2]}
                        : new double[] {1, 1, 1};
                Transform place = Transform.ofTrs(t, q, s);
                int before = model.partCount();
                int own = model.group(group, UsdMaterials.name(prototype) + " " + (i + 1), place);
                visit(prototype, own, world.after(place), bound, depth + 1);
                dropIfEmpty(own, before);
            }
        }

        private Transform transform(UsdNode n, Transform world) throws ImportException {
            UsdProperty order = n.property("xformOpOrder");
            if (order == null || !(order.value() instanceof String[] ops)) {
                return Transform.IDENTITY;
            }
            Transform t = Transform.IDENTITY;
            for (String op : ops) {
                if (op.equals("!resetXformStack!")) {
                    t = world.inverse();
                } else if (op.startsWith("!invert!")) {
                    t = t.after(operation(n, op.substring(8)).inverse());
                } else {
                    t = t.after(operation(n, op));
                }
            }
            return t;
        }

        private Transform operation(UsdNode n, String op) throws ImportException {
            String[] words = op.split(":");
            UsdProperty p = n.property(op);
            double[] v = p == null ? new double[0] : p.numbers();
            String kind = words.length > 1 ? words[1] : "";
            if (kind.equals("transform") && v.length == 16) {
                return Transform.ofColumns(v); // rows for row vectors are columns for column vectors
            }
            if (kind.equals("translate") && v.length == 3) {
                return Transform.translation(v[0], v[1], v[2]);
            }
            if (kind.equals("scale") && v.length == 3) {
                return Transform.scale(v[0], v[1], v[2]);
            }
            if (kind.equals("orient") && v.length == 4) {
                return Transform.ofTrs(new double[3], new double[] {v[1], v[2], v[3], v[0]}, new double[] {1, 1, 1});
            }
            if (kind.startsWith("rotate") && v.length == kind.length() - 6) {
                Transform t = Transform.IDENTITY;
                for (int k = 0; k < v.length; k++) { // the axis named first turns first
                    int axis = "XYZ".indexOf(kind.charAt(6 + k));
                    double angle = v.length == 3 && axis >= 0 ? v[axis] : v[k];
                    if (axis >= 0) {
                        t = Transform.rotation(Vec3.axis(axis), Math.toRadians(angle))
                                .after(t);
                    }
                }
                return t;
            }
            return Transform.IDENTITY;
        }
    }
}
