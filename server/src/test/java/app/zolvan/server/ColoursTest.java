package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Colours, palettes and what surrounds them. */
class ColoursTest extends ServerTest {

    private JsonNode around(double... linear) {
        return browser.post("/api/colours/around", Map.of("linear", linear)).json();
    }

    @Test
    void aNearlyGreyColourKeepsItsUndertoneWhileItGetsDarker() {
        JsonNode grey =
                browser.post("/api/colours/typed", Map.of("text", "#B9B8B0")).json();
        assertThat(grey.get("nearlyGrey").asBoolean()).isTrue();
        JsonNode darker = browser.post(
                        "/api/colours/placed",
                        Map.of("lightness", 40, "chroma", 0, "hue", 0, "undertoneOf", grey.get("linear")))
                .json();
        assertThat(darker.get("lightness").asDouble()).isCloseTo(40, within(0.01));
        for (int k = 1; k < 3; k++) {
            assertThat(darker.get("lab").get(k).asDouble())
                    .isCloseTo(grey.get("lab").get(k).asDouble(), within(0.01));
        }
    }

    @Test
    void whatIsNearAColourComesWithItsNumbers() {
        JsonNode all = around(0.3, 0.28, 0.25);
        assertThat(all.get("steps")).hasSize(6);
        assertThat(all.get("tones")).hasSizeGreaterThan(8);
        assertThat(all.get("harmonies").get(0).get("colours")).hasSize(4);
        JsonNode beside = browser.post(
                        "/api/colours/beside", Map.of("one", List.of(0.3, 0.3, 0.3), "other", List.of(0.3, 0.3, 0.3)))
                .json();
        assertThat(beside.get("difference").asDouble()).isZero();
        assertThat(beside.get("ratio").asDouble()).isEqualTo(1);
        assertThat(beside.get("undertones").asString()).startsWith("The undertones agree");
        List<Object> broken = new ArrayList<>(List.of(0.1, 0.2));
        broken.add(null);
        assertThat(browser.post("/api/colours/around", Map.of("linear", broken)).status())
                .isEqualTo(422);
        JsonNode nearest = browser.post("/api/library/nearest", Map.of("linear", List.of(0.37, 0.02, 0.014)))
                .json();
        assertThat(nearest.get(0).get("material").get("code").asString()).isEqualTo("PT-014"); // harbour red
        assertThat(nearest.get(0).get("difference").asDouble())
                .isLessThan(nearest.get(1).get("difference").asDouble());
    }

    @Test
    void theWheelEndsWhereTheCoreSaysThatAColourIsLimited() {
        JsonNode limits = browser.get("/api/colours/wheel?lightness=60").json().get("limits");
        double hue = 0;
        for (JsonNode limit : limits) {
            JsonNode strongest = browser.post("/api/colours/placed", Map.of("lightness", 60, "chroma", 40, "hue", hue))
                    .json();
            assertThat(limit.asDouble()).isCloseTo(strongest.get("chroma").asDouble(), within(1e-3));
            hue += 360.0 / limits.size();
        }
        Browser.Answer outside = browser.get("/api/colours/wheel?lightness=101");
        assertThat(outside.status()).isEqualTo(400);
        assertThat(outside.sentence()).isNotBlank();
    }

    @Test
    void aPictureGivesTheMeanOfAnAreaAndItsPalette() throws IOException {
        BufferedImage image = new BufferedImage(100, 50, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(new Color(0x80, 0x10, 0x10));
        g.fillRect(0, 0, 50, 50);
        g.dispose();
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(image, "png", png);
        JsonNode left = browser.sendFile("/api/colours/picture?width=0.5", "red.png", png.toByteArray())
                .json();
        assertThat(left.get("area").get("hex").asString()).isEqualTo("#801010");
        assertThat(left.get("palette")).hasSize(2);
        assertThat(left.get("tails").get(1).get("colour").get("hex").asString()).isEqualTo("#801010");
        assertThat(left.get("tails").get(1).get("cast").asBoolean())
                .as("a red is no cast")
                .isFalse();
        Browser.Answer bad =
                browser.sendFile("/api/colours/picture", "x.png", "no picture".getBytes(StandardCharsets.UTF_8));
        assertThat(bad.status()).isEqualTo(422);
        assertThat(bad.sentence()).contains("PNG or JPEG");
    }

    @Test
    void palettesAreKeptReadWrittenAndNobodyElses() {
        byte[] csv = "name,colour\nTar,#141210\nSand,216 201 168\n".getBytes(StandardCharsets.UTF_8);
        JsonNode read = browser.sendFile("/api/palettes/files", "Quay.csv", csv).json();
        assertThat(read.get("name").asString()).isEqualTo("Quay");
        String id = "/api/palettes/" + read.get("id").asString();
        Map<String, Object> change =
                Map.of("name", "Quay 2", "swatches", List.of(Map.of("name", "Ash", "colour", "lab(70, 1, 4)")));
        assertThat(browser.put(id, change).json().get("swatches")).hasSize(1);
        assertThat(browser.get(id + "/file/GPL").text())
                .contains("Name: Quay 2")
                .contains("Ash");
        Browser other = stranger().asNewDesigner(accounts);
        JsonNode shipped = other.get("/api/palettes").json();
        assertThat(shipped).allMatch(p -> p.get("shipped").asBoolean()).hasSizeGreaterThan(4);
        String greys = "/api/palettes/" + shipped.get(0).get("id").asString();
        assertThat(other.get(greys + "/file/CSV").text()).contains("L* 95");
        assertThat(other.put(greys, change).status()).as("what ships stays").isEqualTo(404);
        assertThat(other.delete(greys).status()).isEqualTo(404);
        assertThat(other.get(id + "/file/GPL").status()).isEqualTo(404);
        assertThat(other.put(id, change).status()).isEqualTo(404);
        assertThat(other.delete(id).status()).isEqualTo(404);
        Browser.Answer bad =
                browser.sendFile("/api/palettes/files", "x.csv", "Tar,#14\nRope,none".getBytes(StandardCharsets.UTF_8));
        assertThat(bad.sentence()).contains("Line 2");
        assertThat(browser.delete(id).status()).isEqualTo(204);
        assertThat(browser.get("/api/palettes").json())
                .allMatch(p -> p.get("shipped").asBoolean());
    }
}
