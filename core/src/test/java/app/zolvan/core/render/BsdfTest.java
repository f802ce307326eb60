package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.CoatDarkening;
import app.zolvan.core.render.surface.Fresnel;
import app.zolvan.core.render.surface.Spectrum;
import app.zolvan.core.render.surface.SurfaceValues;
import java.util.ArrayList;
import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

/** The laws a surface must keep, whatever its parameters: no energy made, sampling that matches its density, reciprocity. */
class BsdfTest {
    private static final Surface WHITE = Surface.STANDARD.with(Parameter.BASE_COLOR, 1, 1, 1);

    /** White surfaces over roughness, metalness, index, coat and fuzz; opaque. */
    static List<Surface> opaque() {
        List<Surface> all = new ArrayList<>();
        for (double roughness : new double[] {0, 0.3, 0.7, 1}) {
            for (double metal : new double[] {0, 0.5, 1}) {
                for (double ior : new double[] {1.2, 1.5, 2.4}) {
                    for (double top : new double[] {0, 1, 2, 3}) {
                        all.add(WHITE.with(Parameter.SPECULAR_ROUGHNESS, roughness)
                                .with(Parameter.BASE_METALNESS, metal)
                                .with(Parameter.SPECULAR_IOR, ior)
                                .with(Parameter.COAT_WEIGHT, top % 2)
                                .with(Parameter.COAT_ROUGHNESS, 0.3)
                                .with(Parameter.FUZZ_WEIGHT, top >= 2 ? 1 : 0));
                    }
                }
            }
        }
        for (double roughness : new double[] {0, 0.5, 1}) {
            Surface s = WHITE.with(Parameter.SPECULAR_ROUGHNESS, roughness);
            all.add(s.with(Parameter.FUZZ_WEIGHT, 1).with(Parameter.FUZZ_ROUGHNESS, 0.1));
            for (double film : new double[] {0.1, 0.25, 0.5}) {
                all.add(s.with(Parameter.THIN_FILM_WEIGHT, 1).with(Parameter.THIN_FILM_THICKNESS, film));
            }
            all.add(s.with(Parameter.COAT_WEIGHT, 1)
                    .with(Parameter.COAT_ROUGHNESS, 0.4)
                    .with(Parameter.COAT_ROUGHNESS_ANISOTROPY, 0.8));
            for (double exponent : new double[] {0.5, 3, 5, 12}) {
                all.add(byAngle(s, 0.3, 1, exponent));
                all.add(byAngle(s, 0.8, 0.1, exponent));
            }
        }
        return all;
    }

    /** Brushing widens the coat's highlight along the tangent and narrows it across. */
    @Test
    void aBrushedCoatsHighlightIsStretched() {
        Surface black = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.COAT_WEIGHT, 1)
                .with(Parameter.COAT_ROUGHNESS, 0.4);
        double even = mirrored(black, 0.3, 0);
        assertThat(mirrored(black, 0, 0.3)).isCloseTo(even, within(1e-9));
        Surface brushed = black.with(Parameter.COAT_ROUGHNESS_ANISOTROPY, 0.8);
        assertThat(mirrored(brushed, 0.3, 0)).isGreaterThan(1.2 * even);
        assertThat(mirrored(brushed, 0, 0.3)).isLessThan(0.5 * even);
    }

    /** The response from straight above to light from a direction that leans along the tangent and across it. */
    private static double mirrored(Surface s, double along, double across) {
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(s), 0, 0, 1, 1.5, false);
        bsdf.evaluate(along, across, Math.sqrt(1 - along * along - across * across));
        return bsdf.g;
    }

    private static Surface byAngle(Surface s, double facing, double edge, double exponent) {
        return s.with(Parameter.GENERALIZED_SCHLICK, true)
                .with(Parameter.SCHLICK_COLOR0, facing, facing, facing)
                .with(Parameter.SCHLICK_COLOR90, edge, edge, edge)
                .with(Parameter.SCHLICK_EXPONENT, exponent);
    }

    /** What a direction sends back under a uniform sky of 1: the mean weight of its samples, and its standard error. */
    private static double[] furnace(Surface s, double cosine, double eta, int n) {
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(s), Math.sqrt(1 - cosine * cosine), 0, cosine, eta, false);
        SplittableRandom random = new SplittableRandom(5);
        double sum = 0;
        double squares = 0;
        for (int i = 0; i < n; i++) {
            double w = 0;
            if (bsdf.sample(random.nextDouble(), random.nextDouble(), random.nextDouble())) {
                w = bsdf.smooth ? bsdf.g : bsdf.g / bsdf.pdf;
            }
            sum += w;
            squares += w * w;
        }
        double mean = sum / n;
        return new double[] {mean, Math.sqrt(Math.max(0, squares / n - mean * mean) / n)};
    }

    @ParameterizedTest
    @MethodSource("opaque")
    void aWhiteSurfaceUnderAWhiteSkyNeverShinesBrighterThanTheSky(Surface s) {
        for (double cosine : new double[] {0.1, 0.5, 0.95}) {
            double[] seen = furnace(s, cosine, s.number(Parameter.SPECULAR_IOR), 4000);
            // 0.4 % for the tables that couple layers, which are read between their points
            assertThat(seen[0]).as("%s at %s", s, cosine).isLessThanOrEqualTo(1.004 + 3 * seen[1]);
        }
    }

    /** Paint of two tones: the first seen from before it, the second at grazing; between them no component turns back. */
    @ParameterizedTest
    @CsvSource({"1", "2.5", "5"})
    void aTwoTonePaintGoesFromTheOneToTheOtherByAngle(double exponent) {
        Surface paint = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_ROUGHNESS, 0)
                .with(Parameter.GENERALIZED_SCHLICK, true)
                .with(Parameter.SCHLICK_COLOR0, 0.6, 0.1, 0.05)
                .with(Parameter.SCHLICK_COLOR90, 0.1, 0.2, 0.7)
                .with(Parameter.SCHLICK_EXPONENT, exponent);
        assertThat(mirrored(paint, 1)).containsExactly(new double[] {0.6, 0.1, 0.05}, within(2e-5));
        assertThat(mirrored(paint, 1e-5)).containsExactly(new double[] {0.1, 0.2, 0.7}, within(1e-4));
        double[] before = mirrored(paint, 1);
        for (double cosine = 0.95; cosine > 0; cosine -= 0.05) {
            double[] seen = mirrored(paint, cosine);
            assertThat(seen[0]).isLessThanOrEqualTo(before[0] + 2e-5);
            assertThat(seen[1]).isGreaterThanOrEqualTo(before[1] - 2e-5);
            assertThat(seen[2]).isGreaterThanOrEqualTo(before[2] - 2e-5);
            before = seen;
        }
    }

    /** What a smooth surface mirrors of a white sky: the weight of its ray, times the chance of it. */
    private static double[] mirrored(Surface s, double cosine) {
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(s), Math.sqrt(1 - cosine * cosine), 0, cosine, 1.5, false);
        double[] sum = new double[3];
        int n = 100_000;
        for (int i = 0; i < n; i++) {
            if (bsdf.sample(0.5, 0.5, (i + 0.5) / n) && bsdf.smooth) {
                sum[0] += bsdf.r / n;
                sum[1] += bsdf.g / n;
                sum[2] += bsdf.b / n;
            }
        }
        return sum;
    }

    @ParameterizedTest
    @CsvSource({"0.3", "0.6", "0.8", "1"})
    void aRoughWhiteMetalLosesLessThanOnePerCent(double roughness) {
        Surface metal = WHITE.with(Parameter.BASE_METALNESS, 1).with(Parameter.SPECULAR_ROUGHNESS, roughness);
        for (double cosine : new double[] {0.3, 0.6, 0.95}) {
            double[] seen = furnace(metal, cosine, 1.5, 40_000);
            assertThat(seen[0]).isGreaterThanOrEqualTo(0.99 - 3 * seen[1]);
        }
    }

    /** Clear smooth glass splits light without loss; rough glass loses what meets a second facet, but never gains. */
    @ParameterizedTest
    @CsvSource({"0, 1.5, 0.999", "0, 0.6666, 0.999", "0.4, 1.5, 0.90", "0.4, 0.6666, 0.80"})
    void glassPassesOnWhatItDoesNotReflect(double roughness, double eta, double least) {
        Surface glass =
                Surface.STANDARD.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.SPECULAR_ROUGHNESS, roughness);
        for (double cosine : new double[] {0.3, 0.9}) {
            double[] seen = furnace(glass, cosine, eta, 20_000);
            assertThat(seen[0]).isBetween(least - 3 * seen[1], 1 + 1e-9 + 3 * seen[1]);
        }
    }

    static List<Surface> lobes() {
        Surface rough = WHITE.with(Parameter.SPECULAR_ROUGHNESS, 0.5);
        return List.of(
                WHITE.with(Parameter.SPECULAR_WEIGHT, 0),
                rough,
                rough.with(Parameter.BASE_METALNESS, 1),
                rough.with(Parameter.BASE_METALNESS, 1).with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, 0.7),
                rough.with(Parameter.COAT_WEIGHT, 1).with(Parameter.COAT_ROUGHNESS, 0.4),
                rough.with(Parameter.FUZZ_WEIGHT, 1),
                rough.with(Parameter.FUZZ_WEIGHT, 1).with(Parameter.FUZZ_ROUGHNESS, 0.12),
                byAngle(rough, 0.2, 0.9, 3),
                rough.with(Parameter.THIN_FILM_WEIGHT, 1).with(Parameter.SPECULAR_IOR, 1.8),
                rough.with(Parameter.TRANSMISSION_WEIGHT, 1),
                rough.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.GEOMETRY_THIN_WALLED, true),
                rough.with(Parameter.SUBSURFACE_WEIGHT, 0.8).with(Parameter.GEOMETRY_THIN_WALLED, true),
                rough.with(Parameter.BASE_DIFFUSE_ROUGHNESS, 0.8));
    }

    /** χ² of sampled directions in 8 × 16 cells of the sphere against the density that is claimed for them. */
    @ParameterizedTest
    @MethodSource("lobes")
    void directionsComeAsOftenAsTheirDensitySays(Surface s) {
        int bands = 16;
        int sectors = 16;
        int n = 200_000;
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(s), 0.6, 0.2, Math.sqrt(1 - 0.4), 1.5, false);
        SplittableRandom random = new SplittableRandom(3);
        double[] seen = new double[bands * sectors];
        for (int i = 0; i < n; i++) {
            if (bsdf.sample(random.nextDouble(), random.nextDouble(), random.nextDouble())) {
                int band = Math.min(bands - 1, (int) ((bsdf.wz + 1) / 2 * bands));
                double phi = Math.atan2(bsdf.wy, bsdf.wx) / (2 * Math.PI) + 0.5;
                seen[band * sectors + Math.min(sectors - 1, (int) (phi * sectors))]++;
            }
        }
        double chi = 0;
        int cells = 0;
        int fine = 24;
        for (int band = 0; band < bands; band++) {
            for (int sector = 0; sector < sectors; sector++) {
                double sum = 0;
                for (int i = 0; i < fine; i++) {
                    double z = 2 * (band + (i + 0.5) / fine) / bands - 1;
                    double r = Math.sqrt(1 - z * z);
                    for (int k = 0; k < fine; k++) {
                        double phi = 2 * Math.PI * ((sector + (k + 0.5) / fine) / sectors - 0.5);
                        bsdf.evaluate(r * Math.cos(phi), r * Math.sin(phi), z);
                        sum += bsdf.pdf;
                    }
                }
                double expected = n * sum / (fine * fine) * 4 * Math.PI / (bands * sectors);
                if (expected > 20) {
                    double d = seen[band * sectors + sector] - expected;
                    chi += d * d / expected;
                    cells++;
                }
            }
        }
        // mean `cells`, deviation √(2·cells); and 5 % for integrating the density by midpoints
        assertThat(chi).as("χ² over %d cells", cells).isLessThan(cells + 5 * Math.sqrt(2.0 * cells) + 0.05 * cells);
        assertThat(cells).isGreaterThan(40);
    }

    @ParameterizedTest
    @MethodSource("lobes")
    void lightGoesBothWaysAlike(Surface s) {
        if (s.flag(Parameter.TRANSMISSION_WEIGHT) && !s.flag(Parameter.GEOMETRY_THIN_WALLED)) {
            return; // refraction changes the measure; reflection of the rest is covered by the others
        }
        Bsdf a = new Bsdf();
        Bsdf b = new Bsdf();
        SurfaceValues v = SurfaceValues.of(s);
        SplittableRandom random = new SplittableRandom(9);
        for (int i = 0; i < 200; i++) {
            double[] o = hemisphere(random);
            double[] w = hemisphere(random);
            a.set(v, o[0], o[1], o[2], 1.5, false);
            a.evaluate(w[0], w[1], w[2]);
            b.set(v, w[0], w[1], w[2], 1.5, false);
            b.evaluate(o[0], o[1], o[2]);
            assertThat(a.g / w[2]).isCloseTo(b.g / o[2], within(1e-6 + 1e-6 * a.g / w[2]));
        }
    }

    /** Refraction by a rough boundary, in radiance over n²: the way in is n² times the way out, whatever the layers above. */
    @ParameterizedTest
    @CsvSource({"0.3, 1.5, 0", "0.6, 1.5, 0", "0.6, 2.4, 0", "0.5, 1.5, 1"})
    void refractionGoesBothWaysAlike(double roughness, double index, int film) {
        SurfaceValues v = SurfaceValues.of(Surface.STANDARD
                .with(Parameter.TRANSMISSION_WEIGHT, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, roughness)
                .with(Parameter.SPECULAR_IOR, index)
                .with(Parameter.THIN_FILM_WEIGHT, film));
        Bsdf out = new Bsdf();
        Bsdf in = new Bsdf();
        SplittableRandom random = new SplittableRandom(4);
        int passed = 0;
        for (int i = 0; i < 500; i++) {
            double[] o = hemisphere(random);
            double[] w = hemisphere(random);
            out.set(v, o[0], o[1], o[2], index, false);
            out.evaluate(w[0], w[1], -w[2]);
            in.set(v, w[0], w[1], w[2], 1 / index, true);
            in.evaluate(o[0], o[1], -o[2]);
            double there = out.g / w[2];
            assertThat(there).isCloseTo(index * index * in.g / o[2], within(1e-9 + 1e-6 * there));
            passed += there > 1e-3 ? 1 : 0;
        }
        assertThat(passed).isGreaterThan(50);
    }

    private static double[] hemisphere(SplittableRandom random) {
        double z = 0.05 + 0.95 * random.nextDouble();
        double phi = 2 * Math.PI * random.nextDouble();
        double r = Math.sqrt(1 - z * z);
        return new double[] {r * Math.cos(phi), r * Math.sin(phi), z};
    }

    /** needs.md Q20, Q21 and Q24. */
    @ParameterizedTest
    @CsvSource({"1.333, 0.0204", "1.5, 0.0400", "1.55, 0.0465", "2, 0.1111", "2.42, 0.1724", "0.8887, 0.0035"})
    void reflectanceFacingASurfaceFollowsFromItsIndex(double eta, double expected) {
        assertThat(Fresnel.facing(eta)).isCloseTo(expected, within(5e-5));
        assertThat(Fresnel.dielectric(1, eta)).isCloseTo(Fresnel.facing(eta), within(1e-12));
    }

    @ParameterizedTest
    @CsvSource({"45, 0.0502", "60, 0.0892", "75, 0.2531", "85, 0.6128"})
    void reflectanceGrowsTowardsGrazingAsFresnelSays(double degrees, double expected) {
        assertThat(Fresnel.dielectric(Math.cos(Math.toRadians(degrees)), 1.5)).isCloseTo(expected, within(5e-5));
    }

    @ParameterizedTest
    @CsvSource({"1.333, 48.6", "1.5, 41.8", "2.42, 24.4"})
    void beyondTheCriticalAngleAllIsReflected(double index, double degrees) {
        assertThat(Fresnel.dielectric(Math.cos(Math.toRadians(degrees + 0.1)), 1 / index))
                .isEqualTo(1);
        assertThat(Fresnel.dielectric(Math.cos(Math.toRadians(degrees - 0.3)), 1 / index))
                .isLessThan(1);
    }

    /** needs.md Q33: a metal's mirror is its colour, a painted one's is not tinted. */
    @Test
    void aMetalTintsWhatItReflectsAndPaintDoesNot() {
        Surface smooth =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.9, 0.5, 0.2).with(Parameter.SPECULAR_ROUGHNESS, 0);
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(smooth.with(Parameter.BASE_METALNESS, 1)), 0, 0, 1, 1.5, false);
        assertThat(bsdf.sample(0.5, 0.5, 0.5)).isTrue();
        assertThat(bsdf.smooth).isTrue();
        assertThat(bsdf.g / bsdf.r).isCloseTo(5.0 / 9, within(1e-9));
        assertThat(bsdf.b / bsdf.r).isCloseTo(2.0 / 9, within(1e-9));
        bsdf.set(SurfaceValues.of(smooth), 0, 0, 1, 1.5, false);
        assertThat(bsdf.sample(0.5, 0.5, 0)).isTrue(); // the first lobe is the mirror
        assertThat(bsdf.smooth).isTrue();
        assertThat(bsdf.g).isEqualTo(bsdf.r).isEqualTo(bsdf.b);
    }

    /** needs.md Q30: roughness is the root of the facets' α, so a mirrored peak is 1/(4πα²) high for a white metal. */
    @ParameterizedTest
    @CsvSource({"0.2", "0.5", "0.8"})
    void roughnessIsTheRootOfAlpha(double roughness) {
        Surface metal = WHITE.with(Parameter.BASE_METALNESS, 1).with(Parameter.SPECULAR_ROUGHNESS, roughness);
        Bsdf bsdf = new Bsdf();
        bsdf.set(SurfaceValues.of(metal), 0, 0, 1, 1.5, false);
        bsdf.evaluate(0, 0, 1);
        double alpha = roughness * roughness;
        double single = 1 / (4 * Math.PI * alpha * alpha); // D(n) / (4 cos), masking 1 straight on
        assertThat(bsdf.g)
                .isBetween(single, single + 1 / Math.PI); // and at most a white sheet's light after several facets
    }

    /** needs.md Q35: a coat reflects by its own index and weight, and a metal under it keeps the rest, on both ways. */
    @ParameterizedTest
    @CsvSource({"1.5, 1, 0.04", "1.5, 0.5, 0.02", "1.6, 1, 0.0533", "2, 1, 0.1111"})
    void aCoatReflectsByItsOwnIndex(double index, double weight, double expected) {
        Surface coated = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_WEIGHT, 0)
                .with(Parameter.COAT_WEIGHT, weight)
                .with(Parameter.COAT_IOR, index);
        double[] seen = furnace(coated, 1, 1.5, 20_000);
        assertThat(seen[0]).isCloseTo(expected, within(5e-5 + 4 * seen[1]));
        Surface metal = coated.with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.BASE_COLOR, 0.5, 0.5, 0.5)
                .with(Parameter.SPECULAR_WEIGHT, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0)
                .with(Parameter.COAT_DARKENING, 0);
        double[] both = furnace(metal, 1, 1.5, 20_000);
        double rest = (1 - expected) * (1 - expected);
        assertThat(both[0]).isCloseTo(expected + 0.5 * rest, within(1e-3 + 4 * both[1]));
    }

    /** The diffuse internal reflectance of a smooth boundary: 0.596 at n = 1.5 (Saunderson 1942). */
    @ParameterizedTest
    @CsvSource({"1.5, 0.596", "1.333, 0.472", "1.0001, 0.0003"})
    void aCoatMirrorsTheBodysLightBackToIt(double index, double expected) {
        assertThat(CoatDarkening.returns(0, index)).isCloseTo(expected, within(4e-3));
    }

    /** (1 − k) ρ / (1 − k ρ), Saunderson's correction without the light that the coat mirrors itself. */
    @Test
    void aGreyUnderACoatIsSeenDarkerAndWhiteAndBareOnesAreNot() {
        Surface coated = Surface.STANDARD.with(Parameter.COAT_WEIGHT, 1).with(Parameter.COAT_IOR, 1.5);
        LinearRgb grey = LinearRgb.grey(0.5);
        double expected = 0.404 * 0.5 / (1 - 0.596 * 0.5);
        assertThat(CoatDarkening.seen(coated, grey).g()).isCloseTo(expected, within(3e-3));
        assertThat(CoatDarkening.seen(coated, LinearRgb.WHITE).g()).isCloseTo(1, within(1e-12));
        assertThat(CoatDarkening.seen(coated.with(Parameter.COAT_DARKENING, 0), grey))
                .isEqualTo(grey);
        assertThat(CoatDarkening.seen(Surface.STANDARD, grey)).isEqualTo(grey);
        double half = CoatDarkening.seen(coated.with(Parameter.COAT_COLOR, 1, 1, 0.5), grey)
                .b();
        assertThat(half).isCloseTo(expected / 2, within(2e-3));
    }

    /** Of a black body faced, coat and body smooth: the coat's reflectance, and the step's to the body through it. */
    @ParameterizedTest
    @CsvSource({
        "1.5, 1.5, 1, 1",
        "1.5, 1.6, 1, 1.0667",
        "1.6, 1.5, 1, 1.0667",
        "1.5, 1.5, 0.5, 1.25",
        "1.33, 2, 0.25, 1.3734"
    })
    void belowACoatTheBodyReflectsByTheStepBetweenTheTwo(double ior, double coatIor, double weight, double step) {
        Surface black = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_ROUGHNESS, 0)
                .with(Parameter.SPECULAR_IOR, ior)
                .with(Parameter.COAT_WEIGHT, weight)
                .with(Parameter.COAT_IOR, coatIor)
                .with(Parameter.COAT_DARKENING, 0);
        double coat = weight * Math.pow((coatIor - 1) / (coatIor + 1), 2);
        double body = Math.pow((step - 1) / (step + 1), 2);
        double[] seen = furnace(black, 1, ior, 100_000);
        assertThat(seen[0]).isCloseTo(coat + (1 - coat) * (1 - coat) * body, within(3 * seen[1] + 1e-4));
    }

    /** OpenPBR 1.1: slopes add up on both ways through; a coat that reflects nothing shows it alone. */
    @ParameterizedTest
    @CsvSource({"0.3, 0.3, 1, 0.39482", "0, 0.4, 1, 0.47568", "0.2, 0.5, 0.5, 0.39825", "0.6, 1, 1, 1"})
    void aRoughCoatBlursTheBodyBelowIt(double body, double coat, double weight, double expected) {
        Surface metal = Surface.STANDARD
                .with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.COAT_IOR, 1)
                .with(Parameter.COAT_DARKENING, 0);
        Surface coated = metal.with(Parameter.SPECULAR_ROUGHNESS, body)
                .with(Parameter.COAT_WEIGHT, weight)
                .with(Parameter.COAT_ROUGHNESS, coat);
        Bsdf[] both = {new Bsdf(), new Bsdf()};
        both[0].set(SurfaceValues.of(coated), 0.6, 0, 0.8, 1.5, false);
        both[1].set(SurfaceValues.of(metal.with(Parameter.SPECULAR_ROUGHNESS, expected)), 0.6, 0, 0.8, 1.5, false);
        for (Bsdf bsdf : both) {
            bsdf.evaluate(-0.48, 0.64, 0.6);
        }
        assertThat(both[0].g).isCloseTo(both[1].g, within(1e-3 * both[1].g));
    }

    /** A clear coat fills relief and lies level: it mirrors about its own normal, makes no energy, and is sampled as it is. */
    @ParameterizedTest
    @CsvSource({"0.3, -0.2, 0.9", "-0.5, 0, 0.6", "0, 0.4, 0.4"})
    void aCoatLiesLevelOverRelief(double slopeX, double slopeY, double cosine) {
        Surface lacquered = WHITE.with(Parameter.BASE_METALNESS, 1)
                .with(Parameter.SPECULAR_ROUGHNESS, 0.4)
                .with(Parameter.COAT_WEIGHT, 1)
                .with(Parameter.COAT_ROUGHNESS, 0);
        Vec3 eye = new Vec3(Math.sqrt(1 - cosine * cosine), 0, cosine);
        Vec3 level = new Vec3(slopeX, slopeY, 1).normalised();
        Vec3 towards = level.times(2 * level.dot(eye)).minus(eye);
        Bsdf bsdf = new Bsdf();
        SurfaceValues smooth = SurfaceValues.of(lacquered);
        smooth.coatSlopeX = slopeX;
        smooth.coatSlopeY = slopeY;
        bsdf.set(smooth, eye.x(), eye.y(), eye.z(), 1.5, false);
        boolean met = bsdf.sample(0.5, 0.5, 0); // the coat comes first
        assertThat(met).isEqualTo(towards.z() > 0);
        if (met) {
            assertThat(bsdf.smooth).isTrue();
            assertThat(new Vec3(bsdf.wx, bsdf.wy, bsdf.wz).minus(towards).length())
                    .isLessThan(1e-9);
        }
        SurfaceValues rough = SurfaceValues.of(lacquered.with(Parameter.COAT_ROUGHNESS, 0.4));
        rough.coatSlopeX = slopeX;
        rough.coatSlopeY = slopeY;
        bsdf.set(rough, eye.x(), eye.y(), eye.z(), 1.5, false);
        SplittableRandom random = new SplittableRandom(8);
        int n = 200_000;
        double sampled = 0;
        double even = 0;
        for (int i = 0; i < n; i++) {
            if (bsdf.sample(random.nextDouble(), random.nextDouble(), random.nextDouble())) {
                sampled += bsdf.g / bsdf.pdf / n;
            }
            double z = random.nextDouble();
            double around = 2 * Math.PI * random.nextDouble();
            double r = Math.sqrt(1 - z * z);
            bsdf.evaluate(r * Math.cos(around), r * Math.sin(around), z);
            even += 2 * Math.PI * bsdf.g / n;
        }
        assertThat(sampled).isLessThan(1.002).isCloseTo(even, within(0.02));
    }

    /** Facing, at the edge and half-way of a mirror-smooth black body, and of a pane of glass; and its constant case. */
    @ParameterizedTest
    @CsvSource({"0.2, 1, 5, 1, 0.2", "0.2, 1, 5, 0.5, 0.225", "0.2, 1, 2, 0.5, 0.4", "0.6, 0.6, 5, 0.3, 0.6"})
    void reflectanceByAngleIsWhatWasAskedFor(double facing, double edge, double exponent, double cosine, double r) {
        Surface black = byAngle(Surface.STANDARD, facing, edge, exponent)
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_ROUGHNESS, 0);
        double[] seen = furnace(black, cosine, 1.5, 4000);
        assertThat(seen[0]).isCloseTo(r, within(1e-9 + 4 * seen[1]));
        Surface clear = black.with(Parameter.TRANSMISSION_WEIGHT, 1);
        double sine = Math.sqrt(1 - cosine * cosine) / 1.5;
        for (double[] way : new double[][] {{cosine, 1.5}, {Math.sqrt(1 - sine * sine), 1 / 1.5}}) {
            Bsdf bsdf = new Bsdf();
            bsdf.set(SurfaceValues.of(clear), Math.sqrt(1 - way[0] * way[0]), 0, way[0], way[1], way[1] < 1);
            double reflected = 0;
            SplittableRandom random = new SplittableRandom(1);
            for (int i = 0; i < 20_000; i++) {
                assertThat(bsdf.sample(0.5, 0.5, random.nextDouble())).isTrue();
                reflected += bsdf.through ? 0 : bsdf.g / 20_000;
            }
            assertThat(reflected).isCloseTo(r, within(0.01)); // the same from inside as from outside
        }
    }

    /** A quarter wave of √n between air and a body of index n reflects next to nothing (the textbook's blooming). */
    @Test
    void aQuarterWaveFilmTakesTheReflectionAway() {
        Surface black = Surface.STANDARD
                .with(Parameter.BASE_COLOR, 0, 0, 0)
                .with(Parameter.SPECULAR_ROUGHNESS, 0)
                .with(Parameter.SPECULAR_IOR, 1.9);
        double n = Math.sqrt(1.9);
        Surface bloomed = black.with(Parameter.THIN_FILM_WEIGHT, 1)
                .with(Parameter.THIN_FILM_IOR, n)
                .with(Parameter.THIN_FILM_THICKNESS, 0.550 / (4 * n));
        double[] bare = furnace(black, 1, 1.9, 20_000);
        assertThat(bare[0]).isCloseTo(Fresnel.facing(1.9), within(4 * bare[1]));
        assertThat(furnace(bloomed, 1, 1.9, 20_000)[0]).isLessThan(0.004);
        Surface clear = bloomed.with(Parameter.TRANSMISSION_WEIGHT, 1).with(Parameter.BASE_COLOR, 1, 1, 1);
        double[] whole = furnace(clear, 0.4, 1.9, 20_000);
        assertThat(whole[0]).isCloseTo(1, within(1e-9 + 3 * whole[1])); // what is not reflected goes through
    }

    /** rules.md, section 2: n_d 1.5168 and V 64.17 give n_F 1.5224 and n_C 1.5143, within 0.0003. */
    @Test
    void theIndexFollowsTheAbbeNumberAcrossTheSpectrum() {
        assertThat(Spectrum.index(1.5168, 64.17, 1, 587.56)).isCloseTo(1.5168, within(1e-12));
        double f = Spectrum.index(1.5168, 64.17, 1, 486.13);
        double c = Spectrum.index(1.5168, 64.17, 1, 656.27);
        assertThat(f).isCloseTo(1.5224, within(3e-4));
        assertThat(c).isCloseTo(1.5143, within(3e-4));
        assertThat(f - c).isCloseTo(0.5168 / 64.17, within(1e-9));
    }
}
