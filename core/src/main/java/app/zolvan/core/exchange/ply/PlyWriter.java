package app.zolvan.core.exchange.ply;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.ModelWriter;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.List;

/** Writes binary PLY in metres with Y up: one mesh with normals, and each look's base colour painted on its vertices. */
public final class PlyWriter implements ModelWriter {
    private static final int VERTEX = 28;

    @Override
    public Kind kind() {
        return new Kind("PLY", "ply", "application/octet-stream", false);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        return List.of(
                "PLY holds one shape with a colour at each corner: finishes, transparency and textures are lost.",
                "All parts become one; names and groups are lost.",
                "PLY does not say its unit; the numbers are metres, Y up.");
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        sink.file(base + ".ply", out -> write(dressed, out));
    }

    private static void write(DressedModel dressed, OutputStream out) throws IOException {
        Model model = dressed.model();
        int vertices = 0;
        int triangles = 0;
        for (Model.Part p : model.parts()) {
            Mesh mesh = model.meshOf(p);
            vertices = Math.addExact(vertices, mesh.vertexCount() * mesh.spanCount());
            triangles = Math.addExact(triangles, mesh.triangleCount());
        }
        String head = "ply\nformat binary_little_endian 1.0\ncomment metres, Y up\nelement vertex " + vertices
                + "\nproperty float x\nproperty float y\nproperty float z\nproperty float nx\nproperty float ny\n"
                + "property float nz\nproperty uchar red\nproperty uchar green\nproperty uchar blue\n"
                + "property uchar alpha\nelement face " + triangles
                + "\nproperty list uchar int vertex_indices\nend_header\n";
        out.write(head.getBytes(StandardCharsets.US_ASCII));
        for (int p = 0; p < model.parts().size(); p++) {
            Model.Part part = model.parts().get(p);
            Mesh mesh = model.meshOf(part);
            Transform t = model.partToWorld(part);
            for (int s = 0; s < mesh.spanCount(); s++) { // a copy for each span, since each has its colour
                byte[] colour = colour(dressed.look().apply(p, s));
                ByteBuffer b = ByteBuffer.allocate(VERTEX * mesh.vertexCount()).order(ByteOrder.LITTLE_ENDIAN);
                for (int v = 0; v < mesh.vertexCount(); v++) {
                    put(b, t.point(mesh.position(v)));
                    put(b, t.normal(mesh.normal(v)));
                    b.put(colour);
                }
                out.write(b.array());
            }
        }
        int base = 0;
        for (Model.Part part : model.parts()) {
            Mesh mesh = model.meshOf(part);
            boolean mirrored = model.partToWorld(part).determinant() < 0;
            ByteBuffer b = ByteBuffer.allocate(13 * mesh.triangleCount()).order(ByteOrder.LITTLE_ENDIAN);
            for (int s = 0; s < mesh.spanCount(); s++) {
                for (int i = 3 * mesh.spanStarts()[s]; i < 3 * mesh.spanStarts()[s + 1]; i += 3) {
                    b.put((byte) 3);
                    for (int k = 0; k < 3; k++) {
                        b.putInt(base + mesh.indices()[i + (mirrored ? 2 - k : k)]);
                    }
                }
                base += mesh.vertexCount();
            }
            out.write(b.array());
        }
    }

    private static byte[] colour(Look look) {
        LinearRgb c =
                look == null ? LinearRgb.grey(0.5) : look.physical().baseColor().clamped();
        int[] codes = Srgb.toCodes(c);
        double alpha = look == null ? 1 : look.physical().alpha();
        return new byte[] {(byte) codes[0], (byte) codes[1], (byte) codes[2], (byte) Math.round(255 * alpha)};
    }

    private static void put(ByteBuffer out, Vec3 v) {
        out.putFloat((float) v.x()).putFloat((float) v.y()).putFloat((float) v.z());
    }
}
