package app.zolvan.bench;

import app.zolvan.core.command.CommandLine;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.exchange.formats.ModelFormats;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * Writes large models for measuring: {@code parts} rippled sheets of together about {@code triangles} triangles, each its own
 * geometry, in the formats asked for, and the same as text PLY.
 */
public final class LargeFiles {
    private LargeFiles() {}

    public static Model model(int triangles, int parts) {
        int side = (int) Math.round(Math.sqrt(triangles / 2.0 / parts));
        List<Mesh> meshes = new ArrayList<>();
        List<Model.Part> placed = new ArrayList<>();
        List<SourceMaterial> sources = new ArrayList<>();
        for (int i = 0; i < Math.min(parts, 20); i++) {
            Surface s = Surface.STANDARD.with(Parameter.BASE_COLOR, i / 20.0, 0.5, 1 - i / 20.0);
            sources.add(new SourceMaterial("mat_" + i, new Material("", "mat_" + i, null, s)));
        }
        int row = (int) Math.ceil(Math.sqrt(parts));
        for (int p = 0; p < parts; p++) {
            meshes.add(sheet(side, p));
            placed.add(new Model.Part(
                    Model.NONE,
                    "Sheet " + p,
                    Transform.translation(1.1 * (p % row), 0, 1.1 * Math.floorDiv(p, row)),
                    p,
                    List.of(p % sources.size())));
        }
        return new Model(List.of(), placed, meshes, sources, Map.of(), List.of());
    }

    private static Mesh sheet(int side, int seed) {
        int n = side + 1;
        float[] p = new float[3 * n * n];
        float[] normal = new float[3 * n * n];
        for (int y = 0; y < n; y++) {
            for (int x = 0; x < n; x++) {
                int i = 3 * (y * n + x);
                double u = (double) x / side;
                double v = (double) y / side;
                double a = 9 * u + 0.37 * seed;
                double b = 7 * v + 0.21 * seed;
                p[i] = (float) u;
                p[i + 1] = (float) (0.05 * Math.sin(a) * Math.cos(b));
                p[i + 2] = (float) v;
                double dx = 0.45 * Math.cos(a) * Math.cos(b);
                double dz = -0.35 * Math.sin(a) * Math.sin(b);
                double l = Math.sqrt(dx * dx + 1 + dz * dz);
                normal[i] = (float) (-dx / l);
                normal[i + 1] = (float) (1 / l);
                normal[i + 2] = (float) (-dz / l);
            }
        }
        int[] index = new int[6 * side * side];
        int at = 0;
        for (int y = 0; y < side; y++) {
            for (int x = 0; x < side; x++) {
                int a = y * n + x;
                for (int v : new int[] {a, a + n, a + 1, a + 1, a + n, a + n + 1}) {
                    index[at++] = v;
                }
            }
        }
        return new Mesh(p, normal, null, null, index, new int[] {0, index.length / 3}, null);
    }

    /** @param args folder, triangles, parts, endings … */
    public static void main(String[] args) throws IOException {
        Path folder = Path.of(args[0]);
        Model model = model(Integer.parseInt(args[1]), Integer.parseInt(args[2]));
        DressedModel dressed = CommandLine.asArrived("large", model);
        for (int i = 3; i < args.length; i++) {
            if (args[i].equals("ascii.ply")) {
                write(folder.resolve("large.ascii.ply"), out -> asciiPly(model, out));
                continue;
            }
            ModelWriter writer = ModelFormats.writer(args[i]).orElseThrow();
            writer.write(dressed, "large", (path, content) -> write(folder.resolve(path), content));
        }
    }

    private static void write(Path file, ModelWriter.Content content) throws IOException {
        Files.createDirectories(file.getParent());
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file), 1 << 20)) {
            content.writeTo(out);
        }
    }

    private static void asciiPly(Model model, OutputStream out) throws IOException {
        int vertices = model.meshes().stream().mapToInt(Mesh::vertexCount).sum();
        int triangles = model.meshes().stream().mapToInt(Mesh::triangleCount).sum();
        line(
                out,
                "ply\nformat ascii 1.0\nelement vertex " + vertices
                        + "\nproperty float x\nproperty float y\nproperty float z\nelement face " + triangles
                        + "\nproperty list uchar int vertex_indices\nend_header");
        for (Model.Part part : model.parts()) {
            Mesh m = model.meshOf(part);
            for (int v = 0; v < m.vertexCount(); v++) {
                var p = model.partToWorld(part).point(m.position(v));
                line(out, (float) p.x() + " " + (float) p.y() + " " + (float) p.z());
            }
        }
        int base = 0;
        for (Model.Part part : model.parts()) {
            Mesh m = model.meshOf(part);
            for (int i = 0; i < m.indices().length; i += 3) {
                line(
                        out,
                        String.format(
                                Locale.ROOT,
                                "3 %d %d %d",
                                base + m.indices()[i],
                                base + m.indices()[i + 1],
                                base + m.indices()[i + 2]));
            }
            base += m.vertexCount();
        }
    }

    private static void line(OutputStream out, String text) throws IOException {
        out.write((text + "\n").getBytes(StandardCharsets.US_ASCII));
    }
}
