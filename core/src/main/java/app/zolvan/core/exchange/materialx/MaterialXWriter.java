package app.zolvan.core.exchange.materialx;

import app.zolvan.core.exchange.ModelWriter.FileSink;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.exchange.text.PlainNumber;
import app.zolvan.core.exchange.xml.XmlText;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.material.TextureUse.Wrap;
import app.zolvan.core.texture.ImageHeader;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;

/**
 * Writes materials as MaterialX 1.39, each an {@code open_pbr_surface} with the values that differ from the standard's own.
 * Pictures go beside the document; those with a real size say it by {@code realworldimagesize}, where one unit of the
 * coordinates is a metre.
 */
public final class MaterialXWriter {
    private final StringBuilder text = new StringBuilder();
    private final Set<String> names = new LinkedHashSet<>();
    private final Map<String, String> files = new LinkedHashMap<>();
    private final Function<String, byte[]> images;

    private MaterialXWriter(Function<String, byte[]> images) {
        this.images = images;
    }

    /** @param images bytes of the materials' pictures by their digests */
    public static void write(List<Material> materials, Function<String, byte[]> images, String base, FileSink sink)
            throws IOException {
        MaterialXWriter w = new MaterialXWriter(images);
        w.text.append("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n<materialx version=\"")
                .append(MaterialXNames.VERSION)
                .append("\" colorspace=\"lin_rec709\">\n");
        materials.forEach(w::material);
        w.text.append("</materialx>\n");
        sink.file(base + ".mtlx", out -> out.write(w.text.toString().getBytes(StandardCharsets.UTF_8)));
        for (Map.Entry<String, String> f : w.files.entrySet()) {
            sink.file(f.getValue(), out -> out.write(images.apply(f.getKey())));
        }
    }

    /** Sentences about what MaterialX has no words for. */
    public static List<String> losses(List<Material> materials) {
        Set<String> losses = new LinkedHashSet<>();
        for (Material m : materials) {
            Set<String> own = new TreeSet<>();
            for (Parameter p : Parameter.values()) {
                boolean set = p.shape() != Parameter.Shape.TEXTURE_ONLY
                        && !Arrays.equals(m.surface().value(p), p.standardValue());
                if (!MaterialXNames.CARRIED.contains(p)
                        && (set || m.surface().textures().containsKey(p))) {
                    own.add(p.openPbrName().replace('_', ' '));
                }
            }
            if (!own.isEmpty()) {
                losses.add("“" + m.name() + "”: OpenPBR has no words for " + String.join(", ", own) + ".");
            }
        }
        return List.copyOf(losses);
    }

    private void material(Material m) {
        String name = WrittenLooks.unique(identifier(m.name()), names);
        names.add(name);
        Surface s = m.surface();
        List<Map.Entry<Parameter, TextureUse>> textures = s.textures().entrySet().stream()
                .filter(e -> MaterialXNames.CARRIED.contains(e.getKey()))
                .toList();
        if (!textures.isEmpty()) {
            text.append("  <nodegraph name=\"NG_").append(name).append("\">\n");
            textures.forEach(t -> texture(s, t.getKey(), t.getValue()));
            text.append("  </nodegraph>\n");
        }
        Set<Parameter> textured = textures.stream().map(Map.Entry::getKey).collect(Collectors.toSet());
        text.append("  <open_pbr_surface name=\"SR_").append(name).append("\" type=\"surfaceshader\">\n");
        for (Parameter p : Parameter.values()) {
            String input = "    <input name=\"" + p.openPbrName() + "\" type=\"" + MaterialXNames.type(p) + "\" ";
            if (textured.contains(p)) {
                text.append(input)
                        .append("nodegraph=\"NG_")
                        .append(name)
                        .append("\" output=\"")
                        .append(p.openPbrName())
                        .append("_out\"/>\n");
            } else if (MaterialXNames.CARRIED.contains(p)
                    && p.shape() != Parameter.Shape.TEXTURE_ONLY
                    && !Arrays.equals(s.value(p), p.standardValue())) {
                text.append(input)
                        .append("value=\"")
                        .append(value(s, p))
                        .append('"')
                        .append(unit(p))
                        .append("/>\n");
            }
        }
        text.append("  </open_pbr_surface>\n  <surfacematerial name=\"")
                .append(name)
                .append("\" type=\"material\"");
        attribute("uiname", m.name());
        if (!m.code().isEmpty()) {
            attribute("code", m.code());
        }
        if (m.kind() != null) {
            attribute("kind", m.kind().word());
        }
        text.append(">\n    <input name=\"surfaceshader\" type=\"surfaceshader\" nodename=\"SR_")
                .append(name)
                .append("\"/>\n  </surfacematerial>\n");
    }

    private void attribute(String key, String value) {
        XmlText.attribute(text.append(' ').append(key).append("=\""), value).append('"');
    }

    private static String unit(Parameter p) {
        return switch (p) {
            case TRANSMISSION_DEPTH, SUBSURFACE_RADIUS -> " unittype=\"distance\" unit=\"meter\"";
            case THIN_FILM_THICKNESS -> " unittype=\"distance\" unit=\"micrometer\"";
            default -> "";
        };
    }

    private static String value(Surface s, Parameter p) {
        return p.shape() == Parameter.Shape.FLAG ? Boolean.toString(s.flag(p)) : numbers(s.value(p));
    }

    private static String numbers(double... v) {
        return Arrays.stream(v).mapToObj(PlainNumber::of).collect(Collectors.joining(", "));
    }

    /** The picture, of it the channel that is read, times the parameter's own value. */
    private void texture(Surface s, Parameter p, TextureUse use) {
        String name = p.openPbrName();
        boolean colour = p.shape() == Parameter.Shape.COLOUR;
        boolean normal = p == Parameter.GEOMETRY_NORMAL;
        String whole = use.channel() == Channel.A ? "color4" : normal ? "vector3" : "color3";
        boolean real = use.placement() instanceof RealSize;
        node(real ? "tiledimage" : "image", name + "_image", whole);
        text.append("      <input name=\"file\" type=\"filename\" value=\"")
                .append(file(use.image()))
                .append("\" colorspace=\"")
                .append(colour ? "srgb_texture" : "lin_rec709")
                .append("\"/>\n");
        if (use.placement() instanceof RealSize size) {
            input("realworldimagesize", "vector2", numbers(size.width(), size.height()), METRES);
            input("realworldtilesize", "vector2", "1, 1", METRES);
        } else if (use.placement() instanceof ModelUv uv) {
            if (!uv.equals(ModelUv.PLAIN)) {
                text.append("      <input name=\"texcoord\" type=\"vector2\" nodename=\"")
                        .append(name)
                        .append("_place\"/>\n");
            }
            input("uaddressmode", "string", mode(use.wrapU()), "");
            input("vaddressmode", "string", mode(use.wrapV()), "");
        }
        end(real ? "tiledimage" : "image");
        if (use.placement() instanceof ModelUv uv && !uv.equals(ModelUv.PLAIN)) {
            place(name, uv);
        }
        String last = name + "_image";
        if (normal) {
            node("normalmap", name + "_map", "vector3");
            connect("in", "vector3", last);
            input("scale", "float", numbers(use.strength()), "");
            end("normalmap");
            last = name + "_map";
        } else if (!colour) {
            node("extract", name + "_channel", "float");
            connect("in", whole, last);
            input("index", "integer", Integer.toString(index(use.channel())), "");
            end("extract");
            last = name + "_channel";
        }
        if (!normal && !Arrays.stream(s.value(p)).allMatch(v -> v == 1)) {
            String type = MaterialXNames.type(p);
            node("multiply", name + "_factor", type);
            connect("in1", type, last);
            input("in2", type, numbers(s.value(p)), "");
            end("multiply");
            last = name + "_factor";
        }
        text.append("    <output name=\"")
                .append(name)
                .append("_out\" type=\"")
                .append(MaterialXNames.type(p))
                .append("\" nodename=\"")
                .append(last)
                .append("\"/>\n");
    }

    private static final String METRES = " unittype=\"distance\" unit=\"meter\"";

    /**
     * The model's own coordinates, scaled, turned and moved. MaterialX counts them from below, so that what is turned and
     * scaled about our corner is about (0, 1) there, turned the other way; it takes offsets away.
     */
    private void place(String name, ModelUv uv) {
        node("place2d", name + "_place", "vector2");
        connect("texcoord", "vector2", name + "_coordinates");
        input("scale", "vector2", numbers(1 / uv.scaleU(), 1 / uv.scaleV()), "");
        input("rotate", "float", numbers(-Math.toDegrees(uv.rotation())), "");
        input("offset", "vector2", numbers(-uv.offsetU(), uv.offsetV()), "");
        input("pivot", "vector2", "0, 1", "");
        end("place2d");
        text.append("    <texcoord name=\"").append(name).append("_coordinates\" type=\"vector2\"/>\n");
    }

    private void node(String kind, String name, String type) {
        text.append("    <")
                .append(kind)
                .append(" name=\"")
                .append(name)
                .append("\" type=\"")
                .append(type)
                .append("\">\n");
    }

    private void end(String kind) {
        text.append("    </").append(kind).append(">\n");
    }

    private void input(String name, String type, String value, String unit) {
        text.append("      <input name=\"")
                .append(name)
                .append("\" type=\"")
                .append(type)
                .append("\" value=\"")
                .append(value)
                .append('"')
                .append(unit)
                .append("/>\n");
    }

    private void connect(String name, String type, String node) {
        text.append("      <input name=\"")
                .append(name)
                .append("\" type=\"")
                .append(type)
                .append("\" nodename=\"")
                .append(node)
                .append("\"/>\n");
    }

    private static int index(Channel c) {
        return switch (c) {
            case G -> 1;
            case B -> 2;
            case A -> 3;
            default -> 0;
        };
    }

    private static String mode(Wrap w) {
        return switch (w) {
            case REPEAT -> "periodic";
            case MIRROR -> "mirror";
            case ONCE -> "clamp";
        };
    }

    private String file(String digest) {
        return files.computeIfAbsent(digest, d -> {
            String type = ImageHeader.read(ByteBuffer.wrap(images.apply(d)))
                    .map(ImageHeader::mediaType)
                    .orElse("image/png");
            return "textures/" + d.substring(0, 16) + "."
                    + type.substring(type.indexOf('/') + 1).replace("jpeg", "jpg");
        });
    }

    /** A name as MaterialX takes it: letters, digits and underscores, no digit first. */
    private static String identifier(String name) {
        String plain = name.replaceAll("[^A-Za-z0-9]+", "_").replaceAll("^_+|_+$", "");
        String cut = plain.substring(0, Math.min(60, plain.length()));
        return cut.isEmpty() ? "material" : Character.isDigit(cut.charAt(0)) ? "m_" + cut : cut;
    }

    /** The words of a document's identifier. */
    static String shown(String identifier) {
        return identifier.replace('_', ' ').strip().toLowerCase(Locale.ROOT);
    }
}
