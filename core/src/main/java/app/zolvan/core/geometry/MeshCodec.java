package app.zolvan.core.geometry;

import app.zolvan.core.colour.Srgb;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * The stored form of a mesh, also what the browser's stage reads: little-endian, every array on a four-byte boundary.
 *
 * <pre>
 * u32 magic 'ZMSH' · u32 version 1 · u32 vertices · u32 triangles · u32 spans · u32 flags (1 uv, 2 metric uv,
 * 4 second uv, 8 colours)
 * f32 positions[3 × vertices] · f32 normals[3 × vertices] · f32 uv[2 × vertices]? · f32 metricUv[2 × vertices]?
 * f32 uv2[2 × vertices]? · u16 colours[4 × vertices]? (scene-linear, 65535 is 1)
 * u32 indices[3 × triangles] · u32 spanStarts[spans + 1] · u32 faces[triangles]
 * </pre>
 */
public final class MeshCodec {
    private static final int MAGIC = 0x48534D5A;
    private static final int VERSION = 1;

    private MeshCodec() {}

    public static byte[] encode(Mesh mesh) {
        boolean uv = mesh.uv() != null;
        boolean metric = mesh.metricUv() != null;
        boolean uv2 = mesh.uv2() != null;
        boolean colours = mesh.colours() != null;
        int words = 6
                + mesh.vertexCount() * (6 + (uv ? 2 : 0) + (metric ? 2 : 0) + (uv2 ? 2 : 0) + (colours ? 2 : 0))
                + mesh.indices().length
                + mesh.spanStarts().length
                + mesh.triangleCount();
        ByteBuffer out = ByteBuffer.allocate(words * 4).order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(MAGIC).putInt(VERSION);
        out.putInt(mesh.vertexCount()).putInt(mesh.triangleCount()).putInt(mesh.spanCount());
        out.putInt((uv ? 1 : 0) | (metric ? 2 : 0) | (uv2 ? 4 : 0) | (colours ? 8 : 0));
        put(out, mesh.positions());
        put(out, mesh.normals());
        put(out, mesh.uv());
        put(out, mesh.metricUv());
        put(out, mesh.uv2());
        if (colours) {
            putLinear(out, mesh.colours());
        }
        put(out, mesh.indices());
        put(out, mesh.spanStarts());
        put(out, mesh.faces());
        return out.array();
    }

    /** @throws IllegalArgumentException if the bytes are not a mesh in this form */
    public static Mesh decode(byte[] bytes) {
        ByteBuffer in = ByteBuffer.wrap(bytes).order(ByteOrder.LITTLE_ENDIAN);
        if (bytes.length < 24 || in.getInt() != MAGIC || in.getInt() != VERSION) {
            throw new IllegalArgumentException("not a stored mesh");
        }
        int vertices = in.getInt();
        int triangles = in.getInt();
        int spans = in.getInt();
        int flags = in.getInt();
        float[] positions = floats(in, 3 * vertices);
        float[] normals = floats(in, 3 * vertices);
        float[] uv = (flags & 1) != 0 ? floats(in, 2 * vertices) : null;
        float[] metric = (flags & 2) != 0 ? floats(in, 2 * vertices) : null;
        float[] uv2 = (flags & 4) != 0 ? floats(in, 2 * vertices) : null;
        byte[] colours = (flags & 8) != 0 ? new byte[4 * vertices] : null;
        if (colours != null) {
            getLinear(in, colours);
        }
        int[] indices = ints(in, 3 * triangles);
        int[] spanStarts = ints(in, spans + 1);
        return new Mesh(positions, normals, uv, metric, indices, spanStarts, ints(in, triangles), uv2, colours);
    }

    private static void putLinear(ByteBuffer out, byte[] srgb) {
        for (int i = 0; i < srgb.length; i++) {
            double v = (srgb[i] & 0xFF) / 255.0;
            out.putShort((short) Math.round(65535 * (i % 4 == 3 ? v : Srgb.decode(v))));
        }
    }

    /** 16 linear bits tell all 256 codes apart, so this gives back exactly what was put. */
    private static void getLinear(ByteBuffer in, byte[] srgb) {
        for (int i = 0; i < srgb.length; i++) {
            double v = (in.getShort() & 0xFFFF) / 65535.0;
            srgb[i] = (byte) Math.round(255 * (i % 4 == 3 ? v : Srgb.encode(v)));
        }
    }

    private static void put(ByteBuffer out, float[] values) {
        if (values != null) {
            out.asFloatBuffer().put(values);
            out.position(out.position() + values.length * 4);
        }
    }

    private static void put(ByteBuffer out, int[] values) {
        out.asIntBuffer().put(values);
        out.position(out.position() + values.length * 4);
    }

    private static float[] floats(ByteBuffer in, int count) {
        float[] values = new float[count];
        in.asFloatBuffer().get(values);
        in.position(in.position() + count * 4);
        return values;
    }

    private static int[] ints(ByteBuffer in, int count) {
        int[] values = new int[count];
        in.asIntBuffer().get(values);
        in.position(in.position() + count * 4);
        return values;
    }
}
