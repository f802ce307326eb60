package app.zolvan.bench;

import app.zolvan.core.texture.EdgeFit;
import app.zolvan.core.texture.EdgeFit.Holds;
import java.awt.image.BufferedImage;
import java.util.Random;

/** How long it takes until the edges of a grained picture in uneven light meet, at several sizes, on one core. */
public final class EdgeTimes {
    private EdgeTimes() {}

    public static void main(String[] args) {
        for (int side : new int[] {1024, 1024, 2048, 4096}) {
            BufferedImage image = new BufferedImage(side, side, BufferedImage.TYPE_INT_RGB);
            Random random = new Random(1);
            for (int y = 0; y < side; y++) {
                for (int x = 0; x < side; x++) {
                    image.setRGB(x, y, 0x010101 * (60 + 100 * x / side + random.nextInt(60)));
                }
            }
            long start = System.nanoTime();
            EdgeFit fit = EdgeFit.of(image);
            long found = System.nanoTime();
            fit.cut(image, Holds.COLOURS);
            long cut = System.nanoTime();
            System.out.printf(
                    "%d²: found in %.2f s, each picture cut in %.2f s%n",
                    side, (found - start) / 1e9, (cut - found) / 1e9);
        }
    }
}
