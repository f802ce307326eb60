package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Png;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.util.Arrays;

/** By how much two pictures of one size differ, pixel by pixel, by CIEDE2000; and what that looks like, exaggerated. */
public final class PictureDifference {
    /** By how much a difference may be exaggerated. */
    public static final int MOST_TIMES = 64;

    /** Up to so much nobody sees that two colours differ, even side by side. */
    private static final double SEEN = 1;

    /** Larger pictures are compared at every second, third … pixel. */
    private static final long MOST_PIXELS = 40_000_000;

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

    private final BufferedImage one;
    private final BufferedImage other;
    /** In ascending order. */
    private final float[] differences;

    private final double mean;

    private PictureDifference(BufferedImage one, BufferedImage other) {
        this.one = one;
        this.other = other;
        int width = one.getWidth();
        differences = new float[width * one.getHeight()];
        double sum = 0;
        for (int i = 0; i < differences.length; i++) {
            int x = i % width;
            int y = (i - x) / width;
            int a = one.getRGB(x, y);
            int b = other.getRGB(x, y);
            differences[i] = a == b ? 0 : (float) lab(a).difference(lab(b));
            sum += differences[i];
        }
        mean = sum / differences.length;
        Arrays.sort(differences);
    }

    private static CieLab lab(int rgb) {
        return CieLab.of(Srgb.fromPacked(rgb));
    }

    /**
     * @param one   a PNG or JPEG
     * @param other the same
     * @throws IOException where either can't be decoded, or they are not of one size; its message is a sentence
     */
    public static PictureDifference of(byte[] one, byte[] other) throws IOException {
        BufferedImage a = decode(one, "first");
        BufferedImage b = decode(other, "second");
        if (a.getWidth() != b.getWidth() || a.getHeight() != b.getHeight()) {
            throw new IOException("The first picture has " + a.getWidth() + " × " + a.getHeight()
                    + " pixels, the second " + b.getWidth() + " × " + b.getHeight()
                    + "; only pictures of one size can be compared.");
        }
        return new PictureDifference(a, b);
    }

    private static BufferedImage decode(byte[] file, String which) throws IOException {
        try {
            return ImageFile.decode(file, MOST_PIXELS);
        } catch (IOException e) {
            throw new IOException("The " + which + " picture is damaged, or neither PNG nor JPEG.", e);
        }
    }

    /** Over all pixels. */
    public double mean() {
        return mean;
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
        return most < SEEN ? Word.NONE : most < NearTwins.DIFFERENCE ? Word.BESIDE : Word.PLAIN;
    }

    /**
     * The other picture as it would be if it differed from the one so many times as much, as a PNG; colours that sRGB can't
     * show become the nearest of their lightness and hue.
     *
     * @param times 1 for the other picture itself, up to {@link #MOST_TIMES}
     */
    public byte[] exaggerated(double times) {
        int width = one.getWidth();
        int height = one.getHeight();
        byte[] rgb = new byte[3 * width * height];
        for (int i = 0; i < width * height; i++) {
            int x = i % width;
            int y = (i - x) / width;
            int shown = further(one.getRGB(x, y), other.getRGB(x, y), times);
            rgb[3 * i] = (byte) (shown >> 16);
            rgb[3 * i + 1] = (byte) (shown >> 8);
            rgb[3 * i + 2] = (byte) shown;
        }
        return Png.encode(width, height, rgb, 96);
    }

    private static int further(int from, int to, double times) {
        if (from == to) {
            return to;
        }
        CieLab a = lab(from);
        CieLab b = lab(to);
        double l = further(a.l(), b.l(), times);
        return Srgb.toPacked(
                new CieLab(Math.max(0, Math.min(100, l)), further(a.a(), b.a(), times), further(a.b(), b.b(), times))
                        .toSrgbGamut());
    }

    private static double further(double from, double to, double times) {
        return from + times * (to - from);
    }
}
