package app.zolvan.server.problem;

import org.springframework.http.HttpStatus;

/**
 * A request can't be carried out, for a reason the designer can understand. Becomes application/problem+json (RFC 9457).
 * Nothing has been changed when it is thrown: it rolls the transaction back.
 */
public final class Problem extends RuntimeException {
    private final HttpStatus status;
    private final String type;
    private final String field;
    private final transient Object current;

    private Problem(HttpStatus status, String type, String sentence, String field, Object current) {
        super(sentence);
        this.status = status;
        this.type = type;
        this.field = field;
        this.current = current;
    }

    /** @param type a stable word for programs */
    public static Problem of(HttpStatus status, String type, String sentence) {
        return new Problem(status, type, sentence, null, null);
    }

    public static Problem ofField(String field, String sentence) {
        return new Problem(HttpStatus.UNPROCESSABLE_CONTENT, "invalid-value", sentence, field, null);
    }

    /** The same answer for what is missing and for what belongs to somebody else, so that neither is given away. */
    public static Problem notFound(String what) {
        return of(HttpStatus.NOT_FOUND, "not-found", "There is no such " + what + ", or it isn’t yours.");
    }

    /** @param current what the thing looks like now, for the client to show */
    public static Problem conflict(String type, String sentence, Object current) {
        return new Problem(HttpStatus.CONFLICT, type, sentence, null, current);
    }

    public HttpStatus status() {
        return status;
    }

    public String type() {
        return type;
    }

    public String field() {
        return field;
    }

    public Object current() {
        return current;
    }
}
