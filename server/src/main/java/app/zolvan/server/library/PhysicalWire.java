package app.zolvan.server.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.material.Brushing;
import app.zolvan.core.material.Foliage;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.ModelUv;
import app.zolvan.core.model.Digest;
import app.zolvan.core.render.surface.CoatDarkening;
import app.zolvan.core.render.surface.Fresnel;
import app.zolvan.core.render.surface.Fuzz;
import app.zolvan.core.render.surface.SurfaceValues;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Objects;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;

/** {@link PhysicalMaterial} on the wire: the numbers the stage draws with. Colours are three linear components. */
public record PhysicalWire(
        List<Double> baseColor,
        double alpha,
        String alphaMode,
        double metallic,
        double roughness,
        List<Double> emissive,
        double emissiveStrength,
        double ior,
        double specular,
        List<Double> specularColor,
        double transmission,
        double thickness,
        List<Double> attenuationColor,
        double attenuationDistance,
        double dispersion,
        double clearcoat,
        double clearcoatRoughness,
        List<Double> sheenColor,
        double sheenRoughness,
        double iridescence,
        double iridescenceIor,
        double iridescenceThickness,
        double anisotropy,
        @Nullable Texture baseColorTexture,
        @Nullable Texture metallicRoughnessTexture,
        @Nullable Texture normalTexture,
        @Nullable Texture emissiveTexture,
        BeyondWire beyond) {

    /**
     * What glTF has no words for, as {@link PhysicalMaterial.Beyond} tells it.
     *
     * @param brushed       null where facets are as rough both ways
     * @param fuzz          null for none
     * @param coatDarkening how far the coat's mirroring back to the body is reckoned with
     * @param coatReturns   the share of the body's light that the coat mirrors back to it
     * @param coatBlurs     what the coat adds to the square of the body's α where it covers it wholly
     * @param coatedFacing  what is left of the boundary's reflectance below the coat, as a share of it
     * @param coatedEdge    what it reflects there at the edge
     * @param shape  names the relief that is a shape of its own: the same for the same relief; null for none
     * @param cutOut what is cut out of it; null for no more than the alpha of its colours' picture does
     */
    public record BeyondWire(
            @Nullable CurveWire curve,
            @Nullable BrushedWire brushed,
            double diffuseRoughness,
            @Nullable FuzzWire fuzz,
            double coatIor,
            List<Double> coatColor,
            double coatDarkening,
            double coatReturns,
            double coatBlurs,
            double coatedFacing,
            double coatedEdge,
            double flakeWeight,
            double flakeSize,
            @Nullable AgeingWire ageing,
            @Nullable LeavesWire leaves,
            @Nullable BelowWire below,
            @Nullable ReflectedWire reflected,
            @Nullable String shape,
            @Nullable NumberWire cutOut,
            @Nullable NumberWire roughness,
            @Nullable NumberWire metalness) {

        static BeyondWire of(PhysicalMaterial p) {
            PhysicalMaterial.Beyond b = p.beyond();
            double step = Fresnel.underCoat(p.ior(), b.coatIor(), p.clearcoat());
            return new BeyondWire(
                    b.curve() == null
                            ? null
                            : new CurveWire(
                                    list(b.curve().facing()),
                                    list(b.curve().edge()),
                                    b.curve().exponent()),
                    BrushedWire.of(b.brushing()),
                    b.diffuseRoughness(),
                    FuzzWire.of(b.fuzz()),
                    b.coatIor(),
                    list(b.coatColor()),
                    b.coatDarkening(),
                    b.coatDarkening() > 0 ? CoatDarkening.returns(p.clearcoatRoughness(), b.coatIor()) : 0,
                    p.clearcoat() > 0 ? SurfaceValues.coatBlurs(p.clearcoatRoughness()) : 0,
                    p.ior() > 1 ? Fresnel.facing(step) / Fresnel.facing(p.ior()) : 1,
                    p.clearcoat() > 0 ? Fresnel.edge(step) : 1,
                    b.flakeWeight(),
                    b.flakeSize(),
                    AgeingWire.of(b.ageing()),
                    LeavesWire.of(b.foliage()),
                    BelowWire.of(b.below()),
                    ReflectedWire.of(b.reflected()),
                    b.relief() == null ? null : Digest.of(b.relief().toString().getBytes(StandardCharsets.UTF_8)),
                    NumberWire.of(b.cutOut()),
                    NumberWire.of(b.roughness()),
                    NumberWire.of(b.metalness()));
        }
    }

    /**
     * Facets that are rougher along the tangent than across.
     *
     * @param roughness its square is α in the mean
     * @param along     what α is multiplied by along the tangent
     * @param across    and across it
     */
    public record BrushedWire(double roughness, double along, double across) {
        static @Nullable BrushedWire of(@Nullable Brushing b) {
            return b == null
                    ? null
                    : new BrushedWire(b.roughness(), Brushing.along(b.anisotropy()), Brushing.across(b.anisotropy()));
        }
    }

    /**
     * Fibres that stand up from it.
     *
     * @param weight    how much of it has them
     * @param reflects  the share of light that white ones send back, by its cosine to the normal from 0 to 1 in even steps
     * @param letsInAll the share of light from all around that comes through to what is below
     */
    public record FuzzWire(double weight, List<Double> reflects, double letsInAll) {
        private static final int COSINES = 17;

        static @Nullable FuzzWire of(PhysicalMaterial.@Nullable Fuzz f) {
            return f == null
                    ? null
                    : new FuzzWire(
                            f.weight(),
                            IntStream.range(0, COSINES)
                                    .mapToObj(i -> Fuzz.reflects(i / (COSINES - 1.0), f.roughness()))
                                    .toList(),
                            1 - f.weight() * Fuzz.reflectsInAll(f.roughness()));
        }
    }

    /**
     * A picture that drives a number.
     *
     * @param shares of the picture's red, green, blue and alpha in the number
     */
    public record NumberWire(Texture picture, List<Double> shares) {
        static @Nullable NumberWire of(@Nullable TextureUse t) {
            return t == null
                    ? null
                    : new NumberWire(
                            Objects.requireNonNull(Texture.of(t)),
                            Arrays.stream(t.channel().shares()).boxed().toList());
        }
    }

    /**
     * What years have made of it, over how readily each place ages.
     *
     * @param corrodes which of the two weatherings is meant
     * @param never    the resistance that a whole texel stands for
     * @param middle   the resistance where a mottled layer has its plain colour
     * @param layers   weathering, growth, wear and dust
     */
    public record AgeingWire(boolean corrodes, double never, double middle, List<LayerWire> layers) {
        static @Nullable AgeingWire of(Ageing a) {
            return a.isNone()
                    ? null
                    : new AgeingWire(
                            a.corrodes(),
                            Ageing.NEVER,
                            Ageing.MIDDLE,
                            a.layers().stream().map(LayerWire::of).toList());
        }
    }

    /**
     * Leaves that cover it.
     *
     * @param cover    the share of the surface that they cover
     * @param size     mean length of a leaf in metres
     */
    public record LeavesWire(double cover, double size, List<Double> colour, double roughness) {
        static @Nullable LeavesWire of(@Nullable Foliage f) {
            return f == null
                    ? null
                    : new LeavesWire(
                            f.cover(), f.size(), list(f.colour()), f.surface().number(Parameter.SPECULAR_ROUGHNESS));
        }
    }

    /**
     * Light from below its surface.
     *
     * @param weight  how much of the body's light it is
     * @param through the share of the body's light that a thin wall lets through
     */
    public record BelowWire(double weight, List<Double> colour, double through) {
        static @Nullable BelowWire of(PhysicalMaterial.@Nullable Below b) {
            return b == null ? null : new BelowWire(b.weight(), list(b.colour()), b.through());
        }
    }

    /**
     * Surroundings that it mirrors in the place of what is around.
     *
     * @param image  an equirectangular picture
     * @param tone   three rows of four that its linear colours are multiplied by; null where they stay as they are
     * @param colour what it is multiplied by then
     */
    public record ReflectedWire(String image, @Nullable List<Double> tone, List<Double> colour) {
        static @Nullable ReflectedWire of(PhysicalMaterial.@Nullable Reflected r) {
            return r == null ? null : new ReflectedWire(r.picture().image(), matrix(r.picture()), list(r.colour()));
        }
    }

    private static @Nullable List<Double> matrix(TextureUse t) {
        return t.tone() == null
                ? null
                : Arrays.stream(t.tone().matrix()).boxed().toList();
    }

    /** One of the layers, as {@link Ageing.Layer} tells it. */
    public record LayerWire(
            double amount,
            double softness,
            double self,
            double grey,
            List<Double> colour,
            double mottled,
            double roughness,
            double metalness) {
        static LayerWire of(Ageing.Layer l) {
            return new LayerWire(
                    l.amount(),
                    l.softness(),
                    l.self(),
                    l.grey(),
                    list(l.colour()),
                    l.mottled(),
                    l.roughness(),
                    l.metalness());
        }
    }

    /** Reflectance by angle as drawn. */
    public record CurveWire(List<Double> facing, List<Double> edge, double exponent) {}

    /**
     * A texture and the 2D transform that takes texture coordinates to it: scale, then turn, then offset.
     *
     * @param wrapU repeat, mirror or once
     * @param tone  three rows of four that its linear colours are multiplied by; null where they stay as they are
     */
    public record Texture(
            String image,
            List<Double> offset,
            double rotation,
            List<Double> scale,
            String wrapU,
            String wrapV,
            double strength,
            @Nullable List<Double> tone) {

        static @Nullable Texture of(@Nullable TextureUse t) {
            if (t == null) {
                return null;
            }
            ModelUv uv = t.placement().toImage();
            return new Texture(
                    t.image(),
                    List.of(uv.offsetU(), uv.offsetV()),
                    uv.rotation(),
                    List.of(uv.scaleU(), uv.scaleV()),
                    t.wrapU().name().toLowerCase(Locale.ROOT),
                    t.wrapV().name().toLowerCase(Locale.ROOT),
                    t.strength(),
                    matrix(t));
        }
    }

    public static PhysicalWire of(PhysicalMaterial p) {
        return new PhysicalWire(
                list(p.baseColor()),
                p.alpha(),
                p.alphaMode(),
                p.metallic(),
                p.roughness(),
                list(p.emissive()),
                p.emissiveStrength(),
                p.ior(),
                p.specular(),
                list(p.specularColor()),
                p.transmission(),
                p.thickness(),
                list(p.attenuationColor()),
                p.attenuationDistance(),
                p.dispersion(),
                p.clearcoat(),
                p.clearcoatRoughness(),
                list(p.sheenColor()),
                p.sheenRoughness(),
                p.iridescence(),
                p.iridescenceIor(),
                p.iridescenceThickness(),
                p.anisotropy(),
                Texture.of(p.baseColorTexture()),
                Texture.of(p.metallicRoughnessTexture()),
                Texture.of(p.normalTexture()),
                Texture.of(p.emissiveTexture()),
                BeyondWire.of(p));
    }

    private static List<Double> list(LinearRgb c) {
        return List.of(c.r(), c.g(), c.b());
    }
}
