package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Rules that say what parts get by what is known of them: needs.md A38, A42. */
class RulesTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;
    private static final int FAR_SEAT = 3;

    private String list;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
        list = browser.post("/api/rule-lists", Map.of("name", "Stools"))
                .json()
                .get("id")
                .asString();
    }

    @Test
    void whatTheyWouldGiveIsSaidFirstAndGivenToWholeSetsWhereItCanBe() {
        assertThat(write(List.of(rule("Leg*", "", "MT-003"), rule("", "sea*", "LE-002")))
                        .status())
                .isEqualTo(200);
        post("/parts/locked", Map.of("parts", List.of(FAR_SEAT), "on", true));
        JsonNode would = get("/rule-lists/" + list);
        assertThat(would.get(0).get("gets")).hasSize(4);
        assertThat(would.get(1).get("gets")).hasSize(1);
        assertThat(would.get(1).get("locked").asInt()).isEqualTo(1);
        assertThat(state.get("palette")).as("nothing has been done").isEmpty();

        post("/rule-lists/" + list + "/apply", Map.of());
        assertThat(state.get("undo").asString()).isEqualTo("Dress 2 places by Stools");
        assertThat(lookOf(state, LEG).get("from").asString()).isEqualTo("set");
        assertThat(lookOf(state, SEAT).get("from").asString()).isEqualTo("part");
        assertThat(shown(FAR_SEAT)).isEqualTo("seat");
        would = get("/rule-lists/" + list);
        assertThat(would.get(0).get("gets")).isEmpty();
        assertThat(would.get(0).get("have").asInt()).isEqualTo(4);
        assertThat(tried("/rule-lists/" + list + "/apply", Map.of()).sentence()).contains("Nothing is left");
        post("/undo", Map.of());
        assertThat(shown(LEG)).isEqualTo("steel");
    }

    @Test
    void whatSaysNothingOrTooMuchIsRefused() {
        assertThat(write(List.of(rule(" ", "", "MT-003"))).sentence()).contains("says nothing of the parts");
        Map<String, Object> backwards = rule("Leg*", "", "MT-003");
        backwards.put("shortest", 2);
        backwards.put("longest", 1);
        assertThat(write(List.of(backwards)).sentence()).contains("from the shorter to the longer");
        Map<String, Object> arrived = rule("Leg*", "", "MT-003");
        arrived.put("material", lookOf(state, LEG).get("material").asString());
        assertThat(write(List.of(arrived)).sentence()).contains("Choose a chip of a library");
        assertThat(browser.post("/api/rule-lists", Map.of("name", "Stools")).sentence())
                .contains("already");
        Browser other = stranger().asNewDesigner(accounts);
        assertThat(other.get("/api/rule-lists").json()).isEmpty();
        assertThat(other.delete("/api/rule-lists/" + list).status()).isEqualTo(404);
        assertThat(other.get(project + "/rule-lists/" + list).status()).isEqualTo(404);
    }

    private Map<String, Object> rule(String name, String source, String code) {
        Map<String, Object> rule = new HashMap<>(Map.of("name", name, "source", source, "shortest", 0, "longest", 0));
        rule.put("material", libraryMaterial(code));
        return rule;
    }

    private Browser.Answer write(List<Map<String, Object>> rules) {
        return browser.put("/api/rule-lists/" + list, Map.of("rules", rules));
    }
}
