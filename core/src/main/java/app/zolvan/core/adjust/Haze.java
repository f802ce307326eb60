package app.zolvan.core.adjust;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Fresnel;
import java.util.Set;

/**
 * How softly a highlight fades out at its edge: the share of what is mirrored that lies in a wide glow around it
 * (reflection haze, ISO 13803). OpenPBR has two highlights to make it of, a clear coat's and that of the step below it. The
 * coat's weight and index are chosen so that, faced, each mirrors its share of what the bare body mirrors, no more and no
 * less.
 */
public final class Haze {
    /** More than this, and the glow is the highlight. */
    public static final double MOST = 0.5;
    /** The glow is rougher than the highlight by so much. */
    private static final double WIDER = 0.25;
    /** A glow that is rougher by less is widened. */
    private static final double TOO_NARROW = 0.1;
    /** Indices for which the two can be chosen so. */
    private static final double LEAST_INDEX = 1.1;

    private static final double HIGHEST_INDEX = 2.4;
    /** The coat's index is higher than the body's by no more than this. */
    private static final double HIGHER = 1.3;
    /** Together the two mirror what the bare body does, within this share. */
    private static final double ALIKE = 1e-4;

    /** What a picture makes of the body's highlight, and not of a coat's. */
    private static final Set<Parameter> APART = Set.of(
            Parameter.SPECULAR_ROUGHNESS,
            Parameter.BASE_METALNESS,
            Parameter.GEOMETRY_NORMAL,
            Parameter.GEOMETRY_HEIGHT);

    private Haze() {}

    /** 0 … {@link #MOST}; 0 for a crisp edge, and for whatever has a coat that mirrors light of its own. */
    public static double of(Surface s) {
        return isHazed(s) ? Math.max(0, Math.min(MOST, 1 - coat(s) / facing(s))) : 0;
    }

    /** @throws ParameterException if the share is out of its range, or the surface has no such highlight */
    public static Surface with(Surface s, double share) {
        if (!(share >= 0 && share <= MOST)) {
            throw new ParameterException("haze", "Haze goes from 0 (a crisp edge) to 0.5 (half of it in the glow).");
        }
        boolean hazed = isHazed(s);
        if (!hazed && isCoated(s)) {
            throw new ParameterException(
                    "haze", "Under a clear coat of another substance, the coat’s roughness is the edge’s.");
        }
        if (!isPlain(s)) {
            throw new ParameterException(
                    "haze",
                    "A highlight that is a metal’s, tinted, brushed, drawn, filmed or follows a picture or relief has"
                            + " no second one to fade into: soften it by its roughness.");
        }
        double crisp = s.number(hazed ? Parameter.COAT_ROUGHNESS : Parameter.SPECULAR_ROUGHNESS);
        if (share == 0) {
            return s.with(Parameter.COAT_WEIGHT, 0).with(Parameter.SPECULAR_ROUGHNESS, crisp);
        }
        double index = coatIndex(s.number(Parameter.SPECULAR_IOR), share);
        double glow = s.number(Parameter.SPECULAR_ROUGHNESS);
        return s.with(Parameter.COAT_WEIGHT, (1 - share) * facing(s) / Fresnel.facing(index))
                .with(Parameter.COAT_ROUGHNESS, crisp)
                .with(Parameter.COAT_IOR, index)
                .with(Parameter.COAT_COLOR, LinearRgb.WHITE)
                .with(Parameter.COAT_DARKENING, 0)
                .with(Parameter.SPECULAR_ROUGHNESS, glow >= crisp + TOO_NARROW ? glow : Math.min(1, crisp + WIDER));
    }

    /**
     * The coat's index for which the step below it mirrors the share of what the bare body mirrors, where the coat's
     * weight is such that it mirrors the rest; by bisection, since a denser coat of less weight leaves a larger step.
     */
    private static double coatIndex(double body, double share) {
        double bare = Fresnel.facing(body);
        double low = body;
        double high = HIGHER * body;
        for (int i = 0; i < 60; i++) {
            double middle = (low + high) / 2;
            double weight = (1 - share) * bare / Fresnel.facing(middle);
            if (glow(body, middle, weight) < share * bare) {
                low = middle;
            } else {
                high = middle;
            }
        }
        return (low + high) / 2;
    }

    /** Whether there is a highlight whose edge can be softened so. */
    public static boolean isPossible(Surface s) {
        return isPlain(s) && (isHazed(s) || !isCoated(s));
    }

    /** Whether a clear coat can mirror just as the body does: what it has not, such as a tint or brushing, would be lost. */
    private static boolean isPlain(Surface s) {
        double index = s.number(Parameter.SPECULAR_IOR);
        return s.number(Parameter.BASE_METALNESS) == 0
                && index >= LEAST_INDEX
                && index <= HIGHEST_INDEX
                && !s.flag(Parameter.GENERALIZED_SCHLICK)
                && s.number(Parameter.SPECULAR_WEIGHT) == 1
                && s.colour(Parameter.SPECULAR_COLOR).equals(LinearRgb.WHITE)
                && s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY) == 0
                && s.number(Parameter.THIN_FILM_WEIGHT) == 0
                && s.number(Parameter.FLAKE_WEIGHT) == 0
                && APART.stream().noneMatch(s.textures()::containsKey);
    }

    private static boolean isCoated(Surface s) {
        return s.number(Parameter.COAT_WEIGHT) > 0;
    }

    /** Whether coat and body together mirror what the bare body does. */
    private static boolean isHazed(Surface s) {
        double bare = facing(s);
        double glow =
                glow(s.number(Parameter.SPECULAR_IOR), s.number(Parameter.COAT_IOR), s.number(Parameter.COAT_WEIGHT));
        return isCoated(s)
                && Math.abs(coat(s) + glow - bare) < ALIKE * bare
                && s.number(Parameter.COAT_DARKENING) == 0
                && s.colour(Parameter.COAT_COLOR).equals(LinearRgb.WHITE);
    }

    /** What a faced body mirrors through its coat, which takes its share on the way in and out. */
    private static double glow(double body, double coat, double weight) {
        double passes = 1 - weight * Fresnel.facing(coat);
        return passes * passes * Fresnel.facing(Fresnel.underCoat(body, coat, weight));
    }

    private static double facing(Surface s) {
        return Fresnel.facing(s.number(Parameter.SPECULAR_IOR));
    }

    private static double coat(Surface s) {
        return s.number(Parameter.COAT_WEIGHT) * Fresnel.facing(s.number(Parameter.COAT_IOR));
    }
}
