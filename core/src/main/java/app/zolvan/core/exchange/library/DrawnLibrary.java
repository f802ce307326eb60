package app.zolvan.core.exchange.library;

import java.io.BufferedInputStream;
import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.ObjectInputFilter;
import java.io.ObjectInputStream;
import java.io.ObjectOutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;

/**
 * The shipped library with its textures kept in a folder once they are drawn, which takes several seconds: a second database,
 * or one put back from a backup, is ready sooner. A file that can't be read is drawn and written anew.
 */
public final class DrawnLibrary {
    private static final ObjectInputFilter OURS =
            ObjectInputFilter.Config.createFilter("maxdepth=40;app.zolvan.core.**;java.base/*;!*");

    private DrawnLibrary() {}

    /** @param folder made where it is missing; null to keep nothing */
    public static ShippedLibrary load(Path folder) {
        if (folder == null) {
            return ShippedLibrary.load();
        }
        Path file = folder.resolve("library-" + ShippedLibrary.edition() + ".bin");
        try {
            return read(file);
        } catch (IOException | ClassNotFoundException | RuntimeException e) {
            ShippedLibrary drawn = ShippedLibrary.load();
            write(drawn, file);
            return drawn;
        }
    }

    private static ShippedLibrary read(Path file) throws IOException, ClassNotFoundException {
        try (ObjectInputStream in =
                new ObjectInputStream(new BufferedInputStream(Files.newInputStream(file), 1 << 16))) {
            in.setObjectInputFilter(OURS);
            return (ShippedLibrary) in.readObject();
        }
    }

    private static void write(ShippedLibrary library, Path file) {
        try {
            Files.createDirectories(file.getParent());
            Path part = Files.createTempFile(file.getParent(), "library", ".part");
            try (ObjectOutputStream out =
                    new ObjectOutputStream(new BufferedOutputStream(Files.newOutputStream(part), 1 << 16))) {
                out.writeObject(library);
            }
            Files.move(part, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        } catch (IOException e) {
            // a full or closed folder: it is drawn again next time
        }
    }
}
