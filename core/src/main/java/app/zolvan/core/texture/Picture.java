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
    private final Holds holds;
    private final double slopesAlong;

    /** What the numbers of a picture are. */
    public enum Holds {
        NUMBERS,
        /** sRGB-encoded. */
        COLOURS,
        /** Directions, of which 0.5, 0.5, 1 lies flat. */
        NORMALS
    }

    /** Slopes that spread more than this, as standard deviation along one axis, mirror nothing sharply any more. */
    private static final double WIDEST_SPREAD = 1;
    /** Normals that lie flatter than this on the surface count as if they did not. */
    private static final double STEEPEST = 0.1;

    /** @param rgba four bytes a pixel from the upper left corner on */
    public Picture(int width, int height, byte[] rgba, Holds holds) {
        this.width = width;
        this.height = height;
        this.holds = holds;
        levels.add(rgba);
        for (int w = width, h = height; w > 1 || h > 1; w = Math.max(1, w / 2), h = Math.max(1, h / 2)) {
            levels.add(halved(levels.get(levels.size() - 1), w, h));
        }
        slopesAlong = holds == Holds.NORMALS ? alongOf(rgba) : 0.5;
    }

    /** The slope that a pixel of normals tells along the picture's width (0) or towards its top (1). */
    private double slope(byte[] level, int pixel, int axis) {
        double up = Math.max(STEEPEST, 2 * value(level[pixel + 2], 2) - 1.0);
        return (2 * value(level[pixel + axis], axis) - 1.0) / up;
    }

    /**
     * How far the slopes within four pixels of a picture of normals spread: what is spread within each, and what they differ
     * by.
     */
    private byte spreadOver(byte[] from, int... four) {
        double x = 0;
        double y = 0;
        double squares = 0;
        for (int i : four) {
            double slopeX = slope(from, i, 0);
            double slopeY = slope(from, i, 1);
            double within = spread(value(from[i + 3], 3));
            x += slopeX / 4;
            y += slopeY / 4;
            squares += (slopeX * slopeX + slopeY * slopeY + 2 * within * within) / 4;
        }
        double spread = Math.sqrt(Math.max(0, squares - x * x - y * y) / 2);
        return (byte) Math.round(255 * Math.min(1, spread / WIDEST_SPREAD));
    }

    /**
     * Of a picture of normals, how far slopes spread within a pixel of each level, from the picture itself on: the root mean
     * square over all pixels, as standard deviation along one axis.
     */
    public double[] spreads() {
        return levels.stream().mapToDouble(this::meanSpread).toArray();
    }

    /** Of a picture of normals, the share of its slopes' variance that lies along its width; a half of none. */
    public double slopesAlong() {
        return slopesAlong;
    }

    private double alongOf(byte[] normals) {
        double along = slopeVariance(normals, 0);
        double across = slopeVariance(normals, 1);
        return along + across > 1e-6 ? along / (along + across) : 0.5;
    }

    private double slopeVariance(byte[] normals, int axis) {
        double sum = 0;
        double squares = 0;
        for (int i = 0; i < normals.length; i += 4) {
            double slope = slope(normals, i, axis);
            sum += slope;
            squares += slope * slope;
        }
        int pixels = normals.length / 4;
        return squares / pixels - sum * sum / pixels / pixels;
    }

    private double meanSpread(byte[] level) {
        double sum = 0;
        for (int i = 3; i < level.length; i += 4) {
            double spread = spread(value(level[i], 3));
            sum += spread * spread;
        }
        return Math.sqrt(4 * sum / level.length);
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
                rgba[i + 3] = holds == Holds.NORMALS ? 0 : (byte) (row[x] >> 24); // no spread within a pixel
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
                    to[4 * (y * nw + x) + k] = holds == Holds.COLOURS && k < 3
                            ? CODES[(int) (65535 * mean + 0.5)]
                            : (byte) Math.round(255 * mean);
                }
                if (holds == Holds.NORMALS) {
                    to[4 * (y * nw + x) + 3] = spreadOver(from, a, b, c, d);
                }
            }
        }
        return to;
    }

    private float value(byte code, int channel) {
        int i = code & 0xFF;
        return holds == Holds.COLOURS && channel < 3 ? LINEAR[i] : i / 255f;
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
