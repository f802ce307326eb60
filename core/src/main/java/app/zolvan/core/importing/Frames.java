package app.zolvan.core.importing;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.ObjectInputFilter;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.io.OutputStream;
import java.io.Serializable;

/**
 * Messages between an import's process and the one that started it: a letter, and what belongs to it. Objects go in
 * chunks, each with its length before it, the last one empty; so nobody reads past an object's end.
 */
final class Frames {
    /** Progress: a share in [0, 1] and a step. */
    static final char PROGRESS = 'P';
    /** The result, as an object. */
    static final char RESULT = 'R';
    /** A file that can't be read: reason and sentence. */
    static final char REFUSAL = 'X';
    /** A fault of ours: its stack trace. */
    static final char FAULT = 'F';

    private static final int CHUNK = 1 << 16;
    /** Only what tasks and results consist of is made from a stream, whoever has written it. */
    private static final ObjectInputFilter ONLY_OURS =
            ObjectInputFilter.Config.createFilter("maxdepth=200;app.zolvan.core.**;java.lang.*;java.util.*;!*");

    private Frames() {}

    static DataInputStream in(InputStream in) {
        return new DataInputStream(new BufferedInputStream(in, CHUNK));
    }

    static DataOutputStream out(OutputStream out) {
        return new DataOutputStream(new BufferedOutputStream(out, CHUNK));
    }

    static void write(DataOutputStream to, Serializable object) throws IOException {
        try (ObjectOutputStream out = new ObjectOutputStream(new BufferedOutputStream(new Chunks(to), CHUNK))) {
            out.writeObject(object);
        }
        to.writeInt(0);
        to.flush();
    }

    static Object read(DataInputStream from) throws IOException {
        Unchunked chunks = new Unchunked(from);
        try (ObjectInputStream in = new ObjectInputStream(new BufferedInputStream(chunks, CHUNK))) {
            in.setObjectInputFilter(ONLY_OURS);
            Object read = in.readObject();
            chunks.skipToEnd();
            return read;
        } catch (ClassNotFoundException e) {
            throw new IOException("the two processes are not of the same Zolvan", e);
        }
    }

    private static final class Chunks extends OutputStream {
        private final DataOutputStream to;

        Chunks(DataOutputStream to) {
            this.to = to;
        }

        @Override
        public void write(int b) throws IOException {
            write(new byte[] {(byte) b}, 0, 1);
        }

        @Override
        public void write(byte[] bytes, int from, int length) throws IOException {
            if (length > 0) {
                to.writeInt(length);
                to.write(bytes, from, length);
            }
        }
    }

    private static final class Unchunked extends InputStream {
        private final DataInputStream from;
        private int left;
        private boolean ended;

        Unchunked(DataInputStream from) {
            this.from = from;
        }

        private boolean next() throws IOException {
            if (left == 0 && !ended) {
                left = from.readInt();
                ended = left == 0;
            }
            return !ended;
        }

        @Override
        public int read() throws IOException {
            if (!next()) {
                return -1;
            }
            left--;
            return from.readUnsignedByte();
        }

        @Override
        public int read(byte[] bytes, int at, int length) throws IOException {
            if (length == 0) {
                return 0;
            }
            if (!next()) {
                return -1;
            }
            int n = from.read(bytes, at, Math.min(length, left));
            left -= Math.max(0, n);
            return n;
        }

        void skipToEnd() throws IOException {
            while (next()) {
                from.skipNBytes(left);
                left = 0;
            }
        }
    }
}
