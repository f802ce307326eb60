package app.zolvan.core.find;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Facts;
import app.zolvan.core.measure.Likeness;
import app.zolvan.core.measure.PatternMeasure;
import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.function.ToDoubleFunction;

/** Materials that can be narrowed down by what is measured and known of them, and laid in order. */
public final class Shelf {
    /** What materials can be narrowed down by. */
    public enum Facet {
        KIND(s -> s.material().kind() == null
                ? List.of()
                : List.of(s.material().kind().word())),
        TONE(s -> List.of(lower(s.measure().tone()))),
        FINISH(s -> List.of(s.measure().finish().word())),
        CLARITY(s -> List.of(s.measure().clarity().word())),
        PATTERN(s -> List.of(s.scale().word())),
        TAG(Sample::tags);

        private final Function<Sample, List<String>> values;

        Facet(Function<Sample, List<String>> values) {
            this.values = values;
        }

        public List<String> of(Sample s) {
            return s.values().get(this);
        }

        List<String> readOf(Sample s) {
            return values.apply(s);
        }

        private static String lower(Enum<?> e) {
            return e.name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    /** What materials can be laid in order by; those of which the number isn't known come last. */
    public enum Order {
        LIGHTEST("Lightest first", s -> -s.measure().mean().lightReflectanceValue()),
        DARKEST("Darkest first", s -> s.measure().mean().lightReflectanceValue()),
        HUE("By hue", Order::hue),
        GLOSSIEST("Glossiest first", s -> -s.measure().gloss()),
        DULLEST("Most matt first", s -> s.measure().gloss()),
        QUIETEST("Quietest first", Order::busyness),
        BUSIEST("Busiest first", s -> -busyness(s)),
        SHARPEST(
                "Sharpest first",
                s -> s.measure().pattern() == null
                        ? Double.NaN
                        : -s.measure().pattern().pixelsPerMetre()),
        LARGEST(
                "Largest repeat first",
                s -> s.measure().pattern() == null
                        ? Double.NaN
                        : -s.measure().pattern().width()),
        CHEAPEST("Lowest price first", s -> known(s, Facts::price)),
        LEAST_CARBON("Least carbon first", s -> known(s, Facts::carbon)),
        LIGHTEST_WEIGHT("Lowest density first", s -> known(s, Facts::density));

        private final String label;
        private final ToDoubleFunction<Sample> number;

        Order(String label, ToDoubleFunction<Sample> number) {
            this.label = label;
            this.number = number;
        }

        public String label() {
            return label;
        }

        private static double known(Sample s, Function<Facts, Double> fact) {
            Double number = s.facts() == null ? null : fact.apply(s.facts());
            return number == null ? Double.NaN : number;
        }

        private static double busyness(Sample s) {
            PatternMeasure p = s.measure().pattern();
            return p == null ? 0 : p.busyness();
        }

        /** Colours round the circle, then greys from light to dark. */
        private static double hue(Sample s) {
            CieLab c = CieLab.of(s.measure().mean());
            return c.chroma() < 5 ? 1000 - c.l() : c.hue();
        }
    }

    /**
     * @param wanted for each facet the values that are wanted, any of them; no values is no wish
     * @param order  null for the order in which they come
     * @param near   those nearest to this colour first, by CIEDE2000; null for no wish
     * @param like   those that reflect most like this first; null for no wish
     */
    public record Wish(Map<Facet, Set<String>> wanted, Order order, LinearRgb near, Likeness like) {
        public static final Wish NONE = new Wish(Map.of(), null, null, null);
    }

    /**
     * @param samples that fit, in order
     * @param counts  for each facet how many there would be of each value, were that facet's own wish not there
     */
    public record Found<T>(List<T> samples, Map<Facet, Map<String, Integer>> counts) {}

    private Shelf() {}

    /** @param sample what is found by of each */
    public static <T> Found<T> find(Collection<T> all, Function<T, Sample> sample, Wish wish) {
        Map<Facet, Map<String, Integer>> counts = new EnumMap<>(Facet.class);
        for (Facet f : Facet.values()) {
            counts.put(f, new LinkedHashMap<>());
        }
        List<T> fit = new ArrayList<>();
        for (T t : all) {
            Sample s = sample.apply(t);
            Facet only = null;
            int misses = 0;
            for (Facet f : Facet.values()) {
                if (!fits(s, f, wish)) {
                    misses++;
                    only = f;
                }
            }
            if (misses == 0) {
                fit.add(t);
            }
            for (Facet f : Facet.values()) {
                if (misses == 0 || (misses == 1 && f == only)) {
                    f.of(s).forEach(v -> counts.get(f).merge(v, 1, Integer::sum));
                }
            }
        }
        return new Found<>(inOrder(fit, sample, wish), counts);
    }

    private static boolean fits(Sample s, Facet f, Wish wish) {
        Set<String> wanted = wish.wanted.get(f);
        return wanted == null || wanted.isEmpty() || f.of(s).stream().anyMatch(wanted::contains);
    }

    private static <T> List<T> inOrder(List<T> fit, Function<T, Sample> sample, Wish wish) {
        ToDoubleFunction<Sample> number;
        if (wish.near != null) {
            CieLab to = CieLab.of(wish.near);
            number = s -> CieLab.of(s.measure().mean()).difference(to);
        } else if (wish.like != null) {
            number = s -> s.measure().look().distance(wish.like);
        } else if (wish.order != null) {
            number = wish.order.number;
        } else {
            return fit;
        }
        record Placed<T>(T t, double at) {}
        return fit.stream()
                .map(t -> new Placed<>(t, number.applyAsDouble(sample.apply(t))))
                .sorted(Comparator.comparingDouble(Placed::at)) // NaN comes last
                .map(Placed::t)
                .toList();
    }
}
