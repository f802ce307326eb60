package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Materials are found by words, by what is measured of them and by likeness. */
class FindingTest extends ProjectTest {
    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private JsonNode find(Map<String, Object> sought) {
        return browser.post(project + "/library/find", sought).json();
    }

    private static List<String> codes(JsonNode found) {
        return found.get("materials")
                .valueStream()
                .map(m -> m.get("code").asString())
                .toList();
    }

    /** Sixty queries, written before there was anything to find with; one of those that are right among the first five. */
    @Test
    void whatDesignersTypeFindsWhatTheyMean() throws IOException {
        List<String> missed = new ArrayList<>();
        int asked = 0;
        try (BufferedReader in = new BufferedReader(
                new InputStreamReader(FindingTest.class.getResourceAsStream("queries.txt"), StandardCharsets.UTF_8))) {
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                if (line.startsWith("#")) {
                    continue;
                }
                String[] parts = line.split(": ");
                List<String> right = List.of(parts[1].split(" "));
                List<String> found = codes(find(Map.of("words", parts[0])));
                List<String> first = found.subList(0, Math.min(5, found.size()));
                asked++;
                if (first.stream().noneMatch(right::contains)) {
                    missed.add(parts[0] + " found " + first);
                }
            }
        }
        assertThat(asked).isEqualTo(60);
        System.out.println("60 queries, not among the first five: " + missed);
        assertThat(missed).as("at least 55 of 60").hasSizeLessThanOrEqualTo(5);
    }

    @Test
    void misspeltWordsAreTakenForTheNearestAndWhatNothingAnswersIsSaid() {
        JsonNode lether = find(Map.of("words", "cognac lether"));
        assertThat(codes(lether)).startsWith("LE-011");
        assertThat(lether.get("told").asString()).isEqualTo("“lether” taken as “leather”.");
        JsonNode partly = find(Map.of("words", "velvet terrazzo"));
        assertThat(partly.get("told").asString()).contains("answers 1 of 2");
        assertThat(partly.get("total").asInt()).isPositive();
        JsonNode nothing = find(Map.of("words", "qqqqxxzz"));
        assertThat(nothing.get("total").asInt()).isZero();
        assertThat(nothing.get("told").asString()).contains("Try a kind");
        for (String hostile : List.of("' | !& :* \\ <-> (", "%_%", "\u0000\u0007", "x".repeat(10_000), "!!!")) {
            assertThat(browser.post(project + "/library/find", Map.of("words", hostile))
                            .status())
                    .as(hostile)
                    .isEqualTo(200);
        }
    }

    @Test
    void facetsNarrowDownOrdersSortAndStrangersFindNothing() {
        JsonNode all = find(Map.of());
        assertThat(all.get("total").asInt()).isGreaterThan(200);
        assertThat(all.get("materials")).hasSize(40);
        JsonNode glass = find(Map.of("wanted", Map.of("KIND", List.of("glass")), "order", "LEAST_CARBON"));
        assertThat(codes(glass)).allMatch(c -> c.startsWith("GL"));
        JsonNode next = find(Map.of("from", 40));
        assertThat(codes(next)).doesNotContainAnyElementsOf(codes(all));
        String red = find(Map.of("words", "PT-014"))
                .get("materials")
                .get(0)
                .get("id")
                .asString();
        assertThat(codes(find(Map.of("like", red)))).startsWith("PT-014");
        assertThat(codes(find(Map.of("near", List.of(0.37, 0.02, 0.014))))).startsWith("PT-014");
        assertThat(browser.get("/api/library/recent").json()).isEmpty();
        for (String code : List.of("PT-014", "MT-003", "PT-014")) {
            post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial(code)));
        }
        assertThat(browser.get("/api/library/recent")
                        .json()
                        .valueStream()
                        .map(m -> m.get("code").asString()))
                .containsExactly("PT-014", "MT-003");
        JsonNode measure =
                browser.get(project + "/materials/" + red + "/measure").json();
        assertThat(measure.get("usedIn")).hasSize(1);
        assertThat(measure.get("tone").asString()).isEqualTo("red");
        assertThat(measure.get("pattern").isNull()).isTrue();
        JsonNode canvas = browser.get(project + "/materials/" + libraryMaterial("FB-037") + "/measure")
                .json()
                .get("pattern");
        assertThat(canvas.get("pixelsPerMetre").asDouble()).isGreaterThan(40_000);
        assertThat(canvas.get("sharp").asBoolean())
                .as("a stool is wider than 45 mm")
                .isTrue();
        String unlike = project + "/materials/" + red + "/unlike/";
        JsonNode same = browser.get(unlike + red + "?times=4").json();
        assertThat(same.get("mean").asDouble()).isZero();
        assertThat(same.get("word").asString()).isEqualTo("nobody sees a difference");
        JsonNode brass =
                browser.get(unlike + libraryMaterial("MT-003") + "?times=16").json();
        assertThat(brass.get("p95").asDouble()).isGreaterThan(brass.get("mean").asDouble());
        assertThat(brass.get("word").asString()).isEqualTo("plainly different");
        assertThat(brass.get("picture").asString()).startsWith("iVBORw0KGgo"); // a PNG
        assertThat(browser.get(unlike + red + "?times=0").sentence()).contains("up to 64 times");
        assertThat(browser.get(unlike + UUID.randomUUID() + "?times=4").status())
                .isEqualTo(404);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .get(unlike + red + "?times=4")
                        .status())
                .isEqualTo(404);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post(project + "/library/find", Map.of())
                        .status())
                .isEqualTo(404);
        assertThat(tried("/library/find", Map.of("order", "PRETTIEST")).status())
                .isEqualTo(400);
    }

    /** needs.md A28: whatever a part is, something is there that such parts are often made of. */
    @Test
    void forEveryRoleSomethingIsSuggested() {
        assertThat(get("/parts/0/suggestions").get("role").asString())
                .as("by its name")
                .isEqualTo("seat");
        for (JsonNode known : browser.get("/api/library/controls").json().get("roles")) {
            String role = known.get("role").asString();
            post("/parts/roles", Map.of("roles", List.of(Map.of("part", 0, "role", role))));
            JsonNode suggested = get("/parts/0/suggestions");
            assertThat(suggested.get("role")).isEqualTo(known.get("word"));
            assertThat(suggested.get("materials")).as(role).hasSize(3);
        }
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .get(project + "/parts/0/suggestions")
                        .status())
                .isEqualTo(404);
    }
}
