package app.zolvan.server.guard;

import java.util.List;
import java.util.regex.Pattern;

/** Bytes that the JSON of a request may have, by what it is sent to. Files have limits of their own. */
final class BodyLimits {
    private static final long SMALL = 64L << 10;
    private static final long USUAL = 1L << 20;
    /** For what names each of many parts, faces or triangles. */
    private static final long MANY = 24L << 20;

    private static final Pattern ANYBODYS = Pattern.compile("/api/session(/.*)?|/api/accounts?(/.*)?");
    private static final List<Pattern> LONG = List.of(Pattern.compile(
            "/api/projects/[^/]+/(assignments|own-faces|parts|candidates|adjustments|materials|update|sets)(/.*)?"));

    private BodyLimits() {}

    static long of(String path) {
        if (ANYBODYS.matcher(path).matches()) {
            return SMALL;
        }
        return LONG.stream().anyMatch(p -> p.matcher(path).matches()) ? MANY : USUAL;
    }
}
