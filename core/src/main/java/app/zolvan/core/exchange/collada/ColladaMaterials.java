package app.zolvan.core.exchange.collada;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.xml.XmlTree;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Wrap;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/** COLLADA materials of the common profile as source materials. */
final class ColladaMaterials {
    private final Map<String, XmlTree> byId;
    private final FileSet files;
    private final ModelAssembly model;
    private final Reading reading;
    private final Map<String, Integer> sources = new HashMap<>();
    private final Map<String, String> pictures = new HashMap<>();

    ColladaMaterials(Map<String, XmlTree> byId, FileSet files, ModelAssembly model, Reading reading) {
        this.byId = byId;
        this.files = files;
        this.model = model;
        this.reading = reading;
    }

    /** @param id of a material element; what names none becomes a plain one of that name */
    int source(String id) throws ImportException {
        Integer known = sources.get(id);
        if (known != null) {
            return known;
        }
        XmlTree material = byId.get(id);
        String name = material == null ? id : material.attribute("name", id);
        XmlTree instance = material == null ? null : material.first("instance_effect");
        String url = instance == null ? "" : instance.attribute("url", "");
        XmlTree effect = url.startsWith("#") ? byId.get(url.substring(1)) : null;
        XmlTree profile = effect == null ? null : effect.first("profile_COMMON");
        int index = model.source(name, profile == null ? Surface.STANDARD : surface(profile, effect, name));
        sources.put(id, index);
        return index;
    }

    private Surface surface(XmlTree profile, XmlTree effect, String name) throws ImportException {
        XmlTree technique = profile.first("technique");
        XmlTree shading = null;
        for (String kind : List.of("phong", "blinn", "lambert", "constant")) {
            shading = shading == null && technique != null ? technique.first(kind) : shading;
        }
        if (shading == null) {
            return Surface.STANDARD;
        }
        Surface s = PhongSurface.plain(colour(shading.first("diffuse"), LinearRgb.WHITE));
        TextureUse diffuse = texture(shading.first("diffuse"), profile, effect, name);
        if (diffuse != null) {
            s = s.with(Parameter.BASE_COLOR, LinearRgb.WHITE).withTexture(Parameter.BASE_COLOR, diffuse);
        }
        double shininess = number(shading.first("shininess"), Double.NaN);
        LinearRgb specular = colour(shading.first("specular"), LinearRgb.BLACK);
        boolean shines = Math.max(specular.r(), Math.max(specular.g(), specular.b())) > 0;
        if (!Double.isNaN(shininess)) { // some write a share, some an exponent
            s = s.with(
                    Parameter.SPECULAR_ROUGHNESS, PhongSurface.roughness(shininess <= 1 ? shininess * 128 : shininess));
        }
        s = s.with(Parameter.SPECULAR_WEIGHT, shines || shading.name().equals("lambert") ? 1 : 0.5);
        double ior = number(shading.first("index_of_refraction"), 1.5);
        s = s.with(Parameter.SPECULAR_IOR, ior > 1 && ior <= 3 ? ior : 1.5);
        s = PhongSurface.glowing(s, colour(shading.first("emission"), LinearRgb.BLACK));
        return s.with(Parameter.GEOMETRY_OPACITY, opacity(shading));
    }

    /** COLLADA 1.4.1, "Determining transparency". */
    private static double opacity(XmlTree shading) {
        XmlTree transparent = shading.first("transparent");
        double transparency = number(shading.first("transparency"), 1);
        if (transparent == null) {
            return shading.first("transparency") == null ? 1 : PhongSurface.unit(transparency);
        }
        XmlTree c = transparent.first("color");
        if (c == null) {
            return 1;
        }
        double[] v = c.textNumbers();
        if (v.length < 3) {
            return 1;
        }
        double alpha = v.length > 3 ? v[3] : 1;
        double luminance = 0.212671 * v[0] + 0.715160 * v[1] + 0.072169 * v[2];
        return PhongSurface.unit(
                switch (transparent.attribute("opaque", "A_ONE")) {
                    case "RGB_ZERO" -> 1 - luminance * transparency;
                    case "RGB_ONE" -> luminance * transparency;
                    case "A_ZERO" -> 1 - alpha * transparency;
                    default -> alpha * transparency;
                });
    }

    private static LinearRgb colour(XmlTree channel, LinearRgb otherwise) {
        XmlTree c = channel == null ? null : channel.first("color");
        double[] v = c == null ? new double[0] : c.textNumbers();
        return v.length < 3 ? otherwise : PhongSurface.colour(v[0], v[1], v[2]);
    }

    private static double number(XmlTree channel, double otherwise) {
        XmlTree f = channel == null ? null : channel.first("float");
        double[] v = f == null ? new double[0] : f.textNumbers();
        return v.length > 0 && Double.isFinite(v[0]) ? v[0] : otherwise;
    }

    private TextureUse texture(XmlTree channel, XmlTree profile, XmlTree effect, String name) throws ImportException {
        XmlTree texture = channel == null ? null : channel.first("texture");
        if (texture == null) {
            return null;
        }
        String at = texture.attribute("texture", "");
        XmlTree sampler = parameter(at, profile, effect, "sampler2D");
        if (sampler != null) { // 1.4: sampler → surface → image; 1.5: sampler → image
            XmlTree instance = sampler.first("instance_image");
            XmlTree source = sampler.first("source");
            if (instance != null) {
                at = instance.attribute("url", "#").substring(1);
            } else if (source != null) {
                XmlTree surface = parameter(source.text(), profile, effect, "surface");
                XmlTree init = surface == null ? null : surface.first("init_from");
                at = init == null ? source.text() : init.text();
            }
        }
        XmlTree image = byId.get(at);
        XmlTree init = image == null ? null : image.first("init_from");
        if (init == null) {
            reading.note("“" + name + "”: its picture is missing.");
            return null;
        }
        String path = init.first("ref") != null ? init.first("ref").text() : init.text();
        String digest = picture(path);
        if (digest == null) {
            return null;
        }
        Wrap u = wrap(sampler, "wrap_s");
        Wrap v = wrap(sampler, "wrap_t");
        return new TextureUse(digest, Channel.RGB, ModelUv.PLAIN, u, v, 1);
    }

    private static Wrap wrap(XmlTree sampler, String key) {
        XmlTree w = sampler == null ? null : sampler.first(key);
        String mode = w == null ? "WRAP" : w.text();
        return mode.equals("MIRROR")
                ? Wrap.MIRROR
                : mode.equals("CLAMP") || mode.equals("BORDER") ? Wrap.ONCE : Wrap.REPEAT;
    }

    private static XmlTree parameter(String sid, XmlTree profile, XmlTree effect, String kind) {
        for (XmlTree owner : List.of(profile, effect)) {
            for (XmlTree p : owner.all("newparam")) {
                if (sid.equals(p.attribute("sid"))) {
                    return p.first(kind);
                }
            }
        }
        return null;
    }

    private String picture(String path) throws ImportException {
        if (pictures.containsKey(path)) {
            return pictures.get(path);
        }
        ByteBuffer bytes =
                path.isEmpty() ? null : files.companion(path, reading).orElse(null);
        String digest = null;
        if (bytes == null) {
            reading.lack(path);
        } else {
            digest = model.picture(path.substring(path.lastIndexOf('/') + 1), bytes);
        }
        pictures.put(path, digest);
        return digest;
    }
}
