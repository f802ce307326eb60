package app.zolvan.core.exchange.gltf;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Placement;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.material.TextureUse.Wrap;
import java.util.List;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.IntFunction;

/**
 * Reads a glTF material with the KHR_materials extensions of rules.md, section 2. What a file written by Zolvan says in
 * its extras beyond glTF is taken only while it still agrees with the glTF values: a file edited elsewhere wins.
 */
final class GltfMaterialReader {
    static final double AGREEMENT = 1e-5;
    private static final List<String> UNUSED_TEXTURES = List.of(
            "transmissionTexture",
            "thicknessTexture",
            "specularTexture",
            "specularColorTexture",
            "clearcoatTexture",
            "clearcoatRoughnessTexture",
            "clearcoatNormalTexture",
            "sheenColorTexture",
            "sheenRoughnessTexture",
            "iridescenceTexture",
            "iridescenceThicknessTexture",
            "anisotropyTexture");

    private final JsonValue document;
    private final IntFunction<String> imageName;
    private final Set<String> notes;

    /**
     * @param imageName gives the SHA-256 of the document's image of that index, or null where it can't be used
     * @param notes     takes sentences about what is left out
     */
    GltfMaterialReader(JsonValue document, IntFunction<String> imageName, Set<String> notes) {
        this.document = document;
        this.imageName = imageName;
        this.notes = notes;
    }

    Material read(JsonValue m, int index) throws ImportException {
        String name = m.text("name", "Material " + (index + 1));
        JsonValue pbr = m.get("pbrMetallicRoughness");
        JsonValue ext = m.get("extensions");
        boolean unlit = ext != null && ext.has("KHR_materials_unlit");
        noteUnused(m, ext, name);
        double[] base = pbr == null ? new double[] {1, 1, 1, 1} : pbr.numbers("baseColorFactor", 1, 1, 1, 1);
        JsonValue volume = extension(ext, "KHR_materials_volume");
        JsonValue coat = extension(ext, "KHR_materials_clearcoat");
        JsonValue sheen = extension(ext, "KHR_materials_sheen");
        JsonValue specular = extension(ext, "KHR_materials_specular");
        JsonValue film = extension(ext, "KHR_materials_iridescence");
        TextureUse colour = pbr == null ? null : texture(pbr.get("baseColorTexture"), Channel.RGB);
        PhysicalMaterial physical = new PhysicalMaterial(
                new LinearRgb(base[0], base[1], base[2]),
                m.text("alphaMode", "OPAQUE").equals("OPAQUE") ? 1 : base[3],
                m.text("alphaMode", "OPAQUE"),
                unlit ? 0 : number(pbr, "metallicFactor", 1),
                unlit ? 1 : number(pbr, "roughnessFactor", 1),
                LinearRgb.of(m.numbers("emissiveFactor", 0, 0, 0)),
                number(extension(ext, "KHR_materials_emissive_strength"), "emissiveStrength", 1),
                number(extension(ext, "KHR_materials_ior"), "ior", 1.5),
                unlit ? 0 : number(specular, "specularFactor", 1),
                colour(specular, "specularColorFactor", 1),
                number(extension(ext, "KHR_materials_transmission"), "transmissionFactor", 0),
                number(volume, "thicknessFactor", 0),
                colour(volume, "attenuationColor", 1),
                number(volume, "attenuationDistance", 0),
                number(extension(ext, "KHR_materials_dispersion"), "dispersion", 0),
                number(coat, "clearcoatFactor", 0),
                number(coat, "clearcoatRoughnessFactor", 0),
                colour(sheen, "sheenColorFactor", 0),
                number(sheen, "sheenRoughnessFactor", sheen == null ? 0.5 : 0),
                number(film, "iridescenceFactor", 0),
                number(film, "iridescenceIor", film == null ? 1.4 : 1.3),
                number(film, "iridescenceThicknessMaximum", film == null ? 500 : 400),
                number(extension(ext, "KHR_materials_anisotropy"), "anisotropyStrength", 0),
                colour,
                pbr == null ? null : texture(pbr.get("metallicRoughnessTexture"), Channel.G),
                texture(m.get("normalTexture"), Channel.RGB),
                texture(m.get("emissiveTexture"), Channel.RGB),
                null);
        Surface surface = physical.toSurface();
        JsonValue own = ownExtras(m);
        if (own == null) {
            return new Material("", name, null, surface);
        }
        return new Material(own.text("code", ""), name, kind(own.text("kind", "")), refined(physical, surface, own));
    }

    private static Surface refined(PhysicalMaterial physical, Surface surface, JsonValue own) {
        try {
            Surface finer = own.has("open_pbr") ? MaterialJson.readOver(surface, own.get("open_pbr")) : surface;
            if (physical.metallicRoughnessTexture() == null || own.flag("metal_texture", true)) {
                return agrees(physical, finer) ? finer : surface;
            }
            Surface rough = finer.withTexture(Parameter.BASE_METALNESS, null);
            return agrees(physical, rough) ? rough : surface;
        } catch (ParameterException | ImportException e) {
            return surface; // damaged extras: the glTF values stand
        }
    }

    private static boolean agrees(PhysicalMaterial physical, Surface surface) {
        return PhysicalMaterial.of(surface, physical.thickness()).isNearButForThickness(physical, AGREEMENT);
    }

    private static MaterialKind kind(String word) {
        try {
            return word.isEmpty() ? null : MaterialKind.ofWord(word);
        } catch (IllegalArgumentException e) {
            return null;
        }
    }

    private static JsonValue ownExtras(JsonValue json) throws ImportException {
        JsonValue extras = json.get("extras");
        JsonValue own = extras != null && extras.isObject() ? extras.get("zolvan") : null;
        return own != null && own.isObject() ? own : null;
    }

    private void noteUnused(JsonValue m, JsonValue ext, String name) throws ImportException {
        if (m.has("occlusionTexture")) {
            notes.add("“" + name + "”: its occlusion picture is not used; shading is computed instead.");
        }
        if (ext == null) {
            return;
        }
        for (String key : ext.keys()) {
            JsonValue e = ext.get(key);
            for (String texture : UNUSED_TEXTURES) {
                if (e.isObject() && e.has(texture)) {
                    notes.add("“" + name + "”: the picture in " + texture + " (" + key + ") is not used yet.");
                }
            }
            if (!GltfReader.KNOWN_EXTENSIONS.contains(key)) {
                notes.add("“" + name + "”: " + key + " is not used.");
            }
        }
    }

    private TextureUse texture(JsonValue info, Channel channel) throws ImportException {
        if (info == null) {
            return null;
        }
        JsonValue texture = GltfContainer.element(
                document, "textures", info.require("index").index(), "texture");
        JsonValue ext = texture.get("extensions");
        JsonValue webp = extension(ext, "EXT_texture_webp");
        JsonValue source = webp != null ? webp.get("source") : texture.get("source");
        if (source == null) {
            notes.add("A texture in a compressed form that Zolvan does not read yet was left out (" + texture.where()
                    + ").");
            return null;
        }
        String image = imageName.apply(source.index());
        if (image == null) {
            return null;
        }
        Wrap wrapU = Wrap.REPEAT;
        Wrap wrapV = Wrap.REPEAT;
        if (texture.has("sampler")) {
            JsonValue sampler = GltfContainer.element(
                    document, "samplers", texture.get("sampler").index(), "sampler");
            wrapU = wrap(sampler.index("wrapS", 10497));
            wrapV = wrap(sampler.index("wrapT", 10497));
        }
        return new TextureUse(image, channel, placement(info), wrapU, wrapV, info.number("scale", 1));
    }

    private static Placement placement(JsonValue info) throws ImportException {
        JsonValue t = extension(info.get("extensions"), "KHR_texture_transform");
        double[] offset = t == null ? new double[2] : t.numbers("offset", 0, 0);
        double[] scale = t == null ? new double[] {1, 1} : t.numbers("scale", 1, 1);
        double rotation = t == null ? 0 : t.number("rotation", 0);
        JsonValue own = ownExtras(info);
        if (own != null && own.has("real_size")) {
            double[] size = own.numbers("real_size", 1, 1);
            boolean untouched = Math.abs(size[0] * scale[0] - 1) < AGREEMENT
                    && Math.abs(size[1] * scale[1] - 1) < AGREEMENT
                    && offset[0] == 0
                    && offset[1] == 0
                    && rotation == 0;
            if (untouched && size[0] > 0 && size[1] > 0) {
                return new RealSize(size[0], size[1]);
            }
        }
        return new ModelUv(offset[0], offset[1], rotation, scale[0], scale[1]);
    }

    /** Which of the mesh's coordinate sets a material's textures follow; the colour's where they differ. */
    int texCoord(JsonValue m) throws ImportException {
        JsonValue pbr = m.get("pbrMetallicRoughness");
        Set<Integer> sets = new TreeSet<>();
        Integer first = null;
        for (JsonValue info : new JsonValue[] {
            pbr == null ? null : pbr.get("baseColorTexture"),
            pbr == null ? null : pbr.get("metallicRoughnessTexture"),
            m.get("normalTexture"),
            m.get("emissiveTexture")
        }) {
            if (info != null) {
                JsonValue t = extension(info.get("extensions"), "KHR_texture_transform");
                int set = t != null && t.has("texCoord") ? t.get("texCoord").index() : info.index("texCoord", 0);
                first = first == null ? Integer.valueOf(set) : first;
                sets.add(set);
            }
        }
        if (sets.size() > 1) {
            notes.add("“" + m.text("name", "A material")
                    + "” lays its pictures by several sets of coordinates; only the first is followed.");
        }
        return first == null ? 0 : first;
    }

    private static Wrap wrap(int mode) {
        return mode == 33071 ? Wrap.ONCE : mode == 33648 ? Wrap.MIRROR : Wrap.REPEAT;
    }

    private static JsonValue extension(JsonValue ext, String name) throws ImportException {
        return ext == null ? null : ext.get(name);
    }

    private static double number(JsonValue json, String key, double otherwise) throws ImportException {
        return json == null ? otherwise : json.number(key, otherwise);
    }

    private static LinearRgb colour(JsonValue json, String key, double otherwise) throws ImportException {
        return json == null
                ? LinearRgb.grey(otherwise)
                : LinearRgb.of(json.numbers(key, otherwise, otherwise, otherwise));
    }
}
