package app.zolvan.core.material;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.TextureUse.Channel;
import java.util.Objects;

/**
 * A surface in the terms of glTF 2.0 and its KHR_materials extensions: what the stage draws and what an exported file
 * carries. Colours are scene-linear. Fields are named as in glTF; the extension that a field belongs to is in its
 * comment where the name does not tell.
 *
 * <p>{@link #of} and {@link #toSurface} are the one place where OpenPBR meets glTF. What glTF cannot say (a coat's own
 * index, a coloured coat, scattering) is left out here; the exporter lists it.
 *
 * @param alpha               coverage, KHR: baseColorFactor's fourth component
 * @param alphaMode           OPAQUE, MASK or BLEND
 * @param emissiveStrength    luminance in units of {@link #NITS_PER_UNIT}
 * @param thickness           KHR_materials_volume thicknessFactor, in the mesh's own units as that extension asks; 0 for a thin
 *                            wall
 * @param attenuationDistance metres; 0 for no absorption
 * @param dispersion          20 / Abbe number; 0 for none
 * @param iridescenceThickness nanometres
 * @param baseColorTexture    null where there is none, like all textures
 * @param beyond              never null
 */
public record PhysicalMaterial(
        LinearRgb baseColor,
        double alpha,
        String alphaMode,
        double metallic,
        double roughness,
        LinearRgb emissive,
        double emissiveStrength,
        double ior,
        double specular,
        LinearRgb specularColor,
        double transmission,
        double thickness,
        LinearRgb attenuationColor,
        double attenuationDistance,
        double dispersion,
        double clearcoat,
        double clearcoatRoughness,
        LinearRgb sheenColor,
        double sheenRoughness,
        double iridescence,
        double iridescenceIor,
        double iridescenceThickness,
        double anisotropy,
        TextureUse baseColorTexture,
        TextureUse metallicRoughnessTexture,
        TextureUse normalTexture,
        TextureUse emissiveTexture,
        Beyond beyond) {

    /**
     * What glTF has no words for, shown on the stage and kept in files' extras.
     *
     * @param curve            null where reflectance follows from the index of refraction
     * @param brushing         of facets that lie askew further one way than the other; null for even ones and mirrors. A picture of
     *                         roughness widens them both ways, which glTF has for the one across alone
     * @param diffuseRoughness of the body
     * @param fuzz             fibres that stand up from it; null for none
     * @param coatIor          of the coat
     * @param coatColor        what the coat lets through
     * @param coatDarkening    how far the coat's mirroring back to the body is reckoned with
     * @param flakeWeight      share of the reflection that lies in flakes
     * @param flakeSize        their mean width in metres
     * @param ageing           what years have made of it; never null
     * @param foliage          the leaves that cover it; null for none
     * @param below            light from below the surface; null for none
     * @param reflected        what it mirrors in the place of what is around; null for that
     * @param relief           its relief where that is a shape of its own; null for none
     * @param cutOut           what is cut out of it by another picture than the alpha of its colours'; null for none
     * @param roughness        the picture of its roughness, to be read by its own channel; null for none
     * @param metalness        likewise of its metalness
     */
    public record Beyond(
            Curve curve,
            Brushing brushing,
            double diffuseRoughness,
            Fuzz fuzz,
            double coatIor,
            LinearRgb coatColor,
            double coatDarkening,
            double flakeWeight,
            double flakeSize,
            Ageing ageing,
            Foliage foliage,
            Below below,
            Reflected reflected,
            ShapedRelief relief,
            TextureUse cutOut,
            TextureUse roughness,
            TextureUse metalness) {
        /** Nothing that glTF does not say itself: it has every coat's index at 1.5. */
        public static final Beyond NOTHING = new Beyond(
                null,
                null,
                0,
                null,
                1.5,
                LinearRgb.WHITE,
                0,
                0,
                0,
                Ageing.NONE,
                null,
                null,
                null,
                null,
                null,
                null,
                null);

        private static Beyond of(Surface s) {
            boolean coated = s.number(Parameter.COAT_WEIGHT) > 0;
            boolean flaked = s.number(Parameter.FLAKE_WEIGHT) > 0;
            return new Beyond(
                    Curve.of(s),
                    Brushing.of(s).gltfStrength() > 0 ? Brushing.of(s) : null,
                    s.number(Parameter.BASE_DIFFUSE_ROUGHNESS),
                    Fuzz.of(s),
                    coated ? s.number(Parameter.COAT_IOR) : NOTHING.coatIor(),
                    coated ? s.colour(Parameter.COAT_COLOR) : LinearRgb.WHITE,
                    coated ? s.number(Parameter.COAT_DARKENING) : 0,
                    s.number(Parameter.FLAKE_WEIGHT),
                    flaked ? s.number(Parameter.FLAKE_SIZE) : 0,
                    Ageing.of(s),
                    Foliage.of(s),
                    Below.of(s),
                    Reflected.of(s),
                    ShapedRelief.of(s),
                    cutOut(s),
                    s.textures().get(Parameter.SPECULAR_ROUGHNESS),
                    s.textures().get(Parameter.BASE_METALNESS));
        }

        private static TextureUse cutOut(Surface s) {
            TextureUse shape = s.textures().get(Parameter.GEOMETRY_OPACITY);
            return shape == null || shape.isAlphaOf(s.textures().get(Parameter.BASE_COLOR)) ? null : shape;
        }
    }

    /**
     * Fibres, of which glTF says the colour times the weight and a roughness that it squares.
     *
     * @param roughness OpenPBR's fuzz_roughness, α of their distribution
     */
    public record Fuzz(double weight, double roughness) {
        private static Fuzz of(Surface s) {
            double weight = s.number(Parameter.FUZZ_WEIGHT);
            return weight > 0 ? new Fuzz(weight, s.number(Parameter.FUZZ_ROUGHNESS)) : null;
        }
    }

    /**
     * Light that comes out of the body beside where it went in, or on the other side of a thin one.
     *
     * @param weight  how much of the body's light it is
     * @param through the share of the body's light that a thin wall lets through
     */
    public record Below(double weight, LinearRgb colour, double through) {
        private static Below of(Surface s) {
            double weight = s.number(Parameter.SUBSURFACE_WEIGHT);
            double through = s.flag(Parameter.GEOMETRY_THIN_WALLED) ? 0.5 * weight : 0;
            return weight > 0 ? new Below(weight, s.colour(Parameter.SUBSURFACE_COLOR), through) : null;
        }
    }

    /**
     * Surroundings of its own.
     *
     * @param picture equirectangular
     * @param colour  what the picture is multiplied by
     */
    public record Reflected(TextureUse picture, LinearRgb colour) {
        private static Reflected of(Surface s) {
            TextureUse picture = s.textures().get(Parameter.REFLECTED_SURROUNDINGS);
            LinearRgb colour = s.colour(Parameter.REFLECTED_SURROUNDINGS).times(s.number(Parameter.REFLECTED_STRENGTH));
            return picture == null ? null : new Reflected(picture, colour);
        }
    }

    /** Reflectance by angle as drawn, of what is not metal. */
    public record Curve(LinearRgb facing, LinearRgb edge, double exponent) {
        private static Curve of(Surface s) {
            return s.flag(Parameter.GENERALIZED_SCHLICK)
                    ? new Curve(
                            s.colour(Parameter.SCHLICK_COLOR0),
                            s.colour(Parameter.SCHLICK_COLOR90),
                            s.number(Parameter.SCHLICK_EXPONENT))
                    : null;
        }
    }

    /**
     * Luminance in cd/m² of a glTF emissive value of 1: what a white surface shows in a bright studio, so that a file's
     * plain emissive white glows as white does on the stage.
     */
    public static final double NITS_PER_UNIT = 1000;

    /**
     * @param s             the surface
     * @param meanThickness the dressed body's mean thickness in its mesh's own units; ignored for thin walls
     */
    public static PhysicalMaterial of(Surface s, double meanThickness) {
        double transmission = s.number(Parameter.TRANSMISSION_WEIGHT);
        double depth = s.number(Parameter.TRANSMISSION_DEPTH);
        // glTF tints what passes through by the base colour; OpenPBR by the transmission colour, at depth or at once
        LinearRgb passing = depth > 0 ? LinearRgb.WHITE : s.colour(Parameter.TRANSMISSION_COLOR);
        LinearRgb base = s.colour(Parameter.BASE_COLOR)
                .times(s.number(Parameter.BASE_WEIGHT))
                .mix(passing, transmission * (1 - s.number(Parameter.BASE_METALNESS)));
        double luminance = s.number(Parameter.EMISSION_LUMINANCE);
        TextureUse opacity = s.textures().get(Parameter.GEOMETRY_OPACITY);
        double alpha = s.number(Parameter.GEOMETRY_OPACITY);
        Brushing facets = Brushing.of(s);
        return new PhysicalMaterial(
                base,
                alpha,
                alpha < 1 ? "BLEND" : opacity != null ? "MASK" : "OPAQUE",
                s.number(Parameter.BASE_METALNESS),
                facets.gltfRoughness(),
                luminance > 0 ? s.colour(Parameter.EMISSION_COLOR) : LinearRgb.BLACK,
                luminance / NITS_PER_UNIT,
                s.number(Parameter.SPECULAR_IOR),
                s.number(Parameter.SPECULAR_WEIGHT),
                s.colour(Parameter.SPECULAR_COLOR),
                transmission,
                transmission > 0 && !s.flag(Parameter.GEOMETRY_THIN_WALLED) ? meanThickness : 0,
                depth > 0 ? s.colour(Parameter.TRANSMISSION_COLOR) : LinearRgb.WHITE,
                depth,
                20
                        * s.number(Parameter.TRANSMISSION_DISPERSION_SCALE)
                        / s.number(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER),
                s.number(Parameter.COAT_WEIGHT),
                s.number(Parameter.COAT_ROUGHNESS),
                s.colour(Parameter.FUZZ_COLOR).times(s.number(Parameter.FUZZ_WEIGHT)),
                Math.sqrt(s.number(Parameter.FUZZ_ROUGHNESS)), // squared to be α, as other roughnesses of glTF
                s.number(Parameter.THIN_FILM_WEIGHT),
                s.number(Parameter.THIN_FILM_IOR),
                1000 * s.number(Parameter.THIN_FILM_THICKNESS),
                facets.gltfStrength(),
                s.textures().get(Parameter.BASE_COLOR),
                metallicRoughness(s),
                ShapedRelief.of(s) == null ? s.textures().get(Parameter.GEOMETRY_NORMAL) : null,
                s.textures().get(Parameter.EMISSION_COLOR),
                Beyond.of(s));
    }

    /** True where glTF, which reads green and blue of one picture, gets a surface's roughness and metalness right. */
    public static boolean isPacked(Surface s) {
        TextureUse rough = s.textures().get(Parameter.SPECULAR_ROUGHNESS);
        TextureUse metal = s.textures().get(Parameter.BASE_METALNESS);
        if (rough == null) {
            return metal == null;
        }
        boolean dielectric = metal == null && s.number(Parameter.BASE_METALNESS) == 0;
        boolean inOne = metal != null
                && metal.channel() == Channel.B
                && metal.image().equals(rough.image())
                && metal.liesLike(rough);
        return rough.channel() == Channel.G && (dielectric || inOne);
    }

    private static TextureUse metallicRoughness(Surface s) {
        TextureUse rough = s.textures().get(Parameter.SPECULAR_ROUGHNESS);
        return rough != null ? rough : s.textures().get(Parameter.BASE_METALNESS);
    }

    /** The surface that these glTF values describe; parameters glTF has no words for keep the standard's defaults. */
    public Surface toSurface() {
        boolean passes = transmission > 0;
        boolean deep = passes && attenuationDistance > 0;
        Brushing facets = Brushing.ofGltf(unit(roughness), unit(anisotropy));
        Surface s = Surface.STANDARD
                .with(Parameter.BASE_COLOR, baseColor.clamped())
                .with(Parameter.BASE_METALNESS, unit(metallic))
                .with(Parameter.SPECULAR_ROUGHNESS, facets.roughness())
                .with(Parameter.GEOMETRY_OPACITY, unit(alpha))
                .with(Parameter.SPECULAR_IOR, Math.max(1, Math.min(3, ior)))
                .with(Parameter.SPECULAR_WEIGHT, unit(specular))
                .with(Parameter.SPECULAR_COLOR, specularColor.clamped())
                .with(Parameter.TRANSMISSION_WEIGHT, unit(transmission))
                .with(Parameter.COAT_WEIGHT, unit(clearcoat))
                .with(Parameter.COAT_ROUGHNESS, unit(clearcoatRoughness))
                .with(Parameter.FUZZ_ROUGHNESS, unit(sheenRoughness * sheenRoughness))
                .with(Parameter.THIN_FILM_WEIGHT, unit(iridescence))
                .with(Parameter.THIN_FILM_IOR, Math.max(1, Math.min(3, iridescenceIor)))
                .with(Parameter.THIN_FILM_THICKNESS, unit(iridescenceThickness / 1000))
                .with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, facets.anisotropy())
                .with(Parameter.GEOMETRY_THIN_WALLED, passes && thickness <= 0);
        if (passes) {
            s = s.with(Parameter.TRANSMISSION_COLOR, (deep ? attenuationColor : baseColor).clamped())
                    .with(Parameter.TRANSMISSION_DEPTH, deep ? Math.min(1000, attenuationDistance) : 0);
        }
        if (dispersion > 0) {
            // glTF allows stronger dispersion than any Abbe number OpenPBR takes; it is limited there
            s = s.with(Parameter.TRANSMISSION_DISPERSION_SCALE, 1)
                    .with(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER, Math.max(9, Math.min(91, 20 / dispersion)));
        }
        double fuzz = Math.max(sheenColor.r(), Math.max(sheenColor.g(), sheenColor.b()));
        if (fuzz > 0) {
            s = s.with(Parameter.FUZZ_WEIGHT, unit(fuzz))
                    .with(Parameter.FUZZ_COLOR, sheenColor.times(1 / fuzz).clamped());
        }
        double glow = Math.max(emissive.r(), Math.max(emissive.g(), emissive.b()));
        if (glow > 0) {
            s = s.with(Parameter.EMISSION_LUMINANCE, Math.min(1_000_000, emissiveStrength * glow * NITS_PER_UNIT))
                    .with(Parameter.EMISSION_COLOR, emissive.times(1 / glow).clamped());
        }
        if (baseColorTexture != null && !alphaMode.equals("OPAQUE")) {
            s = s.withTexture(Parameter.GEOMETRY_OPACITY, baseColorTexture.onChannel(Channel.A));
        }
        if (metallicRoughnessTexture != null) {
            s = s.withTexture(Parameter.SPECULAR_ROUGHNESS, metallicRoughnessTexture.onChannel(Channel.G))
                    .withTexture(Parameter.BASE_METALNESS, metallicRoughnessTexture.onChannel(Channel.B));
        }
        return s.withTexture(Parameter.BASE_COLOR, baseColorTexture)
                .withTexture(Parameter.GEOMETRY_NORMAL, normalTexture)
                .withTexture(Parameter.EMISSION_COLOR, emissiveTexture);
    }

    /**
     * The same, with values that have no effect (the roughness of a coat that is not there) at OpenPBR's
     * defaults: what a reader of the written file finds.
     */
    public PhysicalMaterial effective() {
        boolean passes = transmission > 0;
        boolean deep = passes && attenuationDistance > 0;
        boolean fuzzy = !sheenColor.equals(LinearRgb.BLACK);
        boolean filmed = iridescence > 0;
        return new PhysicalMaterial(
                baseColor,
                alpha,
                alphaMode,
                metallic,
                roughness,
                emissive,
                emissiveStrength,
                ior,
                specular,
                specularColor,
                transmission,
                passes ? thickness : 0,
                deep ? attenuationColor : LinearRgb.WHITE,
                deep ? attenuationDistance : 0,
                passes && thickness > 0 ? dispersion : 0,
                clearcoat,
                clearcoat > 0 ? clearcoatRoughness : 0,
                sheenColor,
                fuzzy ? sheenRoughness : 0.5,
                iridescence,
                filmed ? iridescenceIor : 1.4,
                filmed ? iridescenceThickness : 500,
                anisotropy,
                baseColorTexture,
                metallicRoughnessTexture,
                normalTexture,
                emissiveTexture,
                Beyond.NOTHING);
    }

    /** The same look but for the thickness, which belongs to the dressed body rather than to the material. */
    public boolean isNearButForThickness(PhysicalMaterial o, double tolerance) {
        double[] a = effective().numbers();
        double[] b = o.effective().numbers();
        for (int i = 0; i < a.length; i++) {
            if (Math.abs(a[i] - b[i]) > tolerance * Math.max(1, Math.abs(a[i]))) {
                return false;
            }
        }
        return alphaMode.equals(o.alphaMode)
                && Objects.equals(baseColorTexture, o.baseColorTexture)
                && Objects.equals(metallicRoughnessTexture, o.metallicRoughnessTexture)
                && Objects.equals(normalTexture, o.normalTexture)
                && Objects.equals(emissiveTexture, o.emissiveTexture);
    }

    private double[] numbers() {
        return new double[] {
            baseColor.r(),
            baseColor.g(),
            baseColor.b(),
            alpha,
            metallic,
            roughness,
            emissive.r() * emissiveStrength,
            emissive.g() * emissiveStrength,
            emissive.b() * emissiveStrength,
            ior,
            specular,
            specularColor.r(),
            specularColor.g(),
            specularColor.b(),
            transmission,
            attenuationColor.r(),
            attenuationColor.g(),
            attenuationColor.b(),
            attenuationDistance,
            dispersion,
            clearcoat,
            clearcoatRoughness,
            sheenColor.r(),
            sheenColor.g(),
            sheenColor.b(),
            sheenRoughness,
            iridescence,
            iridescenceIor,
            iridescenceThickness,
            anisotropy
        };
    }

    private static double unit(double v) {
        return Math.max(0, Math.min(1, v));
    }
}
