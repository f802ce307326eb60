package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Path;
import java.util.Map;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/**
 * The database of an earlier Zolvan (schema 25, of 1 December 2026): a project of the demo's lantern in which a designer
 * renamed a part, gave it a role, put brass on a set, adjusted a colour, made a scheme and left a note. It is brought up to
 * date as it would be at a start, and what was stored then is taken back and done again.
 */
class UpgradeTest {
    private static final String DATABASE = "zolvan_test_upgraded";
    private static OtherServer server;
    private static Browser browser;
    private static String project;

    @BeforeAll
    static void upgrade() throws Exception {
        String file =
                Path.of("src/test/fixtures/schema-25.dump").toAbsolutePath().toString();
        drop();
        Scripts.run("psql_quiet", "-d", "postgres", "-c", "create database " + DATABASE);
        Scripts.Outcome restored = Scripts.run("put_back", file, DATABASE);
        assertThat(restored.code()).as(restored.said()).isZero();
        server = new OtherServer(TestDatabase.get().url(DATABASE));
        browser = server.browser();
        assertThat(browser.signIn("demo", "harbour-lantern").status()).isEqualTo(200);
        project = "/api/projects/"
                + browser.get("/api/projects").json().get(0).get("id").asString();
    }

    @AfterAll
    static void tidy() throws Exception {
        server.close();
        drop();
    }

    private static void drop() throws Exception {
        Scripts.run("psql_quiet", "-d", "postgres", "-c", "drop database if exists " + DATABASE + " with (force)");
    }

    private static JsonNode command(String path) {
        long version = browser.get(project + "/state").json().get("version").asLong();
        Browser.Answer answer = browser.post(project + path, Map.of(), version);
        assertThat(answer.status()).as("%s %s", path, answer.json()).isEqualTo(200);
        return answer.json();
    }

    @Test
    void everyStoredCommandIsTakenBackAndDoneAgain() {
        JsonNode then = browser.get(project + "/state").json();
        int steps = 0;
        for (JsonNode s = then; !s.get("undo").isNull(); steps++) {
            s = command("/undo");
        }
        assertThat(steps).isGreaterThanOrEqualTo(6);
        JsonNode scene = browser.get(project + "/scene").json();
        assertThat(scene.get("parts").get(0).get("name").asString()).isNotEqualTo("Stand");
        JsonNode now = then;
        for (int i = 0; i < steps; i++) {
            now = command("/redo");
        }
        for (String what : new String[] {"name", "schemes", "looks", "regions", "palette", "notes", "undo"}) {
            assertThat(now.get(what)).as(what).isEqualTo(then.get(what));
        }
        assertThat(browser.get(project + "/scene")
                        .json()
                        .get("parts")
                        .get(0)
                        .get("name")
                        .asString())
                .isEqualTo("Stand");
    }
}
