package app.zolvan.core.adjust;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;

/**
 * What a designer sees first of a kind of material.
 *
 * @param first the controls shown first: parameters by their names, or one of {@code colour}, {@code gloss}, {@code metal},
 *              {@code substance}, {@code body}, {@code relief} and {@code temperature}
 * @param ageing   the ways in which it ages, each with its share where it has aged most
 */
public record KindSheet(MaterialKind kind, List<String> first, List<SubKind> subKinds, Map<Parameter, Double> ageing) {

    /** The ways in which things age. */
    public static final Set<Parameter> WAYS =
            Set.of(Parameter.AGE_WEATHERING, Parameter.AGE_GROWTH, Parameter.AGE_WEAR, Parameter.AGE_DUST);

    /**
     * A surface that has aged as its kind does.
     *
     * @param kind   null where nobody has said: only dust settles then
     * @param amount 0 … 1
     */
    public static Surface aged(MaterialKind kind, Surface s, double amount) {
        if (!(amount >= 0 && amount <= 1)) {
            throw new ParameterException("age", "Age goes from 0 (new) to 1 (left to itself for decades).");
        }
        Map<Parameter, Double> ways = waysOf(kind);
        Surface changed = s;
        for (Parameter p : WAYS) {
            changed = changed.with(p, amount * ways.getOrDefault(p, 0.0));
        }
        return changed;
    }

    /** The amount that {@link #aged} took, or the nearest to it where the ways were changed apart. */
    public static double age(MaterialKind kind, Surface s) {
        double most = 0;
        for (Map.Entry<Parameter, Double> way : waysOf(kind).entrySet()) {
            most = Math.max(most, s.number(way.getKey()) / way.getValue());
        }
        return Math.min(1, most);
    }

    /** In words how far it has aged. */
    public static String ageWord(MaterialKind kind, Surface s) {
        if (WAYS.stream().allMatch(p -> s.number(p) == 0)) {
            return "new";
        }
        double age = age(kind, s);
        return age < 0.25 ? "a little" : age < 0.6 ? "in use" : "old";
    }

    private static Map<Parameter, Double> waysOf(MaterialKind kind) {
        return kind == null ? Map.of(Parameter.AGE_DUST, 1.0) : of(kind).ageing();
    }

    /**
     * A kind within a kind, such as bone china.
     *
     * @param values what it settles; all else stays
     */
    public record SubKind(String name, String says, Map<Parameter, double[]> values) {

        public Surface on(Surface s) {
            Surface changed = s;
            for (Map.Entry<Parameter, double[]> v : values.entrySet()) {
                changed = changed.with(v.getKey(), v.getValue());
            }
            return changed;
        }
    }

    public static final List<KindSheet> ALL = read();

    /** What is shown first of a material that nobody has said the kind of. */
    public static final List<String> FIRST_OF_ANY = firstOfAny();

    public static KindSheet of(MaterialKind kind) {
        return ALL.stream().filter(k -> k.kind() == kind).findFirst().orElseThrow();
    }

    /** The kind within the kind whose values the surface has, if there is one. */
    public Optional<SubKind> within(Surface s) {
        return subKinds.stream().filter(k -> k.on(s).isNear(s, 1e-6)).findFirst();
    }

    public Optional<SubKind> named(String name) {
        return subKinds.stream().filter(k -> k.name().equals(name)).findFirst();
    }

    private static JsonValue file() {
        return JsonValue.parseTrusted(KindSheet.class.getResourceAsStream("kinds.json"));
    }

    private static List<String> firstOfAny() {
        try {
            return Control.texts(file().require("any"), "first");
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    private static List<KindSheet> read() {
        try {
            JsonValue json = file();
            List<KindSheet> all = new ArrayList<>();
            for (MaterialKind kind : MaterialKind.values()) {
                JsonValue k = json.require(kind.word());
                List<SubKind> subKinds = new ArrayList<>();
                for (JsonValue s : k.list("kinds")) {
                    subKinds.add(new SubKind(
                            s.require("name").text(), s.require("says").text(), values(s)));
                }
                all.add(new KindSheet(kind, Control.texts(k, "first"), List.copyOf(subKinds), ageing(k)));
            }
            return List.copyOf(all);
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Map<Parameter, Double> ageing(JsonValue kind) throws ImportException {
        Map<Parameter, Double> ways = new EnumMap<>(Parameter.class);
        JsonValue json = kind.require("ageing");
        for (String key : json.keys()) {
            ways.put(
                    Parameter.named(key).filter(WAYS::contains).orElseThrow(),
                    json.get(key).number());
        }
        return ways;
    }

    private static Map<Parameter, double[]> values(JsonValue s) throws ImportException {
        JsonValue json = s.require("values");
        Surface values = MaterialJson.readOver(Surface.STANDARD, json);
        Map<Parameter, double[]> named = new EnumMap<>(Parameter.class);
        for (String key : json.keys()) {
            Parameter p = Parameter.named(key).orElseThrow();
            named.put(p, values.value(p));
        }
        return named;
    }
}
