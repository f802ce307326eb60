package app.zolvan.core.exchange;

import app.zolvan.core.model.Model;
import java.nio.ByteBuffer;

/** Reads a design model in one file format. Implementations hold no state. */
public interface ModelReader {

    /** True when the first bytes look like this format, whatever the file's name. */
    boolean recognises(ByteBuffer file);

    /**
     * @param file     the whole file; its position is not changed
     * @param progress told how far the work is
     * @throws ImportException with a sentence for the designer when the file can't be read
     */
    Model read(ByteBuffer file, ImportLimits limits, Progress progress) throws ImportException;

    /** Told how far a piece of work is, as a share in [0, 1] and what is being done now. */
    @FunctionalInterface
    interface Progress {
        Progress NONE = (share, step) -> {};

        void at(double share, String step);
    }
}
