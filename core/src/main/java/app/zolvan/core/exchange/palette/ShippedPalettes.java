package app.zolvan.core.exchange.palette;

import app.zolvan.core.colour.Palette;
import app.zolvan.core.exchange.ImportException;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.List;

/** The palettes that ship with Zolvan: one JSON file each, beside this class. */
public final class ShippedPalettes {
    private static final List<Palette> ALL =
            List.of("greys", "chalk", "earths", "harbour", "garden", "water", "anodised").stream()
                    .map(ShippedPalettes::read)
                    .toList();

    private ShippedPalettes() {}

    /** Their names are all different. */
    public static List<Palette> all() {
        return ALL;
    }

    private static Palette read(String file) {
        try (InputStream in = ShippedPalettes.class.getResourceAsStream(file + ".json")) {
            return PaletteFile.read(in.readAllBytes(), file);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (ImportException e) {
            throw new IllegalStateException("a shipped palette can't be read", e);
        }
    }
}
