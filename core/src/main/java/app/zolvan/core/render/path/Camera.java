package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Vec3;

/**
 * A pinhole view.
 *
 * @param fieldOfView vertical, in radians
 */
public record Camera(Vec3 position, Vec3 target, Vec3 up, double fieldOfView) {
    private static final double VERTICAL = 1 - 1e-12;
    private static final double STANDARD_FIELD = Math.toRadians(32);

    /** An upright view; straight up or down, what lies towards −z or z is at its top. */
    public static Camera upright(Vec3 position, Vec3 target, double fieldOfView) {
        Vec3 ahead = target.minus(position).normalised();
        Vec3 up = Math.abs(ahead.y()) > VERTICAL ? new Vec3(0, 0, Math.signum(ahead.y())) : Vec3.axis(1);
        return new Camera(position, target, up, fieldOfView);
    }

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
