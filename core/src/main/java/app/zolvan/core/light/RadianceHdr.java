package app.zolvan.core.light;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;

/** Reads and writes pictures in the Radiance format (RGBE, read with or without run lengths; Ward 1991). */
public final class RadianceHdr {
    private static final int MOST_PIXELS = 64 << 20;

    private final byte[] bytes;
    private int at;

    private RadianceHdr(byte[] bytes) {
        this.bytes = bytes;
    }

    /**
     * @return the picture as light from all around, unturned at strength 1
     * @throws IOException with a sentence, where it is no such picture
     */
    public static Environment read(byte[] bytes) throws IOException {
        try {
            return new RadianceHdr(bytes).read();
        } catch (ArrayIndexOutOfBoundsException e) {
            throw new IOException("The picture of surroundings is cut off. Copy it again.", e);
        }
    }

    /**
     * A picture in this format, without runs.
     *
     * @param rgb scene-linear, three numbers a pixel from the top; negative ones become 0
     */
    public static byte[] write(int width, int height, float[] rgb) {
        byte[] head = ("#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y " + height + " +X " + width + "\n")
                .getBytes(StandardCharsets.US_ASCII);
        boolean lines = width >= 8 && width < 32768; // else pixels stand one after another
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        out.writeBytes(head);
        byte[] row = new byte[4 * width];
        for (int y = 0; y < height; y++) {
            Arrays.fill(row, (byte) 0);
            for (int x = 0; x < width; x++) {
                pixel(rgb, 3 * (y * width + x), row, lines ? x : 4 * x, lines ? width : 1);
            }
            if (!lines) {
                out.writeBytes(row);
                continue;
            }
            out.writeBytes(new byte[] {2, 2, (byte) (width >> 8), (byte) width});
            for (int c = 0; c < 4; c++) {
                for (int x = 0; x < width; x += 128) {
                    int n = Math.min(128, width - x);
                    out.write(n);
                    out.write(row, c * width + x, n);
                }
            }
        }
        return out.toByteArray();
    }

    /** One pixel's four bytes, {@code apart} from each other. */
    private static void pixel(float[] rgb, int from, byte[] to, int at, int apart) {
        double most = Math.max(rgb[from], Math.max(rgb[from + 1], rgb[from + 2]));
        if (!(most > 1e-32)) {
            return;
        }
        int exponent = Math.getExponent(most) + 1;
        double scale = Math.scalb(256.0, -exponent);
        for (int c = 0; c < 3; c++) {
            to[at + c * apart] = (byte) Math.max(0, Math.min(255, (int) (rgb[from + c] * scale)));
        }
        to[at + 3 * apart] = (byte) (exponent + 128);
    }

    private Environment read() throws IOException {
        if (!line().startsWith("#?")) {
            throw new IOException("That is no Radiance picture (.hdr). Convert it to Radiance HDR first.");
        }
        String line = line();
        while (!line.isEmpty()) {
            if (line.startsWith("FORMAT=") && !line.equals("FORMAT=32-bit_rle_rgbe")) {
                throw new IOException("The picture is written as " + line.substring(7) + "; only RGBE is read.");
            }
            line = line();
        }
        String[] size = line().split(" ");
        if (size.length != 4 || !size[0].equals("-Y") || !size[2].equals("+X")) {
            throw new IOException("The picture of surroundings is turned in a way that is not read. Save it upright.");
        }
        int height;
        int width;
        try {
            height = Integer.parseInt(size[1]);
            width = Integer.parseInt(size[3]);
        } catch (NumberFormatException e) {
            throw new IOException("The picture of surroundings does not say its size. Save it again.", e);
        }
        if (width < 1 || height < 1 || (long) width * height > MOST_PIXELS) {
            throw new IOException("A picture of surroundings can have up to 64 million pixels; scale it down.");
        }
        float[] rgb = new float[3 * width * height];
        byte[] row = new byte[4 * width];
        for (int y = 0; y < height; y++) {
            scanline(row, width);
            for (int x = 0; x < width; x++) {
                int e = row[3 * width + x] & 0xFF;
                double scale = e == 0 ? 0 : Math.scalb(1.0, e - 136);
                for (int c = 0; c < 3; c++) {
                    rgb[3 * (y * width + x) + c] = (float) ((row[c * width + x] & 0xFF) * scale);
                }
            }
        }
        return new Environment(width, height, rgb, 0, 1);
    }

    /** One row, component after component. */
    private void scanline(byte[] row, int width) throws IOException {
        boolean runs = bytes[at] == 2 && bytes[at + 1] == 2 && bytes[at + 2] >= 0 && width >= 8 && width < 32768;
        if (!runs) {
            for (int x = 0; x < width; x++) {
                for (int c = 0; c < 4; c++) {
                    row[c * width + x] = bytes[at++];
                }
            }
            return;
        }
        at += 4;
        for (int c = 0; c < 4; c++) {
            int x = 0;
            while (x < width) {
                int n = bytes[at++] & 0xFF;
                boolean run = n > 128;
                n = run ? n - 128 : n;
                if (n == 0 || x + n > width) {
                    throw new IOException("The picture of surroundings is damaged. Copy it again.");
                }
                for (int i = 0; i < n; i++) {
                    row[c * width + x++] = run ? bytes[at] : bytes[at++];
                }
                at += run ? 1 : 0;
            }
        }
    }

    private String line() {
        int from = at;
        while (bytes[at] != '\n') {
            at++;
        }
        return new String(bytes, from, at++ - from, StandardCharsets.ISO_8859_1).strip();
    }
}
