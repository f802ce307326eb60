package app.zolvan.core.measure;

import app.zolvan.core.geometry.Vec3;

/**
 * What can be told of the pattern that a material's pictures lay over a surface.
 *
 * @param width          of one repeat, in metres
 * @param height         of one repeat, in metres
 * @param pixelsPerMetre of its coarsest picture
 * @param seamU          the worst of its pictures' steps across the left and right edges, as {@link PictureMeasure} ranks it
 * @param seamV          likewise top and bottom
 * @param busyness       contrast in L* that the eye sees from {@value #DISTANCE} m, each size of detail by how well the eye
 *                       sees such; 0 for an even surface
 * @param detail         the size of detail that adds most to it, in metres
 */
public record PatternMeasure(
        double width,
        double height,
        double pixelsPerMetre,
        double seamU,
        double seamV,
        double busyness,
        double detail) {
    /** From where it is looked at, in metres. */
    public static final double DISTANCE = 1;

    /** The trade's ways to say how much a surface asks to be looked at. */
    private enum Busy {
        PLAIN("plain", 0.4),
        QUIET("quiet", 2),
        LIVELY("lively", 6),
        BUSY("busy", Double.POSITIVE_INFINITY);

        private final String word;
        private final double below;

        Busy(String word, double below) {
            this.word = word;
            this.below = below;
        }
    }

    /** "plain", "quiet", "lively" or "busy". */
    public static String word(double busyness) {
        for (Busy b : Busy.values()) {
            if (busyness < b.below) {
                return b.word;
            }
        }
        throw new IllegalArgumentException("busyness is a number");
    }

    public String word() {
        return word(busyness);
    }

    public boolean tiles() {
        return seamU <= PictureMeasure.SEAM && seamV <= PictureMeasure.SEAM;
    }

    /**
     * The narrowest view in which each pixel of a still has a pixel of the pattern's own.
     *
     * @param pixels of the picture from left to right
     * @return in metres
     */
    public double sharpFrom(int pixels) {
        return pixels / pixelsPerMetre;
    }

    /** Whether it is as sharp as a still of so many pixels that shows the whole of a model. */
    public boolean isSharp(Vec3 modelSize, int pixels) {
        return framedWidth(modelSize) >= sharpFrom(pixels);
    }

    /** How wide a view of 16 : 10 is that shows a whole model from a corner, in metres. */
    static double framedWidth(Vec3 modelSize) {
        return Math.max(Math.hypot(modelSize.x(), modelSize.z()), 1.6 * modelSize.y());
    }

    /**
     * How well the eye sees stripes, at most 1 (Mannos & Sakrison 1974).
     *
     * @param frequency cycles a degree
     */
    static double sensitivity(double frequency) {
        double f = 0.114 * frequency;
        return Math.min(1, 2.6 * (0.0192 + f) * Math.exp(-Math.pow(f, 1.1)));
    }
}
