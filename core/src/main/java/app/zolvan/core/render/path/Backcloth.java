package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Box3;

/**
 * What a model is shown before: a cloth behind it, even from side to side, that runs on under it as the ground. Light is not
 * changed by it; on the ground one sees how much of the light that would fall there the model takes, or adds. What the eye
 * sees straight or by way of clear bodies, it sees it before the cloth.
 *
 * @param top    its grey at the upper edge of the picture, scene-linear
 * @param bottom the same at the lower edge
 * @param ground how high the ground lies, in metres; −∞ for none
 */
public record Backcloth(double top, double bottom, double ground) {
    /** As a share of the design's size, the ground lies lower than what stands on it, so that the two don't touch. */
    private static final double BELOW = 1e-4;

    /** A cloth behind the model alone. */
    public Backcloth(double top, double bottom) {
        this(top, bottom, Double.NEGATIVE_INFINITY);
    }

    /** The same running on as the ground on which a design stands. */
    public Backcloth under(Box3 design) {
        return new Backcloth(
                top, bottom, design.min().y() - BELOW * design.size().length());
    }

    /** @param up 0 at the lower edge of the picture … 1 at the upper one */
    double grey(double up) {
        double t = Math.max(0, Math.min(1, up));
        return bottom + (top - bottom) * t * t * (3 - 2 * t);
    }
}
