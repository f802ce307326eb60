package app.zolvan.core.render.film;

/**
 * What the samples of a picture add up to: red, green, blue and, for judging noise, the square of the brightness as it is
 * shown; per pixel of the full picture. A pixel is only written by the thread that works on its block.
 */
public final class Film {
    public final int width;
    public final int height;
    private final double[] rgb;
    private final double[] shown;
    private final double[] shownSquared;
    private final int[] counts;

    public Film(int width, int height) {
        this.width = width;
        this.height = height;
        rgb = new double[3 * width * height];
        shown = new double[width * height];
        shownSquared = new double[width * height];
        counts = new int[width * height];
    }

    public void add(int x, int y, double r, double g, double b) {
        int i = y * width + x;
        counts[i]++;
        rgb[3 * i] += r;
        rgb[3 * i + 1] += g;
        rgb[3 * i + 2] += b;
        double v = Math.max(0, 0.2126 * r + 0.7152 * g + 0.0722 * b);
        double s = v / (1 + v); // a bright spark counts as what a screen makes of it
        shown[i] += s;
        shownSquared[i] += s * s;
    }

    public int samples(int x, int y) {
        return counts[y * width + x];
    }

    /** The mean radiance at a pixel, three numbers into {@code out}; black where nothing was sampled. */
    public void mean(int x, int y, double[] out) {
        int i = y * width + x;
        double scale = counts[i] == 0 ? 0 : 1.0 / counts[i];
        for (int c = 0; c < 3; c++) {
            out[c] = rgb[3 * i + c] * scale;
        }
    }

    /**
     * The expected error of a block's pixels as they are shown: the root mean square of each pixel's standard error.
     *
     * @param x0 first column; {@code x1} the one after the last, likewise for rows
     */
    public double error(int x0, int y0, int x1, int y1) {
        double sum = 0;
        for (int y = y0; y < y1; y++) {
            for (int x = x0; x < x1; x++) {
                int i = y * width + x;
                int n = counts[i];
                if (n > 1) {
                    double variance = (shownSquared[i] - shown[i] * shown[i] / n) / (n - 1);
                    sum += Math.max(0, variance) / n;
                }
            }
        }
        return Math.sqrt(sum / ((x1 - x0) * (y1 - y0)));
    }
}
