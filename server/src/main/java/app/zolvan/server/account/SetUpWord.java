package app.zolvan.server.account;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** The word that proves that whoever makes the first account also started Zolvan: it lies in a file that only they can read. */
@Component
class SetUpWord {
    private final @Nullable Path file;

    SetUpWord(ZolvanProperties properties) {
        file = properties.setUp() == null || properties.setUp().toString().isEmpty() ? null : properties.setUp();
    }

    void require(String word) {
        if (file == null
                || !Files.isRegularFile(file)
                || !isSame(word.strip(), read(file).strip())) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN,
                    "set-up-word",
                    "That is not the set-up word. It was printed when Zolvan was started, and lies in var/application/set-up-word.");
        }
    }

    void forget() {
        try {
            if (file != null) {
                Files.deleteIfExists(file);
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static boolean isSame(String one, String other) {
        return !other.isEmpty()
                && MessageDigest.isEqual(one.getBytes(StandardCharsets.UTF_8), other.getBytes(StandardCharsets.UTF_8));
    }

    private static String read(Path file) {
        try {
            return Files.readString(file, StandardCharsets.UTF_8);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
