package app.zolvan.server.library;

import app.zolvan.core.material.Facts;
import java.util.List;
import org.jspecify.annotations.Nullable;
import tools.jackson.databind.json.JsonMapper;

/**
 * What is known of a material besides its look, as {@link Facts} tells it.
 *
 * @param density in kg/m³
 * @param price   per m²
 * @param waste   in percent
 * @param carbon  in kg CO₂e per m²
 */
public record FactsWire(double density, double price, double waste, double carbon, List<String> tags) {
    private static final JsonMapper JSON = JsonMapper.shared();

    static String json(Facts f) {
        return JSON.writeValueAsString(f);
    }

    Facts facts() {
        return new Facts(density, price, waste, carbon, tags);
    }

    static @Nullable FactsWire of(@Nullable String json) {
        return json == null ? null : JSON.readValue(json, FactsWire.class);
    }
}
