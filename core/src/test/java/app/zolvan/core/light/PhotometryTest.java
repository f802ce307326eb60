package app.zolvan.core.light;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Parameter;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PhotometryTest {
    /** needs.md Q41: D65 on the daylight locus, illuminant A on Planck's. */
    @ParameterizedTest
    @CsvSource({"6504, 0.3127, 0.3290", "2856, 0.4476, 0.4074"})
    void whitePointsAreThoseOfTheStandardIlluminants(double kelvin, double x, double y) {
        double[] white = WhiteBalance.whitePoint(kelvin);
        assertThat(white[0]).isCloseTo(x, within(1e-3));
        assertThat(white[1]).isCloseTo(y, within(1e-3));
    }

    /** needs.md Q39 and Q40: a flat panel of 3,000 lm has 955 cd along its axis, 166 lx at 2.4 m. */
    @Test
    void aPanelAndABulbShareTheirFluxAsGeometrySays() {
        double area = 0.01;
        double nits = AreaLamp.glowing(3000, area, LinearRgb.WHITE).number(Parameter.EMISSION_LUMINANCE);
        double candela = nits * area;
        assertThat(candela).isCloseTo(955, within(0.5));
        assertThat(candela / (2.4 * 2.4)).isCloseTo(166, within(0.5));
        double bulb = Lamp.Point.ofFlux(Vec3.ZERO, 6283, LinearRgb.WHITE, 0)
                .intensity()
                .luminance();
        assertThat(bulb).isCloseTo(500, within(0.1));
    }
}
