package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Prints how 50 designers fare on one project for a minute, and makes sure that nothing any of them did is lost. */
class TogetherFigures extends ProjectTest {
    private static final int CLIENTS = 50;
    private static final int PARTS = 200;
    private static final Duration TIME = Duration.ofSeconds(60);
    private static final List<String> CODES = List.of("MT-003", "MT-012", "PT-014", "LE-002");

    /** Something that was done: which version of the project it made. */
    private record Done(long version, int part, String material) {}

    private record Run(List<Done> done, List<Double> milliseconds, int told, int errors) {}

    @Test
    void fiftyAtOnce() throws Exception {
        List<Planks.Plank> planks = IntStream.range(0, PARTS)
                .mapToObj(i -> new Planks.Plank("Plank " + i, 1 + i * 1e-4, i * 0.02, i % 2))
                .toList();
        open("/api/projects/"
                + browser.importFile("planks.glb", Planks.file(planks, "paint"))
                        .get("result")
                        .asString());
        for (String code : CODES) {
            assign("part", 0, code); // all are in the palette
        }
        List<String> materials = new ArrayList<>();
        state.get("palette")
                .forEach(u -> materials.add(u.get("material").get("id").asString()));
        List<Browser> clients = new ArrayList<>();
        for (int i = 0; i < CLIENTS; i++) {
            Browser client = stranger().asNewDesigner(accounts);
            browser.post(project + "/team", Map.of("login", client.login()));
            clients.add(client);
        }
        long commands = browser.get(project + "/history").json().size();
        List<Run> runs = new ArrayList<>();
        try (Closer pool = new Closer(Executors.newFixedThreadPool(CLIENTS))) {
            List<Future<Run>> futures = new ArrayList<>();
            for (int i = 0; i < CLIENTS; i++) {
                Browser client = clients.get(i);
                int seed = i;
                Callable<Run> work = () -> run(client, materials, new Random(seed));
                futures.add(pool.all.submit(work));
            }
            for (Future<Run> f : futures) {
                runs.add(f.get());
            }
        }
        List<Done> done = runs.stream().flatMap(r -> r.done.stream()).toList();
        Map<Integer, Done> last = new HashMap<>();
        done.forEach(d -> last.merge(d.part, d, (a, b) -> a.version > b.version ? a : b));
        state = browser.get(project + "/state").json();
        last.forEach((part, d) ->
                assertThat(lookOf(state, part).get("material").asString()).isEqualTo(d.material));
        assertThat(done.stream().map(Done::version).distinct().count()).isEqualTo(done.size());
        double[] times = runs.stream()
                .flatMap(r -> r.milliseconds.stream())
                .mapToDouble(Double::doubleValue)
                .sorted()
                .toArray();
        System.out.printf(
                "FIGURE %d designers, %d s: %d done (history had %d before), %d told of another's, %d errors; p50 %.0f ms, p95 %.0f ms%n",
                CLIENTS,
                TIME.toSeconds(),
                done.size(),
                commands,
                runs.stream().mapToInt(Run::told).sum(),
                runs.stream().mapToInt(Run::errors).sum(),
                times[times.length / 2],
                times[times.length * 95 / 100]);
    }

    private record Closer(ExecutorService all) implements AutoCloseable {
        @Override
        public void close() {
            all.shutdownNow();
        }
    }

    private Run run(Browser client, List<String> materials, Random random) throws InterruptedException {
        List<Done> done = new ArrayList<>();
        List<Double> times = new ArrayList<>();
        int told = 0;
        int errors = 0;
        JsonNode seen = client.get(project + "/state").json();
        long end = System.nanoTime() + TIME.toNanos();
        while (System.nanoTime() < end) {
            int part = random.nextInt(PARTS);
            String material = materials.get(random.nextInt(materials.size()));
            Map<String, Object> body = Map.of("level", "part", "targets", List.of(part), "material", material);
            long start = System.nanoTime();
            Browser.Answer answer = client.post(
                    project + "/assignments", body, seen.get("version").asLong());
            times.add((System.nanoTime() - start) / 1e6);
            if (answer.status() == 200) {
                seen = answer.json();
                done.add(new Done(seen.get("version").asLong(), part, material));
            } else {
                told += answer.status() == 409 && answer.problem().equals("met") ? 1 : 0;
                errors += answer.status() == 409 ? 0 : 1;
                seen = client.get(project + "/state").json();
            }
            Thread.sleep(500 + random.nextInt(1000)); // as somebody who works fast
        }
        return new Run(done, times, told, errors);
    }
}
