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
