package app.zolvan.core.prepare;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import org.junit.jupiter.api.Test;

/** needs.md P03: plain colours often arrive, real materials do not. */
class SurvivalTest {
    private static final Surface RED =
            Surface.STANDARD.with(Parameter.BASE_COLOR, 0.6, 0.05, 0.03).with(Parameter.SPECULAR_ROUGHNESS, 0.5);

    @Test
    void aColourThatOneSeesThroughIsAColourStill() {
        assertThat(Survival.of(Surface.STANDARD)).isEqualTo(Survival.COLOUR);
        assertThat(Survival.of(RED)).isEqualTo(Survival.COLOUR);
        assertThat(Survival.of(RED.with(Parameter.GEOMETRY_OPACITY, 0.3))).isEqualTo(Survival.COLOUR);
        assertThat(Survival.of(RED.with(Parameter.SPECULAR_ROUGHNESS, 1))).isEqualTo(Survival.COLOUR);
    }

    @Test
    void glossMetalAndGlassAreFinishes() {
        assertThat(Survival.of(RED.with(Parameter.SPECULAR_ROUGHNESS, 0.1))).isEqualTo(Survival.FINISH);
        assertThat(Survival.of(RED.with(Parameter.BASE_METALNESS, 1))).isEqualTo(Survival.FINISH);
        assertThat(Survival.of(RED.with(Parameter.TRANSMISSION_WEIGHT, 1))).isEqualTo(Survival.FINISH);
    }
}
