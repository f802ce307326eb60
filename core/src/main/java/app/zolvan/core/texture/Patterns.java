package app.zolvan.core.texture;

/** The generated patterns, each seamless by construction. What a value means (height, tone) is said for each. */
public final class Patterns {
    private Patterns() {}

    /** Leather: pebbles divided by fine furrows. Height; 0 in the furrows. */
    public static Pattern leather(long seed, int pebbles) {
        PeriodicNoise noise = new PeriodicNoise(seed);
        return (u, v) -> {
            double bend = 0.25 / pebbles;
            double wu = u + bend * noise.gradient(u, v, pebbles / 2, pebbles / 2);
            double wv = v + bend * noise.gradient(u + 0.5, v + 0.5, pebbles / 2, pebbles / 2);
            double[] d = noise.cells(wu, wv, pebbles, pebbles);
            double furrow = Math.min(1, (d[1] - d[0]) / 0.35);
            double swell = 0.5 + 0.5 * noise.fractal(u, v, 3, 3, 3);
            return clamp(0.8 * Math.sqrt(furrow) + 0.2 * swell);
        };
    }

    /** Wood with its grain along u: year rings cut lengthwise, and pores as short dark strokes. Tone; 1 is palest. */
    public static Pattern wood(long seed, int rings) {
        PeriodicNoise noise = new PeriodicNoise(seed);
        return (u, v) -> {
            double warp = 0.9 * noise.fractal(u, v, 2, 3, 3);
            double phase = rings * v + 1.5 * warp;
            double early = phase - Math.floor(phase);
            double ring = early < 0.8 ? 0.85 - 0.45 * Math.pow(early / 0.8, 3) : 0.4 + 0.45 * (early - 0.8) / 0.2;
            double fibre = noise.fractal(u, v, 8, 160, 2);
            double pore = noise.gradient(u, v, 24, 220);
            double dark = pore > 0.3 ? (pore - 0.3) * 1.2 : 0;
            return clamp(ring + 0.12 * fibre - dark);
        };
    }

    /** Plain weave: threads over and under in turn. Height; 0 between threads. */
    public static Pattern weave(long seed, int threads) {
        PeriodicNoise noise = new PeriodicNoise(seed);
        int even = threads + threads % 2;
        return (u, v) -> {
            int i = (int) Math.floor(u * even);
            int j = (int) Math.floor(v * even);
            double fu = u * even - i;
            double fv = v * even - j;
            boolean warpAbove = Math.floorMod(i + j, 2) == 0;
            double along = warpAbove ? fv : fu;
            double across = warpAbove ? fu : fv;
            double round = Math.sqrt(Math.max(0, 1 - square(2 * across - 1)));
            double crown = 0.45 + 0.55 * Math.sin(Math.PI * along);
            double hair = 0.06 * noise.gradient(u, v, even * 3, even * 3);
            return clamp(round * crown + hair);
        };
    }

    /** Glass with bubbles just under its skin: some of the cells hold one, of its own size. Height; 1 on top of them. */
    public static Pattern bubbles(long seed, int cells) {
        PeriodicNoise noise = new PeriodicNoise(seed);
        return (u, v) -> {
            double x = u * cells;
            double y = v * cells;
            int i = (int) Math.floor(x);
            int j = (int) Math.floor(y);
            double high = 0;
            for (int dj = -1; dj <= 1; dj++) {
                for (int di = -1; di <= 1; di++) {
                    int ci = Math.floorMod(i + di, cells);
                    int cj = Math.floorMod(j + dj, cells);
                    double size = noise.value(ci, cj);
                    double radius = size < 0.35 ? 0 : 0.08 + 0.37 * square(size);
                    double bx = i + di + 0.2 + 0.6 * noise.value(ci + cells, cj) - x;
                    double by = j + dj + 0.2 + 0.6 * noise.value(ci, cj + cells) - y;
                    double r2 = (bx * bx + by * by) / square(Math.max(1e-9, radius));
                    high = Math.max(high, r2 < 1 ? 2 * radius * square(1 - r2) : 0);
                }
            }
            double waves = 0.5 + 0.5 * noise.gradient(u, v, 3, 3);
            return clamp(0.9 * high + 0.1 * waves);
        };
    }

    /** Cut glass: grooves that cross slantwise leave four-sided points. Height; 0 in the grooves, 1 on the points. */
    public static Pattern diamonds(int points) {
        return (u, v) -> Math.min(ramp((u + v) * points), ramp((u - v) * points));
    }

    /** Up and down by a straight slope, once in each unit. */
    private static double ramp(double t) {
        double f = t - Math.floor(t);
        return 1 - Math.abs(2 * f - 1);
    }

    /** Metal brushed along u: fine long strokes. Depth of stroke. */
    public static Pattern brushed(long seed, int strokes) {
        PeriodicNoise noise = new PeriodicNoise(seed);
        return (u, v) -> clamp(0.5
                + 0.35 * noise.gradient(u, v, 3, strokes)
                + 0.3 * noise.gradient(u + 0.37, v, 6, strokes * 2)
                + 0.15 * noise.gradient(u, v + 0.21, 12, strokes * 4));
    }

    private static double square(double x) {
        return x * x;
    }

    private static double clamp(double v) {
        return Math.max(0, Math.min(1, v));
    }
}
