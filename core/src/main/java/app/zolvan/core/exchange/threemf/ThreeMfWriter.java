package app.zolvan.core.exchange.threemf;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.exchange.text.PlainNumber;
import app.zolvan.core.exchange.xml.XmlText;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/**
 * Writes 3MF (core specification 1.3, materials and properties 1.2): groups as components, meshes once, each look as a base
 * material with its colour, base colour pictures as texture groups. Millimetres, Z up.
 */
public final class ThreeMfWriter implements ModelWriter {
    private static final Set<Parameter> CARRIED = Set.of(Parameter.BASE_COLOR, Parameter.GEOMETRY_OPACITY);
    private static final int FLUSH = 1 << 20;
    private static final int BASES = 1;

    @Override
    public Kind kind() {
        return new Kind("3MF", "3mf", "model/3mf", false);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        return new WrittenLooks(dressed, CARRIED).losses("3MF", CARRIED);
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        sink.file(base + ".3mf", out -> new Pass(dressed).write(out));
    }

    /** One writing of one model. */
    private static final class Pass {
        private final DressedModel dressed;
        private final Model model;
        private final WrittenLooks looks;
        private final Transform back = MILLIMETRES_Z_UP.inverse();
        private final Map<Integer, Integer> textureOfLook = new HashMap<>();
        private int nextId = BASES + 1;
        private StringBuilder text = new StringBuilder();
        private OutputStream out;

        Pass(DressedModel dressed) {
            this.dressed = dressed;
            this.model = dressed.model();
            this.looks = new WrittenLooks(dressed, Set.of(Parameter.BASE_COLOR));
        }

        void write(OutputStream to) throws IOException {
            ZipOutputStream zip = new ZipOutputStream(to);
            entry(zip, "[Content_Types].xml", """
                    <?xml version="1.0" encoding="UTF-8"?>
                    <Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types">
                    <Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/>
                    <Default Extension="model" ContentType="application/vnd.ms-package.3dmanufacturing-3dmodel+xml"/>
                    <Default Extension="png" ContentType="image/png"/>
                    <Default Extension="jpg" ContentType="image/jpeg"/>
                    </Types>
                    """);
            entry(zip, "_rels/.rels", """
                    <?xml version="1.0" encoding="UTF-8"?>
                    <Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships">
                    <Relationship Id="r0" Target="/3D/3dmodel.model" \
                    Type="http://schemas.microsoft.com/3dmanufacturing/2013/01/3dmodel"/>
                    </Relationships>
                    """);
            begin(zip, "3D/3dmodel.model");
            out = zip;
            document();
            flush(true);
            zip.closeEntry();
            StringBuilder relations = new StringBuilder("<?xml version=\"1.0\" encoding=\"UTF-8\"?>\n"
                    + "<Relationships xmlns=\"http://schemas.openxmlformats.org/package/2006/relationships\">\n");
            int n = 0;
            for (Map.Entry<String, String> p : looks.pictures().entrySet()) {
                relations
                        .append("<Relationship Id=\"t")
                        .append(n++)
                        .append("\" Target=\"/3D/")
                        .append(p.getValue())
                        .append("\" Type=\"http://schemas.microsoft.com/3dmanufacturing/2013/01/3dtexture\"/>\n");
                begin(zip, "3D/" + p.getValue());
                zip.write(dressed.image().apply(p.getKey()));
                zip.closeEntry();
            }
            if (n > 0) {
                entry(
                        zip,
                        "3D/_rels/3dmodel.model.rels",
                        relations.append("</Relationships>\n").toString());
            }
            zip.finish();
        }

        private static void begin(ZipOutputStream zip, String name) throws IOException {
            ZipEntry e = new ZipEntry(name);
            e.setTime(315_532_800_000L); // the same bytes whenever written
            zip.putNextEntry(e);
        }

        private static void entry(ZipOutputStream zip, String name, String content) throws IOException {
            begin(zip, name);
            zip.write(content.getBytes(StandardCharsets.UTF_8));
            zip.closeEntry();
        }

        private void flush(boolean all) throws IOException {
            if (all || text.length() > FLUSH) {
                out.write(text.toString().getBytes(StandardCharsets.UTF_8));
                text = new StringBuilder();
            }
        }

        private void document() throws IOException {
            text.append("""
                    <?xml version="1.0" encoding="UTF-8"?>
                    <model unit="millimeter" xmlns="http://schemas.microsoft.com/3dmanufacturing/core/2015/02" \
                    xmlns:m="http://schemas.microsoft.com/3dmanufacturing/material/2015/02">
                    <resources>
                    """);
            bases();
            List<List<String>> components = new ArrayList<>();
            model.groups().forEach(g -> components.add(new ArrayList<>()));
            List<String> items = new ArrayList<>();
            Map<List<Integer>, Integer> objects = new HashMap<>();
            for (int p = 0; p < model.parts().size(); p++) {
                Model.Part part = model.parts().get(p);
                List<Integer> key = new ArrayList<>(List.of(part.mesh()));
                for (int s = 0; s < model.meshOf(part).spanCount(); s++) {
                    key.add(looks.of(p, s));
                }
                // a name belongs to the object, so that parts of other names need objects of their own
                key.add(part.name().hashCode());
                Integer object = objects.get(key);
                if (object == null) {
                    object = object(p, part);
                    objects.put(key, object);
                }
                place(part.group(), object, part.local(), components, items);
            }
            for (int g = model.groups().size() - 1; g >= 0; g--) { // inner groups before outer ones
                if (components.get(g).isEmpty()) {
                    continue;
                }
                Model.Group group = model.groups().get(g);
                int id = nextId++;
                text.append("<object id=\"").append(id).append("\" type=\"model\" name=\"");
                XmlText.attribute(text, group.name()).append("\"><components>");
                components.get(g).forEach(text::append);
                text.append("</components></object>\n");
                place(group.parent(), id, group.local(), components, items);
                flush(false);
            }
            text.append("</resources>\n<build>\n");
            items.forEach(i -> text.append(i).append('\n'));
            text.append("</build>\n</model>\n");
        }

        private void place(int group, int object, Transform local, List<List<String>> components, List<String> items) {
            String attributes = " objectid=\"" + object + "\""
                    + transform(MILLIMETRES_Z_UP.after(local).after(back)) + "/>";
            if (group == Model.NONE) {
                items.add("<item" + attributes);
            } else {
                components.get(group).add("<component" + attributes);
            }
        }

        private static String transform(Transform t) {
            if (t.equals(Transform.IDENTITY)) {
                return "";
            }
            double[] m = t.columns();
            StringBuilder out = new StringBuilder(" transform=\"");
            for (int c = 0; c < 4; c++) {
                for (int r = 0; r < 3; r++) {
                    out.append(c + r > 0 ? " " : "").append(PlainNumber.of(m[4 * c + r]));
                }
            }
            return out.append('"').toString();
        }

        private void bases() {
            if (looks.looks().isEmpty()) {
                return;
            }
            text.append("<basematerials id=\"").append(BASES).append("\">\n");
            for (int i = 0; i < looks.looks().size(); i++) {
                text.append("<base name=\"");
                XmlText.attribute(text, looks.names().get(i))
                        .append("\" displaycolor=\"")
                        .append(colour(looks.looks().get(i)))
                        .append("\"/>\n");
            }
            text.append("</basematerials>\n");
            for (int i = 0; i < looks.looks().size(); i++) {
                TextureUse use =
                        looks.looks().get(i).material().surface().textures().get(Parameter.BASE_COLOR);
                String file = looks.file(use);
                if (file != null && !file.endsWith(".webp")) {
                    textureOfLook.put(i, nextId);
                    text.append("<m:texture2d id=\"")
                            .append(nextId++)
                            .append("\" path=\"/3D/")
                            .append(file)
                            .append("\" contenttype=\"image/")
                            .append(file.endsWith("jpg") ? "jpeg" : "png")
                            .append("\"/>\n");
                }
            }
        }

        private static String colour(Look look) {
            LinearRgb c = look.physical().baseColor().clamped();
            return Srgb.toHex(c)
                    + String.format("%02X", Math.round(255 * look.physical().alpha()));
        }

        private int object(int partIndex, Model.Part part) throws IOException {
            Mesh mesh = model.meshOf(part);
            int[] groupOfSpan = new int[mesh.spanCount()];
            for (int s = 0; s < groupOfSpan.length; s++) {
                int look = looks.of(partIndex, s);
                Integer texture = textureOfLook.get(look);
                float[] uv = texture == null
                        ? null
                        : WrittenLooks.coordinates(mesh, dressed.look().apply(partIndex, s));
                if (uv != null) {
                    groupOfSpan[s] = nextId++;
                    text.append("<m:texture2dgroup id=\"")
                            .append(groupOfSpan[s])
                            .append("\" texid=\"")
                            .append(texture)
                            .append("\">\n");
                    for (int i = 0; i < uv.length; i += 2) {
                        text.append("<m:tex2coord u=\"")
                                .append(uv[i])
                                .append("\" v=\"")
                                .append(1 - uv[i + 1])
                                .append("\"/>");
                        flush(false);
                    }
                    text.append("\n</m:texture2dgroup>\n");
                }
            }
            int id = nextId++;
            text.append("<object id=\"").append(id).append("\" type=\"model\" name=\"");
            XmlText.attribute(text, part.name()).append("\"><mesh><vertices>\n");
            for (int v = 0; v < mesh.vertexCount(); v++) {
                text.append("<vertex x=\"");
                PlainNumber.append(text, mesh.positions()[3 * v] * 1000);
                text.append("\" y=\"");
                PlainNumber.append(text, -mesh.positions()[3 * v + 2] * 1000);
                text.append("\" z=\"");
                PlainNumber.append(text, mesh.positions()[3 * v + 1] * 1000);
                text.append("\"/>\n");
                flush(false);
            }
            text.append("</vertices><triangles>\n");
            for (int s = 0; s < mesh.spanCount(); s++) {
                int look = looks.of(partIndex, s);
                for (int i = 3 * mesh.spanStarts()[s]; i < 3 * mesh.spanStarts()[s + 1]; i += 3) {
                    int a = mesh.indices()[i];
                    int b = mesh.indices()[i + 1];
                    int c = mesh.indices()[i + 2];
                    text.append("<triangle v1=\"")
                            .append(a)
                            .append("\" v2=\"")
                            .append(b)
                            .append("\" v3=\"")
                            .append(c);
                    if (groupOfSpan[s] > 0) {
                        text.append("\" pid=\"").append(groupOfSpan[s]);
                        text.append("\" p1=\"")
                                .append(a)
                                .append("\" p2=\"")
                                .append(b)
                                .append("\" p3=\"")
                                .append(c);
                    } else if (look != Model.NONE) {
                        text.append("\" pid=\"")
                                .append(BASES)
                                .append("\" p1=\"")
                                .append(look);
                    }
                    text.append("\"/>\n");
                    flush(false);
                }
            }
            text.append("</triangles></mesh></object>\n");
            return id;
        }
    }
}
