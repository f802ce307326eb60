package app.zolvan.core.find;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.find.Shelf.Facet;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Metal;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.PatternMeasure;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;

/**
 * A material of the library as it is found.
 *
 * @param facts  null where nothing is known
 * @param values of each facet that it can be narrowed down by
 */
public record Sample(Material material, MaterialMeasure measure, Facts facts, Map<Facet, List<String>> values) {
    public static Sample of(Material material, MaterialMeasure measure, Facts facts) {
        Sample bare = new Sample(material, measure, facts, Map.of());
        Map<Facet, List<String>> values = new EnumMap<>(Facet.class);
        for (Facet f : Facet.values()) {
            values.put(f, f.readOf(bare));
        }
        return new Sample(material, measure, facts, values);
    }

    /** How large the details of a pattern are. */
    public enum Scale {
        NONE("no pattern", 0),
        FINE("fine, below 2 mm", 0.002),
        SMALL("small, below 1 cm", 0.01),
        LARGE("large", Double.POSITIVE_INFINITY);

        private final String word;
        private final double below;

        Scale(String word, double below) {
            this.word = word;
            this.below = below;
        }

        public String word() {
            return word;
        }
    }

    /** Patterns less busy than this are not seen as such. */
    private static final double SEEN = 0.15;

    public Scale scale() {
        PatternMeasure p = measure.pattern();
        if (p == null || p.busyness() < SEEN) {
            return Scale.NONE;
        }
        return p.detail() < Scale.FINE.below ? Scale.FINE : p.detail() < Scale.SMALL.below ? Scale.SMALL : Scale.LARGE;
    }

    public List<String> tags() {
        return facts == null ? List.of() : facts.tags();
    }

    /** The texts it is found by, those that say most first: name and code; tags; kind and finish; how its colour is called. */
    public List<String> texts() {
        CieLab c = CieLab.of(measure.mean());
        String depth = c.l() > 75 ? "light pale" : c.l() < 35 ? "dark deep" : "";
        String tone = measure.tone().word();
        boolean coloured = c.chroma() > 5;
        String warmth = coloured ? c.hue() > 20 && c.hue() < 110 ? "warm" : "cool" : "neutral";
        String kind = material.kind() == null ? "" : material.kind().word();
        String metal = "";
        for (Metal m : Metal.values()) {
            metal = m.isOf(material.surface()) ? m.label() : metal;
        }
        return List.of(
                material.name() + " " + String.join(" ", Words.split(material.code())),
                String.join(" ", tags()) + " " + metal,
                kind + " " + measure.finish().word() + " " + clear(),
                tone + " " + depth + " " + warmth);
    }

    private String clear() {
        return switch (measure.clarity()) {
            case SEE_THROUGH -> "clear transparent";
            case TRANSLUCENT -> "translucent";
            case OPENWORK -> "holes";
            case SOLID -> "";
        };
    }
}
