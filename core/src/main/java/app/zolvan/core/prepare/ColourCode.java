package app.zolvan.core.prepare;

import app.zolvan.core.colour.Srgb;
import app.zolvan.core.model.Model;
import app.zolvan.core.prepare.PlainColours.Mark;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.BiFunction;
import java.util.stream.Stream;

/**
 * Colours and hatches that stand for what the surfaces of a model are.
 *
 * @param spans by part and span, which of the entries it is
 * @param entries those of most area first; what is nothing of the kind last, also by area
 */
public record ColourCode<K extends Comparable<K>>(List<List<Integer>> spans, List<Entry<K>> entries) {
    /** Of what is nothing of the kind: a light grey without hatch. */
    private static final Mark PLAIN = new Mark(Srgb.fromCodes(0xC9, 0xC8, 0xC4), 0);

    /**
     * What a surface is.
     *
     * @param key null where it is nothing of the kind that is told apart
     * @param own how it is to be marked; null for as comes
     */
    public record Thing<K>(K key, String name, Mark own) {
        public Thing(K key, String name) {
            this(key, name, null);
        }

        private Mark or(Mark usual) {
            return own == null ? usual : own;
        }
    }

    /**
     * A line of the legend.
     *
     * @param parts how many parts are that somewhere
     * @param area  m²
     */
    public record Entry<K>(Thing<K> thing, Mark mark, int parts, double area) {}

    /** @param things gives what a part's span is */
    public static <K extends Comparable<K>> ColourCode<K> of(
            Model model, BiFunction<Integer, Integer, Thing<K>> things) {
        List<List<Thing<K>>> found = new ArrayList<>();
        Map<Thing<K>, Double> areas = new LinkedHashMap<>();
        Map<Thing<K>, Set<Integer>> parts = new HashMap<>();
        for (int p = 0; p < model.parts().size(); p++) {
            List<Thing<K>> ofPart = new ArrayList<>();
            for (int s = 0; s < model.parts().get(p).sourceOfSpan().size(); s++) {
                Thing<K> t = things.apply(p, s);
                ofPart.add(t);
                areas.merge(t, Coverage.area(model, p, s), Double::sum);
                parts.computeIfAbsent(t, k -> new HashSet<>()).add(p);
            }
            found.add(ofPart);
        }
        Map<K, Double> told = new HashMap<>();
        Map<K, Thing<K>> byKey = new HashMap<>();
        areas.forEach((t, area) -> {
            if (t.key != null) {
                told.put(t.key, area);
                byKey.put(t.key, t);
            }
        });
        Map<K, Mark> marks = PlainColours.marks(told);
        List<Thing<K>> order = Stream.concat(
                        marks.keySet().stream().map(byKey::get),
                        areas.entrySet().stream()
                                .filter(e -> e.getKey().key == null)
                                .sorted(Map.Entry.<Thing<K>, Double>comparingByValue()
                                        .reversed())
                                .map(Map.Entry::getKey))
                .toList();
        Map<Thing<K>, Integer> places = new HashMap<>();
        order.forEach(t -> places.put(t, places.size()));
        return new ColourCode<>(
                found.stream()
                        .map(spans -> spans.stream().map(places::get).toList())
                        .toList(),
                order.stream()
                        .map(t -> new Entry<>(
                                t,
                                t.or(t.key == null ? PLAIN : marks.get(t.key)),
                                parts.get(t).size(),
                                areas.get(t)))
                        .toList());
    }
}
