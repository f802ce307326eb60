package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;

/**
 * What a camera set to a colour temperature makes of light: that light comes out neutral. The white points are the CIE
 * daylight locus from 4,000 K and Planck's below; adaptation by Bradford's cone responses (Lam 1985, as ICC.1 uses it).
 */
public final class WhiteBalance {
    private static final double[][] BRADFORD = {
        {0.8951, 0.2664, -0.1614}, {-0.7502, 1.7135, 0.0367}, {0.0389, -0.0685, 1.0296}
    };
    private static final double[][] TO_XYZ = {
        {0.4124564, 0.3575761, 0.1804375}, {0.2126729, 0.7151522, 0.0721750}, {0.0193339, 0.1191920, 0.9503041}
    };
    private static final double[] D65 = {0.95047, 1, 1.08883};
    private static final double COOLEST_PLANCK = 4000;

    private final double[][] matrix;

    /** @param kelvin 1,667 … 20,000; 6,504 changes next to nothing */
    public WhiteBalance(double kelvin) {
        if (!(kelvin >= 1667 && kelvin <= 20000)) {
            throw new IllegalArgumentException("A white balance lies between 1,667 and 20,000 K.");
        }
        double[] xy = whitePoint(kelvin);
        double[] from = times(BRADFORD, new double[] {xy[0] / xy[1], 1, (1 - xy[0] - xy[1]) / xy[1]});
        double[] to = times(BRADFORD, D65);
        double[][] scaled = new double[3][3];
        double[][] cone = product(BRADFORD, TO_XYZ);
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 3; c++) {
                scaled[r][c] = to[r] / from[r] * cone[r][c];
            }
        }
        matrix = product(inverse(cone), scaled);
    }

    /** CIE 1931 x, y: daylight by CIE 15:2018, Planck's locus by the fit of Kang et al. 2002. */
    static double[] whitePoint(double k) {
        double k2 = k * k;
        double k3 = k2 * k;
        if (k >= COOLEST_PLANCK) {
            double x = k <= 7000
                    ? -4.6070e9 / k3 + 2.9678e6 / k2 + 0.09911e3 / k + 0.244063
                    : -2.0064e9 / k3 + 1.9018e6 / k2 + 0.24748e3 / k + 0.237040;
            return new double[] {x, -3 * x * x + 2.870 * x - 0.275};
        }
        double x = -0.2661239e9 / k3 - 0.2343589e6 / k2 + 0.8776956e3 / k + 0.179910;
        double y = k < 2222
                ? -1.1063814 * x * x * x - 1.34811020 * x * x + 2.18555832 * x - 0.20219683
                : -0.9549476 * x * x * x - 1.37418593 * x * x + 2.09137015 * x - 0.16748867;
        return new double[] {x, y};
    }

    public LinearRgb apply(LinearRgb c) {
        double[] out = times(matrix, c.toArray());
        return new LinearRgb(out[0], out[1], out[2]);
    }

    /** The same, in place on three numbers. */
    public void apply(double[] c) {
        System.arraycopy(times(matrix, c), 0, c, 0, 3);
    }

    private static double[] times(double[][] m, double[] v) {
        double[] out = new double[3];
        for (int r = 0; r < 3; r++) {
            out[r] = m[r][0] * v[0] + m[r][1] * v[1] + m[r][2] * v[2];
        }
        return out;
    }

    private static double[][] product(double[][] a, double[][] b) {
        double[][] out = new double[3][3];
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 3; c++) {
                out[r][c] = a[r][0] * b[0][c] + a[r][1] * b[1][c] + a[r][2] * b[2][c];
            }
        }
        return out;
    }

    private static double[][] inverse(double[][] m) {
        double[][] out = new double[3][3];
        double det = 0;
        for (int c = 0; c < 3; c++) {
            det += m[0][c] * cofactor(m, 0, c);
        }
        for (int r = 0; r < 3; r++) {
            for (int c = 0; c < 3; c++) {
                out[c][r] = cofactor(m, r, c) / det;
            }
        }
        return out;
    }

    private static double cofactor(double[][] m, int r, int c) {
        int r1 = (r + 1) % 3;
        int r2 = (r + 2) % 3;
        int c1 = (c + 1) % 3;
        int c2 = (c + 2) % 3;
        return m[r1][c1] * m[r2][c2] - m[r1][c2] * m[r2][c1];
    }
}
