package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md L15, S01: what nobody uses is shown before it goes, and comes back. */
class CleanUpTest extends ProjectTest {
    private static final Map<String, Boolean> ALL =
            Map.of("materials", true, "images", true, "groups", true, "palette", false);
    /** A picture of one pixel. */
    static final String PIXEL =
            "iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mP8z8BQDwAEhQGAhKmMIQAAAABJRU5ErkJggg==";

    @Test
    void leftoversAreListedRemovedAndBroughtBack() throws Exception {
        open(newProject());
        assertThat(get("/leftovers").get("materials")).isEmpty();
        browser.importMaterials(UUID.fromString(project.substring("/api/projects/".length())), "again.glb", stools());
        open(project);
        JsonNode added = get("/leftovers");
        assertThat(added.get("materials"))
                .as("materials of another file, on nothing yet")
                .hasSize(2);
        assertThat(added.get("materials").get(0).get("bytes").asInt()).isPositive();
        post("/sets/merge", Map.of("sets", List.of(1, 0)));
        assertThat(get("/leftovers").get("materials"))
                .as("nothing is seat any more")
                .hasSize(3);
        JsonNode before = state;
        JsonNode scene = scene();

        post("/leftovers/remove", ALL);
        assertThat(state.get("undo").asString()).isEqualTo("Clean up 3 leftovers");
        assertThat(state.get("arrived")).hasSize(1);
        assertThat(get("/leftovers").get("materials")).isEmpty();
        assertThat(scene().get("parts")).isEqualTo(scene.get("parts"));
        assertThat(tried("/leftovers/remove", ALL).sentence()).contains("nothing to clean up");
        post("/undo", Map.of());
        assertThat(state.get("arrived")).isEqualTo(before.get("arrived"));
        post("/undo", Map.of());
        assertThat(get("/sets")).hasSize(2);
        assertThat(get("/leftovers").get("materials")).hasSize(2);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .get(project + "/leftovers")
                        .status())
                .isEqualTo(404);
    }

    /** A plate with a picture on it and a plain one, beside a group that holds nothing. */
    private static byte[] plates() {
        ByteBuffer numbers = ByteBuffer.allocate(60).order(ByteOrder.LITTLE_ENDIAN);
        for (float f : new float[] {0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 0, 1, 0, 0, 1}) {
            numbers.putFloat(f);
        }
        String corners = Base64.getEncoder().encodeToString(numbers.array());
        String plate = "{\"primitives\":[{\"attributes\":{\"POSITION\":0,\"TEXCOORD_0\":1},\"material\":%d}]}";
        return ("{\"asset\":{\"version\":\"2.0\"},\"scene\":0,\"scenes\":[{\"nodes\":[0]}],\"nodes\":["
                        + "{\"name\":\"Model\",\"children\":[1,2,3]},{\"name\":\"Printed\",\"mesh\":0},"
                        + "{\"name\":\"Plain\",\"mesh\":1,\"translation\":[2,0,0]},{\"name\":\"Leftover\",\"children\":[4]},{\"name\":\"Inner\"}],"
                        + "\"meshes\":[" + plate.formatted(0) + "," + plate.formatted(1) + "],"
                        + "\"materials\":[{\"name\":\"print\",\"pbrMetallicRoughness\":{\"baseColorTexture\":{\"index\":0}}},"
                        + "{\"name\":\"board\"}],\"textures\":[{\"source\":0}],"
                        + "\"images\":[{\"uri\":\"data:image/png;base64," + PIXEL + "\"}],"
                        + "\"accessors\":[{\"bufferView\":0,\"componentType\":5126,\"count\":3,\"type\":\"VEC3\","
                        + "\"min\":[0,0,0],\"max\":[1,1,0]},"
                        + "{\"bufferView\":1,\"componentType\":5126,\"count\":3,\"type\":\"VEC2\"}],"
                        + "\"bufferViews\":[{\"buffer\":0,\"byteLength\":36},"
                        + "{\"buffer\":0,\"byteOffset\":36,\"byteLength\":24}],"
                        + "\"buffers\":[{\"byteLength\":60,\"uri\":\"data:application/octet-stream;base64," + corners
                        + "\"}]}")
                .getBytes(StandardCharsets.UTF_8);
    }

    @Test
    void unusedImagesAndEmptyGroupsGoAndComeBack() throws Exception {
        open("/api/projects/"
                + browser.importFile("plates.gltf", plates()).get("result").asString());
        assertThat(scene().get("pictures")).hasSize(1);
        assertThat(get("/leftovers").get("groups").get(0).get("name").asString())
                .isEqualTo("Leftover");
        assertThat(get("/leftovers").get("images")).as("the print shows it").isEmpty();
        post("/sets/merge", Map.of("sets", List.of(setOf(1), setOf(0))));
        JsonNode image = get("/leftovers").get("images").get(0);
        assertThat(image.get("width").asInt()).isEqualTo(1);
        assertThat(image.get("bytes").asInt()).isPositive();
        JsonNode before = scene();
        post("/leftovers/remove", ALL);
        assertThat(scene().get("pictures")).isEmpty();
        assertThat(scene().get("groups"))
                .hasSize(before.get("groups").size() - 1)
                .noneMatch(g -> g.get("name").asString().equals("Leftover"));
        assertThat(part(1).get("world")).isEqualTo(before.get("parts").get(1).get("world"));
        post("/undo", Map.of());
        assertThat(scene().get("pictures")).isEqualTo(before.get("pictures"));
        assertThat(scene().get("groups")).isEqualTo(before.get("groups"));
        assertThat(scene().get("parts")).isEqualTo(before.get("parts"));
    }
}
