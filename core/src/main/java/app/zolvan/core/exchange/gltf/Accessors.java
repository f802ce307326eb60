package app.zolvan.core.exchange.gltf;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.json.JsonValue;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * Reads glTF accessors of every component type, normalised or not, interleaved or packed, dense or sparse, into plain
 * arrays. Sizes are checked against the bytes that are really there before an array is made.
 */
final class Accessors {
    private static final int BYTE = 5120;
    private static final int UNSIGNED_BYTE = 5121;
    private static final int SHORT = 5122;
    private static final int UNSIGNED_SHORT = 5123;
    private static final int UNSIGNED_INT = 5125;
    private static final int FLOAT = 5126;
    private static final int MAX_ZEROS = 20_000_000;

    private final GltfContainer file;
    private final Reading reading;

    Accessors(GltfContainer file, Reading reading) {
        this.file = file;
        this.reading = reading;
    }

    /** How many numbers an element has: 1 for SCALAR, n for VECn. */
    int width(int accessor) throws ImportException {
        String type = json(accessor).require("type").text();
        return type.startsWith("VEC") && type.length() == 4 ? type.charAt(3) - '0' : 1;
    }

    int count(int accessor) throws ImportException {
        return json(accessor).require("count").index();
    }

    /** Values as floats, {@code width} per element. Integer values are divided by their maximum when normalised. */
    float[] floats(int accessor, int width) throws ImportException {
        JsonValue a = json(accessor);
        Layout layout = layout(a, width);
        boolean normalised = a.flag("normalized", false);
        reading.charge(4L * layout.count * width);
        float[] out = new float[layout.count * width];
        boolean packed = layout.type == FLOAT && layout.stride == 4 * width;
        if (layout.bytes != null && packed) {
            layout.bytes
                    .slice(layout.start, 4 * out.length)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .asFloatBuffer()
                    .get(out);
        } else if (layout.bytes != null) {
            for (int i = 0; i < layout.count; i++) {
                for (int k = 0; k < width; k++) {
                    out[i * width + k] = (float) component(
                            layout.bytes,
                            layout.start + i * layout.stride + k * size(layout.type),
                            layout.type,
                            normalised);
                }
            }
        }
        if (a.has("sparse")) {
            JsonValue sparse = a.get("sparse");
            int[] at = sparseIndices(sparse, layout.count);
            JsonValue values = sparse.require("values");
            ByteBuffer bytes = file.view(values.require("bufferView").index());
            int start = values.index("byteOffset", 0);
            requireRoom(bytes, start, (long) at.length * width * size(layout.type), values);
            for (int i = 0; i < at.length; i++) {
                for (int k = 0; k < width; k++) {
                    out[at[i] * width + k] = (float)
                            component(bytes, start + (i * width + k) * size(layout.type), layout.type, normalised);
                }
            }
        }
        return out;
    }

    /** Unsigned integer values of a scalar accessor. */
    int[] indices(int accessor) throws ImportException {
        JsonValue a = json(accessor);
        Layout layout = layout(a, 1);
        reading.charge(4L * layout.count);
        int[] out = new int[layout.count];
        if (layout.bytes != null && layout.type == UNSIGNED_INT && layout.stride == 4) {
            layout.bytes
                    .slice(layout.start, 4 * out.length)
                    .order(ByteOrder.LITTLE_ENDIAN)
                    .asIntBuffer()
                    .get(out);
            for (int v : out) {
                if (v < 0) {
                    throw a.wrong("an index under 2147483648");
                }
            }
        } else if (layout.bytes != null) {
            for (int i = 0; i < out.length; i++) {
                out[i] = unsigned(layout.bytes, layout.start + i * layout.stride, layout.type, a);
            }
        }
        return out;
    }

    private int[] sparseIndices(JsonValue sparse, int count) throws ImportException {
        JsonValue json = sparse.require("indices");
        int n = sparse.require("count").index();
        int type = json.require("componentType").index();
        ByteBuffer bytes = file.view(json.require("bufferView").index());
        int start = json.index("byteOffset", 0);
        requireRoom(bytes, start, (long) n * size(type), json);
        int[] out = new int[n];
        for (int i = 0; i < n; i++) {
            out[i] = unsigned(bytes, start + i * size(type), type, json);
            if (out[i] >= count) {
                throw new ImportException(
                        "out-of-range", "A sparse value at " + json.where() + " lies past the end; export it again.");
            }
        }
        return out;
    }

    private JsonValue json(int accessor) throws ImportException {
        return GltfContainer.element(file.json(), "accessors", accessor, "accessor");
    }

    private Layout layout(JsonValue a, int width) throws ImportException {
        String expected = width == 1 ? "SCALAR" : "VEC" + width;
        if (!a.require("type").text().equals(expected)) {
            throw a.wrong("values of type " + expected);
        }
        int type = a.require("componentType").index();
        int count = a.require("count").index();
        int element = width * size(type);
        if (!a.has("bufferView")) {
            if ((long) count * width > MAX_ZEROS) {
                throw new ImportException(
                        "too-large", "The file claims " + count + " values at " + a.where() + " without giving any.");
            }
            return new Layout(null, 0, element, count, type);
        }
        int view = a.get("bufferView").index();
        ByteBuffer bytes = file.view(view);
        int stride = file.viewStride(view);
        int start = a.index("byteOffset", 0);
        int step = stride == 0 ? element : stride;
        if (count > 0) {
            requireRoom(bytes, start, (long) step * (count - 1) + element, a);
        }
        return new Layout(bytes, start, step, count, type);
    }

    private static void requireRoom(ByteBuffer bytes, int start, long length, JsonValue where) throws ImportException {
        if (start + length > bytes.remaining()) {
            throw new ImportException(
                    "out-of-range",
                    "Values at " + where.where() + " reach past the end of their data (" + (start + length) + " of "
                            + bytes.remaining() + " bytes). The file is damaged; export it again.");
        }
    }

    private static int size(int type) throws ImportException {
        return switch (type) {
            case BYTE, UNSIGNED_BYTE -> 1;
            case SHORT, UNSIGNED_SHORT -> 2;
            case UNSIGNED_INT, FLOAT -> 4;
            default ->
                throw new ImportException(
                        "invalid",
                        "The file uses a number format that glTF does not have (" + type + "); export it again.");
        };
    }

    private static double component(ByteBuffer b, int at, int type, boolean normalised) {
        return switch (type) {
            case BYTE -> normalised ? Math.max(b.get(at) / 127.0, -1) : b.get(at);
            case UNSIGNED_BYTE -> (b.get(at) & 0xFF) / (normalised ? 255.0 : 1);
            case SHORT -> normalised ? Math.max(b.getShort(at) / 32767.0, -1) : b.getShort(at);
            case UNSIGNED_SHORT -> (b.getShort(at) & 0xFFFF) / (normalised ? 65535.0 : 1);
            case UNSIGNED_INT -> Integer.toUnsignedLong(b.getInt(at));
            default -> b.getFloat(at);
        };
    }

    private static int unsigned(ByteBuffer b, int at, int type, JsonValue where) throws ImportException {
        int value = switch (type) {
            case UNSIGNED_BYTE -> b.get(at) & 0xFF;
            case UNSIGNED_SHORT -> b.getShort(at) & 0xFFFF;
            case UNSIGNED_INT -> b.getInt(at);
            default -> throw where.wrong("unsigned whole numbers");
        };
        if (value < 0) {
            throw where.wrong("an index under 2147483648");
        }
        return value;
    }

    private record Layout(ByteBuffer bytes, int start, int stride, int count, int type) {}
}
