package app.zolvan.core.assign;

import java.util.Collection;

/** The letters on the dividers of schemes: A to Z, then AA, AB and on. */
public final class SchemeLetter {
    private static final int LETTERS = 26;

    private SchemeLetter() {}

    /** The first that is not taken. */
    public static String next(Collection<String> taken) {
        int n = 0;
        while (taken.contains(of(n))) {
            n++;
        }
        return of(n);
    }

    /** @param n from 0 */
    static String of(int n) {
        String last = String.valueOf((char) ('A' + n % LETTERS));
        return n < LETTERS ? last : of(n / LETTERS - 1) + last;
    }
}
