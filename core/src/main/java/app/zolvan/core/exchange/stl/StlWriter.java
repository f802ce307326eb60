package app.zolvan.core.exchange.stl;

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

/** Writes binary STL in millimetres with Z up, as programs that make things expect it: the shape and nothing else. */
public final class StlWriter implements ModelWriter {
    private static final int BATCH = 4096;

    @Override
    public Kind kind() {
        return new Kind("STL", "stl", "model/stl", false);
    }

    @Override
    public List<String> losses(DressedModel dressed) {
        return List.of(
                "STL holds the shape only: materials, colours and textures are lost.",
                "All parts become one; names and groups are lost.",
                "STL does not say its unit; the numbers are millimetres, Z up.");
    }

    @Override
    public void write(DressedModel dressed, String base, FileSink sink) throws IOException {
        sink.file(base + ".stl", out -> write(dressed.model(), out));
    }

    private static void write(Model model, OutputStream out) throws IOException {
        int triangles = 0;
        for (Model.Part p : model.parts()) {
            triangles = Math.addExact(triangles, model.meshOf(p).triangleCount());
        }
        ByteBuffer head = ByteBuffer.allocate(84).order(ByteOrder.LITTLE_ENDIAN);
        head.put("millimetres, Z up".getBytes(StandardCharsets.US_ASCII));
        head.putInt(80, triangles);
        out.write(head.array());
        ByteBuffer batch = ByteBuffer.allocate(50 * BATCH).order(ByteOrder.LITTLE_ENDIAN);
        for (Model.Part part : model.parts()) {
            Mesh mesh = model.meshOf(part);
            Transform t = MILLIMETRES_Z_UP.after(model.partToWorld(part));
            boolean mirrored = t.determinant() < 0;
            int[] index = mesh.indices();
            for (int i = 0; i < index.length; i += 3) {
                Vec3 a = t.point(mesh.position(index[i]));
                Vec3 b = t.point(mesh.position(index[mirrored ? i + 2 : i + 1]));
                Vec3 c = t.point(mesh.position(index[mirrored ? i + 1 : i + 2]));
                Vec3 n = b.minus(a).cross(c.minus(a));
                put(batch, n.length() > 0 ? n.normalised() : Vec3.ZERO);
                put(batch, a);
                put(batch, b);
                put(batch, c);
                batch.putShort((short) 0);
                if (!batch.hasRemaining()) {
                    out.write(batch.array());
                    batch.clear();
                }
            }
        }
        out.write(batch.array(), 0, batch.position());
    }

    private static void put(ByteBuffer out, Vec3 v) {
        out.putFloat((float) v.x()).putFloat((float) v.y()).putFloat((float) v.z());
    }
}
