package app.zolvan.bench.kill;

import app.zolvan.core.exchange.ImportException;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;

/**
 * A designer who renames a part again and again, each time with another number, and imports a file now and then. What is
 * not answered is sent again under the same key, as the page does; what is answered with 200 counts as acknowledged.
 */
final class Editor {
    private static final String LOGIN = "tester";
    private static final String PASSWORD = "a-long-password";
    private static final int IMPORT_EVERY = 25;
    private static final byte[] PLATE =
            "o Plate\nv 0 0 0\nv 1 0 0\nv 1 0 1\nv 0 0 1\nf 4 3 2 1\n".getBytes(StandardCharsets.UTF_8);

    private final Client client;
    private final List<Integer> acknowledged = new ArrayList<>();
    private final List<String> jobs = new ArrayList<>();
    private String project;
    private long version;
    private int next = 1;
    private int sentAgain;
    private long recovered = Long.MIN_VALUE;

    Editor(String address) {
        client = new Client(address);
    }

    /**
     * Makes the first account, and a project of one part.
     *
     * @param word that proves who started Zolvan
     */
    void begin(String word) throws IOException, ImportException, InterruptedException {
        client.get("/api/session/start");
        client.post(
                "/api/session/first",
                Map.of("word", word, "login", LOGIN, "displayName", "", "password", PASSWORD),
                Map.of());
        signIn();
        String job = client.sendFile("/api/imports", "plate.obj", PLATE)
                .json()
                .require("id")
                .text();
        project = "/api/projects/" + finished(job).json().require("result").text();
        version =
                (long) client.get(project + "/state").json().require("version").number();
    }

    private Client.Answer finished(String job) throws IOException, ImportException, InterruptedException {
        while (true) {
            Client.Answer state = client.get("/api/jobs/" + job);
            switch (state.json().require("state").text()) {
                case "ASKING" ->
                    client.post("/api/jobs/" + job + "/answer", Map.of("unit", "m", "upAxis", "Y"), Map.of());
                case "QUEUED", "RUNNING" -> Thread.sleep(50);
                default -> {
                    return state;
                }
            }
        }
    }

    private void signIn() throws IOException {
        client.get("/api/session/start");
        client.post("/api/session", Map.of("login", LOGIN, "password", PASSWORD), Map.of());
    }

    /** One edit, until it is acknowledged. */
    void edit() throws ImportException {
        int n = next++;
        Map<String, String> headers = Map.of(
                "If-Match",
                "\"" + version + "\"",
                "Idempotency-Key",
                UUID.randomUUID().toString());
        Map<String, Object> names = Map.of("names", List.of(Map.of("part", 0, "name", "Edit " + n)));
        for (int tries = 0; ; tries++) {
            Client.Answer answer = tried(() -> client.post(project + "/parts/names", names, headers));
            if (answer != null && answer.status() == 200) {
                version = (long) answer.json().require("version").number();
                acknowledged.add(n);
                if (tries > 0) {
                    sentAgain++;
                    recovered = System.nanoTime();
                }
                break;
            }
            if (answer != null && answer.status() == 401) {
                tried(() -> {
                    signIn();
                    return null;
                });
            } else if (answer != null && answer.status() != 503) {
                throw new IllegalStateException("edit " + n + " was answered with " + answer.status());
            }
            pause(40);
        }
        if (n % IMPORT_EVERY == 0) {
            Client.Answer job = tried(() -> client.sendFile("/api/imports", "plate-" + n + ".obj", PLATE));
            if (job != null && job.status() == 202) {
                jobs.add(job.json().require("id").text());
            }
        }
    }

    private interface Call {
        Client.Answer now() throws IOException;
    }

    private static Client.Answer tried(Call call) {
        try {
            return call.now();
        } catch (IOException e) {
            return null;
        }
    }

    private static void pause(long ms) {
        try {
            Thread.sleep(ms);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    /** Jobs that have not come to their question or their end, of those that were taken. */
    List<String> unfinished() throws IOException, ImportException {
        List<String> out = new ArrayList<>();
        for (String job : jobs) {
            String state =
                    client.get("/api/jobs/" + job).json().require("state").text();
            if (!state.equals("ASKING") && !state.equals("DONE")) {
                out.add(job + " " + state);
            }
        }
        return out;
    }

    String shown() throws IOException, ImportException {
        return client.get(project + "/scene")
                .json()
                .require("parts")
                .elements()
                .get(0)
                .require("name")
                .text();
    }

    UUID project() {
        return UUID.fromString(project.substring(project.lastIndexOf('/') + 1));
    }

    List<Integer> acknowledged() {
        return acknowledged;
    }

    int jobs() {
        return jobs.size();
    }

    int sentAgain() {
        return sentAgain;
    }

    /** Time of the newest acknowledgement of an edit that was sent again, in {@link System#nanoTime()}. */
    long recovered() {
        return recovered;
    }
}
