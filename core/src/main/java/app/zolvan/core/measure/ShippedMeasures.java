package app.zolvan.core.measure;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.model.Digest;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.HashMap;
import java.util.Map;
import java.util.Optional;

/** Measures of the shipped library, so that it can be searched before any of its pictures is made. {@code bench/measures} writes them. */
public final class ShippedMeasures {
    private static final Map<String, MaterialMeasure> ALL = read();

    private ShippedMeasures() {}

    /** @param look as {@link app.zolvan.core.render.chip.Chip#key} names it */
    public static Optional<MaterialMeasure> of(String look) {
        return Optional.ofNullable(ALL.get(look));
    }

    /** Another text whenever any of the numbers has changed. */
    public static String edition() {
        try (InputStream in = ShippedMeasures.class.getResourceAsStream("shipped.json")) {
            return Digest.of(in.readAllBytes());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private static Map<String, MaterialMeasure> read() {
        Map<String, MaterialMeasure> all = new HashMap<>();
        try {
            JsonValue file = JsonValue.parseTrusted(ShippedMeasures.class.getResourceAsStream("shipped.json"));
            for (String look : file.keys()) {
                all.put(look, MeasureJson.read(file.get(look)));
            }
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
        return all;
    }
}
