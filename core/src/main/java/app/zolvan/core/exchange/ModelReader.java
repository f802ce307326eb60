package app.zolvan.core.exchange;

/** Reads a design model in one file format. Implementations hold no state. */
public interface ModelReader {

    /** The format's name as people call it. */
    String format();

    /** True when the content looks like this format, whatever the file's name. */
    boolean recognises(FileSet files);

    /** @throws ImportException with a sentence for the designer when the file can't be read */
    Arrival read(FileSet files, Reading reading) throws ImportException;

    /** Told how far a piece of work is, as a share in [0, 1] and what is being done now. */
    @FunctionalInterface
    interface Progress {
        Progress NONE = (share, step) -> {};

        void at(double share, String step);
    }
}
