package app.zolvan.core.render.scene;

import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.texture.Chance;

/**
 * Flakes in a finish. Space is parted into cells about one scattered point in each cube of a grid (Worley 1996); a surface
 * that cuts through them shows flakes with the outlines of its cells. A flake is a mirror a little blurred that lies askew:
 * flakes lie in such a spread that seen from afar, many in a pixel, they blur as the surface's roughness says. What a ray
 * sees of more than one of them at once it sees so blurred, so that nothing flickers.
 */
final class Flakes {
    /** Facets of one flake, in the surface's: the rest of the blur is how flakes lie. */
    private static final double OWN = 0.3;

    private static final double SHARPEST = 0.04;
    /** The share of flakes that lie flatter than the steepest. */
    private static final double RAREST = 0.9;
    /**
     * How widths of GGX add up: as its tails lie between Gauss's (2) and Cauchy's (1); where many flakes blur most like the
     * surface without.
     */
    private static final double ADDING = 1.4;

    private Flakes() {}

    /**
     * Sets roughness and tilt of a surface to those of the flake at a point; leaves them where there is none.
     *
     * @param footprint width of what the ray sees there, in metres
     */
    static void lay(SurfaceValues s, double x, double y, double z, double footprint) {
        double alone = 1 - smooth((footprint / s.flakeSize - 0.5) / 1.5);
        double alpha = s.roughness * s.roughness;
        double own = Math.max(OWN * alpha, SHARPEST * SHARPEST);
        if (alone <= 0 || own >= alpha) {
            return;
        }
        long flake = nearest(x / s.flakeSize, y / s.flakeSize, z / s.flakeSize);
        if (unit(flake, 1) >= s.flakes) {
            return;
        }
        double spread = alone * rest(alpha, own);
        double drawn = Math.min(RAREST, unit(flake, 2));
        double slope = spread * Math.sqrt(drawn / (1 - drawn)); // as GGX's facets lie
        double around = 2 * Math.PI * unit(flake, 3);
        s.tiltX = slope * StrictMath.cos(around);
        s.tiltY = slope * StrictMath.sin(around);
        s.roughness = Math.sqrt(rest(alpha, spread));
    }

    /** The width that has to be added to one to make another. */
    private static double rest(double whole, double part) {
        double left = StrictMath.pow(whole, ADDING) - StrictMath.pow(part, ADDING);
        return StrictMath.pow(Math.max(0, left), 1 / ADDING);
    }

    /** The number of the cell's point that is nearest. */
    private static long nearest(double x, double y, double z) {
        long ix = (long) Math.floor(x);
        long iy = (long) Math.floor(y);
        long iz = (long) Math.floor(z);
        double least = Double.MAX_VALUE;
        long found = 0;
        for (long cz = iz - 1; cz <= iz + 1; cz++) {
            for (long cy = iy - 1; cy <= iy + 1; cy++) {
                for (long cx = ix - 1; cx <= ix + 1; cx++) {
                    long h = Chance.mixed(cx * Chance.STEP ^ Chance.mixed(cy * Chance.STEP ^ Chance.mixed(cz)));
                    double dx = cx + unit(h, 4) - x;
                    double dy = cy + unit(h, 5) - y;
                    double dz = cz + unit(h, 6) - z;
                    double d = dx * dx + dy * dy + dz * dz;
                    if (d < least) {
                        least = d;
                        found = h;
                    }
                }
            }
        }
        return found;
    }

    private static double unit(long h, int which) {
        return Chance.unit(h + which * Chance.STEP);
    }

    private static double smooth(double t) {
        double c = Math.max(0, Math.min(1, t));
        return c * c * (3 - 2 * c);
    }
}
