package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.springframework.test.annotation.DirtiesContext;
import org.springframework.test.context.TestPropertySource;
import tools.jackson.databind.JsonNode;

/** Prints how long it takes to dress a thousand parts of a model of 5,000, and to look at another scheme. */
@TestPropertySource(properties = "zolvan.upload-limit=100MB")
@DirtiesContext // its server would take the jobs of the other tests'
class AssigningFigures extends ProjectTest {
    private static final int PARTS = 5_000;
    private static final int DRESSED = 1_000;
    private static final int ROUNDS = 40;

    @Test
    void dressingAThousandParts() throws Exception {
        List<Planks.Plank> planks = IntStream.range(0, PARTS)
                .mapToObj(i -> new Planks.Plank("Plank " + i, 1 + i * 1e-4, i * 0.02, i % 2))
                .toList();
        JsonNode job = browser.importFile("planks.glb", Planks.file(planks, "paint"));
        open("/api/projects/" + job.get("result").asString());
        List<Integer> targets = IntStream.range(0, DRESSED).boxed().toList();
        List<String> codes = List.of("MT-003", "MT-012");
        List<String> materials = codes.stream().map(this::libraryMaterial).toList();
        double[] assign = new double[ROUNDS];
        double[] undo = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            Map<String, Object> body = Map.of("level", "part", "targets", targets, "material", materials.get(i % 2));
            long start = System.nanoTime();
            post("/assignments", body);
            assign[i] = since(start);
        }
        for (int i = 0; i < ROUNDS; i++) {
            long start = System.nanoTime();
            post("/undo", Map.of());
            undo[i] = since(start);
        }
        print("a look on " + DRESSED + " parts of " + PARTS, assign);
        print("undone", undo);
        post("/redo", Map.of());
        post(
                "/schemes",
                Map.of(
                        "name",
                        "Other",
                        "beginning",
                        "BASED",
                        "of",
                        state.get("scheme").asString()));
        List<String> ids = new ArrayList<>();
        state.get("schemes").forEach(s -> ids.add(s.get("id").asString()));
        double[] looking = new double[ROUNDS];
        for (int i = 0; i < ROUNDS; i++) {
            scheme = ids.get(i % 2);
            long start = System.nanoTime();
            get("/state");
            looking[i] = since(start);
        }
        print("another scheme", looking);
        Map<String, Object> all =
                Map.of("parts", IntStream.range(0, PARTS).boxed().toList());
        for (String when : List.of("first", "again")) {
            long start = System.nanoTime();
            assertThat(tried("/parts/seen", all).status()).isEqualTo(200);
            System.out.printf("FIGURE what one sees of %d parts, %s: %.0f ms%n", PARTS, when, since(start));
        }
    }

    private static double since(long start) {
        return (System.nanoTime() - start) / 1e6;
    }

    private static void print(String what, double[] times) {
        Arrays.sort(times);
        System.out.printf(
                "FIGURE %s: p50 %.0f ms, p95 %.0f ms%n", what, times[times.length / 2], times[times.length * 95 / 100]);
    }
}
