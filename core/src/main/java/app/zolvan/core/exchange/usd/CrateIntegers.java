package app.zolvan.core.exchange.usd;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;

/**
 * How USD's binary files pack lists of 32-bit whole numbers: each as the difference to the one before, the commonest
 * difference once at the start, for each number two bits that say how long its own difference is, then the differences;
 * all of it as LZ4.
 */
final class CrateIntegers {
    private static final int COMMON = 0;
    private static final int ONE_BYTE = 1;
    private static final int TWO_BYTES = 2;

    private CrateIntegers() {}

    /** The longest that so many numbers are before LZ4. */
    static long roomFor(long count) {
        return 4 + (count * 2 + 7) / 8 + 4 * count;
    }

    /** @throws IndexOutOfBoundsException or java.nio.BufferUnderflowException when the packing is damaged */
    static int[] unpack(byte[] packed, int count) {
        byte[] plain = new byte[(int) roomFor(count)];
        int length = Lz4.unpackChunks(packed, plain);
        ByteBuffer in = ByteBuffer.wrap(plain, 0, length).order(ByteOrder.LITTLE_ENDIAN);
        int common = in.getInt();
        int codes = in.position();
        in.position(codes + (count * 2 + 7) / 8);
        int[] out = new int[count];
        int value = 0;
        for (int i = 0; i < count; i++) {
            int code = (plain[codes + (i >> 2)] >> (2 * (i & 3))) & 3;
            value += code == COMMON
                    ? common
                    : code == ONE_BYTE ? in.get() : code == TWO_BYTES ? in.getShort() : in.getInt();
            out[i] = value;
        }
        return out;
    }

    static byte[] pack(int[] values) {
        int common = commonest(values);
        byte[] plain = new byte[(int) roomFor(values.length)];
        ByteBuffer out = ByteBuffer.wrap(plain).order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(common);
        int codes = out.position();
        out.position(codes + (values.length * 2 + 7) / 8);
        int before = 0;
        for (int i = 0; i < values.length; i++) {
            int d = values[i] - before;
            before = values[i];
            int code;
            if (d == common) {
                code = COMMON;
            } else if (d == (byte) d) {
                code = ONE_BYTE;
                out.put((byte) d);
            } else if (d == (short) d) {
                code = TWO_BYTES;
                out.putShort((short) d);
            } else {
                code = 3;
                out.putInt(d);
            }
            plain[codes + (i >> 2)] |= (byte) (code << (2 * (i & 3)));
        }
        byte[] used = new byte[out.position()];
        System.arraycopy(plain, 0, used, 0, used.length);
        return Lz4.packChunk(used);
    }

    /** The majority of the differences if there is one (Boyer and Moore 1981), else one of the frequent. */
    private static int commonest(int[] values) {
        int candidate = 0;
        int lead = 0;
        int before = 0;
        for (int v : values) {
            int d = v - before;
            before = v;
            if (lead == 0) {
                candidate = d;
            }
            lead += d == candidate ? 1 : -1;
        }
        return candidate;
    }
}
