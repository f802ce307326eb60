package app.zolvan.server;

import static java.nio.charset.StandardCharsets.UTF_8;
import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.model.Digest;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Migrations are only ever added: a database that has been through one refuses to start where its text is another. */
class MigrationsTest {
    private static final Path FOLDER = Path.of("src/main/resources/db/migration");
    /** A line for each: its digest and its name. */
    private static final Path KNOWN = Path.of("src/test/resources/migrations.txt");

    @Test
    void noneIsChangedOnceItIsWritten() throws IOException {
        List<String> now;
        try (Stream<Path> files = Files.list(FOLDER)) {
            now = files.map(MigrationsTest::line).toList();
        }
        assertThat(now)
                .as("a new migration gets its line in migrations.txt; a written one never changes")
                .containsExactlyInAnyOrderElementsOf(Files.readAllLines(KNOWN, UTF_8));
    }

    private static String line(Path file) {
        try {
            return Digest.of(Files.readAllBytes(file)) + "  " + file.getFileName();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
