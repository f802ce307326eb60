package app.zolvan.core.exchange;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.exchange.formats.Cut;
import app.zolvan.core.geometry.Vec3;
import java.io.ByteArrayOutputStream;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CutTest {
    private static ByteBuffer zip(String name, String text) throws Exception {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(text.getBytes(StandardCharsets.UTF_8));
        }
        return ByteBuffer.wrap(out.toByteArray());
    }

    @Test
    void anUploadSaysHowFinelyItWasCut() throws Exception {
        ByteBuffer upload = zip("preparation.txt", "{\"kind\":\"iges\",\"linear\":0.00025,\"angular\":0.25}");
        assertThat(Cut.of(upload, Reading.standard())).contains(new Cut("iges", 0.00025, 0.25));
        // 0.025 % of the mean of 200, 84 and 160 mm
        assertThat(Cut.stray(0.00025, new Vec3(0.2, 0.084, 0.16))).isCloseTo(37e-6, within(1e-12));
    }

    /** Somebody's own text, another kind, or no zip: nothing was cut. */
    @ParameterizedTest
    @ValueSource(
            strings = {"read me", "[]", "{}", "{\"kind\":\"packed\"}", "{\"kind\":\"step\",\"linear\":-1,\"angular\":1}"
            })
    void anythingElseWasNotCut(String note) throws Exception {
        assertThat(Cut.of(zip("preparation.txt", note), Reading.standard())).isEmpty();
        assertThat(Cut.of(zip("other.txt", note), Reading.standard())).isEmpty();
        assertThat(Cut.of(ByteBuffer.wrap(note.getBytes(StandardCharsets.UTF_8)), Reading.standard()))
                .isEmpty();
    }
}
