package app.zolvan.core.material;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.DoubleRange;
import org.junit.jupiter.api.Test;

class BrushingTest {
    @Property(tries = 500)
    void facetsAreAsWideInTheWordsOfBothStandards(
            @ForAll @DoubleRange(min = 0.02, max = 0.8) double roughness,
            @ForAll @DoubleRange(min = 0, max = 1) double anisotropy) {
        Brushing b = new Brushing(roughness, anisotropy);
        double along = roughness * roughness * Brushing.along(anisotropy);
        double across = roughness * roughness * Brushing.across(anisotropy);
        // KHR_materials_anisotropy: αb is the roughness squared, αt mix(αb, 1, strength²)
        double b2 = b.gltfRoughness() * b.gltfRoughness();
        assertThat(b2).isCloseTo(across, within(1e-12));
        assertThat(b2 + b.gltfStrength() * b.gltfStrength() * (1 - b2)).isCloseTo(along, within(1e-12));
        // OpenPBR 1.1: the mean of their squares stays
        assertThat((along * along + across * across) / 2).isCloseTo(Math.pow(roughness, 4), within(1e-12));
        Brushing back = Brushing.ofGltf(b.gltfRoughness(), b.gltfStrength());
        assertThat(back.roughness()).isCloseTo(roughness, within(1e-9));
        assertThat(back.anisotropy()).isCloseTo(anisotropy, within(1e-6));
    }

    @Test
    void whatIsEvenKeepsItsNumberInBoth() {
        Brushing even = new Brushing(0.3, 0);
        assertThat(even.gltfRoughness()).isEqualTo(0.3);
        assertThat(even.gltfStrength()).isZero();
        assertThat(Brushing.ofGltf(0.3, 0)).isEqualTo(even);
    }

    @Test
    void aMirrorHasNoBrushingHoweverItWasBrushed() {
        Surface brushed = Surface.STANDARD.with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, 0.6);
        PhysicalMaterial mirror = PhysicalMaterial.of(brushed.with(Parameter.SPECULAR_ROUGHNESS, 0), 0);
        assertThat(mirror.anisotropy()).isZero();
        assertThat(mirror.beyond().brushing()).isNull();
        PhysicalMaterial rough = PhysicalMaterial.of(brushed.with(Parameter.SPECULAR_ROUGHNESS, 1), 0);
        assertThat(rough.anisotropy()).isEqualTo(1);
        assertThat(rough.beyond().brushing()).isNotNull();
    }

    @Test
    void aSurfaceIsAsBrushedInAFileAsItIs() {
        Surface brushed = Surface.STANDARD
                .with(Parameter.SPECULAR_ROUGHNESS, 0.4)
                .with(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY, 0.6);
        PhysicalMaterial file = PhysicalMaterial.of(brushed, 0);
        assertThat(file.roughness()).isCloseTo(Math.sqrt(0.16 * 0.4 * Math.sqrt(2 / 1.16)), within(1e-12));
        Surface back = file.toSurface();
        assertThat(back.number(Parameter.SPECULAR_ROUGHNESS)).isCloseTo(0.4, within(1e-12));
        assertThat(back.number(Parameter.SPECULAR_ROUGHNESS_ANISOTROPY)).isCloseTo(0.6, within(1e-12));
    }
}
