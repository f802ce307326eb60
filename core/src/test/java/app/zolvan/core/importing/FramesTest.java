package app.zolvan.core.importing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.geometry.Vec3;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.EOFException;
import java.io.IOException;
import java.io.InvalidClassException;
import java.io.Serializable;
import java.util.Arrays;
import java.util.List;
import org.junit.jupiter.api.Test;

class FramesTest {

    private static byte[] written(Serializable... objects) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (Serializable o : objects) {
            Frames.write(Frames.out(out), o);
        }
        return out.toByteArray();
    }

    private static DataInputStream in(byte[] bytes) {
        return Frames.in(new ByteArrayInputStream(bytes));
    }

    @Test
    void objectsComeOneAfterTheOtherWhateverTheirSize() throws IOException {
        double[] large = new double[1_000_000];
        Arrays.setAll(large, i -> i * 0.5);
        DataInputStream in = in(written(large, new Vec3(1, 2, 3), (Serializable) List.of("a", "b")));
        assertThat(Arrays.equals((double[]) Frames.read(in), large)).isTrue();
        assertThat(Frames.read(in)).isEqualTo(new Vec3(1, 2, 3));
        assertThat(Frames.read(in)).isEqualTo(List.of("a", "b"));
        assertThatThrownBy(() -> Frames.read(in)).isInstanceOf(EOFException.class);
    }

    @Test
    void nothingButOurRecordsAndPlainValuesIsMade() throws IOException {
        byte[] foreign = written((Serializable) java.net.URI.create("http://example.test/"));
        assertThatThrownBy(() -> Frames.read(in(foreign))).isInstanceOf(InvalidClassException.class);
    }

    @Test
    void whatEndsEarlyIsNoObject() throws IOException {
        byte[] whole = written(new Vec3(1, 2, 3));
        for (int length = 0; length < whole.length; length += 7) {
            byte[] cut = Arrays.copyOf(whole, length);
            assertThatThrownBy(() -> Frames.read(in(cut))).isInstanceOf(IOException.class);
        }
    }
}
