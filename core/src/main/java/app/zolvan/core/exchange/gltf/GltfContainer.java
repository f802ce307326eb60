package app.zolvan.core.exchange.gltf;

import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ImportLimits;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.json.JsonValue;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Base64;
import java.util.List;
import java.util.Locale;

/**
 * The two shapes a glTF 2.0 asset comes in, opened: binary (.glb: header, JSON chunk, BIN chunk) and plain JSON with
 * buffers as data URIs or as files that came along. Gives the JSON and the buffers' bytes. Never follows a URI that points outside the file.
 */
final class GltfContainer {
    private static final int GLB_MAGIC = 0x46546C67;
    private static final int CHUNK_JSON = 0x4E4F534A;
    private static final int CHUNK_BIN = 0x004E4942;

    private final JsonValue json;
    private final List<ByteBuffer> buffers;

    private GltfContainer(JsonValue json, List<ByteBuffer> buffers) {
        this.json = json;
        this.buffers = buffers;
    }

    JsonValue json() {
        return json;
    }

    static boolean isBinary(ByteBuffer file) {
        return file.remaining() >= 4 && littleEndian(file).getInt(0) == GLB_MAGIC;
    }

    static GltfContainer open(FileSet files, Reading reading) throws ImportException {
        ByteBuffer file = files.bytes();
        if (file.remaining() > reading.limits().fileBytes()) {
            throw new ImportException(
                    "too-large",
                    "The file is larger than " + (reading.limits().fileBytes() >> 20)
                            + " MB; export it in smaller pieces.");
        }
        return isBinary(file) ? binary(file, files, reading) : plain(file, files, reading);
    }

    private static GltfContainer binary(ByteBuffer file, FileSet files, Reading reading) throws ImportException {
        if (file.remaining() < 20) {
            throw truncated("it ends inside its header");
        }
        int version = file.getInt(4);
        if (version != 2) {
            throw otherVersion(Integer.toUnsignedString(version));
        }
        long length = Integer.toUnsignedLong(file.getInt(8));
        if (length > file.remaining()) {
            throw truncated("it says it holds " + length + " bytes but has " + file.remaining());
        }
        ByteBuffer jsonChunk = null;
        ByteBuffer bin = null;
        long at = 12;
        while (at + 8 <= length) {
            long size = Integer.toUnsignedLong(file.getInt((int) at));
            int type = file.getInt((int) at + 4);
            if (at + 8 + size > length) {
                throw truncated("a block claims " + size + " bytes where " + (length - at - 8) + " are left");
            }
            ByteBuffer chunk = file.slice((int) at + 8, (int) size);
            if (jsonChunk == null) {
                if (type != CHUNK_JSON) {
                    throw new ImportException(
                            "invalid", "The GLB does not start with its description; export it again.");
                }
                jsonChunk = chunk;
            } else if (type == CHUNK_BIN && bin == null) {
                bin = chunk;
            }
            at += 8 + size;
        }
        if (jsonChunk == null) {
            throw truncated("its description is missing");
        }
        JsonValue json = JsonValue.parse(bytes(jsonChunk, reading));
        requireVersion(json);
        return new GltfContainer(json, buffers(json, bin, files, reading));
    }

    private static GltfContainer plain(ByteBuffer file, FileSet files, Reading reading) throws ImportException {
        JsonValue json = JsonValue.parse(bytes(file, reading));
        if (!json.isObject() || !json.has("asset")) {
            throw new ImportException(
                    "wrong-type",
                    "This is a JSON file, but not a glTF model: it has no “asset” entry. Choose a .glb or .gltf file.");
        }
        requireVersion(json);
        return new GltfContainer(json, buffers(json, null, files, reading));
    }

    private static void requireVersion(JsonValue json) throws ImportException {
        JsonValue asset = json.require("asset");
        String version = asset.isObject() ? asset.text("version", "") : "";
        if (!version.startsWith("2.")) {
            throw otherVersion(version.isEmpty() ? "unknown" : version);
        }
    }

    private static ImportException otherVersion(String version) {
        return new ImportException(
                "unsupported", "This is glTF version " + version + "; Zolvan reads version 2. Export it as glTF 2.0.");
    }

    private static byte[] bytes(ByteBuffer chunk, Reading reading) throws ImportException {
        ImportLimits limits = reading.limits();
        if (chunk.remaining() > limits.jsonBytes()) {
            throw new ImportException(
                    "too-large",
                    "The file's description is larger than " + (limits.jsonBytes() >> 20)
                            + " MB. Export it as binary glTF (.glb), or in smaller pieces.");
        }
        reading.charge(chunk.remaining() * 4L); // the text and what is made of it
        byte[] bytes = new byte[chunk.remaining()];
        chunk.slice().get(bytes);
        return bytes;
    }

    private static List<ByteBuffer> buffers(JsonValue json, ByteBuffer bin, FileSet files, Reading reading)
            throws ImportException {
        List<ByteBuffer> buffers = new ArrayList<>();
        for (JsonValue b : json.list("buffers")) {
            double claimed = b.require("byteLength").number();
            ByteBuffer content;
            if (b.has("uri")) {
                content = resource(b.get("uri").text(), "buffer", buffers.size(), files, reading);
            } else if (bin != null && buffers.isEmpty()) {
                content = bin;
            } else {
                throw new ImportException(
                        "missing-data",
                        "Buffer " + buffers.size() + " has no data in the file. Export it with everything embedded.");
            }
            if (claimed < 0 || claimed > content.remaining()) {
                throw truncated(String.format(
                        Locale.ROOT,
                        "buffer %d claims %.0f bytes where the file has %d",
                        buffers.size(),
                        claimed,
                        content.remaining()));
            }
            if (claimed > reading.limits().fileBytes()) {
                throw new ImportException("too-large", "The file's geometry is too large; export a smaller part.");
            }
            buffers.add(littleEndian(content.slice(0, (int) claimed)));
        }
        return buffers;
    }

    /**
     * What a URI means: base64 data, or a file that came along. Anything else is refused: Zolvan never fetches what a file
     * points to.
     */
    static ByteBuffer resource(String uri, String what, int index, FileSet files, Reading reading)
            throws ImportException {
        if (!uri.startsWith("data:")) {
            ByteBuffer found = files.companion(uri, reading).orElse(null);
            if (found != null) {
                return littleEndian(found);
            }
            String shown = uri.length() > 60 ? uri.substring(0, 57) + "…" : uri;
            throw new ImportException(
                    "external-uri",
                    "The file refers to another file for its " + what + " " + index + " (“" + shown
                            + "”), which is not part of the upload. Export it as one .glb with everything embedded, or"
                            + " import a zip of all its files.");
        }
        int comma = uri.indexOf(',');
        if (comma < 0 || !uri.substring(0, comma).endsWith(";base64")) {
            throw new ImportException(
                    "invalid", "The embedded data of " + what + " " + index + " is not base64; export the file again.");
        }
        reading.charge(uri.length());
        try {
            return littleEndian(ByteBuffer.wrap(Base64.getDecoder().decode(uri.substring(comma + 1))));
        } catch (IllegalArgumentException e) {
            throw new ImportException(
                    "invalid", "The embedded data of " + what + " " + index + " is damaged; export the file again.");
        }
    }

    /** The same of a picture; null where it did not come along, which is kept as lacking. */
    static ByteBuffer picture(String uri, int index, FileSet files, Reading reading) throws ImportException {
        if (uri.startsWith("data:")) {
            return resource(uri, "picture", index, files, reading);
        }
        ByteBuffer found = files.companion(uri, reading).orElse(null);
        if (found == null) {
            reading.lack(uri);
        }
        return found == null ? null : littleEndian(found);
    }

    /** The bytes of a buffer view, little-endian. */
    ByteBuffer view(int index) throws ImportException {
        JsonValue v = element(json, "bufferViews", index, "buffer view");
        int buffer = v.require("buffer").index();
        if (buffer >= buffers.size()) {
            throw new ImportException("invalid", v.where() + " names a buffer that the file does not have.");
        }
        long offset = v.index("byteOffset", 0);
        long length = v.require("byteLength").index();
        if (offset + length > buffers.get(buffer).remaining()) {
            throw new ImportException(
                    "out-of-range",
                    "Part of the model points past the end of the file’s data (" + v.where()
                            + "). The file is damaged; export it again.");
        }
        return littleEndian(buffers.get(buffer).slice((int) offset, (int) length));
    }

    int viewStride(int index) throws ImportException {
        return element(json, "bufferViews", index, "buffer view").index("byteStride", 0);
    }

    /** Element {@code index} of the list {@code key}, or a sentence when there is none. */
    static JsonValue element(JsonValue json, String key, int index, String what) throws ImportException {
        int size = json.size(key);
        if (index < 0 || index >= size) {
            throw new ImportException(
                    "out-of-range",
                    "The file refers to " + what + " " + index + " but holds " + size
                            + ". It is damaged; export it again.");
        }
        return json.at(key, index);
    }

    static ByteBuffer littleEndian(ByteBuffer b) {
        return b.slice().order(ByteOrder.LITTLE_ENDIAN);
    }

    private static ImportException truncated(String how) {
        return new ImportException(
                "truncated", "The file is incomplete: " + how + ". Export it again, or check that the copy finished.");
    }
}
