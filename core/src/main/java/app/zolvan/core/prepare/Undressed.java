package app.zolvan.core.prepare;

import app.zolvan.core.assign.Look;
import app.zolvan.core.colour.CieLab;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;

/** Tells what still shows no look that anybody chose: nothing at all, or the plain grey, clay or white that programs put on. */
public final class Undressed {
    private static final double GREY = 8;

    private Undressed() {}

    public static boolean is(Look look) {
        return look.from() == null && isPlain(look.material().surface());
    }

    /** Whether a surface is matt or glossy, near grey, and nothing else. */
    static boolean isPlain(Surface s) {
        CieLab colour = CieLab.of(s.colour(Parameter.BASE_COLOR));
        return s.textures().isEmpty()
                && Math.hypot(colour.a(), colour.b()) < GREY
                && s.number(Parameter.BASE_METALNESS) < 0.5
                && s.number(Parameter.TRANSMISSION_WEIGHT) == 0
                && s.number(Parameter.GEOMETRY_OPACITY) == 1
                && s.number(Parameter.EMISSION_LUMINANCE) == 0;
    }
}
