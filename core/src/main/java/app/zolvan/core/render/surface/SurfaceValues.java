package app.zolvan.core.render.surface;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;

/**
 * The numbers of an OpenPBR surface at one point, as plain fields: a compiled {@link Surface}, or a copy of one changed
 * by textures. Colours are scene-linear; lengths metres; the thin film's thickness nanometres; emission cd/m².
 */
public final class SurfaceValues {
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
    public double anisotropy;
    public double ior;
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
    public double coatIor;
    public double coatDarkening;
    public double fuzz;
    public double fuzzR;
    public double fuzzG;
    public double fuzzB;
    public double fuzzRoughness;
    public double emissionR;
    public double emissionG;
    public double emissionB;
    public double film;
    public double filmThickness;
    public double filmIor;
    public double opacity;
    public boolean thinWalled;

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
        v.coatIor = s.number(Parameter.COAT_IOR);
        v.coatDarkening = s.number(Parameter.COAT_DARKENING);
        v.fuzz = s.number(Parameter.FUZZ_WEIGHT);
        LinearRgb fuzz = s.colour(Parameter.FUZZ_COLOR);
        v.fuzzR = fuzz.r();
        v.fuzzG = fuzz.g();
        v.fuzzB = fuzz.b();
        v.fuzzRoughness = s.number(Parameter.FUZZ_ROUGHNESS);
        LinearRgb glow = s.colour(Parameter.EMISSION_COLOR).times(s.number(Parameter.EMISSION_LUMINANCE));
        v.emissionR = glow.r();
        v.emissionG = glow.g();
        v.emissionB = glow.b();
        v.film = s.number(Parameter.THIN_FILM_WEIGHT);
        v.filmThickness = 1000 * s.number(Parameter.THIN_FILM_THICKNESS);
        v.filmIor = s.number(Parameter.THIN_FILM_IOR);
        v.opacity = s.number(Parameter.GEOMETRY_OPACITY);
        v.thinWalled = s.flag(Parameter.GEOMETRY_THIN_WALLED);
        return v;
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
        coatIor = o.coatIor;
        coatDarkening = o.coatDarkening;
        fuzz = o.fuzz;
        fuzzR = o.fuzzR;
        fuzzG = o.fuzzG;
        fuzzB = o.fuzzB;
        fuzzRoughness = o.fuzzRoughness;
        emissionR = o.emissionR;
        emissionG = o.emissionG;
        emissionB = o.emissionB;
        film = o.film;
        filmThickness = o.filmThickness;
        filmIor = o.filmIor;
        opacity = o.opacity;
        thinWalled = o.thinWalled;
    }

    /** Whether light passes through: such a surface bounds a body of its medium, unless it is a thin wall. */
    public boolean isClear() {
        return transmission > 0 && metalness < 1;
    }

    public boolean emits() {
        return emissionR > 0 || emissionG > 0 || emissionB > 0;
    }
}
