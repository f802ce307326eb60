package app.zolvan.server;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;

/**
 * The throwaway database of tests: the one that {@code ./zolvan check} has started; else, as from an editor, one that this
 * starts and leaves running.
 *
 * @param url      for JDBC
 * @param programs folder of the database's own programs, such as pg_restore
 */
record TestDatabase(String url, String password, Path programs) {
    private static TestDatabase instance;

    static synchronized TestDatabase get() {
        if (instance == null) {
            String url = System.getenv("ZOLVAN_DB_URL");
            instance = url == null
                    ? started()
                    : new TestDatabase(
                            url, System.getenv("ZOLVAN_DB_PASSWORD"), Path.of(System.getenv("ZOLVAN_PG_BIN")));
        }
        return instance;
    }

    /** JDBC URL of another database on the same server. */
    String url(String database) {
        return url.substring(0, url.lastIndexOf('/') + 1) + database;
    }

    int port() {
        return Integer.parseInt(url.replaceAll(".*:(\\d+)/.*", "$1"));
    }

    private static TestDatabase started() {
        try {
            Process process = new ProcessBuilder(root().resolve("zolvan").toString(), "test-database")
                    .redirectError(ProcessBuilder.Redirect.INHERIT)
                    .start();
            List<String> said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .toList();
            if (process.waitFor() != 0) {
                throw new IllegalStateException("./zolvan test-database could not start one: " + said);
            }
            int last = said.size() - 1;
            return new TestDatabase(said.get(last - 2), said.get(last - 1), Path.of(said.get(last)));
        } catch (IOException e) {
            throw new IllegalStateException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }

    /** The project's own folder, from whichever module a test runs. */
    static Path root() {
        Path folder = Path.of("").toAbsolutePath();
        while (!Files.exists(folder.resolve("zolvan"))) {
            folder = folder.getParent();
        }
        return folder;
    }
}
