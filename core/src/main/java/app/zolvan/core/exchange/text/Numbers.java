package app.zolvan.core.exchange.text;

import java.nio.charset.StandardCharsets;

/**
 * Decimal numbers out of bytes, to the nearest double. Up to 15 significant digits with a power of ten up to 22 are
 * exact in one multiplication or division (Clinger 1990); anything else takes the JDK's parser.
 */
public final class Numbers {
    private static final double[] POWERS = {
        1e0, 1e1, 1e2, 1e3, 1e4, 1e5, 1e6, 1e7, 1e8, 1e9, 1e10, 1e11, 1e12, 1e13, 1e14, 1e15, 1e16, 1e17, 1e18, 1e19,
        1e20, 1e21, 1e22
    };
    private static final long EXACT = 1L << 53;
    private static final int LONGEST = 64;

    private Numbers() {}

    /** The number in {@code b[from, to)}, or NaN when it is none (or says so itself). */
    public static double parse(byte[] b, int from, int to) {
        int i = from;
        boolean negative = false;
        if (i < to && (b[i] == '-' || b[i] == '+')) {
            negative = b[i++] == '-';
        }
        long mantissa = 0;
        int digits = 0;
        int scale = 0;
        int seen = 0;
        boolean point = false;
        for (; i < to; i++) {
            int c = b[i];
            if (c >= '0' && c <= '9') {
                seen++;
                if (digits < 18) {
                    mantissa = mantissa * 10 + (c - '0');
                    if (mantissa != 0) {
                        digits++;
                    }
                    if (point) {
                        scale--;
                    }
                } else {
                    digits++;
                    if (!point) {
                        scale++;
                    }
                }
            } else if (c == '.' && !point) {
                point = true;
            } else {
                break;
            }
        }
        if (seen == 0) {
            return Double.NaN;
        }
        if (i < to && (b[i] == 'e' || b[i] == 'E')) {
            int e = 0;
            boolean down = false;
            i++;
            if (i < to && (b[i] == '-' || b[i] == '+')) {
                down = b[i++] == '-';
            }
            int first = i;
            for (; i < to && b[i] >= '0' && b[i] <= '9'; i++) {
                e = Math.min(9999, e * 10 + (b[i] - '0'));
            }
            if (i == first) {
                return Double.NaN;
            }
            scale += down ? -e : e;
        }
        if (i != to) {
            return Double.NaN;
        }
        if (digits <= 18 && mantissa < EXACT && scale >= -22 && scale <= 22) {
            double v = scale < 0 ? mantissa / POWERS[-scale] : mantissa * POWERS[scale];
            return negative ? -v : v;
        }
        if (to - from > LONGEST * 16) {
            return Double.NaN;
        }
        return Double.parseDouble(new String(b, from, to - from, StandardCharsets.ISO_8859_1));
    }

    /** The whole number in {@code b[from, to)}, or {@link Integer#MIN_VALUE} when it is none. */
    public static int parseInt(byte[] b, int from, int to) {
        int i = from;
        boolean negative = false;
        if (i < to && (b[i] == '-' || b[i] == '+')) {
            negative = b[i++] == '-';
        }
        if (i == to || to - i > 10) {
            return Integer.MIN_VALUE;
        }
        long v = 0;
        for (; i < to; i++) {
            int d = b[i] - '0';
            if (d < 0 || d > 9) {
                return Integer.MIN_VALUE;
            }
            v = v * 10 + d;
        }
        return v > Integer.MAX_VALUE ? Integer.MIN_VALUE : (int) (negative ? -v : v);
    }
}
