package app.zolvan.core.exchange.obj;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.PhongSurface;
import app.zolvan.core.exchange.WrittenLooks;
import app.zolvan.core.exchange.text.PlainNumber;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.model.Model;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;

/** Writes OBJ with MTL and its PBR extension: one object a part, in metres, Y up, placements carried out. */
public final class ObjWriter implements ModelWriter {
    private static final Set<Parameter> CARRIED = Set.of(
            Parameter.BASE_COLOR,
            Parameter.BASE_METALNESS,
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.SPECULAR_ROUGHNESS_ANISOTROPY,
            Parameter.SPECULAR_IOR,
            Parameter.TRANSMISSION_WEIGHT,
            Parameter.TRANSMISSION_COLOR,
            Parameter.COAT_WEIGHT,
            Parameter.COAT_ROUGHNESS,
            Parameter.FUZZ_WEIGHT,
            Parameter.EMISSION_LUMINANCE,
            Parameter.EMISSION_COLOR,
            Parameter.GEOMETRY_OPACITY,
            Parameter.GEOMETRY_NORMAL);
    private static final int FLUSH = 1 << 20;

    @Override
    public Kind kind() {
        return new Kind("OBJ", "obj", "model/obj", true);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        List<String> out = new ArrayList<>();
        if (!dressed.model().groups().isEmpty()) {
            out.add("Groups are lost: OBJ lists parts side by side.");
        }
        out.add("OBJ does not say its unit; the numbers are metres.");
        out.addAll(new WrittenLooks(dressed, CARRIED).losses("MTL", CARRIED));
        return out;
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        WrittenLooks looks = new WrittenLooks(dressed, CARRIED);
        sink.file(base + ".obj", out -> writeObj(dressed, looks, base, out));
        sink.file(base + ".mtl", out -> writeMtl(looks, out));
        looks.writePictures(sink);
    }

    private static void writeObj(DressedModel dressed, WrittenLooks looks, String base, OutputStream out)
            throws IOException {
        StringBuilder text = new StringBuilder();
        text.append("# metres, Y up\nmtllib ").append(base).append(".mtl\n");
        Model model = dressed.model();
        Set<String> taken = new HashSet<>();
        int[] written = new int[2]; // vertices, coordinates
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            Mesh mesh = model.meshOf(part);
            Transform world = model.partToWorld(part);
            text.append("o ").append(WrittenLooks.unique(part.name(), taken)).append('\n');
            for (int v = 0; v < mesh.vertexCount(); v++) {
                vector(text.append("v"), world.point(mesh.position(v)));
                flush(text, out);
            }
            for (int v = 0; v < mesh.vertexCount(); v++) {
                vector(text.append("vn"), world.normal(mesh.normal(v)));
                flush(text, out);
            }
            boolean mirrored = world.determinant() < 0;
            for (int s = 0; s < mesh.spanCount(); s++) {
                int look = looks.of(p, s);
                float[] uv = WrittenLooks.coordinates(
                        mesh, look == Model.NONE ? null : dressed.look().apply(p, s));
                int firstUv = written[1];
                if (uv != null) {
                    for (int i = 0; i < uv.length; i += 2) {
                        text.append("vt ");
                        PlainNumber.append(text, uv[i]);
                        text.append(' ');
                        PlainNumber.append(text, 1 - uv[i + 1]);
                        text.append('\n');
                        flush(text, out);
                    }
                    written[1] += uv.length / 2;
                }
                text.append("usemtl ")
                        .append(look == Model.NONE ? "none" : looks.names().get(look))
                        .append('\n');
                for (int t = mesh.spanStarts()[s]; t < mesh.spanStarts()[s + 1]; t++) {
                    text.append('f');
                    for (int k = 0; k < 3; k++) {
                        int v = mesh.indices()[3 * t + (mirrored ? 2 - k : k)];
                        text.append(' ').append(written[0] + v + 1).append('/');
                        if (uv != null) {
                            text.append(firstUv + v + 1);
                        }
                        text.append('/').append(written[0] + v + 1);
                    }
                    text.append('\n');
                    flush(text, out);
                }
            }
            written[0] += mesh.vertexCount();
        }
        out.write(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static void flush(StringBuilder text, OutputStream out) throws IOException {
        if (text.length() > FLUSH) {
            out.write(text.toString().getBytes(StandardCharsets.UTF_8));
            text.setLength(0);
        }
    }

    private static void vector(StringBuilder text, Vec3 v) {
        for (int k = 0; k < 3; k++) {
            text.append(' ');
            PlainNumber.append(text, (float) v.get(k));
        }
        text.append('\n');
    }

    private static void writeMtl(WrittenLooks looks, OutputStream out) throws IOException {
        StringBuilder text = new StringBuilder();
        for (int i = 0; i < looks.looks().size(); i++) {
            Look look = looks.looks().get(i);
            Surface s = look.material().surface();
            double through = s.number(Parameter.TRANSMISSION_WEIGHT);
            double opacity = s.number(Parameter.GEOMETRY_OPACITY);
            double roughness = s.number(Parameter.SPECULAR_ROUGHNESS);
            text.append("newmtl ").append(looks.names().get(i)).append('\n');
            colour(text, "Kd", s.colour(Parameter.BASE_COLOR).times(s.number(Parameter.BASE_WEIGHT)));
            line(text, "Ks", s.number(Parameter.SPECULAR_WEIGHT) > 0 ? "1 1 1" : "0 0 0");
            line(text, "Ns", PlainNumber.of(PhongSurface.exponent(roughness)));
            line(text, "Ni", PlainNumber.of(s.number(Parameter.SPECULAR_IOR)));
            line(text, "Pr", PlainNumber.of(roughness));
            line(text, "Pm", PlainNumber.of(s.number(Parameter.BASE_METALNESS)));
            if (s.number(Parameter.COAT_WEIGHT) > 0) {
                line(text, "Pc", PlainNumber.of(s.number(Parameter.COAT_WEIGHT)));
                line(text, "Pcr", PlainNumber.of(s.number(Parameter.COAT_ROUGHNESS)));
            }
            if (s.number(Parameter.FUZZ_WEIGHT) > 0) {
                line(text, "Ps", PlainNumber.of(s.number(Parameter.FUZZ_WEIGHT)));
            }
            if (s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY) > 0) {
                line(text, "aniso", PlainNumber.of(s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY)));
            }
            double luminance = s.number(Parameter.EMISSION_LUMINANCE) / PhysicalMaterial.NITS_PER_UNIT;
            if (luminance > 0) {
                colour(text, "Ke", s.colour(Parameter.EMISSION_COLOR).times(Math.min(1, luminance)));
            }
            if (through > 0) {
                colour(text, "Tf", s.colour(Parameter.TRANSMISSION_COLOR));
            }
            line(text, "d", PlainNumber.of(opacity * (1 - through)));
            line(text, "illum", through > 0 ? "7" : "2");
            map(text, "map_Kd", looks, s.textures().get(Parameter.BASE_COLOR));
            map(text, "map_Ke", looks, s.textures().get(Parameter.EMISSION_COLOR));
            map(text, "map_Pr", looks, s.textures().get(Parameter.SPECULAR_ROUGHNESS));
            map(text, "map_Pm", looks, s.textures().get(Parameter.BASE_METALNESS));
            map(text, "map_d", looks, s.textures().get(Parameter.GEOMETRY_OPACITY));
            map(text, "norm", looks, s.textures().get(Parameter.GEOMETRY_NORMAL));
            text.append('\n');
        }
        out.write(text.toString().getBytes(StandardCharsets.UTF_8));
    }

    private static void line(StringBuilder text, String key, String value) {
        text.append(key).append(' ').append(value).append('\n');
    }

    private static void colour(StringBuilder text, String key, LinearRgb c) {
        line(
                text,
                key,
                PlainNumber.of(Srgb.encode(c.r())) + " " + PlainNumber.of(Srgb.encode(c.g())) + " "
                        + PlainNumber.of(Srgb.encode(c.b())));
    }

    private static void map(StringBuilder text, String key, WrittenLooks looks, TextureUse use) {
        String file = looks.file(use);
        if (file != null) {
            line(text, key, (use.strength() == 1 ? "" : "-bm " + PlainNumber.of(use.strength()) + " ") + file);
        }
    }
}
