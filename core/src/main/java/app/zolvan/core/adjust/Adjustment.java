package app.zolvan.core.adjust;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.light.Blackbody;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.render.surface.GlossMeter;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/**
 * A change of a material as a designer makes it: values of parameters by their names, and what is no parameter but a wish
 * about several: {@code kind}, {@code sub_kind}, {@code metal}, {@code gloss} (GU), {@code relief} (strength of the normal
 * map), {@code temperature} (of the glow, in kelvins), {@code lumens} (of a part of {@code area} m²). A picture that
 * drives a parameter is set by {@code picture} (one or several: the parameter as {@code of}, {@code image}, {@code channel}, {@code
 * real_size} of a repeat in metres) and let go of by {@code plain} with the parameter's name; {@code curve} (degrees, reflectance) draws
 * the reflectance by angle; {@code tone} (the parameter as {@code of}, and values of {@link Tone}, or {@code plain})
 * changes the colours of the picture that drives it; {@code age} (0 … 1) lets it age as its kind does; {@code
 * elsewhere} takes others' numbers, see {@link Convention}; {@code whole} replaces all values, as {@link MaterialJson} writes them.
 *
 * @param limit a sentence where a wish could not be met in full; empty where it was
 */
public record Adjustment(Material material, String limit) {
    static final Set<String> WISHES = Set.of(
            "kind",
            "sub_kind",
            "colour",
            "metal",
            "gloss",
            "haze",
            "relief",
            "temperature",
            "lumens",
            "area",
            "plain",
            "whole",
            "curve",
            "tone",
            "age",
            "elsewhere",
            "picture");
    private static final double STEEPEST = 4;
    /** Depth in metres of a relief that a picture begins with. */
    private static final double FELT_RELIEF = 0.001;

    /**
     * @param means gives the mean of a picture's linear colours by its digest
     * @throws ParameterException if a value is out of its range or unknown
     */
    public static Adjustment of(Material m, JsonValue values, Function<String, LinearRgb> means)
            throws ImportException {
        MaterialKind kind = m.kind();
        Surface s = m.surface();
        String limit = "";
        if (values.has("kind")) {
            kind = kind(values.get("kind").text());
            s = KindChange.to(kind, s);
        }
        if (values.has("sub_kind")) {
            s = subKind(kind, values.get("sub_kind").text()).on(s);
        }
        if (values.has("metal")) {
            s = metal(values.get("metal").text()).on(s);
        }
        if (values.has("whole")) {
            s = MaterialJson.read(values.get("whole"));
        }
        for (String key : values.keys()) {
            if (!WISHES.contains(key)) {
                s = MaterialJson.readOver(s, key, values.get(key));
            }
        }
        if (values.has("colour")) {
            s = MainColour.with(s, colour(values.numbers("colour", 0, 0, 0)), means);
        }
        if (values.has("plain")) {
            s = s.withTexture(parameter(values.get("plain").text()), null);
        }
        if (values.has("picture")) {
            JsonValue wish = values.get("picture");
            for (JsonValue p : wish.isObject() ? List.of(wish) : wish.elements()) {
                s = pictured(s, p, values);
            }
        }
        if (values.has("tone")) {
            s = toned(s, values.get("tone"), means);
        }
        if (values.has("relief")) {
            s = relief(s, values.get("relief").number());
        }
        if (values.has("curve")) {
            double[] point = values.numbers("curve", 0, 0);
            s = AngleCurve.through(s, point[0], point[1]);
        }
        if (values.has("temperature")) {
            s = s.with(Parameter.EMISSION_COLOR, glow(values.get("temperature").number()));
        }
        if (values.has("lumens")) {
            s = s.with(
                    Parameter.EMISSION_LUMINANCE,
                    luminance(
                            s,
                            values.get("lumens").number(),
                            values.require("area").number()));
        }
        if (values.has("elsewhere")) {
            s = Convention.wished(s, values.get("elsewhere"));
        }
        if (values.has("age")) {
            s = KindSheet.aged(kind, s, values.get("age").number());
        }
        if (values.has("haze")) {
            s = Haze.with(s, values.get("haze").number());
        }
        if (values.has("gloss")) {
            GlossMeter.Outcome o = GlossMeter.solve(s, values.get("gloss").number());
            s = o.surface();
            limit = o.limit();
        }
        return new Adjustment(new Material(m.code(), m.name(), kind, s), limit);
    }

    /** The colour that is to be seen from afar, in linear light. */
    private static LinearRgb colour(double[] rgb) {
        if (rgb.length != 3 || Arrays.stream(rgb).anyMatch(x -> !(x >= 0 && x <= 1))) {
            throw new ParameterException("colour", "A colour has three numbers from 0 to 1.");
        }
        return new LinearRgb(rgb[0], rgb[1], rgb[2]);
    }

    private static Parameter parameter(String name) {
        return Parameter.named(name)
                .orElseThrow(() -> new ParameterException("plain", "There is no parameter “" + name + "”."));
    }

    private static MaterialKind kind(String word) {
        try {
            return MaterialKind.ofWord(word);
        } catch (IllegalArgumentException e) {
            throw new ParameterException("kind", "There is no kind “" + word + "”.");
        }
    }

    private static KindSheet.SubKind subKind(MaterialKind kind, String name) {
        return Optional.ofNullable(kind)
                .flatMap(k -> KindSheet.of(k).named(name))
                .orElseThrow(() -> new ParameterException("sub_kind", "This kind has no “" + name + "”."));
    }

    private static Metal metal(String name) {
        try {
            return Metal.valueOf(name.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new ParameterException("metal", "There is no measured metal “" + name + "”.");
        }
    }

    /**
     * A picture in the place of none, or of another: how that one was toned and what lies beyond its edges stays. Where none
     * was, the parameter's own value is made full, so that the picture shows as it is, unless the same wish says it.
     */
    private static Surface pictured(Surface s, JsonValue wish, JsonValue values) throws ImportException {
        Parameter p = parameter(wish.require("of").text());
        if (!p.takesPicture()) {
            throw new ParameterException("picture", "No picture can drive " + p.openPbrName() + ".");
        }
        double[] size = wish.numbers("real_size", 1, 1);
        if (size.length != 2 || !isSize(size[0]) || !isSize(size[1])) {
            throw new ParameterException("picture", "One repeat of a picture is 1 mm to 1 km wide and high.");
        }
        Channel channel =
                channel(wish.text("channel", TextureUse.usualChannel(p).name()));
        RealSize real = new RealSize(size[0], size[1]);
        String image = wish.require("image").text();
        TextureUse before = s.textures().get(p);
        if (before == null) {
            boolean told = p.shape() == Parameter.Shape.TEXTURE_ONLY || values.has(p.openPbrName());
            Surface full = told ? s : s.with(p, filled(p));
            return full.withTexture(p, TextureUse.repeating(image, channel, real));
        }
        Tone tone = before.image().equals(image) ? before.tone() : null; // a tone knows its picture's mean
        return s.withTexture(
                p, new TextureUse(image, channel, real, before.wrapU(), before.wrapV(), before.strength(), tone));
    }

    private static boolean isSize(double metres) {
        return metres >= 0.001 && metres <= 1000;
    }

    /** The value that lets a picture show as it is: a relief as deep as one that is felt, all else in full. */
    private static double[] filled(Parameter p) {
        double[] full = new double[p.components()];
        if (p == Parameter.GEOMETRY_HEIGHT) {
            full[0] = FELT_RELIEF;
            return full;
        }
        Arrays.fill(full, Math.max(p.min(), Math.min(1, p.max())));
        return full;
    }

    private static Channel channel(String name) {
        try {
            return Channel.valueOf(name.toUpperCase(Locale.ROOT));
        } catch (IllegalArgumentException e) {
            throw new ParameterException("picture", "A picture has no channel “" + name + "”.");
        }
    }

    private static Surface toned(Surface s, JsonValue wish, Function<String, LinearRgb> means) throws ImportException {
        Parameter p = parameter(wish.require("of").text());
        TextureUse picture = s.textures().get(p);
        if (picture == null || p.shape() != Parameter.Shape.COLOUR) {
            throw new ParameterException("tone", "No picture of colours drives " + p.openPbrName() + ".");
        }
        boolean fresh = wish.flag("plain", false) || picture.tone() == null;
        Tone base = fresh ? Tone.plain(means.apply(picture.image())) : picture.tone();
        return s.withTexture(p, picture.toned(MaterialJson.tone(wish, base)));
    }

    private static Surface relief(Surface s, double strength) {
        TextureUse t = s.textures().get(Parameter.GEOMETRY_NORMAL);
        if (t == null) {
            throw new ParameterException("relief", "This material has no relief to strengthen.");
        }
        if (!(strength >= 0 && strength <= STEEPEST)) {
            throw new ParameterException("relief", "Relief goes from 0 (flat) to 4 (four times as steep).");
        }
        return s.withTexture(
                Parameter.GEOMETRY_NORMAL,
                new TextureUse(t.image(), t.channel(), t.placement(), t.wrapU(), t.wrapV(), strength, t.tone()));
    }

    private static double[] glow(double kelvins) {
        if (!(kelvins >= 1000 && kelvins <= 20_000)) {
            throw new ParameterException(
                    "temperature", "Colour temperatures go from 1,000 K (embers) to 20,000 K (blue sky).");
        }
        LinearRgb c = Blackbody.colour(kelvins);
        return c.times(1 / Math.max(c.r(), Math.max(c.g(), c.b()))).clamped().toArray();
    }

    /**
     * The luminance to set so that a surface gives a luminous flux evenly to all sides, Φ / (π·A), in the colour that its
     * glow has.
     *
     * @param lumens at least 0
     * @param area   in m², above 0
     */
    private static double luminance(Surface s, double lumens, double area) {
        double nits = lumens / (Math.PI * area * glowing(s));
        if (!(lumens >= 0 && nits <= Parameter.EMISSION_LUMINANCE.max())) {
            throw new ParameterException(
                    "lumens", "So much light from so small an area is brighter than 1,000,000 nits. Ask for less.");
        }
        return nits;
    }

    private static double glowing(Surface s) {
        return Math.max(1e-3, s.colour(Parameter.EMISSION_COLOR).luminance());
    }

    /** The luminous flux in lumens of a surface of so many square metres. */
    public static double lumens(Surface s, double area) {
        return Math.PI * area * s.number(Parameter.EMISSION_LUMINANCE) * glowing(s);
    }

    /**
     * The colour temperature of a surface's glow in kelvins, within 1 %; 0 where no glowing body has its colour.
     */
    public static double temperature(Surface s) {
        LinearRgb glow = s.colour(Parameter.EMISSION_COLOR);
        double low = 1000;
        double high = 20_000;
        while (high / low > 1.005) { // the share of red falls with temperature
            double middle = Math.sqrt(low * high);
            LinearRgb c = Blackbody.colour(middle);
            if ((c.g() + c.b()) * glow.r() < (glow.g() + glow.b()) * c.r()) {
                low = middle;
            } else {
                high = middle;
            }
        }
        double kelvins = Math.sqrt(low * high);
        CieLab there = CieLab.of(LinearRgb.of(glow(kelvins)));
        return there.difference(CieLab.of(glow)) < 1.5 ? kelvins : 0;
    }
}
