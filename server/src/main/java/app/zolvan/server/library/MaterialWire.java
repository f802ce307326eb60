package app.zolvan.server.library;

import app.zolvan.core.adjust.Adjustment;
import app.zolvan.core.adjust.AngleCurve;
import app.zolvan.core.adjust.Convention;
import app.zolvan.core.adjust.Haze;
import app.zolvan.core.adjust.KindSheet;
import app.zolvan.core.adjust.Remarks;
import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.exchange.library.MaterialJson;
import app.zolvan.core.material.FinishWord;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.material.TextureUse.RealSize;
import app.zolvan.core.measure.MaterialMeasure;
import app.zolvan.core.measure.ShippedMeasures;
import app.zolvan.core.prepare.Survival;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.surface.CoatDarkening;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.server.colour.ColourWire;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;

/**
 * A material as the tray and the look card show it.
 *
 * @param came            how much of it came along with the file; null where it did not come with one
 * @param adjusted        whether it differs from the material it was made from
 * @param colour          the colour a designer means, and its numbers
 * @param colourParameter the parameter that holds it
 * @param coatedReflectance light reflectance value of that colour as its coat lets it be seen; null where that is the same
 * @param finish          the trade's word for its gloss; over its pictures for what ships
 * @param chip            names the picture of its sample: another one where that looks different
 * @param physical        what a chip of it shows, as a body 4 mm thick
 * @param values          every parameter by its OpenPBR name: a number, three linear components, or true or false
 * @param whole           all of it, to put back later
 * @param parent          the material that it is a variation of
 * @param own             of a variation, the parameters that are its own
 * @param colourOf        the material whose colour this one's follows
 * @param shade           which shade of it: −1 black, 0 the same, 1 white
 * @param gloss           in GU, by the simulated meter
 * @param age             0 … 1: how far it has aged as its kind does
 * @param glossParameter  the roughness that decides its gloss
 * @param haze            the share of what it mirrors that lies in a glow around its highlight; null where it can have none
 * @param subKind         the kind within its kind whose values it has
 * @param metal           the measured metal that it shows
 * @param relief          strength of its normal map; null where it has none
 * @param temperature     of its glow in kelvins; null where no glowing body has its colour
 * @param reflectance     of its boundary at 0°, 5° … 90°
 * @param elsewhere       its values as others say them, by the name of the convention
 * @param remarks         what looks odd about it
 * @param facts           what is known of it besides its look; null for what nobody told
 * @param place           where it lies; null for what ships and for a project's own
 */
public record MaterialWire(
        UUID id,
        @Nullable UUID origin,
        String code,
        String name,
        @Nullable String kind,
        boolean arrived,
        @Nullable Survival came,
        boolean adjusted,
        ColourWire colour,
        String colourParameter,
        @Nullable Double coatedReflectance,
        String finish,
        String chip,
        PhysicalWire physical,
        Map<String, Object> values,
        Map<String, Object> whole,
        @Nullable UUID parent,
        List<String> own,
        @Nullable UUID colourOf,
        @Nullable Double shade,
        double gloss,
        double age,
        String ageWord,
        String glossParameter,
        @Nullable Double haze,
        @Nullable String subKind,
        @Nullable String metal,
        @Nullable Double relief,
        @Nullable Double temperature,
        double lumensPerSquareMetre,
        List<TexturedWire> textures,
        List<Double> reflectance,
        Map<String, Double> elsewhere,
        List<RemarkWire> remarks,
        @Nullable FactsWire facts,
        @Nullable ShelfPlace place) {

    private static @Nullable Double coated(Surface s, Parameter colour) {
        LinearRgb body = s.colour(colour);
        LinearRgb seen = CoatDarkening.seen(s, body);
        return colour != Parameter.BASE_COLOR || seen.equals(body) ? null : seen.lightReflectanceValue();
    }

    /**
     * Where a library's material lies.
     *
     * @param drawer   null for none
     * @param approved whether all members may use it
     * @param keptBy   who keeps it there
     */
    public record ShelfPlace(
            UUID library,
            @Nullable UUID drawer,
            boolean approved,
            @Nullable String keptBy) {}

    /**
     * A picture that drives a parameter.
     *
     * @param size of one repeat in metres; null where it follows the model's coordinates
     */
    public record TexturedWire(
            String parameter,
            String image,
            String channel,
            @Nullable List<Double> size,
            String colourSpace,
            @Nullable ToneWire tone) {}

    /**
     * How a picture's colours are changed; colours linear.
     *
     * @see Tone
     */
    public record ToneWire(
            double saturation,
            double contrast,
            double brightness,
            List<Double> tint,
            double tinted,
            List<Double> fade,
            double faded) {

        static ToneWire of(Tone t) {
            return new ToneWire(
                    t.saturation(),
                    t.contrast(),
                    t.brightness(),
                    Arrays.stream(t.tint().toArray()).boxed().toList(),
                    t.tinted(),
                    Arrays.stream(t.fade().toArray()).boxed().toList(),
                    t.faded());
        }
    }

    private static final double CHIP_THICKNESS = 0.004;

    /** What is sent again with every change of a project is worked out once. */
    private static final Cache<Origins, MaterialWire> KNOWN =
            Caffeine.newBuilder().maximumSize(1_000).build();

    private record Origins(MaterialRow m, @Nullable MaterialRow origin) {}

    /** @param origin the material it was made from; null where there is none */
    public static MaterialWire of(MaterialRow m, @Nullable MaterialRow origin) {
        return KNOWN.get(new Origins(m, origin), k -> of(k.m(), k.origin(), null));
    }

    static MaterialWire of(MaterialRow m, @Nullable MaterialRow origin, ItemMapper.@Nullable PlaceRow place) {
        Surface s = m.toSurface();
        Parameter colour = MainColour.of(s);
        double gloss = GlossReadings.of(s);
        MaterialKind kind = m.toMaterial().kind();
        return new MaterialWire(
                m.id(),
                m.origin(),
                m.code(),
                m.name(),
                m.kind(),
                m.arrived(),
                m.arrived() ? Survival.of(s) : null,
                origin != null && !origin.toSurface().equals(s),
                ColourWire.of(s.colour(colour)),
                colour.openPbrName(),
                coated(s, colour),
                ShippedMeasures.of(Chip.key(s))
                        .map(MaterialMeasure::finish)
                        .orElse(FinishWord.ofGloss(gloss))
                        .word(),
                Chip.key(s),
                PhysicalWire.of(PhysicalMaterial.of(s, CHIP_THICKNESS)),
                values(s),
                MaterialJson.write(s),
                m.parent(),
                m.ownParameters().stream().map(Parameter::openPbrName).toList(),
                m.colourOf(),
                m.shade(),
                gloss,
                KindSheet.age(kind, s),
                KindSheet.ageWord(kind, s),
                GlossMeter.roughness(s).openPbrName(),
                Haze.isPossible(s) ? Haze.of(s) : null,
                subKind(m, s),
                Arrays.stream(Metal.values())
                        .filter(metal -> metal.isOf(s))
                        .findFirst()
                        .map(Metal::name)
                        .orElse(null),
                relief(s),
                temperature(s),
                Adjustment.lumens(s, 1),
                textures(s),
                Arrays.stream(AngleCurve.of(s)).boxed().toList(),
                Arrays.stream(Convention.values()).collect(Collectors.toMap(Convention::name, c -> c.of(s))),
                Remarks.of(s).stream().map(RemarkWire::of).toList(),
                FactsWire.of(m.facts()),
                place == null
                        ? null
                        : new ShelfPlace(place.libraryId(), place.drawerId(), place.approved(), place.keptBy()));
    }

    private static @Nullable String subKind(MaterialRow m, Surface s) {
        return m.kind() == null
                ? null
                : KindSheet.of(MaterialKind.ofWord(m.kind()))
                        .within(s)
                        .map(KindSheet.SubKind::name)
                        .orElse(null);
    }

    private static @Nullable Double relief(Surface s) {
        TextureUse normal = s.textures().get(Parameter.GEOMETRY_NORMAL);
        return normal == null ? null : normal.strength();
    }

    private static @Nullable Double temperature(Surface s) {
        double kelvins = s.number(Parameter.EMISSION_LUMINANCE) > 0 ? Adjustment.temperature(s) : 0;
        return kelvins > 0 ? kelvins : null;
    }

    private static List<TexturedWire> textures(Surface s) {
        return s.textures().entrySet().stream()
                .map(e -> {
                    TextureUse t = e.getValue();
                    List<Double> size = t.placement() instanceof RealSize r ? List.of(r.width(), r.height()) : null;
                    boolean colour = e.getKey().shape() == Parameter.Shape.COLOUR;
                    return new TexturedWire(
                            e.getKey().openPbrName(),
                            t.image(),
                            t.channel().name().toLowerCase(Locale.ROOT),
                            size,
                            colour ? "sRGB" : "linear",
                            t.tone() == null ? null : ToneWire.of(t.tone()));
                })
                .toList();
    }

    private static Map<String, Object> values(Surface s) {
        Map<String, Object> values = new LinkedHashMap<>();
        for (Parameter p : Parameter.values()) {
            if (p.shape() != Parameter.Shape.TEXTURE_ONLY) {
                values.put(p.openPbrName(), MaterialJson.value(s, p));
            }
        }
        return values;
    }
}
