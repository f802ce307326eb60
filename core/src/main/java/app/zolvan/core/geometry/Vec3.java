package app.zolvan.core.geometry;

import java.io.Serializable;

/** A point or direction in three dimensions, metres where it is a position. Immutable. */
public record Vec3(double x, double y, double z) implements Serializable {
    public static final Vec3 ZERO = new Vec3(0, 0, 0);

    public Vec3 plus(Vec3 o) {
        return new Vec3(x + o.x, y + o.y, z + o.z);
    }

    public Vec3 minus(Vec3 o) {
        return new Vec3(x - o.x, y - o.y, z - o.z);
    }

    public Vec3 times(double s) {
        return new Vec3(x * s, y * s, z * s);
    }

    public double dot(Vec3 o) {
        return x * o.x + y * o.y + z * o.z;
    }

    public Vec3 cross(Vec3 o) {
        return new Vec3(y * o.z - z * o.y, z * o.x - x * o.z, x * o.y - y * o.x);
    }

    public double length() {
        return Math.sqrt(dot(this));
    }

    /** The same direction at length 1; the zero vector stays zero. */
    public Vec3 normalised() {
        double l = length();
        return l > 0 ? times(1 / l) : this;
    }

    /** The component along axis 0 (x), 1 (y) or 2 (z). */
    public double get(int axis) {
        return axis == 0 ? x : axis == 1 ? y : z;
    }

    /** The components x, y, z. */
    public double[] toArray() {
        return new double[] {x, y, z};
    }

    /** The unit vector along axis 0 (x), 1 (y) or 2 (z). */
    public static Vec3 axis(int axis) {
        return new Vec3(axis == 0 ? 1 : 0, axis == 1 ? 1 : 0, axis == 2 ? 1 : 0);
    }
}
