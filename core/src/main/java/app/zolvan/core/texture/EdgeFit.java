package app.zolvan.core.texture;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.ParameterException;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.List;

/**
 * Makes copies of a picture meet without a seam. Both ways, a strip at one edge is laid over the strip at the other, so that
 * what is left of the picture goes on where it began; where the two lie over one another, details change along the
 * {@link SeamCut least conspicuous line}, and what is larger than details, such as uneven light, over the whole strip (two
 * bands of Burt and Adelson 1983). How wide the strips are is found so that a regular pattern meets itself.
 *
 * <p>Found once on the picture that shows most, and then done alike to all that lie with it.
 */
public final class EdgeFit {
    /** What the numbers of a picture are. */
    public enum Holds {
        /** Encoded by sRGB; their mean stays what it was. */
        COLOURS,
        NUMBERS,
        /** Unit vectors, each component from −1 to 1. */
        NORMALS
    }

    /** A picture with a side of fewer pixels than this shows too little to be cut. */
    private static final int LEAST = 32;

    private static final int RGB = 3;

    /** The strip is at least and at most this share of the side. */
    private static final int NARROWEST = 16;

    private static final int WIDEST = 3;
    /** How much worse a strip as wide as the side may fit than one without width: pictures are worth keeping. */
    private static final double WASTE = 2;
    /** About as many pixels a side as a regular pattern is looked for on. */
    private static final int COARSE = 192;
    /** Rows that are compared to find the width to the pixel. */
    private static final int COMPARED = 256;
    /** Over how many pixels to either side of the cut details change, at most, and as a share of the strip. */
    private static final int SOFTEST = 6;

    private static final int SOFT_SHARE = 12;

    /** What is larger than this share of the strip counts as uneven light. */
    private static final int LARGE = 6;

    /** What is done along u, rows one by one. */
    private final Lap along;
    /** What is done along v after that, columns one by one. */
    private final Lap up;

    private EdgeFit(Lap along, Lap up) {
        this.along = along;
        this.up = up;
    }

    /**
     * Finds how the edges of a picture are made to meet.
     *
     * @throws ParameterException where a side is shorter than {@value #LEAST} pixels
     */
    public static EdgeFit of(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        if (w < LEAST || h < LEAST) {
            throw new ParameterException(
                    "picture",
                    "A picture of fewer than " + LEAST + " pixels a side is too small to be cut. Take a larger one.");
        }
        List<Plane> channels = Plane.of(image).subList(0, RGB);
        int stripU = strip(channels, false);
        int stripV = strip(channels, true);
        float[] cost = new float[stripU * h];
        for (Plane p : channels) {
            addCost(p, stripU, cost);
        }
        Lap along = new Lap(w, stripU, SeamCut.through(cost, stripU, softness(stripU)));
        cost = new float[stripV * along.left()];
        for (Plane p : channels) {
            addCost(along.of(p).turned(), stripV, cost);
        }
        return new EdgeFit(along, new Lap(h, stripV, SeamCut.through(cost, stripV, softness(stripV))));
    }

    /** Share of the width that is left. */
    public double leftU() {
        return along.left() / (double) along.side;
    }

    /** Share of the height that is left. */
    public double leftV() {
        return up.left() / (double) up.side;
    }

    /** A picture that lies with the one that this was found on, cut alike; it may have other numbers of pixels. */
    public BufferedImage cut(BufferedImage image, Holds holds) {
        int h = image.getHeight();
        Lap alongHere = along.scaled(image.getWidth(), h);
        Lap upHere = up.scaled(h, alongHere.left());
        List<Plane> channels = Plane.of(image);
        boolean alpha = channels.size() > RGB;
        BufferedImage to = new BufferedImage(
                alongHere.left(), upHere.left(), alpha ? BufferedImage.TYPE_INT_ARGB : BufferedImage.TYPE_INT_RGB);
        int[] argb = new int[to.getWidth() * to.getHeight()];
        for (int k = 0; k < channels.size(); k++) {
            Plane before = channels.get(k);
            float[] after = upHere.of(alongHere.of(before).turned()).turned().values();
            if (holds == Holds.COLOURS && k < RGB) {
                keepMean(after, before.values());
            }
            for (int i = 0; i < argb.length; i++) {
                argb[i] |= Plane.code(after[i]) << Plane.shift(k);
            }
        }
        if (holds == Holds.NORMALS) {
            normalise(argb);
        }
        to.setRGB(0, 0, to.getWidth(), to.getHeight(), argb, 0, to.getWidth());
        return to;
    }

    private static void addCost(Plane p, int strip, float[] cost) {
        float[] end = Strip.of(p, p.width() - strip, strip).details;
        float[] begin = Strip.of(p, 0, strip).details;
        for (int i = 0; i < cost.length; i++) {
            float d = begin[i] - end[i];
            cost[i] += d * d;
        }
    }

    private static int softness(int strip) {
        return Math.max(1, Math.min(SOFTEST, strip / SOFT_SHARE));
    }

    /** How wide the strip is with which the two ends differ least: found coarsely, then to the pixel. */
    private static int strip(List<Plane> channels, boolean upward) {
        Plane first = channels.get(0);
        int side = upward ? first.height() : first.width();
        int rows = upward ? first.width() : first.height();
        int step = Math.max(1, Math.min(side, rows) / COARSE);
        List<Plane> coarse = new ArrayList<>();
        List<Plane> fine = new ArrayList<>();
        for (Plane p : channels) {
            Plane turned = upward ? p.turned() : p;
            coarse.add(even(turned.coarse(step)));
            fine.add(even(turned.fewer(Math.max(1, rows / COMPARED))));
        }
        int least = Math.max(4, side / NARROWEST);
        int most = side / WIDEST;
        int near = step * nearest(coarse, Math.max(1, least / step), most / step);
        return step == 1 ? near : nearest(fine, Math.max(least, near - step), Math.min(most, near + step));
    }

    /** Without what is larger than an eighth of the width. */
    private static Plane even(Plane p) {
        return p.minus(p.blurredAlong(Math.max(2, p.width() / 8)));
    }

    private static int nearest(List<Plane> planes, int least, int most) {
        int best = least;
        double smallest = Double.POSITIVE_INFINITY;
        for (int m = least; m <= most; m++) {
            int columns = m;
            double sum = planes.stream().mapToDouble(p -> p.differs(columns)).sum();
            double differs = (sum / m + 1e-3) * (1 + WASTE * m / planes.get(0).width());
            if (differs < smallest) {
                smallest = differs;
                best = m;
            }
        }
        return best;
    }

    private static double smooth(double t) {
        double s = Math.max(0, Math.min(1, t));
        return s * s * (3 - 2 * s);
    }

    /** Gives a channel the mean light that it had. */
    private static void keepMean(float[] codes, float[] before) {
        double wanted = meanLight(histogram(before), 1);
        double factor = 1;
        long[] now = histogram(codes);
        for (int pass = 0; pass < 8 && wanted > 0; pass++) { // what gets too light is cut off
            factor *= wanted / Math.max(1e-9, meanLight(now, factor));
        }
        brighten(codes, factor);
    }

    private static long[] histogram(float[] codes) {
        long[] all = new long[256];
        for (float c : codes) {
            all[Plane.code(c)]++;
        }
        return all;
    }

    private static double meanLight(long[] histogram, double factor) {
        double sum = 0;
        long n = 0;
        for (int i = 0; i < histogram.length; i++) {
            sum += histogram[i] * Math.min(1, factor * Srgb.fromCode(i));
            n += histogram[i];
        }
        return sum / n;
    }

    private static void brighten(float[] codes, double factor) {
        int fine = 16;
        float[] to = new float[255 * fine + 1];
        for (int i = 0; i < to.length; i++) {
            to[i] = (float) (255 * Srgb.encode(Math.min(1, factor * Srgb.decode(i / (255.0 * fine)))));
        }
        for (int i = 0; i < codes.length; i++) {
            codes[i] = to[Math.max(0, Math.min(to.length - 1, Math.round(fine * codes[i])))];
        }
    }

    private static void normalise(int[] argb) {
        for (int i = 0; i < argb.length; i++) {
            double x = (argb[i] >> 16 & 255) / 127.5 - 1;
            double y = (argb[i] >> 8 & 255) / 127.5 - 1;
            double z = Math.max(1e-3, (argb[i] & 255) / 127.5 - 1);
            double n = 127.5 / Math.sqrt(x * x + y * y + z * z);
            argb[i] = (argb[i] & 0xFF000000)
                    | Plane.code((float) (127.5 + n * x)) << 16
                    | Plane.code((float) (127.5 + n * y)) << 8
                    | Plane.code((float) (127.5 + n * z));
        }
    }

    /**
     * One way of the picture.
     *
     * @param side  before, in pixels
     * @param strip that is laid over the other end; its width is taken off the side
     * @param cut   for each row the column within the strip where details change
     */
    private record Lap(int side, int strip, int[] cut) {
        int left() {
            return side - strip;
        }

        /** The same for a picture with other numbers of pixels. */
        Lap scaled(int newSide, int rows) {
            if (newSide == side && rows == cut.length) {
                return this;
            }
            int newStrip = Math.max(1, (int) Math.round((double) strip * newSide / side));
            int[] newCut = new int[rows];
            for (int y = 0; y < rows; y++) {
                int there = (int) ((y + 0.5) * cut.length / rows);
                newCut[y] = (int) Math.min(newStrip - 1.0, (cut[there] + 0.5) * newStrip / strip);
            }
            return new Lap(newSide, newStrip, newCut);
        }

        /** A channel with one end laid over the other. */
        Plane of(Plane p) {
            int soft = softness(strip);
            Strip end = Strip.of(p, left(), strip);
            Strip begin = Strip.of(p, 0, strip);
            double alike = alike(end.details, begin.details, soft);
            Plane to = p.columns(0, left());
            for (int y = 0; y < p.height(); y++) {
                for (int x = 0; x < strip; x++) {
                    int i = y * strip + x;
                    double slow = smooth((x + 0.5) / strip);
                    double fast = smooth((x - cut[y] + soft + 0.5) / (2 * soft + 1));
                    // what is mixed of two that are not alike would be fainter than either
                    double kept = Math.sqrt((1 - fast) * (1 - fast) + fast * fast + 2 * alike * fast * (1 - fast));
                    double details = ((1 - fast) * end.details[i] + fast * begin.details[i]) / kept;
                    to.values()[y * left() + x] = (float) ((1 - slow) * end.large[i] + slow * begin.large[i] + details);
                }
            }
            return to;
        }

        /** Correlation of the details that are mixed along the cut, from 0 to 1. */
        private double alike(float[] end, float[] begin, int soft) {
            double both = 0;
            double first = 1e-6;
            double second = 1e-6;
            for (int y = 0; y < cut.length; y++) {
                for (int x = Math.max(0, cut[y] - soft); x <= Math.min(strip - 1, cut[y] + soft); x++) {
                    double a = end[y * strip + x];
                    double b = begin[y * strip + x];
                    both += a * b;
                    first += a * a;
                    second += b * b;
                }
            }
            return Math.max(0, both / Math.sqrt(first * second));
        }
    }

    /** What of a strip is larger than details, and the details that make it up to the strip. */
    private record Strip(float[] details, float[] large) {
        static Strip of(Plane channel, int x, int m) {
            Plane strip = channel.columns(x, m);
            int reach = Math.max(1, m / LARGE);
            int round = Math.min(reach, (strip.height() - 1) / 2);
            // rows are taken to go on where they begin, so that they still do afterwards
            Plane large = strip.blurredAlong(reach).blurredRound(round).blurredRound(round);
            return new Strip(strip.minus(large).values(), large.values());
        }
    }
}
