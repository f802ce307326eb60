package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md R14, R15, R28: named views, the same for every scheme, and standing in the model. */
class ViewsTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private static Map<String, Object> camera(double x) {
        return Map.of("eye", List.of(x, 1.6, 3.0), "target", List.of(0.0, 0.5, 0.0), "degrees", 32.0);
    }

    private String keep(String name, List<Integer> lookedInto) {
        String id = UUID.randomUUID().toString();
        post("/views", Map.of("id", id, "name", name, "camera", camera(2), "lookedInto", lookedInto));
        return id;
    }

    private JsonNode view(int i) {
        return state.get("views").get(i);
    }

    @Test
    void aViewIsKeptForEveryScheme() {
        String id = keep("From the door", List.of(SEAT));
        assertThat(view(0).get("name").asString()).isEqualTo("From the door");
        assertThat(view(0).get("eye").get(0).asDouble()).isEqualTo(2);
        assertThat(view(0).get("enclosed").asBoolean()).isFalse();
        assertThat(view(0).get("lookedInto").get(0).asInt()).isEqualTo(SEAT);
        post("/schemes", Map.of("name", "Other", "beginning", "EMPTY"));
        assertThat(view(0).get("id").asString()).isEqualTo(id);

        post("/views/" + id + "/camera", camera(7));
        assertThat(view(0).get("eye").get(0).asDouble()).isEqualTo(7);
        post("/views/" + id + "/name", Map.of("name", "From afar"));
        post("/views/" + id + "/looked-into", Map.of("parts", List.of(LEG, SEAT)));
        assertThat(view(0).get("lookedInto")).hasSize(2);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(view(0).get("name").asString()).isEqualTo("From the door");
        Browser.Answer gone = browser.delete(project + "/views/" + id, version());
        state = gone.json();
        assertThat(state.get("views")).isEmpty();
        post("/undo", Map.of());
        assertThat(view(0).get("eye").get(0).asDouble()).isEqualTo(7);
    }

    @Test
    void whatIsSeenThroughInAViewCountsThereAlone() {
        String id = keep("Inside", List.of(SEAT, LEG));
        assertThat(part(SEAT).get("lookedInto").asBoolean()).isFalse();
        String address = project + "/parts/" + LEG + "/outer";
        byte[] inView = browser.get(address + "?view=" + id).body();
        assertThat(browser.get(address).body())
                .as("closed in by the seat elsewhere")
                .isNotEqualTo(inView);
        post("/parts/looked-into", Map.of("parts", List.of(SEAT, LEG), "on", true));
        assertThat(browser.get(address).body()).as("as if always").isEqualTo(inView);
        assertThat(browser.get(address + "?view=" + UUID.randomUUID()).status()).isEqualTo(404);
    }

    @Test
    void goingBackToAMomentTakesViewsAndNamesOfFacesAlong() {
        String mesh = part(SEAT).get("mesh").asString();
        post("/own-faces", Map.of("part", SEAT, "mesh", mesh, "triangles", List.of(0), "name", "Top"));
        String first = keep("First", List.of());
        long moment = get("/history").get(0).get("id").asLong();
        post("/own-faces/0/name", Map.of("name", "Other"));
        post("/views/" + first + "/name", Map.of("name", "Renamed"));
        keep("Second", List.of());

        post("/history/" + moment + "/return", Map.of());
        assertThat(state.get("views")).hasSize(1);
        assertThat(view(0).get("name").asString()).isEqualTo("First");
        assertThat(scene().get("ownFaces").get(0).get("name").asString()).isEqualTo("Top");
        post("/undo", Map.of());
        assertThat(state.get("views")).hasSize(2);
        assertThat(view(0).get("name").asString()).isEqualTo("Renamed");
        assertThat(scene().get("ownFaces").get(0).get("name").asString()).isEqualTo("Other");
    }

    @Test
    void whatIsNoViewIsRefused() {
        Map<String, Object> flat = new HashMap<>(camera(2));
        flat.put("target", flat.get("eye"));
        String id = UUID.randomUUID().toString();
        assertThat(tried("/views", Map.of("id", id, "name", "Flat", "camera", flat, "lookedInto", List.of()))
                        .sentence())
                .contains("no view");
        assertThat(tried("/views", Map.of("id", id, "name", "V", "camera", camera(2), "lookedInto", List.of(99)))
                        .status())
                .isEqualTo(404);
        assertThat(tried("/views/" + id + "/name", Map.of("name", "V")).status())
                .isEqualTo(404);
        keep("V", List.of());
        Map<String, Object> twice =
                Map.of("id", view(0).get("id").asString(), "name", "V", "camera", camera(3), "lookedInto", List.of());
        assertThat(tried("/views", twice).status()).isEqualTo(409);
    }

    @Test
    void aViewHasASmallPicture() throws IOException {
        String id = keep("V", List.of());
        String address = project + "/views/" + id + "/picture";
        assertThat(browser.get(address).status()).isEqualTo(404);
        ByteArrayOutputStream jpeg = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(64, 40, BufferedImage.TYPE_INT_RGB), "jpeg", jpeg);
        assertThat(browser.putJpeg(address, jpeg.toByteArray()).status()).isEqualTo(204);
        assertThat(browser.get(address).body()).isEqualTo(jpeg.toByteArray());
        assertThat(browser.putJpeg(address, new byte[] {1, 2, 3}).status()).isEqualTo(422);
    }

    @Test
    void oneStandsWhereOneHasClicked() {
        JsonNode b = scene().get("bounds");
        double top = b.get(4).asDouble();
        double x = (b.get(0).asDouble() + b.get(3).asDouble()) / 2;
        double z = (b.get(2).asDouble() + b.get(5).asDouble()) / 2;
        Map<String, Object> wanted =
                Map.of("picked", List.of(x, top, z), "seen", List.of(x, top + 5, z), "along", List.of(1.0, -1.0, 0.0));
        JsonNode stand = browser.post(project + "/standpoint", wanted).json();
        assertThat(stand.get("height").asDouble()).isCloseTo(1.6, within(1e-9));
        assertThat(stand.get("lowered").asBoolean()).isFalse();
        assertThat(stand.get("enclosed").asBoolean()).isFalse();
        assertThat(stand.get("towards").get(0).asDouble()).isCloseTo(1, within(1e-9));
    }
}
