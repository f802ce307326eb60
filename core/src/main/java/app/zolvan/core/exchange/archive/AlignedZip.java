package app.zolvan.core.exchange.archive;

import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.zip.CRC32;

/**
 * Writes a zip archive whose files are stored as they are, each beginning at a multiple of some number of bytes, so that a
 * reader can use them where they lie (PKWARE APPNOTE 6.3.10). The same files give the same bytes.
 */
public final class AlignedZip {
    private static final int LOCAL = 0x04034b50;
    private static final int DIRECTORY = 0x02014b50;
    private static final int END = 0x06054b50;
    private static final int LOCAL_LENGTH = 30;
    private static final int DIRECTORY_LENGTH = 46;
    private static final int END_LENGTH = 22;
    private static final short VERSION = 20;
    private static final short UTF_8_NAMES = 0x800;
    /** The first of January 1980, the earliest day a zip can say. */
    private static final int DATE = 0x00210000;
    /** An extra field's own header: a kind that nobody has registered, and a length. */
    private static final short PADDING = 0x1986;

    private static final int EXTRA_HEADER = 4;

    private final OutputStream out;
    private final int alignment;
    private final List<byte[]> directory = new ArrayList<>();
    private long written;

    public AlignedZip(OutputStream out, int alignment) {
        this.out = out;
        this.alignment = alignment;
    }

    public void file(String path, byte[] content) throws IOException {
        byte[] name = path.getBytes(StandardCharsets.UTF_8);
        CRC32 crc = new CRC32();
        crc.update(content);
        long after = written + LOCAL_LENGTH + name.length;
        int padding = (int) (-after & (alignment - 1));
        if (padding > 0 && padding < EXTRA_HEADER) {
            padding += alignment;
        }
        ByteBuffer local = buffer(LOCAL_LENGTH + name.length + padding).putInt(LOCAL);
        describe(local, content.length, (int) crc.getValue(), name.length, padding);
        local.put(name);
        if (padding > 0) {
            local.putShort(PADDING).putShort((short) (padding - EXTRA_HEADER));
        }
        ByteBuffer entry =
                buffer(DIRECTORY_LENGTH + name.length).putInt(DIRECTORY).putShort(VERSION);
        describe(entry, content.length, (int) crc.getValue(), name.length, 0);
        entry.position(DIRECTORY_LENGTH - 4);
        entry.putInt(Math.toIntExact(written)).put(name);
        directory.add(bytes(entry));
        put(bytes(local));
        put(content);
    }

    private static void describe(ByteBuffer b, int size, int crc, int name, int extra) {
        b.putShort(VERSION).putShort(UTF_8_NAMES).putShort((short) 0).putInt(DATE);
        b.putInt(crc).putInt(size).putInt(size).putShort((short) name).putShort((short) extra);
    }

    private static ByteBuffer buffer(int bytes) {
        return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    /** All of a buffer. */
    private static byte[] bytes(ByteBuffer b) {
        byte[] out = new byte[b.capacity()];
        b.clear().get(out);
        return out;
    }

    private void put(byte[] b) throws IOException {
        out.write(b);
        written += b.length;
    }

    /** Writes the list of files; the stream stays open. */
    public void finish() throws IOException {
        long start = written;
        for (byte[] entry : directory) {
            put(entry);
        }
        ByteBuffer end = buffer(END_LENGTH).putInt(END).putInt(0);
        end.putShort((short) directory.size()).putShort((short) directory.size());
        end.putInt(Math.toIntExact(written - start))
                .putInt(Math.toIntExact(start))
                .putShort((short) 0);
        put(bytes(end));
    }
}
