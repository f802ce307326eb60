package app.zolvan.e2e;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.bench.kill.KillRun;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.api.parallel.Execution;
import org.junit.jupiter.api.parallel.ExecutionMode;

/** Three of the kills of {@code ./zolvan bench kills}, by the start script with a cluster of its own. */
@Execution(ExecutionMode.CONCURRENT)
class KillIT {
    private static final int KILLS = 3;
    /** With which application, database and application are killed. */
    private static final long SEED = 3;

    @Test
    void whatIsAcknowledgedSurvivesKillingApplicationAndDatabase(@TempDir Path data) throws Exception {
        KillRun.Outcome outcome = KillRun.run(Path.of("..").toRealPath(), data, unpacked(), KILLS, SEED);
        System.out.println("FIGURE " + outcome);
        assertThat(outcome.backAfterApplication()).isNotEmpty();
        assertThat(outcome.backAfterDatabase()).isNotEmpty();
        assertThat(outcome.edits()).isGreaterThanOrEqualTo(KILLS * KillRun.EDITS_A_KILL);
        assertThat(outcome.lost()).isZero();
        assertThat(outcome.twice()).isZero();
        assertThat(outcome.sentAgain()).as("some answers were lost").isPositive();
        assertThat(outcome.shown()).isTrue();
        assertThat(outcome.stuck()).isEmpty();
    }

    /** The built application as the start script wants it. */
    private static Path unpacked() throws Exception {
        Path app = Path.of("target/app");
        if (!Files.exists(app.resolve("zolvan.jar"))) {
            Process extract = new ProcessBuilder(
                            Path.of(System.getProperty("java.home"), "bin", "java")
                                    .toString(),
                            "-Djarmode=tools",
                            "-jar",
                            RunningZolvan.jar().toString(),
                            "extract",
                            "--destination",
                            app.toString())
                    .inheritIO()
                    .start();
            assertThat(extract.waitFor()).isZero();
            try (Stream<Path> files = Files.list(app)) {
                Path jar = files.filter(f -> f.toString().endsWith("-app.jar"))
                        .findFirst()
                        .orElseThrow();
                Files.move(jar, app.resolve("zolvan.jar"));
            }
        }
        return app;
    }
}
