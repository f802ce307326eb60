package app.zolvan.server;

import app.zolvan.server.library.FindingService;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;

/** Prints how long it takes to find materials among many. */
class FindingFigures extends ProjectTest {
    private static final int ROUNDS = 4;

    @Autowired
    private FindingService finding;

    @Test
    void findingAmongMany() throws Exception {
        open(newProject());
        List<String> queries = queries();
        try {
            for (int size : new int[] {224, 5_000, 50_000}) {
                grow(size);
                long start = System.nanoTime();
                ask(Map.of());
                System.out.printf(
                        "FIGURE %,d materials, first look %.0f ms%n", size, (System.nanoTime() - start) / 1e6);
                measure(
                        size,
                        "words",
                        queries.stream()
                                .map(q -> Map.<String, Object>of("words", q))
                                .toList());
                measure(
                        size,
                        "words and a facet",
                        queries.stream()
                                .map(q -> Map.<String, Object>of(
                                        "words", q, "wanted", Map.of("FINISH", List.of("gloss"))))
                                .toList());
                measure(
                        size,
                        "misspelt",
                        queries.stream()
                                .map(q -> Map.<String, Object>of("words", q.replaceFirst("(\\w{3})\\w", "$1x")))
                                .toList());
                measure(
                        size,
                        "nothing typed, by hue",
                        queries.stream()
                                .map(q -> Map.<String, Object>of("order", "HUE"))
                                .toList());
            }
        } finally {
            database.update("delete from material where project_id is null and code like '%~%'");
            finding.forget();
        }
    }

    private void ask(Map<String, Object> sought) {
        browser.post(project + "/library/find", sought);
    }

    private void measure(int size, String what, List<Map<String, Object>> all) {
        List<Double> times = new ArrayList<>();
        for (int round = 0; round < ROUNDS; round++) {
            for (Map<String, Object> sought : all) {
                long start = System.nanoTime();
                ask(sought);
                if (round > 0) {
                    times.add((System.nanoTime() - start) / 1e6);
                }
            }
        }
        double[] sorted = times.stream().mapToDouble(t -> t).sorted().toArray();
        System.out.printf(
                "FIGURE %,d materials, %s: p50 %.0f ms, p95 %.0f ms, worst %.0f ms%n",
                size,
                what,
                sorted[sorted.length / 2],
                sorted[sorted.length * 95 / 100],
                Arrays.stream(sorted).max().orElse(0));
    }

    /** Copies of what ships, each with a number as a word of its own. */
    private void grow(int size) {
        database.update("""
                insert into material (id, code, name, kind, surface, position, facts, words, measure)
                select gen_random_uuid(), code || '~' || n, name || ' ' || n, kind, surface, position + 1000 * n, facts,
                       words || setweight(to_tsvector('english', 'no' || n), 'D'), measure
                from material, generate_series(1, 500) n where project_id is null and code not like '%~%'
                order by n, position
                limit greatest(0, ? - (select count(*) from material where project_id is null))
                on conflict do nothing""", size);
        long there = database.queryForObject("select count(*) from material where project_id is null", Long.class);
        if (there < size) {
            database.update("""
                    insert into material (id, code, name, kind, surface, position, facts, words, measure)
                    select gen_random_uuid(), code || '~~' || n, name || ' ' || n, kind, surface, position + 1000 * n, facts,
                           words || setweight(to_tsvector('english', 'no' || n), 'D'), measure
                    from material, generate_series(1, 500) n where project_id is null and code not like '%~%'
                    order by n, position limit ?""", size - there);
        }
        database.execute("analyze material");
        finding.forget();
    }

    private static List<String> queries() throws IOException {
        try (var in = FindingTest.class.getResourceAsStream("queries.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.startsWith("#"))
                    .map(l -> l.substring(0, l.indexOf(':')))
                    .toList();
        }
    }
}
