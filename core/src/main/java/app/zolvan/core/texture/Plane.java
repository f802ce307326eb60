package app.zolvan.core.texture;

import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.List;

/**
 * One channel of a picture as numbers from 0 to 255, row by row.
 *
 * @param width of a row
 */
record Plane(int width, int height, float[] values) {
    private static final int BLOCK = 32;

    /** Red, green and blue, and alpha where there is one. */
    static List<Plane> of(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        List<Plane> channels = new ArrayList<>();
        for (int k = 0; k < (image.getColorModel().hasAlpha() ? 4 : 3); k++) {
            channels.add(new Plane(w, h, new float[w * h]));
        }
        int[] row = new int[w];
        for (int y = 0; y < h; y++) {
            image.getRGB(0, y, w, 1, row, 0, w);
            for (int k = 0; k < channels.size(); k++) {
                float[] values = channels.get(k).values;
                for (int x = 0; x < w; x++) {
                    values[y * w + x] = row[x] >>> shift(k) & 255;
                }
            }
        }
        return channels;
    }

    /** Where a channel lies in a packed pixel. */
    static int shift(int channel) {
        return channel == 3 ? 24 : 16 - 8 * channel;
    }

    /** The code of a value. */
    static int code(float value) {
        return Math.max(0, Math.min(255, Math.round(value)));
    }

    /** Columns as rows. */
    Plane turned() {
        float[] to = new float[values.length];
        for (int y0 = 0; y0 < height; y0 += BLOCK) {
            for (int x0 = 0; x0 < width; x0 += BLOCK) {
                for (int y = y0; y < Math.min(height, y0 + BLOCK); y++) {
                    for (int x = x0; x < Math.min(width, x0 + BLOCK); x++) {
                        to[x * height + y] = values[y * width + x];
                    }
                }
            }
        }
        return new Plane(/* width= */ height, /* height= */ width, to);
    }

    /** Means of squares of so many pixels a side. */
    Plane coarse(int step) {
        int w = width / step;
        int h = height / step;
        float[] to = new float[w * h];
        for (int y = 0; y < h * step; y++) {
            for (int x = 0; x < w * step; x++) {
                to[y / step * w + x / step] += values[y * width + x] / (step * step);
            }
        }
        return new Plane(w, h, to);
    }

    /** Every so manieth row. */
    Plane fewer(int step) {
        int h = (height + step - 1) / step;
        float[] to = new float[width * h];
        for (int y = 0; y < h; y++) {
            System.arraycopy(values, y * step * width, to, y * width, width);
        }
        return new Plane(width, h, to);
    }

    /** Some of its columns. */
    Plane columns(int from, int count) {
        float[] to = new float[count * height];
        for (int y = 0; y < height; y++) {
            System.arraycopy(values, y * width + from, to, y * count, count);
        }
        return new Plane(count, height, to);
    }

    Plane minus(Plane other) {
        float[] to = values.clone();
        for (int i = 0; i < to.length; i++) {
            to[i] -= other.values[i];
        }
        return new Plane(width, height, to);
    }

    /** How much it changes from each pixel to the next ones, along and across; none at the last ones. */
    Plane steps() {
        float[] to = new float[values.length];
        for (int y = 0; y + 1 < height; y++) {
            for (int x = 0; x + 1 < width; x++) {
                int i = y * width + x;
                to[i] = Math.abs(values[i + 1] - values[i]) + Math.abs(values[i + width] - values[i]);
            }
        }
        return new Plane(width, height, to);
    }

    /** Twice means over {@code reach} pixels to either side within each row; over fewer at its ends. */
    Plane blurredAlong(int reach) {
        float[] to = values.clone();
        float[] line = new float[width];
        for (int y = 0; y < height; y++) {
            blurRow(to, y * width, reach, line);
            blurRow(to, y * width, reach, line);
        }
        return new Plane(width, height, to);
    }

    private static void blurRow(float[] v, int at, int reach, float[] line) {
        int n = line.length;
        double sum = 0;
        int from = 0;
        int to = 0;
        for (int x = 0; x < n; x++) {
            for (; to < Math.min(n, x + reach + 1); to++) {
                sum += v[at + to];
            }
            for (; from < x - reach; from++) {
                sum -= v[at + from];
            }
            line[x] = (float) (sum / (to - from));
        }
        System.arraycopy(line, 0, v, at, n);
    }

    /** Means over {@code reach} rows to either side; after the last one comes the first. */
    Plane blurredRound(int reach) {
        float[] to = new float[values.length];
        double[] sum = new double[width];
        for (int y = -reach; y <= reach; y++) {
            add(sum, y, 1);
        }
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                to[y * width + x] = (float) (sum[x] / (2 * reach + 1));
            }
            add(sum, y + reach + 1, 1);
            add(sum, y - reach, -1);
        }
        return new Plane(width, height, to);
    }

    private void add(double[] sum, int y, int sign) {
        int at = Math.floorMod(y, height) * width;
        for (int x = 0; x < width; x++) {
            sum[x] += sign * values[at + x];
        }
    }

    /** Squares of what differs between the first and the last columns. */
    double differs(int columns) {
        double sum = 0;
        for (int y = 0; y < height; y++) {
            int begin = y * width;
            int end = begin + width - columns;
            for (int x = 0; x < columns; x++) {
                float d = values[begin + x] - values[end + x];
                sum += d * d;
            }
        }
        return sum;
    }
}
