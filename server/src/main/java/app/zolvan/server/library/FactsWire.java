package app.zolvan.server.library;

import app.zolvan.core.material.Drawing;
import app.zolvan.core.material.Facts;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;

/**
 * What is known of a material besides its look, as {@link Facts} tells it; null for what nobody told.
 *
 * @param density in kg/m³
 * @param price   per m²
 * @param waste   in percent
 * @param carbon  in kg CO₂e per m²
 * @param drawing how it is drawn in diagrams; null for as comes
 * @param missing      what a finish schedule needs of it and nobody told; not read
 * @param hasSubstance whether anything is told of what it is made of; not read
 */
public record FactsWire(
        @Nullable Double density,
        @Nullable Double price,
        @Nullable Double waste,
        @Nullable Double carbon,
        @Nullable List<String> tags,
        @Nullable String substance,
        @Nullable String source,
        @Nullable String licence,
        @Nullable String supplier,
        @Nullable String article,
        @Nullable DrawingWire drawing,
        @Nullable List<String> missing,
        @Nullable Boolean hasSubstance) {
    /**
     * @param colour #rrggbb; null for that of its look
     * @param hatch  0 for none
     */
    record DrawingWire(@Nullable String colour, int hatch) {}

    private static final JsonMapper JSON = JsonMapper.shared();

    static String json(Facts f) {
        return JSON.writeValueAsString(f);
    }

    public static FactsWire of(Facts f) {
        return new FactsWire(
                f.density(),
                f.price(),
                f.waste(),
                f.carbon(),
                f.tags(),
                f.substance(),
                f.source(),
                f.licence(),
                f.supplier(),
                f.article(),
                f.drawing() == null
                        ? null
                        : new DrawingWire(f.drawing().colour(), f.drawing().hatch()),
                f.missing(),
                f.hasSubstance());
    }

    /** What it tells; texts without spaces around them, none for empty ones. */
    public Facts facts() {
        return new Facts(
                density,
                price,
                waste,
                carbon,
                tags == null
                        ? List.of()
                        : tags.stream().map(String::strip).distinct().toList(),
                text(substance),
                text(source),
                text(licence),
                text(supplier),
                text(article),
                drawing == null ? null : new Drawing(drawing.colour, drawing.hatch));
    }

    private static @Nullable String text(@Nullable String given) {
        return given == null || given.isBlank() ? null : given.strip();
    }

    static @Nullable FactsWire of(@Nullable String json) {
        return json == null ? null : of(JSON.readValue(json, FactsWire.class).facts());
    }
}
