package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.texture.Png;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Designers bring pictures to a project's materials. */
class PicturesTest extends ProjectTest {
    private static final int LEG = 1;
    private static final byte[] CHECKS = Png.encode(2, 2, new byte[] {-1, 0, 0, 0, -1, 0, 0, 0, -1, -1, -1, -1}, 72);

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    @Test
    void aPictureIsKeptOnceDrivesAParameterAndIsTakenOffAgain() {
        String sha256 = browser.sendFile(project + "/pictures", "checks.png", CHECKS)
                .json()
                .get("sha256")
                .asString();
        browser.sendFile(project + "/pictures", "again.png", CHECKS);
        assertThat(scene().get("pictures")
                        .valueStream()
                        .filter(p -> p.get("sha256").asString().equals(sha256)))
                .hasSize(1);
        adjust(picture("base_color", sha256, 0.25));
        JsonNode texture = physical().get("baseColorTexture");
        assertThat(texture.get("image").asString()).isEqualTo(sha256);
        assertThat(texture.get("scale").get(1).asDouble()).isEqualTo(4);
        assertThat(physical().get("baseColor").get(2).asDouble())
                .as("shows as it is")
                .isEqualTo(1);
        adjust(Map.of("plain", "base_color"));
        assertThat(physical().get("baseColorTexture").isNull()).isTrue();
        assertThat(tried("/adjustments", change(picture("specular_ior", sha256, 1)))
                        .sentence())
                .contains("No picture can drive");
        assertThat(tried("/adjustments", change(picture("base_color", sha256, 0)))
                        .sentence())
                .contains("1 mm to 1 km");
        assertThat(tried("/adjustments", change(picture("base_color", "0".repeat(64), 1)))
                        .status())
                .isEqualTo(404);
    }

    /** Two slopes of ±0.5 beside each other: the picture itself loses nothing, the mean of all all of it. */
    @Test
    void aPictureOfReliefTellsWhatItsCopiesLose() {
        byte[] ridges = Png.encode(2, 2, new byte[] {-72, -128, -15, 71, -128, -15, -72, -128, -15, 71, -128, -15}, 72);
        String sha256 = browser.sendFile(project + "/pictures", "ridges.png", ridges)
                .json()
                .get("sha256")
                .asString();
        String address = project + "/assets/" + sha256 + "/relief";
        JsonNode spreads = browser.get(address).json().get("spreads");
        assertThat(spreads.get(0).asDouble()).isZero();
        assertThat(spreads.get(1).asDouble()).isCloseTo(0.5 / Math.sqrt(2), within(0.01));
        assertThat(stranger().asNewDesigner(accounts).get(address).status()).isEqualTo(404);
    }

    @Test
    void whatIsNoPictureIsRefusedAndStrangersBringNone() {
        byte[] text = "not a picture".getBytes(StandardCharsets.UTF_8);
        assertThat(browser.sendFile(project + "/pictures", "a.png", text).sentence())
                .contains("no PNG or JPEG");
        byte[] cut = Arrays.copyOf(CHECKS, CHECKS.length / 2);
        assertThat(browser.sendFile(project + "/pictures", "cut.png", cut).status())
                .isEqualTo(422);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .sendFile(project + "/pictures", "checks.png", CHECKS)
                        .status())
                .isEqualTo(404);
    }

    private static Map<String, Object> change(Map<String, Object> values) {
        return Map.of("part", LEG, "span", 0, "values", values);
    }

    private static Map<String, Object> picture(String parameter, String image, double high) {
        return Map.of("picture", Map.of("of", parameter, "image", image, "real_size", List.of(0.5, high)));
    }

    @Test
    void aReliefIsDrawnByAPatternAndLaidAtItsSize() {
        Map<String, Object> relief = Map.of("name", "HAMMERED", "detail", 0.01, "depth", 0.001, "seed", 4);
        JsonNode made = browser.post(project + "/reliefs", relief).json();
        assertThat(made.get("size").asDouble()).isEqualTo(0.12);
        assertThat(browser.post(project + "/reliefs", relief).json()).isEqualTo(made);
        String image = made.get("sha256").asString();
        adjust(Map.of(
                "picture",
                Map.of("of", "geometry_normal", "image", image, "channel", "rgb", "real_size", List.of(0.12, 0.12))));
        assertThat(lookOf(state, LEG).get("physical").toString()).contains(image);
        assertThat(browser.get(project + "/parts/" + LEG + "/shape").status()).isEqualTo(404);
        String heights = made.get("heights").asString();
        adjust(Map.of(
                "geometry_height",
                0.001,
                "geometry_displaced",
                true,
                "picture",
                List.of(Map.of("of", "geometry_height", "image", heights, "real_size", List.of(0.12, 0.12)))));
        JsonNode physical = lookOf(state, LEG).get("physical");
        assertThat(physical.get("normalTexture").isNull())
                .as("it would say the relief twice")
                .isTrue();
        assertThat(physical.get("beyond").get("shape").asString()).isNotEmpty();
        Browser.Answer shape = browser.get(project + "/parts/" + LEG + "/shape");
        Mesh raised = MeshCodec.decode(shape.body());
        assertThat(raised.triangleCount()).isBetween(1000, 150_000);
        assertThat(raised.bounds().size().y())
                .isGreaterThan(part(LEG).get("size").get(1).asDouble());
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .get(project + "/parts/" + LEG + "/shape")
                        .status())
                .isEqualTo(404);
        for (Map<String, Object> odd : List.<Map<String, Object>>of(
                Map.of("name", "HAMMERED", "detail", 0.01, "depth", 0.02, "seed", 4),
                Map.of("name", "HAMMERED", "detail", 7, "depth", 0, "seed", 4),
                Map.of("name", "HAMMERED", "detail", 0.01, "depth", -1, "seed", 4))) {
            assertThat(browser.post(project + "/reliefs", odd).status()).isEqualTo(422);
        }
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post(project + "/reliefs", relief)
                        .status())
                .isEqualTo(404);
    }

    private void adjust(Map<String, Object> values) {
        post("/adjustments", change(values));
    }

    private JsonNode physical() {
        return lookOf(state, LEG).get("physical");
    }
}
