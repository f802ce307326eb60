package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md A22, A38, P18, R22: one side alone, parts that are left out, and looking inside. */
class SidesTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;
    private static final int OTHER_LEG = 2;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    /** needs.md P32: the finish layers of a build-up, and not what is between them. */
    @Test
    void ofSheetsThatLieOnEachOtherTheOuterOnesAreSeen() throws Exception {
        List<Planks.Plank> layers = List.of(
                new Planks.Plank("Plaster", 1, 0, 0),
                new Planks.Plank("Membrane", 1, 0.005, 0),
                new Planks.Plank("Lining", 1, 0.01, 1));
        open("/api/projects/"
                + browser.importFile("wall.glb", Planks.file(layers, "paint"))
                        .get("result")
                        .asString());
        assertThat(seen(0, 1, 2)).containsExactly("Plaster", "Lining");
        assertThat(seen(1)).isEmpty();
        assign("part", 2, "GL-001");
        assertThat(seen(0, 1, 2)).as("through the glass").containsExactly("Plaster", "Membrane", "Lining");
    }

    private List<String> seen(Integer... parts) {
        return tried("/parts/seen", Map.of("parts", List.of(parts)))
                .json()
                .valueStream()
                .map(s -> part(s.get("part").asInt()).get("name").asString())
                .toList();
    }

    @Test
    void aBackShowsItsOwnAndIsAdjustedAlone() {
        JsonNode before = state.get("regions");
        assertThat(before).allMatch(r -> r.get("back").isNull());
        assign("set", setOf(LEG), "PT-014");
        assignBack("set", setOf(LEG), "MT-003");
        assertThat(state.get("undo").asString()).endsWith(", back");
        JsonNode region = region(LEG);
        assertThat(shown(LEG)).isNotEqualTo("Spun brass");
        assertThat(nameOf(region.get("back").asInt())).isEqualTo("Spun brass");

        String trial = "/trial?part=" + LEG + "&span=0&material=" + libraryMaterial("MT-012");
        JsonNode both = get(trial).get("reached").get(0);
        assertThat(both.get("front").asBoolean()).isTrue();
        assertThat(both.get("back").asBoolean()).as("has its own").isFalse();
        JsonNode behind = get(trial + "&seen=back");
        assertThat(behind.get("side").asString()).isEqualTo("BACK");
        assertThat(behind.get("reached").get(0).get("front").asBoolean()).isFalse();
        assertThat(get("/why?part=1&span=0&seen=back").get("sentence").asString())
                .contains("Spun brass")
                .doesNotContain("as it arrived");

        JsonNode front = physical(region.get("look").asInt());
        post("/adjustments?seen=back", adjustment(LEG, Map.of("specular_roughness", 0.77)));
        assertThat(physical(region(LEG).get("look").asInt())).isEqualTo(front);
        assertThat(physical(region(LEG).get("back").asInt()).get("roughness").asDouble())
                .isEqualTo(0.77);
        String glb = new String(browser.get(project + "/exports/glb").body(), StandardCharsets.ISO_8859_1);
        assertThat(glb).contains("Leg 1, back").doesNotContain("Seat, back");

        assign("part", OTHER_LEG, "MT-012");
        assertThat(region(OTHER_LEG).get("back").isNull())
                .as("narrower, for both")
                .isTrue();
        Map<String, Object> off = new HashMap<>(Map.of("level", "set", "targets", List.of(setOf(LEG)), "side", "BACK"));
        off.put("material", null);
        post("/assignments", off);
        assertThat(region(LEG).get("back").isNull()).isTrue();
    }

    /** What is made of what a back shows, or put in its place, leaves the front alone. */
    @Test
    void aCopyAndAReplacementGoToTheSideThatShowsIt() {
        assign("set", setOf(LEG), "PT-014");
        assignBack("set", setOf(LEG), "MT-003");
        JsonNode front = physical(region(LEG).get("look").asInt());
        String brass = materialOf(region(LEG).get("back").asInt());
        post("/materials/" + brass + "/copies", Map.of("name", "Old brass", "variation", false, "parts", List.of(LEG)));
        assertThat(nameOf(region(LEG).get("back").asInt())).isEqualTo("Old brass");
        assertThat(physical(region(LEG).get("look").asInt())).isEqualTo(front);

        Map<String, Object> copper = Map.of("by", libraryMaterial("MT-012"), "parts", List.of(OTHER_LEG));
        post("/materials/" + brass + "/replacement", copper);
        assertThat(nameOf(region(OTHER_LEG).get("back").asInt())).isEqualTo("Raw copper");
        assertThat(physical(region(OTHER_LEG).get("look").asInt())).isEqualTo(front);
    }

    @Test
    void whatWasLockedWhileGreyIsAdjustedAfterwardsWithAllElseOfItsMaterial() {
        post("/parts/locked", Map.of("parts", List.of(OTHER_LEG), "on", true));
        assign("set", setOf(LEG), "MT-003");
        assertThat(shown(OTHER_LEG)).as("as it arrived").isEqualTo("steel");
        post("/parts/locked", Map.of("parts", List.of(OTHER_LEG), "on", false));
        post("/adjustments", adjustment(OTHER_LEG, Map.of("specular_roughness", 0.77)));
        assertThat(physical(region(OTHER_LEG).get("look").asInt())
                        .get("roughness")
                        .asDouble())
                .isEqualTo(0.77);
        assertThat(shown(LEG)).isEqualTo("Spun brass");
    }

    @Test
    void replacingEverywhereLeavesOutWhatIsLocked() {
        assign("set", setOf(LEG), "MT-003");
        assign("part", OTHER_LEG, "MT-003");
        post("/parts/locked", Map.of("parts", List.of(OTHER_LEG), "on", true));
        String brass = materialOf(region(LEG).get("look").asInt());
        post("/materials/" + brass + "/replacement", Map.of("by", libraryMaterial("MT-012")));
        assertThat(shown(LEG)).isEqualTo("Raw copper");
        assertThat(shown(OTHER_LEG)).isEqualTo("Spun brass");
    }

    @Test
    void whatIsLockedStaysAsItIsInEveryScheme() {
        assign("set", setOf(LEG), "MT-003");
        String first = state.get("scheme").asString();
        Map<String, Object> heir = Map.of("name", "Heir", "beginning", "BASED", "of", first);
        post("/schemes", heir);
        post("/parts/locked", Map.of("parts", List.of(OTHER_LEG), "on", true));
        assertThat(part(OTHER_LEG).get("locked").asBoolean()).isTrue();
        JsonNode trial = get("/trial?part=1&span=0&material=" + libraryMaterial("MT-012"));
        assertThat(trial.get("reached")).noneMatch(r -> r.get("part").asInt() == OTHER_LEG);
        assertThat(trial.get("hidden").asInt()).isEqualTo(1);

        assign("set", setOf(LEG), "MT-012");
        assertThat(shown(LEG)).isEqualTo("Raw copper");
        assertThat(shown(OTHER_LEG)).isEqualTo("Spun brass");
        post(
                "/assignments",
                Map.of("level", "part", "targets", List.of(LEG, OTHER_LEG), "material", libraryMaterial("PT-014")));
        assertThat(shown(OTHER_LEG)).as("left out").isEqualTo("Spun brass");
        scheme = state.get("schemes").get(1).get("id").asString();
        state = get("/state");
        assertThat(shown(OTHER_LEG)).isEqualTo("Spun brass");

        assertThat(tried(
                                "/assignments",
                                Map.of(
                                        "level",
                                        "part",
                                        "targets",
                                        List.of(OTHER_LEG),
                                        "material",
                                        libraryMaterial("MT-012")))
                        .sentence())
                .contains("Leg 2", "is locked");
        Browser.Answer adjusted = tried("/adjustments", adjustment(OTHER_LEG, Map.of("specular_roughness", 0.7)));
        assertThat(adjusted.status()).as(adjusted.text()).isEqualTo(409);
        assertThat(adjusted.problem()).isEqualTo("part-locked");
        post("/parts/locked", Map.of("parts", List.of(OTHER_LEG), "on", false));
        post("/adjustments", adjustment(OTHER_LEG, Map.of("specular_roughness", 0.7)));
        for (int i = 0; i < 4; i++) {
            post("/undo", Map.of());
        }
        assertThat(part(OTHER_LEG).get("locked").asBoolean())
                .as("as before the last two looks")
                .isTrue();
    }

    @Test
    void oneLooksIntoWhatIsAskedFor() {
        post("/parts/looked-into", Map.of("parts", List.of(SEAT), "on", true));
        assertThat(part(SEAT).get("lookedInto").asBoolean()).isTrue();
        byte[] outer = browser.get(project + "/parts/" + SEAT + "/outer").body();
        assertThat(outer)
                .hasSize(part(SEAT).get("triangles").asInt())
                .contains(1)
                .contains(0);
        post("/undo", Map.of());
        assertThat(part(SEAT).get("lookedInto").asBoolean()).isFalse();
    }

    private static Map<String, Object> adjustment(int part, Map<String, Object> values) {
        return Map.of("part", part, "span", 0, "values", values);
    }

    private JsonNode region(int part) {
        return state.get("regions")
                .valueStream()
                .filter(r -> r.get("part").asInt() == part && r.get("span").asInt() == 0)
                .findFirst()
                .orElseThrow();
    }

    private JsonNode physical(int look) {
        return state.get("looks").get(look).get("physical");
    }

    private String materialOf(int look) {
        return state.get("looks").get(look).get("material").asString();
    }

    private String nameOf(int look) {
        String id = materialOf(look);
        return state.get("palette")
                .valueStream()
                .map(u -> u.get("material"))
                .filter(m -> m.get("id").asString().equals(id))
                .findFirst()
                .orElseThrow()
                .get("name")
                .asString();
    }
}
