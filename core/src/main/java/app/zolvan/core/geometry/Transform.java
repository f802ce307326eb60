package app.zolvan.core.geometry;

import java.io.Serializable;
import java.util.Arrays;

/**
 * An affine transform of three-dimensional space, kept as a 4 × 4 matrix in column-major order, as glTF writes it.
 * Immutable. The last row is always (0, 0, 0, 1).
 */
public final class Transform implements Serializable {
    public static final Transform IDENTITY =
            new Transform(new double[] {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1});

    private final double[] m;

    private Transform(double[] m) {
        this.m = m;
    }

    /** @param columns 16 numbers in column-major order; the last row is taken as (0, 0, 0, 1) */
    public static Transform ofColumns(double[] columns) {
        double[] m = Arrays.copyOf(columns, 16);
        m[3] = m[7] = m[11] = 0;
        m[15] = 1;
        return new Transform(m);
    }

    public static Transform translation(double x, double y, double z) {
        return new Transform(new double[] {1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, x, y, z, 1});
    }

    public static Transform scale(double x, double y, double z) {
        return new Transform(new double[] {x, 0, 0, 0, 0, y, 0, 0, 0, 0, z, 0, 0, 0, 0, 1});
    }

    /**
     * Scale, then turn, then move, as a glTF node combines them.
     *
     * @param t translation, 3 numbers
     * @param q rotation as a quaternion (x, y, z, w); normalised here
     * @param s scale, 3 numbers
     */
    public static Transform ofTrs(double[] t, double[] q, double[] s) {
        double l = Math.sqrt(q[0] * q[0] + q[1] * q[1] + q[2] * q[2] + q[3] * q[3]);
        double x = l > 0 ? q[0] / l : 0;
        double y = l > 0 ? q[1] / l : 0;
        double z = l > 0 ? q[2] / l : 0;
        double w = l > 0 ? q[3] / l : 1;
        return new Transform(new double[] {
            (1 - 2 * (y * y + z * z)) * s[0],
            2 * (x * y + z * w) * s[0],
            2 * (x * z - y * w) * s[0],
            0,
            2 * (x * y - z * w) * s[1],
            (1 - 2 * (x * x + z * z)) * s[1],
            2 * (y * z + x * w) * s[1],
            0,
            2 * (x * z + y * w) * s[2],
            2 * (y * z - x * w) * s[2],
            (1 - 2 * (x * x + y * y)) * s[2],
            0,
            t[0],
            t[1],
            t[2],
            1
        });
    }

    /** A turn by {@code angle} radians about a unit axis through the origin. */
    public static Transform rotation(Vec3 axis, double angle) {
        double s = Math.sin(angle / 2);
        return ofTrs(
                new double[3],
                new double[] {axis.x() * s, axis.y() * s, axis.z() * s, Math.cos(angle / 2)},
                new double[] {1, 1, 1});
    }

    /** This transform applied after {@code first}: the matrix product this × first. */
    public Transform after(Transform first) {
        double[] r = new double[16];
        for (int c = 0; c < 4; c++) {
            for (int row = 0; row < 4; row++) {
                double sum = 0;
                for (int k = 0; k < 4; k++) {
                    sum += m[k * 4 + row] * first.m[c * 4 + k];
                }
                r[c * 4 + row] = sum;
            }
        }
        return new Transform(r);
    }

    public Vec3 point(Vec3 p) {
        return direction(p).plus(new Vec3(m[12], m[13], m[14]));
    }

    public Vec3 direction(Vec3 d) {
        return new Vec3(
                m[0] * d.x() + m[4] * d.y() + m[8] * d.z(),
                m[1] * d.x() + m[5] * d.y() + m[9] * d.z(),
                m[2] * d.x() + m[6] * d.y() + m[10] * d.z());
    }

    /** A surface normal carried along: by the inverse transpose, at length 1, outward also after a mirroring. */
    public Vec3 normal(Vec3 n) {
        Vec3 x = new Vec3(m[0], m[1], m[2]);
        Vec3 y = new Vec3(m[4], m[5], m[6]);
        Vec3 z = new Vec3(m[8], m[9], m[10]);
        // the cofactor matrix is the inverse transpose times the determinant
        Vec3 r = y.cross(z)
                .times(n.x())
                .plus(z.cross(x).times(n.y()))
                .plus(x.cross(y).times(n.z()));
        double l = determinant() < 0 ? -r.length() : r.length();
        return l == 0 ? n : r.times(1 / l);
    }

    /** Determinant of the linear part: the factor by which volumes grow, negative for a mirroring. */
    public double determinant() {
        return m[0] * (m[5] * m[10] - m[6] * m[9])
                - m[4] * (m[1] * m[10] - m[2] * m[9])
                + m[8] * (m[1] * m[6] - m[2] * m[5]);
    }

    /**
     * The transform that undoes this one.
     *
     * @throws ArithmeticException where there is none: the transform flattens space
     */
    public Transform inverse() {
        double d = determinant();
        if (!(Math.abs(d) > 0) || Double.isInfinite(d)) {
            throw new ArithmeticException("a transform that flattens space has no inverse");
        }
        double[] r = new double[16];
        r[0] = (m[5] * m[10] - m[6] * m[9]) / d;
        r[1] = (m[2] * m[9] - m[1] * m[10]) / d;
        r[2] = (m[1] * m[6] - m[2] * m[5]) / d;
        r[4] = (m[6] * m[8] - m[4] * m[10]) / d;
        r[5] = (m[0] * m[10] - m[2] * m[8]) / d;
        r[6] = (m[2] * m[4] - m[0] * m[6]) / d;
        r[8] = (m[4] * m[9] - m[5] * m[8]) / d;
        r[9] = (m[1] * m[8] - m[0] * m[9]) / d;
        r[10] = (m[0] * m[5] - m[1] * m[4]) / d;
        for (int k = 0; k < 3; k++) {
            r[12 + k] = -(r[k] * m[12] + r[4 + k] * m[13] + r[8 + k] * m[14]);
        }
        r[15] = 1;
        return new Transform(r);
    }

    /** The mean factor by which lengths grow: the cube root of the volume's. */
    public double meanScale() {
        return Math.cbrt(Math.abs(determinant()));
    }

    /** How much the three local axes are stretched: the lengths of the matrix's columns. */
    public Vec3 stretch() {
        return new Vec3(
                Math.sqrt(m[0] * m[0] + m[1] * m[1] + m[2] * m[2]),
                Math.sqrt(m[4] * m[4] + m[5] * m[5] + m[6] * m[6]),
                Math.sqrt(m[8] * m[8] + m[9] * m[9] + m[10] * m[10]));
    }

    public boolean isFinite() {
        return Arrays.stream(m).allMatch(Double::isFinite);
    }

    /** The 16 numbers in column-major order; a copy. */
    public double[] columns() {
        return m.clone();
    }

    @Override
    public boolean equals(Object o) {
        return o instanceof Transform t && Arrays.equals(m, t.m);
    }

    @Override
    public int hashCode() {
        return Arrays.hashCode(m);
    }

    @Override
    public String toString() {
        return "Transform" + Arrays.toString(m);
    }
}
