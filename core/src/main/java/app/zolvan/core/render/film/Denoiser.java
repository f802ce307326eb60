package app.zolvan.core.render.film;

import java.util.Arrays;
import java.util.stream.IntStream;

/**
 * Takes grain out of a picture: each pixel becomes a mean of those around it that look alike in small patches, given the
 * noise that both have (non-local means with dual buffers; Rousselle et al. 2012), and that show the same thing: colour,
 * direction and distance of what is seen first (Rousselle et al. 2013). What is seen first is divided out before and
 * multiplied back, so that the detail of textures is kept.
 */
final class Denoiser {
    private static final int REACH = 6;
    private static final int PATCH = 3;
    private static final int STRIPE = 32;
    private static final double STRENGTH = 0.45;
    private static final double COLOUR_STEP = 0.02;
    private static final double NORMAL_STEP = 0.1;
    private static final double DEPTH_STEP = 0.02;
    private static final float SPARK = 2.5f;
    private static final float LEAST_ALBEDO = 0.02f;

    private final int w;
    private final int h;
    private final float[] colour;
    private final float[] guide;
    private final float[] variance;
    private final float[] albedo;
    private final float[] normal;
    private final float[] depth;

    private Denoiser(Film film, double[] dim, int x0, int y0, int w, int h) {
        this.w = w;
        this.h = h;
        colour = new float[3 * w * h];
        guide = new float[3 * w * h];
        variance = new float[3 * w * h];
        albedo = new float[3 * w * h];
        normal = new float[3 * w * h];
        depth = new float[w * h];
        double[] a = new double[3];
        double[] b = new double[3];
        double[] c = new double[3];
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                int i = y * w + x;
                film.albedo(x0 + x, y0 + y, c);
                boolean nothing = film.part(x0 + x, y0 + y) < 0;
                for (int k = 0; k < 3; k++) {
                    albedo[3 * i + k] = nothing ? 1 : Math.max(LEAST_ALBEDO, (float) c[k]);
                }
                film.normal(x0 + x, y0 + y, c);
                for (int k = 0; k < 3; k++) {
                    normal[3 * i + k] = (float) c[k];
                }
                depth[i] = (float) film.depth(x0 + x, y0 + y);
                film.mean(x0 + x, y0 + y, dim, c);
                film.halves(x0 + x, y0 + y, a, b);
                for (int k = 0; k < 3; k++) {
                    float divide = albedo[3 * i + k];
                    colour[3 * i + k] = (float) c[k] / divide;
                    float first = squeezed(a[k] / divide);
                    float second = squeezed(b[k] / divide);
                    guide[3 * i + k] = (first + second) / 2;
                    variance[3 * i + k] = (first - second) * (first - second) / 4;
                }
            }
        }
        quench();
        spread(variance);
    }

    /**
     * A spark, brighter by far than what stands around it and in one half of its samples only, would be smeared over all
     * its neighbours: it becomes as bright as the second brightest of them.
     */
    private void quench() {
        float[] from = colour.clone();
        float[] guideFrom = guide.clone();
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                for (int k = 0; k < 3; k++) {
                    int i = 3 * (y * w + x) + k;
                    int second = secondBrightest(from, x, y, k);
                    double spread = Math.sqrt(variance[i]);
                    if (from[i] > SPARK * from[second] + 1e-4 && spread > 0.25 * guideFrom[i]) {
                        colour[i] = from[second];
                        guide[i] = guideFrom[second];
                        variance[i] = variance[second];
                    }
                }
            }
        }
    }

    private int secondBrightest(float[] from, int x, int y, int k) {
        int first = -1;
        int second = -1;
        for (int sy = Math.max(0, y - 1); sy <= Math.min(h - 1, y + 1); sy++) {
            for (int sx = Math.max(0, x - 1); sx <= Math.min(w - 1, x + 1); sx++) {
                int i = 3 * (sy * w + sx) + k;
                if (sx == x && sy == y) {
                    continue;
                }
                if (first < 0 || from[i] > from[first]) {
                    second = first;
                    first = i;
                } else if (second < 0 || from[i] > from[second]) {
                    second = i;
                }
            }
        }
        return second < 0 ? 3 * (y * w + x) + k : second;
    }

    private static float squeezed(double v) {
        double p = Math.max(0, v);
        return (float) (p / (1 + p));
    }

    /** The variance of one pixel from two numbers is too rough: the mean of its neighbourhood, but not less than its own. */
    private void spread(float[] v) {
        float[] from = v.clone();
        for (int y = 0; y < h; y++) {
            for (int x = 0; x < w; x++) {
                for (int k = 0; k < 3; k++) {
                    float sum = 0;
                    int n = 0;
                    for (int sy = Math.max(0, y - 2); sy <= Math.min(h - 1, y + 2); sy++) {
                        for (int sx = Math.max(0, x - 2); sx <= Math.min(w - 1, x + 2); sx++) {
                            sum += from[3 * (sy * w + sx) + k];
                            n++;
                        }
                    }
                    int i = 3 * (y * w + x) + k;
                    v[i] = Math.max(sum / n, from[i] / 2);
                }
            }
        }
    }

    /** @return radiance of the rectangle, three numbers a pixel */
    static float[] smooth(Film film, double[] dim, int x0, int y0, int width, int height) {
        Denoiser d = new Denoiser(film, dim, x0, y0, width, height);
        float[] out = new float[3 * width * height];
        int stripes = (height + STRIPE - 1) / STRIPE;
        IntStream.range(0, stripes).parallel().forEach(s -> d.stripe(s * STRIPE, out));
        return out;
    }

    private void stripe(int from, float[] out) {
        int to = Math.min(h, from + STRIPE);
        int top = Math.max(0, from - PATCH);
        int bottom = Math.min(h, to + PATCH);
        float[] apart = new float[w * (bottom - top)];
        float[] across = new float[w * (bottom - top)];
        float[] weights = new float[w * (to - from)];
        float[] sums = new float[3 * w * (to - from)];
        for (int oy = -REACH; oy <= REACH; oy++) {
            for (int ox = -REACH; ox <= REACH; ox++) {
                differences(ox, oy, top, bottom, apart);
                acrossRows(apart, across, bottom - top);
                gather(ox, oy, from, to, top, bottom, across, weights, sums);
            }
        }
        for (int i = 0; i < weights.length; i++) {
            int at = from * w + i;
            for (int k = 0; k < 3; k++) {
                out[3 * at + k] = sums[3 * i + k] / weights[i] * albedo[3 * at + k];
            }
        }
    }

    private void differences(int ox, int oy, int top, int bottom, float[] apart) {
        for (int y = top; y < bottom; y++) {
            int qy = Math.max(0, Math.min(h - 1, y + oy));
            for (int x = 0; x < w; x++) {
                int qx = Math.max(0, Math.min(w - 1, x + ox));
                int p = 3 * (y * w + x);
                int q = 3 * (qy * w + qx);
                float sum = 0;
                for (int k = 0; k < 3; k++) {
                    float d = guide[p + k] - guide[q + k];
                    float vp = variance[p + k];
                    float vq = variance[q + k];
                    sum += (d * d - (vp + Math.min(vp, vq))) / (1e-8f + (float) (STRENGTH * STRENGTH) * (vp + vq));
                }
                apart[(y - top) * w + x] = sum / 3;
            }
        }
    }

    private void acrossRows(float[] from, float[] to, int rows) {
        for (int y = 0; y < rows; y++) {
            for (int x = 0; x < w; x++) {
                float sum = 0;
                int lo = Math.max(0, x - PATCH);
                int hi = Math.min(w - 1, x + PATCH);
                for (int s = lo; s <= hi; s++) {
                    sum += from[y * w + s];
                }
                to[y * w + x] = sum / (hi - lo + 1);
            }
        }
    }

    private void gather(
            int ox, int oy, int from, int to, int top, int bottom, float[] across, float[] weights, float[] sums) {
        float[] column = new float[w];
        for (int y = from; y < to; y++) {
            int qy = y + oy;
            if (qy < 0 || qy >= h) {
                continue;
            }
            int lo = Math.max(top, y - PATCH);
            int hi = Math.min(bottom - 1, y + PATCH);
            Arrays.fill(column, 0);
            for (int s = lo; s <= hi; s++) {
                for (int x = 0; x < w; x++) {
                    column[x] += across[(s - top) * w + x];
                }
            }
            for (int x = Math.max(0, -ox); x < Math.min(w, w - ox); x++) {
                double d = Math.max(0, column[x] / (hi - lo + 1));
                if (d > 12) {
                    continue;
                }
                int p = y * w + x;
                int q = qy * w + x + ox;
                double weight = StrictMath.exp(-Math.max(d, unlike(p, q)));
                int i = (y - from) * w + x;
                weights[i] += (float) weight;
                sums[3 * i] += (float) weight * colour[3 * q];
                sums[3 * i + 1] += (float) weight * colour[3 * q + 1];
                sums[3 * i + 2] += (float) weight * colour[3 * q + 2];
            }
        }
    }

    /** How different what two pixels show first is, in steps that count. */
    private double unlike(int p, int q) {
        double colours = 0;
        double normals = 0;
        for (int k = 0; k < 3; k++) {
            double a = albedo[3 * p + k] - albedo[3 * q + k];
            double n = normal[3 * p + k] - normal[3 * q + k];
            colours += a * a;
            normals += n * n;
        }
        double mean = (depth[p] + depth[q]) / 2;
        double away = mean > 0 ? (depth[p] - depth[q]) / (mean * DEPTH_STEP) : 0;
        return Math.max(
                colours / (COLOUR_STEP * COLOUR_STEP), Math.max(normals / (NORMAL_STEP * NORMAL_STEP), away * away));
    }
}
