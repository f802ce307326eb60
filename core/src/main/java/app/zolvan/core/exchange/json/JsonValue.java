package app.zolvan.core.exchange.json;

import app.zolvan.core.exchange.ImportException;
import java.io.IOException;
import java.io.InputStream;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import tools.jackson.core.JsonParser;
import tools.jackson.core.JsonToken;
import tools.jackson.core.ObjectReadContext;
import tools.jackson.core.StreamReadConstraints;
import tools.jackson.core.exc.StreamConstraintsException;
import tools.jackson.core.exc.StreamReadException;
import tools.jackson.core.json.JsonFactory;

/**
 * A JSON value that knows where it stands in its document, so that a wrong type can be reported with its path. Built in
 * one pass by a streaming parser, with limits on depth and on the number of values. Immutable.
 */
public final class JsonValue {
    private static final int MAX_VALUES = 8_000_000;
    private static final JsonFactory FACTORY = JsonFactory.builder()
            .streamReadConstraints(StreamReadConstraints.builder()
                    .maxNestingDepth(64)
                    .maxNumberLength(64)
                    .maxNameLength(4096)
                    .maxStringLength(300 << 20)
                    .build())
            .build();

    private final Object value;
    private final JsonValue parent;
    private final String key;
    private final int index;

    /** A member of an object, or the root where {@code parent} is null. */
    private JsonValue(Object value, JsonValue parent, String key) {
        this.value = value;
        this.parent = parent;
        this.key = key;
        this.index = -1;
    }

    /** An element of a list. */
    private JsonValue(Object value, JsonValue parent, int index) {
        this.value = value;
        this.parent = parent;
        this.key = "";
        this.index = index;
    }

    /** @throws ImportException if the text is not JSON, or too deep or too large */
    public static JsonValue parse(byte[] utf8) throws ImportException {
        try (JsonParser parser = FACTORY.createParser(ObjectReadContext.empty(), utf8)) {
            return read(parser);
        } catch (StreamConstraintsException e) {
            throw tooLarge();
        } catch (StreamReadException e) {
            throw new ImportException(
                    "not-json",
                    "The file's description is not valid JSON (line "
                            + e.getLocation().getLineNr()
                            + "). It may be cut off or damaged; export it again.");
        }
    }

    /** Like {@link #parse(byte[])}, for text that ships with Zolvan and is therefore right. */
    public static JsonValue parseTrusted(InputStream in) {
        try (in) {
            return parse(in.readAllBytes());
        } catch (IOException | ImportException e) {
            throw new IllegalStateException(e);
        }
    }

    private static JsonValue read(JsonParser parser) throws ImportException {
        int[] budget = {MAX_VALUES};
        if (parser.nextToken() == null) {
            throw new ImportException("not-json", "The file is empty; export it again.");
        }
        Object root = build(parser, budget);
        return new JsonValue(root, null, "");
    }

    private static Object build(JsonParser parser, int[] budget) throws ImportException {
        if (--budget[0] < 0) {
            throw tooLarge();
        }
        return switch (parser.currentToken()) {
            case START_OBJECT -> {
                Map<String, Object> map = new LinkedHashMap<>();
                while (parser.nextToken() != JsonToken.END_OBJECT) {
                    String name = parser.currentName();
                    parser.nextToken();
                    map.put(name, build(parser, budget));
                }
                yield map;
            }
            case START_ARRAY -> {
                List<Object> list = new ArrayList<>();
                while (parser.nextToken() != JsonToken.END_ARRAY) {
                    list.add(build(parser, budget));
                }
                yield list;
            }
            case VALUE_STRING -> parser.getString();
            case VALUE_NUMBER_INT, VALUE_NUMBER_FLOAT -> parser.getDoubleValue();
            case VALUE_TRUE -> true;
            case VALUE_FALSE -> false;
            default -> JsonToken.VALUE_NULL;
        };
    }

    private static ImportException tooLarge() {
        return new ImportException(
                "too-large",
                "The file's description is too large or too deeply nested to read; export a smaller part.");
    }

    public boolean has(String key) {
        return value instanceof Map<?, ?> m && m.containsKey(key);
    }

    public boolean isObject() {
        return value instanceof Map<?, ?>;
    }

    public Set<String> keys() throws ImportException {
        return object().keySet();
    }

    /** The member of that name, or null where there is none. */
    public JsonValue get(String key) throws ImportException {
        Map<String, Object> m = object();
        Object found = m.get(key); // a null in the file has a token of its own
        return found == null ? null : new JsonValue(found, this, key);
    }

    /** The member of that name. */
    public JsonValue require(String key) throws ImportException {
        JsonValue v = get(key);
        if (v == null) {
            throw new ImportException("invalid", "“" + key + "” is missing at " + where() + "; export the file again.");
        }
        return v;
    }

    /** The elements of the array of that name; none where it is absent. */
    public List<JsonValue> list(String key) throws ImportException {
        JsonValue v = get(key);
        return v == null ? List.of() : v.elements();
    }

    /** How many elements the array of that name has; 0 where it is absent. */
    public int size(String key) throws ImportException {
        Object v = object().get(key);
        if (v != null && v != JsonToken.VALUE_NULL && !(v instanceof List<?>)) {
            throw get(key).wrong("a list");
        }
        return v instanceof List<?> l ? l.size() : 0;
    }

    /** One element of the array of that name, which must have it. */
    public JsonValue at(String key, int index) throws ImportException {
        JsonValue list = get(key);
        return new JsonValue(((List<?>) list.value).get(index), list, index);
    }

    public List<JsonValue> elements() throws ImportException {
        if (!(value instanceof List<?> l)) {
            throw wrong("a list");
        }
        List<JsonValue> out = new ArrayList<>(l.size());
        for (Object o : l) {
            out.add(new JsonValue(o, this, out.size()));
        }
        return out;
    }

    public String text() throws ImportException {
        if (value instanceof String s) {
            return s;
        }
        throw wrong("a text");
    }

    public String text(String key, String otherwise) throws ImportException {
        JsonValue v = get(key);
        return v == null ? otherwise : v.text();
    }

    public double number() throws ImportException {
        if (value instanceof Double d && Double.isFinite(d)) {
            return d;
        }
        throw wrong("a number");
    }

    public double number(String key, double otherwise) throws ImportException {
        JsonValue v = get(key);
        return v == null ? otherwise : v.number();
    }

    /** A whole number from 0 to 2³¹ − 1. */
    public int index() throws ImportException {
        double d = number();
        if (d < 0 || d > Integer.MAX_VALUE || d != Math.rint(d)) {
            throw wrong("a whole number from 0 to 2147483647");
        }
        return (int) d;
    }

    public int index(String key, int otherwise) throws ImportException {
        JsonValue v = get(key);
        return v == null ? otherwise : v.index();
    }

    public boolean flag(String key, boolean otherwise) throws ImportException {
        JsonValue v = get(key);
        return v == null ? otherwise : v.flag();
    }

    public boolean flag() throws ImportException {
        if (value instanceof Boolean b) {
            return b;
        }
        throw wrong("true or false");
    }

    /** An array of exactly {@code otherwise.length} numbers. */
    public double[] numbers(String key, double... otherwise) throws ImportException {
        JsonValue v = get(key);
        if (v == null) {
            return otherwise.clone();
        }
        double[] out = v.numbers();
        if (out.length != otherwise.length) {
            throw v.wrong("a list of " + otherwise.length + " numbers");
        }
        return out;
    }

    public double[] numbers() throws ImportException {
        List<JsonValue> list = elements();
        double[] out = new double[list.size()];
        for (int i = 0; i < out.length; i++) {
            out[i] = list.get(i).number();
        }
        return out;
    }

    public String where() {
        String path = path();
        return path.isEmpty() ? "the top of the file" : path;
    }

    private String path() {
        if (parent == null) {
            return "";
        }
        String above = parent.path();
        return index >= 0 ? above + "[" + index + "]" : above.isEmpty() ? key : above + "." + key;
    }

    public ImportException wrong(String expected) {
        return new ImportException(
                "invalid", "The file says something other than " + expected + " at " + where() + "; export it again.");
    }

    @SuppressWarnings("unchecked")
    private Map<String, Object> object() throws ImportException {
        if (value instanceof Map<?, ?> m) {
            return (Map<String, Object>) m;
        }
        throw wrong("a group of values");
    }
}
