package app.zolvan.core.texture;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.colour.Tone;
import java.awt.image.BufferedImage;
import java.io.IOException;

/** Pictures with a tone laid into them, for formats that know of none. */
public final class TonedPicture {
    private static final long MOST_PIXELS = 64L << 20;

    private TonedPicture() {}

    /**
     * @param file a PNG or JPEG of colours
     * @return a PNG of the same size, its alpha as it was
     * @throws IOException where it can't be decoded
     */
    public static byte[] of(byte[] file, Tone tone) throws IOException {
        BufferedImage from = ImageFile.decode(file, MOST_PIXELS);
        boolean alpha = from.getColorModel().hasAlpha();
        BufferedImage to = new BufferedImage(
                from.getWidth(), from.getHeight(), alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        double[] m = tone.matrix();
        int[] row = new int[from.getWidth()];
        for (int y = 0; y < from.getHeight(); y++) {
            from.getRGB(0, y, row.length, 1, row, 0, row.length);
            for (int x = 0; x < row.length; x++) {
                double r = Srgb.fromCode(row[x] >> 16 & 0xFF);
                double g = Srgb.fromCode(row[x] >> 8 & 0xFF);
                double b = Srgb.fromCode(row[x] & 0xFF);
                LinearRgb c = new LinearRgb(at(m, 0, r, g, b), at(m, 4, r, g, b), at(m, 8, r, g, b));
                row[x] = (row[x] & 0xFF000000) | Srgb.toPacked(c);
            }
            to.setRGB(0, y, row.length, 1, row, 0, row.length);
        }
        return ImageFile.png(to);
    }

    private static double at(double[] m, int i, double r, double g, double b) {
        return m[i] * r + m[i + 1] * g + m[i + 2] * b + m[i + 3];
    }
}
