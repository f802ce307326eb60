package app.zolvan.core.prepare;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.EnumSet;
import java.util.Set;

/** How much of a material came along with a file: often its colour alone. */
public enum Survival {
    /** Nothing but a colour, and how far one sees through it. */
    COLOUR,
    /** Pictures, of its colour or more. */
    PICTURES,
    /** Without pictures, but with something about its finish: gloss, metal, glass, glow. */
    FINISH;

    /** What formats that know only colours are read with, or say without meaning it. */
    private static final Set<Parameter> SAYS_NOTHING = EnumSet.of(
            Parameter.BASE_COLOR,
            Parameter.BASE_WEIGHT,
            Parameter.GEOMETRY_OPACITY,
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.SPECULAR_IOR,
            Parameter.SPECULAR_WEIGHT,
            Parameter.SPECULAR_COLOR);
    /** As dull as what has no gloss worth telling. */
    private static final double DULL = 0.5;

    public static Survival of(Surface s) {
        if (!s.textures().isEmpty()) {
            return PICTURES;
        }
        for (Parameter p : Parameter.values()) {
            if (!s.isStandard(p) && !SAYS_NOTHING.contains(p)) {
                return FINISH;
            }
        }
        double roughness = s.number(Parameter.SPECULAR_ROUGHNESS);
        boolean glossy = roughness < DULL && !s.isStandard(Parameter.SPECULAR_ROUGHNESS);
        return glossy ? FINISH : COLOUR;
    }
}
