package app.zolvan.core.render.film;

import java.io.DataInput;
import java.io.DataOutput;
import java.io.IOException;
import java.util.Arrays;

/**
 * What the samples of a picture add up to, per pixel of the full picture: red, green, blue of each circuit of lamps, the
 * same light of the first half of the samples for judging noise, and what is seen there first (its colour, normal,
 * distance, part and material). A pixel is only written by the thread that works on its block.
 *
 * <p>Sums are kept in single precision: rounding loses about 6e-8 · √samples of them, far below any noise that is left.
 */
public final class Film {
    /** Of the first, coarse picture every fourth pixel of every fourth row is traced. */
    public static final int COARSE = 4;

    private static final int FORMAT = 0x5A460003;

    public final int width;
    public final int height;
    private final int circuits;
    private final float[] rgb;
    private final float[] half;
    private final int[] counts;
    private final float[] albedo;
    private final float[] normal;
    private final float[] depth;
    private final int[] part;
    private final int[] material;

    public Film(int width, int height) {
        this(width, height, 1);
    }

    /** @param circuits how many kinds of light are kept apart */
    public Film(int width, int height, int circuits) {
        this.width = width;
        this.height = height;
        this.circuits = circuits;
        int n = width * height;
        rgb = new float[3 * n * circuits];
        half = new float[3 * n];
        counts = new int[n];
        albedo = new float[3 * n];
        normal = new float[3 * n];
        depth = new float[n];
        part = new int[n];
        material = new int[n];
        Arrays.fill(part, -1);
        Arrays.fill(material, -1);
    }

    public int circuits() {
        return circuits;
    }

    /** Adds a sample: red, green, blue of each circuit. */
    public void add(int x, int y, double[] sum) {
        int i = y * width + x;
        if (Integer.bitCount(counts[i]) == 1) {
            half[3 * i] = half[3 * i + 1] = half[3 * i + 2] = 0;
            for (int k = 0; k < 3 * circuits; k++) {
                half[3 * i + k % 3] += rgb[3 * i * circuits + k];
            }
        }
        for (int k = 0; k < 3 * circuits; k++) {
            rgb[3 * i * circuits + k] += (float) sum[k];
        }
        counts[i]++;
    }

    /** Adds what a sample saw first; a pixel's part and material are those of its first sample. */
    public void see(int x, int y, double[] colour, double[] facing, double distance, int what, int madeOf) {
        int i = y * width + x;
        for (int k = 0; k < 3; k++) {
            albedo[3 * i + k] += (float) colour[k];
            normal[3 * i + k] += (float) facing[k];
        }
        depth[i] += (float) distance;
        if (counts[i] <= 1) {
            part[i] = what;
            material[i] = madeOf;
        }
    }

    public int samples(int x, int y) {
        return counts[y * width + x];
    }

    /** The mean radiance at a pixel with all circuits on; black where nothing was sampled. */
    public void mean(int x, int y, double[] out) {
        out[0] = out[1] = out[2] = 0;
        for (int c = 0; c < circuits; c++) {
            add(x, y, c, 1, out);
        }
    }

    /** The same with each circuit dimmed (1 leaves it) and tinted alike. */
    public void mean(int x, int y, double[] dimmers, double[] out) {
        out[0] = out[1] = out[2] = 0;
        for (int c = 0; c < circuits; c++) {
            add(x, y, c, dimmers[c], out);
        }
    }

    private void add(int x, int y, int circuit, double share, double[] out) {
        int i = y * width + x;
        double scale = counts[i] == 0 ? 0 : share / counts[i];
        for (int k = 0; k < 3; k++) {
            out[k] += rgb[3 * (i * circuits + circuit) + k] * scale;
        }
    }

    /** How many of a pixel's samples came before their number last passed a power of two. */
    private int before(int i) {
        return Integer.highestOneBit(Math.max(0, counts[i] - 1));
    }

    /**
     * The mean of a pixel's first samples, up to a power of two, and that of the others: two pictures with different noise,
     * each of points that are spread evenly. The same where there is but one sample.
     */
    void halves(int x, int y, double[] first, double[] second) {
        int i = y * width + x;
        int early = before(i);
        int late = counts[i] - early;
        mean(x, y, second);
        for (int k = 0; k < 3; k++) {
            if (early == 0) {
                first[k] = second[k];
                continue;
            }
            first[k] = half[3 * i + k] / early;
            second[k] = (second[k] * counts[i] - half[3 * i + k]) / late;
        }
    }

    /** Mean colour of what is seen first, in [0, 1]; 0 for nothing. */
    public void albedo(int x, int y, double[] out) {
        feature(albedo, x, y, out);
    }

    /** Mean normal of what is seen first, not of unit length where it changes within the pixel. */
    public void normal(int x, int y, double[] out) {
        feature(normal, x, y, out);
    }

    private void feature(float[] from, int x, int y, double[] out) {
        int i = y * width + x;
        double scale = counts[i] == 0 ? 0 : 1.0 / counts[i];
        for (int k = 0; k < 3; k++) {
            out[k] = from[3 * i + k] * scale;
        }
    }

    /** Mean distance of what is seen first, in metres; 0 for nothing. */
    public double depth(int x, int y) {
        int i = y * width + x;
        return counts[i] == 0 ? 0 : depth[i] / counts[i];
    }

    /** Which part the pixel's first sample saw; −1 for none. */
    public int part(int x, int y) {
        return part[y * width + x];
    }

    /** Which material the pixel's first sample saw, as the scene numbers them; −1 for none. */
    public int material(int x, int y) {
        return material[y * width + x];
    }

    /**
     * The expected error of a block's pixels as they are shown, v/(1 + v): the root mean square of what the two halves of
     * their samples differ by, weighed for the whole. (Samples are spread evenly, so that their scatter would tell of an
     * error twice as large as it is.)
     *
     * @param x0 first column; {@code x1} the one after the last, likewise for rows
     */
    public double error(int x0, int y0, int x1, int y1) {
        double[] first = new double[3];
        double[] second = new double[3];
        double sum = 0;
        for (int y = y0; y < y1; y++) {
            for (int x = x0; x < x1; x++) {
                halves(x, y, first, second);
                double d = shown(first[0], first[1], first[2]) - shown(second[0], second[1], second[2]);
                double n = Math.max(1, counts[y * width + x]);
                int early = before(y * width + x);
                sum += d * d * (early / n) * (1 - early / n);
            }
        }
        return Math.sqrt(sum / ((x1 - x0) * (y1 - y0)));
    }

    /** A pixel's brightness about as a screen shows it, 0 … 1; noise targets are in its terms. */
    public static double shown(double r, double g, double b) {
        double v = Math.max(0, 0.2126 * r + 0.7152 * g + 0.0722 * b);
        return v / (1 + v);
    }

    /** Writes all that is needed to go on. */
    public void write(DataOutput out) throws IOException {
        out.writeInt(FORMAT);
        out.writeInt(width);
        out.writeInt(height);
        out.writeInt(circuits);
        for (int i = 0; i < counts.length; i++) {
            out.writeInt(counts[i]);
            if (counts[i] == 0) {
                continue;
            }
            for (int k = 0; k < 3 * circuits; k++) {
                out.writeFloat(rgb[3 * i * circuits + k]);
            }
            for (int k = 0; k < 3; k++) {
                out.writeFloat(half[3 * i + k]);
                out.writeFloat(albedo[3 * i + k]);
                out.writeFloat(normal[3 * i + k]);
            }
            out.writeFloat(depth[i]);
            out.writeInt(part[i]);
            out.writeInt(material[i]);
        }
    }

    /**
     * Takes over what {@link #write} wrote.
     *
     * @throws IOException where it is another picture's
     */
    public void read(DataInput in) throws IOException {
        if (in.readInt() != FORMAT) {
            throw new IOException("The picture was kept by another edition of Zolvan; begin it again.");
        }
        if (in.readInt() != width || in.readInt() != height || in.readInt() != circuits) {
            throw new IOException("The kept picture has another size; begin it again.");
        }
        for (int i = 0; i < counts.length; i++) {
            counts[i] = in.readInt();
            if (counts[i] == 0) {
                continue;
            }
            for (int k = 0; k < 3 * circuits; k++) {
                rgb[3 * i * circuits + k] = in.readFloat();
            }
            for (int k = 0; k < 3; k++) {
                half[3 * i + k] = in.readFloat();
                albedo[3 * i + k] = in.readFloat();
                normal[3 * i + k] = in.readFloat();
            }
            depth[i] = in.readFloat();
            part[i] = in.readInt();
            material[i] = in.readInt();
        }
    }
}
