package app.zolvan.core.exchange.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.model.Digest;
import app.zolvan.core.texture.Colouring;
import app.zolvan.core.texture.PatternImages;
import app.zolvan.core.texture.Patterns;
import app.zolvan.core.texture.Recipe;
import java.io.IOException;
import java.io.InputStream;
import java.io.Serializable;
import java.io.UncheckedIOException;
import java.lang.ref.SoftReference;
import java.security.MessageDigest;
import java.util.ArrayList;
import java.util.HashMap;
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
 * @param facts     what is known of materials besides their looks, by their codes
 */
public record ShippedLibrary(List<Material> materials, Map<String, byte[]> images, Map<String, Facts> facts)
        implements Serializable {
    private static final List<String> DRAWERS = List.of(
            "paint",
            "metal",
            "wood",
            "stone",
            "concrete",
            "brick",
            "ceramic",
            "plaster",
            "plastic",
            "rubber",
            "glass",
            "liquid",
            "fabric",
            "leather",
            "paper",
            "foliage",
            "light",
            "composite");

    /** Raised when the patterns' formulas change, so that installed textures are made anew. */
    private static final int PATTERN_EDITION = 3;

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

    private static SoftReference<ShippedLibrary> kept = new SoftReference<>(null);

    /** Read once while there is memory for it. */
    public static synchronized ShippedLibrary load() {
        ShippedLibrary known = kept.get();
        if (known == null) {
            known = read();
            kept = new SoftReference<>(known);
        }
        return known;
    }

    /** The materials without their textures, which take their time to be drawn; patterned ones have one colour. */
    public static List<Material> plain() {
        return entries().stream().map(Entry::plain).toList();
    }

    private static List<Entry> entries() {
        List<Entry> entries = new ArrayList<>();
        try {
            for (String drawer : DRAWERS) {
                for (JsonValue m : JsonValue.parseTrusted(open(drawer)).elements()) {
                    entries.add(new Entry(MaterialKind.ofWord(drawer), m));
                }
            }
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
        return entries;
    }

    private static ShippedLibrary read() {
        Map<String, byte[]> images = new LinkedHashMap<>();
        List<Material> materials = new ArrayList<>();
        Map<String, Facts> facts = new HashMap<>();
        for (Made made : entries().parallelStream().map(Entry::make).toList()) {
            materials.add(made.material);
            images.putAll(made.images);
            if (made.facts != null) {
                facts.put(made.material.code(), made.facts);
            }
        }
        return new ShippedLibrary(List.copyOf(materials), Map.copyOf(images), Map.copyOf(facts));
    }

    private record Made(Material material, Map<String, byte[]> images, Facts facts) {}

    /** A material as its drawer's file tells it. */
    private record Entry(MaterialKind kind, JsonValue json) {
        Made make() {
            try {
                Map<String, byte[]> images = new LinkedHashMap<>();
                Surface surface = MaterialJson.readOver(metal(json), json.require("open_pbr"));
                if (json.has("pattern")) {
                    surface = textured(surface, json.get("pattern"), images);
                }
                return new Made(named(surface), images, json.has("physical") ? facts(json) : null);
            } catch (ImportException e) {
                throw new IllegalStateException(e);
            }
        }

        Material plain() {
            try {
                return named(MaterialJson.readOver(metal(json), json.require("open_pbr")));
            } catch (ImportException e) {
                throw new IllegalStateException(e);
            }
        }

        private Material named(Surface surface) throws ImportException {
            return new Material(
                    json.require("code").text(), json.require("name").text(), kind, surface);
        }
    }

    /** What is measured of a metal's reflection, where one is named. */
    private static Surface metal(JsonValue json) throws ImportException {
        if (!json.has("metal")) {
            return Surface.STANDARD;
        }
        return Metal.valueOf(json.get("metal").text()).on(Surface.STANDARD);
    }

    private static Facts facts(JsonValue json) throws ImportException {
        JsonValue p = json.require("physical");
        List<String> tags = new ArrayList<>();
        for (JsonValue tag : json.require("tags").elements()) {
            tags.add(tag.text());
        }
        return Facts.of(
                p.require("density").number(),
                p.require("price").number(),
                p.require("waste").number(),
                p.require("carbon").number(),
                tags);
    }

    /**
     * A pattern's colours as a library file tells them.
     *
     * @param pixels along its longer side
     * @return a PNG of one repeat
     */
    public static byte[] colours(JsonValue p, int pixels) throws ImportException {
        Recipe recipe = recipe(p, pixels);
        double longer = Math.max(recipe.width(), recipe.height());
        return new PatternImages(
                        Patterns.of(recipe),
                        Math.max(16, (int) Math.round(pixels * recipe.width() / longer)),
                        Math.max(16, (int) Math.round(pixels * recipe.height() / longer)))
                .colours(colouring(p));
    }

    /** What the shipped patterns are made by, as they would be drawn at that many pixels along the longer side. */
    public static List<Recipe> recipes(int pixels) {
        List<Recipe> all = new ArrayList<>();
        try {
            for (String drawer : DRAWERS) {
                for (JsonValue m : JsonValue.parseTrusted(open(drawer)).elements()) {
                    if (m.has("pattern")) {
                        all.add(recipe(m.get("pattern"), pixels));
                    }
                }
            }
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
        return all;
    }

    private static Surface textured(Surface surface, JsonValue p, Map<String, byte[]> images) throws ImportException {
        Recipe recipe = recipe(p, p.index("pixels", 512));
        RealSize real = new RealSize(recipe.width(), recipe.height());
        double longer = Math.max(recipe.width(), recipe.height());
        PatternImages render = new PatternImages(
                Patterns.of(recipe), pixels(p, recipe.width() / longer), pixels(p, recipe.height() / longer));
        Surface s = surface;
        if (p.has("colours") || p.has("pieces")) {
            byte[] png = render.colours(colouring(p));
            s = with(
                    s.with(Parameter.BASE_COLOR, LinearRgb.WHITE),
                    Parameter.BASE_COLOR,
                    Channel.RGB,
                    png,
                    real,
                    images);
            if (render.hasHoles()) {
                s = with(s, Parameter.GEOMETRY_OPACITY, Channel.A, png, real, images);
            }
        } else if (p.has("tone")) {
            double[] tone = p.numbers("tone", 0, 255);
            s = with(s, Parameter.BASE_COLOR, Channel.RGB, render.tone((int) tone[0], (int) tone[1]), real, images);
        }
        if (p.has("roughness")) {
            double[] r = p.numbers("roughness", 0, 1);
            byte[] png = render.roughness(r[0], r[1], p.number("joint_roughness", r[1]));
            s = with(s, Parameter.SPECULAR_ROUGHNESS, Channel.G, png, real, images);
        }
        if (p.has("relief")) {
            byte[] normals = render.normals(p.number("relief", 0), recipe.width(), recipe.height());
            s = with(s, Parameter.GEOMETRY_NORMAL, Channel.RGB, normals, real, images);
        }
        return s;
    }

    private static int pixels(JsonValue p, double share) throws ImportException {
        return Math.max(16, (int) Math.round(p.index("pixels", 512) * share));
    }

    private static Recipe recipe(JsonValue p, int pixels) throws ImportException {
        double[] size = p.numbers("real_size", 1, 1);
        int count = p.require("count").index();
        return new Recipe(
                p.require("name").text(),
                size[0],
                size[1],
                p.index("seed", 1),
                count,
                p.index("rows", count),
                p.number("joint", 0),
                p.number("share", 0.5),
                p.has("inner") ? recipe(p.get("inner"), pixels) : null,
                Math.max(size[0], size[1]) / pixels);
    }

    private static Colouring colouring(JsonValue p) throws ImportException {
        return new Colouring(
                colours(p, "colours"),
                colours(p, "pieces"),
                p.number("shade", 0.3),
                p.number("vary", 0),
                p.has("joint_colour") ? colour(p.get("joint_colour").text()) : null);
    }

    private static List<LinearRgb> colours(JsonValue p, String key) throws ImportException {
        List<LinearRgb> all = new ArrayList<>();
        if (p.has(key)) {
            for (JsonValue c : p.get(key).elements()) {
                all.add(colour(c.text()));
            }
        }
        return all;
    }

    private static LinearRgb colour(String hex) {
        int code = Integer.parseInt(hex.substring(1), 16);
        return Srgb.fromCodes(code >> 16, code >> 8 & 0xFF, code & 0xFF);
    }

    private static Surface with(
            Surface s, Parameter p, Channel channel, byte[] png, RealSize size, Map<String, byte[]> images) {
        String digest = Digest.of(png);
        images.put(digest, png);
        return s.withTexture(p, TextureUse.repeating(digest, channel, size));
    }
}
