package app.zolvan.core.render.path;

import app.zolvan.core.light.Environment;

/**
 * How much of the surroundings can be seen, by direction, from where a picture's paths come by: in a room it is what lies
 * before its windows. Found by trying, on a few paths all over the picture, so that it depends on neither threads nor
 * the rectangle that is wanted.
 */
final class Outlook {
    /** Paths through each pixel of the trial's picture. */
    static final int SAMPLES = 4;

    private static final int MOST_PIXELS = 48;

    private static final int AROUND = 64;
    private static final int DOWN = 32;
    /** Nothing is favoured less: what was not seen in the trial may yet be. */
    private static final double LEAST = 0.02;
    /** Where so much is seen anyway, little is to be won. */
    private static final double OPEN = 0.5;

    private final int[] tried = new int[AROUND * DOWN];
    private final int[] reached = new int[AROUND * DOWN];

    /** How many pixels the trial's picture has along a side of the picture. */
    static int pixels(int side) {
        return Math.min(MOST_PIXELS, (side + 7) / 8);
    }

    /** Takes note that light from a unit direction was looked for. */
    void add(double x, double y, double z, boolean arrived) {
        int cell = cell(x, y, z);
        tried[cell]++;
        reached[cell] += arrived ? 1 : 0;
    }

    void add(Outlook o) {
        for (int i = 0; i < tried.length; i++) {
            tried[i] += o.tried[i];
            reached[i] += o.reached[i];
        }
    }

    private static int column(double x, double z) {
        return (int) (AROUND * (StrictMath.atan2(z, x) / (2 * Math.PI) + 0.5)) % AROUND;
    }

    private static int row(double y) {
        return Math.min(DOWN - 1, (int) (DOWN * StrictMath.acos(Math.max(-1, Math.min(1, y))) / Math.PI));
    }

    private static int cell(double x, double y, double z) {
        return row(y) * AROUND + column(x, z);
    }

    /** The same surroundings, looked for where they are seen; themselves where most of them are. */
    Environment favoured(Environment all) {
        double share = share(0, DOWN, 0, AROUND, 0.5);
        return share > OPEN
                ? all
                : all.favouring((x, y, z) -> {
                    int row = row(y);
                    int column = column(x, z);
                    return Math.max(LEAST, share(row - 1, row + 2, column - 1, column + 2, share));
                });
    }

    /** The share of tries that arrived in rows and columns from … to, a few tries' worth of {@code usual} mixed in. */
    private double share(int top, int bottom, int left, int right, double usual) {
        double all = 1;
        double seen = usual;
        for (int r = Math.max(0, top); r < Math.min(DOWN, bottom); r++) {
            for (int c = left; c < right; c++) {
                int i = r * AROUND + Math.floorMod(c, AROUND);
                all += tried[i];
                seen += reached[i];
            }
        }
        return seen / all;
    }
}
