package app.zolvan.core.texture;

import java.io.ByteArrayOutputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.zip.CRC32;
import java.util.zip.Deflater;
import java.util.zip.DeflaterOutputStream;

/** Writes PNG pictures of 8 or 16 bits in sRGB with their resolution (ISO/IEC 15948). */
public final class Png {
    private Png() {}

    /** @param rgb three bytes a pixel, row by row from the top */
    public static byte[] encode(int width, int height, byte[] rgb, double dpi) {
        return encode(width, height, rgb, 1, 3, dpi, Deflater.DEFAULT_COMPRESSION);
    }

    /**
     * The same, faster and a little larger.
     *
     * @param channels three, or four with alpha
     */
    static byte[] quick(int width, int height, byte[] samples, int channels) {
        return encode(width, height, samples, 1, channels, 72, Deflater.BEST_SPEED);
    }

    /** The same with 16 bits. */
    public static byte[] encode(int width, int height, short[] rgb, double dpi) {
        byte[] bytes = new byte[2 * rgb.length];
        for (int i = 0; i < rgb.length; i++) {
            bytes[2 * i] = (byte) (rgb[i] >> 8);
            bytes[2 * i + 1] = (byte) rgb[i];
        }
        return encode(width, height, bytes, 2, 3, dpi, Deflater.DEFAULT_COMPRESSION);
    }

    private static byte[] encode(
            int width, int height, byte[] samples, int depth, int channels, double dpi, int effort) {
        try {
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            out.write(new byte[] {(byte) 0x89, 'P', 'N', 'G', '\r', '\n', 0x1A, '\n'});
            ByteArrayOutputStream head = new ByteArrayOutputStream();
            DataOutputStream h = new DataOutputStream(head);
            h.writeInt(width);
            h.writeInt(height);
            h.write(new byte[] {(byte) (8 * depth), (byte) (channels == 4 ? 6 : 2), 0, 0, 0});
            chunk(out, "IHDR", head.toByteArray());
            chunk(out, "sRGB", new byte[] {0});
            ByteArrayOutputStream size = new ByteArrayOutputStream();
            DataOutputStream s = new DataOutputStream(size);
            int perMetre = (int) Math.round(dpi / 0.0254);
            s.writeInt(perMetre);
            s.writeInt(perMetre);
            s.write(1);
            chunk(out, "pHYs", size.toByteArray());
            ByteArrayOutputStream data = new ByteArrayOutputStream();
            int pixel = channels * depth;
            int line = pixel * width;
            Deflater deflater = new Deflater(effort);
            try (DeflaterOutputStream deflate = new DeflaterOutputStream(data, deflater, 1 << 14)) {
                byte[] row = new byte[line + 1];
                for (int y = 0; y < height; y++) {
                    row[0] = 1; // each byte less the one a pixel before it
                    for (int i = 0; i < line; i++) {
                        int before = i < pixel ? 0 : samples[line * y + i - pixel];
                        row[i + 1] = (byte) (samples[line * y + i] - before);
                    }
                    deflate.write(row);
                }
            } finally {
                deflater.end();
            }
            chunk(out, "IDAT", data.toByteArray());
            chunk(out, "IEND", new byte[0]);
            return out.toByteArray();
        } catch (IOException e) {
            throw new IllegalStateException(e);
        }
    }

    private static void chunk(ByteArrayOutputStream out, String name, byte[] content) throws IOException {
        byte[] type = name.getBytes(StandardCharsets.US_ASCII);
        CRC32 crc = new CRC32();
        crc.update(type);
        crc.update(content);
        DataOutputStream d = new DataOutputStream(out);
        d.writeInt(content.length);
        d.write(type);
        d.write(content);
        d.writeInt((int) crc.getValue());
    }
}
