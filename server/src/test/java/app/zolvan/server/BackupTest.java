package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.model.Digest;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;

/** Backup and restore, by the functions of the start script. */
class BackupTest extends ProjectTest {
    private static final String BACK = "zolvan_test_back";
    private static final String NEWEST = "10000";

    @TempDir
    Path folder;

    @AfterEach
    void tidy() throws Exception {
        Scripts.run("psql_quiet", "-d", "postgres", "-c", "drop database if exists " + BACK + " with (force)");
    }

    private Path backup() throws Exception {
        Path file = folder.resolve("kept.dump");
        Scripts.Outcome kept = Scripts.run("backup_database", "zolvan_test", Scripts.path(file));
        assertThat(kept.said()).isEmpty();
        assertThat(kept.code()).isZero();
        return file;
    }

    @Test
    void whatWasKeptIsPutBackWholeAndGoesOn() throws Exception {
        open(newProject());
        post("/parts/names", Map.of("names", List.of(Map.of("part", 1, "name", "Front leg"))));
        assign("set", setOf(0), "MT-003");
        JsonNode stateThen = get("/state");
        JsonNode sceneThen = scene();
        Path file = backup();
        post("/parts/names", Map.of("names", List.of(Map.of("part", 1, "name", "After the backup"))));

        Scripts.Outcome put = Scripts.run("restore_database", Scripts.path(file), BACK, NEWEST);
        assertThat(put.said()).isEmpty();
        assertThat(put.code()).isZero();
        try (OtherServer other = new OtherServer(TestDatabase.get().url(BACK))) {
            Browser there = other.browser();
            there.signInAs(browser);
            assertThat(there.get(project + "/state").json()).isEqualTo(stateThen);
            assertThat(there.get(project + "/scene").json()).isEqualTo(sceneThen);
            String mesh = sceneThen.get("parts").get(0).get("mesh").asString();
            assertThat(Digest.of(there.get(project + "/assets/" + mesh).body())).isEqualTo(mesh);
            JdbcTemplate restored = other.bean(JdbcTemplate.class);
            for (String table : List.of("account", "project", "part", "asset", "asset_chunk", "material", "entry")) {
                String count = "select count(*) from " + table;
                assertThat(restored.queryForObject(count, Long.class))
                        .as(table)
                        .isEqualTo(database.queryForObject(count, Long.class));
            }
            JsonNode undone = there.post(
                            project + "/undo",
                            Map.of(),
                            stateThen.get("version").asLong())
                    .json();
            assertThat(lookOf(undone, 0)).isNotEqualTo(lookOf(stateThen, 0));
        }
        keepsWhatWasThere(file);
    }

    private void keepsWhatWasThere(Path file) throws Exception {
        Scripts.Outcome again = Scripts.run("restore_database", Scripts.path(file), BACK, NEWEST);
        assertThat(again.code()).as(again.said()).isZero();
        assertThat(again.said()).contains("is kept in the database as " + BACK + "_before_");
        String before = again.said().replaceAll("(?s).*as (" + BACK + "_before_\\w+).*", "$1");
        assertThat(Scripts.run("psql_quiet", "-d", before, "-c", "select count(*) > 0 from account")
                        .said())
                .isEqualTo("t\n");
        Scripts.run("psql_quiet", "-d", "postgres", "-c", "drop database " + before + " with (force)");
    }

    @Test
    void aDamagedOrNewerBackupIsRefusedWithASentence() throws Exception {
        Path file = backup();
        String manifest = Files.readString(Path.of(file + ".json"), StandardCharsets.UTF_8);
        assertThat(manifest).contains("\"project\": ").doesNotContain("scheduled_tasks");
        Scripts.Outcome newer = Scripts.run("restore_database", Scripts.path(file), "never", "1");
        assertThat(newer.code()).isEqualTo(1);
        assertThat(newer.said()).contains("made by a newer Zolvan").contains("nothing was changed");
        byte[] bytes = Files.readAllBytes(file);
        bytes[bytes.length / 2] ^= 1;
        Files.write(file, bytes);
        Scripts.Outcome damaged = Scripts.run("restore_database", Scripts.path(file), "never", NEWEST);
        assertThat(damaged.code()).isEqualTo(1);
        assertThat(damaged.said()).contains("is damaged");
        Files.delete(Path.of(file + ".json"));
        assertThat(Scripts.run("restore_database", Scripts.path(file), "never", NEWEST)
                        .said())
                .contains("lies not beside it");
        assertThat(Scripts.run("has_database", "never").code()).isEqualTo(1);
    }
}
