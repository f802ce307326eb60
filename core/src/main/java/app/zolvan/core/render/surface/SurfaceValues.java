package app.zolvan.core.render.surface;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Brushing;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;

/**
 * The numbers of an OpenPBR surface at one point, as plain fields: a compiled {@link Surface}, or a copy of one changed
 * by textures. Colours are scene-linear; lengths metres; the thin film's thickness nanometres; emission cd/m².
 */
public final class SurfaceValues {
    /** Roughness up to which metals and clear bodies throw patches of light. */
    private static final double POLISHED = 0.3;

    public double baseR;
    public double baseG;
    public double baseB;
    public double diffuseRoughness;
    public double metalness;
    public double specularWeight;
    public double specularR;
    public double specularG;
    public double specularB;
    public double roughness;
    /** OpenPBR's; below 0 where relief has turned it, and facets lie askew further across the tangent than along. */
    public double anisotropy;

    public double ior;
    /** Whether the boundary reflects by angle as the next seven say rather than as its index does. */
    public boolean schlick;

    public double facingR;
    public double facingG;
    public double facingB;
    public double edgeR;
    public double edgeG;
    public double edgeB;
    public double exponent;
    public double transmission;
    public double transmissionR;
    public double transmissionG;
    public double transmissionB;
    public double transmissionDepth;
    public double abbe;
    public double dispersion;
    public double subsurface;
    public double subsurfaceR;
    public double subsurfaceG;
    public double subsurfaceB;
    public double coat;
    public double coatR;
    public double coatG;
    public double coatB;
    public double coatRoughness;
    /** Anisotropy of its microfacets, −1 … 1: OpenPBR's coat_roughness_anisotropy. */
    public double coatAnisotropy;

    public double coatIor;
    public double coatDarkening;
    public double fuzz;
    public double fuzzR;
    public double fuzzG;
    public double fuzzB;
    public double fuzzRoughness;
    /** Share of the reflection that lies in flakes, and their mean width in metres. */
    public double flakes;

    public double flakeSize;
    /** How the facets lie askew at this point: the slopes of a flake along two directions across the normal. */
    public double tiltX;

    public double tiltY;
    /** How the coat lies to the body's relief at this point: the slopes of its normal along two directions across the body's. */
    public double coatSlopeX;

    public double coatSlopeY;
    public double emissionR;
    public double emissionG;
    public double emissionB;
    public double film;
    public double filmThickness;
    public double filmIor;
    public double opacity;
    public boolean thinWalled;
    /**
     * Whether it throws patches of light by what it mirrors or lets through, be it not as sharply as a smooth one. Told by the
     * surface's numbers alone, whatever pictures make of them, so that paths and photons agree about it everywhere.
     */
    public boolean polished;
    /** How far the white of a height picture stands out, in metres. */
    public double height;
    /** Single-scattering in the clear medium: extinction and scattering per metre, 0 for none; mean cosine. */
    public double extinctionR;

    public double extinctionG;
    public double extinctionB;
    public double scatterR;
    public double scatterG;
    public double scatterB;
    public double scatterCosine;
    /** Mean free paths below an opaque surface, in metres, 0 for none; mean cosine. */
    public double subsurfacePathR;

    public double subsurfacePathG;
    public double subsurfacePathB;
    public double subsurfaceCosine;

    public static SurfaceValues of(Surface s) {
        SurfaceValues v = new SurfaceValues();
        LinearRgb base = s.colour(Parameter.BASE_COLOR).times(s.number(Parameter.BASE_WEIGHT));
        v.baseR = base.r();
        v.baseG = base.g();
        v.baseB = base.b();
        v.diffuseRoughness = s.number(Parameter.BASE_DIFFUSE_ROUGHNESS);
        v.metalness = s.number(Parameter.BASE_METALNESS);
        v.specularWeight = s.number(Parameter.SPECULAR_WEIGHT);
        LinearRgb specular = s.colour(Parameter.SPECULAR_COLOR);
        v.specularR = specular.r();
        v.specularG = specular.g();
        v.specularB = specular.b();
        v.roughness = s.number(Parameter.SPECULAR_ROUGHNESS);
        v.anisotropy = s.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY);
        v.ior = s.number(Parameter.SPECULAR_IOR);
        v.schlick = s.flag(Parameter.GENERALIZED_SCHLICK);
        LinearRgb facing = s.colour(Parameter.SCHLICK_COLOR0);
        v.facingR = facing.r();
        v.facingG = facing.g();
        v.facingB = facing.b();
        LinearRgb edge = s.colour(Parameter.SCHLICK_COLOR90);
        v.edgeR = edge.r();
        v.edgeG = edge.g();
        v.edgeB = edge.b();
        v.exponent = s.number(Parameter.SCHLICK_EXPONENT);
        v.transmission = s.number(Parameter.TRANSMISSION_WEIGHT);
        LinearRgb passing = s.colour(Parameter.TRANSMISSION_COLOR);
        v.transmissionR = passing.r();
        v.transmissionG = passing.g();
        v.transmissionB = passing.b();
        v.transmissionDepth = s.number(Parameter.TRANSMISSION_DEPTH);
        v.abbe = s.number(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER);
        v.dispersion = s.number(Parameter.TRANSMISSION_DISPERSION_SCALE);
        v.subsurface = s.number(Parameter.SUBSURFACE_WEIGHT);
        LinearRgb below = s.colour(Parameter.SUBSURFACE_COLOR);
        v.subsurfaceR = below.r();
        v.subsurfaceG = below.g();
        v.subsurfaceB = below.b();
        v.coat = s.number(Parameter.COAT_WEIGHT);
        LinearRgb coat = s.colour(Parameter.COAT_COLOR);
        v.coatR = coat.r();
        v.coatG = coat.g();
        v.coatB = coat.b();
        v.coatRoughness = s.number(Parameter.COAT_ROUGHNESS);
        v.coatAnisotropy = s.number(Parameter.COAT_ROUGHNESS_ANISOTROPY);
        v.coatIor = s.number(Parameter.COAT_IOR);
        v.coatDarkening = s.number(Parameter.COAT_DARKENING);
        v.fuzz = s.number(Parameter.FUZZ_WEIGHT);
        LinearRgb fuzz = s.colour(Parameter.FUZZ_COLOR);
        v.fuzzR = fuzz.r();
        v.fuzzG = fuzz.g();
        v.fuzzB = fuzz.b();
        v.fuzzRoughness = s.number(Parameter.FUZZ_ROUGHNESS);
        v.flakes = s.number(Parameter.FLAKE_WEIGHT);
        v.polished = v.roughnessUnderCoat() <= POLISHED
                && v.flakes == 0
                && v.specularWeight > 0
                && v.metalness + (1 - v.metalness) * v.transmission >= 0.5;
        v.flakeSize = s.number(Parameter.FLAKE_SIZE);
        LinearRgb glow = s.colour(Parameter.EMISSION_COLOR).times(s.number(Parameter.EMISSION_LUMINANCE));
        v.emissionR = glow.r();
        v.emissionG = glow.g();
        v.emissionB = glow.b();
        v.film = s.number(Parameter.THIN_FILM_WEIGHT);
        v.filmThickness = 1000 * s.number(Parameter.THIN_FILM_THICKNESS);
        v.filmIor = s.number(Parameter.THIN_FILM_IOR);
        v.opacity = s.number(Parameter.GEOMETRY_OPACITY);
        v.thinWalled = s.flag(Parameter.GEOMETRY_THIN_WALLED);
        v.height = s.number(Parameter.GEOMETRY_HEIGHT);
        double radius = s.number(Parameter.SUBSURFACE_RADIUS);
        LinearRgb reach = s.colour(Parameter.SUBSURFACE_RADIUS_SCALE);
        v.subsurfacePathR = radius * reach.r();
        v.subsurfacePathG = radius * reach.g();
        v.subsurfacePathB = radius * reach.b();
        v.subsurfaceCosine = s.number(Parameter.SUBSURFACE_SCATTER_ANISOTROPY);
        v.scatterCosine = s.number(Parameter.TRANSMISSION_SCATTER_ANISOTROPY);
        v.scatter(s.colour(Parameter.TRANSMISSION_SCATTER));
        return v;
    }

    /**
     * The clear medium's coefficients (OpenPBR 1.1, 3.7): extinction −ln(colour)/depth, scattering scatter/depth, absorption
     * their difference, raised by the same amount in all components should one be negative.
     */
    private void scatter(LinearRgb scatter) {
        if (transmissionDepth <= 0) {
            return;
        }
        scatterR = scatter.r() / transmissionDepth;
        scatterG = scatter.g() / transmissionDepth;
        scatterB = scatter.b() / transmissionDepth;
        double r = -StrictMath.log(Math.max(1e-6, transmissionR)) / transmissionDepth - scatterR;
        double g = -StrictMath.log(Math.max(1e-6, transmissionG)) / transmissionDepth - scatterG;
        double b = -StrictMath.log(Math.max(1e-6, transmissionB)) / transmissionDepth - scatterB;
        double raise = Math.max(0, -Math.min(r, Math.min(g, b)));
        extinctionR = r + raise + scatterR;
        extinctionG = g + raise + scatterG;
        extinctionB = b + raise + scatterB;
    }

    /** Whether the clear medium scatters light on its way. */
    public boolean isCloudy() {
        return scatterR + scatterG + scatterB > 0;
    }

    /** Whether light wanders below its opaque surface and comes out elsewhere. */
    public boolean isTranslucent() {
        return subsurface > 0 && !thinWalled && subsurfacePathR + subsurfacePathG + subsurfacePathB > 0;
    }

    public void copy(SurfaceValues o) {
        baseR = o.baseR;
        baseG = o.baseG;
        baseB = o.baseB;
        diffuseRoughness = o.diffuseRoughness;
        metalness = o.metalness;
        specularWeight = o.specularWeight;
        specularR = o.specularR;
        specularG = o.specularG;
        specularB = o.specularB;
        roughness = o.roughness;
        anisotropy = o.anisotropy;
        ior = o.ior;
        schlick = o.schlick;
        facingR = o.facingR;
        facingG = o.facingG;
        facingB = o.facingB;
        edgeR = o.edgeR;
        edgeG = o.edgeG;
        edgeB = o.edgeB;
        exponent = o.exponent;
        transmission = o.transmission;
        transmissionR = o.transmissionR;
        transmissionG = o.transmissionG;
        transmissionB = o.transmissionB;
        transmissionDepth = o.transmissionDepth;
        abbe = o.abbe;
        dispersion = o.dispersion;
        subsurface = o.subsurface;
        subsurfaceR = o.subsurfaceR;
        subsurfaceG = o.subsurfaceG;
        subsurfaceB = o.subsurfaceB;
        coat = o.coat;
        coatR = o.coatR;
        coatG = o.coatG;
        coatB = o.coatB;
        coatRoughness = o.coatRoughness;
        coatAnisotropy = o.coatAnisotropy;
        coatIor = o.coatIor;
        coatDarkening = o.coatDarkening;
        fuzz = o.fuzz;
        fuzzR = o.fuzzR;
        fuzzG = o.fuzzG;
        fuzzB = o.fuzzB;
        fuzzRoughness = o.fuzzRoughness;
        flakes = o.flakes;
        polished = o.polished;
        flakeSize = o.flakeSize;
        coatSlopeX = o.coatSlopeX;
        coatSlopeY = o.coatSlopeY;
        tiltX = o.tiltX;
        tiltY = o.tiltY;
        emissionR = o.emissionR;
        emissionG = o.emissionG;
        emissionB = o.emissionB;
        film = o.film;
        filmThickness = o.filmThickness;
        filmIor = o.filmIor;
        opacity = o.opacity;
        thinWalled = o.thinWalled;
        height = o.height;
        extinctionR = o.extinctionR;
        extinctionG = o.extinctionG;
        extinctionB = o.extinctionB;
        scatterR = o.scatterR;
        scatterG = o.scatterG;
        scatterB = o.scatterB;
        scatterCosine = o.scatterCosine;
        subsurfacePathR = o.subsurfacePathR;
        subsurfacePathG = o.subsurfacePathG;
        subsurfacePathB = o.subsurfacePathB;
        subsurfaceCosine = o.subsurfaceCosine;
    }

    /**
     * How rough the body looks through its coat: what light crosses twice blurs it, as facets' slopes add up (OpenPBR 1.1,
     * coat, roughening).
     */
    public double roughnessUnderCoat() {
        double alpha = roughness * roughness;
        double both = Math.sqrt(Math.sqrt(alpha * alpha + coatBlurs(coatRoughness)));
        return roughness + coat * (Math.min(1, both) - roughness);
    }

    /** What a coat adds to α² of the body that it covers wholly. */
    public static double coatBlurs(double coatRoughness) {
        double alpha = coatRoughness * coatRoughness;
        return 2 * alpha * alpha;
    }

    /**
     * Widens what the body mirrors by relief that is too fine to be seen: slopes of facets and relief add up (Olano and Baker
     * 2010). Where relief is much the steeper, α² becomes 2σ². Where facets are, as many of them lie flat as where both are
     * folded into each other when α² grows by 4σ², but fewer lie a little askew; so it grows by 3.5σ².
     *
     * Even facets are widened evenly, brushed ones along and across as the relief lies: streaks are steep to their sides.
     *
     * @param spread σ of the relief's slopes, as standard deviation along one axis, in the mean of both
     * @param along  the share of their variance along the tangent, 0 … 1
     */
    public void roughen(double spread, double along) {
        if (spread <= 0) {
            return;
        }
        double alpha2 = roughness * roughness * roughness * roughness;
        double relief = 2 * spread * spread;
        if (anisotropy == 0) {
            roughness = Math.min(1, Math.sqrt(Math.sqrt(onRelief(alpha2, relief))));
            return;
        }
        double x = Brushing.along(anisotropy);
        double y = Brushing.across(anisotropy);
        x = onRelief(alpha2 * x * x, 2 * along * relief);
        y = onRelief(alpha2 * y * y, 2 * (1 - along) * relief);
        roughness = Math.min(1, Math.sqrt(Math.sqrt((x + y) / 2)));
        anisotropy = x > y ? 1 - Math.sqrt(y / x) : Math.sqrt(x / y) - 1;
    }

    private static double onRelief(double alpha2, double relief) {
        return alpha2 + relief * (1 + 0.75 * alpha2 / Math.max(1e-12, alpha2 + relief));
    }

    /**
     * Multiplies one parameter by what a picture says.
     *
     * @param rgba   the picture's linear value
     * @param single the one channel of it that a number reads
     */
    public void multiply(Parameter p, double[] rgba, double single) {
        switch (p) {
            case BASE_COLOR -> {
                baseR *= rgba[0];
                baseG *= rgba[1];
                baseB *= rgba[2];
            }
            case SPECULAR_COLOR -> {
                specularR *= rgba[0];
                specularG *= rgba[1];
                specularB *= rgba[2];
            }
            case SCHLICK_COLOR0 -> {
                facingR *= rgba[0];
                facingG *= rgba[1];
                facingB *= rgba[2];
            }
            case SCHLICK_COLOR90 -> {
                edgeR *= rgba[0];
                edgeG *= rgba[1];
                edgeB *= rgba[2];
            }
            case TRANSMISSION_COLOR -> {
                transmissionR *= rgba[0];
                transmissionG *= rgba[1];
                transmissionB *= rgba[2];
            }
            case SUBSURFACE_COLOR -> {
                subsurfaceR *= rgba[0];
                subsurfaceG *= rgba[1];
                subsurfaceB *= rgba[2];
            }
            case COAT_COLOR -> {
                coatR *= rgba[0];
                coatG *= rgba[1];
                coatB *= rgba[2];
            }
            case FUZZ_COLOR -> {
                fuzzR *= rgba[0];
                fuzzG *= rgba[1];
                fuzzB *= rgba[2];
            }
            case EMISSION_COLOR -> {
                emissionR *= rgba[0];
                emissionG *= rgba[1];
                emissionB *= rgba[2];
            }
            case BASE_WEIGHT -> {
                baseR *= single;
                baseG *= single;
                baseB *= single;
            }
            case EMISSION_LUMINANCE -> {
                emissionR *= single;
                emissionG *= single;
                emissionB *= single;
            }
            case BASE_DIFFUSE_ROUGHNESS -> diffuseRoughness *= single;
            case BASE_METALNESS -> metalness *= single;
            case SPECULAR_WEIGHT -> specularWeight *= single;
            case SPECULAR_ROUGHNESS -> roughness *= single;
            case SPECULAR_ROUGHNESS_ANISOTROPY -> anisotropy *= single;
            case TRANSMISSION_WEIGHT -> transmission *= single;
            case SUBSURFACE_WEIGHT -> subsurface *= single;
            case COAT_WEIGHT -> coat *= single;
            case COAT_ROUGHNESS -> coatRoughness *= single;
            case COAT_DARKENING -> coatDarkening *= single;
            case FUZZ_WEIGHT -> fuzz *= single;
            case FUZZ_ROUGHNESS -> fuzzRoughness *= single;
            case THIN_FILM_WEIGHT -> film *= single;
            case THIN_FILM_THICKNESS -> filmThickness *= single;
            case GEOMETRY_OPACITY -> opacity *= single;
            default -> {} // what belongs to the body as a whole is not read from pictures
        }
    }

    /** Lays what years have brought over the surface, where its cover is. */
    public void age(Ageing ageing, double[] resistances) {
        Ageing.Laid l = Ageing.Laid.over(ageing, resistances, new LinearRgb(baseR, baseG, baseB), roughness, metalness);
        baseR = l.colour().r();
        baseG = l.colour().g();
        baseB = l.colour().b();
        roughness = l.roughness();
        metalness = l.metalness();
        coat *= l.bare();
        transmission *= l.bare();
        subsurface *= l.bare();
        flakes *= l.bare();
    }

    /** Whether light passes through: such a surface bounds a body of its medium, unless it is a thin wall. */
    public boolean isClear() {
        return transmission > 0 && metalness < 1;
    }

    /** Whether it is a thin wall that light passes without being bent or blurred. */
    public boolean isPane() {
        return isClear() && thinWalled && roughness < Bsdf.SMOOTH;
    }

    public boolean emits() {
        return emissionR > 0 || emissionG > 0 || emissionB > 0;
    }
}
