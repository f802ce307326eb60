package app.zolvan.server.event;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import java.io.IOException;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

class DepartedBrowserTest {
    /** A web server that has noticed the end of a stream by itself refuses to be told of it. */
    @Test
    void aStreamThatHasEndedByItselfStopsNoOther() {
        AtomicInteger ended = new AtomicInteger();
        SseEmitter gone = new SseEmitter() {
            @Override
            public void send(SseEventBuilder event) throws IOException {
                throw new IOException("broken pipe");
            }

            @Override
            public void completeWithError(Throwable why) {
                ended.incrementAndGet();
                throw new IllegalStateException("not allowed any more");
            }
        };
        assertThatCode(() -> EventService.send(gone, SseEmitter.event().comment("beat")))
                .doesNotThrowAnyException();
        assertThat(ended).hasValue(1);
    }
}
