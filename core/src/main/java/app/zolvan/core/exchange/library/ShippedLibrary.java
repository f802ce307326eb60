package app.zolvan.core.exchange.library;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.Pattern;
import app.zolvan.core.texture.PatternImages;
import app.zolvan.core.texture.Patterns;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * The materials that ship with Zolvan: one readable JSON file a drawer beside this class, with generated textures where a
 * material names a pattern.
 *
 * @param materials in the order of the drawers and of the files
 * @param images    PNG bytes by SHA-256, for all textures the materials use
 */
public record ShippedLibrary(List<Material> materials, Map<String, byte[]> images) {
    private static final List<String> DRAWERS = List.of(
            "paint",
            "metal",
            "wood",
            "stone",
            "concrete",
            "ceramic",
            "plastic",
            "rubber",
            "glass",
            "liquid",
            "fabric",
            "leather",
            "paper",
            "light");

    /** Raised when the patterns' formulas change, so that installed textures are made anew. */
    private static final int PATTERN_EDITION = 1;

    /** Names what {@link #load} would give, without the work of drawing the textures. */
    public static String edition() {
        MessageDigest digest = Digest.sha256();
        digest.update((byte) PATTERN_EDITION);
        for (String drawer : DRAWERS) {
            try (InputStream in = open(drawer)) {
                digest.update(in.readAllBytes());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
        return HexFormat.of().formatHex(digest.digest());
    }

    private static InputStream open(String drawer) {
        return ShippedLibrary.class.getResourceAsStream(drawer + ".json");
    }

    public static ShippedLibrary load() {
        List<Material> materials = new ArrayList<>();
        Map<String, byte[]> images = new LinkedHashMap<>();
        try {
            for (String drawer : DRAWERS) {
                JsonValue json = JsonValue.parseTrusted(open(drawer));
                for (JsonValue m : json.elements()) {
                    materials.add(material(m, MaterialKind.ofWord(drawer), images));
                }
            }
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
        return new ShippedLibrary(List.copyOf(materials), Map.copyOf(images));
    }

    private static Material material(JsonValue m, MaterialKind kind, Map<String, byte[]> images)
            throws ImportException {
        Surface surface = MaterialJson.read(m.require("open_pbr"));
        if (m.has("pattern")) {
            surface = textured(surface, m.get("pattern"), images);
        }
        return new Material(m.require("code").text(), m.require("name").text(), kind, surface);
    }

    private static Surface textured(Surface surface, JsonValue p, Map<String, byte[]> images) throws ImportException {
        double[] size = p.numbers("real_size", 1, 1);
        PatternImages render = new PatternImages(pattern(p), p.index("pixels", 512));
        RealSize real = new RealSize(size[0], size[1]);
        Surface s = surface;
        if (p.has("tone")) {
            double[] tone = p.numbers("tone", 0, 255);
            s = with(s, Parameter.BASE_COLOR, Channel.RGB, render.tone((int) tone[0], (int) tone[1]), real, images);
        }
        if (p.has("roughness")) {
            double[] r = p.numbers("roughness", 0, 1);
            s = with(s, Parameter.SPECULAR_ROUGHNESS, Channel.G, render.roughness(r[0], r[1]), real, images);
        }
        if (p.has("relief")) {
            byte[] normals = render.normals(p.number("relief", 0), size[0], size[1]);
            s = with(s, Parameter.GEOMETRY_NORMAL, Channel.RGB, normals, real, images);
        }
        return s;
    }

    private static Pattern pattern(JsonValue p) throws ImportException {
        int seed = p.index("seed", 1);
        int count = p.require("count").index();
        String name = p.require("name").text();
        return switch (name) {
            case "leather" -> Patterns.leather(seed, count);
            case "wood" -> Patterns.wood(seed, count);
            case "weave" -> Patterns.weave(seed, count);
            case "bubbles" -> Patterns.bubbles(seed, count);
            case "diamonds" -> Patterns.diamonds(count);
            case "brushed" -> Patterns.brushed(seed, count);
            default -> throw p.wrong("a known pattern");
        };
    }

    private static Surface with(
            Surface s, Parameter p, Channel channel, byte[] png, RealSize size, Map<String, byte[]> images) {
        String digest = Digest.of(png);
        images.put(digest, png);
        return s.withTexture(p, TextureUse.repeating(digest, channel, size));
    }
}
