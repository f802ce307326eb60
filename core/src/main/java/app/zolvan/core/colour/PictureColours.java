package app.zolvan.core.colour;

import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.SplittableRandom;

/**
 * What colours a picture, or a rectangle of it, is made of. Means are taken in linear light, where light adds up;
 * a palette is found by k-means in OKLab, where distances are what the eye sees.
 */
public final class PictureColours {
    private static final int ROUNDS = 40;
    /** The most pixels that are looked at for a palette. */
    private static final int MOST = 40_000;

    private final int width;
    private final int height;
    /** Linear, three a pixel. */
    private final double[] rgb;

    /** A picture whose components are sRGB-encoded. */
    public PictureColours(BufferedImage image) {
        width = image.getWidth();
        height = image.getHeight();
        rgb = new double[3 * width * height];
        int[] row = new int[width];
        for (int y = 0; y < height; y++) {
            image.getRGB(0, y, width, 1, row, 0, width);
            for (int x = 0; x < width; x++) {
                int at = 3 * (y * width + x);
                rgb[at] = Srgb.fromCode((row[x] >> 16) & 255);
                rgb[at + 1] = Srgb.fromCode((row[x] >> 8) & 255);
                rgb[at + 2] = Srgb.fromCode(row[x] & 255);
            }
        }
    }

    public int width() {
        return width;
    }

    public int height() {
        return height;
    }

    private LinearRgb at(int pixel) {
        return new LinearRgb(rgb[3 * pixel], rgb[3 * pixel + 1], rgb[3 * pixel + 2]);
    }

    /**
     * @param mean   in linear light
     * @param spread how far the pixels lie from it: the mean ΔE2000
     * @param at95   a pixel of which 95 % are no more coloured (CIELAB chroma)
     * @param at99   likewise 99 %
     */
    public record Area(LinearRgb mean, double spread, LinearRgb at95, LinearRgb at99) {}

    /** Of a rectangle, which is brought within the picture and has at least one pixel. */
    public Area area(int x, int y, int w, int h) {
        int x0 = Math.max(0, Math.min(width - 1, x));
        int y0 = Math.max(0, Math.min(height - 1, y));
        int x1 = Math.max(x0 + 1, Math.min(width, x + w));
        int y1 = Math.max(y0 + 1, Math.min(height, y + h));
        double n = (double) (x1 - x0) * (y1 - y0);
        LinearRgb mean = mean(x0, y0, x1, y1);
        CieLab middle = CieLab.of(mean);
        int step = (int) Math.max(1, Math.ceil(Math.sqrt(n / MOST)));
        double apart = 0;
        List<Coloured> pixels = new ArrayList<>();
        for (int j = y0; j < y1; j += step) {
            for (int i = x0; i < x1; i += step) {
                CieLab lab = CieLab.of(at(j * width + i));
                apart += lab.difference(middle);
                pixels.add(new Coloured(j * width + i, lab.chroma()));
            }
        }
        pixels.sort(Comparator.comparingDouble(Coloured::chroma));
        return new Area(mean, apart / pixels.size(), ranked(pixels, 0.95), ranked(pixels, 0.99));
    }

    private record Coloured(int pixel, double chroma) {}

    /** The first that a share of all does not exceed. */
    private LinearRgb ranked(List<Coloured> pixels, double share) {
        return at(pixels.get((int) Math.ceil(share * pixels.size()) - 1).pixel());
    }

    public Area whole() {
        return area(0, 0, width, height);
    }

    /**
     * @param x of a pixel
     */
    public record Spot(int x, int y, LinearRgb colour, double chroma) {}

    /**
     * Where the picture is most coloured: means of small squares, by their CIELAB chroma, no two of them touching.
     */
    public List<Spot> mostColoured(int count) {
        int side = Math.max(1, Math.min(width, height) / 48);
        List<Spot> squares = new ArrayList<>();
        for (int y = 0; y + side <= height; y += side) {
            for (int x = 0; x + side <= width; x += side) {
                LinearRgb mean = mean(x, y, x + side, y + side);
                squares.add(new Spot(
                        x + side / 2, y + side / 2, mean, CieLab.of(mean).chroma()));
            }
        }
        squares.sort(Comparator.comparingDouble(Spot::chroma).reversed());
        List<Spot> apart = new ArrayList<>();
        for (Spot s : squares) {
            boolean clear =
                    apart.stream().allMatch(o -> Math.max(Math.abs(o.x() - s.x()), Math.abs(o.y() - s.y())) > 3 * side);
            if (clear && apart.size() < count) {
                apart.add(s);
            }
        }
        return apart;
    }

    /** In linear light, from one corner up to before another. */
    private LinearRgb mean(int x0, int y0, int x1, int y1) {
        double r = 0;
        double g = 0;
        double b = 0;
        for (int j = y0; j < y1; j++) {
            for (int i = x0; i < x1; i++) {
                int p = 3 * (j * width + i);
                r += rgb[p];
                g += rgb[p + 1];
                b += rgb[p + 2];
            }
        }
        double n = (double) (x1 - x0) * (y1 - y0);
        return new LinearRgb(r / n, g / n, b / n);
    }

    /** @param share of the picture, in [0, 1] */
    public record Share(LinearRgb colour, double share) {}

    /**
     * The colours that a picture is made of, the largest share first: k-means in OKLab, begun at points far from one another
     * (Arthur & Vassilvitskii 2007). The same seed gives the same colours.
     *
     * @param count at most so many; fewer where the picture has fewer colours
     */
    public List<Share> palette(int count, long seed) {
        int pixels = width * height;
        int step = Math.max(1, pixels / MOST);
        int n = (pixels + step - 1) / step;
        double[] lab = new double[3 * n];
        for (int i = 0; i < n; i++) {
            OkLch c = OkLch.of(at(i * step));
            lab[3 * i] = c.lightness();
            lab[3 * i + 1] = c.a();
            lab[3 * i + 2] = c.b();
        }
        double[][] centres = begin(lab, n, count, new SplittableRandom(seed));
        int[] nearest = new int[n];
        for (int round = 0; round < ROUNDS; round++) {
            boolean moved = false;
            double[][] sums = new double[centres.length][4];
            for (int i = 0; i < n; i++) {
                int best = nearest(centres, lab, i);
                moved |= round == 0 || best != nearest[i];
                nearest[i] = best;
                double[] s = sums[best];
                s[0] += lab[3 * i];
                s[1] += lab[3 * i + 1];
                s[2] += lab[3 * i + 2];
                s[3]++;
            }
            for (int c = 0; c < centres.length; c++) {
                for (int k = 0; k < 3 && sums[c][3] > 0; k++) {
                    centres[c][k] = sums[c][k] / sums[c][3];
                }
            }
            if (!moved) {
                break;
            }
        }
        return shares(centres, nearest);
    }

    private static List<Share> shares(double[][] centres, int[] nearest) {
        double[] counts = new double[centres.length];
        for (int c : nearest) {
            counts[c]++;
        }
        List<Share> shares = new ArrayList<>();
        for (int c = 0; c < centres.length; c++) {
            if (counts[c] > 0) {
                OkLch colour = OkLch.ofLab(centres[c][0], centres[c][1], centres[c][2]);
                shares.add(new Share(colour.toSrgbGamut(), counts[c] / nearest.length));
            }
        }
        shares.sort(Comparator.comparingDouble(Share::share).reversed());
        return shares;
    }

    private static double[][] begin(double[] lab, int n, int count, SplittableRandom random) {
        List<double[]> centres = new ArrayList<>();
        double[] apart = new double[n];
        int first = random.nextInt(n);
        centres.add(new double[] {lab[3 * first], lab[3 * first + 1], lab[3 * first + 2]});
        while (centres.size() < count) {
            double[] newest = centres.get(centres.size() - 1);
            double sum = 0;
            for (int i = 0; i < n; i++) {
                double d = squared(newest, lab, i);
                apart[i] = centres.size() == 1 ? d : Math.min(apart[i], d);
                sum += apart[i];
            }
            if (sum < 1e-9 * n) { // every colour there is has been taken
                break;
            }
            double at = random.nextDouble() * sum;
            int i = 0;
            while (i < n - 1 && at >= apart[i]) {
                at -= apart[i++];
            }
            centres.add(new double[] {lab[3 * i], lab[3 * i + 1], lab[3 * i + 2]});
        }
        return centres.toArray(double[][]::new);
    }

    private static int nearest(double[][] centres, double[] lab, int i) {
        int best = 0;
        double least = Double.POSITIVE_INFINITY;
        for (int c = 0; c < centres.length; c++) {
            double d = squared(centres[c], lab, i);
            if (d < least) {
                least = d;
                best = c;
            }
        }
        return best;
    }

    private static double squared(double[] centre, double[] lab, int i) {
        double l = centre[0] - lab[3 * i];
        double a = centre[1] - lab[3 * i + 1];
        double b = centre[2] - lab[3 * i + 2];
        return l * l + a * a + b * b;
    }
}
