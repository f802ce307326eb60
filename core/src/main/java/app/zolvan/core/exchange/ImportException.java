package app.zolvan.core.exchange;

/**
 * A file can't be imported. The message is one or two sentences for the designer: what is wrong, where, what to do.
 * Nothing has been changed when this is thrown.
 */
public final class ImportException extends Exception {
    private final String reason;

    /** @param reason a stable word for programs, such as {@code truncated} or {@code too-large} */
    public ImportException(String reason, String sentence) {
        super(sentence);
        this.reason = reason;
    }

    /** The same, with what the fault came from. */
    public ImportException(String reason, String sentence, Throwable cause) {
        super(sentence, cause);
        this.reason = reason;
    }

    public String reason() {
        return reason;
    }
}
