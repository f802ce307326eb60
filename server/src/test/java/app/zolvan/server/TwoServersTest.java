package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.io.IOException;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Two server processes on one database, the second one's way to it with a valve in it. */
class TwoServersTest extends ProjectTest {
    private static final long MOST_MS = 2_000;
    private static Valve valve;
    private static OtherServer other;

    /** The designer's browser at the second server. */
    private Browser there;

    @BeforeAll
    static void startAnother() throws IOException {
        valve = new Valve(TestDatabase.get().port());
        other = new OtherServer(
                TestDatabase.get().url().replace(":" + TestDatabase.get().port() + "/", ":" + valve.port() + "/"));
    }

    @AfterAll
    static void endIt() throws IOException {
        other.close();
        valve.close();
    }

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
        there = other.browser();
        there.signInAs(browser);
    }

    private static String named(JsonNode scene, int part) {
        return scene.get("parts").get(part).get("name").asString();
    }

    private static String role(JsonNode scene, int part) {
        return scene.get("parts").get(part).get("role").asString();
    }

    /** Each keeps scenes by project and revision: what the other one does is in the next revision. */
    @Test
    void whatOneServerChangesTheOtherBuildsUponAndBothShow() {
        assertThat(named(there.get(project + "/scene").json(), 1)).isEqualTo("Leg 1"); // it has the scene by now
        post("/parts/names", Map.of("names", List.of(Map.of("part", 1, "name", "Front leg"))));
        JsonNode after = there.post(
                        project + "/parts/roles",
                        Map.of("roles", List.of(Map.of("part", 1, "role", "FRAME"))),
                        version())
                .json();
        assertThat(after.get("version").asLong()).isEqualTo(version() + 1);
        for (Browser b : List.of(browser, there)) {
            JsonNode scene = b.get(project + "/scene").json();
            assertThat(named(scene, 1)).as("the name given here").isEqualTo("Front leg");
            assertThat(role(scene, 1)).as("the role given there").isEqualTo("FRAME");
            assertThat(scene.get("revision")).isEqualTo(after.get("revision"));
        }
        browser.post(project + "/undo", Map.of(), version() + 1);
        assertThat(there.get(project + "/scene")
                        .json()
                        .get("parts")
                        .get(1)
                        .get("role")
                        .isNull())
                .isTrue();
    }

    @Test
    void whatOneServerTakesBackDoesNotStayInTheOther() {
        post("/parts/names", Map.of("names", List.of(Map.of("part", 0, "name", "Top"))));
        assertThat(named(there.get(project + "/scene").json(), 0)).isEqualTo("Top");
        post("/undo", Map.of());
        assertThat(named(there.get(project + "/scene").json(), 0)).isEqualTo("Seat");
    }

    @Test
    void aDatabaseThatIsAwayIsSaidAtOnceAndWhenItIsBackWorkGoesOn() throws Exception {
        EventStream heard = there.events();
        heard.next("event:hello");
        assertThat(there.get(project + "/state").status()).isEqualTo(200); // by then the stream's session is written
        valve.shut();
        for (int i = 0; i < 3; i++) {
            long start = System.nanoTime();
            Browser.Answer answer = there.get(project + "/state");
            assertThat(TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - start)).isLessThan(MOST_MS);
            assertThat(answer.status()).isEqualTo(503);
            assertThat(answer.problem()).isEqualTo("database-away");
            assertThat(answer.sentence()).contains("can’t reach its database");
        }
        Map<String, Object> names = Map.of("names", List.of(Map.of("part", 0, "name", "Top")));
        assertThat(there.post(project + "/parts/names", names, version()).status())
                .isEqualTo(503);
        assertThat(named(browser.get(project + "/scene").json(), 0))
                .as("nothing was done")
                .isEqualTo("Seat");
        valve.open();
        await("back within 10 s")
                .atMost(10, TimeUnit.SECONDS)
                .until(() -> there.get(project + "/state").status() == 200);
        assertThat(there.post(project + "/parts/names", names, version()).status())
                .isEqualTo(200);
        heard.next("event:hello"); // pages look what they missed
        assertThat(heard.failed()).isFalse();
    }
}
