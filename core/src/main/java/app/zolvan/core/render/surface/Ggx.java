package app.zolvan.core.render.surface;

/**
 * The microfacet distribution of Trowbridge & Reitz (GGX), anisotropic, with Smith's height-correlated shadowing, in the
 * frame whose z is the surface's normal. Visible normals are sampled by spherical caps (Dupuy & Benyoub 2023).
 */
final class Ggx {
    /** Sampled normal. */
    double hx;

    double hy;
    double hz;

    private double ax;
    private double ay;

    /** @param ax roughness α along x, at least 1e-4; likewise {@code ay} along y */
    void set(double ax, double ay) {
        this.ax = ax;
        this.ay = ay;
    }

    /** D(h), per steradian. */
    double density(double x, double y, double z) {
        if (z <= 0) {
            return 0;
        }
        double sx = x / ax;
        double sy = y / ay;
        double s = sx * sx + sy * sy + z * z;
        return 1 / (Math.PI * ax * ay * s * s);
    }

    /** Smith's Λ. */
    double lambda(double x, double y, double z) {
        double t = (ax * ax * x * x + ay * ay * y * y) / (z * z);
        return (Math.sqrt(1 + t) - 1) / 2;
    }

    /** The share of visible facets that a direction sees. */
    double maskingOf(double x, double y, double z) {
        return 1 / (1 + lambda(x, y, z));
    }

    /** Samples a normal visible from (x, y, z), z > 0, with density D(h)·G₁·max(0, v·h)/z. */
    void sampleVisible(double x, double y, double z, double u, double v) {
        double sx = x * ax;
        double sy = y * ay;
        double l = 1 / Math.sqrt(sx * sx + sy * sy + z * z);
        double wx = sx * l;
        double wy = sy * l;
        double wz = z * l;
        double phi = 2 * Math.PI * u;
        double cz = (1 - v) * (1 + wz) - wz;
        double sine = Math.sqrt(Math.max(0, 1 - cz * cz));
        double nx = sine * StrictMath.cos(phi) + wx;
        double ny = sine * StrictMath.sin(phi) + wy;
        double nz = cz + wz;
        double mx = nx * ax;
        double my = ny * ay;
        double mz = Math.max(1e-12, nz);
        double m = 1 / Math.sqrt(mx * mx + my * my + mz * mz);
        hx = mx * m;
        hy = my * m;
        hz = mz * m;
    }

    /** The density of {@link #sampleVisible}, per steradian of normals. */
    double visibleDensity(double x, double y, double z, double mx, double my, double mz) {
        double cosine = x * mx + y * my + z * mz;
        return cosine <= 0 ? 0 : maskingOf(x, y, z) * cosine * density(mx, my, mz) / z;
    }
}
