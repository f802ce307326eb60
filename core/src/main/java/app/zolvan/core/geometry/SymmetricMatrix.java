package app.zolvan.core.geometry;

/** Symmetric 3 × 3 matrices given by xx, yy, zz, xy, xz, yz. */
public final class SymmetricMatrix {
    private SymmetricMatrix() {}

    /**
     * @param values     in ascending order
     * @param directions of unit length and across each other, in the same order
     */
    public record Eigen(double[] values, Vec3[] directions) {}

    /** Adds v vᵀ, so many times over, to the six numbers of a matrix. */
    public static void addSquare(double[] m, Vec3 v, double weight) {
        m[0] += weight * v.x() * v.x();
        m[1] += weight * v.y() * v.y();
        m[2] += weight * v.z() * v.z();
        m[3] += weight * v.x() * v.y();
        m[4] += weight * v.x() * v.z();
        m[5] += weight * v.y() * v.z();
    }

    /** As {@link #eigen(double, double, double, double, double, double)} of the six numbers of a matrix. */
    public static Eigen eigen(double[] m) {
        return eigen(m[0], m[1], m[2], m[3], m[4], m[5]);
    }

    /** The unit eigenvector of the smallest eigenvalue. */
    public static Vec3 leastDirection(double xx, double yy, double zz, double xy, double xz, double yz) {
        return eigen(xx, yy, zz, xy, xz, yz).directions[0];
    }

    /** Eigenvalues and eigenvectors by cyclic Jacobi rotations (Golub & Van Loan, 8.5). */
    public static Eigen eigen(double xx, double yy, double zz, double xy, double xz, double yz) {
        double[][] a = {{xx, xy, xz}, {xy, yy, yz}, {xz, yz, zz}};
        double[][] v = {{1, 0, 0}, {0, 1, 0}, {0, 0, 1}};
        for (int sweep = 0; sweep < 32; sweep++) {
            double off = a[0][1] * a[0][1] + a[0][2] * a[0][2] + a[1][2] * a[1][2];
            if (off <= 1e-30 * (a[0][0] * a[0][0] + a[1][1] * a[1][1] + a[2][2] * a[2][2])) {
                break;
            }
            rotate(a, v, 0, 1);
            rotate(a, v, 0, 2);
            rotate(a, v, 1, 2);
        }
        int least = a[0][0] <= a[1][1] && a[0][0] <= a[2][2] ? 0 : a[1][1] <= a[2][2] ? 1 : 2;
        int second = (least + 1) % 3;
        int third = (least + 2) % 3;
        int[] order = {least, a[second][second] <= a[third][third] ? second : third, 0};
        order[2] = 3 - order[0] - order[1];
        double[] values = new double[3];
        Vec3[] directions = new Vec3[3];
        for (int k = 0; k < 3; k++) {
            values[k] = a[order[k]][order[k]];
            directions[k] = new Vec3(v[0][order[k]], v[1][order[k]], v[2][order[k]]);
        }
        return new Eigen(values, directions);
    }

    private static void rotate(double[][] a, double[][] v, int p, int q) {
        if (a[p][q] == 0) {
            return;
        }
        double theta = (a[q][q] - a[p][p]) / (2 * a[p][q]);
        double t = Math.copySign(1, theta) / (Math.abs(theta) + Math.sqrt(theta * theta + 1));
        double c = 1 / Math.sqrt(t * t + 1);
        double s = t * c;
        for (int k = 0; k < 3; k++) {
            double x = a[k][p];
            double y = a[k][q];
            a[k][p] = c * x - s * y;
            a[k][q] = s * x + c * y;
        }
        for (int k = 0; k < 3; k++) {
            double x = a[p][k];
            double y = a[q][k];
            a[p][k] = c * x - s * y;
            a[q][k] = s * x + c * y;
            x = v[k][p];
            y = v[k][q];
            v[k][p] = c * x - s * y;
            v[k][q] = s * x + c * y;
        }
    }

    /** dᵀ A d. */
    public static double quadratic(double xx, double yy, double zz, double xy, double xz, double yz, Vec3 d) {
        return xx * d.x() * d.x()
                + yy * d.y() * d.y()
                + zz * d.z() * d.z()
                + 2 * (xy * d.x() * d.y() + xz * d.x() * d.z() + yz * d.y() * d.z());
    }
}
