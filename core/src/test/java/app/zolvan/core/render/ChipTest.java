package app.zolvan.core.render;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.render.path.Still.Quality;
import app.zolvan.core.render.trace.Kernel;
import app.zolvan.core.texture.ImageHeader;
import java.nio.ByteBuffer;
import org.junit.jupiter.api.Test;

class ChipTest {
    /** Where one is missing: {@code bench/chips} makes them all anew. */
    @Test
    void everyMaterialOfTheLibraryShipsWithItsChip() {
        for (Material m : ShippedLibrary.load().materials()) {
            byte[] png = Chip.shipped(Chip.key(m.surface()))
                    .orElseThrow(() -> new AssertionError("no chip of " + m.code() + " " + m.name()));
            ImageHeader header = ImageHeader.read(ByteBuffer.wrap(png)).orElseThrow();
            assertThat(header.width()).isEqualTo(Chip.WIDTH);
            assertThat(header.height()).isEqualTo(Chip.HEIGHT);
        }
    }

    @Test
    void aChipDependsOnItsSurfaceAlone() {
        Surface a = Surface.STANDARD.with(Parameter.BASE_COLOR, 0.1, 0.2, 0.3);
        Surface b = Surface.STANDARD.with(Parameter.BASE_COLOR, 0.1, 0.2, 0.31);
        assertThat(Chip.key(a)).hasSize(64).isNotEqualTo(Chip.key(b));
        byte[] one = Chip.picture(a, d -> null, 1, Kernel.Kind.SCALAR, Quality.samples(2));
        assertThat(Chip.picture(a, d -> null, 2, Kernel.Kind.SCALAR, Quality.samples(2)))
                .isEqualTo(one);
        assertThat(Chip.picture(b, d -> null, 2, Kernel.Kind.SCALAR, Quality.samples(2)))
                .isNotEqualTo(one);
    }
}
