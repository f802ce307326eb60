package app.zolvan.core.exchange.usd;

import java.io.ByteArrayOutputStream;
import java.util.Arrays;

/**
 * LZ4 blocks (format of version 1.5.1 of its description), and the chunks that USD's binary files wrap them in: a count
 * of chunks, 0 for a single one that follows at once, else each after its length.
 */
final class Lz4 {
    /** A block can't unpack to more than so many times its length. */
    static final int DENSEST = 255;

    private static final int CHUNK = 0x7E000000;
    private static final int SHORTEST_MATCH = 4;
    private static final int LAST_LITERALS = 5;
    private static final int LAST_MATCH = 12;
    private static final int FARTHEST = 65535;
    private static final int HASH_BITS = 14;

    private Lz4() {}

    /**
     * @return how many bytes were written, at most {@code out.length}
     * @throws IndexOutOfBoundsException when the block is damaged
     */
    static int unpackChunks(byte[] in, byte[] out) {
        int chunks = in[0] & 0xFF;
        if (chunks == 0) {
            return unpack(in, 1, in.length, out, 0);
        }
        int at = 1;
        int to = 0;
        for (int c = 0; c < chunks; c++) {
            int length = (in[at] & 0xFF) | (in[at + 1] & 0xFF) << 8 | (in[at + 2] & 0xFF) << 16 | in[at + 3] << 24;
            if (length < 0 || length > in.length - at - 4) {
                throw new IndexOutOfBoundsException("chunk of " + length);
            }
            at += 4;
            to = unpack(in, at, at + length, out, to);
            at += length;
        }
        return to;
    }

    /** @return where in {@code out} the block's content ends */
    private static int unpack(byte[] in, int from, int end, byte[] out, int start) {
        int at = from;
        int to = start;
        while (at < end) {
            int token = in[at++] & 0xFF;
            int literals = token >> 4;
            if (literals == 15) {
                int more;
                do {
                    more = in[at++] & 0xFF;
                    literals += more;
                } while (more == 255 && literals >= 0);
            }
            System.arraycopy(in, at, out, to, literals);
            at += literals;
            to += literals;
            if (at >= end) {
                break;
            }
            int back = (in[at] & 0xFF) | (in[at + 1] & 0xFF) << 8;
            at += 2;
            int length = (token & 15) + SHORTEST_MATCH;
            if (length == 15 + SHORTEST_MATCH) {
                int more;
                do {
                    more = in[at++] & 0xFF;
                    length += more;
                } while (more == 255 && length >= 0);
            }
            if (back == 0 || back > to || length < 0 || length > out.length - to) {
                throw new IndexOutOfBoundsException("match of " + length + " at " + back);
            }
            for (int i = 0; i < length; i++, to++) {
                out[to] = out[to - back];
            }
        }
        return to;
    }

    /** One chunk; the input must be shorter than 2 GB less 32 MB. */
    static byte[] packChunk(byte[] in) {
        if (in.length > CHUNK) {
            throw new IllegalArgumentException("too long for one chunk");
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream(in.length / 2 + 16);
        out.write(0);
        int[] last = new int[1 << HASH_BITS];
        Arrays.fill(last, -1);
        int anchor = 0;
        int at = 0;
        while (at < in.length - LAST_MATCH) {
            int h = (word(in, at) * 0x9E3779B1) >>> (32 - HASH_BITS);
            int candidate = last[h];
            last[h] = at;
            if (candidate < 0 || at - candidate > FARTHEST || word(in, candidate) != word(in, at)) {
                at += 1 + ((at - anchor) >> 6); // hurries over what does not repeat
                continue;
            }
            int length = SHORTEST_MATCH;
            while (at + length < in.length - LAST_LITERALS && in[candidate + length] == in[at + length]) {
                length++;
            }
            sequence(out, in, anchor, at, at - candidate, length);
            at += length;
            anchor = at;
        }
        sequence(out, in, anchor, in.length, 0, 0);
        return out.toByteArray();
    }

    private static int word(byte[] b, int i) {
        return (b[i] & 0xFF) | (b[i + 1] & 0xFF) << 8 | (b[i + 2] & 0xFF) << 16 | b[i + 3] << 24;
    }

    private static void sequence(ByteArrayOutputStream out, byte[] in, int from, int to, int back, int length) {
        int literals = to - from;
        int match = length == 0 ? 0 : length - SHORTEST_MATCH;
        out.write(Math.min(15, literals) << 4 | Math.min(15, match));
        rest(out, literals);
        out.write(in, from, literals);
        if (length > 0) {
            out.write(back);
            out.write(back >> 8);
            rest(out, match);
        }
    }

    private static void rest(ByteArrayOutputStream out, int n) {
        for (int left = n - 15; left >= 0; left -= 255) {
            out.write(Math.min(255, left));
        }
    }
}
