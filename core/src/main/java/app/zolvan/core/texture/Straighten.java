package app.zolvan.core.texture;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import java.awt.image.BufferedImage;

/** Turns what a photograph shows between four corners into an upright rectangle. */
public final class Straighten {
    private static final double MOST = 4096;

    private Straighten() {}

    /**
     * The picture within four corners, mixed in linear light.
     *
     * @param corners x and y in pixels, from the upper left one clockwise
     * @param inset   share of each side that is left out, so that no edge comes along
     */
    public static BufferedImage of(BufferedImage image, double[][] corners, double inset) {
        double[] seen = size(corners);
        int width = pixels(seen[0] * (1 - 2 * inset));
        int height = pixels(seen[1] * (1 - 2 * inset));
        double[] h = projection(corners);
        BufferedImage out = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        for (int y = 0; y < height; y++) {
            for (int x = 0; x < width; x++) {
                double u = inset + (1 - 2 * inset) * (x + 0.5) / width;
                double v = inset + (1 - 2 * inset) * (y + 0.5) / height;
                double w = h[6] * u + h[7] * v + 1;
                out.setRGB(x, y, mixed(image, (h[0] * u + h[1] * v + h[2]) / w, (h[3] * u + h[4] * v + h[5]) / w));
            }
        }
        return out;
    }

    /** Mean width and height of what lies between four corners, in pixels. */
    public static double[] size(double[][] corners) {
        return new double[] {
            (distance(corners[0], corners[1]) + distance(corners[3], corners[2])) / 2,
            (distance(corners[0], corners[3]) + distance(corners[1], corners[2])) / 2
        };
    }

    private static double distance(double[] a, double[] b) {
        return Math.hypot(a[0] - b[0], a[1] - b[1]);
    }

    private static int pixels(double length) {
        return (int) Math.round(Math.max(1, Math.min(MOST, length)));
    }

    /**
     * The projective map of the unit square onto a quadrilateral, in closed form (Heckbert 1989, section 2.2.3): the first two
     * rows of a matrix, and the first two numbers of its third, which ends in 1.
     */
    public static double[] projection(double[][] c) {
        double sx = c[0][0] - c[1][0] + c[2][0] - c[3][0];
        double sy = c[0][1] - c[1][1] + c[2][1] - c[3][1];
        double ax = c[1][0] - c[2][0];
        double ay = c[1][1] - c[2][1];
        double bx = c[3][0] - c[2][0];
        double by = c[3][1] - c[2][1];
        double det = ax * by - ay * bx;
        double g = (sx * by - sy * bx) / det;
        double k = (ax * sy - ay * sx) / det;
        return new double[] {
            c[1][0] - c[0][0] + g * c[1][0],
            c[3][0] - c[0][0] + k * c[3][0],
            c[0][0],
            c[1][1] - c[0][1] + g * c[1][1],
            c[3][1] - c[0][1] + k * c[3][1],
            c[0][1],
            g,
            k
        };
    }

    /** Where in the unit square a projection has a place from. */
    public static double[] inverse(double[] h, double x, double y) {
        double a = h[0] - x * h[6];
        double b = h[1] - x * h[7];
        double c = h[3] - y * h[6];
        double d = h[4] - y * h[7];
        double p = x - h[2];
        double q = y - h[5];
        double det = a * d - b * c;
        return new double[] {(p * d - b * q) / det, (a * q - p * c) / det};
    }

    /** Between the four pixels around a place; a pixel's middle is at its number and a half less. */
    private static int mixed(BufferedImage image, double x, double y) {
        int w = image.getWidth();
        int h = image.getHeight();
        double px = Math.min(Math.max(x, 0), w - 1);
        double py = Math.min(Math.max(y, 0), h - 1);
        int x0 = (int) px;
        int y0 = (int) py;
        LinearRgb sum = LinearRgb.BLACK;
        for (int i = 0; i < 4; i++) {
            int xi = Math.min(w - 1, x0 + i % 2);
            int yi = Math.min(h - 1, y0 + i / 2);
            double part = (i % 2 == 0 ? 1 - (px - x0) : px - x0) * (i / 2 == 0 ? 1 - (py - y0) : py - y0);
            sum = sum.plus(Srgb.fromPacked(image.getRGB(xi, yi)).times(part));
        }
        return Srgb.toPacked(sum);
    }
}
