package app.zolvan.core.context;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;

/**
 * Where a model that was added to another stands. Its foot, the middle of the underside of its own box, is scaled and
 * turned about and put on a point.
 *
 * @param at      where the foot stands in the world, in metres
 * @param degrees turns about z first, then x, then the upright y
 * @param scale   how many times its own size it has
 */
public record Placement(Vec3 at, Vec3 degrees, double scale) {
    /** Models are placed within so many metres of the origin; farther out positions are rounded. */
    public static final double REACH = 1e5;

    public static final double SMALLEST = 1e-3;
    public static final double LARGEST = 1e3;

    public static Placement standingAt(Vec3 at) {
        return new Placement(at, Vec3.ZERO, 1);
    }

    /** Added models stand so far from what is there, as a share of their own size. */
    private static final double BESIDE = 0.25;

    /**
     * To the right of all that is there, on the level that the design stands on.
     *
     * @param there  the box around that
     * @param design the box around the design
     * @param own    the box of what is added, in its own space
     */
    public static Placement beside(Box3 there, Box3 design, Box3 own) {
        Vec3 size = own.size();
        double x = there.max().x() + size.x() / 2 + BESIDE * Math.max(size.x(), size.z());
        Vec3 middle = footOf(design);
        return standingAt(new Vec3(x, middle.y(), middle.z()));
    }

    /** Whether every number is one that a model can be placed by. */
    public boolean isWithinReach() {
        for (int k = 0; k < 3; k++) {
            if (!(Math.abs(at.get(k)) <= REACH) || !Double.isFinite(degrees.get(k))) {
                return false;
            }
        }
        return scale >= SMALLEST && scale <= LARGEST;
    }

    public Placement movedTo(Vec3 other) {
        return new Placement(other, degrees, scale);
    }

    /** The middle of a box's underside. */
    public static Vec3 footOf(Box3 box) {
        return new Vec3(
                (box.min().x() + box.max().x()) / 2,
                box.min().y(),
                (box.min().z() + box.max().z()) / 2);
    }

    /** From the model's own space to the world. */
    public Transform transform(Vec3 foot) {
        Transform turned = turn(1).after(turn(0)).after(turn(2)).after(Transform.scale(scale, scale, scale));
        return Transform.translation(at.x(), at.y(), at.z())
                .after(turned)
                .after(Transform.translation(-foot.x(), -foot.y(), -foot.z()));
    }

    private Transform turn(int axis) {
        return Transform.rotation(Vec3.axis(axis), Math.toRadians(degrees.get(axis)));
    }
}
