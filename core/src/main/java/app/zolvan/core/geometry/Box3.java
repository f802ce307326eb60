package app.zolvan.core.geometry;

import java.io.Serializable;

/** An axis-aligned box. An empty box has min = +∞ and max = −∞, so that joining it changes nothing. */
public record Box3(Vec3 min, Vec3 max) implements Serializable {
    public static final Box3 EMPTY = new Box3(
            new Vec3(Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY),
            new Vec3(Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY));

    public boolean contains(Vec3 p) {
        return p.x() >= min.x()
                && p.x() <= max.x()
                && p.y() >= min.y()
                && p.y() <= max.y()
                && p.z() >= min.z()
                && p.z() <= max.z();
    }

    public boolean isEmpty() {
        return min.x() > max.x();
    }

    public Box3 with(Vec3 p) {
        return new Box3(
                new Vec3(Math.min(min.x(), p.x()), Math.min(min.y(), p.y()), Math.min(min.z(), p.z())),
                new Vec3(Math.max(max.x(), p.x()), Math.max(max.y(), p.y()), Math.max(max.z(), p.z())));
    }

    public Box3 with(Box3 o) {
        return o.isEmpty() ? this : with(o.min).with(o.max);
    }

    /** Extents along the axes; zero for an empty box. */
    public Vec3 size() {
        return isEmpty() ? Vec3.ZERO : max.minus(min);
    }

    /** The box around this box's eight corners after the transform. */
    public Box3 transformed(Transform t) {
        if (isEmpty()) {
            return this;
        }
        Box3 box = EMPTY;
        for (int i = 0; i < 8; i++) {
            box = box.with(t.point(new Vec3(
                    (i & 1) == 0 ? min.x() : max.x(),
                    (i & 2) == 0 ? min.y() : max.y(),
                    (i & 4) == 0 ? min.z() : max.z())));
        }
        return box;
    }

    /** The same on all sides by so much larger. */
    public Box3 widened(double by) {
        Vec3 v = new Vec3(by, by, by);
        return new Box3(min.minus(v), max.plus(v));
    }

    /** Writes minimum x, y, z, maximum x, y, z, as {@link BoxTree} takes them. */
    public void put(double[] out, int at) {
        for (int k = 0; k < 3; k++) {
            out[at + k] = min.get(k);
            out[at + 3 + k] = max.get(k);
        }
    }

    /** The axis (0, 1 or 2) along which the box is longest; the lower axis on a tie. */
    public int longestAxis() {
        Vec3 s = size();
        return s.x() >= s.y() && s.x() >= s.z() ? 0 : s.y() >= s.z() ? 1 : 2;
    }
}
