package app.zolvan.core.exchange.text;

import java.nio.ByteBuffer;
import java.util.ArrayDeque;
import java.util.Arrays;
import java.util.Deque;
import java.util.concurrent.ForkJoinPool;
import java.util.concurrent.ForkJoinTask;

/**
 * The numbers of a text that is nothing but numbers and blanks, in order. The text is taken in blocks that end between
 * words; a few blocks ahead of the one being used are turned into numbers on other cores. A word that is no number
 * counts as NaN.
 */
public final class NumberStream {
    private static final int BLOCK = 1 << 19;
    private static final int AHEAD = 4;

    private final ByteBuffer in;
    private final int size;
    private final Deque<ForkJoinTask<Block>> coming = new ArrayDeque<>();
    private Block block = new Block(new double[0], 0, 0);
    private int at;
    private int unread;

    public NumberStream(ByteBuffer in) {
        this.in = in.slice();
        this.size = Math.max(1, this.in.remaining());
        fill();
    }

    /** A block's numbers, and where it ends in the text. */
    private record Block(double[] numbers, int count, int end) {}

    /** Whether there is another number. */
    public boolean hasNext() {
        while (at == block.count) {
            if (coming.isEmpty()) {
                return false;
            }
            block = coming.remove().join();
            at = 0;
            fill();
        }
        return true;
    }

    /** The next number, which must be there. */
    public double next() {
        return block.numbers[at++];
    }

    /** The share of the text that has been used. */
    public double share() {
        return (double) block.end / size;
    }

    private void fill() {
        while (coming.size() < AHEAD && unread < in.limit()) {
            int from = unread;
            int to = endOfWord(Math.min(in.limit(), from + BLOCK));
            unread = to;
            coming.add(ForkJoinPool.commonPool().submit(() -> parse(in, from, to)));
        }
    }

    private int endOfWord(int from) {
        int i = from;
        while (i < in.limit() && !isBlank(in.get(i))) {
            i++;
        }
        return i;
    }

    private static Block parse(ByteBuffer in, int from, int to) {
        byte[] text = new byte[to - from];
        in.get(from, text);
        double[] numbers = new double[text.length / 4 + 16];
        int count = 0;
        int i = 0;
        while (i < text.length) {
            if (isBlank(text[i])) {
                i++;
                continue;
            }
            int start = i;
            while (i < text.length && !isBlank(text[i])) {
                i++;
            }
            if (count == numbers.length) {
                numbers = Arrays.copyOf(numbers, 2 * count);
            }
            numbers[count++] = i - start == 1 ? digit(text[start]) : Numbers.parse(text, start, i);
        }
        return new Block(numbers, count, to);
    }

    private static double digit(byte b) {
        return b >= '0' && b <= '9' ? b - '0' : Double.NaN;
    }

    private static boolean isBlank(byte b) {
        return b <= ' ' && b >= 0;
    }
}
