package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Vec3;
import java.util.Arrays;

/**
 * Light from all around: an equirectangular picture at infinity, scene-linear. Column u runs with atan2(z, x), row v from
 * the zenith (y up) down. Directions are sampled in proportion to the picture's luminance over solid angle.
 */
public final class Environment {
    private final int width;
    private final int height;
    private final float[] rgb;
    private final double turn;
    private final double strength;
    private final double[] rows;
    private final double[] columns;
    private final int[] rowGuide;
    private final int[] columnGuide;
    private final double total;
    /** By row: what a pixel's luminance is to be multiplied by for the density of sampling it. */
    private final double[] perSteradian;

    /** A sampled direction, its radiance, and its density per steradian. */
    public static final class Sample {
        public double x;
        public double y;
        public double z;
        public double r;
        public double g;
        public double b;
        public double pdf;
    }

    /**
     * @param rgb      three numbers a pixel, row by row from the top, none negative
     * @param turn     radians by which the picture is turned about y
     * @param strength multiplies its radiance
     */
    public Environment(int width, int height, float[] rgb, double turn, double strength) {
        this.width = width;
        this.height = height;
        this.rgb = rgb;
        this.turn = turn;
        this.strength = strength;
        rows = new double[height];
        columns = new double[width * height];
        double sum = 0;
        for (int y = 0; y < height; y++) {
            double sine = StrictMath.sin(Math.PI * (y + 0.5) / height);
            double along = 0;
            for (int x = 0; x < width; x++) {
                along += luminance(rgb, 3 * (y * width + x));
                columns[y * width + x] = along;
            }
            sum += along * sine;
            rows[y] = sum;
        }
        total = sum;
        perSteradian = new double[height];
        for (int y = 0; y < height; y++) { // chance of a pixel by the solid angle it covers
            double sine = StrictMath.sin(Math.PI * (y + 0.5) / height);
            double band = StrictMath.cos(Math.PI * y / height) - StrictMath.cos(Math.PI * (y + 1) / height);
            perSteradian[y] = sine * width / (total * 2 * Math.PI * band);
        }
        rowGuide = new int[height];
        columnGuide = new int[width * height];
        guide(rows, 0, height, rowGuide);
        for (int y = 0; y < height; y++) {
            guide(columns, y * width, width, columnGuide);
        }
    }

    /**
     * The same picture, stronger and turned further.
     *
     * @param by     radians about y
     * @param factor multiplies its radiance
     */
    public Environment turned(double by, double factor) {
        return new Environment(width, height, rgb, turn + by, strength * factor);
    }

    /** What falls on ground that faces the zenith, where nothing stands in the way: red, green, blue of irradiance. */
    public double[] onTheGround() {
        double[] sum = new double[3];
        for (int y = 0; y < height; y++) {
            double above = StrictMath.sin(Math.PI * Math.min(0.5, (double) y / height));
            double below = StrictMath.sin(Math.PI * Math.min(0.5, (y + 1.0) / height));
            double weight = strength * Math.PI * (below * below - above * above) / width;
            for (int x = 0; x < width; x++) {
                for (int k = 0; k < 3; k++) {
                    sum[k] += weight * rgb[3 * (y * width + x) + k];
                }
            }
        }
        return sum;
    }

    /** What a pixel of the picture shows. */
    @FunctionalInterface
    interface Look {
        void at(Vec3 direction, double solidAngle, LinearRgb radiance);
    }

    /** Looks at the whole picture, as it was photographed: neither turned nor made stronger. */
    void forEachPixel(Look look) {
        for (int y = 0; y < height; y++) {
            double polar = Math.PI * (y + 0.5) / height;
            double ring = StrictMath.sin(polar);
            double band = StrictMath.cos(Math.PI * y / height) - StrictMath.cos(Math.PI * (y + 1) / height);
            for (int x = 0; x < width; x++) {
                double around = 2 * Math.PI * ((x + 0.5) / width - 0.5);
                int i = 3 * (y * width + x);
                look.at(
                        new Vec3(ring * StrictMath.cos(around), StrictMath.cos(polar), ring * StrictMath.sin(around)),
                        2 * Math.PI / width * band,
                        new LinearRgb(rgb[i], rgb[i + 1], rgb[i + 2]));
            }
        }
    }

    /** The same light from everywhere. */
    public static Environment uniform(double r, double g, double b) {
        float[] rgb = new float[3 * 8 * 4];
        for (int i = 0; i < rgb.length; i += 3) {
            rgb[i] = (float) r;
            rgb[i + 1] = (float) g;
            rgb[i + 2] = (float) b;
        }
        return new Environment(8, 4, rgb, 0, 1);
    }

    /** Brightness by how far up a direction points (−1 … 1) and where around it lies (0 … 1, a quarter behind −z). */
    @FunctionalInterface
    public interface Brightness {
        double at(double up, double around);
    }

    /** Grey surroundings by formula. */
    public static Environment painted(Brightness brightness, double strength) {
        int w = 256;
        int h = 128;
        float[] rgb = new float[3 * w * h];
        for (int y = 0; y < h; y++) {
            double up = StrictMath.cos(Math.PI * (y + 0.5) / h);
            for (int x = 0; x < w; x++) {
                float v = (float) brightness.at(up, (x + 0.5) / w);
                Arrays.fill(rgb, 3 * (y * w + x), 3 * (y * w + x) + 3, v);
            }
        }
        return new Environment(w, h, rgb, 0, strength);
    }

    /**
     * A neutral studio: a broad soft box overhead, a tall bright strip on the left and a narrower one on the right, between
     * dim grey walls. The strips' edges show how sharp a surface reflects.
     */
    public static Environment studio(double strength) {
        return painted(
                (up, around) -> {
                    double v = up > 0 ? 0.42 + 0.25 * up : 0.42 + 0.16 * up;
                    v += up > 0.55 ? 2.6 : 0;
                    boolean tall = up > -0.25 && up < 0.5;
                    v += tall && around > 0.36 && around < 0.43 ? 9 : 0;
                    v += tall && around > 0.66 && around < 0.685 ? 13 : 0;
                    return v;
                },
                0.5 * strength);
    }

    private static double luminance(float[] c, int i) {
        return 0.2126 * c[i] + 0.7152 * c[i + 1] + 0.0722 * c[i + 2] + 1e-9;
    }

    /** The radiance from a direction of unit length, into {@code out}'s r, g, b, with the density of sampling it. */
    public void look(double x, double y, double z, Sample out) {
        double v = StrictMath.acos(Math.max(-1, Math.min(1, y))) / Math.PI;
        double u = (StrictMath.atan2(z, x) + turn) / (2 * Math.PI) + 0.5;
        u -= Math.floor(u);
        int px = Math.min(width - 1, (int) (u * width));
        int py = Math.min(height - 1, (int) (v * height));
        set(px, py, out);
    }

    private void set(int px, int py, Sample out) {
        int i = 3 * (py * width + px);
        out.r = strength * rgb[i];
        out.g = strength * rgb[i + 1];
        out.b = strength * rgb[i + 2];
        out.pdf = luminance(rgb, i) * perSteradian[py];
    }

    /** Samples a direction. */
    public void sample(double u, double v, Sample out) {
        double at = v * total;
        int py = find(rows, 0, height, rowGuide, at);
        double below = py == 0 ? 0 : rows[py - 1];
        double inRow = (at - below) / Math.max(1e-300, rows[py] - below);
        double along = u * columns[py * width + width - 1];
        int px = find(columns, py * width, width, columnGuide, along);
        double left = px == 0 ? 0 : columns[py * width + px - 1];
        double inColumn = (along - left) / Math.max(1e-300, columns[py * width + px] - left);
        double top = StrictMath.cos(Math.PI * py / height);
        double bottom = StrictMath.cos(Math.PI * (py + 1) / height);
        double y = top + (bottom - top) * inRow;
        double around = 2 * Math.PI * ((px + inColumn) / width - 0.5) - turn;
        double s = Math.sqrt(Math.max(0, 1 - y * y));
        out.x = s * StrictMath.cos(around);
        out.y = y;
        out.z = s * StrictMath.sin(around);
        set(px, py, out);
    }

    /**
     * Where a number falls in a run of sums: a guide says where to begin (Chen & Asau 1974), so that on the average no more
     * than two are compared.
     */
    private static int find(double[] cumulative, int from, int n, int[] guide, double at) {
        double last = cumulative[from + n - 1];
        int i = guide[from + Math.max(0, Math.min(n - 1, (int) (at / last * n)))];
        while (i > 0 && cumulative[from + i - 1] > at) {
            i--;
        }
        while (i < n - 1 && cumulative[from + i] <= at) {
            i++;
        }
        return i;
    }

    private static void guide(double[] cumulative, int from, int n, int[] out) {
        double last = cumulative[from + n - 1];
        int i = 0;
        for (int k = 0; k < n; k++) {
            while (i < n - 1 && cumulative[from + i] <= last * k / n) {
                i++;
            }
            out[from + k] = i;
        }
    }
}
