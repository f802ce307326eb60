package app.zolvan.bench;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.texture.Pattern;
import app.zolvan.core.texture.Patterns;
import app.zolvan.core.texture.Recipe;
import java.util.Map;
import java.util.TreeMap;

/** How long the shipped patterns take at 2048 × 2048 on one core: the slowest recipe of each, best of three. */
public final class PatternTimes {
    private static final int SIDE = 2048;
    private static final int ROUNDS = 3;

    private PatternTimes() {}

    /** @param args part of a pattern's name; none for all */
    public static void main(String[] args) {
        Map<String, Double> slowest = new TreeMap<>();
        Map<String, Long> sums = new TreeMap<>();
        for (Recipe r : ShippedLibrary.recipes(SIDE)) {
            if (args.length > 0 && !r.name().contains(args[0])) {
                continue;
            }
            double best = Double.MAX_VALUE;
            for (int round = 0; round < ROUNDS; round++) {
                long start = System.nanoTime();
                long sum = drawn(Patterns.of(r));
                best = Math.min(best, (System.nanoTime() - start) / 1e9);
                if (round == 0) {
                    sums.merge(r.name(), sum, (a, b) -> 31 * a + b);
                }
            }
            slowest.merge(r.name(), best, Math::max);
        }
        slowest.forEach((name, s) -> System.out.printf(
                "{\"pattern\": \"%s\", \"seconds\": %.2f, \"sum\": \"%016x\"}%n", name, s, sums.get(name)));
    }

    /** @return a number that tells whether anything came out differently */
    private static long drawn(Pattern pattern) {
        Pattern.Point p = new Pattern.Point();
        long sum = 0;
        for (int y = 0; y < SIDE; y++) {
            for (int x = 0; x < SIDE; x++) {
                pattern.at((x + 0.5) / SIDE, (y + 0.5) / SIDE, p);
                sum = 31 * sum + Float.floatToIntBits((float) p.tone) + 7L * Float.floatToIntBits((float) p.height);
                sum = 31 * sum + Float.floatToIntBits((float) p.joint) + 7L * Float.floatToIntBits((float) p.piece);
            }
        }
        return sum;
    }
}
