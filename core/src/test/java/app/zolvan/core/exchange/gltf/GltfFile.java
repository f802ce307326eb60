package app.zolvan.core.exchange.gltf;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.model.Model;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;

/** Small GLB files put together by hand, right and wrong. */
final class GltfFile {
    /** One triangle in the xy plane: three positions and three 16-bit indices. */
    static final byte[] TRIANGLE = triangle(0);

    private GltfFile() {}

    static byte[] triangle(float z) {
        ByteBuffer b = ByteBuffer.allocate(44).order(ByteOrder.LITTLE_ENDIAN);
        for (float f : new float[] {0, 0, z, 1, 0, 0, 0, 1, 0}) {
            b.putFloat(f);
        }
        b.putShort((short) 0).putShort((short) 1).putShort((short) 2);
        return b.array();
    }

    /** JSON of a file with the triangle as mesh 0 and the given further members. */
    static String json(String more) {
        return "{\"asset\":{\"version\":\"2.0\"},"
                + "\"buffers\":[{\"byteLength\":44}],"
                + "\"bufferViews\":[{\"buffer\":0,\"byteLength\":36},{\"buffer\":0,\"byteOffset\":36,\"byteLength\":6}],"
                + "\"accessors\":[{\"bufferView\":0,\"componentType\":5126,\"count\":3,\"type\":\"VEC3\"},"
                + "{\"bufferView\":1,\"componentType\":5123,\"count\":3,\"type\":\"SCALAR\"}],"
                + "\"meshes\":[{\"primitives\":[{\"attributes\":{\"POSITION\":0},\"indices\":1}]}]" + more + "}";
    }

    static byte[] glb(String json, byte[] bin) {
        byte[] text = json.getBytes(StandardCharsets.UTF_8);
        int jsonLength = (text.length + 3) & ~3;
        int binLength = (bin.length + 3) & ~3;
        ByteBuffer b = ByteBuffer.allocate(28 + jsonLength + binLength).order(ByteOrder.LITTLE_ENDIAN);
        b.putInt(0x46546C67).putInt(2).putInt(b.capacity());
        b.putInt(jsonLength).putInt(0x4E4F534A).put(text);
        while (b.position() < 20 + jsonLength) {
            b.put((byte) ' ');
        }
        b.putInt(binLength).putInt(0x004E4942).put(bin);
        return b.array();
    }

    static Model read(byte[] bytes) throws ImportException {
        return new GltfReader()
                .read(FileSet.of("model.glb", ByteBuffer.wrap(bytes)), Reading.standard())
                .model();
    }
}
