package app.zolvan.core.exchange.gltf;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.ModelReader;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.texture.ImageHeader;
import java.nio.ByteBuffer;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/**
 * Reads glTF 2.0 models, binary or plain, with everything embedded. Keeps names, hierarchy, instances, several primitives
 * a mesh, materials with the extensions of rules.md section 2 and texture transforms. Draco and meshopt compression are
 * refused with a sentence; morphing, skins, lines, points and vertex colours are left out with a note.
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
            "EXT_texture_webp");
    private static final Map<String, String> COMPRESSIONS = Map.of(
            "KHR_draco_mesh_compression", "Draco",
            "EXT_meshopt_compression", "meshopt",
            "KHR_meshopt_compression", "meshopt",
            "KHR_texture_basisu", "Basis Universal texture");
    private static final int TRIANGLES = 4;

    @Override
    public boolean recognises(ByteBuffer file) {
        if (GltfContainer.isBinary(file)) {
            return true;
        }
        ByteBuffer b = file.slice();
        while (b.hasRemaining()) {
            int c = b.get() & 0xFF;
            boolean skip = Character.isWhitespace(c) || c == 0xEF || c == 0xBB || c == 0xBF;
            if (!skip) {
                return c == '{';
            }
        }
        return false;
    }

    @Override
    public Model read(ByteBuffer file, ImportLimits limits, Progress progress) throws ImportException {
        progress.at(0, "Opening");
        return new Pass(GltfContainer.open(file, limits), limits, progress).run();
    }

    /** One reading of one file. */
    private static final class Pass {
        private final GltfContainer file;
        private final JsonValue json;
        private final ImportLimits limits;
        private final Progress progress;
        private final Accessors accessors;
        private final Set<String> notes = new LinkedHashSet<>();
        private final Map<String, SourceImage> images = new LinkedHashMap<>();
        private final List<Model.Group> groups = new ArrayList<>();
        private final List<Model.Part> parts = new ArrayList<>();
        private final Map<Integer, Integer> meshIndex = new HashMap<>();
        private final List<Mesh> meshes = new ArrayList<>();
        private final List<List<Integer>> sourcesOfMesh = new ArrayList<>();
        private long triangles;

        Pass(GltfContainer file, ImportLimits limits, Progress progress) {
            this.file = file;
            this.json = file.json();
            this.limits = limits;
            this.progress = progress;
            this.accessors = new Accessors(file);
        }

        Model run() throws ImportException {
            checkVersionAndExtensions();
            String[] imageNames = readImages();
            progress.at(0.2, "Reading materials");
            GltfMaterialReader materialReader =
                    new GltfMaterialReader(json, i -> i < imageNames.length ? imageNames[i] : null, notes);
            List<SourceMaterial> sources = new ArrayList<>();
            int[] texCoords = new int[json.list("materials").size()];
            for (JsonValue m : json.list("materials")) {
                Material material = materialReader.read(m, sources.size());
                texCoords[sources.size()] = materialReader.texCoord(m);
                sources.add(new SourceMaterial(material.name(), material));
            }
            countTriangles();
            readHierarchy(texCoords);
            if (parts.isEmpty()) {
                throw new ImportException(
                        "empty",
                        "The file holds no surfaces: there is nothing to dress. Check that the export included the"
                                + " model’s geometry.");
            }
            noteUnusedKinds();
            return new Model(groups, parts, meshes, sources, images, List.copyOf(notes));
        }

        private void checkVersionAndExtensions() throws ImportException {
            String version = json.require("asset").text("version", "");
            if (!version.startsWith("2.")) {
                throw new ImportException(
                        "unsupported",
                        "This is glTF version " + (version.isEmpty() ? "unknown" : version)
                                + "; Zolvan reads version 2. Export it as glTF 2.0.");
            }
            for (JsonValue required : json.list("extensionsRequired")) {
                String name = required.text();
                if (COMPRESSIONS.containsKey(name)) {
                    throw new ImportException(
                            "compressed",
                            "This file is packed with " + COMPRESSIONS.get(name)
                                    + " compression, which Zolvan does not read yet. Export it without compression.");
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
                progress.at(0.05 + 0.15 * i / names.length, "Reading textures");
                byte[] bytes;
                if (image.has("bufferView")) {
                    ByteBuffer view = file.view(image.get("bufferView").index());
                    bytes = new byte[view.remaining()];
                    view.get(bytes);
                } else {
                    bytes = GltfContainer.dataUri(image.require("uri").text(), "picture", i);
                }
                String label = image.text("name", "Picture " + (i + 1));
                ImageHeader header = ImageHeader.read(ByteBuffer.wrap(bytes)).orElse(null);
                if (header == null) {
                    notes.add("“" + label + "” is not a PNG, JPEG or WebP picture and was left out.");
                    continue;
                }
                if (Math.max(header.width(), header.height()) > limits.imageSide()
                        || (long) header.width() * header.height() > limits.imagePixels()) {
                    throw new ImportException(
                            "image-too-large",
                            String.format(
                                    Locale.ROOT,
                                    "The texture “%s” is %,d × %,d pixels; Zolvan takes up to %,d along a side. Reduce"
                                            + " it and export again.",
                                    label,
                                    header.width(),
                                    header.height(),
                                    limits.imageSide()));
                }
                names[i] = Digest.of(bytes);
                images.put(
                        names[i], new SourceImage(label, header.mediaType(), header.width(), header.height(), bytes));
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
                    if (triangles > limits.triangles() || vertices > 3L * limits.triangles()) {
                        throw new ImportException(
                                "too-many-triangles",
                                String.format(
                                        Locale.ROOT,
                                        "The model has more than %,d triangles. Export it with a coarser setting, or in"
                                                + " parts.",
                                        limits.triangles()));
                    }
                }
            }
        }

        private void readHierarchy(int[] texCoords) throws ImportException {
            List<JsonValue> nodes = json.list("nodes");
            if (nodes.size() > limits.nodes()) {
                throw new ImportException(
                        "too-large",
                        String.format(
                                Locale.ROOT,
                                "The model has %,d objects; Zolvan takes up to %,d. Join some and export again.",
                                nodes.size(),
                                limits.nodes()));
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
            if (depth > limits.depth()) {
                throw new ImportException(
                        "too-deep",
                        "The model’s groups are nested more than " + limits.depth()
                                + " deep. Ungroup some and export again.");
            }
            Transform local = transform(node);
            List<JsonValue> children = node.list("children");
            String name = node.text("name", null);
            int group = parent;
            if (!children.isEmpty()) {
                groups.add(new Model.Group(parent, name == null ? "Group " + (groups.size() + 1) : name, local));
                group = groups.size() - 1;
            }
            if (node.has("mesh")) {
                int mesh = mesh(node.get("mesh").index(), texCoords);
                if (mesh != Model.NONE) {
                    String meshName = GltfContainer.element(
                                    json, "meshes", node.get("mesh").index(), "mesh")
                            .text("name", null);
                    String partName = name != null ? name : meshName != null ? meshName : "Part " + (parts.size() + 1);
                    parts.add(new Model.Part(
                            group,
                            partName,
                            children.isEmpty() ? local : Transform.IDENTITY,
                            mesh,
                            sourcesOfMesh.get(mesh)));
                }
            }
            for (JsonValue child : children) {
                visit(child.index(), group, depth + 1, nodes, visited, texCoords);
            }
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
                result = meshes.size();
                meshes.add(assembly.mesh());
                sourcesOfMesh.add(assembly.sources());
            }
            meshIndex.put(index, result);
            progress.at(0.3 + 0.6 * meshIndex.size() / this.json.list("meshes").size(), "Reading geometry");
            return result;
        }

        private void addPrimitive(MeshAssembly assembly, JsonValue p, int material, int uvSet) throws ImportException {
            if (p.has("extensions")) {
                for (String key : p.get("extensions").keys()) {
                    if (COMPRESSIONS.containsKey(key)) {
                        notes.add("Parts packed with " + COMPRESSIONS.get(key) + " were read from their plain copy.");
                    }
                }
            }
            int mode = p.index("mode", TRIANGLES);
            if (mode < TRIANGLES) {
                notes.add("Points and lines are left out: they have no surface to dress.");
                return;
            }
            JsonValue attributes = p.require("attributes");
            if (!attributes.has("POSITION")) {
                notes.add("A surface without positions is left out (" + p.where() + ").");
                return;
            }
            if (attributes.has("COLOR_0")) {
                notes.add("Colours painted on vertices are not used yet.");
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
            if ((normals != null && normals.length != positions.length) || (uv != null && uv.length != 2 * vertices)) {
                throw p.wrong("as many normals and coordinates as corners");
            }
            assembly.add(positions, normals, uv, triangles(corners, mode), material);
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
                notes.add("Movements (animations) are left out.");
            }
            if (!json.list("skins").isEmpty()) {
                notes.add("Skins are left out; parts stand as they were modelled.");
            }
            if (!json.list("cameras").isEmpty()) {
                notes.add("Cameras are left out.");
            }
            for (JsonValue used : json.list("extensionsUsed")) {
                if (!KNOWN_EXTENSIONS.contains(used.text())) {
                    notes.add(used.text() + " is not used.");
                }
            }
        }
    }

    /** Joins a glTF mesh's primitives into one mesh with a span each. */
    private static final class MeshAssembly {
        private final List<float[]> positions = new ArrayList<>();
        private final List<float[]> normals = new ArrayList<>();
        private final List<float[]> uvs = new ArrayList<>();
        private final List<int[]> indices = new ArrayList<>();
        private final List<Integer> sources = new ArrayList<>();
        private boolean anyUv;

        void add(float[] position, float[] normal, float[] uv, int[] index, int source) {
            if (index.length == 0) {
                return;
            }
            float[] p = position;
            float[] n = normal;
            float[] t = uv;
            int[] x = index;
            if (normal == null) { // glTF asks for flat shading then
                p = new float[index.length * 3];
                t = uv == null ? null : new float[index.length * 2];
                x = new int[index.length];
                for (int i = 0; i < index.length; i++) {
                    System.arraycopy(position, 3 * index[i], p, 3 * i, 3);
                    if (uv != null) {
                        System.arraycopy(uv, 2 * index[i], t, 2 * i, 2);
                    }
                    x[i] = i;
                }
                n = new float[p.length];
            }
            positions.add(p);
            normals.add(unitNormals(p, n, x));
            uvs.add(t);
            indices.add(x);
            sources.add(source);
            anyUv |= t != null;
        }

        boolean isEmpty() {
            return indices.isEmpty();
        }

        List<Integer> sources() {
            return List.copyOf(sources);
        }

        Mesh mesh() {
            int vertices = positions.stream().mapToInt(p -> p.length / 3).sum();
            int corners = indices.stream().mapToInt(i -> i.length).sum();
            float[] p = new float[3 * vertices];
            float[] n = new float[3 * vertices];
            float[] t = anyUv ? new float[2 * vertices] : null;
            int[] x = new int[corners];
            int[] starts = new int[indices.size() + 1];
            int vertex = 0;
            int corner = 0;
            for (int s = 0; s < indices.size(); s++) {
                System.arraycopy(positions.get(s), 0, p, 3 * vertex, positions.get(s).length);
                System.arraycopy(normals.get(s), 0, n, 3 * vertex, normals.get(s).length);
                if (uvs.get(s) != null) {
                    System.arraycopy(uvs.get(s), 0, t, 2 * vertex, uvs.get(s).length);
                }
                for (int i : indices.get(s)) {
                    x[corner++] = i + vertex;
                }
                vertex += positions.get(s).length / 3;
                starts[s + 1] = corner / 3;
            }
            return new Mesh(p, n, t, null, x, starts, null);
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
