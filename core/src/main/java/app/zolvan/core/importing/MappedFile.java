package app.zolvan.core.importing;

import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.channels.FileChannel;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;

/** A file's bytes, mapped: they take no heap. */
final class MappedFile {
    private MappedFile() {}

    /** @param path of a file of at most 2 GiB */
    static ByteBuffer of(String path) throws IOException {
        try (FileChannel channel = FileChannel.open(Path.of(path), StandardOpenOption.READ)) {
            return channel.map(FileChannel.MapMode.READ_ONLY, 0, channel.size());
        }
    }
}
