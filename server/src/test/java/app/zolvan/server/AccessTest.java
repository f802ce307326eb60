package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;

class AccessTest extends ServerTest {

    @Test
    void withoutSigningInNothingIsShown() {
        Browser stranger = stranger();
        for (String path : List.of(
                "/api/projects", "/api/library/materials", "/api/jobs", "/api/limits", "/api/events", "/v3/api-docs")) {
            Browser.Answer answer = stranger.get(path);
            assertThat(answer.status()).as(path).isEqualTo(401);
            assertThat(answer.problem()).isEqualTo("signed-out");
        }
        assertThat(stranger.get("/actuator/env").status()).isIn(401, 403, 404);
        assertThat(stranger.get("/actuator/health").status()).isEqualTo(200);
    }

    @Test
    void somebodyElsesProjectLooksAsIfItDidNotExist() throws Exception {
        String project = newProject();
        String mesh = browser.get(project + "/scene")
                .json()
                .get("parts")
                .get(0)
                .get("mesh")
                .asString();
        Browser other = stranger().asNewDesigner(accounts);
        for (String path : List.of(
                "/scene",
                "/findings",
                "/state",
                "/exports",
                "/exports/glb",
                "/why?part=0&span=0",
                "/trial?level=part&target=0&part=0&span=0&material=" + UUID.randomUUID(),
                "/history",
                "/schemes/near-twins",
                "/schemes/diagram?by=ROLE",
                "/thumbnail",
                "/views/" + UUID.randomUUID() + "/picture",
                "/parts/0/outer",
                "/assets/" + mesh)) {
            assertThat(other.get(project + path).status()).as(path).isEqualTo(404);
        }
        for (String path : List.of("/undo", "/redo")) {
            assertThat(other.post(project + path, Map.of(), 1).status()).isEqualTo(404);
        }
        Map<String, Object> take = Map.of("level", "part", "targets", List.of(0));
        assertThat(other.post(project + "/assignments", take, 1).status()).isEqualTo(404);
        Map<String, Object> copy = Map.of("name", "Mine", "beginning", "EMPTY");
        assertThat(other.post(project + "/schemes", copy, 1).status()).isEqualTo(404);
        Map<String, Object> candidate = Map.of("level", "part", "target", 0, "material", UUID.randomUUID());
        assertThat(other.post(project + "/candidates", candidate, 1).status()).isEqualTo(404);
        assertThat(other.post(project + "/history/1/return", Map.of(), 1).status())
                .isEqualTo(404);
        assertThat(other.put(project + "/history/1/name", Map.of("name", "Mine"))
                        .status())
                .isEqualTo(404);
        Map<String, Object> face = Map.of("part", 0, "mesh", mesh, "triangles", List.of(0), "name", "Mine");
        assertThat(other.post(project + "/own-faces", face, 1).status()).isEqualTo(404);
        Map<String, Object> way = Map.of("part", 0, "mesh", mesh, "corners", List.of(0), "closed", false);
        assertThat(other.post(project + "/own-faces/ways", way).status()).isEqualTo(404);
        List<Double> here = List.of(0.0, 1.0, 2.0);
        Map<String, Object> camera = Map.of("eye", here, "target", List.of(0.0, 0.0, 0.0), "degrees", 30);
        Map<String, Object> view =
                Map.of("id", UUID.randomUUID(), "name", "Mine", "camera", camera, "lookedInto", List.of());
        assertThat(other.post(project + "/views", view, 1).status()).isEqualTo(404);
        Map<String, Object> note = Map.of("id", UUID.randomUUID(), "level", "part", "target", 0, "text", "Mine?");
        assertThat(other.post(project + "/notes", note, 1).status()).isEqualTo(404);
        Map<String, Object> stand = Map.of("picked", here, "seen", here, "along", here);
        assertThat(other.post(project + "/standpoint", stand).status()).isEqualTo(404);
        assertThat(other.post(project + "/parts/seen", Map.of("parts", List.of(0)))
                        .status())
                .isEqualTo(404);
        Map<String, Object> form = Map.of("form", "GROUND");
        assertThat(other.post(project + "/models", form, 1).status()).isEqualTo(404);
        assertThat(other.delete(project + "/models/0", 1).status()).isEqualTo(404);
        assertThat(other.delete(project).status()).isEqualTo(404);
        assertThat(browser.get(project + "/state").json().get("version").asLong())
                .isEqualTo(1);
        Browser.Answer nowhere = other.get("/api/projects/" + UUID.randomUUID() + "/state");
        assertThat(nowhere.sentence()).isEqualTo(other.get(project + "/state").sentence());
    }

    @Test
    void aMaterialOfAnotherProjectCannotBeUsed() throws Exception {
        String mine = newProject();
        String arrived = arrivedMaterial(mine);
        browser = stranger().asNewDesigner(accounts);
        String theirs = newProject();
        Map<String, Object> body = Map.of("level", "part", "targets", List.of(0), "material", arrived);
        assertThat(browser.post(theirs + "/assignments", body, 1).status()).isEqualTo(404);
    }

    @Test
    void aChangeWithoutTheTokenIsRefused() {
        browser.forgetCsrf();
        assertThat(browser.post("/api/colours/typed", Map.of("text", "#fff")).status())
                .isEqualTo(403);
    }

    @Test
    void theSessionCookieIsOutOfReachForScriptsAndOtherSites() {
        Browser fresh = stranger();
        accounts.create("cookie-check", "", "a-long-password");
        String cookie = fresh.signIn("cookie-check", "a-long-password").raw().headers().allValues("Set-Cookie").stream()
                .filter(c -> c.startsWith("zolvan-session"))
                .findFirst()
                .orElseThrow();
        assertThat(cookie).contains("HttpOnly").containsIgnoringCase("SameSite=Strict");
    }

    @Test
    void passwordsAreStoredOnlyAsHashes() {
        accounts.create("hashed", "", "a-long-password");
        assertThat(database.queryForObject("select password_hash from account where login = 'hashed'", String.class))
                .startsWith("{bcrypt}");
        assertThat(stranger().get("/api/session/start").json().get("first").asBoolean())
                .isFalse();
    }

    @Test
    void answersStayInNoCacheAndFilesThatNeverChangeInThatOfTheirOwner() throws Exception {
        String project = newProject();
        Browser.Answer scene = browser.get(project + "/scene");
        String mesh = scene.json().get("parts").get(0).get("mesh").asString();
        assertThat(kept(scene)).isEqualTo("no-store");
        assertThat(kept(browser.get(project + "/assets/" + mesh))).contains("private", "immutable");
        assertThat(kept(browser.get("/api/projects"))).isEqualTo("no-store");
        Browser fresh = stranger();
        accounts.create("leaving", "", "a-long-password");
        fresh.signIn("leaving", "a-long-password");
        assertThat(fresh.delete("/api/session").raw().headers().firstValue("Clear-Site-Data"))
                .contains("\"cache\"");
    }

    @Test
    void longBodiesAndStrangeNamesAreRefusedBeforeAnythingIsRead() {
        Browser.Answer longer = stranger().signIn("demo", "x".repeat(70_000));
        assertThat(longer.status()).isEqualTo(413);
        assertThat(longer.problem()).isEqualTo("too-long");
        Map<String, Object> names = Map.of("name", "x".repeat(1 << 20));
        assertThat(browser.post("/api/palettes", names).status()).isEqualTo(413);
    }

    private static String kept(Browser.Answer answer) {
        return answer.raw().headers().firstValue("Cache-Control").orElse("");
    }
}
