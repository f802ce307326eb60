package app.zolvan.bench.kill;

import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.json.JsonText;
import app.zolvan.core.exchange.json.JsonValue;
import java.io.IOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.time.Duration;
import java.util.Map;

/** Talks to a server as the page does: with cookies and the CSRF token. */
final class Client {
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final CookieManager cookies = new CookieManager();
    private final HttpClient client = HttpClient.newBuilder()
            .cookieHandler(cookies)
            .connectTimeout(Duration.ofSeconds(2))
            .build();
    private final String base;

    Client(String base) {
        this.base = base;
    }

    /** @param json null where the body is none */
    record Answer(int status, JsonValue json) {}

    Answer get(String path) throws IOException {
        return send("GET", path, null, null, Map.of());
    }

    Answer post(String path, Object body, Map<String, String> headers) throws IOException {
        return send("POST", path, "application/json", JsonText.utf8(body), headers);
    }

    Answer sendFile(String path, String name, byte[] file) throws IOException {
        return send("POST", path, "application/octet-stream", file, Map.of("X-File-Name", name));
    }

    private Answer send(String method, String path, String type, byte[] body, Map<String, String> headers)
            throws IOException {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path))
                .timeout(PATIENCE)
                .method(method, body == null ? BodyPublishers.noBody() : BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        if (type != null) {
            request.header("Content-Type", type);
        }
        for (HttpCookie cookie : cookies.getCookieStore().getCookies()) {
            if (cookie.getName().equals("XSRF-TOKEN")) {
                request.header("X-XSRF-TOKEN", cookie.getValue());
            }
        }
        try {
            HttpResponse<byte[]> r = client.send(request.build(), BodyHandlers.ofByteArray());
            boolean json = r.headers().firstValue("Content-Type").orElse("").contains("json") && r.body().length > 0;
            return new Answer(r.statusCode(), json ? JsonValue.parse(r.body()) : null);
        } catch (ImportException e) {
            throw new IOException("an answer that is cut off", e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IOException(e);
        }
    }
}
