package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

class EventsTest extends ServerTest {

    @Test
    void theBrowserHearsOfItsJobsAndOfChangesButNotOfOtherPeoples() throws Exception {
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        var listening = browser.listen(heard);
        BlockingQueue<String> overheard = new LinkedBlockingQueue<>();
        Browser stranger = stranger().asNewDesigner(accounts);
        var strangers = stranger.listen(overheard);
        assertThat(next(heard, "event:hello")).isNotNull();
        assertThat(next(overheard, "event:hello")).isNotNull();

        String project = newProject();
        assertThat(next(heard, "\"state\":\"DONE\"")).contains("stools.glb").contains("\"share\":1");
        Map<String, Object> body =
                Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("MT-003"));
        browser.post(project + "/assignments", body, 1);
        assertThat(next(heard, "\"version\":2")).contains(project.substring("/api/projects/".length()));
        assertThat(List.of(listening, strangers)).noneMatch(CompletableFuture::isCompletedExceptionally);
        assertThat(overheard).noneMatch(line -> line.contains("stools") || line.contains("version"));
    }

    @Test
    void aRefusedChangeIsNotAnnounced() throws Exception {
        String project = newProject();
        BlockingQueue<String> heard = new LinkedBlockingQueue<>();
        var listening = browser.listen(heard);
        assertThat(next(heard, "event:hello")).isNotNull();
        browser.post(project + "/undo", Map.of(), 1); // nothing to undo: rolled back
        browser.post(project + "/details", Map.of("name", "Stools", "client", "", "unit", "mm"), 1);
        assertThat(next(heard, "\"version\":")).contains("\"version\":2");
        assertThat(listening).isNotCompletedExceptionally();
    }

    /** The next line that holds the text, or null when none comes within ten seconds. */
    private static String next(BlockingQueue<String> lines, String text) throws InterruptedException {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(10);
        while (System.nanoTime() < end) {
            String line = lines.poll(200, TimeUnit.MILLISECONDS);
            if (line != null && line.contains(text)) {
                return line;
            }
        }
        return null;
    }
}
