package app.zolvan.core.exchange.materialx;

import app.zolvan.core.material.Parameter;
import java.util.EnumSet;
import java.util.Set;

/** What MaterialX 1.39 has words for. */
final class MaterialXNames {
    static final String VERSION = "1.39";
    /** Inputs of {@code open_pbr_surface} that are parameters of ours; what is ours alone is not among them. */
    static final Set<Parameter> CARRIED = carried();

    private MaterialXNames() {}

    private static Set<Parameter> carried() {
        Set<Parameter> all = EnumSet.allOf(Parameter.class);
        all.removeIf(p -> p.name().startsWith("AGE_")
                || p.name().startsWith("LEAF_")
                || p.name().startsWith("FLAKE_")
                || p.name().startsWith("SCHLICK_")
                || p.name().startsWith("REFLECTED_"));
        all.remove(Parameter.GENERALIZED_SCHLICK);
        all.remove(Parameter.GEOMETRY_HEIGHT);
        all.remove(Parameter.GEOMETRY_DISPLACED);
        return Set.copyOf(all);
    }

    /** The type of a parameter's input. */
    static String type(Parameter p) {
        return switch (p.shape()) {
            case NUMBER -> "float";
            case FLAG -> "boolean";
            case COLOUR -> "color3";
            case TEXTURE_ONLY -> "vector3";
        };
    }
}
