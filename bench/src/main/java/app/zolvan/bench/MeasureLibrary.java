package app.zolvan.bench;

import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.MeasureJson;
import app.zolvan.core.render.chip.Chip;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.TreeMap;

/** Measures of all shipped materials, a line each. */
public final class MeasureLibrary {
    private MeasureLibrary() {}

    /** @param args where they go */
    public static void main(String[] args) throws IOException {
        ShippedLibrary library = ShippedLibrary.load();
        Map<String, String> lines = new TreeMap<>();
        long start = System.nanoTime();
        for (Material m : library.materials()) {
            MaterialMeasure measure = MaterialMeasure.of(m.surface(), library.images()::get);
            lines.put(
                    Chip.key(m.surface()),
                    new String(JsonText.utf8(MeasureJson.write(measure)), StandardCharsets.UTF_8));
            System.out.printf(
                    "%s %-28s %-7s %-11s %-12s %s%n",
                    m.code(),
                    m.name(),
                    measure.tone(),
                    measure.finish().word(),
                    measure.clarity(),
                    measure.pattern() == null
                            ? ""
                            : String.format(
                                    "%5.2f %s, %.1f mm, %.0f px/m, seams %.3f %.3f",
                                    measure.pattern().busyness(),
                                    measure.pattern().word(),
                                    1000 * measure.pattern().detail(),
                                    measure.pattern().pixelsPerMetre(),
                                    measure.pattern().seamU(),
                                    measure.pattern().seamV()));
        }
        System.out.printf(
                "%d materials, %.0f ms each%n", lines.size(), (System.nanoTime() - start) / 1e6 / lines.size());
        StringBuilder text = new StringBuilder();
        lines.forEach((key, json) -> text.append(text.isEmpty() ? "{\n\"" : ",\n\"")
                .append(key)
                .append("\": ")
                .append(json));
        Files.writeString(Path.of(args[0]), text.append("\n}\n"));
    }
}
