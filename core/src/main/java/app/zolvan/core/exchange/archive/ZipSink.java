package app.zolvan.core.exchange.archive;

import app.zolvan.core.exchange.ModelWriter.Content;
import app.zolvan.core.exchange.ModelWriter.FileSink;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;

/** Takes files into a zip, the same bytes whenever they are written. */
public final class ZipSink implements FileSink {
    private static final long NO_TIME = 315_532_800_000L;
    private final ZipOutputStream zip;

    /** @param to stays open */
    public ZipSink(OutputStream to) {
        zip = new ZipOutputStream(to, StandardCharsets.UTF_8);
    }

    @Override
    public void file(String path, Content content) throws IOException {
        ZipEntry entry = new ZipEntry(path);
        entry.setTime(NO_TIME);
        zip.putNextEntry(entry);
        content.writeTo(zip);
        zip.closeEntry();
    }

    /** To be called when all files are in it. */
    public void finish() throws IOException {
        zip.finish();
    }
}
