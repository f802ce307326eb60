package app.zolvan.core.exchange.gltf;

import app.zolvan.core.colour.Srgb;
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
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Reads glTF 2.0 models, binary or plain, with everything embedded. Keeps names, hierarchy, instances, several primitives
 * a mesh, two sets of coordinates, colours on vertices, materials with the extensions of rules.md section 2, variants and
 * texture transforms; repeats of EXT_mesh_gpu_instancing become parts. Draco and meshopt compression, which the browser
 * takes out, are refused with a sentence; morphing, skins, lines and points are left out with a note.
 */
public final class GltfReader implements ModelReader {
    static final Set<String> KNOWN_EXTENSIONS = Set.of(
            "KHR_materials_clearcoat",
            "KHR_materials_ior",
            "KHR_materials_specular",
            "KHR_materials_sheen",
            "KHR_materials_transmission",
            "KHR_materials_volume",
            "KHR_materials_dispersion",
            "KHR_materials_emissive_strength",
            "KHR_materials_iridescence",
            "KHR_materials_anisotropy",
            "KHR_materials_unlit",
            "KHR_texture_transform",
            "KHR_mesh_quantization",
            "KHR_materials_variants",
            "EXT_mesh_gpu_instancing",
            "EXT_texture_webp");
    private static final Map<String, String> COMPRESSIONS = Map.of(
            "KHR_draco_mesh_compression", "Draco",
            "EXT_meshopt_compression", "meshopt",
            "KHR_meshopt_compression", "meshopt",
            "KHR_texture_basisu", "Basis Universal texture");
    private static final int TRIANGLES = 4;

    @Override
    public String format() {
        return "glTF";
    }

    @Override
    public boolean recognises(FileSet files) {
        return GltfContainer.isBinary(files.bytes())
                || files.head().stripLeading().startsWith("{");
    }

    @Override
    public Arrival read(FileSet files, Reading reading) throws ImportException {
        reading.progress(0, "Opening");
        return new Pass(files, reading).run();
    }

    /** Its materials alone, whether or not it holds a model. */
    public static Model materials(FileSet files, Reading reading) throws ImportException {
        return new Pass(files, reading).materials();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final FileSet files;
        private final GltfContainer file;
        private final JsonValue json;
        private final Reading reading;
        private final Accessors accessors;
        private final ModelAssembly model;
        /** Where the triangles came from, when the browser made them of another format; null for plain glTF. */
        private final JsonValue source;

        private final Map<Integer, Integer> meshIndex = new HashMap<>();
        private final List<List<Integer>> sourcesOfMesh = new ArrayList<>();
        private final List<List<Map<Integer, Integer>>> variantsOfMesh = new ArrayList<>();
        private final List<Map<Model.Region, Integer>> variants = new ArrayList<>();
        private long triangles;

        Pass(FileSet files, Reading reading) throws ImportException {
            this.files = files;
            this.file = GltfContainer.open(files, reading);
            this.json = file.json();
            this.reading = reading;
            this.accessors = new Accessors(file, reading);
            JsonValue own = own(json.require("asset"));
            this.source = own == null ? null : own.get("source");
            if (own != null) {
                for (JsonValue note : own.list("notes")) {
                    reading.note(note.text());
                }
            }
            this.model = new ModelAssembly(source == null ? "glTF" : source.text("format", "glTF"), reading);
        }

        Model materials() throws ImportException {
            checkExtensions();
            readMaterials();
            return model.materials();
        }

        private int[] readMaterials() throws ImportException {
            String[] imageNames = readImages();
            reading.progress(0.2, "Reading materials");
            GltfMaterialReader materialReader =
                    new GltfMaterialReader(json, i -> i < imageNames.length ? imageNames[i] : null, reading.noteSet());
            int[] texCoords = new int[json.list("materials").size()];
            for (JsonValue m : json.list("materials")) {
                int index = model.sourceCount();
                texCoords[index] = materialReader.texCoord(m);
                model.source(materialReader.read(m, index));
            }
            return texCoords;
        }

        Arrival run() throws ImportException {
            checkExtensions();
            int[] texCoords = readMaterials();
            List<JsonValue> variantNames = variantNames();
            for (int i = 0; i < variantNames.size(); i++) {
                variants.add(new LinkedHashMap<>());
            }
            countTriangles();
            readHierarchy(texCoords);
            noteUnusedKinds();
            for (int i = 0; i < variantNames.size(); i++) {
                model.variant(new Arrival.Variant(
                        TextNames.shown(variantNames.get(i).text("name", null), "Variant " + (i + 1)),
                        Map.copyOf(variants.get(i))));
            }
            if (source != null) {
                return model.finish(
                        new UnitDecision(1, source.text("unit", "m"), source.text("unitReason", ""), true, List.of()),
                        new UpDecision(
                                source.text("up", "Y").equals("Z") ? UpAxis.Z : UpAxis.Y,
                                source.text("upReason", ""),
                                source.flag("upCertain", true)));
            }
            return model.finish(
                    new UnitDecision(1, "m", "glTF is always in metres.", true, List.of()),
                    new UpDecision(UpAxis.Y, "glTF always has Y up.", true));
        }

        /** What Zolvan's own preparation wrote about the file it read, at the asset or at a mesh; null for none. */
        private static JsonValue own(JsonValue json) throws ImportException {
            JsonValue extras = json.get("extras");
            JsonValue own = extras != null && extras.isObject() ? extras.get("zolvan") : null;
            return own != null && own.isObject() ? own : null;
        }

        /** The faces that a mesh's own triangles were cut from; null where the file does not say. */
        private static int[] ownFaces(JsonValue mesh, int triangles) throws ImportException {
            JsonValue own = own(mesh);
            List<JsonValue> starts = own == null ? List.of() : own.list("face_starts");
            if (starts.isEmpty()) {
                return null;
            }
            int[] faces = new int[triangles];
            for (int f = 0; f < starts.size(); f++) {
                int from = starts.get(f).index();
                int to = f + 1 < starts.size() ? starts.get(f + 1).index() : triangles;
                if (from > to || to > triangles || (f == 0 && from != 0)) {
                    return null;
                }
                Arrays.fill(faces, from, to, f);
            }
            return faces;
        }

        private List<JsonValue> variantNames() throws ImportException {
            JsonValue ext = json.get("extensions");
            JsonValue own = ext == null ? null : ext.get("KHR_materials_variants");
            List<JsonValue> names = own == null ? List.of() : own.list("variants");
            if (names.size() > 64) {
                reading.note("Only the first 64 of the file’s " + names.size() + " variants are kept.");
                return names.subList(0, 64);
            }
            return names;
        }

        private void checkExtensions() throws ImportException {
            for (JsonValue required : json.list("extensionsRequired")) {
                String name = required.text();
                if (COMPRESSIONS.containsKey(name)) {
                    throw new ImportException(
                            "compressed",
                            "This file is packed with " + COMPRESSIONS.get(name)
                                    + " compression, which is taken out in the browser when the file is dropped on the"
                                    + " project list. Drop it there, or export it without compression.");
                }
                if (!KNOWN_EXTENSIONS.contains(name)) {
                    throw new ImportException(
                            "unsupported",
                            "This file can’t be shown without " + name
                                    + ", which Zolvan does not read. Export it without that option.");
                }
            }
        }

        private String[] readImages() throws ImportException {
            List<JsonValue> list = json.list("images");
            String[] names = new String[list.size()];
            for (int i = 0; i < names.length; i++) {
                JsonValue image = list.get(i);
                reading.progress(0.05 + 0.15 * i / names.length, "Reading textures");
                ByteBuffer bytes = image.has("bufferView")
                        ? file.view(image.get("bufferView").index())
                        : GltfContainer.picture(image.require("uri").text(), i, files, reading);
                names[i] = bytes == null ? null : model.picture(image.text("name", "Picture " + (i + 1)), bytes);
            }
            return names;
        }

        /** Adds up what the file claims before any array is made for it. */
        private void countTriangles() throws ImportException {
            for (JsonValue mesh : json.list("meshes")) {
                for (JsonValue p : mesh.list("primitives")) {
                    JsonValue attributes = p.get("attributes");
                    if (attributes == null || !attributes.has("POSITION")) {
                        continue;
                    }
                    int vertices = accessors.count(attributes.get("POSITION").index());
                    int corners =
                            p.has("indices") ? accessors.count(p.get("indices").index()) : vertices;
                    triangles += p.index("mode", TRIANGLES) == TRIANGLES ? corners / 3 : corners;
                    reading.checkTriangles(Math.max(triangles, vertices / 3));
                }
            }
        }

        private void readHierarchy(int[] texCoords) throws ImportException {
            List<JsonValue> nodes = json.list("nodes");
            if (nodes.size() > reading.limits().nodes()) {
                throw new ImportException(
                        "too-large",
                        String.format(
                                Locale.ROOT,
                                "The model has %,d objects; Zolvan takes up to %,d. Join some and export again.",
                                nodes.size(),
                                reading.limits().nodes()));
            }
            boolean[] visited = new boolean[nodes.size()];
            for (int root : roots(nodes)) {
                visit(root, Model.NONE, 0, nodes, visited, texCoords);
            }
        }

        private List<Integer> roots(List<JsonValue> nodes) throws ImportException {
            List<Integer> roots = new ArrayList<>();
            if (!json.list("scenes").isEmpty()) {
                JsonValue scene = GltfContainer.element(json, "scenes", json.index("scene", 0), "scene");
                for (JsonValue n : scene.list("nodes")) {
                    roots.add(n.index());
                }
                return roots;
            }
            boolean[] isChild = new boolean[nodes.size()];
            for (JsonValue n : nodes) {
                for (JsonValue c : n.list("children")) {
                    if (c.index() < isChild.length) {
                        isChild[c.index()] = true;
                    }
                }
            }
            for (int i = 0; i < isChild.length; i++) {
                if (!isChild[i]) {
                    roots.add(i);
                }
            }
            if (roots.isEmpty() && !nodes.isEmpty()) {
                throw cyclic(0);
            }
            return roots;
        }

        private void visit(int index, int parent, int depth, List<JsonValue> nodes, boolean[] visited, int[] texCoords)
                throws ImportException {
            JsonValue node = GltfContainer.element(json, "nodes", index, "object");
            if (visited[index]) {
                throw cyclic(index);
            }
            visited[index] = true;
            if (depth > reading.limits().depth()) {
                throw new ImportException(
                        "too-deep",
                        "The model’s groups are nested more than "
                                + reading.limits().depth() + " deep. Ungroup some and export again.");
            }
            Transform local = transform(node);
            List<JsonValue> children = node.list("children");
            String name = node.text("name", null);
            List<Transform> copies = copies(node);
            int group = parent;
            if (!children.isEmpty() || (copies != null && node.has("mesh"))) {
                group = model.group(parent, name, local);
            }
            if (node.has("mesh")) {
                int mesh = mesh(node.get("mesh").index(), texCoords);
                if (mesh != Model.NONE) {
                    String meshName = GltfContainer.element(
                                    json, "meshes", node.get("mesh").index(), "mesh")
                            .text("name", null);
                    String partName = name != null ? name : meshName;
                    if (copies == null) {
                        part(group, partName, children.isEmpty() ? local : Transform.IDENTITY, mesh);
                    } else {
                        for (int i = 0; i < copies.size(); i++) {
                            part(group, TextNames.shown(partName, "Part") + " " + (i + 1), copies.get(i), mesh);
                        }
                    }
                }
            }
            for (JsonValue child : children) {
                visit(child.index(), group, depth + 1, nodes, visited, texCoords);
            }
        }

        private void part(int group, String name, Transform local, int mesh) throws ImportException {
            List<Map<Integer, Integer>> mappings = variantsOfMesh.get(mesh);
            for (int span = 0; span < mappings.size(); span++) {
                Model.Region region = new Model.Region(model.partCount(), span);
                mappings.get(span)
                        .forEach((variant, material) -> variants.get(variant).put(region, material));
            }
            model.part(group, name, local, mesh, sourcesOfMesh.get(mesh));
        }

        /** The placements of EXT_mesh_gpu_instancing; null where a node stands for itself. */
        private List<Transform> copies(JsonValue node) throws ImportException {
            JsonValue ext = node.get("extensions");
            JsonValue own = ext == null ? null : ext.get("EXT_mesh_gpu_instancing");
            if (own == null) {
                return null;
            }
            JsonValue a = own.require("attributes");
            float[] t = instanced(a, "TRANSLATION", 3);
            float[] r = instanced(a, "ROTATION", 4);
            float[] s = instanced(a, "SCALE", 3);
            int n = t != null ? t.length / 3 : r != null ? r.length / 4 : s != null ? s.length / 3 : 0;
            if ((r != null && r.length != 4 * n) || (s != null && s.length != 3 * n)) {
                throw own.wrong("as many turns and scales as places");
            }
            if (n > reading.limits().nodes()) {
                throw new ImportException("too-large", "A part is repeated more often than Zolvan can take.");
            }
            List<Transform> out = new ArrayList<>(n);
            for (int i = 0; i < n; i++) {
                out.add(Transform.ofTrs(slice(t, i, 0, 0, 0), slice(r, i, 0, 0, 0, 1), slice(s, i, 1, 1, 1)));
            }
            return out;
        }

        private float[] instanced(JsonValue attributes, String key, int width) throws ImportException {
            return attributes.has(key) ? accessors.floats(attributes.get(key).index(), width) : null;
        }

        private static double[] slice(float[] values, int i, double... otherwise) {
            double[] out = otherwise.clone();
            for (int k = 0; values != null && k < out.length; k++) {
                out[k] = values[i * out.length + k];
            }
            return out;
        }

        private ImportException cyclic(int index) {
            return new ImportException(
                    "cyclic",
                    "The model’s hierarchy runs in a circle: object " + index
                            + " is reached twice. The file is damaged; export it again.");
        }

        private static Transform transform(JsonValue node) throws ImportException {
            Transform t = node.has("matrix")
                    ? Transform.ofColumns(node.numbers("matrix", Transform.IDENTITY.columns()))
                    : Transform.ofTrs(
                            node.numbers("translation", 0, 0, 0),
                            node.numbers("rotation", 0, 0, 0, 1),
                            node.numbers("scale", 1, 1, 1));
            if (!t.isFinite()) {
                throw node.wrong("a placement in finite numbers");
            }
            return t;
        }

        private int mesh(int index, int[] texCoords) throws ImportException {
            Integer known = meshIndex.get(index);
            if (known != null) {
                return known;
            }
            JsonValue json = GltfContainer.element(this.json, "meshes", index, "mesh");
            MeshAssembly assembly = new MeshAssembly();
            for (JsonValue p : json.list("primitives")) {
                int material = p.index("material", Model.NONE);
                if (material != Model.NONE) {
                    GltfContainer.element(this.json, "materials", material, "material");
                }
                addPrimitive(assembly, p, material, material == Model.NONE ? 0 : texCoords[material]);
            }
            int result = Model.NONE;
            if (!assembly.isEmpty()) {
                reading.charge(assembly.bytes());
                Mesh mesh = assembly.mesh();
                int[] faces = ownFaces(json, mesh.triangleCount());
                result = model.mesh(faces == null ? mesh : mesh.withFaces(faces));
                sourcesOfMesh.add(assembly.sources());
                variantsOfMesh.add(assembly.variants());
            }
            meshIndex.put(index, result);
            reading.progress(0.3 + 0.6 * meshIndex.size() / Math.max(1, this.json.size("meshes")), "Reading geometry");
            return result;
        }

        private void addPrimitive(MeshAssembly assembly, JsonValue p, int material, int uvSet) throws ImportException {
            if (p.has("extensions")) {
                for (String key : p.get("extensions").keys()) {
                    if (COMPRESSIONS.containsKey(key)) {
                        reading.note(
                                "Parts packed with " + COMPRESSIONS.get(key) + " were read from their plain copy.");
                    }
                }
            }
            int mode = p.index("mode", TRIANGLES);
            if (mode < TRIANGLES) {
                reading.note("Points and lines are left out: they have no surface to dress.");
                return;
            }
            JsonValue attributes = p.require("attributes");
            if (!attributes.has("POSITION")) {
                reading.note("A surface without positions is left out (" + p.where() + ").");
                return;
            }
            float[] positions = accessors.floats(attributes.get("POSITION").index(), 3);
            for (float v : positions) {
                if (!Float.isFinite(v)) {
                    throw new ImportException(
                            "not-finite",
                            "A surface has a corner that is nowhere (a coordinate is not a number, " + p.where()
                                    + "). Repair the shape in the modelling program and export it again.");
                }
            }
            int vertices = positions.length / 3;
            int[] corners =
                    p.has("indices") ? accessors.indices(p.get("indices").index()) : counting(vertices);
            for (int c : corners) {
                if (c >= vertices) {
                    throw new ImportException(
                            "out-of-range",
                            "A triangle at " + p.where() + " uses corner " + c + " of " + vertices
                                    + ". The file is damaged; export it again.");
                }
            }
            float[] normals = attributes.has("NORMAL")
                    ? accessors.floats(attributes.get("NORMAL").index(), 3)
                    : null;
            String uvKey = "TEXCOORD_" + uvSet;
            float[] uv = attributes.has(uvKey)
                    ? accessors.floats(attributes.get(uvKey).index(), 2)
                    : null;
            String otherKey = "TEXCOORD_" + (uvSet == 0 ? 1 : 0);
            float[] uv2 = attributes.has(otherKey)
                    ? accessors.floats(attributes.get(otherKey).index(), 2)
                    : null;
            byte[] colours = attributes.has("COLOR_0")
                    ? colours(attributes.get("COLOR_0").index(), vertices)
                    : null;
            if ((normals != null && normals.length != positions.length)
                    || (uv != null && uv.length != 2 * vertices)
                    || (uv2 != null && uv2.length != 2 * vertices)) {
                throw p.wrong("as many normals and coordinates as corners");
            }
            assembly.add(
                    new Corners(positions, normals, uv, uv2, colours), triangles(corners, mode), material, mappings(p));
        }

        private byte[] colours(int accessor, int vertices) throws ImportException {
            int width = accessors.width(accessor);
            if (width < 3) {
                return null;
            }
            float[] linear = accessors.floats(accessor, width);
            if (linear.length != width * vertices) {
                return null;
            }
            byte[] out = new byte[4 * vertices];
            for (int v = 0; v < vertices; v++) {
                for (int k = 0; k < 4; k++) {
                    double c = k < width ? Math.max(0, Math.min(1, linear[v * width + k])) : 1;
                    out[4 * v + k] = (byte) Math.round(255 * (k < 3 ? Srgb.encode(c) : c));
                }
            }
            return out;
        }

        private Map<Integer, Integer> mappings(JsonValue primitive) throws ImportException {
            JsonValue ext = primitive.get("extensions");
            JsonValue own = ext == null ? null : ext.get("KHR_materials_variants");
            Map<Integer, Integer> out = new HashMap<>();
            if (own != null) {
                for (JsonValue m : own.list("mappings")) {
                    int material = m.require("material").index();
                    GltfContainer.element(json, "materials", material, "material");
                    for (JsonValue v : m.list("variants")) {
                        if (v.index() < variants.size()) {
                            out.put(v.index(), material);
                        }
                    }
                }
            }
            return out;
        }

        private static int[] counting(int n) {
            int[] out = new int[n];
            Arrays.setAll(out, i -> i);
            return out;
        }

        /** Plain triangles from a list (4), a strip (5) or a fan (6). */
        private static int[] triangles(int[] c, int mode) throws ImportException {
            if (mode == TRIANGLES) {
                return c.length % 3 == 0 ? c : Arrays.copyOf(c, c.length / 3 * 3);
            }
            int n = Math.max(0, c.length - 2);
            int[] out = new int[3 * n];
            for (int i = 0; i < n; i++) {
                boolean fan = mode == 6;
                boolean odd = !fan && i % 2 == 1;
                out[3 * i] = fan ? c[0] : c[i];
                out[3 * i + 1] = c[odd ? i + 2 : i + 1];
                out[3 * i + 2] = c[odd ? i + 1 : i + 2];
            }
            return out;
        }

        private void noteUnusedKinds() throws ImportException {
            if (!json.list("animations").isEmpty()) {
                reading.note("Movements (animations) are left out.");
            }
            if (!json.list("skins").isEmpty()) {
                reading.note("Skins are left out; parts stand as they were modelled.");
            }
            if (!json.list("cameras").isEmpty()) {
                reading.note("Cameras are left out.");
            }
            for (JsonValue used : json.list("extensionsUsed")) {
                if (!KNOWN_EXTENSIONS.contains(used.text())) {
                    reading.note(used.text() + " is not used.");
                }
            }
        }
    }

    /** What a primitive says of its corners; all but the positions may be null. */
    private record Corners(float[] positions, float[] normals, float[] uv, float[] uv2, byte[] colours) {

        /** A vertex of its own for each corner of each triangle. */
        Corners spread(int[] index) {
            return new Corners(
                    gather(positions, index, 3), null, gather(uv, index, 2), gather(uv2, index, 2), colours(index));
        }

        private byte[] colours(int[] index) {
            if (colours == null) {
                return null;
            }
            byte[] out = new byte[4 * index.length];
            for (int i = 0; i < index.length; i++) {
                System.arraycopy(colours, 4 * index[i], out, 4 * i, 4);
            }
            return out;
        }

        private static float[] gather(float[] values, int[] index, int width) {
            if (values == null) {
                return null;
            }
            float[] out = new float[width * index.length];
            for (int i = 0; i < index.length; i++) {
                System.arraycopy(values, width * index[i], out, width * i, width);
            }
            return out;
        }
    }

    /** Joins a glTF mesh's primitives into one mesh with a span each. */
    private static final class MeshAssembly {
        private final List<Corners> pieces = new ArrayList<>();
        private final List<float[]> normals = new ArrayList<>();
        private final List<int[]> indices = new ArrayList<>();
        private final List<Integer> sources = new ArrayList<>();
        private final List<Map<Integer, Integer>> variants = new ArrayList<>();

        void add(Corners corners, int[] index, int source, Map<Integer, Integer> variant) {
            if (index.length == 0) {
                return;
            }
            Corners c = corners;
            int[] x = index;
            if (corners.normals == null) { // glTF asks for flat shading then
                c = corners.spread(index);
                x = new int[index.length];
                Arrays.setAll(x, i -> i);
            }
            pieces.add(c);
            normals.add(unitNormals(c.positions, c.normals == null ? new float[c.positions.length] : c.normals, x));
            indices.add(x);
            sources.add(source);
            variants.add(variant);
        }

        boolean isEmpty() {
            return indices.isEmpty();
        }

        long bytes() {
            return pieces.stream().mapToLong(c -> c.positions.length * 12L).sum()
                    + indices.stream().mapToLong(i -> i.length * 4L).sum();
        }

        List<Integer> sources() {
            return List.copyOf(sources);
        }

        List<Map<Integer, Integer>> variants() {
            return variants;
        }

        Mesh mesh() {
            int vertices = pieces.stream().mapToInt(c -> c.positions.length / 3).sum();
            int corners = indices.stream().mapToInt(i -> i.length).sum();
            float[] p = new float[3 * vertices];
            float[] n = new float[3 * vertices];
            float[] t = pieces.stream().anyMatch(c -> c.uv != null) ? new float[2 * vertices] : null;
            float[] t2 = pieces.stream().anyMatch(c -> c.uv2 != null) ? new float[2 * vertices] : null;
            byte[] colours = pieces.stream().anyMatch(c -> c.colours != null) ? new byte[4 * vertices] : null;
            if (colours != null) {
                Arrays.fill(colours, (byte) 255);
            }
            int[] x = new int[corners];
            int[] starts = new int[indices.size() + 1];
            int vertex = 0;
            int corner = 0;
            for (int s = 0; s < indices.size(); s++) {
                Corners c = pieces.get(s);
                put(c.positions, p, 3 * vertex);
                put(normals.get(s), n, 3 * vertex);
                put(c.uv, t, 2 * vertex);
                put(c.uv2, t2, 2 * vertex);
                if (c.colours != null) {
                    System.arraycopy(c.colours, 0, colours, 4 * vertex, c.colours.length);
                }
                for (int i : indices.get(s)) {
                    x[corner++] = i + vertex;
                }
                vertex += c.positions.length / 3;
                starts[s + 1] = corner / 3;
            }
            return new Mesh(p, n, t, null, x, starts, null, t2, colours);
        }

        private static void put(float[] from, float[] to, int at) {
            if (from != null) {
                System.arraycopy(from, 0, to, at, from.length);
            }
        }

        /** Normals at length 1; missing and unusable ones are replaced by a neighbouring triangle's own. */
        private static float[] unitNormals(float[] positions, float[] normals, int[] indices) {
            float[] out = new float[normals.length];
            boolean[] good = new boolean[normals.length / 3];
            for (int v = 0; v < good.length; v++) {
                double x = normals[3 * v];
                double y = normals[3 * v + 1];
                double z = normals[3 * v + 2];
                double length = Math.sqrt(x * x + y * y + z * z);
                good[v] = length > 1e-12 && length < Double.POSITIVE_INFINITY;
                set(out, v, good[v] ? new Vec3(x / length, y / length, z / length) : Vec3.axis(1));
            }
            for (int i = 0; i < indices.length; i += 3) {
                if (good[indices[i]] && good[indices[i + 1]] && good[indices[i + 2]]) {
                    continue;
                }
                Vec3 a = at(positions, indices[i]);
                Vec3 n = at(positions, indices[i + 1])
                        .minus(a)
                        .cross(at(positions, indices[i + 2]).minus(a));
                if (n.length() > 0) {
                    for (int k = 0; k < 3; k++) {
                        if (!good[indices[i + k]]) {
                            set(out, indices[i + k], n.normalised());
                        }
                    }
                }
            }
            return out;
        }

        private static Vec3 at(float[] values, int v) {
            return new Vec3(values[3 * v], values[3 * v + 1], values[3 * v + 2]);
        }

        private static void set(float[] values, int v, Vec3 n) {
            values[3 * v] = (float) n.x();
            values[3 * v + 1] = (float) n.y();
            values[3 * v + 2] = (float) n.z();
        }
    }
}
