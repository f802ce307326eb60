package app.zolvan.core.ageing;

import app.zolvan.core.texture.Chance;

/** Value noise in space, smooth, in [0, 1] with mean ½; the same everywhere and always. */
final class SolidNoise {
    private SolidNoise() {}

    /** Octaves of halving size and weight. */
    static double fractal(double x, double y, double z, int octaves, int seed) {
        double sum = 0;
        double weight = 0.5;
        double whole = 0;
        double scale = 1;
        for (int o = 0; o < octaves; o++) {
            sum += weight * at(x * scale, y * scale, z * scale, seed + 31 * o);
            whole += weight;
            weight /= 2;
            scale *= 2;
        }
        // sums of octaves gather about the middle; spread again
        return Math.max(0, Math.min(1, 0.5 + 1.5 * (sum / whole - 0.5)));
    }

    static double at(double x, double y, double z, int seed) {
        long ix = (long) Math.floor(x);
        long iy = (long) Math.floor(y);
        long iz = (long) Math.floor(z);
        double fx = smooth(x - ix);
        double fy = smooth(y - iy);
        double fz = smooth(z - iz);
        double near = mix(
                mix(corner(ix, iy, iz, seed), corner(ix + 1, iy, iz, seed), fx),
                mix(corner(ix, iy + 1, iz, seed), corner(ix + 1, iy + 1, iz, seed), fx),
                fy);
        double far = mix(
                mix(corner(ix, iy, iz + 1, seed), corner(ix + 1, iy, iz + 1, seed), fx),
                mix(corner(ix, iy + 1, iz + 1, seed), corner(ix + 1, iy + 1, iz + 1, seed), fx),
                fy);
        return mix(near, far, fz);
    }

    private static double corner(long x, long y, long z, int seed) {
        return Chance.unit(
                x * Chance.STEP ^ y * 0xC2B2AE3D27D4EB4FL ^ z * 0x165667B19E3779F9L ^ seed * 0x27D4EB2F165667C5L);
    }

    private static double smooth(double t) {
        return t * t * (3 - 2 * t);
    }

    private static double mix(double a, double b, double t) {
        return a + (b - a) * t;
    }
}
