package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class EventsTest extends ServerTest {

    @Test
    void theBrowserHearsOfItsJobsAndOfChangesButNotOfOtherPeoples() throws Exception {
        EventStream heard = browser.events();
        EventStream overheard = stranger().asNewDesigner(accounts).events();
        heard.next("event:hello");
        overheard.next("event:hello");

        String project = newProject();
        assertThat(heard.next("\"state\":\"DONE\"")).contains("stools.glb").contains("\"share\":1");
        Map<String, Object> body =
                Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("MT-003"));
        browser.post(project + "/assignments", body, 1);
        assertThat(heard.next("\"version\":2")).contains(project.substring("/api/projects/".length()));
        assertThat(List.of(heard, overheard)).noneMatch(EventStream::failed);
        assertThat(overheard.unread()).noneMatch(line -> line.contains("stools") || line.contains("version"));
    }

    @Test
    void aRefusedChangeIsNotAnnounced() throws Exception {
        String project = newProject();
        EventStream heard = browser.events();
        heard.next("event:hello");
        browser.post(project + "/undo", Map.of(), 1); // nothing to undo: rolled back
        browser.post(project + "/details", Map.of("name", "Stools", "client", "", "unit", "mm"), 1);
        assertThat(heard.next("\"version\":")).contains("\"version\":2");
        assertThat(heard.failed()).isFalse();
    }
}
