package app.zolvan.core.render.film;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/** Writes uncompressed TIFF 6.0 pictures of 16 bits in sRGB with their resolution. */
public final class Tiff {
    private static final int ENTRIES = 12;
    private static final int SHORT = 3;
    private static final int LONG = 4;
    private static final int RATIONAL = 5;
    private static final int HEAD = 8;

    private Tiff() {}

    /** @param rgb three 16-bit codes a pixel, row by row from the top */
    public static byte[] encode(int width, int height, short[] rgb, double dpi) {
        int directory = HEAD + 6 + 16; // the header, three depths, two rational numbers
        int pixels = directory + 2 + 12 * ENTRIES + 4;
        ByteBuffer b = ByteBuffer.allocate(pixels + 2 * rgb.length).order(ByteOrder.LITTLE_ENDIAN);
        b.put((byte) 'I').put((byte) 'I').putShort((short) 42).putInt(directory);
        b.putShort((short) 16).putShort((short) 16).putShort((short) 16);
        int resolution = (int) Math.round(100 * dpi);
        b.putInt(resolution).putInt(100).putInt(resolution).putInt(100);
        b.putShort((short) ENTRIES);
        entry(b, 256, LONG, 1, width);
        entry(b, 257, LONG, 1, height);
        entry(b, 258, SHORT, 3, HEAD); // bits per sample
        entry(b, 259, SHORT, 1, 1); // no compression
        entry(b, 262, SHORT, 1, 2); // RGB
        entry(b, 273, LONG, 1, pixels);
        entry(b, 277, SHORT, 1, 3); // samples per pixel
        entry(b, 278, LONG, 1, height); // one strip
        entry(b, 279, LONG, 1, 2 * rgb.length);
        entry(b, 282, RATIONAL, 1, HEAD + 6);
        entry(b, 283, RATIONAL, 1, HEAD + 14);
        entry(b, 296, SHORT, 1, 2); // per inch
        b.putInt(0);
        for (short s : rgb) {
            b.putShort(s);
        }
        return b.array();
    }

    private static void entry(ByteBuffer b, int tag, int type, int count, int value) {
        b.putShort((short) tag).putShort((short) type).putInt(count).putInt(value);
    }
}
