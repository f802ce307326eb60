package app.zolvan.bench.kill;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/** A Zolvan that {@code ./zolvan start} runs and watches over, on data of its own. */
final class Launched implements AutoCloseable {
    private static final String READY = "Zolvan is ready:";
    private static final long PATIENCE_S = 600;

    private final Process launcher;
    private final Path data;
    private final String address;

    private Launched(Process launcher, Path data, String address) {
        this.launcher = launcher;
        this.data = data;
        this.address = address;
    }

    /**
     * @param root of the project
     * @param data folder for the database and its logs
     * @param app  folder with the unpacked application; null to build it
     */
    static Launched start(Path root, Path data, Path app) throws IOException {
        ProcessBuilder builder = new ProcessBuilder(root.resolve("zolvan").toString(), "start");
        Map<String, String> environment = builder.environment();
        environment
                .keySet()
                .removeIf(k -> (k.startsWith("ZOLVAN_") && !k.equals("ZOLVAN_LIBRARY")) || k.startsWith("PG"));
        environment.put("ZOLVAN_VAR", data.toAbsolutePath().toString());
        environment.put("ZOLVAN_PORT", "18080");
        environment.put("ZOLVAN_MOST_DEATHS", "1000000");
        if (app != null) {
            environment.put("ZOLVAN_APP", app.toAbsolutePath().toString());
        }
        Process process = builder.redirectErrorStream(true).start();
        BufferedReader said =
                new BufferedReader(new InputStreamReader(process.getInputStream(), StandardCharsets.UTF_8));
        StringBuilder all = new StringBuilder();
        for (String line = said.readLine(); line != null; line = said.readLine()) {
            all.append(line).append('\n');
            if (line.contains(READY)) {
                String address = line.substring(line.indexOf("http")).strip();
                Thread drain = new Thread(() -> said.lines().forEach(l -> {}), "launcher");
                drain.setDaemon(true);
                drain.start();
                return new Launched(process, data, address);
            }
        }
        throw new IOException("Zolvan did not start: " + all);
    }

    String address() {
        return address;
    }

    /** The application's process; 0 while there is none. */
    long application() throws IOException {
        try (Stream<ProcessHandle> children = launcher.children()) {
            return children.filter(p -> p.info().commandLine().orElse("").contains("zolvan.jar"))
                    .mapToLong(ProcessHandle::pid)
                    .findFirst()
                    .orElse(0);
        }
    }

    /** The database's first process; 0 while there is none. */
    long database() throws IOException {
        Path lock = home().resolve("data/postmaster.pid");
        return Files.exists(lock)
                ? Long.parseLong(Files.readAllLines(lock).get(0).strip())
                : 0;
    }

    String databaseUrl() throws IOException {
        String port =
                Files.readAllLines(home().resolve("data/postmaster.pid")).get(3).strip();
        return "jdbc:postgresql://127.0.0.1:" + port + "/zolvan";
    }

    String databasePassword() throws IOException {
        return Files.readString(home().resolve("password")).strip();
    }

    /** The word that proves who started it; there until the first account is made. */
    String setUpWord() throws IOException {
        return Files.readString(data.resolve("application/set-up-word")).strip();
    }

    private Path home() throws IOException {
        return Path.of(Files.readString(data.resolve("postgres.place")).strip());
    }

    @Override
    public void close() {
        launcher.destroy();
        try {
            launcher.waitFor(PATIENCE_S, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
