package app.zolvan.bench;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.FileSet;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.formats.ModelFormats;
import java.nio.ByteBuffer;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

class ReaderFuzzTest {
    private static final int DAMAGED = 300;

    static Stream<String> forms() {
        return SampleFiles.all().keySet().stream();
    }

    @ParameterizedTest
    @MethodSource("forms")
    void aDamagedFileIsReadOrRefusedWithASentence(String form) throws Exception {
        byte[] valid = SampleFiles.all().get(form);
        Arrival whole =
                ModelFormats.read("sample", ByteBuffer.wrap(valid), FileSet.Companions.NONE, Reading.standard());
        assertThat(whole.model().parts()).isNotEmpty();
        ReaderFuzz.Outcome outcome = ReaderFuzz.run(form, valid, DAMAGED, 77);
        assertThat(outcome.read() + outcome.refused()).isEqualTo(DAMAGED);
        assertThat(outcome.refused()).isPositive();
    }
}
