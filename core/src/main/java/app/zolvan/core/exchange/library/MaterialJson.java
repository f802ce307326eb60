package app.zolvan.core.exchange.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Placement;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.material.TextureUse.Wrap;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;

/**
 * A surface as JSON: each parameter that differs from OpenPBR's default under its standard name, numbers as numbers,
 * colours as three linear components, flags as true or false; textures under {@code textures}. Used in the library's
 * files, in the database and in the extras of exported files.
 */
public final class MaterialJson {
    private MaterialJson() {}

    public static Map<String, Object> write(Surface s) {
        Map<String, Object> out = new LinkedHashMap<>();
        for (Parameter p : Parameter.values()) {
            if (p.shape() != Parameter.Shape.TEXTURE_ONLY && !sameValue(s, p)) {
                out.put(p.openPbrName(), value(s, p));
            }
        }
        Map<String, Object> textures = new LinkedHashMap<>();
        s.textures().forEach((p, use) -> textures.put(p.openPbrName(), write(use)));
        if (!textures.isEmpty()) {
            out.put("textures", textures);
        }
        return out;
    }

    /** A parameter's value in its JSON shape. */
    public static Object value(Surface s, Parameter p) {
        return switch (p.shape()) {
            case FLAG -> s.flag(p);
            case COLOUR -> s.value(p);
            default -> s.number(p);
        };
    }

    private static boolean sameValue(Surface s, Parameter p) {
        return Arrays.equals(s.value(p), p.standardValue());
    }

    private static Map<String, Object> write(TextureUse t) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("image", t.image());
        out.put("channel", t.channel().name().toLowerCase(Locale.ROOT));
        if (t.placement() instanceof RealSize size) {
            out.put("real_size", new double[] {size.width(), size.height()});
        } else if (t.placement() instanceof ModelUv uv) {
            out.put("model_uv", new double[] {uv.offsetU(), uv.offsetV(), uv.rotation(), uv.scaleU(), uv.scaleV()});
        }
        out.put("wrap_u", t.wrapU().name().toLowerCase(Locale.ROOT));
        out.put("wrap_v", t.wrapV().name().toLowerCase(Locale.ROOT));
        out.put("strength", t.strength());
        if (t.tone() != null) {
            out.put("tone", write(t.tone()));
        }
        return out;
    }

    private static Map<String, Object> write(Tone t) {
        Map<String, Object> out = new LinkedHashMap<>();
        out.put("mean", t.mean().toArray());
        out.put("saturation", t.saturation());
        out.put("contrast", t.contrast());
        out.put("brightness", t.brightness());
        out.put("tint", t.tint().toArray());
        out.put("tinted", t.tinted());
        out.put("fade", t.fade().toArray());
        out.put("faded", t.faded());
        return out;
    }

    public static Surface read(JsonValue json) throws ImportException {
        return readOver(Surface.STANDARD, json);
    }

    /**
     * The base surface with the values in the JSON laid over it.
     *
     * @throws ParameterException if a value is out of its parameter's range
     */
    public static Surface readOver(Surface base, JsonValue json) throws ImportException {
        Surface s = base;
        for (String key : json.keys()) {
            s = readOver(s, key, json.get(key));
        }
        return s;
    }

    /** The surface with one value laid over it: a parameter's by its name, or {@code textures}. */
    public static Surface readOver(Surface s, String key, JsonValue v) throws ImportException {
        if (key.equals("textures")) {
            Surface textured = s;
            for (String name : v.keys()) {
                textured = textured.withTexture(parameter(name), texture(v.get(name)));
            }
            return textured;
        }
        Parameter p = parameter(key);
        return switch (p.shape()) {
            case FLAG -> s.with(p, v.flag());
            case COLOUR -> s.with(p, v.numbers());
            default -> s.with(p, v.number());
        };
    }

    private static Parameter parameter(String name) {
        return Parameter.named(name)
                .orElseThrow(() -> new ParameterException(name, "There is no material parameter “" + name + "”."));
    }

    private static TextureUse texture(JsonValue json) throws ImportException {
        Placement placement;
        if (json.has("real_size")) {
            double[] size = json.numbers("real_size", 1, 1);
            placement = new RealSize(size[0], size[1]);
        } else {
            double[] m = json.numbers("model_uv", 0, 0, 0, 1, 1);
            placement = new ModelUv(m[0], m[1], m[2], m[3], m[4]);
        }
        return new TextureUse(
                json.require("image").text(),
                Channel.valueOf(json.text("channel", "rgb").toUpperCase(Locale.ROOT)),
                placement,
                Wrap.valueOf(json.text("wrap_u", "repeat").toUpperCase(Locale.ROOT)),
                Wrap.valueOf(json.text("wrap_v", "repeat").toUpperCase(Locale.ROOT)),
                json.number("strength", 1),
                json.has("tone") ? tone(json.get("tone"), null) : null);
    }

    /**
     * A tone with the values in the JSON laid over it.
     *
     * @param base null where the JSON tells the picture's mean itself
     * @throws ParameterException if a value is out of range
     */
    public static Tone tone(JsonValue json, Tone base) throws ImportException {
        Tone from = base != null ? base : Tone.plain(colour(json, "mean", LinearRgb.grey(0.5)));
        return new Tone(
                from.mean(),
                within(json, "saturation", from.saturation(), 2),
                within(json, "contrast", from.contrast(), 2),
                within(json, "brightness", from.brightness(), 4),
                colour(json, "tint", from.tint()),
                within(json, "tinted", from.tinted(), 1),
                colour(json, "fade", from.fade()),
                within(json, "faded", from.faded(), 1));
    }

    private static double within(JsonValue json, String key, double otherwise, double most) throws ImportException {
        double v = json.number(key, otherwise);
        if (!(v >= 0 && v <= most)) {
            throw new ParameterException(key, "A picture’s " + key + " goes from 0 to " + (int) most + ".");
        }
        return v;
    }

    private static LinearRgb colour(JsonValue json, String key, LinearRgb otherwise) throws ImportException {
        double[] v = json.numbers(key, otherwise.toArray());
        LinearRgb c = v.length == 3 ? LinearRgb.of(v) : null;
        if (c == null || !c.isInUnitCube()) {
            throw new ParameterException(key, "A picture’s " + key + " takes three numbers from 0 to 1.");
        }
        return c;
    }
}
