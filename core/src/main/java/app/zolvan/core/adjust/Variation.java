package app.zolvan.core.adjust;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.EnumSet;
import java.util.Set;

/**
 * A material that follows another in all but the parameters that are its own. Values and pictures of a parameter go
 * together.
 */
public final class Variation {
    private Variation() {}

    /** What a variation shows: its own parameters' values, all others as the parent has them. */
    public static Surface of(Surface parent, Surface variation, Set<Parameter> own) {
        Surface s = parent;
        for (Parameter p : own) {
            if (p.shape() != Parameter.Shape.TEXTURE_ONLY) {
                s = s.with(p, variation.value(p));
            }
            s = s.withTexture(p, variation.textures().get(p));
        }
        return s;
    }

    /** The parameters in which two surfaces differ. */
    public static Set<Parameter> differences(Surface one, Surface other) {
        Set<Parameter> all = EnumSet.noneOf(Parameter.class);
        for (Parameter p : Parameter.values()) {
            if (!one.isNear(other, p, 0)) {
                all.add(p);
            }
        }
        return all;
    }

    /**
     * Which parameters are a variation's own after it was changed: what was changed to something else than the parent has
     * joins them, what was changed to what the parent has leaves them.
     */
    public static Set<Parameter> owned(Set<Parameter> own, Surface parent, Surface before, Surface after) {
        Set<Parameter> all = EnumSet.noneOf(Parameter.class);
        all.addAll(own);
        for (Parameter p : differences(before, after)) {
            if (parent.isNear(after, p, 0)) {
                all.remove(p);
            } else {
                all.add(p);
            }
        }
        return all;
    }
}
