package app.zolvan.core.render.scene;

import app.zolvan.core.render.surface.SurfaceValues;

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
    private static final double WIDEST = 9; // −ln of the rarest slope

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
        double spread = alone * Math.sqrt(alpha * alpha - own * own);
        double slope = spread * Math.sqrt(Math.min(WIDEST, -StrictMath.log(1 - unit(flake, 2))));
        double around = 2 * Math.PI * unit(flake, 3);
        s.tiltX = slope * StrictMath.cos(around);
        s.tiltY = slope * StrictMath.sin(around);
        s.roughness = Math.sqrt(Math.sqrt(alpha * alpha - spread * spread));
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
                    long h = mixed(cx * 0x9E3779B97F4A7C15L ^ mixed(cy * 0xBF58476D1CE4E5B9L ^ mixed(cz)));
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
        return (mixed(h + which * 0x9E3779B97F4A7C15L) >>> 11) * 0x1.0p-53;
    }

    private static long mixed(long v) {
        long h = v;
        h = (h ^ (h >>> 30)) * 0xBF58476D1CE4E5B9L;
        h = (h ^ (h >>> 27)) * 0x94D049BB133111EBL;
        return h ^ (h >>> 31);
    }

    private static double smooth(double t) {
        double c = Math.max(0, Math.min(1, t));
        return c * c * (3 - 2 * c);
    }
}
