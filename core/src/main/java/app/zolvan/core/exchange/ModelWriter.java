package app.zolvan.core.exchange;

import java.io.IOException;
import java.io.OutputStream;
import java.util.List;

/** Writes a dressed model in one open format. Implementations hold no state; the same input gives the same bytes. */
public interface ModelWriter {

    /** The format's name as people call it. */
    String format();

    /** Ending of the main file's name, without the dot. */
    String ending();

    String mediaType();

    /** Whether the format takes several files, so that it is handed out as a zip. */
    boolean isBundle();

    /** What the format cannot carry of this model, as sentences; empty when nothing is lost. */
    List<String> losses(DressedModel dressed);

    /** @param base name of the main file without its ending */
    void write(DressedModel dressed, String base, FileSink sink) throws IOException;

    /** Takes the files that a writer makes. */
    @FunctionalInterface
    interface FileSink {
        /** @param path slash-separated, below the place where the model goes */
        void file(String path, Content content) throws IOException;
    }

    /** The bytes of one file, written when asked. */
    @FunctionalInterface
    interface Content {
        void writeTo(OutputStream out) throws IOException;
    }
}
