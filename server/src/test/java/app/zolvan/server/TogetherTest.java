package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md Q51 to Q53: two designers on one project. */
class TogetherTest extends ProjectTest {
    private static final Duration SECOND = Duration.ofSeconds(1);
    private static final int SEAT = 0;
    private static final int LEG = 1;

    private Browser colleague;

    @BeforeEach
    void share() throws InterruptedException {
        open(newProject());
        colleague = stranger().asNewDesigner(accounts);
        assertThat(colleague.get(project + "/state").status()).isEqualTo(404);
        JsonNode team = browser.post(project + "/team", Map.of("login", colleague.login()))
                .json();
        assertThat(team).hasSize(2);
        assertThat(team.get(0).get("owner").asBoolean()).isTrue();
    }

    @Test
    void changesOfDifferentThingsGoTogetherAndOfTheSameTheLaterIsTold() {
        long seen = version();
        assign("part", SEAT, "LE-002");
        Browser.Answer other = put("set", setOf(LEG), "MT-003", seen);
        assertThat(other.status()).as("%s", other.json()).isEqualTo(200);
        state = other.json();
        assertThat(shown(SEAT)).isEqualTo("Saddle hide");
        assertThat(shown(LEG)).isEqualTo("Spun brass");

        Browser.Answer met = put("part", SEAT, "LE-005", seen);
        assertThat(met.problem()).isEqualTo("met");
        assertThat(met.sentence())
                .contains("has just done “Saddle hide on Seat”")
                .endsWith("over it?");
        state = get("/state");
        assertThat(shown(SEAT)).as("nothing is lost").isEqualTo("Saddle hide");
        state = put("part", SEAT, "LE-005", version()).json();
        assertThat(shown(SEAT)).isEqualTo("Black bridle leather");
        Browser.Answer back = browser.post(project + "/undo", Map.of(), version());
        assertThat(back.problem())
                .as("one's own, but the colleague has built on it")
                .isEqualTo("built-upon");
        state = colleague.post(project + "/undo", Map.of(), version()).json();
        assertThat(shown(SEAT)).isEqualTo("Saddle hide");
        assertThat(shown(LEG)).as("only the last of the colleague's").isEqualTo("Spun brass");
        assertThat(browser.get(project + "/history").json().toString()).contains(colleague.login());
    }

    @Test
    void eachSeesWithinASecondWhatTheOtherDoesAndLooksAt() throws InterruptedException {
        EventStream heard = colleague.events();
        heard.next("hello");
        assign("part", SEAT, "LE-002");
        heard.next("\"version\":" + version(), SECOND);
        browser.post(
                project + "/presence",
                Map.of("page", UUID.randomUUID(), "scheme", state.get("scheme").asString(), "parts", List.of(LEG)));
        heard.next("\"parts\":[" + LEG + "]", SECOND);
    }

    @Test
    void onlyTheOwnerTakesPeopleInAndLetsThemGo() {
        Browser third = stranger().asNewDesigner(accounts);
        assertThat(colleague
                        .post(project + "/team", Map.of("login", third.login()))
                        .status())
                .isEqualTo(403);
        assertThat(colleague.delete(project).status()).isEqualTo(403);
        assertThat(browser.post(project + "/team", Map.of("login", "nobody-here"))
                        .sentence())
                .contains("Nobody here signs in as");
        JsonNode team = colleague.get(project + "/team").json();
        String owner = team.get(0).get("id").asString();
        assertThat(colleague.delete(project + "/team/" + owner).status()).isEqualTo(409);
        assertThat(colleague.get("/api/projects").json().get(0).get("own").asBoolean())
                .isFalse();
        assertThat(colleague
                        .delete(project + "/team/" + team.get(1).get("id").asString())
                        .status())
                .isEqualTo(200);
        assertThat(colleague.get(project + "/state").status()).isEqualTo(404);
        assertThat(third.get(project + "/team").status()).isEqualTo(404);
    }

    private Browser.Answer put(String level, int target, String code, long seen) {
        Map<String, Object> body =
                Map.of("level", level, "targets", List.of(target), "material", libraryMaterial(code));
        return colleague.post(project + "/assignments", body, seen);
    }
}
