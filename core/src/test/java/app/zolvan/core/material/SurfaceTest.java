package app.zolvan.core.material;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import org.junit.jupiter.api.Test;

class SurfaceTest {
    @Test
    void aMediumSlowsLightByItsIndex() {
        assertThat(Substance.lightSpeed(2)).isEqualTo(Substance.LIGHT / 2);
        assertThat(Substance.WATER.lightSpeed()).isCloseTo(2.249e8, within(1e5)); // handbook, 20 °C
        assertThat(Substance.DIAMOND.lightSpeed()).isCloseTo(1.2403e8, within(1e5));
    }

    @Test
    void aValueOutOfRangeIsRefusedWithASentenceThatNamesTheRange() {
        assertThatThrownBy(() -> Surface.STANDARD.with(Parameter.SPECULAR_ROUGHNESS, 1.5))
                .isInstanceOf(ParameterException.class)
                .hasMessage("specular_roughness must lie between 0 and 1; 1.5 does not.");
        assertThatThrownBy(() -> Surface.STANDARD.with(Parameter.SPECULAR_IOR, Double.NaN))
                .isInstanceOf(ParameterException.class);
        assertThatThrownBy(() -> Surface.STANDARD.with(Parameter.BASE_COLOR, 1))
                .hasMessageContaining("takes 3 numbers");
    }

    @Test
    void clearBodiesTintByDepthWhereADepthIsGivenAndAtOnceWhereNot() {
        Surface clear = Surface.STANDARD
                .with(Parameter.TRANSMISSION_WEIGHT, 1)
                .with(Parameter.TRANSMISSION_COLOR, new LinearRgb(0.9, 0.4, 0.1));
        PhysicalMaterial atOnce = PhysicalMaterial.of(clear, 0.003);
        assertThat(atOnce.baseColor().toArray()).containsExactly(new double[] {0.9, 0.4, 0.1}, within(1e-12));
        assertThat(atOnce.attenuationDistance()).isZero();
        PhysicalMaterial deep = PhysicalMaterial.of(clear.with(Parameter.TRANSMISSION_DEPTH, 0.02), 0.003);
        assertThat(deep.baseColor()).isEqualTo(LinearRgb.WHITE);
        assertThat(deep.attenuationColor()).isEqualTo(new LinearRgb(0.9, 0.4, 0.1));
        assertThat(deep.thickness()).isEqualTo(0.003);
        Surface pane = clear.with(Parameter.GEOMETRY_THIN_WALLED, true);
        assertThat(PhysicalMaterial.of(pane, 0.003).thickness()).isZero();
    }

    @Test
    void dispersionFollowsTheAbbeNumber() { // needs.md Q27: V 20 → 1.0, V 55 → 0.364
        Surface s = Surface.STANDARD.with(Parameter.TRANSMISSION_DISPERSION_SCALE, 1);
        assertThat(PhysicalMaterial.of(s, 0).dispersion()).isCloseTo(1.0, within(1e-9));
        Surface v55 = s.with(Parameter.TRANSMISSION_DISPERSION_ABBE_NUMBER, 55);
        assertThat(PhysicalMaterial.of(v55, 0).dispersion()).isCloseTo(0.364, within(5e-4));
        assertThat(PhysicalMaterial.of(Surface.STANDARD, 0).dispersion()).isZero();
    }
}
