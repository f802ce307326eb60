package app.zolvan.core.exchange.usd;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelAssembly;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.material.TextureUse.Wrap;
import java.nio.ByteBuffer;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** USD's preview surfaces (UsdPreviewSurface 2.6) as source materials. Colours are scene-linear there as here. */
final class UsdMaterials {
    private static final int LONGEST_CHAIN = 16;

    private final UsdStage stage;
    private final ModelAssembly model;
    private final Reading reading;
    private final Map<String, Source> sources = new HashMap<>();
    private final Map<String, Integer> plain = new HashMap<>();
    private final Map<String, String> pictures = new HashMap<>();

    /**
     * @param index       of the source material
     * @param coordinates name of the texture coordinates it follows, empty where it has no picture
     */
    record Source(int index, String coordinates) {}

    /** Where a shader's input gets its value: from a shader's output, or it is given. */
    private record Input(double[] value, UsdNode shader, String output) {}

    UsdMaterials(UsdStage stage, ModelAssembly model, Reading reading) {
        this.stage = stage;
        this.model = model;
        this.reading = reading;
    }

    /** Null where there is no such material. */
    Source source(String path) throws ImportException {
        if (!sources.containsKey(path)) {
            UsdNode node = stage.at(path);
            sources.put(path, node == null ? null : read(node));
        }
        return sources.get(path);
    }

    /** A material for what is only coloured. */
    int plain(LinearRgb colour) {
        String hex = Srgb.toHex(colour);
        return plain.computeIfAbsent(hex, h -> model.source("Colour " + h, PhongSurface.plain(colour)));
    }

    static String name(UsdNode node) {
        return node.metadata("displayName") instanceof String s && !s.isBlank() ? s : node.name();
    }

    private Source read(UsdNode material) throws ImportException {
        String name = name(material);
        UsdNode shader = surfaceShader(material);
        if (shader == null) {
            reading.note(
                    "“" + TextNames.shown(name, "A material") + "” has no preview surface; it arrives as a plain one.");
            return new Source(model.source(name, Surface.STANDARD), "");
        }
        String[] coordinates = {""};
        Surface s = surface(shader, name, coordinates);
        return new Source(model.source(name, s), coordinates[0]);
    }

    private UsdNode surfaceShader(UsdNode material) throws ImportException {
        for (String output : material.propertyNames()) {
            if (output.equals("outputs:surface") || output.endsWith(":surface")) {
                Input in = follow(material, output, 0);
                if (in != null
                        && in.shader != null
                        && in.shader.token("info:id", "").equals("UsdPreviewSurface")) {
                    return in.shader;
                }
            }
        }
        for (UsdNode child : material.children(stage).values()) {
            if (child.token("info:id", "").equals("UsdPreviewSurface")) {
                return child;
            }
        }
        return null;
    }

    /** Null when nothing is said. */
    private Input follow(UsdNode node, String property, int steps) throws ImportException {
        String target = node.target(property);
        if (target != null && steps < LONGEST_CHAIN) {
            int dot = target.indexOf('.');
            UsdNode other = stage.at(dot < 0 ? target : target.substring(0, dot));
            String at = dot < 0 ? "" : target.substring(dot + 1);
            if (other == null) {
                return null;
            }
            boolean computes =
                    at.startsWith("outputs:") && !other.token("info:id", "").isEmpty();
            return computes
                    ? new Input(null, other, at.substring(at.lastIndexOf(':') + 1))
                    : follow(other, at, steps + 1);
        }
        UsdProperty p = node.property(property);
        return p == null ? null : new Input(p.numbers(), null, "");
    }

    private Surface surface(UsdNode shader, String name, String[] coordinates) throws ImportException {
        Builder b = new Builder(shader, name, coordinates);
        b.colour("diffuseColor", Parameter.BASE_COLOR, 0.18);
        b.number("roughness", Parameter.SPECULAR_ROUGHNESS, 0.5, 0, 1);
        b.number("opacity", Parameter.GEOMETRY_OPACITY, 1, 0, 1);
        b.number("clearcoat", Parameter.COAT_WEIGHT, 0, 0, 1);
        b.number("clearcoatRoughness", Parameter.COAT_ROUGHNESS, 0.01, 0, 1);
        if (shader.number("inputs:useSpecularWorkflow", 0) == 1) {
            b.specularWorkflow();
        } else {
            b.number("metallic", Parameter.BASE_METALNESS, 0, 0, 1);
            b.number("ior", Parameter.SPECULAR_IOR, 1.5, 1, 3);
        }
        b.glow();
        b.normal();
        for (String unused : new String[] {"displacement", "occlusion"}) {
            if (shader.target("inputs:" + unused) != null) {
                reading.note("“" + TextNames.shown(name, "A material") + "”: its " + unused
                        + " picture is not used; shading is computed from the model’s shape.");
            }
        }
        return b.surface;
    }

    /** One preview surface on its way to OpenPBR's terms. */
    private final class Builder {
        private final UsdNode shader;
        private final String name;
        private final String[] coordinates;
        private Surface surface = Surface.STANDARD;

        Builder(UsdNode shader, String name, String[] coordinates) {
            this.shader = shader;
            this.name = name;
            this.coordinates = coordinates;
        }

        private double[] value(Input in, double standard, int count) throws ImportException {
            boolean isPicture = in != null && in.shader != null;
            double otherwise = isPicture ? 1 : standard;
            double[] v = isPicture ? in.shader.numbers("inputs:scale", 4) : in == null ? null : in.value;
            double[] out = new double[count];
            for (int k = 0; k < count; k++) {
                double given = v != null && v.length > 0 ? v[Math.min(k, v.length - 1)] : otherwise;
                out[k] = Double.isFinite(given) ? given : otherwise;
            }
            return out;
        }

        void colour(String input, Parameter parameter, double otherwise) throws ImportException {
            Input in = follow(shader, "inputs:" + input, 0);
            surface = surface.with(
                    parameter, LinearRgb.of(value(in, otherwise, 3)).clamped());
            surface = surface.withTexture(parameter, texture(in));
        }

        void number(String input, Parameter parameter, double otherwise, double least, double most)
                throws ImportException {
            Input in = follow(shader, "inputs:" + input, 0);
            double[] v = value(in, otherwise, 4);
            int channel = in == null ? 0 : Math.max(0, "rgba".indexOf(in.output.isEmpty() ? "r" : in.output));
            double given = v[in != null && in.shader != null ? Math.min(3, channel) : 0];
            surface = surface.with(parameter, Math.max(least, Math.min(most, given)));
            TextureUse use = texture(in);
            if (use != null) {
                surface = surface.withTexture(parameter, use);
            }
        }

        /** Reflectance at normal incidence as an index, or as a metal where no dielectric reflects so much. */
        void specularWorkflow() throws ImportException {
            LinearRgb f0 = LinearRgb.of(value(follow(shader, "inputs:specularColor", 0), 0, 3))
                    .clamped();
            double most = Math.max(f0.r(), Math.max(f0.g(), f0.b()));
            if (most > 0.25) {
                surface = surface.with(Parameter.BASE_METALNESS, 1).with(Parameter.BASE_COLOR, f0);
            } else if (most > 0) {
                double root = Math.sqrt(most);
                surface = surface.with(Parameter.SPECULAR_IOR, (1 + root) / (1 - root))
                        .with(Parameter.SPECULAR_COLOR, f0.times(1 / most).clamped());
            }
        }

        void glow() throws ImportException {
            Input in = follow(shader, "inputs:emissiveColor", 0);
            surface = PhongSurface.glowing(surface, LinearRgb.of(value(in, 0, 3)));
            if (surface.number(Parameter.EMISSION_LUMINANCE) > 0) {
                surface = surface.withTexture(Parameter.EMISSION_COLOR, texture(in));
            }
        }

        void normal() throws ImportException {
            Input in = follow(shader, "inputs:normal", 0);
            if (in != null && in.shader != null) {
                surface = surface.withTexture(Parameter.GEOMETRY_NORMAL, texture(in));
            }
        }

        private TextureUse texture(Input in) throws ImportException {
            if (in == null || in.shader == null) {
                return null;
            }
            String id = in.shader.token("info:id", "");
            if (!id.equals("UsdUVTexture")) {
                reading.note("“" + TextNames.shown(name, "A material") + "”: what “" + TextNames.shown(id, "a node")
                        + "” works out is not used.");
                return null;
            }
            String digest = picture(in.shader);
            if (digest == null) {
                return null;
            }
            ModelUv placement = ModelUv.PLAIN;
            Input st = follow(in.shader, "inputs:st", 0);
            if (st != null
                    && st.shader != null
                    && st.shader.token("info:id", "").equals("UsdTransform2d")) {
                placement = placement(st.shader);
                st = follow(st.shader, "inputs:in", 0);
            }
            if (st != null && st.shader != null && coordinates[0].isEmpty()) {
                coordinates[0] = varname(st.shader);
            }
            Channel channel = switch (in.output) {
                case "r" -> Channel.R;
                case "g" -> Channel.G;
                case "b" -> Channel.B;
                case "a" -> Channel.A;
                default -> Channel.RGB;
            };
            return new TextureUse(
                    digest, channel, placement, wrap(in.shader, "inputs:wrapS"), wrap(in.shader, "inputs:wrapT"), 1);
        }

        private String varname(UsdNode reader) throws ImportException {
            String target = reader.target("inputs:varname");
            if (target != null) {
                int dot = target.indexOf('.');
                UsdNode from = stage.at(dot < 0 ? target : target.substring(0, dot));
                return from == null || dot < 0 ? "st" : from.token(target.substring(dot + 1), "st");
            }
            return reader.token("inputs:varname", "st");
        }

        private String picture(UsdNode texture) throws ImportException {
            UsdLayer layer = texture.layerOf("inputs:file");
            String asset = texture.token("inputs:file", "");
            if (layer == null || asset.isEmpty()) {
                reading.note("“" + TextNames.shown(name, "A material") + "”: its picture is missing.");
                return null;
            }
            String key = layer.files().name() + "\n" + asset;
            if (!pictures.containsKey(key)) {
                Optional<ByteBuffer> bytes = layer.files().companion(asset, reading);
                if (bytes.isEmpty()) {
                    reading.lack(asset);
                }
                pictures.put(key, bytes.isEmpty() ? null : model.picture(asset, bytes.get()));
            }
            return pictures.get(key);
        }
    }

    private static Wrap wrap(UsdNode texture, String key) throws ImportException {
        return switch (texture.token(key, "repeat")) {
            case "clamp", "black" -> Wrap.ONCE;
            case "mirror" -> Wrap.MIRROR;
            default -> Wrap.REPEAT;
        };
    }

    /**
     * Scaled, turned, then moved, with v from the lower edge up; here v runs from the upper edge down, so that the move has
     * to make up for turning about the other corner.
     */
    private static ModelUv placement(UsdNode t) throws ImportException {
        double turn = Math.toRadians(t.number("inputs:rotation", 0));
        double[] scale = t.numbers("inputs:scale", 2);
        double[] move = t.numbers("inputs:translation", 2);
        double su = scale == null ? 1 : scale[0];
        double sv = scale == null ? 1 : scale[1];
        double tu = move == null ? 0 : move[0];
        double tv = move == null ? 0 : move[1];
        return new ModelUv(tu - Math.sin(turn) * sv, 1 - Math.cos(turn) * sv - tv, turn, su, sv);
    }
}
