package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import app.zolvan.core.exchange.text.Numbers;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.IntList;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;

/** One layer of USD as text. Of values over time, the first is taken. */
final class UsdTextReader {
    private static final Set<String> LIST_EDITS = Set.of("prepend", "append", "add", "delete", "reorder");
    private static final int LONGEST_WORD = 1 << 16;
    private static final int BLOCK = 1 << 16;

    private final ByteBuffer in;
    private final Reading reading;
    private final byte[] number = new byte[64];
    private int at;
    private int line = 1;

    private UsdTextReader(ByteBuffer in, Reading reading) {
        this.in = in;
        this.reading = reading;
    }

    static boolean recognises(String head) {
        return head.startsWith("#usda ");
    }

    static UsdPrim read(ByteBuffer bytes, Reading reading) throws ImportException {
        UsdTextReader r = new UsdTextReader(bytes.slice(), reading);
        UsdPrim layer = new UsdPrim("");
        if (r.peek() == '(') {
            r.metadata(layer.metadata(), layer);
        }
        while (r.peek() >= 0) {
            r.statement(layer, 0);
        }
        return layer;
    }

    /** The next character that is neither blank nor comment, which stays; −1 at the end. */
    private int peek() {
        while (at < in.limit()) {
            int c = in.get(at);
            if (c == '#') {
                while (at < in.limit() && in.get(at) != '\n') {
                    at++;
                }
            } else if (c == '\n') {
                line++;
                at++;
            } else if ((c <= ' ' && c >= 0) || c == ';' || c == ',') {
                at++;
            } else {
                return c & 0xFF;
            }
        }
        return -1;
    }

    private boolean take(char c) {
        if (peek() != c) {
            return false;
        }
        at++;
        return true;
    }

    private void expect(char c) throws ImportException {
        if (!take(c)) {
            throw fault("should have “" + c + "” here");
        }
    }

    private ImportException fault(String what) {
        return new ImportException(
                "invalid", "Line " + line + " of the USD file " + what + ". Export the model again.");
    }

    /** A name with its spaces (colons) and suffix (after a dot); empty when something else follows. */
    private String word() throws ImportException {
        peek();
        int from = at;
        while (at < in.limit() && isNamed(in.get(at))) {
            at++;
        }
        return between(from, at);
    }

    private static boolean isNamed(int c) {
        return (c >= 'a' && c <= 'z')
                || (c >= 'A' && c <= 'Z')
                || (c >= '0' && c <= '9')
                || c == '_'
                || c == ':'
                || c == '.'
                || c < 0;
    }

    private String between(int from, int to) throws ImportException {
        if (to - from > LONGEST_WORD) {
            throw fault("has a word without end");
        }
        byte[] b = new byte[to - from];
        in.get(from, b);
        return TextNames.decode(b, 0, b.length);
    }

    private void statement(UsdPrim prim, int depth) throws ImportException {
        if (depth > reading.limits().depth()) {
            throw fault("is nested too deep");
        }
        String word = word();
        switch (word) {
            case "def", "over", "class" -> child(prim, word, depth);
            case "variantSet" -> variantSet(prim, depth);
            case "" -> throw fault("has a character that does not belong here");
            default -> property(prim, word);
        }
    }

    private void child(UsdPrim parent, String how, int depth) throws ImportException {
        String type = peek() == '"' || peek() == '\'' ? "" : word();
        UsdPrim prim = parent.child(string());
        prim.specify(UsdPrim.Specifier.valueOf(how.toUpperCase(Locale.ROOT)), type);
        body(prim, depth);
    }

    private void body(UsdPrim prim, int depth) throws ImportException {
        if (peek() == '(') {
            metadata(prim.metadata(), prim);
        }
        expect('{');
        while (!take('}')) {
            if (peek() < 0) {
                throw fault("ends in the middle");
            }
            statement(prim, depth + 1);
        }
    }

    private void variantSet(UsdPrim prim, int depth) throws ImportException {
        String set = string();
        expect('=');
        expect('{');
        while (!take('}')) {
            body(prim.variant(set, string()), depth + 1);
        }
    }

    /** @param keys what is found goes here; composition arcs and variants to the prim, if there is one */
    private void metadata(Map<String, Object> keys, UsdPrim prim) throws ImportException {
        expect('(');
        while (!take(')')) {
            int c = peek();
            if (c == '"' || c == '\'') { // a comment
                string();
                continue;
            }
            String key = word();
            boolean removes = false;
            if (LIST_EDITS.contains(key)) {
                removes = key.equals("delete") || key.equals("reorder");
                key = word();
            }
            if (key.isEmpty()) {
                throw fault("has a character that does not belong here");
            }
            expect('=');
            UsdPrim.ArcKind arc = prim == null ? null : arcKind(key);
            if (arc != null) {
                arcs(removes ? new ArrayList<>() : prim.arcs(), arc);
            } else {
                Object value = value("double", 0);
                if (key.equals("variants") && prim != null && value instanceof Map<?, ?> chosen) {
                    chosen.forEach((k, v) -> prim.selections().put(String.valueOf(k), String.valueOf(v)));
                } else if (!removes && value != null) {
                    keys.put(key, value);
                }
                if (peek() == '(') { // a layer offset behind a sublayer
                    metadata(new LinkedHashMap<>(), null);
                }
            }
        }
    }

    private static UsdPrim.ArcKind arcKind(String key) {
        return switch (key) {
            case "references" -> UsdPrim.ArcKind.REFERENCE;
            case "payload" -> UsdPrim.ArcKind.PAYLOAD;
            case "inherits" -> UsdPrim.ArcKind.INHERIT;
            case "specializes" -> UsdPrim.ArcKind.SPECIALIZE;
            default -> null;
        };
    }

    private void arcs(List<UsdPrim.Arc> to, UsdPrim.ArcKind kind) throws ImportException {
        boolean several = take('[');
        do {
            int c = peek();
            if (c == '@') {
                String asset = asset();
                to.add(new UsdPrim.Arc(kind, asset, peek() == '<' ? path() : ""));
            } else if (c == '<') {
                to.add(new UsdPrim.Arc(kind, "", path()));
            } else if (c != ']' && !word().equals("None")) {
                throw fault("refers to something that is no path");
            }
            if (peek() == '(' && c != ']') {
                metadata(new LinkedHashMap<>(), null);
            }
        } while (several && !take(']'));
    }

    private void property(UsdPrim prim, String first) throws ImportException {
        String word = first;
        boolean removes = false;
        while (LIST_EDITS.contains(word)
                || word.equals("custom")
                || word.equals("uniform")
                || word.equals("varying")
                || word.equals("config")) {
            removes |= word.equals("delete") || word.equals("reorder");
            word = word();
        }
        String type = word;
        if (take('[')) {
            expect(']');
            type += "[]";
        }
        String name = word();
        if (name.isEmpty()) {
            throw fault("has a property without a name");
        }
        String suffix = "";
        int dot = name.indexOf('.');
        if (dot >= 0) {
            suffix = name.substring(dot + 1);
            name = name.substring(0, dot);
        }
        UsdProperty p =
                removes ? new UsdProperty(name, type) : prim.properties().get(name);
        if (p == null) {
            p = new UsdProperty(name, type);
            prim.properties().put(name, p);
        }
        if (take('=')) {
            if (suffix.equals("connect") || p.isRelationship()) {
                targets(p);
            } else if (suffix.equals("timeSamples")) {
                samples(p);
            } else {
                Object value = value(type, 0);
                if (!name.equals("nameChildren") && !name.equals("properties")) {
                    p.set(value);
                }
            }
        }
        if (peek() == '(') {
            metadata(p.metadata(), null);
        }
    }

    private void targets(UsdProperty p) throws ImportException {
        List<String> paths = new ArrayList<>();
        if (take('[')) {
            while (!take(']')) {
                paths.add(path());
            }
        } else if (peek() == '<') {
            paths.add(path());
        } else if (!word().equals("None")) {
            throw fault("should have a path here");
        }
        p.point(paths);
    }

    private void samples(UsdProperty p) throws ImportException {
        expect('{');
        boolean first = !p.speaks();
        while (!take('}')) {
            value("double", 0);
            expect(':');
            Object value = value(p.type(), 0);
            if (first) {
                p.set(value);
                first = false;
            } else {
                reading.note("Movements (values over time) are left out; the first moment is shown.");
            }
        }
    }

    /** @param type decides how arrays of numbers are kept */
    private Object value(String type, int depth) throws ImportException {
        if (depth > 16) {
            throw fault("is nested too deep");
        }
        int c = peek();
        switch (c) {
            case '"', '\'' -> {
                return string();
            }
            case '@' -> {
                return new UsdProperty.Asset(asset());
            }
            case '<' -> {
                return path();
            }
            case '{' -> {
                return dictionary(depth);
            }
            case '[' -> {
                return array(type);
            }
            case '(' -> {
                return tuple();
            }
            default -> {
                if (c == '-' || c == '+' || c == '.' || (c >= '0' && c <= '9')) {
                    return new double[] {number()};
                }
                return keyword();
            }
        }
    }

    private Object keyword() throws ImportException {
        String word = word();
        return switch (word) {
            case "true", "True" -> true;
            case "false", "False" -> false;
            case "inf" -> new double[] {Double.POSITIVE_INFINITY};
            case "nan" -> new double[] {Double.NaN};
            case "None" -> null;
            case "" -> throw fault("should have a value here");
            default -> word;
        };
    }

    private Map<String, Object> dictionary(int depth) throws ImportException {
        Map<String, Object> out = new LinkedHashMap<>();
        expect('{');
        while (!take('}')) {
            String type = word();
            if (take('[')) {
                expect(']');
                type += "[]";
            }
            String key = peek() == '"' || peek() == '\'' ? string() : word();
            if (key.isEmpty()) {
                throw fault("should have a name here");
            }
            expect('=');
            Object value = value(type, depth + 1);
            if (value != null) {
                out.put(key, value);
            }
        }
        return out;
    }

    private double[] tuple() throws ImportException {
        double[] out = new double[4];
        int n = 0;
        int open = 0;
        do {
            int c = peek();
            if (c == '(') {
                at++;
                open++;
            } else if (c == ')') {
                at++;
                open--;
            } else {
                if (n == 16) {
                    throw fault("has too many numbers in one place");
                }
                out = n == out.length ? Arrays.copyOf(out, 16) : out;
                out[n++] = number();
            }
        } while (open > 0);
        return Arrays.copyOf(out, n);
    }

    private Object array(String type) throws ImportException {
        expect('[');
        int c = peek();
        if (c == ']') {
            at++;
            return isWhole(type) ? new int[0] : isDouble(type) ? new double[0] : new float[0];
        }
        if (c == '"' || c == '\'' || c == '@' || c == '<') {
            return strings();
        }
        if (isWhole(type)) {
            return wholes();
        }
        return isDouble(type) ? doubles() : floats();
    }

    private static boolean isWhole(String type) {
        return type.startsWith("int") || type.startsWith("uint") || type.startsWith("uchar") || type.startsWith("bool");
    }

    private static boolean isDouble(String type) {
        String base = type.endsWith("[]") ? type.substring(0, type.length() - 2) : type;
        return base.startsWith("double") || base.startsWith("timecode") || base.endsWith("d");
    }

    private String[] strings() throws ImportException {
        List<String> out = new ArrayList<>();
        while (!take(']')) {
            int c = peek();
            out.add(c == '@' ? asset() : c == '<' ? path() : string());
            if (out.size() % 1024 == 0) {
                reading.charge(BLOCK);
            }
            if (peek() == '(') {
                metadata(new LinkedHashMap<>(), null);
            }
        }
        return out.toArray(String[]::new);
    }

    private int[] wholes() throws ImportException {
        IntList out = new IntList();
        while (!take(']')) {
            int c = peek();
            if (c == '(' || c == ')') {
                at++;
            } else if (c == 't' || c == 'f') {
                out.add(keyword().equals(true) ? 1 : 0);
            } else {
                out.add((int) number());
            }
            if (out.size() % BLOCK == 0) {
                reading.charge(8L * BLOCK);
            }
        }
        return out.toArray();
    }

    private float[] floats() throws ImportException {
        FloatList out = new FloatList();
        while (!take(']')) {
            int c = peek();
            if (c == '(' || c == ')') {
                at++;
                continue;
            }
            out.add((float) number());
            if (out.size() % BLOCK == 0) {
                reading.charge(8L * BLOCK);
                reading.progress(0.9 * at / in.limit(), "Reading");
            }
        }
        return Arrays.copyOf(out.array(), out.size());
    }

    private double[] doubles() throws ImportException {
        double[] out = new double[16];
        int n = 0;
        while (!take(']')) {
            int c = peek();
            if (c == '(' || c == ')') {
                at++;
                continue;
            }
            if (n == out.length) {
                reading.charge(8L * n);
                out = Arrays.copyOf(out, 2 * n);
            }
            out[n++] = number();
        }
        return Arrays.copyOf(out, n);
    }

    /** True also for the letters of "inf" and "nan". */
    private static boolean isNumeric(int c) {
        return (c >= '0' && c <= '9') || c == '.' || c == '-' || c == '+' || c == 'E' || (c >= 'a' && c <= 'z');
    }

    private double number() throws ImportException {
        int c = peek();
        int n = 0;
        while (at < in.limit() && n < number.length) {
            c = in.get(at);
            if (!isNumeric(c)) {
                break;
            }
            number[n++] = (byte) c;
            at++;
        }
        double v = Numbers.parse(number, 0, n);
        if (Double.isNaN(v)) {
            String word = new String(number, 0, n, StandardCharsets.ISO_8859_1);
            if (word.endsWith("inf")) {
                return word.startsWith("-") ? Double.NEGATIVE_INFINITY : Double.POSITIVE_INFINITY;
            }
            if (!word.equals("nan")) {
                throw fault("should have a number here");
            }
        }
        return v;
    }

    /** With one or three quotation marks of either kind. */
    private String string() throws ImportException {
        int quote = peek();
        if (quote != '"' && quote != '\'') {
            throw fault("should have text in quotation marks here");
        }
        boolean three = at + 2 < in.limit() && in.get(at + 1) == quote && in.get(at + 2) == quote;
        at += three ? 3 : 1;
        int from = at;
        boolean escaped = false;
        while (true) {
            if (at >= in.limit() || (!three && in.get(at) == '\n')) {
                throw fault("has text that does not end");
            }
            int c = in.get(at);
            if (c == '\\') {
                escaped = true;
                at += 2;
            } else if (c == quote
                    && (!three || (at + 2 < in.limit() && in.get(at + 1) == quote && in.get(at + 2) == quote))) {
                break;
            } else {
                line += c == '\n' ? 1 : 0;
                at++;
            }
        }
        String text = between(from, at);
        at += three ? 3 : 1;
        return escaped ? unescaped(text) : text;
    }

    private static String unescaped(String s) {
        StringBuilder out = new StringBuilder(s.length());
        for (int i = 0; i < s.length(); i++) {
            char c = s.charAt(i);
            if (c == '\\' && i + 1 < s.length()) {
                char e = s.charAt(++i);
                out.append(e == 'n' ? '\n' : e == 't' ? '\t' : e == 'r' ? '\r' : e);
            } else {
                out.append(c);
            }
        }
        return out.toString();
    }

    private String asset() throws ImportException {
        expect('@');
        boolean three = at + 1 < in.limit() && in.get(at) == '@' && in.get(at + 1) == '@';
        at += three ? 2 : 0;
        return until("@", three ? 3 : 1);
    }

    private String path() throws ImportException {
        expect('<');
        return until(">", 1);
    }

    private String until(String mark, int times) throws ImportException {
        int from = at;
        int run = 0;
        while (run < times) {
            if (at >= in.limit() || in.get(at) == '\n') {
                throw fault("has a reference that does not end");
            }
            run = in.get(at++) == mark.charAt(0) ? run + 1 : 0;
        }
        return between(from, at - times);
    }
}
