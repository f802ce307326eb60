package app.zolvan.core.exchange.imageset;

import java.awt.image.BufferedImage;

/** What can be told of a normal map from the surface that it must come from. */
final class NormalMaps {
    /** Slopes of real relief agree at least so much better one way than the other. */
    private static final double CLEARLY = 0.8;

    private NormalMaps() {}

    /**
     * Whether green points down: slopes of a height field have no curl, ∂²h/∂x∂y = ∂²h/∂y∂x, so the map is read both ways and
     * that which agrees better is taken; up where neither does clearly.
     */
    static boolean isGreenDown(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        double up = 0;
        double down = 0;
        int[][] rows = new int[3][w];
        int stepY = Math.max(1, h / 256);
        for (int y = 1; y < h - 1; y += stepY) {
            for (int k = 0; k < 3; k++) {
                image.getRGB(0, y - 1 + k, w, 1, rows[k], 0, w);
            }
            for (int x = 1; x < w - 1; x++) {
                double acrossOfX = slope(rows[0][x], 16) - slope(rows[2][x], 16); // towards the top
                double alongOfY = slope(rows[1][x + 1], 8) - slope(rows[1][x - 1], 8);
                up += Math.abs(acrossOfX - alongOfY);
                down += Math.abs(acrossOfX + alongOfY);
            }
        }
        return down < CLEARLY * up;
    }

    private static double slope(int rgb, int shift) {
        double z = Math.max(0.05, (rgb & 255) / 127.5 - 1);
        return -((rgb >> shift & 255) / 127.5 - 1) / z;
    }
}
