package app.zolvan.core.measure;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;

/** How much of what lies behind a material shows through it. */
public enum Clarity {
    SOLID("solid"),
    TRANSLUCENT("lets light through"),
    SEE_THROUGH("see-through"),
    OPENWORK("with holes");

    /** From this roughness on a clear body blurs what lies right behind it. */
    private static final double BLURS = 0.25;

    private final String word;

    Clarity(String word) {
        this.word = word;
    }

    public String word() {
        return word;
    }

    public static Clarity of(Surface s) {
        if (s.textures().containsKey(Parameter.GEOMETRY_OPACITY) || s.number(Parameter.GEOMETRY_OPACITY) < 1) {
            return OPENWORK;
        }
        boolean metal = s.number(Parameter.BASE_METALNESS) >= 0.5;
        if (!metal && s.number(Parameter.TRANSMISSION_WEIGHT) >= 0.5) {
            boolean cloudy = s.colour(Parameter.TRANSMISSION_SCATTER).luminance() > 0;
            return cloudy || s.number(Parameter.SPECULAR_ROUGHNESS) >= BLURS ? TRANSLUCENT : SEE_THROUGH;
        }
        return !metal && s.number(Parameter.SUBSURFACE_WEIGHT) >= 0.5 ? TRANSLUCENT : SOLID;
    }
}
