package app.zolvan.core.exchange.gltf;

import app.zolvan.core.ageing.AgedPictures;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.RealSize;
import java.util.Arrays;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.ToIntFunction;

/**
 * Writes a material as glTF with the KHR_materials extensions it needs. What glTF has no words for goes into the
 * material's extras under the standard's own parameter names, so that Zolvan reads back exactly what it wrote.
 */
final class GltfMaterialWriter {
    /** What is laid into the pictures of an aged look. */
    private static final Set<Parameter> AGED = EnumSet.of(
            Parameter.BASE_WEIGHT,
            Parameter.BASE_COLOR,
            Parameter.BASE_METALNESS,
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.AGE_WEATHERING,
            Parameter.AGE_GROWTH,
            Parameter.AGE_WEAR,
            Parameter.AGE_DUST);

    private final ToIntFunction<TextureUse> texture;
    private final Set<String> extensionsUsed;

    /**
     * @param texture        gives the index of the document's texture for a use
     * @param extensionsUsed takes the names of extensions as they come up
     */
    GltfMaterialWriter(ToIntFunction<TextureUse> texture, Set<String> extensionsUsed) {
        this.texture = texture;
        this.extensionsUsed = extensionsUsed;
    }

    Map<String, Object> write(Material material, PhysicalMaterial p, boolean twoSided) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("name", material.name());
        Map<String, Object> pbr = new LinkedHashMap<>();
        pbr.put("baseColorFactor", new double[] {
            p.baseColor().r(), p.baseColor().g(), p.baseColor().b(), p.alpha()
        });
        pbr.put("metallicFactor", p.metallic());
        pbr.put("roughnessFactor", p.roughness());
        putTexture(pbr, "baseColorTexture", p.baseColorTexture(), false);
        putTexture(pbr, "metallicRoughnessTexture", p.metallicRoughnessTexture(), false);
        m.put("pbrMetallicRoughness", pbr);
        putTexture(m, "normalTexture", p.normalTexture(), true);
        putTexture(m, "emissiveTexture", p.emissiveTexture(), false);
        if (!p.emissive().equals(LinearRgb.BLACK)) {
            m.put("emissiveFactor", p.emissive().toArray());
        }
        if (!p.alphaMode().equals("OPAQUE")) {
            m.put("alphaMode", p.alphaMode());
        }
        if (twoSided) {
            m.put("doubleSided", true);
        }
        Map<String, Object> ext = extensions(p);
        if (!ext.isEmpty()) {
            m.put("extensions", ext);
            extensionsUsed.addAll(ext.keySet());
        }
        Map<String, Object> own = extras(material, p);
        if (!own.isEmpty()) {
            m.put("extras", Map.of("zolvan", own));
        }
        return m;
    }

    /**
     * A material whose ageing is laid into two pictures, as {@link AgedPictures} makes them; its own pictures lie by the
     * second set of coordinates. Reads back as what it looks like, not as what it was made from.
     */
    Map<String, Object> writeAged(Material material, PhysicalMaterial p, boolean twoSided, int colour, int rough) {
        Map<String, Object> m = new LinkedHashMap<>();
        m.put("name", material.name());
        m.put(
                "pbrMetallicRoughness",
                ordered(
                        "baseColorFactor", new double[] {1, 1, 1, p.alpha()},
                        "baseColorTexture", Map.of("index", colour),
                        "metallicRoughnessTexture", Map.of("index", rough)));
        putTexture(m, "normalTexture", p.normalTexture(), true);
        putTexture(m, "emissiveTexture", p.emissiveTexture(), false);
        for (String own : List.of("normalTexture", "emissiveTexture")) {
            if (m.get(own) instanceof Map<?, ?> info) {
                Map<Object, Object> moved = new LinkedHashMap<>(info);
                moved.put("texCoord", 1);
                m.put(own, moved);
            }
        }
        if (!p.emissive().equals(LinearRgb.BLACK)) {
            m.put("emissiveFactor", p.emissive().toArray());
        }
        if (p.alpha() < 1) {
            m.put("alphaMode", "BLEND");
        }
        if (twoSided) {
            m.put("doubleSided", true);
        }
        Map<String, Object> finer = finer(material, p, AGED);
        if (!finer.isEmpty()) {
            m.put("extras", Map.of("zolvan", Map.of("open_pbr", finer)));
        }
        Map<String, Object> ext = extensions(p);
        uncovered(ext, "KHR_materials_clearcoat", "clearcoatTexture", rough);
        uncovered(ext, "KHR_materials_transmission", "transmissionTexture", rough);
        if (!ext.isEmpty()) {
            m.put("extensions", ext);
            extensionsUsed.addAll(ext.keySet());
        }
        return m;
    }

    /** Has an extension act only where nothing lies over the surface. */
    private static void uncovered(Map<String, Object> ext, String name, String texture, int index) {
        if (ext.get(name) instanceof Map<?, ?> values) {
            Map<Object, Object> covered = new LinkedHashMap<>(values);
            covered.put(texture, Map.of("index", index));
            ext.put(name, covered);
        }
    }

    private static Map<String, Object> extensions(PhysicalMaterial p) {
        Map<String, Object> ext = new LinkedHashMap<>();
        if (p.ior() != 1.5) {
            ext.put("KHR_materials_ior", Map.of("ior", p.ior()));
        }
        if (p.specular() != 1 || !p.specularColor().equals(LinearRgb.WHITE)) {
            ext.put(
                    "KHR_materials_specular",
                    ordered(
                            "specularFactor",
                            p.specular(),
                            "specularColorFactor",
                            p.specularColor().toArray()));
        }
        if (p.transmission() > 0) {
            ext.put("KHR_materials_transmission", Map.of("transmissionFactor", p.transmission()));
            if (p.thickness() > 0 || p.attenuationDistance() > 0) {
                Map<String, Object> volume = ordered("thicknessFactor", p.thickness());
                if (p.attenuationDistance() > 0) {
                    volume.put("attenuationDistance", p.attenuationDistance());
                    volume.put("attenuationColor", p.attenuationColor().toArray());
                }
                ext.put("KHR_materials_volume", volume);
            }
            if (p.dispersion() > 0 && p.thickness() > 0) {
                ext.put("KHR_materials_dispersion", Map.of("dispersion", p.dispersion()));
            }
        }
        if (p.clearcoat() > 0) {
            ext.put(
                    "KHR_materials_clearcoat",
                    ordered(
                            "clearcoatFactor", p.clearcoat(),
                            "clearcoatRoughnessFactor", p.clearcoatRoughness()));
        }
        if (!p.sheenColor().equals(LinearRgb.BLACK)) {
            ext.put(
                    "KHR_materials_sheen",
                    ordered(
                            "sheenColorFactor", p.sheenColor().toArray(),
                            "sheenRoughnessFactor", p.sheenRoughness()));
        }
        if (p.iridescence() > 0) {
            ext.put(
                    "KHR_materials_iridescence",
                    ordered(
                            "iridescenceFactor", p.iridescence(),
                            "iridescenceIor", p.iridescenceIor(),
                            "iridescenceThicknessMaximum", p.iridescenceThickness()));
        }
        if (p.anisotropy() > 0) {
            ext.put("KHR_materials_anisotropy", Map.of("anisotropyStrength", p.anisotropy()));
        }
        if (p.emissiveStrength() > 0 && p.emissiveStrength() != 1) {
            ext.put("KHR_materials_emissive_strength", Map.of("emissiveStrength", p.emissiveStrength()));
        }
        return ext;
    }

    /** Code, kind, and each parameter that a reader of the plain glTF values would get wrong. */
    private static Map<String, Object> extras(Material material, PhysicalMaterial p) {
        Map<String, Object> own = new LinkedHashMap<>();
        if (!material.code().isEmpty()) {
            own.put("code", material.code());
        }
        if (material.kind() != null) {
            own.put("kind", material.kind().word());
        }
        Map<String, Object> finer = finer(material, p, Set.of());
        if (!finer.isEmpty()) {
            own.put("open_pbr", finer);
        }
        if (p.metallicRoughnessTexture() != null
                && !material.surface().textures().containsKey(Parameter.BASE_METALNESS)) {
            own.put("metal_texture", false);
        }
        return own;
    }

    /** The parameters, but for some, that a reader of the plain glTF values would get wrong. */
    private static Map<String, Object> finer(Material material, PhysicalMaterial p, Set<Parameter> but) {
        Surface plain = p.effective().toSurface();
        Map<String, Object> finer = new LinkedHashMap<>();
        for (Parameter parameter : Parameter.values()) {
            if (parameter.shape() != Parameter.Shape.TEXTURE_ONLY
                    && !but.contains(parameter)
                    && !Arrays.equals(plain.value(parameter), material.surface().value(parameter))) {
                finer.put(parameter.openPbrName(), MaterialJson.value(material.surface(), parameter));
            }
        }
        return finer;
    }

    private void putTexture(Map<String, Object> to, String key, TextureUse use, boolean withScale) {
        if (use == null) {
            return;
        }
        Map<String, Object> info = ordered("index", texture.applyAsInt(use));
        if (withScale && use.strength() != 1) {
            info.put("scale", use.strength());
        }
        Map<String, Object> transform = new LinkedHashMap<>();
        if (use.placement() instanceof RealSize size) {
            transform.put("scale", new double[] {1 / size.width(), 1 / size.height()});
            info.put("extras", Map.of("zolvan", Map.of("real_size", new double[] {size.width(), size.height()})));
        } else if (use.placement() instanceof ModelUv uv && !uv.equals(ModelUv.PLAIN)) {
            transform.put("offset", new double[] {uv.offsetU(), uv.offsetV()});
            transform.put("rotation", uv.rotation());
            transform.put("scale", new double[] {uv.scaleU(), uv.scaleV()});
        }
        if (!transform.isEmpty()) {
            info.put("extensions", Map.of("KHR_texture_transform", transform));
            extensionsUsed.add("KHR_texture_transform");
        }
        to.put(key, info);
    }

    /** A map from alternating keys and values, in that order. */
    static Map<String, Object> ordered(Object... keysAndValues) {
        Map<String, Object> map = new LinkedHashMap<>();
        List<Object> list = List.of(keysAndValues);
        for (int i = 0; i < list.size(); i += 2) {
            map.put((String) list.get(i), list.get(i + 1));
        }
        return map;
    }
}
