package app.zolvan.core.adjust;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatExceptionOfType;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Tone;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.FinishWord;
import app.zolvan.core.material.MainColour;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.material.Metal;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ParameterException;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.Fresnel;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.snag.Fix;
import app.zolvan.core.snag.Snag;
import java.lang.reflect.Field;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SplittableRandom;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class AdjustmentTest {
    private static final Surface RED =
            Surface.STANDARD.with(Parameter.BASE_COLOR, 0.4, 0.05, 0.04).with(Parameter.SPECULAR_ROUGHNESS, 0.2);

    /** Light enough for a metal. */
    private static final Surface TAN = RED.with(Parameter.BASE_COLOR, 0.5, 0.3, 0.24);

    /** The mean of any picture asked about. */
    private static final LinearRgb OAK = new LinearRgb(0.42, 0.27, 0.14);

    private static Adjustment adjusted(MaterialKind kind, Surface s, String json) throws ImportException {
        return Adjustment.of(
                new Material("", "One", kind, s),
                JsonValue.parse(json.getBytes(StandardCharsets.UTF_8)),
                picture -> OAK);
    }

    /** As much is mirrored as before, the half of it more widely; the meter reads the narrow half. */
    @Test
    void hazeSpreadsAShareOfTheHighlightAndIsTakenBackWhole() throws ImportException {
        Surface black = RED.with(Parameter.BASE_COLOR, 0, 0, 0);
        Surface hazed = adjusted(MaterialKind.PAINT, black, "{\"haze\": 0.5}")
                .material()
                .surface();
        assertThat(Haze.of(hazed)).isCloseTo(0.5, within(1e-4));
        assertThat(GlossMeter.measure(hazed)).isCloseTo(0.5 * GlossMeter.measure(black), within(6.0));
        SurfaceValues v = SurfaceValues.of(hazed);
        Bsdf bsdf = new Bsdf();
        for (double[] at : new double[][] {{1, 0.03}, {0.7, 0.04}, {0.5, 0.12}}) {
            double cosine = at[0];
            double[] mirrored = new double[2];
            for (int which = 0; which < 2; which++) {
                bsdf.set(
                        SurfaceValues.of(which == 0 ? black : hazed),
                        Math.sqrt(1 - cosine * cosine),
                        0,
                        cosine,
                        v.ior,
                        false);
                SplittableRandom random = new SplittableRandom(3);
                for (int i = 0; i < 40_000; i++) {
                    if (bsdf.sample(random.nextDouble(), random.nextDouble(), random.nextDouble())) {
                        mirrored[which] += bsdf.g / bsdf.pdf / 40_000;
                    }
                }
            }
            assertThat(mirrored[1]).isCloseTo(mirrored[0], within(at[1] * mirrored[0]));
        }
        assertThat(adjusted(MaterialKind.PAINT, hazed, "{\"haze\": 0}")
                        .material()
                        .surface()
                        .number(Parameter.SPECULAR_ROUGHNESS))
                .isEqualTo(0.2);
        Surface lacquered = black.with(Parameter.COAT_WEIGHT, 1).with(Parameter.COAT_IOR, 1.7);
        for (Surface s : List.of(
                lacquered,
                black.with(Parameter.BASE_METALNESS, 1),
                black.with(Parameter.SPECULAR_COLOR, 1, 0.8, 0.5),
                black.withTexture(
                        Parameter.GEOMETRY_NORMAL,
                        TextureUse.repeating("ab", TextureUse.Channel.RGB, TextureUse.ModelUv.PLAIN)))) {
            assertThat(Haze.isPossible(s)).isFalse();
            assertThatExceptionOfType(ParameterException.class).isThrownBy(() -> Haze.with(s, 0.2));
        }
    }

    /** A colour that is given is the one that is seen, over a picture as without one. */
    @Test
    void aGivenColourIsSeenOverAPictureToo() throws ImportException {
        Surface oak = RED.withTexture(
                Parameter.BASE_COLOR, TextureUse.repeating("oak", TextureUse.Channel.RGB, TextureUse.ModelUv.PLAIN));
        for (Surface s : List.of(RED, oak)) {
            Surface blue = adjusted(MaterialKind.WOOD, s, "{\"colour\": [0.05, 0.1, 0.3]}")
                    .material()
                    .surface();
            LinearRgb seen = MainColour.seen(blue, picture -> OAK);
            assertThat(seen.r()).isCloseTo(0.05, within(0.005));
            assertThat(seen.g()).isCloseTo(0.1, within(0.005));
            assertThat(seen.b()).isCloseTo(0.3, within(0.005));
        }
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> adjusted(MaterialKind.WOOD, oak, "{\"colour\": [0.1, 0.2, 7]}"));
    }

    /** A relief that begins with a picture is one that is felt, not one as deep as a relief may be. */
    @Test
    void aPictureOfReliefBeginsWithADepthThatIsFelt() throws ImportException {
        Surface bumpy = adjusted(
                        MaterialKind.PAINT,
                        RED,
                        "{\"picture\": {\"of\": \"geometry_height\", \"image\": \"" + "ab".repeat(32)
                                + "\", \"real_size\": [0.1, 0.1]}}")
                .material()
                .surface();
        assertThat(bumpy.number(Parameter.GEOMETRY_HEIGHT)).isEqualTo(0.001);
    }

    @Test
    void everyParameterIsReachableWithASentenceAndTwoExamples() {
        List<Parameter> controlled =
                Control.ALL.stream().flatMap(c -> c.parameter().stream()).toList();
        assertThat(controlled)
                .doesNotHaveDuplicates()
                .containsExactlyInAnyOrderElementsOf(Arrays.stream(Parameter.values())
                        .filter(p -> p.shape() != Parameter.Shape.TEXTURE_ONLY)
                        .toList());
        for (Control c : Control.ALL) {
            assertThat(c.examples()).as(c.label()).hasSize(2);
            assertThat(c.says()).as(c.label()).endsWith(".");
            c.parameter().ifPresent(p -> {
                assertThat(c.min() / c.scale()).isGreaterThanOrEqualTo(p.min());
                assertThat(c.max() / c.scale()).isLessThanOrEqualTo(p.max());
            });
        }
    }

    @Test
    void everyKindShowsControlsThatThereAreAndCanBecomeEachOfItsOwnKinds() throws ImportException {
        for (KindSheet sheet : KindSheet.ALL) {
            for (String first : sheet.first()) {
                boolean wish = List.of("colour", "gloss", "metal", "substance", "body", "relief", "temperature")
                        .contains(first);
                assertThat(wish || Parameter.named(first).isPresent()).as(first).isTrue();
            }
            Surface s = KindChange.to(sheet.kind(), TAN);
            assertThat(sheet.subKinds()).hasSizeGreaterThanOrEqualTo(2);
            for (KindSheet.SubKind k : sheet.subKinds()) {
                Surface made = adjusted(sheet.kind(), s, "{\"sub_kind\": \"" + k.name() + "\"}")
                        .material()
                        .surface();
                assertThat(sheet.within(made)).contains(k);
                assertThat(Remarks.of(made)).as(k.name()).isEmpty();
            }
        }
    }

    @ParameterizedTest
    @EnumSource(MaterialKind.class)
    void anotherKindKeepsTheColourTheReliefAndTheGloss(MaterialKind kind) throws ImportException {
        for (MaterialKind from : MaterialKind.values()) {
            Surface before = KindChange.to(from, TAN.with(Parameter.COAT_WEIGHT, 0.25));
            Material after = adjusted(from, before, "{\"kind\": \"" + kind.word() + "\"}")
                    .material();
            Surface s = after.surface();
            assertThat(after.kind()).isEqualTo(kind);
            LinearRgb was = before.colour(MainColour.of(before));
            LinearRgb is = s.colour(MainColour.of(s));
            double bright = kind == MaterialKind.LIGHT || from == MaterialKind.LIGHT ? is.r() / was.r() : 1;
            assertThat(is.g()).isCloseTo(bright * was.g(), within(1e-9)); // a glow is as bright as its hue can be
            assertThat(s.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.2);
            assertThat(s.number(Parameter.COAT_WEIGHT)).isEqualTo(0.25);
            assertThat(Remarks.of(s)).isEmpty();
        }
    }

    @ParameterizedTest
    @CsvSource({ // reflectance facing from n and k: ((n − 1)² + k²) / ((n + 1)² + k²), for red, green and blue
        "SILVER, 0.990, 0.983, 0.981",
        "GOLD, 0.957, 0.785, 0.407",
        "COPPER, 0.934, 0.623, 0.541",
        "ALUMINIUM, 0.912, 0.914, 0.920",
        "NICKEL, 0.652, 0.611, 0.523"
    })
    void metalsReflectAsMeasured(Metal metal, double r, double g, double b) {
        assertThat(metal.facing().toArray()).containsExactly(new double[] {r, g, b}, within(0.006));
    }

    @ParameterizedTest
    @EnumSource(Metal.class)
    void aMetalsTintGivesItsTrueReflectanceAtEveryAngle(Metal metal) {
        double[] f0 = metal.facing().toArray();
        double[] tint = metal.edgeTint().toArray();
        for (int c = 0; c < 3; c++) {
            double most = tint[c] < 1 ? 1e-6 : 0.015; // OpenPBR can't tint beyond Schlick's curve
            assertThat(Fresnel.metal(1.0 / 7, f0[c], tint[c])).isCloseTo(metal.reflectance(c, 1.0 / 7), within(most));
            assertThat(metal.reflectance(c, 1e-9)).isCloseTo(1, within(1e-6));
            for (double cosine = 0.02; cosine <= 1; cosine += 0.02) {
                assertThat(Fresnel.metal(cosine, f0[c], tint[c])).isCloseTo(metal.reflectance(c, cosine), within(0.05));
            }
        }
        assertThat(metal.isOf(metal.on(RED))).isTrue();
    }

    @ParameterizedTest
    @CsvSource({ // others' number, what it is here: within 1e-4
        "GLOSSINESS, 0.7, 0.3",
        "SQUARED_ROUGHNESS, 0.09, 0.3",
        "SHININESS, 98, 0.3761", // (2/100)^¼
        "TRANSPARENCY, 0.6, 0.4",
        "REFLECTANCE, 0.0204, 1.3332", // water
        "SPECULAR_LEVEL, 0.5, 1.5"
    })
    void othersNumbersBecomeOursAndOursTheirs(Convention c, double theirs, double ours) throws ImportException {
        Surface s = adjusted(null, RED, "{\"elsewhere\": {\"convention\": \"" + c + "\", \"value\": " + theirs + "}}")
                .material()
                .surface();
        assertThat(s.number(c.parameter())).isCloseTo(ours, within(1e-4));
        assertThat(c.of(s)).isCloseTo(theirs, within(1e-9 * Math.max(1, theirs)));
    }

    @Test
    void diffuseAndSpecularColoursBecomeABaseColourAndMetalness() {
        LinearRgb gold = new LinearRgb(0.95, 0.78, 0.4);
        Surface metal = Convention.ofWorkflow(RED, LinearRgb.BLACK, gold);
        assertThat(metal.number(Parameter.BASE_METALNESS)).isCloseTo(1, within(1e-6));
        assertThat(metal.colour(Parameter.BASE_COLOR).toArray()).containsExactly(gold.toArray(), within(1e-6));
        LinearRgb blue = new LinearRgb(0.1, 0.2, 0.5);
        Surface body = Convention.ofWorkflow(RED, blue, LinearRgb.grey(0.04));
        assertThat(body.number(Parameter.BASE_METALNESS)).isZero();
        assertThat(body.colour(Parameter.BASE_COLOR).toArray()).containsExactly(blue.toArray(), within(1e-6));
    }

    @Test
    void ageComesInTheWaysOfTheKindAndIsReadBack() throws ImportException {
        for (MaterialKind kind : MaterialKind.values()) {
            Surface s = adjusted(kind, RED, "{\"age\": 0.6}").material().surface();
            assertThat(KindSheet.age(kind, s))
                    .isCloseTo(KindSheet.of(kind).ageing().isEmpty() ? 0 : 0.6, within(1e-12));
            for (Parameter way : KindSheet.WAYS) {
                assertThat(s.number(way) > 0)
                        .isEqualTo(KindSheet.of(kind).ageing().containsKey(way));
            }
        }
        assertThatExceptionOfType(ParameterException.class).isThrownBy(() -> adjusted(null, RED, "{\"age\": 2}"));
    }

    /** What is offered is what rays read: each parameter that takes a picture is changed by one, no other is. */
    @ParameterizedTest
    @EnumSource(Parameter.class)
    void aPictureDrivesWhatItIsOfferedFor(Parameter p) throws ImportException {
        if (Set.of(Parameter.GEOMETRY_NORMAL, Parameter.GEOMETRY_HEIGHT, Parameter.REFLECTED_SURROUNDINGS)
                .contains(p)) {
            return; // they bend the surface, or lie around it, instead
        }
        Surface full = Surface.STANDARD;
        for (Parameter each : Parameter.values()) {
            if (each.shape() != Parameter.Shape.TEXTURE_ONLY) {
                double[] v = each.standardValue();
                Arrays.fill(v, Math.max(each.min(), Math.min(1, each.max())));
                full = full.with(each, v);
            }
        }
        SurfaceValues before = SurfaceValues.of(full);
        SurfaceValues after = SurfaceValues.of(full);
        after.multiply(p, new double[] {0.5, 0.5, 0.5, 0.5}, 0.5);
        assertThat(same(before, after)).isEqualTo(!p.takesPicture());
    }

    private static boolean same(SurfaceValues a, SurfaceValues b) {
        for (Field f : SurfaceValues.class.getFields()) {
            try {
                if (!f.get(a).equals(f.get(b))) {
                    return false;
                }
            } catch (IllegalAccessException e) {
                throw new AssertionError(e);
            }
        }
        return true;
    }

    @Test
    void anotherPictureLiesAsTheFirstDidAndOnlyItsOwnToneIsKept() throws ImportException {
        Surface first = adjusted(
                        null,
                        RED,
                        "{\"picture\": {\"of\": \"base_color\", \"image\": \"aa\", \"real_size\": [0.5, 0.25]},"
                                + " \"tone\": {\"of\": \"base_color\", \"saturation\": 0}}")
                .material()
                .surface();
        assertThat(first.colour(Parameter.BASE_COLOR)).isEqualTo(LinearRgb.WHITE);
        Surface wider = adjusted(
                        null,
                        first,
                        "{\"picture\": {\"of\": \"base_color\", \"image\": \"aa\", \"real_size\": [2, 1]}}")
                .material()
                .surface();
        assertThat(wider.textures().get(Parameter.BASE_COLOR).tone().saturation())
                .isZero();
        Surface other = adjusted(
                        null,
                        wider.with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5),
                        "{\"picture\": {\"of\": \"base_color\", \"image\": \"bb\", \"real_size\": [2, 1]}}")
                .material()
                .surface();
        assertThat(other.textures().get(Parameter.BASE_COLOR).tone()).isNull();
        assertThat(other.colour(Parameter.BASE_COLOR)).isEqualTo(LinearRgb.grey(0.5));
    }

    @Test
    void aPicturesColoursAreChangedStepByStepAndPutBack() throws ImportException {
        TextureUse grain = TextureUse.repeating("ab", TextureUse.Channel.RGB, new TextureUse.RealSize(1, 1));
        Surface oak = RED.withTexture(Parameter.BASE_COLOR, grain);
        Surface pale = adjusted(null, oak, "{\"tone\": {\"of\": \"base_color\", \"saturation\": 0.5}}")
                .material()
                .surface();
        Surface both = adjusted(null, pale, "{\"tone\": {\"of\": \"base_color\", \"faded\": 0.25}}")
                .material()
                .surface();
        Tone tone = both.textures().get(Parameter.BASE_COLOR).tone();
        assertThat(tone.mean()).isEqualTo(OAK);
        assertThat(tone.saturation()).isEqualTo(0.5);
        assertThat(tone.faded()).isEqualTo(0.25);
        Surface back = adjusted(null, both, "{\"tone\": {\"of\": \"base_color\", \"plain\": true}}")
                .material()
                .surface();
        assertThat(back).isEqualTo(oak);
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> adjusted(null, oak, "{\"tone\": {\"of\": \"base_color\", \"contrast\": 7}}"));
        assertThatExceptionOfType(ParameterException.class)
                .isThrownBy(() -> adjusted(null, oak, "{\"tone\": {\"of\": \"coat_color\"}}"));
    }

    @Test
    void aWishedGlossIsReadAndItsWordFollows() throws ImportException {
        Adjustment a = adjusted(MaterialKind.PAINT, RED, "{\"gloss\": 40}");
        double gloss = GlossMeter.measure(a.material().surface());
        assertThat(gloss).isCloseTo(40, within(0.5));
        assertThat(FinishWord.ofGloss(gloss).word()).isEqualTo("satin");
        assertThat(adjusted(MaterialKind.PAINT, RED, "{\"gloss\": 98}").limit()).contains("clear coat");
        assertThat(Arrays.stream(new double[] {0, 5, 15, 30, 50, 75}).mapToObj(FinishWord::ofGloss))
                .containsExactly(FinishWord.values()); // rules.md §2
    }

    @Property(tries = 60)
    void aGlowIsFoundAgainByItsTemperatureAndItsLumens(
            @ForAll @DoubleRange(min = 1500, max = 15000) double kelvins,
            @ForAll @DoubleRange(min = 10, max = 3000) double lumens)
            throws ImportException {
        String json = "{\"temperature\": " + kelvins + ", \"lumens\": " + lumens + ", \"area\": 0.05}";
        Surface s = adjusted(MaterialKind.LIGHT, RED, json).material().surface();
        assertThat(Adjustment.temperature(s)).isCloseTo(kelvins, within(0.01 * kelvins));
        assertThat(Adjustment.lumens(s, 0.05)).isCloseTo(lumens, within(1e-6 * lumens));
        assertThat(Adjustment.temperature(s.with(Parameter.EMISSION_COLOR, 0.2, 1, 0.1)))
                .as("no body glows green")
                .isZero();
    }

    @Property(tries = 100)
    void aCurveGoesThroughThePointItIsDraggedTo(
            @ForAll @DoubleRange(min = 0, max = 0.3) double facing,
            @ForAll @DoubleRange(min = 0.6, max = 1) double edge,
            @ForAll @IntRange(min = 6, max = 14) int step,
            @ForAll @DoubleRange(min = 0.31, max = 0.45) double value,
            @ForAll boolean weakened)
            throws ImportException {
        double[] natural = AngleCurve.of(RED);
        assertThat(natural[0]).isCloseTo(0.04, within(1e-9)); // n 1.5
        assertThat(natural[natural.length - 1]).isCloseTo(1, within(1e-9));
        Surface s = weakened // the curve that is dragged is the one that is seen
                ? RED.with(Parameter.SPECULAR_WEIGHT, 0.9).with(Parameter.SPECULAR_COLOR, 1, 0.95, 0.9)
                : RED;
        double most = weakened ? 0.8 : 1;
        for (String point : List.of("0, " + facing, "90, " + most * edge, 5 * step + ", " + value)) {
            s = adjusted(MaterialKind.PAINT, s, "{\"curve\": [" + point + "]}")
                    .material()
                    .surface();
        }
        double[] curve = AngleCurve.of(s);
        assertThat(curve[0]).isCloseTo(facing, within(1e-9));
        assertThat(curve[curve.length - 1]).isCloseTo(most * edge, within(1e-9));
        double bend = s.number(Parameter.SCHLICK_EXPONENT);
        if (bend > Parameter.SCHLICK_EXPONENT.min() && bend < Parameter.SCHLICK_EXPONENT.max()) {
            assertThat(curve[step]).isCloseTo(value, within(1e-9));
        }
        for (int i = 1; i < curve.length; i++) {
            assertThat(curve[i]).isGreaterThanOrEqualTo(curve[i - 1]);
        }
    }

    @Test
    void aVariationFollowsInAllButWhatIsItsOwn() {
        Surface own = RED.with(Parameter.SPECULAR_ROUGHNESS, 0.7);
        Set<Parameter> names = Variation.owned(Set.of(), RED, RED, own);
        assertThat(names).containsExactly(Parameter.SPECULAR_ROUGHNESS);
        Surface blue = RED.with(Parameter.BASE_COLOR, 0, 0, 1).with(Parameter.SPECULAR_ROUGHNESS, 0.1);
        Surface followed = Variation.of(blue, own, names);
        assertThat(followed.colour(Parameter.BASE_COLOR)).isEqualTo(new LinearRgb(0, 0, 1));
        assertThat(followed.number(Parameter.SPECULAR_ROUGHNESS)).isEqualTo(0.7);
        assertThat(Variation.owned(names, blue, followed, followed.with(Parameter.SPECULAR_ROUGHNESS, 0.1)))
                .as("back to the parent's")
                .isEmpty();
    }

    @Test
    void oddValuesAreRemarkedOnAndSaneOnesAreNot() {
        assertThat(Remarks.of(RED.with(Parameter.BASE_METALNESS, 0.5)))
                .singleElement()
                .extracting(Snag::says)
                .asString()
                .contains("0 and 1");
        assertThat(Remarks.of(RED.with(Parameter.BASE_COLOR, 1, 1, 1)))
                .singleElement()
                .extracting(Snag::says)
                .asString()
                .contains("LRV 92");
        assertThat(Remarks.of(RED.with(Parameter.BASE_COLOR, 0, 0, 0))).hasSize(1);
        Surface air = RED.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_IOR, 1);
        assertThat(Remarks.of(air))
                .singleElement()
                .extracting(Snag::says)
                .asString()
                .contains("vanishes");
        assertThat(Remarks.of(RED.with(Parameter.SPECULAR_IOR, 3))).hasSize(1);
        Surface even = Metal.GOLD
                .on(RED)
                .with(Parameter.GENERALIZED_SCHLICK, true)
                .with(Parameter.SCHLICK_COLOR0, 0.7, 0.7, 0.7)
                .with(Parameter.SCHLICK_COLOR90, 0.7, 0.7, 0.7);
        assertThat(Remarks.of(even))
                .singleElement()
                .extracting(Snag::says)
                .asString()
                .contains("every angle");
        for (Material m : ShippedLibrary.load().materials()) {
            assertThat(Remarks.of(m.surface())).as(m.name()).isEmpty();
        }
    }

    @Test
    void theFixOfARemarkMendsIt() {
        Surface glass = RED.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_IOR, 1.5);
        List<Surface> odd = List.of(
                RED.with(Parameter.BASE_METALNESS, 1).with(Parameter.TRANSMISSION_WEIGHT, 1),
                RED.with(Parameter.BASE_METALNESS, 1).with(Parameter.SPECULAR_WEIGHT, 0.1),
                glass.with(Parameter.GEOMETRY_OPACITY, 0.5),
                glass.with(Parameter.GEOMETRY_THIN_WALLED, true).with(Parameter.TRANSMISSION_DEPTH, 0.1),
                glass.with(Parameter.FUZZ_WEIGHT, 0.8),
                glass.with(Parameter.SPECULAR_IOR, 1),
                RED.with(Parameter.COAT_WEIGHT, 1).with(Parameter.COAT_IOR, 1),
                Metal.GOLD.on(RED).with(Parameter.AGE_WEATHERING, 0.5));
        Set<String> mended = new HashSet<>();
        for (Surface s : odd) {
            for (Snag snag : Remarks.of(s)) {
                if (snag.fix() instanceof Fix.OfMaterial fix) {
                    Surface after = s;
                    for (Map.Entry<Parameter, Double> v : fix.values().entrySet()) {
                        after = after.with(v.getKey(), v.getValue());
                    }
                    assertThat(Remarks.of(after)).extracting(Snag::kind).doesNotContain(snag.kind());
                    mended.add(snag.kind().name());
                }
            }
        }
        assertThat(mended).as("kinds with a fix").hasSize(8);
    }

    @Test
    void wishesThatCantBeUnderstoodAreRefused() {
        for (String json : List.of(
                "{\"kind\": \"jelly\"}",
                "{\"metal\": \"unobtainium\"}",
                "{\"sub_kind\": \"velvet\"}",
                "{\"relief\": 1}",
                "{\"temperature\": 5}",
                "{\"lumens\": 1e9, \"area\": 1e-6}",
                "{\"plain\": \"nothing\"}",
                "{\"sheen\": 1}")) {
            assertThatThrownBy(() -> adjusted(MaterialKind.PAINT, RED, json))
                    .as(json)
                    .isInstanceOf(ParameterException.class);
        }
    }
}
