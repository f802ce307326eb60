package app.zolvan.core.exchange.gltf;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.ageing.AgedPictures;
import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.mapping.Mapping;
import app.zolvan.core.mapping.Tangents;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;

/**
 * Writes a dressed model as binary glTF 2.0: hierarchy, names and instances as they arrived, one glTF material for each
 * look (and thickness, where light passes through), textures embedded, the texture coordinates that each look needs as
 * TEXCOORD_0, with tangents where there is a normal map. The same input gives the same bytes.
 */
public final class GltfWriter {
    private static final int ARRAY_BUFFER = 34962;
    private static final int ELEMENT_ARRAY_BUFFER = 34963;
    private static final int FLOAT = 5126;
    private static final int UNSIGNED_INT = 5125;
    private static final int UNSIGNED_SHORT = 5123;

    private final DressedModel dressed;
    private final List<byte[]> binary = new ArrayList<>();
    private int binaryLength;
    private final List<Object> bufferViews = new ArrayList<>();
    private final List<Object> accessors = new ArrayList<>();
    private final List<Object> images = new ArrayList<>();
    private final List<Object> textures = new ArrayList<>();
    private final List<Object> samplers = new ArrayList<>();
    private final List<Object> materials = new ArrayList<>();
    private final List<Object> meshes = new ArrayList<>();
    private final List<Object> nodes = new ArrayList<>();
    private final Map<Object, Integer> known = new HashMap<>();
    private final Map<String, byte[]> baked = new HashMap<>();
    private final TreeSet<String> extensions = new TreeSet<>();
    private final GltfMaterialWriter materialWriter = new GltfMaterialWriter(this::texture, extensions);

    private final ModelWriter.FileSink beside;
    private final String bufferName;

    /** @param beside where pictures and the buffer go as files of their own; null for one binary file */
    private GltfWriter(DressedModel dressed, String bufferName, ModelWriter.FileSink beside) {
        this.dressed = PackedPictures.in(dressed);
        this.bufferName = bufferName;
        this.beside = beside;
    }

    public static void write(DressedModel dressed, OutputStream out) throws IOException {
        GltfWriter writer = new GltfWriter(dressed, null, null);
        writer.writeBinary(JsonText.utf8(writer.describe()), out);
    }

    /** The same as a .gltf with its buffer and pictures beside it. */
    static void writeBundle(DressedModel dressed, String base, ModelWriter.FileSink sink) throws IOException {
        GltfWriter writer = new GltfWriter(dressed, base + ".bin", sink);
        byte[] json = JsonText.utf8(writer.describe());
        sink.file(base + ".gltf", out -> out.write(json));
        sink.file(base + ".bin", writer::writeBuffer);
    }

    private Map<String, Object> describe() throws IOException {
        Model model = dressed.model();
        List<Object> roots = new ArrayList<>();
        List<List<Object>> childrenOfGroup = new ArrayList<>();
        for (Model.Group g : model.groups()) {
            List<Object> children = new ArrayList<>();
            childrenOfGroup.add(children);
            Map<String, Object> node = node(g.name(), g.local());
            node.put("children", children);
            nodes.add(node);
            (g.parent() == Model.NONE ? roots : childrenOfGroup.get(g.parent())).add(nodes.size() - 1);
        }
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            Map<String, Object> node = node(part.name(), part.local());
            node.put("mesh", mesh(p, part));
            nodes.add(node);
            (part.group() == Model.NONE ? roots : childrenOfGroup.get(part.group())).add(nodes.size() - 1);
        }
        for (int g = 0; g < childrenOfGroup.size(); g++) {
            if (childrenOfGroup.get(g).isEmpty()) { // glTF has no empty lists
                ((Map<?, ?>) nodes.get(g)).remove("children");
            }
        }
        return document(roots);
    }

    private void writeBinary(byte[] json, OutputStream out) throws IOException {
        int jsonLength = padded(json.length);
        ByteBuffer head = ByteBuffer.allocate(20).order(ByteOrder.LITTLE_ENDIAN);
        head.putInt(0x46546C67).putInt(2).putInt(12 + 8 + jsonLength + 8 + binaryLength);
        head.putInt(jsonLength).putInt(0x4E4F534A);
        out.write(head.array());
        out.write(json);
        for (int i = json.length; i < jsonLength; i++) {
            out.write(' ');
        }
        ByteBuffer bin = ByteBuffer.allocate(8).order(ByteOrder.LITTLE_ENDIAN);
        out.write(bin.putInt(binaryLength).putInt(0x004E4942).array());
        writeBuffer(out);
    }

    private void writeBuffer(OutputStream out) throws IOException {
        for (byte[] piece : binary) {
            out.write(piece);
            out.write(new byte[padded(piece.length) - piece.length]);
        }
    }

    private Map<String, Object> document(List<Object> roots) {
        Map<String, Object> doc = new LinkedHashMap<>();
        doc.put("asset", Map.of("version", "2.0", "generator", "Zolvan"));
        doc.put("scene", 0);
        doc.put("scenes", List.of(GltfMaterialWriter.ordered("name", dressed.name(), "nodes", roots)));
        doc.put("nodes", nodes);
        doc.put("meshes", meshes);
        putUnlessEmpty(doc, "materials", materials);
        putUnlessEmpty(doc, "textures", textures);
        putUnlessEmpty(doc, "samplers", samplers);
        putUnlessEmpty(doc, "images", images);
        doc.put("accessors", accessors);
        doc.put("bufferViews", bufferViews);
        doc.put(
                "buffers",
                List.of(
                        bufferName == null
                                ? Map.of("byteLength", binaryLength)
                                : GltfMaterialWriter.ordered("uri", bufferName, "byteLength", binaryLength)));
        if (!extensions.isEmpty()) {
            doc.put("extensionsUsed", new ArrayList<>(extensions));
        }
        return doc;
    }

    private static void putUnlessEmpty(Map<String, Object> doc, String key, List<Object> list) {
        if (!list.isEmpty()) {
            doc.put(key, list);
        }
    }

    private static Map<String, Object> node(String name, Transform local) {
        Map<String, Object> node = new LinkedHashMap<>();
        node.put("name", name);
        if (!local.equals(Transform.IDENTITY)) {
            node.put("matrix", local.columns());
        }
        return node;
    }

    /** One glTF mesh for each mesh with each combination of looks. */
    private int mesh(int partIndex, Model.Part part) {
        Mesh mesh = dressed.model().meshOf(part);
        List<Object> key = new ArrayList<>(List.of("mesh", part.mesh()));
        List<Look> looks = new ArrayList<>();
        for (int s = 0; s < mesh.spanCount(); s++) {
            Look look = dressed.look().apply(partIndex, s);
            looks.add(look);
            key.add(look == null ? "none" : isAged(partIndex, look) ? "aged" : materialIndex(look));
            key.add(look != null && look.mapping() instanceof Mapping.ModelUvs);
            key.add(look == null || look.from() == null);
            key.add(isAged(partIndex, look) ? partIndex : Model.NONE);
        }
        Integer existing = known.get(key);
        if (existing != null) {
            return existing;
        }
        List<Object> primitives = new ArrayList<>();
        for (int s = 0; s < mesh.spanCount(); s++) {
            Look look = looks.get(s);
            if (isAged(partIndex, look)) {
                primitives.add(agedPrimitive(partIndex, mesh, s, look));
                continue;
            }
            Map<String, Object> attributes = new LinkedHashMap<>();
            attributes.put("POSITION", vectors(part.mesh(), "positions", mesh.positions(), 3));
            attributes.put("NORMAL", vectors(part.mesh(), "normals", mesh.normals(), 3));
            boolean modelUvs = look == null || look.mapping() instanceof Mapping.ModelUvs;
            float[] uv = modelUvs ? mesh.uv() : mesh.metricUv();
            boolean textured =
                    look != null && !look.material().surface().textures().isEmpty();
            if (uv != null && (textured || look == null)) {
                String set = modelUvs ? "uv" : "metric";
                attributes.put("TEXCOORD_0", vectors(part.mesh(), set, uv, 2));
                if (look != null && look.physical().normalTexture() != null) {
                    String tangents = set + " tangents";
                    Integer known = this.known.get(List.of(tangents, part.mesh()));
                    attributes.put(
                            "TANGENT",
                            known != null ? known : vectors(part.mesh(), tangents, Tangents.of(mesh, uv), 4));
                }
            }
            boolean arrived = look == null || look.from() == null;
            if (attributes.containsKey("TEXCOORD_0") && modelUvs && mesh.uv2() != null) {
                attributes.put("TEXCOORD_1", vectors(part.mesh(), "second set", mesh.uv2(), 2));
            }
            if (arrived && mesh.colours() != null) {
                attributes.put("COLOR_0", colours(part.mesh(), mesh.colours()));
            }
            Map<String, Object> primitive = new LinkedHashMap<>();
            primitive.put("attributes", attributes);
            primitive.put("indices", spanIndices(part.mesh(), mesh, s));
            if (look != null) {
                primitive.put("material", materialIndex(look));
            }
            primitives.add(primitive);
        }
        meshes.add(GltfMaterialWriter.ordered("name", part.name(), "primitives", primitives));
        known.put(key, meshes.size() - 1);
        return meshes.size() - 1;
    }

    private boolean isAged(int part, Look look) {
        return look != null && !look.physical().beyond().ageing().isNone() && fields(part, look) != null;
    }

    private AgeFields fields(int part, Look look) {
        return dressed.ages().apply(part, look.physical().beyond().ageing().corrodes());
    }

    /**
     * A span with what years have made of it laid into pictures. Its triangles have corners of their own, since they lie in
     * these pictures one beside another; where its own pictures lie is told by TEXCOORD_1.
     */
    private Map<String, Object> agedPrimitive(int part, Mesh mesh, int span, Look look) {
        AgeFields fields = fields(part, look);
        Mesh parted = mesh.parted(fields.atlas().uv());
        int own = -2 - part; // no mesh has such a number
        boolean corrodes = look.physical().beyond().ageing().corrodes();
        Map<String, Object> attributes = new LinkedHashMap<>();
        attributes.put("POSITION", vectors(own, "positions", parted.positions(), 3));
        attributes.put("NORMAL", vectors(own, "normals", parted.normals(), 3));
        attributes.put("TEXCOORD_0", vectors(own, corrodes ? "corrosion" : "weathering", parted.uv2(), 2));
        boolean modelUvs = look.mapping() instanceof Mapping.ModelUvs;
        float[] uv = modelUvs ? parted.uv() : parted.metricUv();
        PhysicalMaterial p = look.physical();
        if (uv != null && (p.normalTexture() != null || p.emissiveTexture() != null)) {
            attributes.put("TEXCOORD_1", vectors(own, modelUvs ? "uv" : "metric", uv, 2));
            attributes.put(
                    "TANGENT", vectors(own, modelUvs ? "uv tangents" : "metric tangents", Tangents.of(parted, uv), 4));
        }
        AgedPictures pictures = AgedPictures.of(mesh, span, look, fields, dressed.image());
        materials.add(materialWriter.writeAged(
                look.material(), p, isTwoSided(look), bakedTexture(pictures.colour()), bakedTexture(pictures.rough())));
        Map<String, Object> primitive = new LinkedHashMap<>();
        primitive.put("attributes", attributes);
        primitive.put("indices", spanIndices(own, parted, span));
        primitive.put("material", materials.size() - 1);
        return primitive;
    }

    private int bakedTexture(byte[] png) {
        String digest = Digest.of(png);
        baked.put(digest, png);
        return texture(TextureUse.repeating(digest, TextureUse.Channel.RGB, TextureUse.ModelUv.PLAIN));
    }

    private byte[] image(String digest) {
        byte[] own = baked.get(digest);
        return own != null ? own : dressed.image().apply(digest);
    }

    /** What has no thickness is seen from behind, too. */
    private static boolean isTwoSided(Look look) {
        return !look.oneSided() && look.physical().thickness() <= 0;
    }

    private int materialIndex(Look look) {
        List<Object> key = List.of("material", look.material(), look.physical(), look.oneSided());
        Integer existing = known.get(key);
        if (existing == null) {
            materials.add(materialWriter.write(look.material(), look.physical(), isTwoSided(look)));
            existing = materials.size() - 1;
            known.put(key, existing);
        }
        return existing;
    }

    private int texture(TextureUse use) {
        List<Object> key = List.of("texture", use.image(), use.wrapU(), use.wrapV());
        Integer existing = known.get(key);
        if (existing != null) {
            return existing;
        }
        Object samplerKey = List.of("sampler", use.wrapU(), use.wrapV());
        Integer sampler = known.get(samplerKey);
        if (sampler == null) {
            samplers.add(GltfMaterialWriter.ordered(
                    "magFilter", 9729, "minFilter", 9987, "wrapS", wrap(use.wrapU()), "wrapT", wrap(use.wrapV())));
            sampler = samplers.size() - 1;
            known.put(samplerKey, sampler);
        }
        Integer image = known.get(List.of("image", use.image()));
        if (image == null) {
            byte[] bytes = image(use.image());
            String type = ImageHeader.read(ByteBuffer.wrap(bytes))
                    .map(ImageHeader::mediaType)
                    .orElse("image/png");
            images.add(
                    beside == null
                            ? GltfMaterialWriter.ordered("bufferView", view(bytes, 0), "mimeType", type)
                            : GltfMaterialWriter.ordered("uri", pictureFile(use.image(), bytes)));
            image = images.size() - 1;
            known.put(List.of("image", use.image()), image);
        }
        Map<String, Object> texture = GltfMaterialWriter.ordered("sampler", sampler);
        boolean webp = ImageHeader.read(ByteBuffer.wrap(image(use.image())))
                .filter(h -> h.mediaType().equals("image/webp"))
                .isPresent();
        if (webp) {
            extensions.add("EXT_texture_webp");
            texture.put("extensions", Map.of("EXT_texture_webp", Map.of("source", image)));
        } else {
            texture.put("source", image);
        }
        textures.add(texture);
        known.put(key, textures.size() - 1);
        return textures.size() - 1;
    }

    private String pictureFile(String digest, byte[] bytes) {
        String path = ImageHeader.fileName(digest, bytes);
        try {
            beside.file(path, out -> out.write(bytes));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return path;
    }

    private static int wrap(TextureUse.Wrap wrap) {
        return switch (wrap) {
            case REPEAT -> 10497;
            case MIRROR -> 33648;
            case ONCE -> 33071;
        };
    }

    private int vectors(int meshIndex, String what, float[] values, int width) {
        List<Object> key = List.of(what, meshIndex);
        Integer existing = known.get(key);
        if (existing != null) {
            return existing;
        }
        ByteBuffer bytes = ByteBuffer.allocate(values.length * 4).order(ByteOrder.LITTLE_ENDIAN);
        bytes.asFloatBuffer().put(values);
        Map<String, Object> accessor = GltfMaterialWriter.ordered(
                "bufferView",
                view(bytes.array(), ARRAY_BUFFER),
                "componentType",
                FLOAT,
                "count",
                values.length / width,
                "type",
                "VEC" + width);
        if (what.equals("positions")) {
            double[] min = new double[width];
            double[] max = new double[width];
            Arrays.fill(min, Double.POSITIVE_INFINITY);
            Arrays.fill(max, Double.NEGATIVE_INFINITY);
            for (int i = 0; i < values.length; i++) {
                min[i % width] = Math.min(min[i % width], values[i]);
                max[i % width] = Math.max(max[i % width], values[i]);
            }
            accessor.put("min", min);
            accessor.put("max", max);
        }
        accessors.add(accessor);
        known.put(key, accessors.size() - 1);
        return accessors.size() - 1;
    }

    /** Painted colours as glTF takes them: linear, 16 bits so that dark tones keep their steps. */
    private int colours(int meshIndex, byte[] srgb) {
        List<Object> key = List.of("colours", meshIndex);
        Integer existing = known.get(key);
        if (existing != null) {
            return existing;
        }
        ByteBuffer bytes = ByteBuffer.allocate(srgb.length * 2).order(ByteOrder.LITTLE_ENDIAN);
        for (int i = 0; i < srgb.length; i++) {
            double v = (srgb[i] & 0xFF) / 255.0;
            bytes.putShort((short) Math.round(65535 * (i % 4 == 3 ? v : Srgb.decode(v))));
        }
        accessors.add(GltfMaterialWriter.ordered(
                "bufferView",
                view(bytes.array(), ARRAY_BUFFER),
                "componentType",
                UNSIGNED_SHORT,
                "normalized",
                true,
                "count",
                srgb.length / 4,
                "type",
                "VEC4"));
        known.put(key, accessors.size() - 1);
        return accessors.size() - 1;
    }

    private int spanIndices(int meshIndex, Mesh mesh, int span) {
        List<Object> key = List.of("indices", meshIndex, span);
        Integer existing = known.get(key);
        if (existing != null) {
            return existing;
        }
        int from = 3 * mesh.spanStarts()[span];
        int count = 3 * mesh.spanStarts()[span + 1] - from;
        ByteBuffer bytes = ByteBuffer.allocate(count * 4).order(ByteOrder.LITTLE_ENDIAN);
        bytes.asIntBuffer().put(mesh.indices(), from, count);
        accessors.add(GltfMaterialWriter.ordered(
                "bufferView",
                view(bytes.array(), ELEMENT_ARRAY_BUFFER),
                "componentType",
                UNSIGNED_INT,
                "count",
                count,
                "type",
                "SCALAR"));
        known.put(key, accessors.size() - 1);
        return accessors.size() - 1;
    }

    private int view(byte[] bytes, int target) {
        Map<String, Object> view =
                GltfMaterialWriter.ordered("buffer", 0, "byteOffset", binaryLength, "byteLength", bytes.length);
        if (target != 0) {
            view.put("target", target);
        }
        bufferViews.add(view);
        binary.add(bytes);
        binaryLength = Math.addExact(binaryLength, padded(bytes.length));
        return bufferViews.size() - 1;
    }

    private static int padded(int length) {
        return (length + 3) & ~3;
    }
}
