package app.zolvan.server.project;

import app.zolvan.server.problem.Problem;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;

/**
 * The state that a command was given upon, and the command's own name.
 *
 * @param version of the project that whoever gives it has seen
 * @param key     given by the client and carried again when it sends the same command again, so that it is done once;
 *                null where it is sent once only
 */
public record Seen(long version, @Nullable UUID key) {
    /** As IETF's draft “The Idempotency-Key HTTP Header Field” names it. */
    public static final String KEY_HEADER = "Idempotency-Key";

    public static Seen of(long version) {
        return new Seen(version, null);
    }

    /**
     * @param ifMatch what comes after a hyphen tells views of one version apart
     * @throws Problem where there is no version, or one of the two can't be read
     */
    static Seen ofHeaders(@Nullable String ifMatch, @Nullable String key) {
        if (ifMatch == null) {
            throw Problem.of(
                    HttpStatus.PRECONDITION_REQUIRED,
                    "no-version",
                    "Reload the page: it does not say what it has seen.");
        }
        try {
            String version = ifMatch.replace("\"", "").strip().replaceFirst("-.*", "");
            return new Seen(
                    Long.parseLong(version),
                    key == null ? null : UUID.fromString(key.replace("\"", "").strip()));
        } catch (IllegalArgumentException e) {
            throw Problem.of(HttpStatus.BAD_REQUEST, "bad-version", "Reload the page and try again.");
        }
    }
}
