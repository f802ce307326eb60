package app.zolvan.core.render.sample;

/** Directions told by an axis. */
public final class Directions {
    private Directions() {}

    /**
     * The direction that stands at an angle to an axis of unit length, turned about it; for even random turns (the frame is
     * that of Duff et al. 2017).
     *
     * @param cosine of the angle to the axis
     * @param turn   about it, in radians
     * @param out    x, y, z
     */
    public static void about(double x, double y, double z, double cosine, double turn, double[] out) {
        double sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
        double sign = Math.copySign(1, z);
        double a = -1 / (sign + z);
        double b = x * y * a;
        double cx = sine * StrictMath.cos(turn);
        double cy = sine * StrictMath.sin(turn);
        out[0] = cx * (1 + sign * x * x * a) + cy * b + cosine * x;
        out[1] = cx * sign * b + cy * (sign + y * y * a) + cosine * y;
        out[2] = -cx * sign * x - cy * y + cosine * z;
    }
}
