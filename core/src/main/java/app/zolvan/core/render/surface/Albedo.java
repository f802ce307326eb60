package app.zolvan.core.render.surface;

import java.util.function.DoubleUnaryOperator;
import java.util.function.IntFunction;

/**
 * How much of the light that comes from a direction a layer sends back in all: tables over the cosine of that direction
 * and the roughness, worked out once by sampling the layer itself. They couple layers so that no energy is made and,
 * where a layer scatters more than once, none is lost (Kulla & Conty 2017).
 */
final class Albedo {
    private static final int COSINES = 32;
    private static final int ROUGHNESSES = 32;
    private static final int INDICES = 12;
    private static final int SAMPLES = 256;
    private static final int FUZZ_STEPS = 32;
    /** (n − 1)/(n + 1) at the end of the table: n = 3. */
    private static final double LARGEST = 0.5;

    private static final double LARGEST_EXPONENT = 20;

    private static final double[] MIRROR = mirror();
    private static final double[] MIRROR_MEAN = means(MIRROR, ROUGHNESSES);
    private static final double[] CLEAR = clear();
    private static final double[] CLEAR_MEAN = means(CLEAR, ROUGHNESSES * INDICES);
    private static final double[] FUZZ = fuzz();
    private static final double[] FUZZ_MEAN = means(FUZZ, ROUGHNESSES);

    /** Worked out when the first surface asks for it: few do. */
    private static final class Edge {
        static final double[] TABLES = edge();
        static final double[] MEANS = means(TABLES, ROUGHNESSES * INDICES);

        private Edge() {}
    }

    private Albedo() {}

    /** A rough mirror that reflects all. Roughness is √α, in [0, 1]. */
    static double mirror(double cosine, double roughness) {
        return across(MIRROR, 0, cosine, roughness);
    }

    /** Its mean over a hemisphere. */
    static double mirrorMean(double roughness) {
        return meanOf(MIRROR_MEAN, 0, roughness);
    }

    /** The outside of a rough clear boundary. The index eta lies in [1, 3]. */
    static double clear(double cosine, double roughness, double eta) {
        return between(CLEAR, cosine, roughness, place(eta));
    }

    static double clearMean(double roughness, double eta) {
        return meanBetween(CLEAR_MEAN, roughness, place(eta));
    }

    /** A rough boundary that reflects (1 − cosine) raised to an exponent, which is at least 0. */
    static double edge(double cosine, double roughness, double exponent) {
        int i = placeOfExponent(exponent);
        return geometric(
                across(Edge.TABLES, i * ROUGHNESSES * COSINES, cosine, roughness),
                across(Edge.TABLES, (i + 1) * ROUGHNESSES * COSINES, cosine, roughness),
                i,
                exponent);
    }

    static double edgeMean(double roughness, double exponent) {
        int i = placeOfExponent(exponent);
        return geometric(meanOf(Edge.MEANS, i, roughness), meanOf(Edge.MEANS, i + 1, roughness), i, exponent);
    }

    /** Between two tables as powers go between two exponents. */
    private static double geometric(double a, double b, int i, double exponent) {
        double from = exponentOf(i);
        double t = Math.min(1, (exponent - from) / (exponentOf(i + 1) - from));
        return a * StrictMath.pow(Math.max(1e-12, b) / Math.max(1e-12, a), t);
    }

    private static double between(double[] tables, double cosine, double roughness, double e) {
        int i = Math.min(INDICES - 2, (int) e);
        return mix(
                across(tables, i * ROUGHNESSES * COSINES, cosine, roughness),
                across(tables, (i + 1) * ROUGHNESSES * COSINES, cosine, roughness),
                e - i);
    }

    private static double meanBetween(double[] means, double roughness, double e) {
        int i = Math.min(INDICES - 2, (int) e);
        return mix(meanOf(means, i, roughness), meanOf(means, i + 1, roughness), e - i);
    }

    private static double meanOf(double[] means, int table, double roughness) {
        double r = clamp(roughness) * (ROUGHNESSES - 1);
        int j = Math.min(ROUGHNESSES - 2, (int) r);
        return mix(means[table * ROUGHNESSES + j], means[table * ROUGHNESSES + j + 1], r - j);
    }

    static double fuzz(double cosine, double roughness) {
        return across(FUZZ, 0, cosine, roughness);
    }

    static double fuzzMean(double roughness) {
        return meanOf(FUZZ_MEAN, 0, roughness);
    }

    private static double place(double eta) {
        double n = Math.max(eta, 1 / eta);
        return Math.min(LARGEST, (n - 1) / (n + 1)) / LARGEST * (INDICES - 1);
    }

    /** Tables lie at exponents 0 … 20, closer together where they are small. */
    private static double exponentOf(int table) {
        double root = table / (INDICES - 1.0);
        return LARGEST_EXPONENT * root * root;
    }

    private static int placeOfExponent(double exponent) {
        return Math.min(INDICES - 2, (int) (Math.sqrt(exponent / LARGEST_EXPONENT) * (INDICES - 1)));
    }

    private static double across(double[] table, int base, double cosine, double roughness) {
        double r = clamp(roughness) * (ROUGHNESSES - 1);
        double c = clamp(cosine) * (COSINES - 1);
        int i = Math.min(ROUGHNESSES - 2, (int) r);
        int j = Math.min(COSINES - 2, (int) c);
        int at = base + i * COSINES + j;
        return mix(
                mix(table[at], table[at + 1], c - j), mix(table[at + COSINES], table[at + COSINES + 1], c - j), r - i);
    }

    private static double mix(double a, double b, double t) {
        return a + (b - a) * t;
    }

    private static double clamp(double v) {
        return v < 0 ? 0 : v > 1 ? 1 : v;
    }

    private static double[] mirror() {
        double[] out = new double[ROUGHNESSES * COSINES];
        for (int r = 0; r < ROUGHNESSES; r++) {
            for (int c = 0; c < COSINES; c++) {
                out[r * COSINES + c] = reflected(c / (COSINES - 1.0), r / (ROUGHNESSES - 1.0), d -> 1);
            }
        }
        return out;
    }

    private static double[] clear() {
        return tables(i -> {
            double q = LARGEST * i / (INDICES - 1.0);
            double eta = (1 + q) / (1 - q);
            return d -> Fresnel.dielectric(d, eta);
        });
    }

    private static double[] edge() {
        return tables(i -> {
            double exponent = exponentOf(i);
            return d -> StrictMath.pow(1 - d, exponent);
        });
    }

    private static double[] tables(IntFunction<DoubleUnaryOperator> reflectances) {
        double[] out = new double[INDICES * ROUGHNESSES * COSINES];
        for (int i = 0; i < INDICES; i++) {
            DoubleUnaryOperator reflectance = reflectances.apply(i);
            for (int r = 0; r < ROUGHNESSES; r++) {
                for (int c = 0; c < COSINES; c++) {
                    out[(i * ROUGHNESSES + r) * COSINES + c] =
                            reflected(c / (COSINES - 1.0), r / (ROUGHNESSES - 1.0), reflectance);
                }
            }
        }
        return out;
    }

    /** @param reflectance of a facet, by the cosine of the angle to it */
    private static double reflected(double cosine, double roughness, DoubleUnaryOperator reflectance) {
        double z = Math.max(cosine, 1e-3);
        double x = Math.sqrt(1 - z * z);
        Ggx ggx = new Ggx();
        double alpha = Math.max(1e-4, roughness * roughness);
        ggx.set(alpha, alpha);
        double own = ggx.lambda(x, 0, z);
        double sum = 0;
        for (int i = 0; i < SAMPLES; i++) {
            double u = (i + 0.5) / SAMPLES;
            double v = (Integer.reverse(i) >>> 8) * 0x1p-24 + 0.5 / SAMPLES;
            ggx.sampleVisible(x, 0, z, u, v);
            double d = x * ggx.hx + z * ggx.hz;
            double oz = 2 * d * ggx.hz - z;
            if (d > 0 && oz > 0) {
                double ox = 2 * d * ggx.hx - x;
                double oy = 2 * d * ggx.hy;
                double f = reflectance.applyAsDouble(Math.min(1, d));
                sum += f * (1 + own) / (1 + own + ggx.lambda(ox, oy, oz));
            }
        }
        return sum / SAMPLES;
    }

    private static double[] fuzz() {
        double[] out = new double[ROUGHNESSES * COSINES];
        for (int r = 0; r < ROUGHNESSES; r++) {
            double rough = Math.max(Fuzz.LEAST, r / (ROUGHNESSES - 1.0));
            for (int c = 0; c < COSINES; c++) {
                double z = Math.max(c / (COSINES - 1.0), 1e-3);
                double x = Math.sqrt(1 - z * z);
                double sum = 0;
                for (int i = 0; i < FUZZ_STEPS; i++) {
                    double oz = (i + 0.5) / FUZZ_STEPS;
                    double s = Math.sqrt(1 - oz * oz);
                    for (int k = 0; k < FUZZ_STEPS; k++) {
                        double phi = Math.PI * (k + 0.5) / FUZZ_STEPS;
                        sum += Fuzz.value(x, 0, z, s * StrictMath.cos(phi), s * StrictMath.sin(phi), oz, rough) * oz;
                    }
                }
                out[r * COSINES + c] = sum * 2 * Math.PI / (FUZZ_STEPS * FUZZ_STEPS);
            }
        }
        return out;
    }

    /** 2∫E(μ)μdμ by the trapezium rule, row by row. */
    private static double[] means(double[] table, int rows) {
        double[] out = new double[rows];
        for (int r = 0; r < rows; r++) {
            double sum = 0;
            for (int c = 0; c + 1 < COSINES; c++) {
                double a = c / (COSINES - 1.0);
                double b = (c + 1) / (COSINES - 1.0);
                sum += (table[r * COSINES + c] * a + table[r * COSINES + c + 1] * b) * (b - a);
            }
            out[r] = sum;
        }
        return out;
    }
}
