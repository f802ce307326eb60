package app.zolvan.core.exchange.usd;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.IdentityHashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** A layer in USD's binary form, version 0.8; see {@link CrateReader} for how it is built. */
final class CrateWriter {
    private static final int HEADER = 88;
    private static final long ARRAY = 1L << 63;
    private static final long INLINED = 1L << 62;
    private static final long COMPRESSED = 1L << 61;
    private static final int FEW = 16;
    private static final int NO_SIBLING = -2;
    private static final int CHILD_ONLY = -1;

    private final Map<String, Integer> tokens = new LinkedHashMap<>();
    private final Map<String, Integer> strings = new LinkedHashMap<>();
    private final Map<List<Object>, Integer> fields = new LinkedHashMap<>();
    private final IdentityHashMap<Object, Long> arrays = new IdentityHashMap<>();
    private final Map<String, Integer> paths = new LinkedHashMap<>();
    private final Ints fieldSets = new Ints();
    private final Ints pathElements = new Ints();
    private final Ints pathJumps = new Ints();
    private final Ints specPath = new Ints();
    private final Ints specFields = new Ints();
    private final Ints specKind = new Ints();
    private final OutputStream out;
    private long written;

    private static final class Ints {
        private int[] values = new int[64];
        private int size;

        void add(int v) {
            if (size == values.length) {
                values = Arrays.copyOf(values, 2 * size);
            }
            values[size++] = v;
        }

        int[] array() {
            return Arrays.copyOf(values, size);
        }
    }

    private CrateWriter(OutputStream out) {
        this.out = out;
    }

    /** The header stands before what it leads to, so that all of the layer is built before the first byte goes out. */
    static void write(UsdPrim layer, OutputStream to) throws IOException {
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        CrateWriter w = new CrateWriter(body);
        w.written = HEADER;
        long contents = w.build(layer);
        ByteBuffer header = buffer(HEADER);
        header.put(CrateReader.MAGIC.getBytes(StandardCharsets.US_ASCII));
        header.put(new byte[] {0, 8, 0, 0, 0, 0, 0, 0});
        header.putLong(contents);
        to.write(bytes(header));
        body.writeTo(to);
    }

    private static ByteBuffer buffer(int bytes) {
        return ByteBuffer.allocate(bytes).order(ByteOrder.LITTLE_ENDIAN);
    }

    /** All of a buffer. */
    private static byte[] bytes(ByteBuffer b) {
        byte[] out = new byte[b.capacity()];
        b.clear().get(out);
        return out;
    }

    private long build(UsdPrim layer) throws IOException {
        token(""); // a property's word is told by a sign, which 0 has not
        layOut(layer, "", true);
        specs(layer, "", true);
        List<String> names = List.of("TOKENS", "STRINGS", "FIELDS", "FIELDSETS", "PATHS", "SPECS");
        long[] starts = new long[names.size() + 1];
        for (int i = 0; i < names.size(); i++) {
            starts[i] = written;
            section(names.get(i));
        }
        starts[names.size()] = written;
        ByteBuffer contents = buffer(8 + 32 * names.size());
        contents.putLong(names.size());
        for (int i = 0; i < names.size(); i++) {
            byte[] name = new byte[16];
            byte[] ascii = names.get(i).getBytes(StandardCharsets.US_ASCII);
            System.arraycopy(ascii, 0, name, 0, ascii.length);
            contents.put(name).putLong(starts[i]).putLong(starts[i + 1] - starts[i]);
        }
        long at = written;
        put(bytes(contents));
        return at;
    }

    private void section(String name) throws IOException {
        switch (name) {
            case "TOKENS" -> {
                ByteArrayOutputStream text = new ByteArrayOutputStream();
                for (String t : tokens.keySet()) {
                    text.write(t.getBytes(StandardCharsets.UTF_8));
                    text.write(0);
                }
                byte[] packed = Lz4.packChunk(text.toByteArray());
                longs(tokens.size(), text.size(), packed.length);
                put(packed);
            }
            case "STRINGS" -> {
                ByteBuffer b = buffer(8 + 4 * strings.size()).putLong(strings.size());
                strings.keySet().forEach(s -> b.putInt(tokens.get(s)));
                put(bytes(b));
            }
            case "FIELDS" -> {
                Ints words = new Ints();
                ByteBuffer values = buffer(8 * fields.size());
                fields.keySet().forEach(f -> {
                    words.add((Integer) f.get(0));
                    values.putLong((Long) f.get(1));
                });
                longs(fields.size());
                integers(words.array());
                byte[] packed = Lz4.packChunk(bytes(values));
                longs(packed.length);
                put(packed);
            }
            case "FIELDSETS" -> {
                longs(fieldSets.size);
                integers(fieldSets.array());
            }
            case "PATHS" -> {
                int[] index = new int[paths.size()];
                Arrays.setAll(index, i -> i);
                longs(index.length, index.length);
                integers(index);
                integers(pathElements.array());
                integers(pathJumps.array());
            }
            default -> {
                longs(specPath.size);
                integers(specPath.array());
                integers(specFields.array());
                integers(specKind.array());
            }
        }
    }

    private void put(byte[] b) throws IOException {
        out.write(b);
        written += b.length;
    }

    private void longs(long... v) throws IOException {
        ByteBuffer b = buffer(8 * v.length);
        for (long l : v) {
            b.putLong(l);
        }
        put(bytes(b));
    }

    private void integers(int[] v) throws IOException {
        byte[] packed = CrateIntegers.pack(v);
        longs(packed.length);
        put(packed);
    }

    private int token(String s) {
        Integer known = tokens.putIfAbsent(s, tokens.size());
        return known == null ? tokens.size() - 1 : known;
    }

    private int string(String s) {
        token(s);
        Integer known = strings.putIfAbsent(s, strings.size());
        return known == null ? strings.size() - 1 : known;
    }

    /** Numbers paths in the order of a walk, and keeps for each what comes next. */
    private void layOut(UsdPrim p, String path, boolean last) {
        paths.put(path.isEmpty() ? "/" : path, paths.size());
        pathElements.add(path.isEmpty() ? 0 : token(p.name()));
        boolean hasChild = !p.properties().isEmpty() || !p.children().isEmpty();
        int at = pathJumps.size;
        pathJumps.add(hasChild ? CHILD_ONLY : last ? NO_SIBLING : 0);
        int left = p.properties().size() + p.children().size();
        for (String property : p.properties().keySet()) {
            left--;
            paths.put(path + "." + property, paths.size());
            pathElements.add(-token(property));
            pathJumps.add(left == 0 ? NO_SIBLING : 0);
        }
        for (UsdPrim child : p.children().values()) {
            left--;
            layOut(child, path + "/" + child.name(), left == 0);
        }
        if (hasChild && !last) {
            pathJumps.values[at] = pathJumps.size - at;
        }
    }

    private void specs(UsdPrim p, String path, boolean isLayer) throws IOException {
        List<Integer> set = new ArrayList<>();
        if (!isLayer) {
            field(set, "specifier", inlined(CrateType.SPECIFIER, p.specifier().code));
            if (!p.type().isEmpty()) {
                field(set, "typeName", inlined(CrateType.TOKEN, token(p.type())));
            }
        }
        for (Map.Entry<String, Object> e : p.metadata().entrySet()) {
            Object v = e.getValue();
            if (v instanceof String s) {
                boolean isText = e.getKey().equals("displayName");
                field(
                        set,
                        e.getKey(),
                        isText ? inlined(CrateType.STRING, string(s)) : inlined(CrateType.TOKEN, token(s)));
            } else if (v instanceof String[] words) {
                field(set, e.getKey(), prepended(words));
            } else {
                field(set, e.getKey(), number(CrateType.DOUBLE, (double[]) v));
            }
        }
        if (!p.arcs().isEmpty()) {
            field(set, "references", references(p.arcs()));
        }
        if (!p.properties().isEmpty()) {
            field(set, "properties", tokenVector(p.properties().keySet().toArray(String[]::new)));
        }
        if (!p.children().isEmpty()) {
            field(set, "primChildren", tokenVector(p.children().keySet().toArray(String[]::new)));
        }
        spec(path.isEmpty() ? "/" : path, set, isLayer ? 7 : 6);
        for (UsdProperty property : p.properties().values()) {
            property(property, path);
        }
        for (UsdPrim child : p.children().values()) {
            specs(child, path + "/" + child.name(), false);
        }
    }

    private void property(UsdProperty p, String path) throws IOException {
        List<Integer> set = new ArrayList<>();
        if (p.isRelationship()) {
            field(set, "targetPaths", pathList(p.targets()));
            field(set, "variability", inlined(CrateType.VARIABILITY, 1));
        } else {
            field(set, "typeName", inlined(CrateType.TOKEN, token(p.type())));
            if (UsdWriter.isUniform(p.name())) {
                field(set, "variability", inlined(CrateType.VARIABILITY, 1));
            }
            if (!p.targets().isEmpty()) {
                field(set, "connectionPaths", pathList(p.targets()));
            }
            Object v = UsdTextWriter.valueOf(p);
            if (v != null) {
                field(set, "default", value(p, v));
            }
            for (Map.Entry<String, Object> e : p.metadata().entrySet()) {
                field(set, e.getKey(), inlined(CrateType.TOKEN, token((String) e.getValue())));
            }
        }
        spec(path + "." + p.name(), set, p.isRelationship() ? 8 : 1);
    }

    private void spec(String path, List<Integer> set, int kind) {
        specPath.add(paths.get(path));
        specFields.add(fieldSets.size);
        specKind.add(kind);
        set.forEach(fieldSets::add);
        fieldSets.add(-1);
    }

    private void field(List<Integer> set, String name, long value) {
        List<Object> f = List.of(token(name), value);
        Integer known = fields.putIfAbsent(f, fields.size());
        set.add(known == null ? fields.size() - 1 : known);
    }

    private static long rep(CrateType type, long payload) {
        return (long) type.code << 48 | payload;
    }

    private static long inlined(CrateType type, int payload) {
        return INLINED | rep(type, payload & 0xFFFFFFFFL);
    }

    /** Writes a value out and gives the reference to it. */
    private long stored(CrateType type, ByteBuffer value) throws IOException {
        long at = written;
        put(bytes(value));
        return rep(type, at);
    }

    private long tokenVector(String[] words) throws IOException {
        ByteBuffer b = buffer(8 + 4 * words.length).putLong(words.length);
        for (String w : words) {
            b.putInt(token(w));
        }
        return stored(CrateType.TOKENS, b);
    }

    private static final int EXPLICIT = 3;
    private static final int PREPENDED = 32;

    private long prepended(String[] words) throws IOException {
        ByteBuffer b = buffer(9 + 4 * words.length).put((byte) PREPENDED).putLong(words.length);
        for (String w : words) {
            b.putInt(token(w));
        }
        return stored(CrateType.TOKEN_LIST, b);
    }

    private long pathList(List<String> targets) throws IOException {
        ByteBuffer b = buffer(9 + 4 * targets.size()).put((byte) EXPLICIT).putLong(targets.size());
        for (String t : targets) {
            b.putInt(paths.get(t));
        }
        return stored(CrateType.PATH_LIST, b);
    }

    private long references(List<UsdPrim.Arc> arcs) throws IOException {
        ByteBuffer b = buffer(9 + 32 * arcs.size()).put((byte) PREPENDED).putLong(arcs.size());
        for (UsdPrim.Arc arc : arcs) {
            b.putInt(string(arc.asset())).putInt(paths.get(arc.path()));
            b.putDouble(0).putDouble(1).putLong(0); // no shift in time, no notes
        }
        return stored(CrateType.REFERENCE_LIST, b);
    }

    private long value(UsdProperty p, Object v) throws IOException {
        if (!p.isArray()) {
            CrateType type = CrateType.named(p.type());
            return switch (type) {
                case TOKEN -> inlined(type, token((String) v));
                case STRING -> inlined(type, string((String) v));
                case ASSET -> inlined(type, token(((UsdProperty.Asset) v).path()));
                case BOOL -> inlined(type, (Boolean) v ? 1 : 0);
                case INT -> inlined(type, (int) ((double[]) v)[0]);
                default -> number(type, (double[]) v);
            };
        }
        Long known = arrays.get(v);
        if (known == null) {
            known = array(CrateType.named(p.type().substring(0, p.type().length() - 2)), v);
            arrays.put(v, known);
        }
        return known;
    }

    private long array(CrateType type, Object v) throws IOException {
        if (v instanceof String[] words) {
            ByteBuffer b = buffer(8 + 4 * words.length).putLong(words.length);
            for (String w : words) {
                b.putInt(token(w));
            }
            return ARRAY | stored(type, b);
        }
        if (v instanceof int[] ints) {
            if (ints.length >= FEW) {
                long at = written;
                longs(ints.length);
                integers(ints);
                return ARRAY | COMPRESSED | rep(type, at);
            }
            ByteBuffer b = buffer(8 + 4 * ints.length).putLong(ints.length);
            b.asIntBuffer().put(ints);
            return ints.length == 0 ? ARRAY | rep(type, 0) : ARRAY | stored(type, b);
        }
        float[] floats = (float[]) v;
        ByteBuffer b = buffer(8 + 4 * floats.length).putLong(floats.length / type.width);
        b.asFloatBuffer().put(floats);
        return floats.length == 0 ? ARRAY | rep(type, 0) : ARRAY | stored(type, b);
    }

    private long number(CrateType type, double[] v) throws IOException {
        if (type == CrateType.FLOAT) {
            return inlined(type, Float.floatToRawIntBits((float) v[0]));
        }
        ByteBuffer b = buffer(type.storage.bytes * v.length);
        for (double d : v) {
            if (type.storage == CrateType.Storage.F64) {
                b.putDouble(d);
            } else {
                b.putFloat((float) d);
            }
        }
        return stored(type, b);
    }
}
