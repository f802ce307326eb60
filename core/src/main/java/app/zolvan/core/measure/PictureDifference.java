package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Png;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.Arrays;

/** By how much two pictures of one size differ, pixel by pixel, by CIEDE2000; and what that looks like, exaggerated. */
public final class PictureDifference {
    /** Up to so much nobody sees that two colours differ; from so much on they are told apart without being side by side. */
    private static final double SEEN = 1;

    private static final double PLAIN = 4;
    private static final long MOST_PIXELS = 100_000_000;

    /** How surely two pictures are told apart, by what all but a twentieth of their pixels differ by at most. */
    public enum Word {
        NONE("nobody sees a difference"),
        BESIDE("seen only side by side"),
        PLAIN("plainly different");

        private final String words;

        Word(String words) {
            this.words = words;
        }

        public String words() {
            return words;
        }
    }

    private final int width;
    private final int height;
    private final CieLab[] one;
    private final CieLab[] other;
    /** In ascending order. */
    private final double[] differences;

    private double sum;

    private PictureDifference(BufferedImage a, BufferedImage b) {
        width = a.getWidth();
        height = a.getHeight();
        int n = width * height;
        one = new CieLab[n];
        other = new CieLab[n];
        differences = new double[n];
        for (int i = 0; i < n; i++) {
            int x = i % width;
            int y = (i - x) / width;
            one[i] = lab(a.getRGB(x, y));
            other[i] = lab(b.getRGB(x, y));
            differences[i] = a.getRGB(x, y) == b.getRGB(x, y) ? 0 : one[i].difference(other[i]);
            sum += differences[i];
        }
        Arrays.sort(differences);
    }

    private static CieLab lab(int rgb) {
        return CieLab.of(Srgb.fromCodes(rgb >> 16 & 0xFF, rgb >> 8 & 0xFF, rgb & 0xFF));
    }

    /**
     * @param one   a PNG or JPEG
     * @param other the same
     * @throws IOException where either can't be decoded, or they are not of one size; its message is a sentence
     */
    public static PictureDifference of(byte[] one, byte[] other) throws IOException {
        BufferedImage a = ImageFile.decode(one, MOST_PIXELS);
        BufferedImage b = ImageFile.decode(other, MOST_PIXELS);
        if (a.getWidth() != b.getWidth() || a.getHeight() != b.getHeight()) {
            throw new IOException("One picture has " + a.getWidth() + " × " + a.getHeight() + " pixels, the other "
                    + b.getWidth() + " × " + b.getHeight() + "; only pictures of one size can be compared.");
        }
        return new PictureDifference(a, b);
    }

    public double mean() {
        return sum / differences.length;
    }

    /** What a share of the pixels, in [0, 1], differ by at most. */
    public double within(double share) {
        return differences[(int) Math.min(differences.length - 1.0, Math.floor(share * differences.length))];
    }

    /** The share of pixels that are the same, bit for bit. */
    public double same() {
        int first = 0;
        while (first < differences.length && differences[first] == 0) {
            first++;
        }
        return (double) first / differences.length;
    }

    public Word word() {
        double most = within(0.95);
        return most < SEEN ? Word.NONE : most < PLAIN ? Word.BESIDE : Word.PLAIN;
    }

    /**
     * The other picture as it would be if it differed from the one so many times as much, as a PNG; colours that sRGB can't
     * show become the nearest of their lightness and hue.
     *
     * @param times 1 for the other picture itself
     */
    public byte[] exaggerated(double times) {
        byte[] rgb = new byte[3 * one.length];
        for (int i = 0; i < one.length; i++) {
            LinearRgb c = new CieLab(
                            Math.max(0, Math.min(100, further(one[i].l(), other[i].l(), times))),
                            further(one[i].a(), other[i].a(), times),
                            further(one[i].b(), other[i].b(), times))
                    .toSrgbGamut();
            int[] codes = Srgb.toCodes(c);
            for (int k = 0; k < 3; k++) {
                rgb[3 * i + k] = (byte) codes[k];
            }
        }
        return Png.encode(width, height, rgb, 96);
    }

    private static double further(double from, double to, double times) {
        return from + times * (to - from);
    }
}
