package app.zolvan.server.event;

import app.zolvan.server.database.Outage;
import java.io.IOException;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.function.Supplier;
import javax.sql.DataSource;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Service;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Tells browsers what has happened, over server-sent events. Events travel through PostgreSQL's NOTIFY, so they leave
 * when their transaction commits and reach browsers connected to any process on the same database.
 */
@Service
public class EventService {
    private static final Logger LOG = LoggerFactory.getLogger(EventService.class);
    private static final String CHANNEL = "zolvan_event";
    private static final long STREAM_LIFETIME = 30 * 60 * 1000L;
    private static final int WAIT = 500;
    private static final int BEATS = 30;
    /** A notification holds 8,000 bytes: so many accounts and what is told. */
    private static final int AT_ONCE = 120;

    private final EventMapper mapper;
    private final DataSource dataSource;
    private final JsonMapper json;
    private final Map<UUID, List<SseEmitter>> listeners = new ConcurrentHashMap<>();
    private volatile boolean running = true;
    private Thread thread;

    EventService(EventMapper mapper, DataSource dataSource, JsonMapper json) {
        this.mapper = mapper;
        this.dataSource = dataSource;
        this.json = json;
    }

    /** Announces something to all of an account's browsers, once the current transaction commits. */
    public void announce(UUID account, String name, Object data) {
        announce(List.of(account), name, data);
    }

    /** The same to several accounts' at once. */
    public void announce(List<UUID> accounts, String name, Object data) {
        for (int from = 0; from < accounts.size(); from += AT_ONCE) {
            List<UUID> some = accounts.subList(from, Math.min(accounts.size(), from + AT_ONCE));
            mapper.announce(CHANNEL, json.writeValueAsString(Map.of("accounts", some, "name", name, "data", data)));
        }
    }

    SseEmitter listen(UUID account) {
        SseEmitter emitter = new SseEmitter(STREAM_LIFETIME);
        List<SseEmitter> list = listeners.computeIfAbsent(account, a -> new CopyOnWriteArrayList<>());
        list.add(emitter);
        emitter.onCompletion(() -> list.remove(emitter));
        emitter.onTimeout(emitter::complete);
        emitter.onError(e -> list.remove(emitter));
        send(emitter, hello());
        return emitter;
    }

    /** Has a page look what has happened. */
    private static SseEmitter.SseEventBuilder hello() {
        return SseEmitter.event().name("hello").data("{}");
    }

    @EventListener(ApplicationReadyEvent.class)
    void start() {
        thread = new Thread(this::relay, "events");
        thread.setDaemon(true);
        thread.start();
    }

    /** Ends all streams before the web server waits for its requests to end. */
    @EventListener(ContextClosedEvent.class)
    void stop() throws InterruptedException {
        running = false;
        listeners.values().forEach(list -> list.forEach(SseEmitter::complete));
        if (thread != null) {
            thread.interrupt();
            thread.join(2 * WAIT);
        }
    }

    private void relay() {
        boolean missed = false;
        while (running) {
            try (Connection connection = dataSource.getConnection();
                    Statement statement = connection.createStatement()) {
                statement.execute("listen " + CHANNEL);
                if (missed) { // what was announced meanwhile is lost: pages look for themselves
                    listeners.values().forEach(l -> tell(l, EventService::hello));
                    missed = false;
                }
                PGConnection pg = connection.unwrap(PGConnection.class);
                for (int beat = 0; running; beat++) {
                    PGNotification[] arrived = pg.getNotifications(WAIT);
                    for (PGNotification n : arrived == null ? new PGNotification[0] : arrived) {
                        deliver(json.readTree(n.getParameter()));
                    }
                    if (beat % BEATS == 0) {
                        listeners
                                .values()
                                .forEach(l -> tell(
                                        l, () -> SseEmitter.event().name("beat").data("{}")));
                    }
                }
                statement.execute("unlisten *");
            } catch (SQLException | RuntimeException e) { // whatever it was, the next event is to be told
                missed = true;
                if (running) {
                    LOG.warn("lost the connection for events; trying again", Outage.is(e) ? null : e);
                    pause();
                }
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(WAIT);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private void deliver(JsonNode event) {
        String name = event.get("name").asString();
        String data = event.get("data").toString();
        for (JsonNode account : event.get("accounts")) {
            List<SseEmitter> streams = listeners.get(UUID.fromString(account.asString()));
            if (streams != null) {
                tell(streams, () -> SseEmitter.event().name(name).data(data));
            }
        }
    }

    /** Tells all streams, and drops those that have ended: one browser that has left keeps nothing from the others. */
    static void tell(List<SseEmitter> streams, Supplier<SseEmitter.SseEventBuilder> event) {
        streams.removeIf(s -> !send(s, event.get()));
    }

    /** @return whether the browser is still there */
    private static boolean send(SseEmitter emitter, SseEmitter.SseEventBuilder event) {
        try {
            emitter.send(event);
            return true;
        } catch (IOException | IllegalStateException e) {
            end(emitter, e);
            return false;
        }
    }

    private static void end(SseEmitter emitter, Exception why) {
        try {
            emitter.completeWithError(why);
        } catch (IllegalStateException e) {
            LOG.debug("the web server had ended a stream by itself", e);
        }
    }
}
