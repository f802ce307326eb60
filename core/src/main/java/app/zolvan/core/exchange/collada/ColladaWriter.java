package app.zolvan.core.exchange.collada;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.exchange.text.PlainNumber;
import app.zolvan.core.exchange.xml.XmlText;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Writes COLLADA 1.4.1: nodes as groups and parts, meshes once with material symbols, the common profile's materials with
 * base colour pictures beside the file. Y up, in metres or another unit.
 */
public final class ColladaWriter implements ModelWriter {
    private static final Set<Parameter> CARRIED = Set.of(
            Parameter.BASE_COLOR,
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.SPECULAR_IOR,
            Parameter.EMISSION_LUMINANCE,
            Parameter.EMISSION_COLOR,
            Parameter.GEOMETRY_OPACITY);
    private static final int FLUSH = 1 << 20;

    private final double metres;
    private final String unit;

    public ColladaWriter() {
        this(1, "meter");
    }

    /** @param metres length of one unit in the file */
    public ColladaWriter(double metres, String unit) {
        this.metres = metres;
        this.unit = unit;
    }

    @Override
    public Kind kind() {
        return new Kind("COLLADA", "dae", "model/vnd.collada+xml", true);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        return new WrittenLooks(dressed, CARRIED).losses("COLLADA’s common profile", CARRIED);
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        WrittenLooks looks = new WrittenLooks(dressed, Set.of(Parameter.BASE_COLOR));
        sink.file(base + ".dae", out -> new Pass(dressed, looks, out).write());
        looks.writePictures(sink);
    }

    /** One writing of one model. */
    private final class Pass {
        private final DressedModel dressed;
        private final Model model;
        private final WrittenLooks looks;
        private final OutputStream out;
        private final Transform change;
        private final Transform back;
        private StringBuilder text = new StringBuilder();
        /** Geometry by mesh and the coordinates its looks ask for. */
        private final Map<List<Object>, String> geometries = new HashMap<>();

        Pass(DressedModel dressed, WrittenLooks looks, OutputStream out) {
            this.dressed = dressed;
            this.model = dressed.model();
            this.looks = looks;
            this.out = out;
            this.change = Transform.scale(1 / metres, 1 / metres, 1 / metres);
            this.back = Transform.scale(metres, metres, metres);
        }

        void write() throws IOException {
            text.append("""
                    <?xml version="1.0" encoding="UTF-8"?>
                    <COLLADA xmlns="http://www.collada.org/2005/11/COLLADASchema" version="1.4.1">
                    <asset><contributor><authoring_tool>Zolvan</authoring_tool></contributor>\
                    <created>2026-01-01T00:00:00Z</created><modified>2026-01-01T00:00:00Z</modified>
                    """);
            text.append("<unit name=\"").append(unit).append("\" meter=\"").append(PlainNumber.of(metres));
            text.append("\"/><up_axis>Y_UP</up_axis></asset>\n");
            materials();
            List<String> geometryOfPart = new ArrayList<>();
            text.append("<library_geometries>\n");
            for (int p = 0; p < model.parts().size(); p++) {
                geometryOfPart.add(geometry(p));
            }
            text.append("</library_geometries>\n<library_visual_scenes><visual_scene id=\"scene\">\n");
            Map<Integer, List<Integer>> partsOf = new LinkedHashMap<>();
            Map<Integer, List<Integer>> groupsOf = new LinkedHashMap<>();
            for (int p = 0; p < model.parts().size(); p++) {
                partsOf.computeIfAbsent(model.parts().get(p).group(), k -> new ArrayList<>())
                        .add(p);
            }
            for (int g = 0; g < model.groups().size(); g++) {
                groupsOf.computeIfAbsent(model.groups().get(g).parent(), k -> new ArrayList<>())
                        .add(g);
            }
            nodes(Model.NONE, partsOf, groupsOf, geometryOfPart);
            text.append("""
                    </visual_scene></library_visual_scenes>
                    <scene><instance_visual_scene url="#scene"/></scene>
                    </COLLADA>
                    """);
            flush(true);
        }

        private void flush(boolean all) throws IOException {
            if (all || text.length() > FLUSH) {
                out.write(text.toString().getBytes(StandardCharsets.UTF_8));
                text = new StringBuilder();
            }
        }

        private void nodes(
                int group, Map<Integer, List<Integer>> parts, Map<Integer, List<Integer>> groups, List<String> geometry)
                throws IOException {
            for (int g : groups.getOrDefault(group, List.of())) {
                open(
                        "g" + g,
                        model.groups().get(g).name(),
                        model.groups().get(g).local());
                nodes(g, parts, groups, geometry);
                text.append("</node>\n");
            }
            for (int p : parts.getOrDefault(group, List.of())) {
                Model.Part part = model.parts().get(p);
                open("p" + p, part.name(), part.local());
                text.append("<instance_geometry url=\"#")
                        .append(geometry.get(p))
                        .append("\">");
                StringBuilder bound = new StringBuilder();
                for (int s = 0; s < model.meshOf(part).spanCount(); s++) {
                    int look = looks.of(p, s);
                    if (look != Model.NONE) {
                        bound.append("<instance_material symbol=\"s")
                                .append(s)
                                .append("\" target=\"#m")
                                .append(look)
                                .append("\"/>");
                    }
                }
                if (bound.length() > 0) {
                    text.append("<bind_material><technique_common>")
                            .append(bound)
                            .append("</technique_common></bind_material>");
                }
                text.append("</instance_geometry></node>\n");
                flush(false);
            }
        }

        private void open(String id, String name, Transform local) {
            text.append("<node id=\"").append(id).append("\" name=\"");
            XmlText.attribute(text, name).append("\">");
            if (!local.equals(Transform.IDENTITY)) {
                double[] m = change.after(local).after(back).columns();
                text.append("<matrix>");
                for (int row = 0; row < 4; row++) {
                    for (int c = 0; c < 4; c++) {
                        text.append(row + c > 0 ? " " : "").append(PlainNumber.of(m[4 * c + row]));
                    }
                }
                text.append("</matrix>");
            }
        }

        private void materials() {
            if (looks.looks().isEmpty()) {
                return;
            }
            if (!looks.pictures().isEmpty()) {
                text.append("<library_images>\n");
                looks.pictures()
                        .forEach((digest, file) -> text.append("<image id=\"i")
                                .append(digest, 0, 16)
                                .append("\"><init_from>")
                                .append(file)
                                .append("</init_from></image>\n"));
                text.append("</library_images>\n");
            }
            text.append("<library_effects>\n");
            for (int i = 0; i < looks.looks().size(); i++) {
                effect(i, looks.looks().get(i));
            }
            text.append("</library_effects>\n<library_materials>\n");
            for (int i = 0; i < looks.looks().size(); i++) {
                text.append("<material id=\"m").append(i).append("\" name=\"");
                XmlText.attribute(text, looks.names().get(i))
                        .append("\"><instance_effect url=\"#e")
                        .append(i)
                        .append("\"/></material>\n");
            }
            text.append("</library_materials>\n");
        }

        private void effect(int i, Look look) {
            Surface s = look.material().surface();
            PhysicalMaterial p = look.physical();
            TextureUse use = s.textures().get(Parameter.BASE_COLOR);
            text.append("<effect id=\"e").append(i).append("\"><profile_COMMON>");
            if (use != null) {
                String image = "i" + use.image().substring(0, 16);
                text.append("<newparam sid=\"surface\"><surface type=\"2D\"><init_from>")
                        .append(image)
                        .append("</init_from></surface></newparam><newparam sid=\"sampler\"><sampler2D>")
                        .append("<source>surface</source><wrap_s>")
                        .append(wrap(use.wrapU()))
                        .append("</wrap_s><wrap_t>")
                        .append(wrap(use.wrapV()))
                        .append("</wrap_t></sampler2D></newparam>");
            }
            text.append("<technique sid=\"common\"><blinn>");
            double glow = s.number(Parameter.EMISSION_LUMINANCE) / PhysicalMaterial.NITS_PER_UNIT;
            colour("emission", s.colour(Parameter.EMISSION_COLOR).times(Math.min(1, glow)));
            if (use != null) {
                text.append("<diffuse><texture texture=\"sampler\" texcoord=\"uv\"/></diffuse>");
            } else {
                colour("diffuse", p.baseColor().clamped());
            }
            colour("specular", LinearRgb.grey(s.number(Parameter.SPECULAR_WEIGHT)));
            number("shininess", Math.max(1.001, PhongSurface.exponent(s.number(Parameter.SPECULAR_ROUGHNESS))));
            double opacity = s.number(Parameter.GEOMETRY_OPACITY) * (1 - s.number(Parameter.TRANSMISSION_WEIGHT));
            if (opacity < 1) {
                text.append("<transparent opaque=\"A_ONE\"><color>1 1 1 1</color></transparent>");
                number("transparency", opacity);
            }
            number("index_of_refraction", s.number(Parameter.SPECULAR_IOR));
            text.append("</blinn></technique></profile_COMMON></effect>\n");
        }

        private void colour(String channel, LinearRgb c) {
            text.append('<').append(channel).append("><color>");
            for (double v : c.clamped().toArray()) {
                text.append(PlainNumber.of(Srgb.encode(v))).append(' ');
            }
            text.append("1</color></").append(channel).append('>');
        }

        private void number(String channel, double v) {
            text.append('<').append(channel).append("><float>").append(PlainNumber.of(v));
            text.append("</float></").append(channel).append('>');
        }

        private static String wrap(TextureUse.Wrap wrap) {
            return switch (wrap) {
                case REPEAT -> "WRAP";
                case MIRROR -> "MIRROR";
                case ONCE -> "CLAMP";
            };
        }

        private String geometry(int partIndex) throws IOException {
            Model.Part part = model.parts().get(partIndex);
            Mesh mesh = model.meshOf(part);
            List<Object> key = new ArrayList<>(List.of(part.mesh()));
            for (int s = 0; s < mesh.spanCount(); s++) {
                Look look = dressed.look().apply(partIndex, s);
                boolean textured =
                        look != null && !look.material().surface().textures().isEmpty();
                key.add(textured ? looks.of(partIndex, s) : Model.NONE);
                key.add(look == null);
            }
            String known = geometries.get(key);
            if (known != null) {
                return known;
            }
            String id = "mesh" + geometries.size();
            geometries.put(key, id);
            text.append("<geometry id=\"").append(id).append("\" name=\"");
            XmlText.attribute(text, part.name()).append("\"><mesh>\n");
            source(id + "-p", mesh.positions(), 3, 1 / metres);
            source(id + "-n", mesh.normals(), 3, 1);
            List<float[]> uvs = new ArrayList<>();
            for (int s = 0; s < mesh.spanCount(); s++) {
                float[] uv = WrittenLooks.coordinates(mesh, dressed.look().apply(partIndex, s));
                uvs.add(uv);
                if (uv != null) {
                    float[] up = uv.clone();
                    for (int i = 1; i < up.length; i += 2) {
                        up[i] = 1 - up[i];
                    }
                    source(id + "-t" + s, up, 2, 1);
                }
            }
            text.append("<vertices id=\"")
                    .append(id)
                    .append("-v\"><input semantic=\"POSITION\" source=\"#")
                    .append(id);
            text.append("-p\"/></vertices>\n");
            for (int s = 0; s < mesh.spanCount(); s++) {
                int from = mesh.spanStarts()[s];
                int count = mesh.spanStarts()[s + 1] - from;
                text.append("<triangles count=\"").append(count).append('"');
                if (looks.of(partIndex, s) != Model.NONE) {
                    text.append(" material=\"s").append(s).append('"');
                }
                text.append("><input semantic=\"VERTEX\" source=\"#").append(id).append("-v\" offset=\"0\"/>");
                text.append("<input semantic=\"NORMAL\" source=\"#").append(id).append("-n\" offset=\"0\"/>");
                if (uvs.get(s) != null) {
                    text.append("<input semantic=\"TEXCOORD\" source=\"#")
                            .append(id)
                            .append("-t")
                            .append(s);
                    text.append("\" offset=\"0\" set=\"0\"/>");
                }
                text.append("<p>");
                for (int i = 3 * from; i < 3 * (from + count); i++) {
                    text.append(mesh.indices()[i]).append(' ');
                    flush(false);
                }
                text.append("</p></triangles>\n");
            }
            text.append("</mesh></geometry>\n");
            return id;
        }

        private void source(String id, float[] values, int width, double scale) throws IOException {
            text.append("<source id=\"")
                    .append(id)
                    .append("\"><float_array id=\"")
                    .append(id)
                    .append("-a\" count=\"");
            text.append(values.length).append("\">");
            for (float v : values) {
                PlainNumber.append(text, (float) (v * scale));
                text.append(' ');
                flush(false);
            }
            text.append("</float_array><technique_common><accessor source=\"#")
                    .append(id)
                    .append("-a\" count=\"");
            text.append(values.length / width)
                    .append("\" stride=\"")
                    .append(width)
                    .append("\">");
            for (String name : width == 3 ? List.of("X", "Y", "Z") : List.of("S", "T")) {
                text.append("<param name=\"").append(name).append("\" type=\"float\"/>");
            }
            text.append("</accessor></technique_common></source>\n");
        }
    }
}
