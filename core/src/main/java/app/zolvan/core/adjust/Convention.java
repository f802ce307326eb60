package app.zolvan.core.adjust;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import java.util.Locale;
import java.util.function.DoubleUnaryOperator;

/** Numbers by which others say what a parameter says, for values that come from elsewhere; each to and fro. */
public enum Convention {
    /** The other way round than roughness. */
    GLOSSINESS("Glossiness", "1 mirrors, 0 is matt.", Parameter.SPECULAR_ROUGHNESS, 0, 1, g -> 1 - g, r -> 1 - r),
    /** α of a microfacet distribution. */
    SQUARED_ROUGHNESS(
            "Roughness, squared",
            "The α of a microfacet distribution.",
            Parameter.SPECULAR_ROUGHNESS,
            0,
            1,
            Math::sqrt,
            r -> r * r),
    /** The exponent of Blinn & Phong, by equal width of the highlight: α² = 2/(n + 2) (Walter et al. 2007). */
    SHININESS(
            "Shininess",
            "The exponent of a Blinn–Phong highlight.",
            Parameter.SPECULAR_ROUGHNESS,
            0,
            1e6,
            n -> Math.pow(2 / (n + 2), 0.25),
            r -> 2 / Math.pow(Math.max(r, 0.0376), 4) - 2),
    TRANSPARENCY(
            "Transparency",
            "1 is not there at all; for gauze and fades, not for glass.",
            Parameter.GEOMETRY_OPACITY,
            0,
            1,
            t -> 1 - t,
            o -> 1 - o),
    /** F₀ = ((n − 1)/(n + 1))². */
    REFLECTANCE(
            "Reflectance facing",
            "The share of light reflected where one looks straight at it.",
            Parameter.SPECULAR_IOR,
            0,
            0.25,
            f -> (1 + Math.sqrt(f)) / (1 - Math.sqrt(f)),
            n -> (n - 1) / (n + 1) * ((n - 1) / (n + 1))),
    /** Half for 4 % facing. */
    SPECULAR_LEVEL(
            "Specular level",
            "0.5 for 4 % reflected facing, 1 for 8 %.",
            Parameter.SPECULAR_IOR,
            0,
            1,
            s -> REFLECTANCE.from.applyAsDouble(0.08 * s),
            n -> REFLECTANCE.to.applyAsDouble(n) / 0.08);

    /** What dielectrics reflect facing, in the exchange of workflows. */
    private static final double DIELECTRIC = 0.04;

    private final String label;
    private final String says;
    private final Parameter parameter;
    private final double min;
    private final double max;
    private final DoubleUnaryOperator from;
    private final DoubleUnaryOperator to;

    Convention(
            String label,
            String says,
            Parameter parameter,
            double min,
            double max,
            DoubleUnaryOperator from,
            DoubleUnaryOperator to) {
        this.label = label;
        this.says = says;
        this.parameter = parameter;
        this.min = min;
        this.max = max;
        this.from = from;
        this.to = to;
    }

    public String label() {
        return label;
    }

    public String says() {
        return says;
    }

    public Parameter parameter() {
        return parameter;
    }

    /** The surface's value as this convention says it. */
    public double of(Surface s) {
        return Math.max(min, Math.min(max, to.applyAsDouble(s.number(parameter))));
    }

    /** @throws ParameterException if the number is not one of this convention's */
    public Surface on(Surface s, double value) {
        if (!(value >= min && value <= max)) {
            throw new ParameterException(
                    "elsewhere",
                    label + " goes from " + plain(min) + " to " + plain(max) + "; " + plain(value) + " does not.");
        }
        double v = from.applyAsDouble(value);
        return s.with(parameter, Math.max(parameter.min(), Math.min(parameter.max(), v)));
    }

    private static String plain(double v) {
        return v == Math.rint(v) ? String.format(Locale.ROOT, "%,d", (long) v) : String.valueOf(v);
    }

    /**
     * A wish in others' numbers: {@code convention} with its {@code value}; or {@code diffuse} and {@code specular}, both
     * colours as typed, with which some say what here are base colour and metalness.
     */
    static Surface wished(Surface s, JsonValue wish) throws ImportException {
        if (wish.has("specular")) {
            return ofWorkflow(s, colour(wish.require("diffuse")), colour(wish.get("specular")));
        }
        String name = wish.require("convention").text();
        for (Convention c : values()) {
            if (c.name().equalsIgnoreCase(name)) {
                return c.on(s, wish.require("value").number());
            }
        }
        throw new ParameterException("elsewhere", "There is no convention “" + name + "”.");
    }

    private static LinearRgb colour(JsonValue typed) throws ImportException {
        String text = typed.text();
        return ColourNotation.parse(text)
                .orElseThrow(() -> new ParameterException(
                        "elsewhere", "“" + text + "” is no colour. Type it as #RRGGBB or as three numbers."));
    }

    /**
     * From a diffuse and a specular colour to base colour and metalness: as much metal as explains how bright the specular
     * colour is beside a dielectric's 4 % (the exchange that the Khronos group published with
     * KHR_materials_pbrSpecularGlossiness, with luminance in the place of its perceived brightness).
     */
    static Surface ofWorkflow(Surface s, LinearRgb diffuse, LinearRgb specular) {
        if (!diffuse.isInUnitCube() || !specular.isInUnitCube()) {
            throw new ParameterException("elsewhere", "Diffuse and specular colours take numbers from 0 to 1.");
        }
        double strongest = Math.max(specular.r(), Math.max(specular.g(), specular.b()));
        double metal = metalness(diffuse.luminance(), specular.luminance(), 1 - strongest);
        LinearRgb asBody = diffuse.times((1 - strongest) / (1 - DIELECTRIC) / Math.max(1 - metal, 1e-6));
        LinearRgb asMetal =
                specular.plus(LinearRgb.grey(-DIELECTRIC * (1 - metal))).times(1 / Math.max(metal, 1e-6));
        return s.with(Parameter.BASE_METALNESS, metal)
                .with(Parameter.BASE_COLOR, asBody.mix(asMetal, metal * metal).clamped());
    }

    private static double metalness(double diffuse, double specular, double oneMinusStrongest) {
        if (specular < DIELECTRIC) {
            return 0;
        }
        double b = diffuse * oneMinusStrongest / (1 - DIELECTRIC) + specular - 2 * DIELECTRIC;
        double c = DIELECTRIC - specular;
        double root = Math.sqrt(Math.max(0, b * b - 4 * DIELECTRIC * c));
        return Math.max(0, Math.min(1, (-b + root) / (2 * DIELECTRIC)));
    }
}
