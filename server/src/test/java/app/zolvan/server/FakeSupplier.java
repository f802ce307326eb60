package app.zolvan.server;

import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executors;
import java.util.concurrent.atomic.AtomicInteger;

/** A supplier's catalogue that answers as it is told, on this machine. */
final class FakeSupplier {
    /** @param after milliseconds before it answers */
    private record Answer(int status, byte[] body, int after) {}

    private final HttpServer server;
    private final Map<String, Answer> answers = new ConcurrentHashMap<>();
    final AtomicInteger asked = new AtomicInteger();

    FakeSupplier() {
        try {
            server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        server.setExecutor(Executors.newCachedThreadPool(work -> {
            Thread t = new Thread(work, "fake supplier");
            t.setDaemon(true);
            return t;
        }));
        server.createContext("/", e -> {
            asked.incrementAndGet();
            Answer a = answers.getOrDefault(e.getRequestURI().getPath(), new Answer(404, new byte[0], 0));
            try (e) {
                Thread.sleep(a.after);
                e.sendResponseHeaders(a.status, a.body.length == 0 ? -1 : a.body.length);
                e.getResponseBody().write(a.body);
            } catch (InterruptedException stop) {
                Thread.currentThread().interrupt();
            }
        });
        server.start();
    }

    String address() {
        return "http://127.0.0.1:" + server.getAddress().getPort();
    }

    void answer(String path, int status, byte[] body, int after) {
        answers.put(path, new Answer(status, body, after));
    }

    void article(String number, String json, byte[] photo) {
        answer("/articles/" + number, 200, json.getBytes(StandardCharsets.UTF_8), 0);
        answer("/photos/" + number, 200, photo, 0);
    }
}
