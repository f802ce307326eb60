package app.zolvan.core.exchange.usd;

import app.zolvan.core.exchange.ImportException;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** An attribute or a relationship of a prim in one layer. */
final class UsdProperty {
    static final String RELATIONSHIP = "rel";

    /** A file that a layer names. */
    record Asset(String path) {}

    /** A value that is read from the file when it is first asked for. */
    @FunctionalInterface
    interface Later {
        Object read() throws ImportException;
    }

    private final String name;
    private final String type;
    private Object value;
    private List<String> targets = List.of();
    private final Map<String, Object> metadata = new LinkedHashMap<>();

    /** @param type such as {@code point3f[]}, or {@link #RELATIONSHIP} */
    UsdProperty(String name, String type) {
        this.name = name;
        this.type = type;
    }

    String name() {
        return name;
    }

    String type() {
        return type;
    }

    boolean isRelationship() {
        return type.equals(RELATIONSHIP);
    }

    boolean isArray() {
        return type.endsWith("[]");
    }

    Map<String, Object> metadata() {
        return metadata;
    }

    /** Where a relationship leads, or an attribute takes its value from: absolute paths. */
    List<String> targets() {
        return targets;
    }

    UsdProperty point(List<String> at) {
        targets = List.copyOf(at);
        return this;
    }

    UsdProperty with(String key, Object of) {
        metadata.put(key, of);
        return this;
    }

    /** @param of a value or a {@link Later} */
    void set(Object of) {
        value = of;
    }

    /** True when the layer says something here, even that there is no value. */
    boolean speaks() {
        return value != null || !targets.isEmpty();
    }

    /**
     * Boolean, String, Asset, a map of these, String[]; numbers as double[] (one, a vector or a matrix by rows), arrays of
     * numbers as int[], float[] or double[] after their type, vectors one after the other. The same object each time;
     * null for none.
     */
    Object value() throws ImportException {
        if (value instanceof Later later) {
            value = later.read();
        }
        return value;
    }

    String text() throws ImportException {
        Object v = value();
        return v instanceof String s ? s : v instanceof Asset a ? a.path() : "";
    }

    double number(double otherwise) throws ImportException {
        double[] n = numbers();
        return n.length == 1 && Double.isFinite(n[0]) ? n[0] : otherwise;
    }

    /** None where the value is not a number or several. */
    double[] numbers() throws ImportException {
        Object v = value();
        if (v instanceof double[] d) {
            return d;
        }
        double[] out = new double[v instanceof float[] f ? f.length : v instanceof int[] i ? i.length : 0];
        for (int k = 0; k < out.length; k++) {
            out[k] = v instanceof float[] f ? f[k] : ((int[]) v)[k];
        }
        return out;
    }

    float[] floats() throws ImportException {
        if (value() instanceof float[] f) {
            return f;
        }
        double[] d = numbers();
        float[] out = new float[d.length];
        for (int k = 0; k < d.length; k++) {
            out[k] = (float) d[k];
        }
        return out;
    }

    int[] integers() throws ImportException {
        if (value() instanceof int[] i) {
            return i;
        }
        double[] d = numbers();
        int[] out = new int[d.length];
        for (int k = 0; k < d.length; k++) {
            out[k] = (int) d[k];
        }
        return out;
    }
}
