package app.zolvan.server.library;

import app.zolvan.core.snag.Certainty;
import app.zolvan.core.snag.Fix;
import app.zolvan.core.snag.Snag;
import java.util.Map;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * Something odd about a material.
 *
 * @param kind      its stable name
 * @param says      a sentence or two
 * @param certainty how sure it is that it is not meant
 * @param fix       what mends it without a doubt; null where somebody has to decide
 */
public record RemarkWire(
        String kind,
        String says,
        Certainty certainty,
        @Nullable FixWire fix) {
    /**
     * @param label  what a button for it says
     * @param values of parameters, by OpenPBR's names
     */
    public record FixWire(String label, Map<String, Double> values) {}

    static RemarkWire of(Snag s) {
        FixWire fix = s.fix() instanceof Fix.OfMaterial m
                ? new FixWire(
                        m.label(),
                        m.values().entrySet().stream()
                                .collect(Collectors.toMap(e -> e.getKey().openPbrName(), Map.Entry::getValue)))
                : null;
        return new RemarkWire(s.kind().name(), s.says(), s.kind().certainty(), fix);
    }
}
