package app.zolvan.core.render.path;

import app.zolvan.core.light.Lamp;

/**
 * A sun as paths meet it: the way to its middle, 1 − cosine of its radius, the density of its directions per steradian, and
 * its radiance E/(π sin² radius) in units of 1,000 cd/m².
 */
record Disc(double x, double y, double z, double span, double pdf, double r, double g, double b, int circuit) {
    private static final double CD_PER_UNIT = 1000;

    static Disc of(Lamp.Sun sun) {
        double half = StrictMath.sin(sun.radius() / 2);
        double span = 2 * half * half;
        double sine = StrictMath.sin(sun.radius());
        double scale = 1 / (Math.PI * sine * sine * CD_PER_UNIT);
        return new Disc(
                sun.towards().x(),
                sun.towards().y(),
                sun.towards().z(),
                span,
                1 / (2 * Math.PI * span),
                scale * sun.illuminance().r(),
                scale * sun.illuminance().g(),
                scale * sun.illuminance().b(),
                sun.circuit());
    }

    /** What share of its radiance is the irradiance of ground that faces the zenith. */
    double onTheGround() {
        return 2 * Math.PI * span * Math.max(0, y);
    }

    /** Whether a unit direction leads to it. */
    boolean isMet(double dx, double dy, double dz) {
        return dx * x + dy * y + dz * z >= 1 - span;
    }
}
