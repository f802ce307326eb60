package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.TextNames;
import java.nio.BufferUnderflowException;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/**
 * One layer of USD in its binary form ("crate", file versions 0.4 to 0.12): a table of contents leads to sections of words
 * (TOKENS, STRINGS), of named values (FIELDS), of lists of these (FIELDSETS), of paths (PATHS), and of the specs that put
 * a list of fields at a path (SPECS). Values are read when asked for. Of values over time, the first is taken.
 */
final class CrateReader {
    static final String MAGIC = "PXR-USDC";
    private static final int SMALLEST_COMPRESSED = 16;

    private final ByteBuffer file;
    private final Reading reading;
    private int minor;
    private final Map<String, ByteBuffer> sections = new HashMap<>();
    private final Map<Long, Object> shared = new HashMap<>();
    private String[] tokens = {};
    private int[] strings = {};
    private int[] fieldToken = {};
    private long[] fieldValue = {};
    private int[] fieldSets = {};
    private int[] pathParent = {};
    private int[] pathToken = {};
    private boolean[] pathIsProperty = {};

    private CrateReader(ByteBuffer file, Reading reading) {
        this.file = file;
        this.reading = reading;
    }

    static boolean recognises(String head) {
        return head.startsWith(MAGIC);
    }

    static UsdPrim read(ByteBuffer bytes, Reading reading) throws ImportException {
        CrateReader r = new CrateReader(bytes.slice().order(ByteOrder.LITTLE_ENDIAN), reading);
        try {
            return r.layer();
        } catch (IndexOutOfBoundsException | BufferUnderflowException | IllegalArgumentException e) {
            throw r.damaged();
        }
    }

    private ImportException damaged() {
        return new ImportException(
                "invalid", "The binary USD file is damaged: a part of it is not where it should be. Export it again.");
    }

    private UsdPrim layer() throws ImportException {
        minor = file.get(9);
        if (file.get(8) != 0 || minor < 4) {
            throw new ImportException(
                    "unsupported",
                    "This is binary USD of version " + file.get(8) + "." + minor
                            + "; Zolvan reads 0.4 to 0.12. Export it again, or as text (.usda).");
        }
        contents();
        readTokens();
        readStrings();
        readFields();
        ByteBuffer sets = section("FIELDSETS");
        fieldSets = integers(sets, count(sets, 1));
        readPaths();
        return specs();
    }

    private void contents() throws ImportException {
        int at = position(file.getLong(16));
        int n = (int) Math.min(64, file.getLong(at));
        for (int i = 0; i < n; i++) {
            int entry = at + 8 + 32 * i;
            byte[] name = new byte[16];
            file.get(entry, name);
            int length = 0;
            while (length < 16 && name[length] != 0) {
                length++;
            }
            int start = position(file.getLong(entry + 16));
            long size = file.getLong(entry + 24);
            if (size < 0 || size > file.limit() - start) {
                throw damaged();
            }
            sections.put(
                    TextNames.decode(name, 0, length),
                    file.slice(start, (int) size).order(ByteOrder.LITTLE_ENDIAN));
        }
    }

    private ByteBuffer section(String name) throws ImportException {
        ByteBuffer s = sections.get(name);
        if (s == null) {
            throw damaged();
        }
        return s;
    }

    private int position(long at) throws ImportException {
        if (at < 0 || at >= file.limit()) {
            throw damaged();
        }
        return (int) at;
    }

    /** A count of things that take at least an eighth of {@code bits} bytes each, however tightly packed. */
    private int count(ByteBuffer in, int bits) throws ImportException {
        long n = in.getLong();
        if (n < 0 || n > (long) Lz4.DENSEST * 8 * file.limit() / bits || n > Integer.MAX_VALUE / 8) {
            throw damaged();
        }
        return (int) n;
    }

    private byte[] bytes(ByteBuffer in) throws ImportException {
        long n = in.getLong();
        if (n <= 0 || n > in.remaining()) {
            throw damaged();
        }
        byte[] out = new byte[(int) n];
        in.get(out);
        return out;
    }

    private byte[] unpacked(byte[] packed, long size) throws ImportException {
        if (size < 0 || size > (long) packed.length * Lz4.DENSEST) {
            throw damaged();
        }
        reading.charge(size);
        byte[] out = new byte[(int) size];
        if (Lz4.unpackChunks(packed, out) != size) {
            throw damaged();
        }
        return out;
    }

    private int[] integers(ByteBuffer in, int count) throws ImportException {
        if (count == 0) {
            return new int[0];
        }
        byte[] packed = bytes(in);
        if ((count * 2L + 7) / 8 > (long) packed.length * Lz4.DENSEST) {
            throw damaged();
        }
        long room = CrateIntegers.roomFor(count);
        reading.charge(4L * count + room);
        int[] out = CrateIntegers.unpack(packed, count);
        reading.release(room);
        return out;
    }

    private void readTokens() throws ImportException {
        ByteBuffer in = section("TOKENS");
        int n = count(in, 8);
        long size = in.getLong();
        byte[] text = unpacked(bytes(in), size);
        if (n > text.length) {
            throw damaged();
        }
        reading.charge(64L * n);
        tokens = new String[n];
        int from = 0;
        for (int i = 0; i < n; i++) {
            int to = from;
            while (text[to] != 0) {
                to++;
            }
            tokens[i] = TextNames.decode(text, from, to);
            from = to + 1;
        }
    }

    private void readStrings() throws ImportException {
        ByteBuffer in = section("STRINGS");
        long n = in.getLong();
        if (n < 0 || n > in.remaining() / 4) {
            throw damaged();
        }
        strings = new int[(int) n];
        in.asIntBuffer().get(strings);
    }

    private void readFields() throws ImportException {
        ByteBuffer in = section("FIELDS");
        int n = count(in, 1);
        fieldToken = integers(in, n);
        ByteBuffer values = ByteBuffer.wrap(unpacked(bytes(in), 8L * n)).order(ByteOrder.LITTLE_ENDIAN);
        fieldValue = new long[n];
        values.asLongBuffer().get(fieldValue);
    }

    private void readPaths() throws ImportException {
        ByteBuffer in = section("PATHS");
        int n = count(in, 1);
        int encoded = count(in, 1);
        if (encoded > n) {
            throw damaged();
        }
        int[] index = integers(in, encoded);
        int[] element = integers(in, encoded);
        int[] jump = integers(in, encoded);
        reading.charge(10L * n);
        pathParent = new int[n];
        pathToken = new int[n];
        pathIsProperty = new boolean[n];
        // siblings of things that have children wait here, with their parents
        int[] waiting = new int[2 * encoded + 2];
        int open = 0;
        boolean[] seen = new boolean[encoded];
        int parent = -1;
        int i = 0;
        while (i < encoded) {
            if (seen[i]) {
                throw damaged();
            }
            seen[i] = true;
            int path = index[i];
            pathParent[path] = parent;
            pathToken[path] = Math.abs(element[i]);
            pathIsProperty[path] = element[i] < 0;
            boolean hasChild = jump[i] > 0 || jump[i] == -1;
            if (hasChild) {
                if (jump[i] > 0) {
                    waiting[open++] = i + jump[i];
                    waiting[open++] = parent;
                }
                parent = path;
            } else if (jump[i] < 0) { // the last of its siblings
                if (open == 0) {
                    break;
                }
                parent = waiting[--open];
                i = waiting[--open];
                continue;
            }
            i++;
        }
    }

    private static final int ATTRIBUTE = 1;
    private static final int PRIM = 6;
    private static final int LAYER = 7;
    private static final int RELATIONSHIP = 8;
    private static final int VARIANT = 10;

    private UsdPrim specs() throws ImportException {
        ByteBuffer in = section("SPECS");
        int n = count(in, 1);
        int[] path = integers(in, n);
        int[] fields = integers(in, n);
        int[] kind = integers(in, n);
        reading.charge(200L * n);
        UsdPrim[] prims = new UsdPrim[pathParent.length];
        UsdPrim layer = new UsdPrim("");
        for (int p = 0; p < prims.length; p++) {
            if (pathParent[p] < 0 && !pathIsProperty[p]) {
                prims[p] = layer;
            }
        }
        for (int i = 0; i < n; i++) {
            if (kind[i] == LAYER) {
                prims[path[i]] = layer;
            }
        }
        List<Runnable> order = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            if (kind[i] == PRIM || kind[i] == LAYER || kind[i] == VARIANT) {
                describe(prim(path[i], prims, 0), fields[i], order);
            } else if (kind[i] == ATTRIBUTE || kind[i] == RELATIONSHIP) {
                property(path[i], fields[i], kind[i] == RELATIONSHIP, prims);
            }
        }
        order.forEach(Runnable::run);
        return layer;
    }

    private UsdPrim prim(int path, UsdPrim[] prims, int depth) throws ImportException {
        if (prims[path] == null) {
            if (depth > reading.limits().depth() || pathIsProperty[path]) {
                throw damaged();
            }
            UsdPrim parent = prim(pathParent[path], prims, depth + 1);
            String element = tokens[pathToken[path]];
            if (element.startsWith("{")) {
                int eq = element.indexOf('=');
                if (eq < 0 || !element.endsWith("}")) {
                    throw damaged();
                }
                String variant = element.substring(eq + 1, element.length() - 1);
                prims[path] = variant.isEmpty() ? parent : parent.variant(element.substring(1, eq), variant);
            } else {
                prims[path] = parent.child(element);
            }
        }
        return prims[path];
    }

    /** The path as text, such as {@code /Lamp/Shade.points}. */
    private String path(int index) throws ImportException {
        StringBuilder out = new StringBuilder();
        int steps = 0;
        for (int p = index; pathParent[p] >= 0; p = pathParent[p]) {
            if (++steps > reading.limits().depth() + 2) {
                throw damaged();
            }
            String element = tokens[pathToken[p]];
            out.insert(0, element);
            if (!element.startsWith("{")) {
                out.insert(0, pathIsProperty[p] ? '.' : '/');
            }
        }
        return out.length() == 0 ? "/" : out.toString();
    }

    private interface FieldUse {
        void take(String name, long value) throws ImportException;
    }

    private void eachField(int set, FieldUse use) throws ImportException {
        for (int i = set; fieldSets[i] != -1; i++) {
            use.take(tokens[fieldToken[fieldSets[i]]], fieldValue[fieldSets[i]]);
        }
    }

    private void describe(UsdPrim prim, int set, List<Runnable> later) throws ImportException {
        UsdPrim.Specifier[] how = {UsdPrim.Specifier.OVER};
        String[] type = {""};
        eachField(set, (name, rep) -> {
            switch (name) {
                case "specifier" -> how[0] = UsdPrim.Specifier.of((int) rep);
                case "typeName" -> type[0] = String.valueOf(value(rep));
                case "references", "payload", "inheritPaths", "specializes" -> arcs(prim, name, rep);
                case "variantSelection" -> {
                    if (value(rep) instanceof Map<?, ?> chosen) {
                        chosen.forEach((k, v) -> prim.selections().put(String.valueOf(k), String.valueOf(v)));
                    }
                }
                case "primChildren" -> {
                    if (value(rep) instanceof String[] names) {
                        later.add(() -> sort(prim, names));
                    }
                }
                case "subLayers", "defaultPrim", "metersPerUnit", "upAxis", "displayName", "active", "instanceable" -> {
                    Object v = value(rep);
                    if (v != null) {
                        prim.metadata().put(name, v);
                    }
                }
                default -> {
                    // documentation, ordering, custom data
                }
            }
        });
        if (prim.specifier() == UsdPrim.Specifier.OVER || how[0] != UsdPrim.Specifier.OVER) {
            prim.specify(how[0], type[0]);
        }
    }

    /** Paths are kept in the file in the order of the alphabet; this is the author's. */
    private static void sort(UsdPrim prim, String[] names) {
        Map<String, UsdPrim> sorted = new LinkedHashMap<>();
        for (String name : names) {
            UsdPrim child = prim.children().get(name);
            if (child != null) {
                sorted.put(name, child);
            }
        }
        prim.children().forEach(sorted::putIfAbsent);
        prim.children().clear();
        prim.children().putAll(sorted);
    }

    private void property(int path, int set, boolean relationship, UsdPrim[] prims) throws ImportException {
        if (!pathIsProperty[path] || pathParent[path] < 0) {
            return;
        }
        UsdPrim owner = prim(pathParent[path], prims, 0);
        String[] type = {relationship ? UsdProperty.RELATIONSHIP : ""};
        if (!relationship) {
            eachField(set, (name, rep) -> {
                if (name.equals("typeName")) {
                    type[0] = String.valueOf(value(rep));
                }
            });
        }
        UsdProperty p = new UsdProperty(tokens[pathToken[path]], type[0]);
        eachField(set, (name, rep) -> {
            switch (name) {
                case "default" -> p.set(later(rep));
                case "timeSamples" -> {
                    if (!p.speaks()) {
                        p.set(later(rep));
                        reading.note("Movements (values over time) are left out; the first moment is shown.");
                    }
                }
                case "connectionPaths", "targetPaths" -> {
                    if (value(rep) instanceof String[] paths) {
                        p.point(List.of(paths));
                    }
                }
                case "interpolation", "elementSize", "colorSpace" -> {
                    Object v = value(rep);
                    if (v != null) {
                        p.metadata().put(name, v);
                    }
                }
                default -> {
                    // as above
                }
            }
        });
        owner.properties().put(p.name(), p);
    }

    /** Values that stand at one place are one object. */
    private UsdProperty.Later later(long rep) {
        return () -> {
            Object known = shared.get(rep);
            if (known == null) {
                known = value(rep);
                if ((rep & IS_ARRAY) != 0 && known != null) {
                    shared.put(rep, known);
                }
            }
            return known;
        };
    }

    private void arcs(UsdPrim prim, String field, long rep) throws ImportException {
        UsdPrim.ArcKind kind = switch (field) {
            case "references" -> UsdPrim.ArcKind.REFERENCE;
            case "payload" -> UsdPrim.ArcKind.PAYLOAD;
            case "inheritPaths" -> UsdPrim.ArcKind.INHERIT;
            default -> UsdPrim.ArcKind.SPECIALIZE;
        };
        Object value = value(rep);
        if (value instanceof String[] paths) {
            for (String path : paths) {
                prim.arcs().add(new UsdPrim.Arc(kind, "", path));
            }
        } else if (value instanceof Link[] links) {
            for (Link l : links) {
                prim.arcs().add(new UsdPrim.Arc(kind, l.asset, l.path));
            }
        }
    }

    private record Link(String asset, String path) {}

    private static final long IS_ARRAY = 1L << 63;
    private static final long IS_INLINED = 1L << 62;
    private static final long IS_COMPRESSED = 1L << 61;
    private static final long PAYLOAD = (1L << 48) - 1;

    /** The value that a reference of eight bytes stands for; null where its kind is not of use here. */
    private Object value(long rep) throws ImportException {
        try {
            CrateType type = CrateType.of((int) (rep >>> 48 & 0xFF));
            if (type == null) {
                return null;
            }
            if ((rep & IS_INLINED) != 0) {
                return inlined(type, (int) rep);
            }
            long at = rep & PAYLOAD;
            if ((rep & IS_ARRAY) != 0) {
                return at == 0 ? type.none() : array(type, cursor(at), (rep & IS_COMPRESSED) != 0);
            }
            return plain(type, cursor(at), 0);
        } catch (IndexOutOfBoundsException | BufferUnderflowException | IllegalArgumentException e) {
            throw damaged();
        }
    }

    private ByteBuffer cursor(long at) throws ImportException {
        return file.duplicate().order(ByteOrder.LITTLE_ENDIAN).position(position(at));
    }

    private String string(int index) {
        return tokens[strings[index]];
    }

    private Object inlined(CrateType type, int payload) {
        switch (type) {
            case BOOL -> {
                return payload != 0;
            }
            case TOKEN -> {
                return tokens[payload];
            }
            case STRING -> {
                return string(payload);
            }
            case ASSET -> {
                return new UsdProperty.Asset(tokens[payload]);
            }
            case HALF, HALF2 -> {
                double[] out = new double[type.width];
                for (int k = 0; k < out.length; k++) {
                    out[k] = half((short) (payload >> (16 * k)));
                }
                return out;
            }
            case FLOAT, DOUBLE, TIME_CODE -> {
                return new double[] {Float.intBitsToFloat(payload)};
            }
            case INT, UINT, INT64, UINT64, UCHAR, SPECIFIER, PERMISSION, VARIABILITY -> {
                return new double[] {payload};
            }
            case MATRIX2, MATRIX3, MATRIX4 -> { // a diagonal of small whole numbers
                int n = type == CrateType.MATRIX2 ? 2 : type == CrateType.MATRIX3 ? 3 : 4;
                double[] out = new double[n * n];
                for (int k = 0; k < n; k++) {
                    out[k * n + k] = (byte) (payload >> (8 * k));
                }
                return out;
            }
            default -> {
                if (type.storage == CrateType.Storage.OTHER || type.width > 4) {
                    return null;
                }
                double[] out = new double[type.width];
                for (int k = 0; k < out.length; k++) {
                    out[k] = (byte) (payload >> (8 * k));
                }
                return out;
            }
        }
    }

    private Object plain(CrateType type, ByteBuffer in, int depth) throws ImportException {
        switch (type) {
            case DICTIONARY -> {
                return null;
            }
            case TOKEN_LIST, STRING_LIST, PATH_LIST, REFERENCE_LIST, PAYLOAD_LIST -> {
                return list(type, in);
            }
            case PATHS, TOKENS, STRINGS -> {
                return words(type, in, listCount(in, 4));
            }
            case SELECTIONS -> {
                Map<String, String> out = new LinkedHashMap<>();
                for (int n = listCount(in, 8); n > 0; n--) {
                    out.put(string(in.getInt()), string(in.getInt()));
                }
                return out;
            }
            case SAMPLES -> {
                return depth > 0 ? null : firstSample(in);
            }
            case PAYLOAD_ONE -> {
                return new Link[] {link(in, false)};
            }
            case TOKEN -> {
                return tokens[in.getInt()];
            }
            case STRING -> {
                return string(in.getInt());
            }
            case ASSET -> {
                return new UsdProperty.Asset(tokens[in.getInt()]);
            }
            case DOUBLES -> {
                return numbers(CrateType.DOUBLE, in, listCount(in, 8));
            }
            default -> {
                if (type.storage == CrateType.Storage.OTHER) {
                    return null;
                }
                double[] out = new double[type.width];
                for (int k = 0; k < out.length; k++) {
                    out[k] = type.storage.next(in);
                }
                return type.isTurn() ? new double[] {out[3], out[0], out[1], out[2]} : out;
            }
        }
    }

    /** Each part is reached by an offset from where that offset stands. */
    private Object firstSample(ByteBuffer in) throws ImportException {
        long times = in.position() + in.getLong(in.position());
        long values = times + 8;
        long list = values + cursor(values).getLong();
        ByteBuffer at = cursor(list);
        long n = at.getLong();
        long rep = n > 0 ? at.getLong() : 0;
        return n <= 0 || CrateType.of((int) (rep >>> 48 & 0xFF)) == CrateType.SAMPLES ? null : value(rep);
    }

    private int listCount(ByteBuffer in, int bytesEach) throws ImportException {
        long n = in.getLong();
        if (n < 0 || n > in.remaining() / bytesEach) {
            throw damaged();
        }
        return (int) n;
    }

    private String[] words(CrateType type, ByteBuffer in, int n) throws ImportException {
        reading.charge(8L * n);
        String[] out = new String[n];
        for (int i = 0; i < n; i++) {
            int k = in.getInt();
            out[i] = switch (type) {
                case PATHS, PATH_LIST -> path(k);
                case STRINGS, STRING_LIST, STRING -> string(k);
                default -> tokens[k];
            };
        }
        return out;
    }

    private static final int HAS_EXPLICIT = 2;
    private static final int HAS_ADDED = 4;
    private static final int HAS_PREPENDED = 32;
    private static final int HAS_APPENDED = 64;

    /** What a list edit puts in; what it takes out or reorders is left aside. */
    private Object list(CrateType type, ByteBuffer in) throws ImportException {
        int flags = in.get();
        boolean links = type == CrateType.REFERENCE_LIST || type == CrateType.PAYLOAD_LIST;
        List<Object> out = new ArrayList<>();
        for (int part : new int[] {HAS_EXPLICIT, HAS_ADDED, HAS_PREPENDED, HAS_APPENDED}) {
            if ((flags & part) == 0) {
                continue;
            }
            int n = listCount(in, 4);
            if (links) {
                for (int i = 0; i < n; i++) {
                    out.add(link(in, type == CrateType.REFERENCE_LIST));
                }
            } else {
                out.addAll(List.of(words(type, in, n)));
            }
        }
        return links ? out.toArray(Link[]::new) : out.toArray(String[]::new);
    }

    private Link link(ByteBuffer in, boolean reference) throws ImportException {
        String asset = string(in.getInt());
        int at = in.getInt();
        String path = at < 0 || at >= pathParent.length ? "" : path(at);
        if (reference || minor >= 8) {
            in.position(in.position() + 16); // a shift in time
        }
        if (reference && in.getLong() != 0) {
            throw new ImportException(
                    "unsupported",
                    "The binary USD file refers to another with notes attached, which Zolvan does not read. Export it"
                            + " flattened.");
        }
        return new Link(asset, path.equals("/") ? "" : path);
    }

    private Object array(CrateType type, ByteBuffer in, boolean compressed) throws ImportException {
        if (minor < 5) {
            in.getInt(); // the rank, always 1
        }
        long n = minor < 7 ? in.getInt() & 0xFFFFFFFFL : in.getLong();
        if (n < 0 || n > Integer.MAX_VALUE / 32) {
            throw damaged();
        }
        int count = (int) n;
        if (compressed && count >= SMALLEST_COMPRESSED) {
            return compressed(type, in, count);
        }
        if (type == CrateType.TOKEN || type == CrateType.STRING || type == CrateType.ASSET) {
            return words(type, in, checked(in, count));
        }
        if (type.storage == CrateType.Storage.OTHER) {
            return null;
        }
        Object out = numbers(type, in, count);
        if (type.isTurn() && out instanceof float[] turns) { // the real part comes last in binary, first in text
            for (int i = 0; i + 3 < turns.length; i += 4) {
                float real = turns[i + 3];
                System.arraycopy(turns, i, turns, i + 1, 3);
                turns[i] = real;
            }
        }
        return out;
    }

    private int checked(ByteBuffer in, int count) throws ImportException {
        if (count > in.remaining() / 4) {
            throw damaged();
        }
        return count;
    }

    private Object numbers(CrateType type, ByteBuffer in, int count) throws ImportException {
        long values = (long) count * type.width;
        if (values * type.storage.bytes > in.remaining()) {
            throw damaged();
        }
        reading.charge(values * type.storage.kept());
        int n = (int) values;
        switch (type.storage) {
            case F32 -> {
                float[] out = new float[n];
                in.asFloatBuffer().get(out);
                return out;
            }
            case I32 -> {
                int[] out = new int[n];
                in.asIntBuffer().get(out);
                return out;
            }
            case F64 -> {
                double[] out = new double[n];
                in.asDoubleBuffer().get(out);
                return out;
            }
            case F16 -> {
                float[] out = new float[n];
                for (int i = 0; i < n; i++) {
                    out[i] = (float) half(in.getShort());
                }
                return out;
            }
            default -> {
                int[] out = new int[n];
                for (int i = 0; i < n; i++) {
                    out[i] = (int) type.storage.next(in);
                }
                return out;
            }
        }
    }

    private Object compressed(CrateType type, ByteBuffer in, int count) throws ImportException {
        if (type.storage == CrateType.Storage.I32) {
            return integers(in, count);
        }
        if (type != CrateType.HALF && type != CrateType.FLOAT && type != CrateType.DOUBLE) {
            reading.note("Lists of very large whole numbers in the USD file were left out.");
            return null;
        }
        double[] table;
        int[] index;
        int code = in.get();
        if (code == 'i') { // whole numbers
            index = integers(in, count);
            table = null;
        } else if (code == 't') { // a table of the different ones
            int n = in.getInt();
            if (n < 0 || (long) n * type.storage.bytes > in.remaining()) {
                throw damaged();
            }
            reading.charge(8L * n);
            table = new double[n];
            for (int i = 0; i < n; i++) {
                table[i] = type.storage.next(in);
            }
            index = integers(in, count);
        } else {
            throw damaged();
        }
        reading.charge(4L * count);
        float[] out = new float[count];
        for (int i = 0; i < count; i++) {
            out[i] = table == null ? index[i] : (float) table[index[i]];
        }
        return out;
    }

    /** IEEE 754 binary16. */
    static double half(short bits) {
        int exponent = bits >> 10 & 31;
        int fraction = bits & 1023;
        double v = exponent == 0
                ? fraction * 0x1p-24
                : exponent == 31
                        ? (fraction == 0 ? Double.POSITIVE_INFINITY : Double.NaN)
                        : (1024 + fraction) * Math.scalb(1.0, exponent - 25);
        return bits < 0 ? -v : v;
    }
}
