package app.zolvan.server.model;

import app.zolvan.server.asset.AssetService;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.DirectoryStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/** An asset's bytes as a file on this machine, for as long as it is open. */
public final class UploadedFile implements AutoCloseable {
    private static final String NAME = "zolvan-import-";
    /** With the number of the process that it belongs to. */
    private static final String PREFIX = NAME + ProcessHandle.current().pid() + "-";

    private static final Pattern OWNED = Pattern.compile(NAME + "(\\d+)-.*");

    private final Path path;

    private UploadedFile(Path path) {
        this.path = path;
    }

    public static UploadedFile of(AssetService assets, String sha256) throws IOException {
        Path path = Files.createTempFile(PREFIX, ".bin");
        UploadedFile file = new UploadedFile(path);
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(path))) {
            assets.copy(sha256, out);
        } catch (IOException | RuntimeException e) {
            file.close();
            throw e;
        }
        return file;
    }

    /** Removes what processes have left that were killed. */
    static void clearAway() throws IOException {
        Path folder = Path.of(System.getProperty("java.io.tmpdir"));
        try (DirectoryStream<Path> files = Files.newDirectoryStream(folder, NAME + "*")) {
            for (Path file : files) {
                Matcher name = OWNED.matcher(file.getFileName().toString());
                if (name.matches()
                        && ProcessHandle.of(Long.parseLong(name.group(1))).isEmpty()) {
                    Files.deleteIfExists(file);
                }
            }
        }
    }

    public String path() {
        return path.toString();
    }

    @Override
    public void close() throws IOException {
        Files.deleteIfExists(path);
    }
}
