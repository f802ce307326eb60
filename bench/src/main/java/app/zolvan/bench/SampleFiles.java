package app.zolvan.bench;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.Channel;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.ZipInputStream;

/** Small valid files in every form that the readers know, as starting points for damage. */
public final class SampleFiles {
    /** A picture of one pixel. */
    private static final byte[] PIXEL = Base64.getDecoder()
            .decode("iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==");

    private SampleFiles() {}

    /** Files by a name that says their form. */
    public static Map<String, byte[]> all() {
        Map<String, byte[]> out = new LinkedHashMap<>();
        for (ModelWriter writer : ModelFormats.writers()) {
            out.put(writer.kind().name(), written(writer));
        }
        out.put("USD text", mainFile("usda"));
        out.put("USD binary", firstEntry(out.get("USDZ")));
        out.put("OBJ text", text("""
                # a wedge with everything an exporter may write
                mtllib none.mtl
                o Wedge
                v 0 0 0 1 0 0
                v 1 0 0 0 1 0
                v 1 1 0 0 0 1
                v 0 1 0
                v 0.5 0.5 1
                vt 0 0
                vt 1 0
                vt 1 1
                vn 0 0 -1
                s 1
                g sides front
                usemtl a
                f -5//1 -4//1 -3//1 \\
                  -2//1
                usemtl b
                f 1/1 2/2 5/3
                f 2 3 5
                s off
                f 3 4 5 # the end
                f 4 1 5
                """));
        out.put("STL text", text("""
                solid plate
                facet normal 0 0 1
                outer loop
                vertex 0 0 0
                vertex 1 0 0
                vertex 1 1 0
                endloop
                endfacet
                facet normal 0 0 1
                outer loop
                vertex 0 0 0
                vertex 1 1 0
                vertex 0 1 0
                endloop
                endfacet
                endsolid plate
                """));
        out.put("PLY text", text("""
                ply
                format ascii 1.0
                comment a plate
                element vertex 4
                property uchar red
                property float z
                property float y
                property float x
                property uchar green
                property uchar blue
                element face 2
                property uchar flags
                property list uchar int vertex_indices
                element edge 1
                property int vertex1
                property int vertex2
                end_header
                255 0 0 0 10 20
                255 0 0 1 10 20
                255 0 1 1 10 20
                255 0 1 0 10 20
                7 4 0 1 2 3
                7 3 0 1 2
                0 1
                """));
        out.put("PLY big endian", bigEndianPly());
        out.put("COLLADA text", text("""
                <?xml version="1.0"?>
                <COLLADA xmlns="http://www.collada.org/2005/11/COLLADASchema" version="1.4.1">
                <asset><unit name="centimeter" meter="0.01"/><up_axis>Z_UP</up_axis></asset>
                <library_effects><effect id="e"><profile_COMMON><technique sid="t"><phong>
                <diffuse><color>0.8 0.1 0.1 1</color></diffuse><shininess><float>40</float></shininess>
                </phong></technique></profile_COMMON></effect></library_effects>
                <library_materials><material id="m" name="red"><instance_effect url="#e"/></material></library_materials>
                <library_geometries><geometry id="g" name="plate"><mesh>
                <source id="p"><float_array id="pa" count="24">0 0 0 9 0 0 9 9 0 0 9 0 3 3 0 6 3 0 6 6 0 3 6 0</float_array>
                <technique_common><accessor source="#pa" count="8" stride="3"/></technique_common></source>
                <vertices id="v"><input semantic="POSITION" source="#p"/></vertices>
                <polygons material="s" count="1"><input semantic="VERTEX" source="#v" offset="0"/>
                <ph><p>0 1 2 3</p><h>4 7 6 5</h></ph></polygons>
                <polylist material="s" count="1"><input semantic="VERTEX" source="#v" offset="0"/>
                <vcount>4</vcount><p>4 5 6 7</p></polylist></mesh></geometry></library_geometries>
                <library_nodes><node id="n"><instance_geometry url="#g"><bind_material><technique_common>
                <instance_material symbol="s" target="#m"/></technique_common></bind_material></instance_geometry></node>
                </library_nodes>
                <library_visual_scenes><visual_scene id="vs"><node name="outer"><rotate>0 0 1 90</rotate>
                <translate>1 2 3</translate><instance_node url="#n"/><instance_node url="#n"/></node></visual_scene>
                </library_visual_scenes><scene><instance_visual_scene url="#vs"/></scene></COLLADA>
                """));
        return out;
    }

    private static byte[] text(String s) {
        return s.getBytes(StandardCharsets.UTF_8);
    }

    private static byte[] bigEndianPly() {
        byte[] head = text("ply\nformat binary_big_endian 1.0\nelement vertex 3\nproperty double x\nproperty float y\n"
                + "property float z\nelement face 1\nproperty list uchar ushort vertex_index\nend_header\n");
        ByteBuffer b = ByteBuffer.allocate(head.length + 3 * 16 + 7).order(ByteOrder.BIG_ENDIAN);
        b.put(head);
        b.putDouble(0).putFloat(0).putFloat(0);
        b.putDouble(1).putFloat(0).putFloat(0);
        b.putDouble(0).putFloat(1).putFloat(0);
        b.put((byte) 3).putShort((short) 0).putShort((short) 1).putShort((short) 2);
        return b.array();
    }

    private static byte[] written(ModelWriter writer) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            if (writer.kind().isBundle()) {
                ModelFormats.zip(writer, dressed(), "sample", out);
            } else {
                writer.write(dressed(), "sample", (path, content) -> content.writeTo(out));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** The first file that a writer of several makes. */
    private static byte[] mainFile(String ending) {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ModelFormats.writer(ending).orElseThrow().write(dressed(), "sample", (path, content) -> {
                if (path.endsWith(ending)) {
                    content.writeTo(out);
                }
            });
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static byte[] firstEntry(byte[] archive) {
        try (ZipInputStream zip = new ZipInputStream(new ByteArrayInputStream(archive))) {
            zip.getNextEntry();
            return zip.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Two nested groups, three parts of two meshes, a picture. */
    public static DressedModel dressed() {
        Vec3 a = Vec3.ZERO;
        Vec3 b = Vec3.axis(0);
        Vec3 c = Vec3.axis(1);
        Vec3 d = Vec3.axis(2);
        Mesh wedge = new TriangleSoup()
                .triangle(a, c, b)
                .triangle(a, b, d)
                .triangle(a, d, c)
                .triangle(b, c, d)
                .toMesh(0.1);
        float[] uv = new float[2 * wedge.vertexCount()];
        for (int v = 0; v < wedge.vertexCount(); v++) {
            uv[2 * v] = wedge.positions()[3 * v];
            uv[2 * v + 1] = wedge.positions()[3 * v + 1];
        }
        Mesh textured = new Mesh(
                wedge.positions(), wedge.normals(), uv, uv.clone(), wedge.indices(), new int[] {0, 2, 4}, null);
        String digest = Digest.of(PIXEL);
        Surface painted = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 1, 1, 1)
                .withTexture(Parameter.BASE_COLOR, TextureUse.repeating(digest, Channel.RGB, ModelUv.PLAIN));
        List<SourceMaterial> sources = List.of(
                source("oak & \"ash\"", painted),
                source("steel", Surface.STANDARD.with(Parameter.BASE_METALNESS, 1)),
                source("glass", Surface.STANDARD.with(Parameter.GEOMETRY_OPACITY, 0.3)));
        Model model = new Model(
                List.of(
                        new Model.Group(Model.NONE, "Outer <1>", Transform.translation(0, 1, 0)),
                        new Model.Group(0, "Inner", Transform.rotation(Vec3.axis(1), 0.5))),
                List.of(
                        new Model.Part(1, "Left", Transform.IDENTITY, 0, List.of(1)),
                        new Model.Part(1, "Right", Transform.translation(2, 0, 0), 0, List.of(2)),
                        new Model.Part(0, "Top", Transform.scale(1, 2, 1), 1, List.of(0, 1))),
                List.of(wedge, textured),
                sources,
                Map.of(),
                List.of());
        Look[] looks =
                sources.stream().map(s -> Look.of(s.material(), null, 0, null)).toArray(Look[]::new);
        return new DressedModel(
                "Sample",
                model,
                (p, s) -> looks[model.parts().get(p).sourceOfSpan().get(s)],
                image -> PIXEL);
    }

    private static SourceMaterial source(String name, Surface surface) {
        return new SourceMaterial(name, new Material("", name, null, surface));
    }
}
