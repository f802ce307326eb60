package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Parts age, and leaves grow on them; to be seen by those who may see the project. */
class AgeingTest extends ProjectTest {
    private static final int LEG = 1;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private JsonNode beyond() {
        return lookOf(state, LEG).get("physical").get("beyond");
    }

    private void adjust(Map<String, Object> values) {
        post("/adjustments", Map.of("part", LEG, "span", 0, "values", values));
    }

    @Test
    void anAgedLookTellsItsLayersAndIsUndone() {
        assertThat(beyond().get("ageing").isNull()).isTrue();
        adjust(Map.of("kind", "metal", "metal", "IRON", "age", 0.5));
        JsonNode ageing = beyond().get("ageing");
        assertThat(ageing.get("corrodes").asBoolean()).isTrue();
        assertThat(ageing.get("layers")).hasSize(4);
        assertThat(ageing.get("layers").get(0).get("amount").asDouble()).isEqualTo(0.5);
        adjust(Map.of("leaf_cover", 0.4));
        assertThat(beyond().get("leaves").get("cover").asDouble()).isEqualTo(0.4);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(beyond().get("ageing").isNull()).isTrue();
        Map<String, Object> ancient = Map.of("part", LEG, "span", 0, "values", Map.of("age", 3));
        assertThat(tried("/adjustments", ancient).sentence()).contains("from 0 (new) to 1");
    }

    @Test
    void howAPartAgesIsToldToItsDesignersAlone() {
        List<String> good = List.of("/parts/1/ageing?corrodes=true", "/parts/1/leaves?span=0&size=0.07");
        for (String path : good) {
            assertThat(browser.get(project + path).status()).as(path).isEqualTo(200);
            assertThat(stranger().asNewDesigner(accounts).get(project + path).status())
                    .as(path)
                    .isEqualTo(404);
        }
        for (String path : List.of("/parts/999/ageing", "/parts/1/leaves?span=7&size=0.07")) {
            assertThat(browser.get(project + path).status()).as(path).isEqualTo(404);
        }
        assertThat(browser.get(project + "/parts/1/leaves?span=0&size=0.0001").sentence())
                .contains("10 to 500 mm");
    }

    @Test
    void anExportHoldsTheLeavesThatTheStageShows() {
        adjust(Map.of("leaf_cover", 0.3, "leaf_size", 0.02));
        String leg = scene().get("parts").get(LEG).get("name").asString();
        String glb = new String(browser.get(project + "/exports/glb").body(), StandardCharsets.ISO_8859_1);
        assertThat(glb).contains("\"" + leg + " leaves\"");
        for (JsonNode format : browser.get(project + "/exports").json()) {
            assertThat(format.get("losses").toString())
                    .as(format.get("format").asString())
                    .doesNotContain("leaf");
        }
    }
}
