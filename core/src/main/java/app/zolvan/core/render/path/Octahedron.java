package app.zolvan.core.render.path;

/** The sphere of directions unfolded to a square, [0, 1) each way, by way of an octahedron (Meyer et al. 2010). */
final class Octahedron {
    private Octahedron() {}

    static double u(double x, double y, double z) {
        double n = 1 / (Math.abs(x) + Math.abs(y) + Math.abs(z));
        return clamp(z >= 0 ? x * n : (1 - Math.abs(y * n)) * sign(x));
    }

    static double v(double x, double y, double z) {
        double n = 1 / (Math.abs(x) + Math.abs(y) + Math.abs(z));
        return clamp(z >= 0 ? y * n : (1 - Math.abs(x * n)) * sign(y));
    }

    private static double clamp(double s) {
        return Math.max(0, Math.min(1 - 0x1p-25, 0.5 + 0.5 * s)); // below 1 as a float, too
    }

    private static double sign(double s) {
        return s < 0 ? -1 : 1;
    }

    /** What a unit of density over the square (of area 1) is per steradian in a unit direction. */
    static double perSteradian(double x, double y, double z) {
        double l1 = Math.abs(x) + Math.abs(y) + Math.abs(z);
        return 0.25 / (l1 * l1 * l1);
    }

    /** The unit direction of a point of the square. */
    static void direction(double u, double v, double[] out) {
        double x = 2 * u - 1;
        double y = 2 * v - 1;
        double z = 1 - Math.abs(x) - Math.abs(y);
        if (z < 0) {
            double fold = x;
            x = (1 - Math.abs(y)) * sign(fold);
            y = (1 - Math.abs(fold)) * sign(y);
        }
        double l = 1 / Math.sqrt(x * x + y * y + z * z);
        out[0] = x * l;
        out[1] = y * l;
        out[2] = z * l;
    }
}
