package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.TextureUse;
import java.awt.image.BufferedImage;
import java.util.Arrays;

/**
 * What can be told of a picture that is laid side by side over a surface.
 *
 * @param width   in pixels
 * @param height  in pixels
 * @param mean    of its components, decoded from sRGB for a picture of colours
 * @param seamU   how the step across its left and right edges ranks among the steps between its columns: the share of these
 *                that are smaller, in [0, 1]
 * @param seamV   likewise across its top and bottom edges
 * @param details contrast by size of detail: standard deviation in L* of what lies between blocks of 2ᵏ and 2ᵏ⁺¹ pixels,
 *                k = 0, 1, …
 */
public record PictureMeasure(int width, int height, LinearRgb mean, double seamU, double seamV, double[] details) {
    /** A step across an edge that ranks higher than this is seen as a seam. */
    public static final double SEAM = 0.99;

    /** Only a step that is smaller by this factor counts as smaller: joints of a regular pattern are all alike. */
    private static final double CLEARLY = 1.1;

    /** A step that is no more than this much larger than the largest within looks like another of the pattern's joints. */
    private static final double JOINT = 1.2;

    /** The lightness of a grey that reflects half the light. */
    private static final float HALF_GREY = 76;

    /** How much light that comes from one side shows relief by, beside light from all round. */
    private static final double FROM_ONE_SIDE = 0.4;

    /** A picture that drives a parameter. */
    public static PictureMeasure of(Parameter p, TextureUse use, BufferedImage image) {
        return switch (p) {
            case GEOMETRY_NORMAL -> ofNormals(image, use.strength());
            case GEOMETRY_OPACITY -> ofHoles(image);
            default -> p.shape() == Parameter.Shape.COLOUR ? ofColours(image) : ofNumbers(image);
        };
    }

    /** A picture of colours. */
    public static PictureMeasure ofColours(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        int[] argb = image.getRGB(0, 0, w, h, null, 0, w);
        float[] lightness = new float[w * h];
        double[] sum = new double[3];
        for (int i = 0; i < argb.length; i++) {
            double r = Srgb.fromCode(argb[i] >> 16 & 255);
            double g = Srgb.fromCode(argb[i] >> 8 & 255);
            double b = Srgb.fromCode(argb[i] & 255);
            sum[0] += r;
            sum[1] += g;
            sum[2] += b;
            lightness[i] = lightness(new LinearRgb(r, g, b).luminance());
        }
        return of(w, h, argb, mean(sum, argb.length), lightness);
    }

    /** A picture of numbers, such as roughness. */
    public static PictureMeasure ofNumbers(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        int[] argb = image.getRGB(0, 0, w, h, null, 0, w);
        return of(w, h, argb, mean(sum(argb), 255.0 * argb.length), new float[w * h]);
    }

    /** A picture whose alpha leaves holes: its details are those of a grey sheet over black. */
    public static PictureMeasure ofHoles(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        int[] argb = image.getRGB(0, 0, w, h, null, 0, w);
        float[] lightness = new float[w * h];
        for (int i = 0; i < argb.length; i++) {
            lightness[i] = HALF_GREY * (argb[i] >>> 24) / 255;
        }
        return of(w, h, argb, mean(sum(argb), 255.0 * argb.length), lightness);
    }

    /**
     * A picture of normals: its details are those of a grey surface lit at 45° from the upper left, beside
     * light from all round.
     *
     * @param strength multiplies its slopes
     */
    public static PictureMeasure ofNormals(BufferedImage image, double strength) {
        int w = image.getWidth();
        int h = image.getHeight();
        int[] argb = image.getRGB(0, 0, w, h, null, 0, w);
        float[] lightness = new float[w * h];
        for (int i = 0; i < argb.length; i++) {
            double x = strength * ((argb[i] >> 16 & 255) / 127.5 - 1);
            double y = strength * ((argb[i] >> 8 & 255) / 127.5 - 1);
            double z = Math.max(1e-3, (argb[i] & 255) / 127.5 - 1);
            double lit = (-0.5 * x + 0.5 * y + Math.sqrt(0.5) * z) / Math.sqrt(x * x + y * y + z * z);
            double even = 1 - FROM_ONE_SIDE;
            lightness[i] = lightness(0.5 * (even + FROM_ONE_SIDE * Math.max(0, lit) / Math.sqrt(0.5)));
        }
        return of(w, h, argb, mean(sum(argb), 255.0 * argb.length), lightness);
    }

    /** Whether copies of it meet without a seam, both ways. */
    public boolean tiles() {
        return seamU <= SEAM && seamV <= SEAM;
    }

    private static PictureMeasure of(int w, int h, int[] argb, LinearRgb mean, float[] lightness) {
        return new PictureMeasure(w, h, mean, seam(argb, w, h, 1, w), seam(argb, h, w, w, 1), details(lightness, w, h));
    }

    /** @param along how many steps of {@code step} there are the way that is looked at, {@code lines} of them abreast */
    private static double seam(int[] argb, int along, int lines, int step, int apart) {
        if (along < 3) {
            return 0;
        }
        double[] steps = new double[along - 1];
        for (int i = 0; i < along - 1; i++) {
            steps[i] = step(argb, i * step, (i + 1) * step, lines, apart);
        }
        double across = step(argb, (along - 1) * step, 0, lines, apart);
        double largest = Arrays.stream(steps).max().orElse(0);
        if (across <= JOINT * largest) {
            return Math.min(SEAM, rank(steps, across));
        }
        return rank(steps, across);
    }

    private static double rank(double[] steps, double across) {
        return Arrays.stream(steps).filter(s -> CLEARLY * s < across).count() / (double) steps.length;
    }

    private static double step(int[] argb, int from, int to, int lines, int apart) {
        long sum = 0;
        for (int j = 0; j < lines; j++) {
            int a = argb[from + j * apart];
            int b = argb[to + j * apart];
            sum += Math.abs((a >> 16 & 255) - (b >> 16 & 255))
                    + Math.abs((a >> 8 & 255) - (b >> 8 & 255))
                    + Math.abs((a & 255) - (b & 255));
        }
        return sum;
    }

    /** A Haar pyramid: squares of the parts add up to the variance of the whole where sides are powers of two. */
    static double[] details(float[] values, int width, int height) {
        double[] parts = new double[32];
        float[] from = values;
        int w = width;
        int h = height;
        int k = 0;
        while (w > 1 && h > 1) {
            int halfW = w / 2;
            int halfH = h / 2;
            float[] to = new float[halfW * halfH];
            double sum = 0;
            for (int y = 0; y < halfH; y++) {
                for (int x = 0; x < halfW; x++) {
                    int at = 2 * y * w + 2 * x;
                    float a = from[at];
                    float b = from[at + 1];
                    float c = from[at + w];
                    float d = from[at + w + 1];
                    float mean = (a + b + c + d) / 4;
                    to[y * halfW + x] = mean;
                    sum += square(a - mean) + square(b - mean) + square(c - mean) + square(d - mean);
                }
            }
            parts[k++] = Math.sqrt(sum / (4.0 * halfW * halfH));
            from = to;
            w = halfW;
            h = halfH;
        }
        return Arrays.copyOf(parts, k);
    }

    private static double square(float v) {
        return (double) v * v;
    }

    private static float lightness(double luminance) {
        return (float) CieLab.of(LinearRgb.grey(luminance)).l();
    }

    private static double[] sum(int[] argb) {
        double[] sum = new double[3];
        for (int p : argb) {
            sum[0] += p >> 16 & 255;
            sum[1] += p >> 8 & 255;
            sum[2] += p & 255;
        }
        return sum;
    }

    private static LinearRgb mean(double[] sum, double n) {
        return new LinearRgb(sum[0] / n, sum[1] / n, sum[2] / n);
    }
}
