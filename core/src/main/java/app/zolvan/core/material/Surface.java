package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;
import java.io.Serializable;
import java.util.Arrays;
import java.util.Collections;
import java.util.EnumMap;
import java.util.Map;
import java.util.Objects;
import java.util.StringJoiner;

/**
 * The complete optical description of a material: a value for every {@link Parameter} and textures for some. Immutable;
 * {@link #with} makes a changed copy and refuses values out of range with a sentence.
 */
public final class Surface implements Serializable {
    /** Every parameter at the standard's default. */
    public static final Surface STANDARD = new Surface(standardValues(), Map.of());

    private final Map<Parameter, double[]> values;
    private final Map<Parameter, TextureUse> textures;

    private Surface(Map<Parameter, double[]> values, Map<Parameter, TextureUse> textures) {
        this.values = values;
        this.textures = textures;
    }

    private static Map<Parameter, double[]> standardValues() {
        Map<Parameter, double[]> values = new EnumMap<>(Parameter.class);
        for (Parameter p : Parameter.values()) {
            values.put(p, p.standardValue());
        }
        return values;
    }

    public double number(Parameter p) {
        return values.get(p)[0];
    }

    public LinearRgb colour(Parameter p) {
        return LinearRgb.of(values.get(p));
    }

    public boolean flag(Parameter p) {
        return number(p) > 0;
    }

    /** The components of a value; a copy. */
    public double[] value(Parameter p) {
        return values.get(p).clone();
    }

    /** Whether one sees something through it: light passes, or some of it is not there. */
    public boolean isSeenThrough() {
        return number(Parameter.TRANSMISSION_WEIGHT) > 0
                || number(Parameter.GEOMETRY_OPACITY) < 1
                || textures.containsKey(Parameter.GEOMETRY_OPACITY);
    }

    public boolean isStandard(Parameter p) {
        return Arrays.equals(values.get(p), p.standardValue()) && !textures.containsKey(p);
    }

    public Map<Parameter, TextureUse> textures() {
        return Collections.unmodifiableMap(textures);
    }

    public Surface with(Parameter p, LinearRgb colour) {
        return with(p, colour.toArray());
    }

    public Surface with(Parameter p, boolean flag) {
        return with(p, flag ? 1 : 0);
    }

    /** @throws ParameterException if the count of numbers or one of them is not what the parameter takes */
    public Surface with(Parameter p, double... value) {
        if (value.length != p.components()) {
            throw new ParameterException(
                    p.openPbrName(),
                    p.openPbrName() + " takes " + p.components() + (p.components() == 1 ? " number" : " numbers")
                            + ", not " + value.length + ".");
        }
        for (double v : value) {
            if (!(v >= p.min() && v <= p.max())) {
                throw new ParameterException(
                        p.openPbrName(),
                        p.openPbrName() + " must lie between " + plain(p.min()) + " and " + plain(p.max()) + "; "
                                + plain(v) + " does not.");
            }
        }
        Map<Parameter, double[]> changed = new EnumMap<>(values);
        changed.put(p, value.clone());
        return new Surface(changed, textures);
    }

    /** The parameter driven by the texture, or by its number alone when {@code use} is null. */
    public Surface withTexture(Parameter p, TextureUse use) {
        Map<Parameter, TextureUse> changed = new EnumMap<>(Parameter.class);
        changed.putAll(textures);
        if (use == null) {
            changed.remove(p);
        } else {
            changed.put(p, use);
        }
        return new Surface(values, changed);
    }

    /** True when both hold the same textures and every number agrees within {@code tolerance}. */
    public boolean isNear(Surface o, double tolerance) {
        return Arrays.stream(Parameter.values()).allMatch(p -> isNear(o, p, tolerance));
    }

    /** True when the value and the texture of one parameter agree, numbers within {@code tolerance}. */
    public boolean isNear(Surface o, Parameter p, double tolerance) {
        double[] a = values.get(p);
        double[] b = o.values.get(p);
        for (int i = 0; i < a.length; i++) {
            if (Math.abs(a[i] - b[i]) > tolerance) {
                return false;
            }
        }
        return Objects.equals(textures.get(p), o.textures.get(p));
    }

    private static String plain(double v) {
        return v == Math.rint(v) && Math.abs(v) < 1e9 ? String.valueOf((long) v) : String.valueOf(v);
    }

    @Override
    public boolean equals(Object other) {
        return other instanceof Surface o && isNear(o, 0);
    }

    @Override
    public int hashCode() {
        int h = textures.hashCode();
        for (double[] v : values.values()) {
            h = 31 * h + Arrays.hashCode(v);
        }
        return h;
    }

    @Override
    public String toString() {
        StringJoiner j = new StringJoiner(", ", "Surface{", "}");
        for (Parameter p : Parameter.values()) {
            if (!isStandard(p)) {
                j.add(p.openPbrName() + "=" + Arrays.toString(values.get(p))
                        + (textures.containsKey(p) ? " " + textures.get(p) : ""));
            }
        }
        return j.toString();
    }
}
