package app.zolvan.server.problem;

import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;

/** Names of files as browsers send them: URL-encoded, so that any fits into a header. */
public final class FileName {
    private static final int LONGEST = 200;

    private FileName() {}

    /** The name without control characters and slashes; a problem where it can't be read or nothing is left. */
    public static String decoded(String header) {
        String name;
        try {
            name = URLDecoder.decode(header, StandardCharsets.UTF_8);
        } catch (IllegalArgumentException e) {
            throw Problem.ofField("fileName", "The file’s name came damaged. Give it a plainer one and send it again.");
        }
        String clean = name.replaceAll("[\\p{Cntrl}/\\\\]", " ").strip();
        if (clean.isEmpty() || clean.length() > LONGEST) {
            throw Problem.ofField("fileName", "The file needs a name of up to 200 characters.");
        }
        return clean;
    }
}
