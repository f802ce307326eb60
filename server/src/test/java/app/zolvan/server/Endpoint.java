package app.zolvan.server;

import static java.nio.charset.StandardCharsets.UTF_8;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;

/**
 * A line of {@code endpoints.txt}.
 *
 * @param path pattern with variables in braces
 * @param who  least that one has to be
 */
record Endpoint(String method, String path, Who who) {
    /** Least that an account has to be to something, see {@code endpoints.txt}. */
    enum Who {
        ANYBODY,
        ACCOUNT,
        SELF,
        ADMINISTRATOR,
        MEMBER,
        OWNER,
        READER,
        EDITOR,
        APPROVER
    }

    /** All lines of the table. */
    static List<Endpoint> table() {
        List<Endpoint> all = new ArrayList<>();
        for (String line : file().split("\n")) {
            if (!line.startsWith("#")) {
                String[] fields = line.trim().split(" +");
                all.add(new Endpoint(fields[0], fields[1], Who.valueOf(fields[2].toUpperCase(Locale.ROOT))));
            }
        }
        return all;
    }

    private static String file() {
        try (InputStream in = Endpoint.class.getResourceAsStream("/endpoints.txt")) {
            return new String(in.readAllBytes(), UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    boolean deletes() {
        return method.equals("DELETE");
    }

    @Override
    public String toString() {
        return method + " " + path;
    }
}
