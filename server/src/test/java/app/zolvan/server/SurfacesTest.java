package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md A16, A17, A25, A43, J58: what is meant is changed, and nothing else of a part or of the palette. */
class SurfacesTest extends ProjectTest {
    private static final List<Double> BLUE = List.of(0.05, 0.1, 0.3);

    /** Two tokens of one shape, each with a face of brass and one of horn. */
    private static byte[] tokens() {
        ByteBuffer numbers = ByteBuffer.allocate(72).order(ByteOrder.LITTLE_ENDIAN);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 1, 0, 1, 0, 1, 1}) {
            numbers.putFloat(f);
        }
        String corners = Base64.getEncoder().encodeToString(numbers.array());
        String accessor =
                "{\"bufferView\":%d,\"componentType\":5126,\"count\":3,\"type\":\"VEC3\",\"min\":[0,0,%d],\"max\":[1,1,%d]}";
        return ("{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[0,1]}],\"nodes\":["
                        + "{\"name\":\"Token\",\"mesh\":0},{\"name\":\"Twin\",\"mesh\":0,\"translation\":[2,0,0]}],"
                        + "\"meshes\":[{\"primitives\":[{\"attributes\":{\"POSITION\":0},\"material\":0},"
                        + "{\"attributes\":{\"POSITION\":1},\"material\":1}]}],"
                        + "\"materials\":[{\"name\":\"brass\"},{\"name\":\"horn\"}],\"accessors\":["
                        + accessor.formatted(0, 0, 0) + "," + accessor.formatted(1, 1, 1) + "],"
                        + "\"bufferViews\":[{\"buffer\":0,\"byteLength\":36},"
                        + "{\"buffer\":0,\"byteOffset\":36,\"byteLength\":36}],"
                        + "\"buffers\":[{\"byteLength\":72,\"uri\":\"data:application/octet-stream;base64," + corners
                        + "\"}]}")
                .getBytes(StandardCharsets.UTF_8);
    }

    private void openTokens() throws InterruptedException {
        open("/api/projects/"
                + browser.importFile("tokens.gltf", tokens()).get("result").asString());
    }

    private String shownAt(int part, int span) {
        JsonNode region = state.get("regions")
                .valueStream()
                .filter(r -> r.get("part").asInt() == part && r.get("span").asInt() == span)
                .findFirst()
                .orElseThrow();
        return state.get("looks")
                .get(region.get("look").asInt())
                .get("material")
                .asString();
    }

    private String materialNamed(String name) {
        for (String list : List.of("palette", "arrived")) {
            for (JsonNode used : state.get(list)) {
                if (used.get("material").get("name").asString().equals(name)) {
                    return used.get("material").get("id").asString();
                }
            }
        }
        throw new AssertionError(name);
    }

    private static Map<String, Object> adjustment(int part, int span, List<Integer> only) {
        Map<String, Object> a = new HashMap<>(Map.of("part", part, "span", span, "values", Map.of("base_color", BLUE)));
        a.put("only", only);
        return a;
    }

    @Test
    void onlyThisPartChangesOnlyTheSurfaceThatShowsIt() throws InterruptedException {
        openTokens();
        String brass = materialNamed("brass");
        String horn = materialNamed("horn");
        post("/adjustments", adjustment(0, 0, List.of(0)));
        assertThat(shownAt(0, 0)).isNotIn(brass, horn);
        assertThat(shownAt(0, 1)).as("the part’s other surface").isEqualTo(horn);
        assertThat(shownAt(1, 0)).as("the other part").isEqualTo(brass);
        post("/undo", Map.of());
        assertThat(shownAt(0, 0)).isEqualTo(brass);
        assertThat(part(0).get("ownFaces").valueStream()).allMatch(f -> f.asInt() < 0);
    }

    @Test
    void aCopyAndAReplacementHereLeaveThePartsOtherSurfaceAlone() throws InterruptedException {
        openTokens();
        String brass = materialNamed("brass");
        String horn = materialNamed("horn");
        post(
                "/materials/" + brass + "/copies",
                Map.of("name", "Old brass", "variation", false, "parts", List.of(0, 1)));
        assertThat(List.of(shownAt(0, 0), shownAt(1, 0))).containsOnly(materialNamed("Old brass"));
        assertThat(List.of(shownAt(0, 1), shownAt(1, 1))).containsOnly(horn);
        Map<String, Object> replacement = Map.of(
                "by",
                libraryMaterial("LE-002"),
                "parts",
                List.of(1),
                "schemes",
                List.of(state.get("scheme").asString()));
        post("/materials/" + horn + "/replacement", replacement);
        assertThat(shownAt(1, 1)).isNotEqualTo(horn);
        assertThat(shownAt(1, 0)).isEqualTo(materialNamed("Old brass"));
        assertThat(shownAt(0, 1)).isEqualTo(horn);
    }

    /** Legs 1 and 2 arrived with one material; one of them has left their set since. */
    @Test
    void allWithItMeansEverySetThatArrivedWithIt() throws InterruptedException {
        open(newProject());
        post("/parts/sets", Map.of("parts", List.of(1), "to", "own"));
        String steel = shownAt(2, 0);
        assertThat(shownAt(1, 0)).isEqualTo(steel);
        post("/adjustments", adjustment(2, 0, null));
        assertThat(shownAt(2, 0)).isNotEqualTo(steel);
        assertThat(shownAt(1, 0)).isEqualTo(shownAt(2, 0));
        assertThat(shownAt(0, 0)).as("the seat is of something else").isNotEqualTo(shownAt(2, 0));
    }

    @Test
    void thePalettesMaterialsAreChangedAndTakenOutAlsoWhereNothingHasThem() throws InterruptedException {
        open(newProject());
        String steel = shownAt(1, 0);
        post("/materials/" + steel + "/copies", Map.of("name", "Spare", "variation", false, "parts", List.of()));
        String spare = materialNamed("Spare");
        Map<String, Object> change =
                Map.of("part", 0, "span", 0, "material", spare, "values", Map.of("base_color", BLUE));
        assertThat(browser.post(project + "/preview", change)
                        .json()
                        .get("material")
                        .get("name")
                        .asString())
                .isEqualTo("Spare");
        post("/adjustments", change);
        assertThat(state.get("palette")
                        .get(0)
                        .get("material")
                        .get("values")
                        .get("base_color")
                        .get(2)
                        .asDouble())
                .isEqualTo(0.3);
        assertThat(get("/leftovers").get("palette").get(0).get("name").asString())
                .isEqualTo("Spare");

        post("/materials/" + spare + "/copies", Map.of("name", "Follower", "variation", true, "parts", List.of(0)));
        Browser.Answer inUse = browser.delete(project + "/materials/" + spare, version());
        assertThat(inUse.status()).isEqualTo(409);
        assertThat(inUse.sentence()).contains("“Spare” is what “Follower” follows");
        inUse = browser.delete(project + "/materials/" + materialNamed("Follower"), version());
        assertThat(inUse.sentence()).contains("used in scheme A");
        post("/undo", Map.of());
        state = browser.delete(project + "/materials/" + spare, version()).json();
        assertThat(state.get("palette")).isEmpty();
        post("/undo", Map.of());
        assertThat(materialNamed("Spare")).isEqualTo(spare);
        assertThat(browser.delete(project + "/materials/" + steel, version()).status())
                .as("what arrived is no palette’s")
                .isEqualTo(404);
    }
}
