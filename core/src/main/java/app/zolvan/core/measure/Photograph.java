package app.zolvan.core.measure;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.texture.EdgeFit;
import app.zolvan.core.texture.EdgeFit.Holds;
import app.zolvan.core.texture.Straighten;
import java.awt.image.BufferedImage;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * What a photograph of a sample is good for: whether it shows a surface from edge to edge, straight on, sharp and large enough,
 * so that it can be laid side by side over a model.
 *
 * @param shows     what it shows
 * @param sharpness the finest details it holds, in pixels: 1 where neighbouring pixels differ as much as the rest suggests
 * @param tiles     whether its edges meet; a piece's, which are cut first, do not
 * @param corners   of the piece, x and y in pixels, from the upper left one clockwise; null where it fills the picture
 */
public record Photograph(int width, int height, Shows shows, double sharpness, boolean tiles, double[][] corners) {
    /** What a photograph shows. */
    public enum Shows {
        SURFACE,
        /** One piece of it on a plain ground, seen straight on. */
        PIECE,
        /** A piece, or a surface, seen at a slant. */
        SLANTED
    }

    /** A square of fewer pixels a side than this shows no texture. */
    public static final int SMALL = 256;
    /** Details larger than this many pixels look out of focus. */
    public static final double SOFT = 3;

    /** Colours of a plain ground lie this near to their mean, by ΔE2000. */
    private static final double PLAIN = 4;
    /** Share of the border that has to be plain for a ground to be one. */
    private static final double GROUND = 0.9;
    /** A corner that lies this far from where an upright rectangle has it, in shares of the shorter side, lies at a slant. */
    private static final double SLANT = 0.03;
    /** What is left out along each edge of a piece, so that nothing of the ground comes along. */
    private static final double INSET = 0.03;
    /** On a slope it is a half; sharp edges, which twice as large blocks meet twice as often, keep 1/√2. */
    private static final double KEPT = 0.68;
    /** Contrast below this, in L*, is noise. */
    private static final double NOISE = 0.25;

    public static Photograph of(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        PictureMeasure m = PictureMeasure.ofColours(image);
        double[][] corners = corners(image);
        Shows shows = corners == null ? Shows.SURFACE : isSlanted(corners) ? Shows.SLANTED : Shows.PIECE;
        boolean tiles = shows == Shows.SURFACE && m.tiles();
        return new Photograph(w, h, shows, sharpness(m.details()), tiles, corners);
    }

    /**
     * Where a picture is smooth, contrast halves from each size of detail to the next finer one, as it does on a slope; what is
     * in focus keeps most of it. The finest size at which clearly more than half of the contrast of the next coarser one is left.
     */
    private static double sharpness(double[] details) {
        int coarsest = -1;
        for (int k = 0; k < details.length; k++) {
            if (details[k] > NOISE) {
                coarsest = k;
                if (k + 1 < details.length && details[k] > KEPT * details[k + 1]) {
                    break;
                }
            }
        }
        return coarsest < 0 ? 1 : 1 << coarsest; // an even colour is as sharp as it gets
    }

    /** The same of a picture with other numbers of pixels, of which this one was looked at. */
    public Photograph of(int wide, int high) {
        if (wide == width && high == height) {
            return this;
        }
        double by = (double) wide / width;
        double[][] at = corners == null ? null : new double[4][];
        for (int i = 0; at != null && i < 4; i++) {
            at[i] = new double[] {corners[i][0] * by, corners[i][1] * by};
        }
        return new Photograph(wide, high, shows, sharpness * by, tiles, at);
    }

    /** Width over height of what it shows: of the piece, where there is one. */
    public double aspect() {
        double[] seen = corners == null ? new double[] {width, height} : Straighten.size(corners);
        return seen[0] / seen[1];
    }

    /** Whether the piece has to be cut out and straightened before it can be laid. */
    public boolean isMended() {
        return corners != null;
    }

    /** What is left of each side of what it shows once it is mended. */
    public double left() {
        return isMended() ? 1 - 2 * INSET : 1;
    }

    /**
     * The piece alone and upright.
     *
     * @param image the photograph, as large as this says
     */
    public BufferedImage mended(BufferedImage image) {
        return Straighten.of(image, corners, INSET);
    }

    /**
     * A photograph as it is laid side by side.
     *
     * @param repeat width and height of it, in metres
     */
    public record Laid(BufferedImage image, RealSize repeat) {}

    /**
     * The photograph as it can be laid: a piece cut out and upright, with edges that meet where that is wished.
     *
     * @param image the photograph, as large as this says
     * @param shown width and height of what is left of what it shows
     * @throws ParameterException where it is too small for its edges to be made to meet
     */
    public Laid laid(BufferedImage image, RealSize shown, boolean meet) {
        BufferedImage whole = isMended() ? mended(image) : image;
        if (!meet) {
            return new Laid(whole, shown);
        }
        EdgeFit fit = EdgeFit.of(whole);
        return new Laid(fit.cut(whole, Holds.COLOURS), fit.left(shown));
    }

    public boolean isSmall() {
        return (double) width * height < (double) SMALL * SMALL;
    }

    public boolean isSoft() {
        return sharpness > SOFT;
    }

    /** Whether it can be laid over a model as it is. */
    public boolean isUsable() {
        return shows == Shows.SURFACE && !isSmall();
    }

    /** What is wrong with it, a sentence each; nothing where all is well. */
    public List<String> remarks() {
        List<String> all = new ArrayList<>();
        if (shows == Shows.PIECE) {
            all.add("Shows a single piece on a plain ground; laid side by side its ground would show.");
        } else if (shows == Shows.SLANTED) {
            all.add("Taken at a slant; its pattern would lie crooked.");
        }
        if (isSmall()) {
            all.add("Only %d × %d pixels; nearby it would look washed out.".formatted(width, height));
        } else if (isSoft()) {
            all.add("Out of focus: no details finer than %.0f pixels.".formatted(sharpness));
        }
        if (shows == Shows.SURFACE && !tiles) {
            all.add("Its edges don’t meet; seams would show where it repeats.");
        }
        return all;
    }

    private static boolean isSlanted(double[][] c) {
        double left = (c[0][0] + c[3][0]) / 2;
        double right = (c[1][0] + c[2][0]) / 2;
        double top = (c[0][1] + c[1][1]) / 2;
        double bottom = (c[2][1] + c[3][1]) / 2;
        double[][] upright = {{left, top}, {right, top}, {right, bottom}, {left, bottom}};
        double least = SLANT * Math.min(right - left, bottom - top);
        for (int i = 0; i < 4; i++) {
            if (Math.hypot(c[i][0] - upright[i][0], c[i][1] - upright[i][1]) > least) {
                return true;
            }
        }
        return false;
    }

    /** Corners of what lies on a plain ground; null where there is no such ground. */
    private static double[][] corners(BufferedImage image) {
        int w = image.getWidth();
        int h = image.getHeight();
        List<LinearRgb> border = new ArrayList<>();
        for (int x = 0; x < w; x++) {
            border.add(colour(image, x, 0));
            border.add(colour(image, x, h - 1));
        }
        for (int y = 1; y + 1 < h; y++) {
            border.add(colour(image, 0, y));
            border.add(colour(image, w - 1, y));
        }
        CieLab ground = median(border);
        long plain = border.stream()
                .filter(c -> CieLab.of(c).difference(ground) < PLAIN)
                .count();
        if (plain < GROUND * border.size()) {
            return null;
        }
        // where x + y and x − y are least and greatest: the corners of whatever stands roughly upright
        double[] best = {
            Double.POSITIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.POSITIVE_INFINITY
        };
        double[][] at = new double[4][];
        long count = 0;
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                if (CieLab.of(colour(image, x, y)).difference(ground) < 2 * PLAIN) {
                    continue;
                }
                count++;
                double[] here = {x, y};
                double[] score = {x + y, x - y, x + y, x - y};
                boolean[] better = {score[0] < best[0], score[1] > best[1], score[2] > best[2], score[3] < best[3]};
                for (int i = 0; i < 4; i++) {
                    if (better[i]) {
                        best[i] = score[i];
                        at[i] = here;
                    }
                }
            }
        }
        boolean there = count > 0.02 * w * h && count < 0.97 * w * h;
        return there ? at : null;
    }

    private static LinearRgb colour(BufferedImage image, int x, int y) {
        return Srgb.fromPacked(image.getRGB(x, y));
    }

    private static CieLab median(List<LinearRgb> some) {
        double[] median = new double[3];
        for (int k = 0; k < 3; k++) {
            int axis = k;
            double[] sorted = some.stream()
                    .mapToDouble(c -> axis == 0
                            ? CieLab.of(c).l()
                            : axis == 1 ? CieLab.of(c).a() : CieLab.of(c).b())
                    .sorted()
                    .toArray();
            median[k] = sorted[sorted.length / 2];
        }
        return new CieLab(median[0], median[1], median[2]);
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Photograph p
                && width == p.width
                && height == p.height
                && shows == p.shows
                && sharpness == p.sharpness
                && tiles == p.tiles
                && Arrays.deepEquals(corners, p.corners);
    }

    @Override
    public int hashCode() {
        return 31 * width + height;
    }
}
