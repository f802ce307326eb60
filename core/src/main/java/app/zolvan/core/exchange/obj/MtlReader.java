package app.zolvan.core.exchange.obj;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.text.TextScanner;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Wrap;
import app.zolvan.core.model.Model;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * Reads MTL libraries with the PBR extension (Pr, Pm, Pc, Pcr, Ps, aniso, map_Pr, map_Pm, norm). Where the extension says
 * nothing, roughness comes from the shininess exponent. A refracting illumination model makes what {@code d} lets
 * through transmission; else it is missing coverage.
 */
public final class MtlReader {
    private static final Pattern NEW_MATERIAL = Pattern.compile("(?m)^\\s*newmtl\\s");
    private final FileSet files;
    private final ModelAssembly model;
    private final Reading reading;
    private final Map<String, Surface> found = new LinkedHashMap<>();
    private final Map<String, String> pictures = new HashMap<>();
    private Draft draft;

    /** What has been said of the material so far. */
    private static final class Draft {
        final String name;
        LinearRgb colour = LinearRgb.grey(0.6);
        boolean coloured;
        boolean shines = true;
        double exponent = Double.NaN;
        double roughness = Double.NaN;
        double metalness;
        double cover = 1;
        double ior = 1.5;
        int illumination;
        LinearRgb filter = LinearRgb.WHITE;
        LinearRgb glow = LinearRgb.BLACK;
        double coat;
        double coatRoughness;
        double fuzz;
        double anisotropy;
        final Map<Parameter, TextureUse> textures = new LinkedHashMap<>();

        Draft(String name) {
            this.name = name;
        }
    }

    private MtlReader(FileSet files, ModelAssembly model, Reading reading) {
        this.files = files;
        this.model = model;
        this.reading = reading;
    }

    public static boolean recognises(FileSet files) {
        return NEW_MATERIAL.matcher(files.head()).find();
    }

    /** A library by itself, as a model without parts. */
    public static Model materials(FileSet files, Reading reading) throws ImportException {
        ModelAssembly model = new ModelAssembly("MTL", reading);
        read(files.bytes(), files, model, reading).forEach(model::source);
        return model.materials();
    }

    static Map<String, Surface> read(ByteBuffer mtl, FileSet files, ModelAssembly model, Reading reading)
            throws ImportException {
        MtlReader reader = new MtlReader(files, model, reading);
        TextScanner in = new TextScanner(mtl, true);
        while (in.nextLine()) {
            if (in.nextWord()) {
                reader.statement(in.word().toLowerCase(Locale.ROOT), in);
            }
        }
        reader.finish();
        return reader.found;
    }

    private void statement(String key, TextScanner in) throws ImportException {
        if (key.equals("newmtl")) {
            finish();
            draft = new Draft(in.rest());
            return;
        }
        if (draft == null) {
            return;
        }
        switch (key) {
            case "kd" -> {
                draft.colour = colour(in, draft.colour);
                draft.coloured = true;
            }
            case "ks" -> {
                LinearRgb ks = colour(in, LinearRgb.WHITE);
                draft.shines = Math.max(ks.r(), Math.max(ks.g(), ks.b())) > 0;
            }
            case "ke" -> draft.glow = colour(in, LinearRgb.BLACK);
            case "tf" -> draft.filter = colour(in, LinearRgb.WHITE);
            case "ns" -> draft.exponent = in.number();
            case "pr" -> draft.roughness = in.number();
            case "pm" -> draft.metalness = PhongSurface.unit(in.number());
            case "pc" -> draft.coat = PhongSurface.unit(in.number());
            case "pcr" -> draft.coatRoughness = PhongSurface.unit(in.number());
            case "ps" -> draft.fuzz = PhongSurface.unit(in.number());
            case "aniso" -> draft.anisotropy = PhongSurface.unit(Math.abs(in.number()));
            case "ni" -> {
                double ni = in.number();
                draft.ior = ni >= 1 && ni <= 3 ? ni : 1.5;
            }
            case "d" -> draft.cover = cover(in, draft.cover);
            case "tr" -> draft.cover = 1 - PhongSurface.unit(in.number());
            case "illum" -> draft.illumination = in.nextWord() ? in.wordInteger() : 0;
            case "map_kd" -> texture(Parameter.BASE_COLOR, Channel.RGB, in);
            case "map_ke" -> texture(Parameter.EMISSION_COLOR, Channel.RGB, in);
            case "map_pr" -> texture(Parameter.SPECULAR_ROUGHNESS, Channel.G, in);
            case "map_pm" -> texture(Parameter.BASE_METALNESS, Channel.B, in);
            case "map_d" -> texture(Parameter.GEOMETRY_OPACITY, Channel.R, in);
            case "norm", "map_kn" -> texture(Parameter.GEOMETRY_NORMAL, Channel.RGB, in);
            case "bump", "map_bump", "disp", "map_ns", "map_ks", "map_ka", "refl", "decal" ->
                reading.note("“" + draft.name + "”: the picture in " + key + " is not used yet.");
            default -> {
                // nothing that is drawn
            }
        }
    }

    private static double cover(TextScanner in, double otherwise) {
        double v = in.number();
        if (Double.isNaN(v)) { // "d -halo 0.5"
            v = in.number();
        }
        return Double.isNaN(v) ? otherwise : PhongSurface.unit(v);
    }

    private LinearRgb colour(TextScanner in, LinearRgb otherwise) {
        double r = in.number();
        if (Double.isNaN(r)) {
            reading.note("“" + draft.name + "”: a colour given as a spectrum is not used.");
            return otherwise;
        }
        double g = in.number();
        double b = in.number();
        return Double.isNaN(g) || Double.isNaN(b) ? PhongSurface.colour(r, r, r) : PhongSurface.colour(r, g, b);
    }

    /** Options first (-s, -o, -clamp, -bm …), then the picture's name, which may hold blanks. */
    private void texture(Parameter parameter, Channel channel, TextScanner in) throws ImportException {
        double[] scale = {1, 1};
        double[] offset = {0, 0};
        double strength = 1;
        Wrap wrap = Wrap.REPEAT;
        String rest = in.rest();
        while (rest.startsWith("-")) {
            String[] words = rest.split("\\s+", 6);
            int used = 2;
            switch (words[0].toLowerCase(Locale.ROOT)) {
                case "-s" -> used = 1 + pair(words, scale);
                case "-o" -> used = 1 + pair(words, offset);
                case "-t", "-mm" -> used = 1 + pair(words, new double[2]);
                case "-bm" -> strength = words.length > 1 ? number(words[1], 1) : 1;
                case "-clamp" -> wrap = words.length > 1 && words[1].equals("on") ? Wrap.ONCE : Wrap.REPEAT;
                default -> {
                    // an option of one word that has no meaning here
                }
            }
            String[] left = rest.split("\\s+", used + 1);
            rest = left.length > used ? left[used] : "";
        }
        if (rest.isEmpty()) {
            return;
        }
        String image = picture(rest);
        if (image != null) {
            // in MTL (0, 0) is the lower left corner; here it is the upper left
            ModelUv placement = new ModelUv(offset[0], 1 - scale[1] - offset[1], 0, scale[0], scale[1]);
            boolean plain = scale[0] == 1 && scale[1] == 1 && offset[0] == 0 && offset[1] == 0;
            draft.textures.put(
                    parameter,
                    new TextureUse(
                            image,
                            channel,
                            plain ? ModelUv.PLAIN : placement,
                            wrap,
                            wrap,
                            parameter == Parameter.GEOMETRY_NORMAL ? strength : 1));
        }
    }

    /** Up to three numbers after an option; the first two count. */
    private static int pair(String[] words, double[] out) {
        int n = 0;
        while (n < 3 && n + 1 < words.length && !Double.isNaN(number(words[n + 1], Double.NaN))) {
            if (n < 2) {
                out[n] = number(words[n + 1], out[n]);
            }
            n++;
        }
        return n;
    }

    private static double number(String word, double otherwise) {
        try {
            double v = Double.parseDouble(word);
            return Double.isFinite(v) ? v : otherwise;
        } catch (NumberFormatException e) {
            return otherwise;
        }
    }

    private String picture(String path) throws ImportException {
        if (pictures.containsKey(path)) {
            return pictures.get(path);
        }
        ByteBuffer bytes = files.companion(path, reading).orElse(null);
        String digest = null;
        if (bytes == null) {
            reading.lack(path);
        } else {
            digest = model.picture(path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1), bytes);
        }
        pictures.put(path, digest);
        return digest;
    }

    private void finish() {
        if (draft == null) {
            return;
        }
        Draft d = draft;
        boolean textured = d.textures.containsKey(Parameter.BASE_COLOR);
        boolean black = Math.max(d.colour.r(), Math.max(d.colour.g(), d.colour.b())) <= 0;
        LinearRgb base = textured && (!d.coloured || black) ? LinearRgb.WHITE : d.colour;
        double roughness = !Double.isNaN(d.roughness)
                ? PhongSurface.unit(d.roughness)
                : Double.isNaN(d.exponent) ? 0.5 : PhongSurface.roughness(d.exponent);
        boolean refracts = d.cover < 1
                && (d.illumination == 4 || d.illumination == 6 || d.illumination == 7 || d.illumination == 9);
        Surface s = PhongSurface.plain(base)
                .with(Parameter.SPECULAR_ROUGHNESS, roughness)
                .with(Parameter.SPECULAR_WEIGHT, d.shines || d.metalness > 0 ? 1 : 0)
                .with(Parameter.BASE_METALNESS, d.metalness)
                .with(Parameter.SPECULAR_IOR, d.ior)
                .with(Parameter.COAT_WEIGHT, d.coat)
                .with(Parameter.COAT_ROUGHNESS, d.coatRoughness)
                .with(Parameter.FUZZ_WEIGHT, d.fuzz)
                .with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, d.anisotropy)
                .with(Parameter.GEOMETRY_OPACITY, refracts ? 1 : d.cover)
                .with(Parameter.TRANSMISSION_WEIGHT, refracts ? 1 - d.cover : 0)
                .with(Parameter.TRANSMISSION_COLOR, refracts ? d.filter.clamped() : LinearRgb.WHITE);
        s = PhongSurface.glowing(s, d.glow);
        for (Map.Entry<Parameter, TextureUse> t : d.textures.entrySet()) {
            s = s.withTexture(t.getKey(), t.getValue());
            if (t.getKey() == Parameter.BASE_METALNESS && d.metalness == 0) {
                s = s.with(Parameter.BASE_METALNESS, 1);
            }
            if (t.getKey() == Parameter.SPECULAR_ROUGHNESS && Double.isNaN(d.roughness)) {
                s = s.with(Parameter.SPECULAR_ROUGHNESS, 1);
            }
        }
        found.putIfAbsent(d.name, s);
        draft = null;
    }
}
