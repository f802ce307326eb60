package app.zolvan.server;

import static org.awaitility.Awaitility.await;

import app.zolvan.server.account.AccountService;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpRequest.BodyPublishers;
import java.net.http.HttpResponse;
import java.net.http.HttpResponse.BodyHandlers;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Talks to the server as a browser does: with cookies, the CSRF token and If-Match. */
public final class Browser {
    private String login = "";
    static final JsonMapper JSON = JsonMapper.builder().build();
    private static final String PASSWORD = "a-long-password";

    private final CookieManager cookies = new CookieManager();
    private final HttpClient client =
            HttpClient.newBuilder().cookieHandler(cookies).build();
    private final String base;

    Browser(int port) {
        base = "http://127.0.0.1:" + port;
    }

    /** What came back; {@code json} is null where the body is something else. */
    public record Answer(int status, JsonNode json, byte[] body, HttpResponse<byte[]> raw) {
        String problem() {
            return json.get("type").asString().replace("urn:zolvan:problem:", "");
        }

        String text() {
            return new String(body, StandardCharsets.UTF_8);
        }

        public String sentence() {
            return json.get("detail").asString();
        }
    }

    /** A request as a proxy that speaks TLS passes it on. */
    Answer getThroughProxy(String path) {
        return send("GET", path, null, null, Map.of("X-Forwarded-Proto", "https", "X-Forwarded-For", "203.0.113.7"));
    }

    public Answer get(String path) {
        return send("GET", path, null, null, Map.of());
    }

    public Answer post(String path, Object body) {
        return send("POST", path, "application/json", JSON.writeValueAsBytes(body), Map.of());
    }

    Answer post(String path, Object body, long version) {
        return change("POST", path, body, version);
    }

    Answer put(String path, Object body, long version) {
        return change("PUT", path, body, version);
    }

    /** A command under a key, as a page sends it that may have to send it again. */
    Answer post(String path, Object body, long version, UUID key) {
        return send(
                "POST",
                path,
                "application/json",
                JSON.writeValueAsBytes(body),
                Map.of("If-Match", "\"" + version + "\"", "Idempotency-Key", "\"" + key + "\""));
    }

    private Answer change(String method, String path, Object body, long version) {
        return send(
                method,
                path,
                "application/json",
                JSON.writeValueAsBytes(body),
                Map.of("If-Match", "\"" + version + "\""));
    }

    Answer put(String path, Object body) {
        return send("PUT", path, "application/json", JSON.writeValueAsBytes(body), Map.of());
    }

    Answer putJpeg(String path, byte[] jpeg) {
        return send("PUT", path, "image/jpeg", jpeg, Map.of());
    }

    /** Sends a file as the body. */
    Answer sendFile(String path, String name, byte[] file) {
        return send("POST", path, "application/octet-stream", file, Map.of("X-File-Name", name));
    }

    Answer delete(String path, long version) {
        return send("DELETE", path, null, null, Map.of("If-Match", "\"" + version + "\""));
    }

    public Answer delete(String path) {
        return send("DELETE", path, null, null, Map.of());
    }

    Answer upload(String name, byte[] file) {
        return upload("", name, file);
    }

    private Answer upload(String query, String name, byte[] file) {
        return sendFile("/api/imports" + query, name, file);
    }

    /** Starts comparing a newer file with a project's model. */
    Answer uploadNewer(String project, String name, byte[] file) {
        return upload("?update=true&project=" + project, name, file);
    }

    /** Starts taking files that a project's model lacks. */
    Answer uploadLate(String project, String name, byte[] file) {
        return upload("?late=true&project=" + project, name, file);
    }

    /** Starts adding a file's model to a project. */
    Answer uploadBeside(String project, String belonging, String name, byte[] file) {
        return upload("?beside=" + belonging + "&project=" + project, name, file);
    }

    Answer signIn(String login, String password) {
        get("/api/session/start"); // brings the CSRF cookie
        return post("/api/session", Map.of("login", login, "password", password));
    }

    /** Signs in as a fresh account made by the given maker. */
    public Browser asNewDesigner(AccountService accounts) {
        login = "designer-" + UUID.randomUUID();
        accounts.create(login, "", PASSWORD);
        signIn(login, PASSWORD);
        return this;
    }

    /** Signs in as somebody who has signed in elsewhere. */
    void signInAs(Browser elsewhere) {
        login = elsewhere.login;
        signIn(login, PASSWORD);
    }

    /** Who has signed in. */
    String login() {
        return login;
    }

    /** Uploads a file and waits until its job is over. */
    JsonNode importFile(String name, byte[] file) throws InterruptedException {
        return ended(upload(name, file));
    }

    /** Gives a project the triangles of a file and waits for the job's end. */
    JsonNode importInto(UUID project, String name, byte[] file) throws InterruptedException {
        return ended(upload("?project=" + project, name, file));
    }

    /** Gives a project the materials of a file and waits for the job's end. */
    JsonNode importMaterials(UUID project, String name, byte[] file) throws InterruptedException {
        return ended(sendMaterials(project, name, file));
    }

    Answer sendMaterials(UUID project, String name, byte[] file) {
        return upload("?materials=true&project=" + project, name, file);
    }

    /** Waits for the end of a job that was just submitted. */
    JsonNode ended(Answer submitted) throws InterruptedException {
        return waitFor(UUID.fromString(submitted.json().get("id").asString()));
    }

    /** Waits for the end of a job, or for its question. */
    public JsonNode waitFor(UUID job) {
        return await().atMost(1, TimeUnit.MINUTES)
                .pollInterval(20, TimeUnit.MILLISECONDS)
                .until(
                        () -> get("/api/jobs/" + job).json(),
                        state -> !state.get("state").asString().matches("QUEUED|RUNNING"));
    }

    void forgetCsrf() {
        HttpCookie session = cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("zolvan-session"))
                .findFirst()
                .orElseThrow();
        cookies.getCookieStore().removeAll();
        cookies.getCookieStore().add(URI.create(base), session);
    }

    /** The headers by which a request that is written by hand counts as this browser's. */
    String cookieHeaders() {
        StringBuilder cookie = new StringBuilder();
        StringBuilder token = new StringBuilder();
        for (HttpCookie c : cookies.getCookieStore().getCookies()) {
            cookie.append(cookie.length() > 0 ? "; " : "")
                    .append(c.getName())
                    .append('=')
                    .append(c.getValue());
            if (c.getName().equals("XSRF-TOKEN")) {
                token.append("X-XSRF-TOKEN: ").append(c.getValue()).append("\r\n");
            }
        }
        return "Cookie: " + cookie + "\r\n" + token;
    }

    /** The stream of events, opened now. */
    EventStream events() {
        BlockingQueue<String> lines = new LinkedBlockingQueue<>();
        HttpRequest request =
                HttpRequest.newBuilder(URI.create(base + "/api/events")).build();
        CompletableFuture<Void> reading = client.sendAsync(request, BodyHandlers.ofLines())
                .thenAccept(r -> r.body().forEach(lines::add));
        return new EventStream(lines, reading);
    }

    Answer send(String method, String path, String type, byte[] body, Map<String, String> headers) {
        HttpRequest.Builder request = HttpRequest.newBuilder(URI.create(base + path))
                .method(method, body == null ? BodyPublishers.noBody() : BodyPublishers.ofByteArray(body));
        headers.forEach(request::header);
        if (type != null) {
            request.header("Content-Type", type);
        }
        cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals("XSRF-TOKEN"))
                .forEach(c -> request.header("X-XSRF-TOKEN", c.getValue()));
        try {
            HttpResponse<byte[]> r = client.send(request.build(), BodyHandlers.ofByteArray());
            boolean json = r.headers().firstValue("Content-Type").orElse("").contains("json") && r.body().length > 0;
            JsonNode tree = json ? JSON.readTree(new String(r.body(), StandardCharsets.UTF_8)) : null;
            return new Answer(r.statusCode(), tree, r.body(), r);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
