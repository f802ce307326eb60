package app.zolvan.server;

import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Map;

/** Runs functions of the start script against the test database. */
final class Scripts {
    private static final String BEFORE = """
            set -euo pipefail
            say() { printf '%s\\n' "$*"; }
            fail() { printf '%s\\n' "$*" >&2; exit 1; }
            . "$ROOT/setup/database.sh"
            . "$ROOT/setup/backup.sh"
            """;

    /** @param said what it printed, sentences of failure included */
    record Outcome(int code, String said) {}

    private Scripts() {}

    static Outcome run(String function, String... words) throws IOException, InterruptedException {
        StringBuilder call = new StringBuilder(BEFORE).append(function);
        for (String word : words) {
            call.append(" '").append(word).append('\'');
        }
        ProcessBuilder builder = new ProcessBuilder("bash", "-c", call.toString()).redirectErrorStream(true);
        Map<String, String> environment = builder.environment();
        environment.put("ROOT", TestDatabase.root().toString());
        environment.put("PG_BIN", TestDatabase.get().programs().toString());
        environment.put("PG_PORT", String.valueOf(TestDatabase.get().port()));
        environment.put("PGPASSWORD", TestDatabase.get().password());
        Process process = builder.start();
        process.getOutputStream().close();
        String said = new String(process.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        return new Outcome(process.waitFor(), said);
    }

    /** A file's path for such a call. */
    static String path(Path file) {
        return file.toAbsolutePath().toString();
    }
}
