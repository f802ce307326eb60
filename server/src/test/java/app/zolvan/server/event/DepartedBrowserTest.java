package app.zolvan.server.event;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.CopyOnWriteArrayList;
import org.junit.jupiter.api.Test;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

class DepartedBrowserTest {
    /** A web server that has noticed the end of a stream by itself refuses to be told of it. */
    @Test
    void aStreamThatHasEndedByItselfKeepsNothingFromTheOthers() {
        List<String> heard = new ArrayList<>();
        SseEmitter gone = new SseEmitter() {
            @Override
            public void send(SseEventBuilder event) throws IOException {
                heard.add("gone");
                throw new IOException("broken pipe");
            }

            @Override
            public void completeWithError(Throwable why) {
                throw new IllegalStateException("not allowed any more");
            }
        };
        SseEmitter there = new SseEmitter() {
            @Override
            public void send(SseEventBuilder event) {
                heard.add("there");
            }
        };
        List<SseEmitter> streams = new CopyOnWriteArrayList<>(List.of(gone, there));
        for (int i = 0; i < 2; i++) {
            EventService.tell(streams, () -> SseEmitter.event().comment("beat"));
        }
        assertThat(heard).as("who has left is not told again").containsExactly("gone", "there", "there");
        assertThat(streams).containsExactly(there);
    }
}
