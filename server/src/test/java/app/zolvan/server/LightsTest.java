package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Light set-ups belong to the project: commands with undo, the same for all schemes and for colleagues. */
class LightsTest extends ProjectTest {
    private static final Map<String, Object> EVENING =
            Map.of("surroundings", "low-sun", "strength", 0.5, "turn", 40, "stops", 1);

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private JsonNode light(int i) {
        return state.get("lights").get(i);
    }

    private String address(int i) {
        return "/lights/" + light(i).get("id").asString();
    }

    private Browser.Answer set(int i, Map<String, Object> values) {
        return browser.put(project + address(i), values, version());
    }

    @Test
    void aProjectBeginsInTheStudioAndWhatIsChangedIsEverybodysAndCanBeUndone() {
        assertThat(state.get("lights")).hasSize(1);
        assertThat(light(0).get("surroundings").asString()).isEqualTo("studio");
        state = set(0, EVENING).json();
        assertThat(light(0).get("turn").asDouble()).isEqualTo(40);

        Browser colleague = stranger().asNewDesigner(accounts);
        browser.post(project + "/team", Map.of("login", colleague.login()));
        JsonNode theirs = colleague.get(project + "/state").json().get("lights");
        assertThat(theirs.get(0).get("surroundings").asString()).isEqualTo("low-sun");
        post("/schemes", Map.of("name", "Other", "beginning", "EMPTY"));
        assertThat(light(0).get("stops").asDouble()).as("in every scheme").isEqualTo(1);

        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(light(0).get("surroundings").asString()).isEqualTo("studio");
        post("/redo", Map.of());
        assertThat(light(0).get("strength").asDouble()).isEqualTo(0.5);
    }

    @Test
    void aCopyIsASetUpOfItsOwnAndTheLastOneStays() {
        String evening = UUID.randomUUID().toString();
        post(address(0) + "/copies", Map.of("id", evening, "name", "Evening"));
        state = set(1, EVENING).json();
        assertThat(light(0).get("turn").asDouble()).isZero();
        assertThat(light(1).get("id").asString()).isEqualTo(evening);
        assertThat(tried(address(1) + "/name", Map.of("name", "Light")).status())
                .as("a name that another has")
                .isEqualTo(422);
        post(address(1) + "/name", Map.of("name", "Late"));
        state = browser.delete(project + address(0), version()).json();
        assertThat(light(0).get("name").asString()).isEqualTo("Late");
        Browser.Answer last = browser.delete(project + address(0), version());
        assertThat(last.sentence()).contains("last light set-up");
        post("/undo", Map.of());
        assertThat(state.get("lights")).hasSize(2);
    }

    @Test
    void goingBackToAMomentTakesTheLightAlong() {
        state = set(0, EVENING).json();
        long moment = get("/history").get(0).get("id").asLong();
        state = set(0, Map.of("surroundings", "park", "strength", 2, "turn", 0, "stops", 0))
                .json();
        post("/history/" + moment + "/return", Map.of());
        assertThat(light(0).get("surroundings").asString()).isEqualTo("low-sun");
    }

    @Test
    void whatIsNoLightIsRefused() {
        for (Map<String, Object> wrong : List.of(
                Map.<String, Object>of("surroundings", "../../secret", "strength", 1, "turn", 0, "stops", 0),
                Map.<String, Object>of("surroundings", "studio", "strength", -1, "turn", 0, "stops", 0),
                Map.<String, Object>of("surroundings", "studio", "strength", 1, "turn", 0, "stops", 13))) {
            assertThat(set(0, wrong).status()).as(wrong.toString()).isEqualTo(422);
        }
        assertThat(set(0, Map.of("surroundings", "studio", "strength", 1, "turn", 0, "stops", 0))
                        .problem())
                .isEqualTo("nothing");
    }
}
