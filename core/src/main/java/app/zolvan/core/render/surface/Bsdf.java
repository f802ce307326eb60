package app.zolvan.core.render.surface;

import app.zolvan.core.material.Brushing;

/**
 * What an OpenPBR surface does with light, at one point and for one outgoing direction. The layers, from the top: fuzz,
 * coat, and a base that mixes metal, clear dielectric and opaque dielectric (diffuse under a specular boundary). A layer
 * passes on to what lies below what it does not reflect itself, on the way in and on the way out, so that no energy
 * is made; below a boundary, diffuse light is coupled so that none is lost either (Kelemen & Szirmay-Kalos 2001).
 *
 * <p>Directions are in a frame whose z is the shading normal on the side of the viewer. Radiance is counted as L/n², which
 * does not change where light is refracted. One object serves a thread; {@link #set} prepares it for a point, then
 * {@link #evaluate} and {@link #sample} may be called any number of times.
 */
public final class Bsdf {
    /** Roughness under which a lobe counts as a perfect mirror or lens. */
    public static final double SMOOTH = 0.02;

    /** Rougher than this, reflections spread widely. */
    private static final double WIDE = 0.3;

    private static final int FUZZ = 0;
    private static final int COAT = 1;
    private static final int SPECULAR = 2;
    private static final int DIFFUSE = 3;
    private static final int CLEAR = 4;
    private static final int BELOW = 5;
    private static final int WALK = 6;
    private static final int LOBES = 7;

    /** Reflectance times cosine of the last direction asked about or sampled; or the weight of a mirrored ray. */
    public double r;

    public double g;
    public double b;
    /** What of r, g, b the coat and the outer boundary mirror, sharply or blurred. */
    public double mirroredR;

    public double mirroredG;
    public double mirroredB;
    /** What of r, g, b a polished surface mirrors or lets through, where it is not smooth: light that photons may follow. */
    public double sharpR;

    public double sharpG;
    public double sharpB;
    /** Density per steradian of that direction; 0 where it is a mirrored or refracted ray of a smooth surface. */
    public double pdf;
    /** The sampled direction. */
    public double wx;

    public double wy;
    public double wz;
    /** Whether the sampled direction is the only one its lobe has. */
    public boolean smooth;
    /** Whether the sampled direction goes through the surface. */
    public boolean through;
    /**
     * Whether light enters an opaque body to wander in it: the sampled direction is how it sets out, and r, g, b what of
     * it gets in, divided by the chance of it.
     */
    public boolean walks;

    private final double[] chance = new double[LOBES];
    private final Ggx ggx = new Ggx();
    private final Ggx coatGgx = new Ggx();
    private final double[] film = new double[3];
    private final double[] f = new double[3];
    private final double[] boundary = new double[3];
    private SurfaceValues s;
    private double ox;
    private double oy;
    private double oz;
    private double eta;
    /** The same for what its boundary reflects: less below a coat. */
    private double step;

    private boolean fromInside;
    private boolean smoothBase;
    private boolean smoothCoat;
    private double coatRoughness;
    private final Askew flake = new Askew();
    /** The frame of a flake which lies askew and mirrors in the base's place; null where the base's facets lie about the normal. */
    private Askew baseFrame;

    private final Askew level = new Askew();
    /** The frame of a coat that lies level over relief; null where it follows the body. */
    private Askew coatFrame;

    /** The cosine under which the viewer sees the coat. */
    private double coatCosine;

    private double metal;
    private double clear;
    private double opaque;
    private double roughness;
    private double specularF0;
    private double coatOut;
    private double fuzzOut;
    private double specularOut;
    private double specularMean;
    private double metalLost;
    private double metalLostMean;
    private double darkR;
    private double darkG;
    private double darkB;

    /**
     * @param values     the surface
     * @param x          towards the viewer, of unit length, z > 0
     * @param eta        index of refraction beyond the surface divided by that on the viewer's side
     * @param fromInside whether the viewer's side is the inside of a clear body: only its boundary acts then
     */
    public void set(SurfaceValues values, double x, double y, double z, double eta, boolean fromInside) {
        set(values, x, y, z, eta, fromInside, 0);
    }

    /**
     * The same with no finer reflections.
     *
     * @param least how rough they are at least, unless smooth (see {@link #SMOOTH})
     */
    public void set(SurfaceValues values, double x, double y, double z, double eta, boolean fromInside, double least) {
        s = values;
        ox = x;
        oy = y;
        oz = Math.max(z, 1e-6);
        this.eta = eta;
        this.fromInside = fromInside;
        metal = s.metalness;
        clear = (1 - metal) * s.transmission;
        opaque = (1 - metal) * (1 - s.transmission);
        double coat = fromInside ? 0 : s.coat;
        double body = fromInside ? s.roughness : s.roughnessUnderCoat();
        smoothBase = body < SMOOTH;
        roughness = Math.max(body, smoothBase ? 0 : least);
        spread(ggx, roughness, smoothBase ? 0 : least, s.anisotropy);
        baseFrame = smoothBase ? null : askew(flake, s.tiltX, s.tiltY);
        step = coat > 0 && eta >= 1 ? Fresnel.underCoat(eta, s.coatIor, coat) : eta;
        double fuzz = fromInside ? 0 : s.fuzz;
        smoothCoat = s.coatRoughness < SMOOTH;
        coatRoughness = Math.max(s.coatRoughness, smoothCoat ? 0 : least);
        spread(coatGgx, coatRoughness, smoothCoat ? 0 : least, s.coatAnisotropy);
        fuzzOut = fuzz > 0 ? 1 - fuzz * Fuzz.reflects(oz, s.fuzzRoughness) : 1;
        coatFrame = coat > 0 ? askew(level, s.coatSlopeX, s.coatSlopeY) : null;
        coatCosine = coatFrame == null ? oz : Math.min(1, coatFrame.facing());
        coatOut = coat > 0 ? 1 - coat * coatReflects(coatCosine) : 1;
        specularF0 = Fresnel.facing(step);
        specularOut = opaque > 0 ? specularReflects(oz) : 0;
        specularMean = opaque > 0 ? specularReflectsOnAverage() : 0;
        metalLost = metal > 0 && !smoothBase ? 1 - Albedo.mirror(oz, roughness) : 0;
        metalLostMean = metal > 0 && !smoothBase ? 1 - Albedo.mirrorMean(roughness) : 0;
        darken(coat);
        chances(coat);
    }

    /**
     * Sets facets to a roughness and an anisotropy, −1 … 1: positive widens along the tangent.
     *
     * @param least the roughness that they keep at least in their narrow direction
     */
    private static void spread(Ggx facets, double roughness, double least, double anisotropy) {
        double alpha = Math.max(1e-4, roughness * roughness);
        double wide = Math.min(1, alpha * Brushing.along(Math.abs(anisotropy)));
        double narrow = Math.max(Math.max(1e-4, least * least), alpha * Brushing.across(Math.abs(anisotropy)));
        facets.set(anisotropy < 0 ? narrow : wide, anisotropy < 0 ? wide : narrow);
    }

    /** A frame that slopes so, if it does and the viewer sees its front. */
    private Askew askew(Askew frame, double slopeX, double slopeY) {
        return (slopeX != 0 || slopeY != 0) && frame.set(slopeX, slopeY, ox, oy, oz) ? frame : null;
    }

    private double visible(Ggx facets, Askew frame, double x, double y, double z) {
        return frame == null ? facets.visibleDensity(ox, oy, oz, x, y, z) : frame.visible(facets, x, y, z);
    }

    private double shadowing(Ggx facets, Askew frame, double x, double y, double z) {
        return frame == null ? shadowing(facets, x, y, z) : frame.shadowing(facets, x, y, z);
    }

    /** Goes on in the direction that a facet mirrors to which the viewer sees. */
    private void aboutFacet(Ggx facets, Askew frame, double u, double v) {
        if (frame == null) {
            facets.sampleVisible(ox, oy, oz, u, v);
            about(facets.hx, facets.hy, facets.hz);
        } else {
            frame.sample(facets, u, v);
            about(frame.hx, frame.hy, frame.hz);
        }
    }

    private double coatReflects(double cosine) {
        return smoothCoat ? Fresnel.dielectric(cosine, s.coatIor) : Albedo.clear(cosine, coatRoughness, s.coatIor);
    }

    /** What the boundary keeps from an opaque body; of a coloured reflection its strongest component. */
    private double specularReflects(double cosine) {
        double e;
        if (s.schlick) {
            double edge =
                    smoothBase ? StrictMath.pow(1 - cosine, s.exponent) : Albedo.edge(cosine, roughness, s.exponent);
            e = strongest(smoothBase ? 1 : Albedo.mirror(cosine, roughness), edge);
        } else {
            e = smoothBase ? Fresnel.dielectric(cosine, step) : Albedo.clear(cosine, roughness, step);
        }
        if (s.film > 0) {
            ThinFilm.reflectance(cosine, s.filmIor, Math.max(1.0001, eta), s.filmThickness, film);
            e += s.film * Math.max(0, Math.max(film[0], Math.max(film[1], film[2])) - e);
        }
        return Math.min(0.999, s.specularWeight * e);
    }

    private double specularReflectsOnAverage() {
        double e = s.schlick
                ? strongest(Albedo.mirrorMean(roughness), Albedo.edgeMean(roughness, s.exponent))
                : Albedo.clearMean(roughness, step);
        return Math.min(0.999, s.specularWeight * e * (1 - s.film)); // under a film rather too little: none is made
    }

    private double strongest(double all, double edge) {
        double share = edge / all;
        return all
                * Math.max(
                        Fresnel.schlick(s.facingR, s.edgeR, share),
                        Math.max(
                                Fresnel.schlick(s.facingG, s.edgeG, share),
                                Fresnel.schlick(s.facingB, s.edgeB, share)));
    }

    /** What the dielectric boundary reflects at this angle to a facet; from inside as from outside, where light gets out. */
    private void reflectAt(double d) {
        double outside = d;
        double index = eta;
        if (fromInside) {
            double sine2 = (1 - d * d) / (eta * eta);
            if (sine2 >= 1) {
                boundary[0] = boundary[1] = boundary[2] = s.specularWeight;
                return;
            }
            outside = Math.sqrt(1 - sine2);
            index = 1 / eta;
        }
        if (s.schlick) {
            double power = StrictMath.pow(1 - outside, s.exponent);
            boundary[0] = Fresnel.schlick(s.facingR, s.edgeR, power);
            boundary[1] = Fresnel.schlick(s.facingG, s.edgeG, power);
            boundary[2] = Fresnel.schlick(s.facingB, s.edgeB, power);
        } else {
            boundary[0] = boundary[1] = boundary[2] = Fresnel.dielectric(d, step);
        }
        if (s.film > 0) {
            ThinFilm.reflectance(outside, s.filmIor, Math.max(1.0001, index), s.filmThickness, film);
        }
        for (int c = 0; c < 3; c++) {
            double bare = boundary[c];
            boundary[c] = s.specularWeight * (s.film > 0 ? bare + s.film * (film[c] - bare) : bare);
        }
    }

    /** What of the base's light gets out of the coat after its bounces under it (OpenPBR 1.1, coat darkening). */
    private void darken(double coat) {
        darkR = darkG = darkB = 1;
        if (coat <= 0 || s.coatDarkening <= 0) {
            return;
        }
        double k = CoatDarkening.returns(coatRoughness, s.coatIor);
        double amount = coat * s.coatDarkening;
        darkR = CoatDarkening.left(k, baseAlbedo(s.baseR), amount);
        darkG = CoatDarkening.left(k, baseAlbedo(s.baseG), amount);
        darkB = CoatDarkening.left(k, baseAlbedo(s.baseB), amount);
    }

    private double baseAlbedo(double colour) {
        return Math.min(1, colour * (metal + opaque) + clear * specularF0);
    }

    private void chances(double coat) {
        double base = (s.baseR + s.baseG + s.baseB) / 3;
        double rest = fuzzOut * coatOut;
        double reflects = 0;
        if (clear + opaque > 0) {
            reflectAt(oz);
            reflects = (boundary[0] + boundary[1] + boundary[2]) / 3;
        }
        chance[FUZZ] = 1 - fuzzOut;
        chance[COAT] = coat > 0 ? fuzzOut * (1 - coatOut) : 0;
        chance[SPECULAR] = rest * (metal * Math.max(0.05, base) + (clear + opaque) * Math.max(0.02, reflects));
        chance[DIFFUSE] = rest * (opaque * Math.max(0.02, base) * (1 - specularOut) + metal * base * metalLost);
        // beyond the critical angle a rough boundary still has facets that let light out
        chance[CLEAR] = rest * clear * Math.max(smoothBase ? 0 : 0.1, 1 - reflects);
        chance[BELOW] = 0;
        chance[WALK] = 0;
        if (s.thinWalled && s.subsurface > 0) { // light that a thin sheet lets through, scattered
            chance[BELOW] = chance[DIFFUSE] * s.subsurface * 0.5;
            chance[DIFFUSE] -= chance[BELOW];
        } else if (s.isTranslucent() && opaque > 0) {
            chance[WALK] = rest * opaque * (1 - specularOut) * s.subsurface;
            chance[DIFFUSE] *= 1 - s.subsurface * opaque / (opaque + metal * metalLost);
        }
        double sum = 0;
        for (double c : chance) {
            sum += c;
        }
        for (int i = 0; i < LOBES; i++) {
            chance[i] = sum > 0 ? chance[i] / sum : 0;
        }
    }

    /** Whether every lobe has but one direction, so that asking about others is in vain. */
    public boolean isSmooth() {
        return chance[FUZZ] == 0
                && chance[DIFFUSE] == 0
                && chance[BELOW] == 0
                && chance[WALK] == 0
                && (chance[COAT] == 0 || smoothCoat)
                && (chance[SPECULAR] + chance[CLEAR] == 0 || smoothBase);
    }

    /** The share of its choices that spread over many directions, and may so be left to what knows of the light. */
    public double spreads() {
        boolean wide = roughness > WIDE;
        double rest = wide ? chance[SPECULAR] + chance[CLEAR] : 0;
        return chance[FUZZ] + chance[DIFFUSE] + chance[BELOW] + rest;
    }

    /** Goes on in a direction that was just evaluated, as if it had been sampled. */
    public void take(double x, double y, double z) {
        wx = x;
        wy = y;
        wz = z;
        through = z < 0;
        smooth = false;
        walks = false;
    }

    /** Sets r, g, b to the value times |cosine| for light from (x, y, z), and pdf to the density of sampling it. */
    public void evaluate(double x, double y, double z) {
        r = g = b = 0;
        mirroredR = mirroredG = mirroredB = 0;
        sharpR = sharpG = sharpB = 0;
        pdf = 0;
        if (z > 1e-9) {
            reflect(x, y, z);
        } else if (z < -1e-9) {
            transmit(x, y, z);
        }
    }

    private void reflect(double x, double y, double z) {
        double hx = ox + x;
        double hy = oy + y;
        double hz = oz + z;
        double l = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
        hx *= l;
        hy *= l;
        hz *= l;
        double d = Math.min(1, ox * hx + oy * hy + oz * hz);
        double passes = 1;
        if (chance[FUZZ] > 0) {
            double out = Albedo.fuzz(oz, s.fuzzRoughness);
            double in = Albedo.fuzz(z, s.fuzzRoughness);
            double most = Math.max(1, Math.max(out, in)); // thin fibres would else make light at the edge
            double value = s.fuzz * Fuzz.value(ox, oy, oz, x, y, z, s.fuzzRoughness) * z / most;
            add(value * s.fuzzR, value * s.fuzzG, value * s.fuzzB);
            pdf += chance[FUZZ] * z / Math.PI;
            passes = fuzzOut * (1 - s.fuzz * Math.min(1, in));
        }
        if (chance[COAT] > 0 && !smoothCoat) {
            double visible = visible(coatGgx, coatFrame, hx, hy, hz) / (4 * d);
            double value = passes
                    * s.coat
                    * Fresnel.dielectric(d, s.coatIor)
                    * visible
                    * shadowing(coatGgx, coatFrame, x, y, z);
            addMirrored(value, value, value);
            pdf += chance[COAT] * visible;
        }
        double tintR = passes;
        double tintG = passes;
        double tintB = passes;
        double coatBoth = 1;
        double coatMean = 1;
        if (coatOut < 1) {
            double lit = coatFrame == null ? z : Math.max(0, Math.min(1, coatFrame.cosine(x, y, z)));
            coatBoth = coatOut * (1 - s.coat * coatReflects(lit));
            coatMean = coatBoth / (1 - s.coat * Albedo.clearMean(coatRoughness, s.coatIor));
            double path = coatPath(lit);
            tintR *= darkR * coatTint(s.coatR, path);
            tintG *= darkG * coatTint(s.coatG, path);
            tintB *= darkB * coatTint(s.coatB, path);
        }
        if (chance[SPECULAR] > 0 && !smoothBase) {
            double visible = visible(ggx, baseFrame, hx, hy, hz) / (4 * d);
            double value = visible * coatBoth * shadowing(ggx, baseFrame, x, y, z);
            baseReflectance(d);
            addMirrored(value * tintR * f[0], value * tintG * f[1], value * tintB * f[2]);
            addSharp(value * tintR * f[0], value * tintG * f[1], value * tintB * f[2]);
            pdf += chance[SPECULAR] * visible;
        }
        if (chance[DIFFUSE] > 0) {
            double value = coatMean * z / Math.PI;
            double diffuse = opaque * (1 - specularOut) * (1 - specularReflects(z)) / (1 - specularMean);
            double shape = s.diffuseRoughness > 0 ? rough(x, y, z) : 1;
            double kept = s.thinWalled ? 1 - 0.5 * s.subsurface : s.isTranslucent() ? 1 - s.subsurface : 1;
            double many = metalLost > 0 ? metal * metalLost * (1 - Albedo.mirror(z, roughness)) / metalLostMean : 0;
            f[0] = kept * diffuse * shape * diffuseColour(s.baseR, s.subsurfaceR);
            f[1] = kept * diffuse * shape * diffuseColour(s.baseG, s.subsurfaceG);
            f[2] = kept * diffuse * shape * diffuseColour(s.baseB, s.subsurfaceB);
            if (many > 0) {
                f[0] += many * bounces(s.baseR, s.specularR);
                f[1] += many * bounces(s.baseG, s.specularG);
                f[2] += many * bounces(s.baseB, s.specularB);
            }
            add(value * tintR * f[0], value * tintG * f[1], value * tintB * f[2]);
            pdf += chance[DIFFUSE] * z / Math.PI;
        }
    }

    private double diffuseColour(double base, double below) {
        return s.isTranslucent() ? base : base + s.subsurface * (below - base);
    }

    /** Colour of light that met more than one facet of a rough metal (Kulla & Conty 2017). */
    private double bounces(double f0, double f82) {
        double mean = s.specularWeight * Fresnel.metalMean(f0, f82);
        return mean * mean * (1 - metalLostMean) / (1 - mean * metalLostMean);
    }

    /** Oren & Nayar's rough diffuse surface, in the form of Fujii, scaled so that it makes no energy. */
    private double rough(double x, double y, double z) {
        double sigma = s.diffuseRoughness;
        double a = 1 / (1 + (0.5 - 2 / (3 * Math.PI)) * sigma);
        double t = x * ox + y * oy;
        double q = t > 0 ? t / Math.max(z, oz) : t;
        return a * (1 + sigma * q);
    }

    private double coatPath(double z) {
        double n2 = s.coatIor * s.coatIor;
        double out = Math.sqrt(1 - (1 - coatCosine * coatCosine) / n2);
        double in = Math.sqrt(1 - (1 - z * z) / n2);
        return (1 / out + 1 / in) / 2;
    }

    private double coatTint(double colour, double path) {
        return colour >= 1 ? 1 : 1 + s.coat * (StrictMath.pow(Math.max(1e-6, colour), path) - 1);
    }

    /** What the base's boundary reflects at this angle to the facet, metal and dielectric together, into f. */
    private void baseReflectance(double d) {
        double clearer = clear + opaque;
        if (clearer > 0) {
            reflectAt(d);
            f[0] = s.specularR * bothSides(boundary[0]);
            f[1] = s.specularG * bothSides(boundary[1]);
            f[2] = s.specularB * bothSides(boundary[2]);
        } else {
            f[0] = f[1] = f[2] = 0;
        }
        if (metal > 0) {
            f[0] += metal * s.specularWeight * metalAt(d, s.baseR, s.specularR, 0);
            f[1] += metal * s.specularWeight * metalAt(d, s.baseG, s.specularG, 1);
            f[2] += metal * s.specularWeight * metalAt(d, s.baseB, s.specularB, 2);
        }
    }

    /** A dielectric's part of the base reflectance: a thin clear wall has a boundary behind, too. */
    private double bothSides(double front) {
        return s.thinWalled && clear > 0 ? opaque * front + clear * pane(front) : (clear + opaque) * front;
    }

    /** A metal's reflectance in one component, bare or under a film. */
    private double metalAt(double d, double f0, double f82, int component) {
        double bare = Fresnel.metal(d, f0, f82);
        if (s.film == 0 || fromInside) {
            return bare;
        }
        double root = Math.sqrt(Math.min(0.98, f0));
        ThinFilm.reflectance(d, s.filmIor, (1 + root) / (1 - root), s.filmThickness, film);
        return bare + s.film * (film[component] - bare);
    }

    /** The reflectance of two parallel boundaries with all the bounces between them: 2R/(1 + R). */
    private static double pane(double boundary) {
        return 2 * boundary / (1 + boundary);
    }

    private double shadowing(Ggx of, double x, double y, double z) {
        double own = of.lambda(ox, oy, oz);
        return (1 + own) / (1 + own + of.lambda(x, y, Math.abs(z)));
    }

    private void transmit(double x, double y, double z) {
        if (chance[BELOW] > 0) {
            double value = fuzzOut * coatOut * opaque * (1 - specularOut) * 0.5 * s.subsurface * -z / Math.PI;
            add(value * s.subsurfaceR, value * s.subsurfaceG, value * s.subsurfaceB);
            pdf += chance[BELOW] * -z / Math.PI;
        }
        if (chance[CLEAR] == 0 || smoothBase) {
            return;
        }
        double rest = fuzzOut * coatOut * clear;
        if (s.thinWalled) { // as if reflected, on the other side
            double hx = ox + x;
            double hy = oy + y;
            double hz = oz - z;
            double l = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
            double d = Math.min(1, (ox * hx + oy * hy + oz * hz) * l);
            double visible = ggx.visibleDensity(ox, oy, oz, hx * l, hy * l, hz * l) / (4 * d);
            reflectAt(d);
            throughPane(rest * visible * shadowing(ggx, x, y, z));
            pdf += chance[CLEAR] * visible;
            return;
        }
        double hx = -(ox + eta * x);
        double hy = -(oy + eta * y);
        double hz = -(oz + eta * z);
        double l = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
        if (hz < 0) {
            l = -l;
        }
        hx *= l;
        hy *= l;
        hz *= l;
        double o = ox * hx + oy * hy + oz * hz;
        double i = x * hx + y * hy + z * hz;
        if (o <= 0 || i >= 0) {
            return;
        }
        double q = o + eta * i;
        double visible = ggx.visibleDensity(ox, oy, oz, hx, hy, hz) * eta * eta * -i / (q * q);
        reflectAt(Math.min(1, o));
        tint(rest * visible * shadowing(ggx, x, y, z));
        pdf += chance[CLEAR] * visible;
    }

    /** Adds what of the light passes the boundary just asked about: coloured here only where it is not coloured by depth. */
    private void tint(double value) {
        boolean here = s.transmissionDepth <= 0;
        addClear(
                value * (1 - boundary[0]) * (here ? s.transmissionR : 1),
                value * (1 - boundary[1]) * (here ? s.transmissionG : 1),
                value * (1 - boundary[2]) * (here ? s.transmissionB : 1));
    }

    private void throughPane(double value) {
        addClear(
                value * (1 - pane(boundary[0])) * s.transmissionR,
                value * (1 - pane(boundary[1])) * s.transmissionG,
                value * (1 - pane(boundary[2])) * s.transmissionB);
    }

    private void addMirrored(double red, double green, double blue) {
        add(red, green, blue);
        mirroredR += red;
        mirroredG += green;
        mirroredB += blue;
    }

    private void addClear(double red, double green, double blue) {
        add(red, green, blue);
        addSharp(red, green, blue);
    }

    private void addSharp(double red, double green, double blue) {
        if (s.polished) {
            sharpR += red;
            sharpG += green;
            sharpB += blue;
        }
    }

    /** Leaves out of r, g, b what {@link #sharpR} and the like tell. */
    public void leaveOutSharp() {
        r -= sharpR;
        g -= sharpG;
        b -= sharpB;
    }

    /** Leaves out all but that. */
    public void keepSharp() {
        r = sharpR;
        g = sharpG;
        b = sharpB;
    }

    private void add(double red, double green, double blue) {
        r += red;
        g += green;
        b += blue;
    }

    /**
     * Samples a direction: sets it, r, g, b (value times cosine; for a smooth lobe the weight of the ray divided by the
     * chance of it), pdf, {@link #smooth} and {@link #through}.
     *
     * @return false where the light ends here
     */
    public boolean sample(double u, double v, double w) {
        int lobe = 0;
        double at = w;
        while (lobe < LOBES - 1 && at >= chance[lobe]) {
            at -= chance[lobe++];
        }
        if (chance[lobe] == 0) {
            return false;
        }
        smooth = false;
        through = false;
        walks = false;
        switch (lobe) {
            case COAT -> {
                if (smoothCoat) {
                    return mirror(lobe);
                }
                aboutFacet(coatGgx, coatFrame, u, v);
            }
            case SPECULAR -> {
                if (smoothBase) {
                    return mirror(lobe);
                }
                aboutFacet(ggx, baseFrame, u, v);
            }
            case CLEAR -> {
                if (smoothBase) {
                    return lens();
                }
                ggx.sampleVisible(ox, oy, oz, u, v);
                if (s.thinWalled) {
                    about(ggx.hx, ggx.hy, ggx.hz);
                    wz = -wz;
                } else if (!refract(ggx.hx, ggx.hy, ggx.hz)) {
                    return false;
                }
            }
            case WALK -> {
                walk(u, v);
                return true;
            }
            default -> {
                double radius = Math.sqrt(u);
                double phi = 2 * Math.PI * v;
                wx = radius * StrictMath.cos(phi);
                wy = radius * StrictMath.sin(phi);
                wz = Math.sqrt(Math.max(0, 1 - u)) * (lobe == BELOW ? -1 : 1);
            }
        }
        through = lobe == CLEAR || lobe == BELOW;
        if (through ? wz >= -1e-6 : wz <= 1e-6) {
            return false;
        }
        evaluate(wx, wy, wz);
        return pdf > 0;
    }

    private void walk(double u, double v) {
        double radius = Math.sqrt(u);
        double phi = 2 * Math.PI * v;
        wx = radius * StrictMath.cos(phi);
        wy = radius * StrictMath.sin(phi);
        wz = -Math.sqrt(Math.max(0, 1 - u));
        walks = true;
        through = true;
        pdf = 0;
        r = g = b = 0;
        mirroredR = mirroredG = mirroredB = 0;
        double value = fuzzOut * coatOut * opaque * (1 - specularOut) * s.subsurface / chance[WALK];
        double path = coatOut < 1 ? coatPath(coatCosine) : 0;
        add(
                value * darkR * (coatOut < 1 ? coatTint(s.coatR, path) : 1),
                value * darkG * (coatOut < 1 ? coatTint(s.coatG, path) : 1),
                value * darkB * (coatOut < 1 ? coatTint(s.coatB, path) : 1));
    }

    /** Sets r, g, b to what of the light goes straight on through a pane; 0 for any other surface. */
    public void straight() {
        r = g = b = 0;
        if (s.isPane()) {
            reflectAt(oz);
            throughPane(fuzzOut * coatOut * clear);
        }
    }

    private void about(double hx, double hy, double hz) {
        double d = 2 * (ox * hx + oy * hy + oz * hz);
        wx = d * hx - ox;
        wy = d * hy - oy;
        wz = d * hz - oz;
    }

    private boolean refract(double hx, double hy, double hz) {
        double c = ox * hx + oy * hy + oz * hz;
        double t2 = 1 - (1 - c * c) / (eta * eta);
        if (t2 <= 0 || c <= 0) {
            return false;
        }
        double k = c / eta - Math.sqrt(t2);
        wx = k * hx - ox / eta;
        wy = k * hy - oy / eta;
        wz = k * hz - oz / eta;
        return true;
    }

    private boolean mirror(int lobe) {
        wx = -ox;
        wy = -oy;
        wz = oz;
        smooth = true;
        through = false;
        pdf = 0;
        r = g = b = 0;
        mirroredR = mirroredG = mirroredB = 0;
        if (lobe == COAT) {
            if (coatFrame != null) {
                about(coatFrame.normalX(), coatFrame.normalY(), coatFrame.normalZ());
            }
            double value = fuzzBoth(wz) * s.coat * Fresnel.dielectric(coatCosine, s.coatIor) / chance[COAT];
            addMirrored(value, value, value);
            return value > 0 && wz > 0;
        }
        baseReflectance(oz);
        double value = fuzzBoth(oz) / chance[SPECULAR];
        if (coatOut < 1) {
            double path = coatPath(coatCosine);
            value *= coatOut * coatOut;
            f[0] *= darkR * coatTint(s.coatR, path);
            f[1] *= darkG * coatTint(s.coatG, path);
            f[2] *= darkB * coatTint(s.coatB, path);
        }
        addMirrored(value * f[0], value * f[1], value * f[2]);
        return r + g + b > 0;
    }

    private double fuzzBoth(double z) {
        return fuzzOut == 1 ? 1 : fuzzOut * (1 - s.fuzz * Fuzz.reflects(z, s.fuzzRoughness));
    }

    /** Light that goes through a smooth boundary, bent; or straight through a smooth pane. */
    private boolean lens() {
        smooth = true;
        through = true;
        pdf = 0;
        r = g = b = 0;
        mirroredR = mirroredG = mirroredB = 0;
        double rest = fuzzOut * coatOut * clear / chance[CLEAR];
        reflectAt(oz);
        if (s.thinWalled) {
            wx = -ox;
            wy = -oy;
            wz = -oz;
            throughPane(rest);
            return true;
        }
        if (!refract(0, 0, 1)) {
            return false;
        }
        tint(rest);
        return true;
    }
}
