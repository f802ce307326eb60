package app.zolvan.core.geometry;

import java.util.stream.IntStream;

/** Splits loops whose rounds do not touch each other over the machine's cores. The split never changes the result. */
public final class Ranges {
    private static final int GRAIN = 1 << 14;

    private Ranges() {}

    /** One stretch of a loop. */
    public interface Body {
        void run(int from, int to);
    }

    /** Runs {@code body} over 0 … n in stretches, several at a time where there are enough rounds to be worth it. */
    public static void each(int n, Body body) {
        int stretches = (n + GRAIN - 1) / GRAIN;
        if (stretches <= 1) {
            body.run(0, n);
            return;
        }
        IntStream.range(0, stretches).parallel().forEach(s -> body.run(s * GRAIN, Math.min(n, (s + 1) * GRAIN)));
    }
}
