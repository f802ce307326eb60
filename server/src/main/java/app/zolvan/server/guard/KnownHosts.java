package app.zolvan.server.guard;

import java.util.List;
import java.util.Locale;
import java.util.Set;

/** Names by which a browser may ask for Zolvan: a page of another name, made to lead here, gets nothing. */
final class KnownHosts {
    private static final Set<String> OWN = Set.of("localhost", "127.0.0.1", "[::1]");

    private final Set<String> given;

    KnownHosts(List<String> given) {
        this.given = given == null
                ? Set.of()
                : Set.copyOf(given.stream()
                        .map(h -> h.strip().toLowerCase(Locale.ROOT))
                        .filter(h -> !h.isEmpty())
                        .toList());
    }

    /** @param host as the browser sent it, with or without a port; null for none */
    boolean contains(String host) {
        if (host == null) {
            return false;
        }
        String name = host.replaceFirst(":\\d+$", "").toLowerCase(Locale.ROOT);
        return OWN.contains(name) || given.contains(name);
    }
}
