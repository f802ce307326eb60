package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.Png;
import app.zolvan.core.texture.Straighten;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A supplier's samples come into projects, and a supplier that is late, wrong or odd harms nothing. */
class SupplierTest extends ProjectTest {
    private static final String TOLD = """
            {"article": "N", "name": "Fjell slate", "kind": "stone", "words": ["slate"], "supplier": "Skarn & Lode",
             "licence": "for pictures", "size": [0.6, 0.6], "price": 84, "stock": 310, "leadDays": 12, "density": 2750}""";

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    /** Grained from edge to edge, or a piece of it on a light ground. */
    private static byte[] photo(double[][] corners) throws IOException {
        Random random = new Random(1);
        BufferedImage image = new BufferedImage(300, 300, BufferedImage.TYPE_INT_RGB);
        double[] to = corners == null ? null : Straighten.projection(corners);
        for (int y = 0; y < 300; y++) {
            for (int x = 0; x < 300; x++) {
                double[] uv = to == null ? new double[2] : Straighten.inverse(to, x, y);
                boolean in = uv[0] >= 0 && uv[0] < 1 && uv[1] >= 0 && uv[1] < 1;
                int v = 70 + random.nextInt(40);
                image.setRGB(x, y, in ? v << 16 | v << 8 | v : 0xF2F1ED);
            }
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "png", out);
        return out.toByteArray();
    }

    private Browser.Answer bring(String number, Double width) {
        Map<String, Object> body = new HashMap<>();
        body.put("width", width);
        return tried("/supplier/" + number, body);
    }

    private static JsonNode brought(Browser.Answer a) {
        assertThat(a.status()).as("%s", a.json()).isEqualTo(200);
        return a.json().get("palette").get(0).get("material");
    }

    @Test
    void aSampleComesWithItsSizeAndFactsAndGoesAgainByUndo() throws IOException {
        SUPPLIER.article("N1", TOLD.replace("\"N\"", "\"N1\""), photo(null));
        Browser.Answer a = bring("N1", null);
        JsonNode m = brought(a);
        assertThat(m.get("code").asString()).isEqualTo("N1");
        assertThat(m.get("kind").asString()).isEqualTo("stone");
        assertThat(m.get("textures").get(0).get("size").get(0).asDouble()).isEqualTo(0.6);
        assertThat(m.get("facts").get("supplier").asString()).isEqualTo("Skarn & Lode");
        assertThat(m.get("facts").get("density").asDouble()).isEqualTo(2750);
        assertThat(m.get("facts").get("missing").get(0).asString()).isEqualTo("waste");
        String image = m.get("textures").get(0).get("image").asString();
        assertThat(browser.get(project + "/assets/" + image).status()).isEqualTo(200);
        state = a.json();
        post("/undo?force=false", Map.of());
        assertThat(state.get("palette")).isEmpty();
    }

    @Test
    void aPieceIsCutOutAndStraightenedAndAMissingSizeIsAskedFor() throws IOException {
        double[][] corners = {{70, 40}, {260, 60}, {240, 250}, {40, 230}};
        String untold = TOLD.replace("\"N\"", "\"N2\"").replace("\"size\": [0.6, 0.6], ", "");
        SUPPLIER.article("N2", untold, photo(corners));
        JsonNode judged = browser.get("/api/supplier/articles/N2/photograph").json();
        assertThat(judged.get("shows").asString()).isEqualTo("SLANTED");
        assertThat(judged.get("mended").asBoolean()).isTrue();
        assertThat(bring("N2", null).json().get("detail").asString()).contains("how wide");
        assertThat(bring("N2", 900.0).status()).isEqualTo(422);
        JsonNode m = brought(bring("N2", 0.5));
        assertThat(m.get("textures").get(0).get("size").get(0).asDouble()).isCloseTo(0.47, within(1e-9));
        byte[] png = browser.get(project + "/assets/"
                        + m.get("textures").get(0).get("image").asString())
                .body();
        BufferedImage cut = ImageIO.read(new ByteArrayInputStream(png));
        int ground = 0;
        for (int i = 0; i < cut.getWidth(); i++) {
            ground += (cut.getRGB(i, 0) & 255) > 200 || (cut.getRGB(i, cut.getHeight() - 1) & 255) > 200 ? 1 : 0;
        }
        assertThat(ground).as("nothing of the ground comes along").isZero();
    }

    /** On the way in or later on the card: a repeat is as much smaller as was cut off, and it can be undone. */
    @Test
    void edgesThatDoNotMeetAreMadeTo() throws IOException {
        byte[] slope = photo(null);
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(slope));
        for (int y = 0; y < 300; y++) {
            for (int x = 0; x < 300; x++) {
                image.setRGB(x, y, image.getRGB(x, y) + 0x010101 * (x / 3));
            }
        }
        SUPPLIER.article("N8", TOLD.replace("\"N\"", "\"N8\""), ImageFile.png(image));
        assertThat(browser.get("/api/supplier/articles/N8/photograph")
                        .json()
                        .get("tiles")
                        .asBoolean())
                .isFalse();
        Browser.Answer met = tried("/supplier/N8", Map.of("meet", true));
        double size = brought(met).get("textures").get(0).get("size").get(0).asDouble();
        assertThat(size).isBetween(0.4, 0.6);
        state = met.json();
        post("/undo?force=false", Map.of());

        JsonNode plain = brought(bring("N8", null));
        state = get("/state");
        String id = plain.get("id").asString();
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", id));
        post("/meeting-edges", Map.of("part", 0, "span", 0));
        JsonNode after = state.get("palette").get(0).get("material");
        assertThat(after.get("textures").get(0).get("size").get(0).asDouble()).isEqualTo(size);
        assertThat(get("/materials/" + id + "/measure")
                        .get("pattern")
                        .get("tiles")
                        .asBoolean())
                .isTrue();
        Browser.Answer again = tried("/meeting-edges", Map.of("part", 0, "span", 0));
        assertThat(again.status()).isEqualTo(422);
        assertThat(again.json().get("detail").asString()).contains("nothing to mend");
        for (int part : new int[] {-1, 10_000}) {
            assertThat(tried("/meeting-edges", Map.of("part", part, "span", 0)).status())
                    .isEqualTo(404);
        }
        post("/undo?force=false", Map.of());
        assertThat(state.get("palette")
                        .get(0)
                        .get("material")
                        .get("textures")
                        .get(0)
                        .get("size")
                        .get(0)
                        .asDouble())
                .isEqualTo(0.6);
    }

    @Test
    void aSupplierThatIsLateWrongOrOddIsSaidToBeAndChangesNothing() throws IOException {
        SUPPLIER.answer("/articles", 503, new byte[0], 0);
        int before = SUPPLIER.asked.get();
        Browser.Answer silent = browser.get("/api/supplier/articles?words=oak");
        assertThat(silent.status()).isEqualTo(502);
        assertThat(silent.json().get("detail").asString()).contains("does not answer");
        assertThat(SUPPLIER.asked.get() - before).as("asked once more").isEqualTo(2);
        for (String odd : new String[] {"", "[1, 2", "[]", "null", "{\"articles\": [{\"article\": \"../../etc\"}]}"}) {
            SUPPLIER.answer("/articles", 200, odd.getBytes(StandardCharsets.UTF_8), 0);
            assertThat(browser.get("/api/supplier/articles").status()).as(odd).isEqualTo(422);
        }
        String lies = "{\"total\": 1, \"articles\": [{\"article\": \"N3\", \"name\": \"" + "x".repeat(9_000)
                + "\", \"size\": [1e9, -1], \"density\": \"heavy\", \"price\": -3}]}";
        SUPPLIER.answer("/articles", 200, lies.getBytes(StandardCharsets.UTF_8), 0);
        JsonNode page = browser.get("/api/supplier/articles").json();
        assertThat(page.get("articles").get(0).get("name").asString()).hasSize(200);
        assertThat(page.get("articles").get(0).get("lacks")).hasSize(6);

        SUPPLIER.article("N4", TOLD.replace("\"N\"", "\"N4\""), new byte[9 << 20]);
        assertThat(bring("N4", null).json().get("detail").asString()).contains("more than Zolvan takes");
        SUPPLIER.article("N5", TOLD.replace("\"N\"", "\"N5\""), "<svg/>".getBytes(StandardCharsets.UTF_8));
        assertThat(bring("N5", null).status()).isEqualTo(422);
        byte[] bomb = Png.encode(16, 16, new byte[768], 96);
        bomb[18] = 127; // says that it is 32,528 pixels wide
        SUPPLIER.article("N6", TOLD.replace("\"N\"", "\"N6\""), bomb);
        assertThat(bring("N6", null).status()).isEqualTo(422);
        SUPPLIER.answer("/articles/N7", 200, new byte[] {1}, 30_000);
        long start = System.nanoTime();
        assertThat(bring("N7", null).status()).isEqualTo(502);
        assertThat((System.nanoTime() - start) / 1e9).isLessThan(12);
        assertThat(bring("..%2F..%2Fx", null).status()).isIn(400, 404);
        assertThat(get("/state").get("palette")).isEmpty();
        assertThat(stranger().get("/api/supplier/articles").status()).isEqualTo(401);
    }
}
