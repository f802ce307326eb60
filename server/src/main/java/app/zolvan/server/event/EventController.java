package app.zolvan.server.event;

import app.zolvan.server.account.Account;
import org.springframework.http.MediaType;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The stream of what happens to the signed-in designer's jobs and projects. */
@RestController
class EventController {
    private final EventService events;

    EventController(EventService events) {
        this.events = events;
    }

    @GetMapping(path = "/api/events", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    SseEmitter listen(@AuthenticationPrincipal Account account) {
        return events.listen(account.id());
    }
}
