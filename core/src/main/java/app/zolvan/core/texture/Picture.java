package app.zolvan.core.texture;

import app.zolvan.core.colour.Srgb;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;

/**
 * A picture with all its halved copies, four 8-bit channels as in the file; each copy is the mean of the one before it,
 * taken in linear light where the picture is one of colours. The copies of a picture of normals lie flatter than it does:
 * their alpha tells how far the slopes within a pixel spread, so that relief which is too fine to be seen can still
 * roughen what is mirrored (Olano and Baker 2010, “LEAN mapping”). Immutable.
 */
public final class Picture {
    private static final float[] LINEAR = linear();
    private static final byte[] CODES = codes();

    private final List<byte[]> levels = new ArrayList<>();
    private final int width;
    private final int height;
    private final boolean colour;

    /** What the numbers of a picture are. */
    public enum Holds {
        NUMBERS,
        /** sRGB-encoded. */
        COLOURS,
        /** Directions, of which 0.5, 0.5, 1 lies flat. */
        NORMALS
    }

    /** Slopes spread by no more than this are told apart, as standard deviation along one axis. */
    private static final double WIDEST_SPREAD = 2;
    /** Normals that lie flatter than this on the surface count as if they did not. */
    private static final double STEEPEST = 0.1;

    /** @param rgba four bytes a pixel from the upper left corner on */
    public Picture(int width, int height, byte[] rgba, Holds holds) {
        this.width = width;
        this.height = height;
        this.colour = holds == Holds.COLOURS;
        levels.add(rgba);
        for (int w = width, h = height; w > 1 || h > 1; w = Math.max(1, w / 2), h = Math.max(1, h / 2)) {
            levels.add(halved(levels.get(levels.size() - 1), w, h));
        }
        if (holds == Holds.NORMALS) {
            tellSpreads();
        }
    }

    /** Writes to each level's alpha how far the slopes of the picture spread within a pixel of it. */
    private void tellSpreads() {
        byte[] whole = levels.get(0);
        float[] moments = new float[3 * width * height]; // slopes along x and y, and the square of the slope
        for (int i = 0; i < width * height; i++) {
            double up = Math.max(STEEPEST, 2 * value(whole[4 * i + 2], 2) - 1.0);
            double x = (2 * value(whole[4 * i], 0) - 1.0) / up;
            double y = (2 * value(whole[4 * i + 1], 1) - 1.0) / up;
            moments[3 * i] = (float) x;
            moments[3 * i + 1] = (float) y;
            moments[3 * i + 2] = (float) (x * x + y * y);
            whole[4 * i + 3] = 0;
        }
        int w = width;
        int h = height;
        for (byte[] level : levels.subList(1, levels.size())) {
            int nw = Math.max(1, w / 2);
            int nh = Math.max(1, h / 2);
            float[] fewer = new float[3 * nw * nh];
            for (int i = 0; i < nw * nh; i++) {
                int x = 2 * (i % nw);
                int y = i / nw * 2;
                for (int k = 0; k < 3; k++) {
                    fewer[3 * i + k] = (moments[3 * (y * w + x) + k]
                                    + moments[3 * (y * w + Math.min(w - 1, x + 1)) + k]
                                    + moments[3 * (Math.min(h - 1, y + 1) * w + x) + k]
                                    + moments[3 * (Math.min(h - 1, y + 1) * w + Math.min(w - 1, x + 1)) + k])
                            / 4;
                }
                double sx = fewer[3 * i];
                double sy = fewer[3 * i + 1];
                double spread = Math.sqrt(Math.max(0, fewer[3 * i + 2] - sx * sx - sy * sy) / 2);
                level[4 * i + 3] = (byte) Math.round(255 * Math.min(1, spread / WIDEST_SPREAD));
            }
            moments = fewer;
            w = nw;
            h = nh;
        }
    }

    /** The spread of slopes that a picture of normals tells by its alpha. */
    static double spread(double alpha) {
        return WIDEST_SPREAD * alpha;
    }

    private static float[] linear() {
        float[] table = new float[256];
        for (int i = 0; i < 256; i++) {
            table[i] = (float) Srgb.fromCode(i);
        }
        return table;
    }

    private static byte[] codes() {
        byte[] table = new byte[65536];
        for (int i = 0; i < table.length; i++) {
            table[i] = (byte) Math.round(255 * Srgb.encode(i / 65535.0));
        }
        return table;
    }

    /**
     * Decodes an image file.
     *
     * @param mostPixels larger ones are read at every second, third … pixel so that they fit
     * @throws IOException where it can't be decoded
     */
    public static Picture decode(byte[] file, Holds holds, int mostPixels) throws IOException {
        return of(ImageFile.decode(file, mostPixels), holds);
    }

    private static Picture of(BufferedImage image, Holds holds) {
        int w = image.getWidth();
        int h = image.getHeight();
        byte[] rgba = new byte[4 * w * h];
        int[] row = new int[w];
        for (int y = 0; y < h; y++) {
            image.getRGB(0, y, w, 1, row, 0, w);
            for (int x = 0; x < w; x++) {
                int i = 4 * (y * w + x);
                rgba[i] = (byte) (row[x] >> 16);
                rgba[i + 1] = (byte) (row[x] >> 8);
                rgba[i + 2] = (byte) row[x];
                rgba[i + 3] = (byte) (row[x] >> 24);
            }
        }
        return new Picture(w, h, rgba, holds);
    }

    private byte[] halved(byte[] from, int w, int h) {
        int nw = Math.max(1, w / 2);
        int nh = Math.max(1, h / 2);
        byte[] to = new byte[4 * nw * nh];
        for (int y = 0; y < nh; y++) {
            for (int x = 0; x < nw; x++) {
                int a = 4 * (Math.min(h - 1, 2 * y) * w + Math.min(w - 1, 2 * x));
                int b = 4 * (Math.min(h - 1, 2 * y) * w + Math.min(w - 1, 2 * x + 1));
                int c = 4 * (Math.min(h - 1, 2 * y + 1) * w + Math.min(w - 1, 2 * x));
                int d = 4 * (Math.min(h - 1, 2 * y + 1) * w + Math.min(w - 1, 2 * x + 1));
                for (int k = 0; k < 4; k++) {
                    double mean = (value(from[a + k], k)
                                    + value(from[b + k], k)
                                    + value(from[c + k], k)
                                    + value(from[d + k], k))
                            / 4;
                    to[4 * (y * nw + x) + k] =
                            colour && k < 3 ? CODES[(int) (65535 * mean + 0.5)] : (byte) Math.round(255 * mean);
                }
            }
        }
        return to;
    }

    private float value(byte code, int channel) {
        int i = code & 0xFF;
        return colour && channel < 3 ? LINEAR[i] : i / 255f;
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    /** Bytes that it takes. */
    public long bytes() {
        return levels.stream().mapToLong(l -> l.length).sum();
    }

    /**
     * Adds a bilinear sample of one level, times a weight, to four numbers.
     *
     * @param u in repeats; wrapped as {@code wrapU} says
     */
    void add(int level, double u, double v, Wrapping wrapU, Wrapping wrapV, double weight, double[] out) {
        int w = Math.max(1, width >> level);
        int h = Math.max(1, height >> level);
        byte[] pixels = levels.get(level);
        double x = u * w - 0.5;
        double y = v * h - 0.5;
        double fx = Math.floor(x);
        double fy = Math.floor(y);
        double tx = x - fx;
        double ty = y - fy;
        int x0 = wrapU.of((long) fx, w);
        int x1 = wrapU.of((long) fx + 1, w);
        int y0 = wrapV.of((long) fy, h);
        int y1 = wrapV.of((long) fy + 1, h);
        int a = 4 * (y0 * w + x0);
        int b = 4 * (y0 * w + x1);
        int c = 4 * (y1 * w + x0);
        int d = 4 * (y1 * w + x1);
        double wa = weight * (1 - tx) * (1 - ty);
        double wb = weight * tx * (1 - ty);
        double wc = weight * (1 - tx) * ty;
        double wd = weight * tx * ty;
        for (int k = 0; k < 4; k++) {
            out[k] += wa * value(pixels[a + k], k)
                    + wb * value(pixels[b + k], k)
                    + wc * value(pixels[c + k], k)
                    + wd * value(pixels[d + k], k);
        }
    }

    int levels() {
        return levels.size();
    }

    /** Which pixel stands where the picture has none. */
    enum Wrapping {
        REPEAT,
        MIRROR,
        EDGE;

        int of(long i, int n) {
            return switch (this) {
                case REPEAT -> i >= 0 && i < n ? (int) i : (int) Math.floorMod(i, (long) n);
                case MIRROR -> {
                    int k = (int) Math.floorMod(i, 2L * n);
                    yield k < n ? k : 2 * n - 1 - k;
                }
                case EDGE -> (int) Math.max(0, Math.min(n - 1, i));
            };
        }
    }
}
