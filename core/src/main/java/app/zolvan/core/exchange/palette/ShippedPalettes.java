package app.zolvan.core.exchange.palette;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.Palette;
import app.zolvan.core.colour.Swatch;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;

/** The palettes that ship with Zolvan, in the file beside this class. */
public final class ShippedPalettes {
    private static final List<Palette> ALL = read();

    private ShippedPalettes() {}

    /** In the order of the file; their names are all different. */
    public static List<Palette> all() {
        return ALL;
    }

    private static List<Palette> read() {
        try (InputStream in = ShippedPalettes.class.getResourceAsStream("palettes.json")) {
            List<Palette> all = new ArrayList<>();
            for (JsonValue p : JsonValue.parse(in.readAllBytes()).list("palettes")) {
                List<Swatch> swatches = new ArrayList<>();
                for (JsonValue s : p.list("swatches")) {
                    String colour = s.require("colour").text();
                    swatches.add(new Swatch(
                            s.require("name").text(),
                            ColourNotation.parse(colour).orElseThrow()));
                }
                all.add(new Palette(p.require("name").text(), List.copyOf(swatches)));
            }
            return List.copyOf(all);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (ImportException e) {
            throw new IllegalStateException("the shipped palettes can't be read", e);
        }
    }
}
