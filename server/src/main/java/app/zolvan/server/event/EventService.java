package app.zolvan.server.event;

import app.zolvan.server.account.OpenStreams;
import app.zolvan.server.database.Outage;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.SynchronousQueue;
import java.util.concurrent.ThreadPoolExecutor;
import java.util.concurrent.TimeUnit;
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
public class EventService implements OpenStreams {
    private static final Logger LOG = LoggerFactory.getLogger(EventService.class);
    /** Name of the event that ends an account's streams. */
    private static final String SIGNED_OUT = "signed-out";

    private static final int MOST_STREAMS = 8;
    private static final int MOST_WRITERS = 200;
    private static final String CHANNEL = "zolvan_event";
    private static final long STREAM_LIFETIME = 30 * 60 * 1000L;
    private static final int WAIT = 500;
    private static final int BEATS = 30;
    /** A notification holds 8,000 bytes: so many accounts and what is told. */
    private static final int AT_ONCE = 120;

    private final EventMapper mapper;
    private final DataSource dataSource;
    private final JsonMapper json;
    private final Map<UUID, List<BrowserStream>> streams = new ConcurrentHashMap<>();
    /** Threads that write to browsers; one that does not read holds one up until the web server gives it up. */
    private final ExecutorService writers = new ThreadPoolExecutor(
            0, MOST_WRITERS, 1, TimeUnit.MINUTES, new SynchronousQueue<>(), EventService::writer);

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

    @Override
    public void close(UUID account) {
        announce(account, SIGNED_OUT, Map.of());
    }

    /** Opens a stream; the oldest of an account ends where it has more than a handful. */
    SseEmitter listen(UUID account) {
        SseEmitter emitter = new SseEmitter(STREAM_LIFETIME);
        BrowserStream stream = new BrowserStream(emitter, writers);
        List<BrowserStream> list = streams.computeIfAbsent(account, a -> new CopyOnWriteArrayList<>());
        list.add(stream);
        while (list.size() > MOST_STREAMS) {
            list.remove(0).end();
        }
        emitter.onCompletion(() -> list.remove(stream));
        emitter.onTimeout(emitter::complete);
        emitter.onError(e -> list.remove(stream));
        stream.tell(hello());
        return emitter;
    }

    /** Has a page look what has happened. */
    private static SseEmitter.SseEventBuilder hello() {
        return SseEmitter.event().name("hello").data("{}");
    }

    private static Thread writer(Runnable work) {
        Thread thread = new Thread(work, "events to a browser");
        thread.setDaemon(true);
        return thread;
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
        writers.shutdown();
        streams.values().forEach(open -> open.forEach(BrowserStream::end));
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
                    tellAll(EventService::hello);
                    missed = false;
                }
                PGConnection pg = connection.unwrap(PGConnection.class);
                for (int beat = 0; running; beat++) {
                    PGNotification[] arrived = pg.getNotifications(WAIT);
                    for (PGNotification n : arrived == null ? new PGNotification[0] : arrived) {
                        deliver(json.readTree(n.getParameter()));
                    }
                    if (beat % BEATS == 0) {
                        tellAll(() -> SseEmitter.event().name("beat").data("{}"));
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
            List<BrowserStream> open = streams.getOrDefault(UUID.fromString(account.asString()), List.of());
            if (name.equals(SIGNED_OUT)) {
                open.forEach(BrowserStream::end);
            } else {
                open.forEach(s -> s.tell(SseEmitter.event().name(name).data(data)));
            }
        }
    }

    private void tellAll(Supplier<SseEmitter.SseEventBuilder> event) {
        streams.values().forEach(open -> open.forEach(s -> s.tell(event.get())));
    }
}
