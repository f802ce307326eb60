package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.PhysicalMaterial;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.surface.Fuzz;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class FuzzTest {
    /** Seen straight on, a facet at θ turns light to 2θ: the integral has but one angle. Simpson's rule. */
    @Property(tries = 20)
    void straightOnItReflectsTheIntegralOverItsFacets(@ForAll @DoubleRange(min = 0.1, max = 1) double alpha) {
        int steps = 2000;
        double sum = 0;
        for (int i = 0; i <= steps; i++) {
            double turned = Math.PI / 2 * i / steps; // of the light that comes in
            double d = (2 + 1 / alpha) * Math.pow(Math.sin(turned / 2), 1 / alpha) / (2 * Math.PI);
            double weight = i == 0 || i == steps ? 1 : i % 2 == 0 ? 2 : 4;
            sum += weight * d / 4 * Math.cos(turned) * Math.sin(turned); // 4(nl + nv − nl·nv) is 4 there
        }
        double whole = 2 * Math.PI * sum * Math.PI / 2 / steps / 3;
        assertThat(Fuzz.reflects(1, alpha)).isCloseTo(whole, within(0.004));
    }

    @Property(tries = 50)
    void itReflectsMoreTheMoreAslant(@ForAll @DoubleRange(min = 0.1, max = 1) double alpha) {
        double before = 1;
        for (double cosine = 0.05; cosine <= 1; cosine += 0.05) {
            double now = Fuzz.reflects(cosine, alpha);
            assertThat(now).isBetween(0.0, before);
            before = now;
        }
    }

    /** 2∫E(μ)μdμ, by Simpson's rule. */
    @Property(tries = 20)
    void inAllItReflectsTheMeanOverAllDirections(@ForAll @DoubleRange(min = 0.1, max = 1) double alpha) {
        int steps = 200;
        double sum = 0;
        for (int i = 0; i <= steps; i++) {
            double cosine = (double) i / steps;
            sum += (i == 0 || i == steps ? 1 : i % 2 == 0 ? 2 : 4) * 2 * cosine * Fuzz.reflects(cosine, alpha);
        }
        assertThat(Fuzz.reflectsInAll(alpha)).isCloseTo(sum / 3 / steps, within(0.01));
    }

    /** KHR_materials_sheen: α is the square of its roughness. */
    @Test
    void aFileTellsTheSameWidthInItsOwnWords() {
        Surface felt = Surface.STANDARD.with(Parameter.FUZZ_WEIGHT, 0.6).with(Parameter.FUZZ_ROUGHNESS, 0.36);
        PhysicalMaterial file = PhysicalMaterial.of(felt, 0);
        assertThat(file.sheenRoughness()).isCloseTo(0.6, within(1e-12));
        assertThat(file.toSurface().number(Parameter.FUZZ_ROUGHNESS)).isCloseTo(0.36, within(1e-12));
    }
}
