package app.zolvan.server.asset;

import app.zolvan.core.model.Digest;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.io.InputStream;
import java.nio.ByteBuffer;
import java.nio.channels.Channels;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.security.MessageDigest;
import java.util.HexFormat;
import org.springframework.http.HttpStatus;

/**
 * Bytes that arrive from the network, on this machine's disk before a transaction begins: a slow sender holds no
 * connection to the database. The file has no name once it is open, so that not even kill -9 leaves it behind.
 */
public final class Spool implements AutoCloseable {
    private static final int BUFFER = 1 << 16;

    private final FileChannel file;
    private final String sha256;
    private final long size;

    private Spool(FileChannel file, String sha256, long size) {
        this.file = file;
        this.sha256 = sha256;
        this.size = size;
    }

    /**
     * @param limit in bytes, not to be passed
     * @throws Problem where there are more bytes than the limit, or none
     */
    public static Spool of(InputStream in, long limit) throws IOException {
        Path path = Files.createTempFile("zolvan-upload", ".bin");
        FileChannel file = FileChannel.open(path, StandardOpenOption.READ, StandardOpenOption.WRITE);
        Files.delete(path);
        try {
            MessageDigest digest = Digest.sha256();
            byte[] buffer = new byte[BUFFER];
            long size = 0;
            for (int n = in.read(buffer); n >= 0; n = in.read(buffer)) {
                size += n;
                if (size > limit) {
                    throw AssetService.tooLarge(limit);
                }
                digest.update(buffer, 0, n);
                ByteBuffer left = ByteBuffer.wrap(buffer, 0, n);
                while (left.hasRemaining()) {
                    file.write(left);
                }
            }
            if (size == 0) {
                throw Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT, "empty-file", "The file is empty; choose another one.");
            }
            return new Spool(file, HexFormat.of().formatHex(digest.digest()), size);
        } catch (IOException | RuntimeException e) {
            file.close();
            throw e;
        }
    }

    String sha256() {
        return sha256;
    }

    long size() {
        return size;
    }

    /** The bytes from their beginning; closing the stream closes the spool. */
    InputStream read() throws IOException {
        return Channels.newInputStream(file.position(0));
    }

    @Override
    public void close() throws IOException {
        file.close();
    }
}
