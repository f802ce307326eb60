package app.zolvan.core.adjust;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * How a designer meets one parameter, one wish about several, or one value of a picture's tone: its name in plain words, a sentence, two values to start
 * from, and the numbers a control of it shows.
 *
 * @param name     OpenPBR's, or the wish's as {@link Adjustment} knows it
 * @param fold     the part of the card it belongs to
 * @param examples two, each a value and what it is like
 * @param ends     what the two ends are called; empty where numbers say enough
 * @param min      in what is shown, like {@code max} and {@code step}
 * @param unit     with its space, such as {@code " mm"}; empty for none
 * @param scale    what is shown is the parameter times this
 * @param traced   whether only traced pictures show it: the stage has no word for it
 */
public record Control(
        String name,
        String fold,
        String label,
        String says,
        List<String> examples,
        List<String> ends,
        double min,
        double max,
        double step,
        int decimals,
        String unit,
        double scale,
        boolean traced) {

    /** The values of a picture's tone that are numbers, each with what leaves the picture as it is. */
    private static final Map<String, Double> TONE =
            Map.of("saturation", 1.0, "contrast", 1.0, "brightness", 1.0, "tinted", 0.0, "faded", 0.0);

    /** All parameters that have a value of their own, in the order in which they are shown, and wishes that are numbers. */
    public static final List<Control> ALL = read();

    private static List<Control> read() {
        try {
            List<Control> all = new ArrayList<>();
            JsonValue json = JsonValue.parseTrusted(Control.class.getResourceAsStream("controls.json"));
            for (JsonValue c : json.elements()) {
                all.add(control(c));
            }
            return List.copyOf(all);
        } catch (ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    private static Control control(JsonValue c) throws ImportException {
        String name = c.require("name").text();
        if (Parameter.named(name).isEmpty() && !Adjustment.WISHES.contains(name) && !TONE.containsKey(name)) {
            throw c.wrong("a known parameter, wish or value of a tone");
        }
        return new Control(
                name,
                c.require("fold").text(),
                c.require("label").text(),
                c.require("says").text(),
                texts(c, "examples"),
                texts(c, "ends"),
                c.number("min", 0),
                c.number("max", 1),
                c.number("step", 0.01),
                c.index("decimals", 2),
                c.text("unit", ""),
                c.number("scale", 1),
                c.flag("traced", false));
    }

    /** The parameter it sets; empty for a wish. */
    public Optional<Parameter> parameter() {
        return Parameter.named(name);
    }

    /** What it shows where nobody has changed it, in its JSON shape; empty for a wish. */
    public Optional<Object> standard() {
        return Optional.ofNullable(TONE.get(name))
                .map(Object.class::cast)
                .or(() -> parameter().map(p -> MaterialJson.value(Surface.STANDARD, p)));
    }

    static List<String> texts(JsonValue c, String key) throws ImportException {
        List<String> texts = new ArrayList<>();
        if (c.has(key)) {
            for (JsonValue t : c.get(key).elements()) {
                texts.add(t.text());
            }
        }
        return List.copyOf(texts);
    }
}
