package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.awaitility.Awaitility.await;

import java.awt.Color;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.function.Predicate;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md R02: what the stage shows with its light traced, from where it is looked at. */
class ProofTest extends ProjectTest {
    private static final int W = 60;
    private static final int H = 40;
    private static final Map<String, Object> BACKDROP = Map.of("top", 0.64, "bottom", 0.56);

    private static Map<String, Object> camera(Object eye, Object target, int degrees) {
        return Map.of("eye", eye, "target", target, "degrees", degrees);
    }

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    /** A view of the whole model from beside it, and from above or below. */
    private Map<String, Object> shot(int up) {
        double[] b = get("/scene")
                .get("bounds")
                .valueStream()
                .mapToDouble(JsonNode::asDouble)
                .toArray();
        double size = Math.hypot(b[3] - b[0], Math.hypot(b[4] - b[1], b[5] - b[2]));
        List<Double> middle = List.of((b[0] + b[3]) / 2, (b[1] + b[4]) / 2, (b[2] + b[5]) / 2);
        List<Double> eye = List.of(middle.get(0) + size, middle.get(1) + up * size, middle.get(2) + size);
        return new HashMap<>(Map.of("camera", camera(eye, middle, 36), "width", W, "height", H, "backdrop", BACKDROP));
    }

    private Map<String, Object> shot() {
        return shot(1);
    }

    private Map<String, Object> shot(int up, int only) {
        Map<String, Object> shot = shot(up);
        shot.put("only", List.of(only));
        return shot;
    }

    private String begin(Map<String, Object> shot) {
        Browser.Answer begun = browser.post(project + "/proof", shot);
        assertThat(begun.status()).as("%s", begun.json()).isEqualTo(200);
        return "/proof/" + begun.json().get("proof").asString();
    }

    private Browser.Answer waitFor(String proof, Predicate<Browser.Answer> isIt) {
        return await().atMost(1, TimeUnit.MINUTES)
                .until(
                        () -> {
                            Browser.Answer a = browser.get(project + proof);
                            assertThat(a.status()).isIn(200, 202);
                            return a;
                        },
                        isIt);
    }

    private BufferedImage done(String proof) throws Exception {
        Browser.Answer a = waitFor(
                proof, p -> p.raw().headers().firstValue("X-Final").orElse("").equals("true"));
        return ImageIO.read(new ByteArrayInputStream(a.body()));
    }

    private static int reds(BufferedImage picture) {
        int count = 0;
        for (int i = 0; i < W * H; i++) {
            Color c = new Color(picture.getRGB(i % W, i / W));
            count += c.getRed() > 2 * c.getGreen() ? 1 : 0;
        }
        return count;
    }

    @Test
    void theLooksOfTheSchemeInViewAreTraced() throws Exception {
        assertThat(reds(done(begin(shot())))).isZero();
        assign("part", 0, "PT-014");
        BufferedImage red = done(begin(shot()));
        assertThat(red.getWidth()).isEqualTo(W);
        assertThat(red.getHeight()).isEqualTo(H);
        assertThat(reds(red)).as("harbour red").isGreaterThan(10);
        Color corner = new Color(red.getRGB(0, 0));
        assertThat(corner.getRed()).as("the cloth").isEqualTo(corner.getBlue()).isBetween(180, 215);

        assertThat(reds(done(begin(shot(1, 1))))).as("the seat is not shown").isZero();
    }

    /** needs.md R22: a sheet shows each side's own look, and nothing to who looks into it from outside. */
    @Test
    void sidesAndLookingInsideAreTraced() throws Exception {
        List<Planks.Plank> planks = List.of(new Planks.Plank("Lid", 1, 0.2, 0), new Planks.Plank("Board", 1, 0, 1));
        open("/api/projects/"
                + browser.importFile("box.glb", Planks.file(planks, "paint"))
                        .get("result")
                        .asString());
        assign("part", 0, "PT-014");
        assertThat(reds(done(begin(shot(-1, 0))))).as("from below").isGreaterThan(10);
        assignBack("part", 0, "MT-003");
        assertThat(reds(done(begin(shot(-1, 0))))).as("brass from below").isZero();
        assertThat(reds(done(begin(shot(1, 0))))).as("red from above").isGreaterThan(10);
        post("/parts/looked-into", Map.of("parts", List.of(0), "on", true));
        assertThat(reds(done(begin(shot(1, 0))))).as("looked into").isZero();
    }

    @Test
    void theNextTakesThePlaceOfTheLastOne() throws Exception {
        Map<String, Object> large = shot();
        large.putAll(Map.of("width", 1200, "height", 800));
        String first = begin(large);
        waitFor(first, a -> a.status() == 200); // a coarse one is there soon
        String second = begin(shot());
        done(second);
        assertThat(browser.get(project + first).status()).isEqualTo(404);
        assertThat(browser.delete(project + "/proof", 0).status()).isEqualTo(204);
        assertThat(browser.get(project + second).status())
                .as("what is there stays")
                .isEqualTo(200);
    }

    @Test
    void whatIsNoViewIsSaidAndStrangersSeeNothing() {
        for (Map<String, Object> wrong : List.<Map<String, Object>>of(
                Map.of("width", 100_000),
                Map.of("width", 3000, "height", 3000),
                Map.of("camera", camera(List.of(1, 1, 1), List.of(1, 1, 1), 36)),
                Map.of("camera", camera(List.of(1, 1, 1), List.of(0, 0, 0), 0)),
                Map.of("backdrop", Map.of("top", -1, "bottom", 0)),
                Map.of("only", List.of()))) {
            Map<String, Object> shot = shot();
            shot.putAll(wrong);
            Browser.Answer a = browser.post(project + "/proof", shot);
            assertThat(a.status()).as(wrong.toString()).isEqualTo(422);
        }
        Map<String, Object> dark = shot();
        dark.put("light", UUID.randomUUID());
        assertThat(browser.post(project + "/proof", dark).status()).isEqualTo(409);
        String mine = begin(shot());
        Browser other = stranger().asNewDesigner(accounts);
        assertThat(other.post(project + "/proof", shot()).status()).isEqualTo(404);
        assertThat(other.get(project + mine).status()).isEqualTo(404);
        assertThat(other.delete(project + "/proof", 0).status()).isEqualTo(404);
        assertThat(browser.get(project + "/proof/" + UUID.randomUUID()).status())
                .isEqualTo(404);
    }
}
