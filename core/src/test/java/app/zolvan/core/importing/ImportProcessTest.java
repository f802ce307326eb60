package app.zolvan.core.importing;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.ModelReader.Progress;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/** Whatever a file does to the process that reads it, whoever asked gets a sentence and goes on. */
class ImportProcessTest {
    private static final Duration LONG = Duration.ofMinutes(2);
    private static final int MEGABYTES = 64;

    @TempDir
    Path folder;

    private ImportProcess start() throws IOException {
        String java = Path.of(System.getProperty("java.home"), "bin", "java").toString();
        return ImportProcess.start(
                List.of(java, "-cp", System.getProperty("java.class.path")),
                ImportMain.class.getName(),
                MEGABYTES,
                folder.resolve("log"));
    }

    /** Takes all the memory that there is. */
    record Hog() implements ImportTask<ArrayList<byte[]>> {
        @Override
        public ArrayList<byte[]> run(Progress progress) {
            ArrayList<byte[]> all = new ArrayList<>();
            while (all.size() < 100_000) {
                all.add(new byte[1 << 20]);
            }
            return all;
        }
    }

    /** Ends its process as a crash of the JVM does. */
    record Crash() implements ImportTask<String> {
        @Override
        public String run(Progress progress) {
            Runtime.getRuntime().halt(134);
            return "";
        }
    }

    /** Never ends. */
    record Loop() implements ImportTask<String> {
        @Override
        @SuppressWarnings("InfiniteRecursion")
        public String run(Progress progress) {
            progress.at(0.25, "Turning in circles");
            long n = 0;
            while (n >= 0) {
                n = n * 31 & 0xFFFF;
            }
            return "";
        }
    }

    /** Prints where messages go, calls itself without end, or works. */
    record Odd(String how) implements ImportTask<String> {
        @Override
        public String run(Progress progress) throws ImportException {
            System.out.println("a library that chats");
            if (how.equals("deep")) {
                return how + deeper(1);
            }
            if (how.equals("refused")) {
                throw new ImportException("odd", "This file is “odd”. Choose an even one.");
            }
            return how;
        }

        private static int deeper(int n) {
            return n == 0 ? 0 : deeper(n + 1) + 1;
        }
    }

    @Test
    void aModelArrivesWholeWithWhatIsKnownOfIt() throws Exception {
        Path obj = folder.resolve("plate.obj");
        Files.writeString(obj, "o Plate\nv 0 0 0\nv 1 0 0\nv 1 0 1\nv 0 0 1\nf 4 3 2 1\n", StandardCharsets.UTF_8);
        List<String> steps = new ArrayList<>();
        try (ImportProcess process = start()) {
            ReadModel.Result asked = process.run(
                    new ReadModel(obj.toString(), "plate.obj", true, null, null), (s, step) -> steps.add(step), LONG);
            assertThat(asked.prepared()).as("the unit is to be asked for").isNull();
            ReadModel.Result read =
                    process.run(new ReadModel(obj.toString(), "plate.obj", false, null, null), Progress.NONE, LONG);
            assertThat(read.prepared().model().parts())
                    .singleElement()
                    .satisfies(p -> assertThat(p.name()).isEqualTo("Plate"));
            assertThat(read.prepared().measures().get(0).area()).isPositive();
            assertThat(process.tasks()).isEqualTo(2);
        }
    }

    @Test
    void aRefusalComesAsItWasSaidAndTheProcessGoesOn() throws Exception {
        try (ImportProcess process = start()) {
            assertThatThrownBy(() -> process.run(new Odd("refused"), Progress.NONE, LONG))
                    .isInstanceOf(ImportException.class)
                    .hasMessage("This file is “odd”. Choose an even one.")
                    .satisfies(e -> assertThat(((ImportException) e).reason()).isEqualTo("odd"));
            assertThat(process.isUsable()).isTrue();
            assertThat(process.run(new Odd("even"), Progress.NONE, LONG)).isEqualTo("even");
        }
    }

    @Test
    void aFaultOfOursIsNoRefusalAndTheProcessIsOfNoMoreUse() throws Exception {
        try (ImportProcess process = start()) {
            assertThatThrownBy(() -> process.run(new Odd("deep"), Progress.NONE, LONG))
                    .isInstanceOf(IOException.class)
                    .hasMessageContaining("StackOverflowError");
            assertThat(process.isUsable()).isFalse();
        }
    }

    @Test
    void whatTakesMoreMemoryThanThereIsEndsAlone() throws Exception {
        try (ImportProcess process = start()) {
            assertThatThrownBy(() -> process.run(new Hog(), Progress.NONE, LONG))
                    .isInstanceOf(ImportException.class)
                    .hasMessageContaining("more memory than an import may (64 MB)");
            assertThat(process.isUsable()).isFalse();
        }
    }

    @Test
    void aCrashIsSurvived() throws Exception {
        try (ImportProcess process = start()) {
            assertThatThrownBy(() -> process.run(new Crash(), Progress.NONE, LONG))
                    .isInstanceOf(ImportException.class)
                    .hasMessageContaining("stopped short");
        }
    }

    @Test
    void whatNeverEndsIsEndedWhenItsTimeIsOver() throws Exception {
        try (ImportProcess process = start()) {
            assertThatThrownBy(() -> process.run(new Loop(), Progress.NONE, Duration.ofMillis(300)))
                    .isInstanceOf(ImportException.class)
                    .satisfies(e -> assertThat(((ImportException) e).reason()).isEqualTo("too-long"));
            assertThat(process.isUsable()).isFalse();
        }
    }

    @Test
    void whatNeverMovesCanStillBeCalledOff() throws Exception {
        try (ImportProcess process = start()) {
            Progress calledOff = (share, step) -> {
                throw new IllegalStateException("called off at " + share + ", " + step);
            };
            assertThatThrownBy(() -> process.run(new Loop(), calledOff, LONG))
                    .isInstanceOf(IllegalStateException.class)
                    .hasMessageContaining("called off at");
            assertThat(process.isUsable()).isFalse();
        }
    }
}
