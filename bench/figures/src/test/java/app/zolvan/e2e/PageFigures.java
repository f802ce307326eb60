package app.zolvan.e2e;

import app.zolvan.demo.DemoFiles;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.options.BoundingBox;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Measures the running application and prints the figures. */
class PageFigures {
    private static final int ROUNDS = 12;
    /** Which of the schemes is shown, from 0. */
    private static final String PRESSED =
            "() => [...document.querySelectorAll('.divider')].findIndex((d) => d.getAttribute('aria-pressed') === 'true')";

    private static final String FROM_CLICK = "ms from the click to the answer, the frame's submission, the frame";

    @Test
    void figures() throws Exception {
        Designer d = Designer.sharpSighted().toProjects();
        print("heap after the demo import", usedHeap());
        d.openLantern();
        print(
                "stage",
                String.valueOf(d.page.evaluate("() => document.querySelector('[data-testid=stage]').dataset.figures")));
        print("a drag of a slider, 60 moves", drag(d, "Roughness"));
        d.page.navigate(RunningZolvan.get().address + "/projects"); // a software-drawn stage would be measured, too
        print("assignment round trip, 200 assignments, ms", quantiles(d.page));
        long start = System.nanoTime();
        d.page.setInputFiles("input[type=file]", Path.of(System.getProperty("zolvan.figures.glb", lantern())));
        d.page.waitForURL("**/projects/*");
        print("upload and import of the demo lantern, s", String.valueOf((System.nanoTime() - start) / 1e9));
        million(d);
        d.close();
    }

    /** A stage of so few pixels that a processor draws them about as fast as a graphics card draws all. */
    @Test
    void dragWhereFramesAreQuick() {
        Designer d = new Designer(0.1).openLantern();
        print("a drag of a slider, 60 moves, a hundredth of the pixels", drag(d, "Roughness"));
        d.close();
    }

    /** Goes to and fro between two schemes of each demo model. */
    @Test
    void schemes() {
        Designer d = new Designer().toProjects();
        for (String project : List.of("Pilot storm lantern", "Lomma floating sauna")) {
            d.page.navigate(RunningZolvan.get().address + "/projects");
            d.page.click("text=" + project);
            d.waitUntilDrawn();
            print("another scheme of " + project + ", " + FROM_CLICK, toAndFro(d));
        }
        d.close();
    }

    /** Dresses a thousand parts of many, where {@code zolvan.figures.many} names a GLB whose parts are named Sheet 0, 1, … */
    @Test
    void manyParts() {
        String file = System.getProperty("zolvan.figures.many", "");
        if (file.isEmpty()) {
            return;
        }
        Designer d = new Designer().toProjects();
        d.page.setInputFiles("input[type=file]", Path.of(file));
        d.page.waitForURL("**/projects/*");
        d.waitUntilDrawn();
        d.page.click("[aria-label='New scheme'] >> nth=0");
        d.page.fill("[aria-label='Name of the new scheme']", "Other");
        d.changing("/state", () -> d.page.click("text=Make scheme"));
        d.page.fill("[aria-label='Filter parts']", "Sheet 4");
        d.page.click(".ledger .row >> nth=0");
        d.page.keyboard().press("Control+a");
        d.waitUntilDrawn();
        d.openDrawer("Paint");
        listen(d.page);
        List<double[]> times = new ArrayList<>();
        for (int i = 0; i < ROUNDS; i++) {
            d.page.click(".sample-tray [data-code='" + (i % 2 == 0 ? "PT-017" : "PT-014") + "']");
            d.changing("/assignments", () -> d.page.click(".act button:has-text('Only the')"));
            times.add(timed(d.page, "/assignments"));
        }
        String parts = d.page.textContent(".act button:has-text('Only the')").strip();
        print(parts + " of 5,000, " + FROM_CLICK, medians(times));
        print("another scheme on 5,000 parts, " + FROM_CLICK, toAndFro(d));
        d.close();
    }

    private static String toAndFro(Designer d) {
        listen(d.page);
        List<double[]> times = new ArrayList<>();
        for (int i = 0; i < ROUNDS; i++) {
            Object before = d.page.evaluate(PRESSED);
            d.page.click(".divider[aria-pressed=false] >> nth=0");
            d.page.waitForFunction("was => (" + PRESSED + ")() !== was", before);
            d.waitUntilDrawn();
            times.add(timed(d.page, "/state"));
            d.page.mouse().move(640, 780); // off the dividers, which read what they stand for when one comes near
        }
        return medians(times);
    }

    /** Notes when one clicks, when another scheme is shown, and when the stage has drawn all there is. */
    private static void listen(Page page) {
        page.evaluate("""
                () => {
                  performance.clearResourceTimings() // few are kept
                  const seen = { clicked: 0, shown: [], submitted: [], drawn: [] }
                  document.addEventListener('click', () => (seen.clicked = performance.now()), true)
                  const stage = document.querySelector('[data-testid=stage]')
                  new MutationObserver((records) => {
                    const now = performance.now()
                    if (records.some((r) => r.attributeName === 'data-submitted')) seen.submitted.push(now)
                    else if (stage.dataset.busy === 'false') seen.drawn.push(now)
                  }).observe(stage, { attributes: true, attributeFilter: ['data-submitted', 'data-drawn'] })
                  new MutationObserver(() => seen.shown.push(performance.now()))
                    .observe(document.querySelector('.dividers'), { subtree: true, attributeFilter: ['aria-pressed'] })
                  window.timed = seen
                }""");
    }

    /**
     * Milliseconds from the last click to the end of the answer, or to where a scheme that was read before is taken up, to
     * the next frame's submission, and to a whole frame.
     */
    private static double[] timed(Page page, String path) {
        List<?> times = (List<?>) page.evaluate("""
                (path) => {
                  const { clicked, shown, submitted, drawn } = window.timed
                  const asked = performance.getEntriesByType('resource')
                    .filter((r) => r.startTime >= clicked && r.name.includes(path))
                  performance.clearResourceTimings()
                  const answered = path === '/state' ? shown.find((t) => t > clicked) : asked[0].responseEnd
                  return [answered, ...[submitted, drawn].map((all) => all.find((t) => t > answered))].map((t) => t - clicked)
                }""", path);
        return times.stream().mapToDouble(t -> ((Number) t).doubleValue()).toArray();
    }

    private static String medians(List<double[]> times) {
        return Stream.of(0.5, 0.95)
                .map(q -> "p%.0f %.0f, %.0f, %.0f"
                        .formatted(100 * q, quantile(times, 0, q), quantile(times, 1, q), quantile(times, 2, q)))
                .collect(Collectors.joining("; "));
    }

    private static double quantile(List<double[]> times, int of, double q) {
        double[] sorted = times.stream().mapToDouble(t -> t[of]).sorted().toArray();
        return sorted[(int) Math.round(q * (sorted.length - 1))];
    }

    /** A million triangles in 5,000 parts, where {@code zolvan.figures.large} names such a GLB. */
    private static void million(Designer d) {
        String file = System.getProperty("zolvan.figures.large", "");
        if (file.isEmpty()) {
            return;
        }
        d.page.setDefaultTimeout(1_200_000); // a million triangles, where graphics are software
        d.page.navigate(RunningZolvan.get().address + "/projects");
        long start = System.nanoTime();
        d.page.setInputFiles("input[type=file]", Path.of(file));
        d.page.waitForURL("**/projects/*");
        print("upload and import of the large file, s", String.valueOf((System.nanoTime() - start) / 1e9));
        d.waitUntilDrawn();
        print("large file drawn, s", String.valueOf((System.nanoTime() - start) / 1e9));
        print("stage", dataset(d.page, "figures"));
        for (int i = 0; i < 5; i++) {
            d.page.mouse().click(500 + 40 * i, 300 + 20 * i);
            d.waitUntilDrawn();
            print("picking", dataset(d.page, "picking"));
        }
        for (int i = 0; i < 3; i++) {
            d.page.click("[aria-label='All projects']");
            d.page.waitForSelector("article");
            print("ledger of the large file, ms from the click and of them after the data came", ledger(d.page));
            d.waitUntilDrawn();
        }
    }

    /** Opens the project that was used last, from within the page, and waits for the first row of the ledger. */
    private static String ledger(Page page) {
        return String.valueOf(page.evaluate("""
                async () => {
                  performance.clearResourceTimings()
                  let first = 0
                  const seen = new MutationObserver(() => {
                    if (!first && document.querySelector('.ledger .row')) first = performance.now()
                  })
                  seen.observe(document.body, { childList: true, subtree: true })
                  const start = performance.now()
                  const card = document.querySelector('article')
                  ;(card.querySelector('a, button') ?? card).click()
                  while (!first) await new Promise((r) => setTimeout(r, 5))
                  seen.disconnect()
                  const data = performance.getEntriesByType('resource')
                    .filter((r) => /\\/(scene|state|materials|substances)$/.test(r.name)).map((r) => r.responseEnd)
                  return `${(first - start).toFixed(0)}, ${(first - Math.max(...data)).toFixed(0)}`
                }"""));
    }

    /**
     * Drags a slider of the hood's look: how many requests that makes, how long from the newest movement before each to its
     * answer, and to the frame that shows it.
     */
    private static String drag(Designer d, String slider) {
        d.selectPart("Hood");
        d.openFold("Finish");
        d.page.evaluate("""
                () => {
                  const seen = { moves: [], submitted: [], drawn: [], asked: [] }
                  window.addEventListener('pointermove', () => seen.moves.push(performance.now()), true)
                  const stage = document.querySelector('[data-testid=stage]')
                  for (const what of ['submitted', 'drawn'])
                    new MutationObserver(() => seen[what].push(performance.now()))
                      .observe(stage, { attributes: true, attributeFilter: [`data-${what}`] })
                  new PerformanceObserver((list) => {
                    for (const e of list.getEntries())
                      if (/preview$/.test(e.name)) seen.asked.push([e.startTime, e.responseEnd])
                  }).observe({ type: 'resource' })
                  window.dragged = seen
                }""");
        BoundingBox bar = d.page.locator("[role=slider][aria-label='" + slider + "']")
                .first()
                .boundingBox();
        d.page.mouse().move(bar.x + 0.2 * bar.width, bar.y + bar.height / 2);
        d.page.mouse().down();
        for (int i = 0; i < 60; i++) {
            d.page.mouse().move(bar.x + (0.2 + 0.01 * i) * bar.width, bar.y + bar.height / 2);
            d.page.waitForTimeout(16);
        }
        d.page.mouse().up();
        d.page.waitForTimeout(1000);
        d.waitUntilDrawn();
        return String.valueOf(d.page.evaluate("""
                () => {
                  const { moves, submitted, drawn, asked } = window.dragged
                  const from = (t) => Math.max(...moves.filter((m) => m <= t))
                  const p95 = (all) => [...all].sort((a, b) => a - b)[Math.floor(0.95 * (all.length - 1))].toFixed(0)
                  const answered = asked.map(([start, end]) => end - from(start))
                  const shown = (frames) => asked
                    .map(([start, end]) => [from(start), frames.find((t) => t > end)])
                    .filter(([, t]) => t).map(([m, t]) => t - m)
                  return `${moves.length} movements, ${asked.length} requests, ms to the answer p95 ${p95(answered)}, ` +
                    `to the frame's submission p95 ${p95(shown(submitted))}, to the drawn frame p95 ${p95(shown(drawn))}, ` +
                    `frames ${drawn.length}`
                }"""));
    }

    private static String dataset(Page page, String key) {
        return String.valueOf(page.evaluate("k => document.querySelector('[data-testid=stage]').dataset[k]", key));
    }

    private static String lantern() throws IOException {
        Path folder = Files.createTempDirectory("zolvan-figures");
        DemoFiles.write(folder);
        return folder.resolve("storm-lantern.glb").toString();
    }

    /** Assigns two materials in turn to one set, each after the last was answered, from within the page. */
    private static String quantiles(Page page) {
        return String.valueOf(page.evaluate("""
                async () => {
                  const id = (await (await fetch('/api/projects')).json())[0].id
                  const token = decodeURIComponent(/XSRF-TOKEN=([^;]*)/.exec(document.cookie)[1])
                  const library = await (await fetch('/api/library/materials')).json()
                  let version = (await (await fetch(`/api/projects/${id}/state`)).json()).version
                  const times = []
                  for (let i = 0; i < 200; i++) {
                    const start = performance.now()
                    const answer = await fetch(`/api/projects/${id}/assignments`, {
                      method: 'POST',
                      headers: { 'Content-Type': 'application/json', 'X-XSRF-TOKEN': token, 'If-Match': `"${version}"` },
                      body: JSON.stringify({ level: 'set', targets: [0], material: library[i % 2].id }),
                    })
                    version = (await answer.json()).version
                    times.push(performance.now() - start)
                  }
                  times.sort((a, b) => a - b)
                  return `p50 ${times[100].toFixed(1)}, p95 ${times[190].toFixed(1)}, worst ${times[199].toFixed(1)}`
                }"""));
    }

    private static String usedHeap() throws IOException, InterruptedException {
        Process gc = new ProcessBuilder("jcmd", String.valueOf(RunningZolvan.get().pid), "GC.run").start();
        gc.waitFor();
        Process info = new ProcessBuilder("jcmd", String.valueOf(RunningZolvan.get().pid), "GC.heap_info").start();
        try (BufferedReader in =
                new BufferedReader(new InputStreamReader(info.getInputStream(), StandardCharsets.UTF_8))) {
            return in.lines().filter(l -> l.contains("used")).map(String::strip).collect(Collectors.joining("; "));
        }
    }

    private static void print(String what, String figure) {
        System.out.println("FIGURE " + Map.entry(what, figure));
    }
}
