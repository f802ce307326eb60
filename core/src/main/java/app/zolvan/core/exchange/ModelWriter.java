package app.zolvan.core.exchange;

import app.zolvan.core.geometry.Transform;
import java.io.IOException;
import java.io.OutputStream;
import java.util.List;

/** Writes a dressed model in one open format. Implementations hold no state; the same input gives the same bytes. */
public interface ModelWriter {

    /** From metres with Y up to millimetres with Z up, as formats of programs that make things expect it. */
    Transform MILLIMETRES_Z_UP =
            Transform.ofColumns(new double[] {1000, 0, 0, 0, 0, 0, 1000, 0, 0, -1000, 0, 0, 0, 0, 0, 1});

    /**
     * What a format is called and looks like.
     *
     * @param name     as people call it
     * @param ending   of the main file's name, without the dot
     * @param isBundle whether it takes several files, so that it is handed out as a zip
     */
    record Kind(String name, String ending, String mediaType, boolean isBundle) {}

    Kind kind();

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
