package app.zolvan.core.texture;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.TextureUse.RealSize;
import java.awt.image.BufferedImage;
import java.util.Arrays;
import java.util.List;

/**
 * Makes copies of a picture meet without a seam. Both ways, a strip at one edge is laid over the strip at the other, so that
 * what is left of the picture goes on where it began, and the two are joined along the {@link SeamCut least conspicuous line}.
 * Before that, what the one edge is lighter than the other is evened out over the whole picture. How wide the strips are is
 * found so that a regular pattern meets itself.
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

    private static final int WIDEST = 2;
    /** How much worse a strip as wide as the side may fit than one without width: pictures are worth keeping. */
    private static final double WASTE = 1;
    /** About as many pixels a side as a regular pattern is looked for on. */
    private static final int COARSE = 192;
    /** Rows that are compared to find the width to the pixel. */
    private static final int COMPARED = 256;
    /** Over how many pixels to either side of the cut, twice, the one goes over into the other. */
    private static final int SOFT = 1;
    /** So far from the ends of the strip that it is not mixed there. */
    private static final int ROOM = 2 * SOFT + 1;
    /** What each pixel of the cut costs, as a square of codes, so that it does not wander. */
    private static final float LENGTH = 1;
    /** How far around a pixel its means are taken. */
    private static final int AROUND = 4;
    /** Light changes over at least this share of a side. */
    private static final int SLOWLY = 4;

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
        Lap along = lap(channels, stripU);
        return new EdgeFit(
                along, lap(channels.stream().map(p -> along.of(p).turned()).toList(), stripV));
    }

    private static Lap lap(List<Plane> channels, int strip) {
        float[] cost = new float[strip * channels.get(0).height()];
        for (Plane p : channels) {
            Plane even = even(p, strip);
            float[] end = even.columns(p.width() - strip, strip).values();
            float[] begin = even.columns(0, strip).values();
            for (int i = 0; i < cost.length; i++) {
                float d = begin[i] - end[i];
                cost[i] += d * d;
            }
        }
        Plane smooth =
                new Plane(strip, cost.length / strip, cost).blurredAlong(1).blurredRound(1); // grain leads nowhere
        float[] dear = smooth.values();
        for (int i = 0; i < dear.length; i++) {
            dear[i] += LENGTH;
        }
        return new Lap(channels.get(0).width(), strip, SeamCut.through(dear, strip, Math.min(ROOM, (strip - 1) / 2)));
    }

    /** What is left of one repeat, so that nothing on it changes its size. */
    public RealSize left(RealSize size) {
        return new RealSize(size.width() * along.left() / along.side, size.height() * up.left() / up.side);
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

    /**
     * A channel whose two ends are equally light where they lie over one another: what they differ by, as it changes slowly
     * from row to row, is spread over the whole width, and its mean stays.
     */
    private static Plane even(Plane p, int strip) {
        int period = p.width() - strip;
        float[] differs = new float[p.height()];
        for (int y = 0; y < p.height(); y++) {
            double sum = 0;
            for (int x = 0; x < strip; x++) {
                sum += p.values()[y * p.width() + x] - p.values()[y * p.width() + period + x];
            }
            differs[y] = (float) (sum / strip);
        }
        int reach = Math.min(p.height() / SLOWLY, (p.height() - 1) / 2);
        float[] slowly = new Plane(1, p.height(), differs)
                .blurredRound(reach)
                .blurredRound(reach)
                .values();
        float[] to = p.values().clone();
        for (int y = 0; y < p.height(); y++) {
            for (int x = 0; x < p.width(); x++) {
                to[y * p.width() + x] += slowly[y] * (x - (p.width() - 1) / 2f) / period;
            }
        }
        return new Plane(p.width(), p.height(), to);
    }

    /**
     * How wide the strip is with which the two ends differ least: found coarsely, then to the pixel. Looked for where the
     * picture changes from pixel to pixel: joints are where they are, whatever the tones of the pieces between them.
     */
    private static int strip(List<Plane> channels, boolean upward) {
        Plane p = channels.get(1);
        Plane green = upward ? p.turned() : p;
        int side = green.width();
        int step = Math.max(1, Math.min(side, green.height()) / COARSE);
        int least = Math.max(4, side / NARROWEST);
        int most = side / WIDEST;
        int near = step * nearest(green.coarse(step).steps(), Math.max(1, least / step), most / step);
        if (step == 1) {
            return near;
        }
        Plane fine = green.steps().fewer(Math.max(1, green.height() / COMPARED));
        return nearest(fine, Math.max(least, near - step), Math.min(most, near + step));
    }

    private static int nearest(Plane p, int least, int most) {
        int best = least;
        double smallest = Double.POSITIVE_INFINITY;
        for (int m = least; m <= most; m++) {
            double differs = (p.differs(m) / m + 1e-3) * (1 + WASTE * m / p.width());
            if (differs < smallest) {
                smallest = differs;
                best = m;
            }
        }
        return best;
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
            Plane even = even(p, strip);
            Strip end = Strip.of(even.columns(left(), strip));
            Strip begin = Strip.of(even.columns(0, strip));
            Plane share = share();
            double alike = alike(end.details, begin.details, share.values());
            Plane to = even.columns(0, left());
            for (int y = 0; y < p.height(); y++) {
                for (int x = 0; x < strip; x++) {
                    int i = y * strip + x;
                    double b = share.values()[i];
                    double a = 1 - b;
                    // what is mixed of two that are not alike would be fainter than either
                    double kept = Math.sqrt(a * a + b * b + 2 * alike * a * b);
                    double details = (a * end.details[i] + b * begin.details[i]) / kept;
                    to.values()[y * left() + x] = (float) (a * end.means[i] + b * begin.means[i] + details);
                }
            }
            return to;
        }

        /** How much of each pixel of the strip is of the beginning: all beyond the cut, and part of it around. */
        private Plane share() {
            float[] beyond = new float[strip * cut.length];
            for (int y = 0; y < cut.length; y++) {
                Arrays.fill(beyond, y * strip + cut[y], (y + 1) * strip, 1);
            }
            int round = Math.min(SOFT, (cut.length - 1) / 2);
            return new Plane(strip, cut.length, beyond)
                    .blurredAlong(SOFT)
                    .blurredRound(round)
                    .blurredRound(round);
        }

        /** Correlation of the details that are mixed along the cut, from 0 to 1. */
        private static double alike(float[] end, float[] begin, float[] share) {
            double both = 0;
            double first = 1e-6;
            double second = 1e-6;
            for (int i = 0; i < share.length; i++) {
                if (share[i] > 0 && share[i] < 1) {
                    both += (double) end[i] * begin[i];
                    first += (double) end[i] * end[i];
                    second += (double) begin[i] * begin[i];
                }
            }
            return Math.max(0, both / Math.sqrt(first * second));
        }
    }

    /** Means around each pixel of a strip, and the details that make them up to it. */
    private record Strip(float[] details, float[] means) {
        static Strip of(Plane strip) {
            Plane means = strip.blurredAlong(AROUND).blurredRound(Math.min(AROUND, (strip.height() - 1) / 2));
            return new Strip(strip.minus(means).values(), means.values());
        }
    }
}
