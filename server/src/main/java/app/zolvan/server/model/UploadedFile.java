package app.zolvan.server.model;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.job.Asking;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** Bytes of the store as a file on this machine, mapped for as long as they are read. */
final class UploadedFile {
    private UploadedFile() {}

    /** What is done with the bytes. */
    interface Use {
        void of(ByteBuffer bytes) throws ImportException, IOException, Asking;
    }

    static void with(AssetService assets, String sha256, Use use) throws ImportException, IOException, Asking {
        Path file = Files.createTempFile("zolvan-import", ".bin");
        try {
            try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(file))) {
                assets.copy(sha256, out);
            }
            try (FileChannel channel = FileChannel.open(file, StandardOpenOption.READ)) {
                use.of(channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size()));
            }
        } finally {
            Files.deleteIfExists(file);
        }
    }
}
