package app.zolvan.core.render.surface;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import java.util.Locale;

/**
 * A simulated gloss meter: specular gloss at 60° in gloss units (GU) as ISO 2813 defines them, of the very surface that the
 * ray tracer draws. What a receptor of 4.4° × 11.7° collects around the mirror's direction, lit by a source of 0.75° × 2.5°,
 * relative to polished black glass with n = 1.567, which reads 100. Pictures that change a surface from place to place
 * are left out: the numbers beside them are measured.
 *
 * <p>The two windows lie over one another as a trapezoid of weights. It is integrated over Gauss–Legendre points that crowd
 * around the mirror's direction as the surface's own peak does.
 */
public final class GlossMeter {
    private static final double BLACK_GLASS = 1.567;
    private static final double INCIDENCE = Math.toRadians(60);
    private static final double RECEPTOR_ALONG = Math.toRadians(4.4);
    private static final double RECEPTOR_ACROSS = Math.toRadians(11.7);
    private static final double SOURCE_ALONG = Math.toRadians(0.75);
    private static final double SOURCE_ACROSS = Math.toRadians(2.5);

    /** Half the number of steps along, and the number of steps over half the window across. */
    private static final int PANELS = 6;

    private static final double[] POINTS = {
        -0.932469514203152,
        -0.6612093864662645,
        -0.2386191860831969,
        0.2386191860831969,
        0.6612093864662645,
        0.932469514203152
    };
    private static final double[] WEIGHTS = {
        0.1713244923791704,
        0.3607615730481386,
        0.467913934572691,
        0.467913934572691,
        0.3607615730481386,
        0.1713244923791704
    };

    /** How near a wished gloss is met, in GU. */
    private static final double EXACT = 0.01;

    private GlossMeter() {}

    private static final class Reference {
        static final double FLUX = flux(blackGlass());

        private static SurfaceValues blackGlass() {
            return SurfaceValues.of(Surface.STANDARD
                    .with(Parameter.BASE_COLOR, 0, 0, 0)
                    .with(Parameter.SPECULAR_ROUGHNESS, 0)
                    .with(Parameter.SPECULAR_IOR, BLACK_GLASS));
        }
    }

    /** @return gloss in GU, at least 0; above 100 for what reflects more than black glass, such as metals */
    public static double measure(Surface s) {
        return measure(SurfaceValues.of(s));
    }

    private static double measure(SurfaceValues v) {
        return 100 * flux(v) / Reference.FLUX;
    }

    private static double flux(SurfaceValues values) {
        SurfaceValues v = new SurfaceValues();
        v.copy(values);
        v.roughness = Math.max(Bsdf.SMOOTH, v.roughness); // mirrors have no peak to integrate; this one is far narrower
        v.coatRoughness = Math.max(Bsdf.SMOOTH, v.coatRoughness); // than the window
        double base = v.roughness * v.roughness * (1 - v.anisotropy);
        double narrowest = v.coat > 0 ? Math.min(base, v.coatRoughness * v.coatRoughness) : base;
        Bsdf bsdf = new Bsdf();
        bsdf.set(v, -StrictMath.sin(INCIDENCE), 0, StrictMath.cos(INCIDENCE), v.ior, false);
        double sum = 0;
        double halfAlong = (RECEPTOR_ALONG + SOURCE_ALONG) / 2;
        double halfAcross = (RECEPTOR_ACROSS + SOURCE_ACROSS) / 2;
        Crowded along = new Crowded(halfAlong, narrowest);
        Crowded across = new Crowded(halfAcross, narrowest);
        for (int i = -PANELS; i < PANELS; i++) {
            for (int k = 0; k < POINTS.length; k++) {
                double x = along.at(i, k);
                double dx = along.weight(i, k) * trapezoid(x, RECEPTOR_ALONG, SOURCE_ALONG);
                for (int j = 0; j < PANELS; j++) {
                    for (int l = 0; l < POINTS.length; l++) {
                        double y = across.at(j, l);
                        double dy = 2 * across.weight(j, l) * trapezoid(y, RECEPTOR_ACROSS, SOURCE_ACROSS);
                        sum += dx * dy * StrictMath.cos(y) * reflected(bsdf, x, y);
                    }
                }
            }
        }
        return sum;
    }

    private static double reflected(Bsdf bsdf, double x, double y) {
        double theta = INCIDENCE + x;
        bsdf.evaluate(
                StrictMath.sin(theta) * StrictMath.cos(y),
                StrictMath.sin(y),
                StrictMath.cos(theta) * StrictMath.cos(y));
        return 0.2126 * bsdf.r + 0.7152 * bsdf.g + 0.0722 * bsdf.b;
    }

    /** How much of the source the receptor still sees at an offset, in [0, 1]. */
    private static double trapezoid(double offset, double receptor, double source) {
        double left = (receptor + source) / 2 - Math.abs(offset);
        return Math.max(0, Math.min(1, left / source));
    }

    /** Points of a window that crowd around its middle: x = w·sinh(k·t), t even over [−1, 1]. */
    private static final class Crowded {
        private final double width;
        private final double k;

        Crowded(double half, double width) {
            this.width = width;
            double ratio = half / width;
            k = StrictMath.log(ratio + Math.sqrt(ratio * ratio + 1));
        }

        private static double t(int panel, int point) {
            return (panel + (1 + POINTS[point]) / 2) / PANELS;
        }

        double at(int panel, int point) {
            return width * StrictMath.sinh(k * t(panel, point));
        }

        double weight(int panel, int point) {
            return width * k * StrictMath.cosh(k * t(panel, point)) * WEIGHTS[point] / (2 * PANELS);
        }
    }

    /**
     * What became of a wish for a gloss.
     *
     * @param surface with the roughness (the coat's where a coat covers it) that comes nearest
     * @param gloss   what it reads, in GU
     * @param limit   why it is not what was wished, with a remedy; empty where it is
     */
    public record Outcome(Surface surface, double gloss, String limit) {}

    /**
     * Which roughness decides how glossy a surface looks: the coat's where it is mostly coated, or mirrors about as much as
     * what lies below.
     */
    public static Parameter roughness(Surface s) {
        double weight = s.number(Parameter.COAT_WEIGHT);
        double coatIor = s.number(Parameter.COAT_IOR);
        double below = Fresnel.facing(Fresnel.underCoat(s.number(Parameter.SPECULAR_IOR), coatIor, weight));
        boolean outshines = weight > 0
                && s.number(Parameter.BASE_METALNESS) < 0.5
                && weight * Fresnel.facing(coatIor) > 0.9 * s.number(Parameter.SPECULAR_WEIGHT) * below;
        return weight >= 0.5 || outshines ? Parameter.COAT_ROUGHNESS : Parameter.SPECULAR_ROUGHNESS;
    }

    /**
     * The surface with the roughness that reads a gloss.
     *
     * @param gloss in GU
     */
    public static Outcome solve(Surface s, double gloss) {
        Parameter roughness = roughness(s);
        Surface sharp = s.with(roughness, 0);
        double most = measure(sharp);
        if (gloss >= most - EXACT) {
            return new Outcome(sharp, most, gloss <= most + 0.5 ? "" : tooGlossy(s, most));
        }
        Surface dull = s.with(roughness, 1);
        double least = measure(dull);
        if (gloss <= least + EXACT) {
            return new Outcome(dull, least, gloss >= least - 0.5 ? "" : tooDull(s, least));
        }
        double rougher = 1;
        double smoother = 0;
        Surface found = s;
        double read = measure(s);
        for (int i = 0; i < 40 && Math.abs(read - gloss) > EXACT; i++) {
            double middle = (rougher + smoother) / 2;
            found = s.with(roughness, middle);
            read = measure(found);
            if (read > gloss) {
                smoother = middle;
            } else {
                rougher = middle;
            }
        }
        return new Outcome(found, read, "");
    }

    private static String tooGlossy(Surface s, double most) {
        String remedy = roughness(s) == Parameter.COAT_ROUGHNESS
                ? "A higher index of the coat reaches further."
                : "A clear coat or a higher index of refraction reaches further.";
        return String.format(Locale.ROOT, "Smooth, it reads %.1f GU, its most. %s", most, remedy);
    }

    private static String tooDull(Surface s, double least) {
        String remedy = roughness(s) == Parameter.COAT_ROUGHNESS
                ? "Take the coat off, or darken the colour."
                : "A darker colour or a weaker reflection reads less.";
        return String.format(
                Locale.ROOT, "At its dullest it still reads %.1f GU, by what its body reflects. %s", least, remedy);
    }
}
