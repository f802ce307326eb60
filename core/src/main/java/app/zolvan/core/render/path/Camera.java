package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Vec3;

/**
 * A pinhole view.
 *
 * @param fieldOfView vertical, in radians
 */
public record Camera(Vec3 position, Vec3 target, Vec3 up, double fieldOfView) {
    private static final double STANDARD_FIELD = Math.toRadians(32);

    /** The view in which the stage first shows a model: from the front, a little right and above, filling the frame. */
    public static Camera framing(Box3 box, double aspect) {
        Vec3 centre = box.min().plus(box.max()).times(0.5);
        double radius = box.max().minus(box.min()).length() / 2;
        double half = STANDARD_FIELD / 2;
        double narrow = Math.min(half, StrictMath.atan(StrictMath.tan(half) * aspect));
        Vec3 direction = new Vec3(0.55, 0.3, 1).normalised();
        return new Camera(
                centre.plus(direction.times(radius / StrictMath.sin(narrow) * 0.98)),
                centre,
                Vec3.axis(1),
                STANDARD_FIELD);
    }
}
