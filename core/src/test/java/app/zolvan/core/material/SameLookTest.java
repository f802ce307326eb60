package app.zolvan.core.material;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

/** needs.md L22: duplicates and near-duplicates are recognised. */
class SameLookTest {
    private static final Surface OAK =
            Surface.STANDARD.with(Parameter.BASE_COLOR, 0.4, 0.25, 0.12).with(Parameter.SPECULAR_ROUGHNESS, 0.5);

    @Test
    void whatNobodyCouldTellApartIsAlike() {
        assertThat(SameLook.areAlike(OAK, OAK.with(Parameter.BASE_COLOR, 0.402, 0.25, 0.12)))
                .isTrue();
        assertThat(SameLook.areAlike(OAK, OAK.with(Parameter.BASE_COLOR, 0.44, 0.25, 0.12)))
                .isFalse();
        assertThat(SameLook.areAlike(OAK, OAK.with(Parameter.SPECULAR_ROUGHNESS, 0.51)))
                .isTrue();
        assertThat(SameLook.areAlike(OAK, OAK.with(Parameter.SPECULAR_ROUGHNESS, 0.6)))
                .isFalse();
        assertThat(SameLook.areAlike(OAK, OAK.with(Parameter.GEOMETRY_THIN_WALLED, true)))
                .isFalse();
        Surface lamp = OAK.with(Parameter.EMISSION_LUMINANCE, 1000);
        assertThat(SameLook.areAlike(lamp, lamp.with(Parameter.EMISSION_LUMINANCE, 1010)))
                .isTrue();
        assertThat(SameLook.areAlike(lamp, lamp.with(Parameter.EMISSION_LUMINANCE, 1500)))
                .isFalse();
    }

    /** Twelve steps that can't be told from their neighbours do not all become one. */
    @Test
    void aRowOfSmallStepsDoesNotEndInAnotherColour() {
        Surface[] row = new Surface[12];
        for (int i = 0; i < row.length; i++) {
            row[i] = OAK.with(Parameter.BASE_COLOR, 0.4 * Math.pow(1.02, i), 0.25, 0.12);
        }
        for (int i = 1; i < row.length; i++) {
            assertThat(SameLook.areAlike(row[i - 1], row[i])).isTrue();
        }
        List<Integer> firsts = SameLook.firsts(Arrays.asList(row));
        assertThat(firsts.get(1)).isZero();
        assertThat(firsts.get(11)).isPositive();
        assertThat(SameLook.firsts(Arrays.asList(null, OAK, null, OAK))).containsExactly(0, 1, 2, 1);
    }
}
