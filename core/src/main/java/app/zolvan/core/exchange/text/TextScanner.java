package app.zolvan.core.exchange.text;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.TextNames;
import java.nio.ByteBuffer;
import java.util.Arrays;

/**
 * Reads words and numbers from a text file line by line through a window, so that the file is never whole in memory. A
 * backslash at the end of a line joins the next one to it where asked for.
 */
public final class TextScanner {
    private static final int WINDOW = 1 << 18;
    private static final int LONGEST_LINE = 32 << 20;

    private final ByteBuffer in;
    private final boolean joins;
    private byte[] window = new byte[WINDOW];
    private int filled;
    private int next;
    private int at;
    private int end;
    private int wordStart;
    private int wordEnd;
    private long line;

    /** @param joins whether a backslash at a line's end continues it */
    public TextScanner(ByteBuffer bytes, boolean joins) {
        this.in = bytes.slice();
        this.joins = joins;
        if (in.remaining() >= 3 && in.get(0) == (byte) 0xEF && in.get(1) == (byte) 0xBB && in.get(2) == (byte) 0xBF) {
            in.position(3);
        }
    }

    /** Number of the current line, from 1. */
    public long lineNumber() {
        return line;
    }

    /** Where the first byte after the current line stands in the file. */
    public int offsetAfterLine() {
        return in.position() - (filled - next);
    }

    public double share() {
        return (double) in.position() / Math.max(1, in.limit());
    }

    /** Moves to the next line; false at the end of the file. */
    public boolean nextLine() throws ImportException {
        int start = next;
        int search = next;
        while (true) {
            int i = search;
            while (i < filled && window[i] != '\n' && window[i] != '\r') {
                i++;
            }
            if (i == filled && in.hasRemaining()) {
                int shift = start;
                refill(start);
                start -= shift;
                search = i - shift;
                continue;
            }
            if (i == filled) {
                if (start >= filled) {
                    at = end = next = filled;
                    return false;
                }
                line++;
                set(start, i, filled);
                return true;
            }
            if (i + 1 == filled && window[i] == '\r' && in.hasRemaining()) { // is it a pair?
                int shift = start;
                refill(start);
                start -= shift;
                i -= shift;
            }
            int after = i + 1 < filled && window[i] == '\r' && window[i + 1] == '\n' ? i + 2 : i + 1;
            line++;
            if (joins && i > start && window[i - 1] == '\\') {
                Arrays.fill(window, i - 1, after, (byte) ' ');
                search = after;
                continue;
            }
            set(start, i, after);
            return true;
        }
    }

    private void set(int from, int to, int after) {
        at = from;
        end = to;
        next = after;
    }

    private void refill(int keepFrom) throws ImportException {
        int kept = filled - keepFrom;
        if (kept > LONGEST_LINE) {
            throw new ImportException(
                    "invalid",
                    "Line " + (line + 1) + " is too long to be right; the file is damaged. Export it again.");
        }
        byte[] target = kept > window.length / 2 ? new byte[window.length * 2] : window;
        System.arraycopy(window, keepFrom, target, 0, kept);
        window = target;
        int n = Math.min(window.length - kept, in.remaining());
        in.get(window, kept, n);
        filled = kept + n;
    }

    /** Moves to the next word of the current line; false when there is none. */
    public boolean nextWord() {
        while (at < end && window[at] <= ' ' && window[at] >= 0) {
            at++;
        }
        if (at >= end) {
            return false;
        }
        wordStart = at;
        while (at < end && (window[at] > ' ' || window[at] < 0)) {
            at++;
        }
        wordEnd = at;
        return true;
    }

    public boolean wordIs(String expected) {
        int n = wordEnd - wordStart;
        if (n != expected.length()) {
            return false;
        }
        for (int i = 0; i < n; i++) {
            if (window[wordStart + i] != expected.charAt(i)) {
                return false;
            }
        }
        return true;
    }

    public String word() {
        return text(wordStart, wordEnd);
    }

    /** The current word as a number; NaN when it is none. */
    public double wordNumber() {
        return Numbers.parse(window, wordStart, wordEnd);
    }

    /** The current word as a whole number; {@link Integer#MIN_VALUE} when it is none. */
    public int wordInteger() {
        return Numbers.parseInt(window, wordStart, wordEnd);
    }

    /**
     * Moves to the next word, which is to be up to three whole numbers separated by slashes; absent ones are given as
     * {@link Integer#MIN_VALUE}.
     *
     * @return how many there are, 0 at the end of the line, or −1 when the word is something else
     */
    public int nextSlashed(int[] out) {
        int i = at;
        while (i < end && window[i] <= ' ' && window[i] >= 0) {
            i++;
        }
        wordStart = i;
        int n = 0;
        while (i < end && n < out.length) {
            boolean negative = window[i] == '-';
            int first = negative ? i + 1 : i;
            i = first;
            long v = 0;
            while (i < end && window[i] >= '0' && window[i] <= '9') {
                v = v > Integer.MAX_VALUE ? v : 10 * v + (window[i] - '0');
                i++;
            }
            boolean absent = i == first && !negative && n > 0;
            if ((i == first && !absent) || v > Integer.MAX_VALUE) {
                break;
            }
            out[n++] = absent ? Integer.MIN_VALUE : (int) (negative ? -v : v);
            if (i == end || (window[i] <= ' ' && window[i] >= 0)) {
                wordEnd = at = i;
                return n;
            }
            if (window[i] != '/') {
                break;
            }
            i++;
            if (i == end || (window[i] <= ' ' && window[i] >= 0)) { // a slash at the end
                wordEnd = at = i;
                return n;
            }
        }
        return nextWord() ? -1 : 0;
    }

    /** The next word of this line as a number; NaN when there is none. */
    public double number() {
        return nextWord() ? wordNumber() : Double.NaN;
    }

    /** What is left of the line, without blanks around it. */
    public String rest() {
        String rest = text(at, end).strip();
        at = end;
        return rest;
    }

    /** UTF-8 where it is valid, else Latin-1; control characters become blanks. */
    private String text(int from, int to) {
        return TextNames.decode(window, from, to);
    }

    public ImportException fault(String format, String what) {
        return new ImportException(
                "invalid", "Line " + line + " of the " + format + " file " + what + ". Export the model again.");
    }
}
