package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.texture.Png;
import app.zolvan.demo.DemoFiles;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Random;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.TestPropertySource;

/** Seconds and bytes of a backup and of its restoring: the two demos, and a project of 500 MB beside them. */
@TestPropertySource(properties = "zolvan.upload-limit=200MB")
@DirtiesContext // its server would take the jobs of the other figures'
class BackupFigures extends ProjectTest {
    private static final int PICTURES = 20;
    /** Pixels along an edge: 25 MB of noise, which nothing makes smaller. */
    private static final int EDGE = 2_888;

    @TempDir
    Path folder;

    @Test
    void backupAndRestore() throws Exception {
        Path demo = folder.resolve("demo");
        DemoFiles.write(demo);
        for (String model : new String[] {"storm-lantern.glb", "floating-sauna.dae"}) {
            browser.importFile(model, Files.readAllBytes(demo.resolve(model)));
        }
        measure("the two demos");
        open(newProject());
        byte[] noise = new byte[3 * EDGE * EDGE];
        Random random = new Random(30);
        for (int i = 0; i < PICTURES; i++) {
            random.nextBytes(noise);
            assertThat(browser.sendFile(project + "/pictures", "noise-" + i + ".png", Png.encode(EDGE, EDGE, noise, 72))
                            .status())
                    .isEqualTo(200);
        }
        measure("the two demos and a project of " + PICTURES * noise.length / 1_000_000 + " MB");
    }

    private void measure(String what) throws Exception {
        Path file = folder.resolve("kept.dump");
        long start = System.nanoTime();
        assertThat(Scripts.run("backup_database", "zolvan_test", Scripts.path(file))
                        .code())
                .isZero();
        double kept = seconds(start);
        start = System.nanoTime();
        Scripts.Outcome put = Scripts.run("restore_database", Scripts.path(file), "zolvan_test_back", "10000");
        double back = seconds(start);
        assertThat(put.code()).as(put.said()).isZero();
        System.out.printf(
                "FIGURE %s: backup %.1f s, restore with all hashes compared %.1f s, %,d bytes%n",
                what, kept, back, Files.size(file));
        Scripts.run("psql_quiet", "-d", "postgres", "-c", "drop database zolvan_test_back with (force)");
    }

    private static double seconds(long since) {
        return (System.nanoTime() - since) / 1e9;
    }
}
