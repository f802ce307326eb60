package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.zolvan.server.asset.Quota;
import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.JsonNode;

/** What one account may take of what all share, and what it may not reach by way of a project. */
class LimitsTest extends ServerTest {
    /** Asks for its unit. */
    private static final byte[] PLATE =
            "o Plate\nv 0 0 0\nv 1 0 0\nv 1 0 1\nv 0 0 1\nf 4 3 2 1\n".getBytes(StandardCharsets.UTF_8);

    @Autowired
    private Quota quota;

    private UUID id(Browser b) {
        return UUID.fromString(b.get("/api/session").json().get("id").asString());
    }

    @Test
    void anAccountHasOnlySoManyFilesWaiting() {
        for (int i = 0; i < 20; i++) {
            assertThat(browser.upload("plate.obj", PLATE).status()).isEqualTo(202);
        }
        Browser.Answer more = browser.upload("plate.obj", PLATE);
        assertThat(more.status()).isEqualTo(429);
        assertThat(more.sentence()).contains("20 files waiting");
        assertThat(stranger().asNewDesigner(accounts).upload("plate.obj", PLATE).status())
                .as("nobody else is kept waiting")
                .isEqualTo(202);
    }

    @Test
    void anAccountsProjectsHoldOnlySoMuch() {
        quota.require(id(browser), 1 << 20);
        assertThatThrownBy(() -> quota.require(id(browser), 60L << 30))
                .hasMessageContaining("Delete a project that you no longer need");
    }

    @Test
    void aFilesNameThatCannotBeReadGetsASentence() {
        Browser.Answer a = browser.sendFile("/api/imports", "100%.obj", PLATE);
        assertThat(a.status()).isEqualTo(422);
        assertThat(a.sentence()).contains("name came damaged");
    }

    @Test
    void whoHasLeftTheTeamFinishesNothingThere() throws Exception {
        String project = newProject();
        Browser colleague = stranger().asNewDesigner(accounts);
        browser.post(project + "/team", Map.of("login", colleague.login()));
        JsonNode asking = colleague.ended(colleague.uploadBeside(project.substring(14), "DESIGN", "plate.obj", PLATE));
        assertThat(asking.get("state").asString()).isEqualTo("ASKING");
        assertThat(browser.delete(project + "/team/" + id(colleague)).status()).isEqualTo(200);
        String job = "/api/jobs/" + asking.get("id").asString();
        colleague.post(job + "/answer", Map.of("unit", "m", "upAxis", "Y"));
        JsonNode end = colleague.waitFor(UUID.fromString(asking.get("id").asString()));
        assertThat(end.get("state").asString()).isEqualTo("FAILED");
        assertThat(end.get("problem").asString()).contains("no longer on this project’s team");
        assertThat(browser.get(project + "/scene").json().get("models")).hasSize(1);
    }

    @Test
    void anIdThatAnotherProjectHasChangesNothingThere() throws Exception {
        String project = newProject();
        Browser other = stranger().asNewDesigner(accounts);
        String theirs = "/api/projects/"
                + other.importFile("stools.glb", stools()).get("result").asString();
        String id = UUID.randomUUID().toString();
        Map<String, Object> note = Map.of("id", id, "level", "part", "target", 0, "text", "Oak or ash?");
        JsonNode mine = command(browser, project, "/notes", note);
        JsonNode foreign = command(other, theirs, "/notes", note);
        assertThat(other.delete(theirs + "/notes/" + id, foreign.get("version").asLong())
                        .status())
                .isEqualTo(200);
        assertThat(browser.get(project + "/state").json().get("notes"))
                .isEqualTo(mine.get("notes"))
                .hasSize(1);

        List<Double> eye = List.of(0.0, 1.0, 5.0);
        Map<String, Object> camera = Map.of("eye", eye, "target", List.of(0.0, 0.0, 0.0), "degrees", 30);
        Map<String, Object> view = Map.of("id", id, "name", "Front", "camera", camera, "lookedInto", List.of());
        JsonNode before = command(browser, project, "/views", view);
        command(other, theirs, "/views", view);
        command(other, theirs, "/views/" + id + "/name", Map.of("name", "Taken over"));
        assertThat(browser.get(project + "/state").json().get("views")).isEqualTo(before.get("views"));
    }

    private static JsonNode command(Browser by, String project, String path, Object body) {
        long version = by.get(project + "/state").json().get("version").asLong();
        Browser.Answer a = by.post(project + path, body, version);
        assertThat(a.status()).as("%s %s", path, a.json()).isEqualTo(200);
        return a.json();
    }

    @Test
    void takingAColleagueInOpensNoneOfTheirLibraries() throws Exception {
        String project = newProject();
        String material = arrivedMaterial(project);
        String library = browser.post("/api/libraries", Map.of("name", "Studio"))
                .json()
                .get("id")
                .asString();
        Map<String, Object> keep = Map.of("library", library, "materials", List.of(material));
        String secret = browser.post(project + "/library/kept", keep)
                .json()
                .get("items")
                .get(0)
                .asString();

        Browser thief = stranger().asNewDesigner(accounts);
        String theirs = "/api/projects/"
                + thief.importFile("stools.glb", stools()).get("result").asString();
        thief.post(theirs + "/team", Map.of("login", browser.login()));
        assertThat(thief.get(theirs + "/materials/" + secret + "/chip").status())
                .isEqualTo(404);
        Map<String, Object> give = Map.of("level", "part", "targets", List.of(0), "material", secret);
        long version = thief.get(theirs + "/state").json().get("version").asLong();
        assertThat(thief.post(theirs + "/assignments", give, version).status()).isEqualTo(404);
        assertThat(browser.post(theirs + "/assignments", give, version).status())
                .as("whoever is in the library brings it along")
                .isEqualTo(200);
    }
}
