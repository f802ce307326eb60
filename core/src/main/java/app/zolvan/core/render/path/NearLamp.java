package app.zolvan.core.render.path;

/**
 * A place on a straight way through a cloudy medium from which a lamp is looked for: by even chances one by the angle that
 * the way takes up as seen from the lamp, so that places near it, where its light is strongest, are chosen more often (Kulla
 * & Fajardo 2012), or one where the medium would scatter. One object serves a thread.
 */
final class NearLamp {
    /** A lamp is taken to lie no nearer to the way, in metres. */
    private static final double NEAREST = 1e-6;

    /** How far on the way the place lies, in metres. */
    double at;
    /** With what density per metre it was chosen. */
    double density;

    /**
     * @param along      how far on the way it is nearest to the lamp, in metres; less than 0 where that is behind its beginning
     * @param aside      how far from the lamp it is there
     * @param way        how long it is, maybe infinite
     * @param extinction of the medium, per metre
     * @param which      in [0, 1), chooses between the two
     * @param where      in [0, 1)
     */
    void choose(double along, double aside, double way, double extinction, double which, double where) {
        double off = Math.max(NEAREST, aside);
        double from = StrictMath.atan(-along / off);
        double angle = StrictMath.atan((way - along) / off) - from;
        double scattered = -StrictMath.expm1(-extinction * way);
        at = which < 0.5
                ? along + off * StrictMath.tan(from + where * angle)
                : -StrictMath.log1p(-where * scattered) / extinction;
        at = Math.max(0, Math.min(way, at));
        double byAngle = off / (angle * (off * off + (at - along) * (at - along)));
        double byDepth = extinction * StrictMath.exp(-extinction * at) / scattered;
        density = (byAngle + byDepth) / 2;
    }
}
