package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.GlossMeter;
import app.zolvan.core.render.surface.SurfaceValues;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class GlossMeterTest {
    private static final Surface BLACK =
            Surface.STANDARD.with(Parameter.BASE_COLOR, 0, 0, 0).with(Parameter.SPECULAR_ROUGHNESS, 0);

    @ParameterizedTest
    @CsvSource({"1.567, 100", "1.5, 89.1", "1.55, 97.3", "1.333, 59.7"}) // F(60°, n) / F(60°, 1.567); rules.md §2
    void polishedBlackGlassReadsWhatFresnelSays(double ior, double gloss) {
        assertThat(GlossMeter.measure(BLACK.with(Parameter.SPECULAR_IOR, ior))).isCloseTo(gloss, within(0.1));
    }

    @Test
    void aMattWhiteReadsItsDiffuseFloor() { // about 2 for an albedo of 0.8; rules.md §2
        Surface chalk =
                Surface.STANDARD.with(Parameter.BASE_COLOR, 0.8, 0.8, 0.8).with(Parameter.SPECULAR_WEIGHT, 0);
        // without a boundary: ρ/π · cos 60° · 4.4° · 11.7°, over F(60°, 1.567) = 0.1001
        double window = Math.toRadians(4.4) * Math.toRadians(11.7);
        assertThat(GlossMeter.measure(chalk)).isCloseTo(100 * 0.8 / Math.PI * 0.5 * window / 0.1001, within(0.03));
    }

    @Test
    void aClearCoatGivesGlossToAMattBase() {
        Surface matt = BLACK.with(Parameter.SPECULAR_ROUGHNESS, 0.9);
        assertThat(GlossMeter.measure(matt)).isLessThan(5);
        assertThat(GlossMeter.measure(matt.with(Parameter.COAT_WEIGHT, 1))).isGreaterThan(90);
    }

    @ParameterizedTest
    @CsvSource({"0.1", "0.25", "0.4", "0.6", "0.8"})
    void theMeterAgreesWithCountingOverAFineGrid(double roughness) {
        Surface s = BLACK.with(Parameter.SPECULAR_ROUGHNESS, roughness).with(Parameter.SPECULAR_IOR, 1.5);
        assertThat(GlossMeter.measure(s)).isCloseTo(100 * counted(s) / 0.1001, within(0.15));
    }

    /** The window's flux by the plainest sum, source and receptor apart. */
    private static double counted(Surface s) {
        Bsdf bsdf = new Bsdf();
        SurfaceValues v = SurfaceValues.of(s);
        double sum = 0;
        int n = 120;
        int m = 5;
        for (int a = 0; a < m; a++) {
            double lit = Math.toRadians(60 + 0.75 * ((a + 0.5) / m - 0.5));
            bsdf.set(v, -Math.sin(lit), 0, Math.cos(lit), v.ior, false);
            for (int b = 0; b < m; b++) {
                double aside = Math.toRadians(2.5 * ((b + 0.5) / m - 0.5));
                for (int i = 0; i < n; i++) {
                    double theta = Math.toRadians(60 + 4.4 * ((i + 0.5) / n - 0.5));
                    for (int j = 0; j < n; j++) {
                        double y = Math.toRadians(11.7 * ((j + 0.5) / n - 0.5)) + aside;
                        bsdf.evaluate(Math.sin(theta) * Math.cos(y), Math.sin(y), Math.cos(theta) * Math.cos(y));
                        sum += Math.cos(y) * bsdf.g;
                    }
                }
            }
        }
        return sum * Math.toRadians(4.4) * Math.toRadians(11.7) / ((double) n * n * m * m);
    }

    @ParameterizedTest
    @CsvSource({"3", "10", "25", "40", "60", "85"})
    void aWishedGlossIsMet(double gloss) {
        Surface varnished = BLACK.with(Parameter.SPECULAR_ROUGHNESS, 0.9).with(Parameter.COAT_WEIGHT, 1);
        for (Surface s : new Surface[] {BLACK, varnished, BLACK.with(Parameter.BASE_COLOR, 0.2, 0.05, 0.03)}) {
            GlossMeter.Outcome o = GlossMeter.solve(s, gloss);
            assertThat(o.limit()).isEmpty();
            assertThat(GlossMeter.measure(o.surface())).isCloseTo(gloss, within(0.5));
        }
    }

    @Test
    void outsideItsRangeASurfaceSaysWhatItReaches() {
        Surface white = Surface.STANDARD.with(Parameter.BASE_COLOR, 0.8, 0.8, 0.8);
        GlossMeter.Outcome most = GlossMeter.solve(white, 98);
        assertThat(most.limit()).contains("its most").contains("clear coat");
        assertThat(most.gloss()).isCloseTo(89.1 + 1.9, within(1.0));
        GlossMeter.Outcome least = GlossMeter.solve(white, 0.5);
        assertThat(least.limit()).contains("dullest");
        assertThat(least.gloss()).isBetween(1.5, 4.0);
    }
}
