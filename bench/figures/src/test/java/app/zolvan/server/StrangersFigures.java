package app.zolvan.server;

import static java.nio.charset.StandardCharsets.US_ASCII;
import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.Test;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.test.context.TestPropertySource;

/** Prints how a designer fares while strangers knock, while eleven send files slowly, and how a slow line gets a large file. */
@TestPropertySource(properties = {"zolvan.sign-in.strength=10", "zolvan.sign-in.tries=1000000"})
class StrangersFigures extends ProjectTest {
    private static final int SECONDS = 20;
    private static final int STRANGERS = 16;
    private static final int SENDERS = 11;
    private static final int LARGE = 200 << 20;
    /** Bytes a second of a line of 5 Mbit/s. */
    private static final int SLOW_LINE = 625_000;

    @LocalServerPort
    private int port;

    /** Milliseconds of a designer's changes, one after the other, until it is told to stop. */
    private double[] changing(int seconds) {
        List<Double> times = new ArrayList<>();
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(seconds);
        while (System.nanoTime() < end) {
            long start = System.nanoTime();
            assign("part", 0, times.size() % 2 == 0 ? "LE-002" : "PT-014");
            times.add((System.nanoTime() - start) / 1e6);
        }
        return times.stream().mapToDouble(Double::doubleValue).sorted().toArray();
    }

    private static String told(double[] sorted) {
        return String.format(
                "%d changes, p50 %.0f ms, p95 %.0f ms",
                sorted.length, sorted[sorted.length / 2], sorted[sorted.length * 95 / 100]);
    }

    @Test
    void aDesignerWorksWhileStrangersKnock() throws Exception {
        open(newProject());
        System.out.println("FIGURE alone: " + told(changing(SECONDS)));
        AtomicInteger answered = new AtomicInteger();
        AtomicInteger turnedAway = new AtomicInteger();
        ExecutorService knocking = Executors.newFixedThreadPool(STRANGERS);
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(SECONDS);
        for (int i = 0; i < STRANGERS; i++) {
            knocking.execute(() -> {
                Browser b = stranger();
                b.get("/api/session/start");
                while (System.nanoTime() < end) {
                    Map<String, Object> guess = Map.of(
                            "login", "somebody", "password", UUID.randomUUID().toString());
                    (b.post("/api/session", guess).status() == 429 ? turnedAway : answered).incrementAndGet();
                }
            });
        }
        double[] times = changing(SECONDS);
        knocking.shutdown();
        assertThat(knocking.awaitTermination(1, TimeUnit.MINUTES)).isTrue();
        System.out.printf(
                "FIGURE %d strangers try passwords: %.1f a second answered, %.1f turned away; a designer meanwhile: %s%n",
                STRANGERS, answered.get() / (double) SECONDS, turnedAway.get() / (double) SECONDS, told(times));
    }

    @Test
    void aDesignerWorksWhileElevenSendFilesSlowly() throws Exception {
        open(newProject());
        List<Socket> senders = new ArrayList<>();
        for (int i = 0; i < SENDERS; i++) {
            senders.add(sender(i, browser));
        }
        AtomicInteger bytes = new AtomicInteger();
        Thread trickle = new Thread(() -> {
            try {
                while (!Thread.currentThread().isInterrupted()) {
                    for (Socket s : senders) {
                        s.getOutputStream().write(new byte[1000]);
                        bytes.addAndGet(1000);
                    }
                    Thread.sleep(100);
                }
            } catch (IOException | InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        trickle.start();
        double[] times = changing(SECONDS);
        trickle.interrupt();
        for (Socket s : senders) {
            s.close();
        }
        System.out.printf(
                "FIGURE %d slow senders (%d kB so far); a designer meanwhile: %s%n",
                SENDERS, bytes.get() / 1000, told(times));
        assertThat(bytes.get()).isPositive();
    }

    /** Somebody of an address of their own who has begun to send a file of 2 MB. */
    private Socket sender(int i, Browser as) throws IOException {
        Socket s = new Socket();
        s.bind(new InetSocketAddress(InetAddress.getByAddress(new byte[] {127, 0, 0, (byte) (10 + i)}), 0));
        s.connect(new InetSocketAddress(InetAddress.getLoopbackAddress(), port));
        String request = "POST /api/imports HTTP/1.1\r\nHost: 127.0.0.1\r\nContent-Type: application/octet-stream\r\n"
                + "X-File-Name: slow.glb\r\nContent-Length: 2000000\r\n" + as.cookieHeaders() + "\r\n";
        s.getOutputStream().write(request.getBytes(US_ASCII));
        return s;
    }

    @Test
    void aSlowLineGetsALargeFile() throws Exception {
        open(newProject());
        String sha256 = UUID.randomUUID().toString().replace("-", "").repeat(2);
        Long id = database.queryForObject(
                "insert into asset (sha256, size, media_type) values (?, ?, 'application/octet-stream') returning id",
                Long.class,
                sha256,
                (long) LARGE);
        database.update(
                "insert into asset_chunk (asset_id, seq, bytes) select ?, i, decode(repeat(md5(i::text), 65536), 'hex')"
                        + " from generate_series(0, ?) i",
                id,
                (LARGE >> 20) - 1);
        database.update(
                "insert into project_asset (project_id, sha256) values (?::uuid, ?)", project.substring(14), sha256);
        long start = System.nanoTime();
        long read = 0;
        try (Socket s = new Socket(InetAddress.getLoopbackAddress(), port)) {
            s.setReceiveBufferSize(1 << 16);
            String request = "GET " + project + "/assets/" + sha256 + " HTTP/1.1\r\nHost: 127.0.0.1\r\n"
                    + "Connection: close\r\n" + browser.cookieHeaders() + "\r\n";
            s.getOutputStream().write(request.getBytes(US_ASCII));
            InputStream in = s.getInputStream();
            byte[] buffer = new byte[SLOW_LINE / 10];
            for (int n = in.readNBytes(buffer, 0, buffer.length); n > 0; n = in.readNBytes(buffer, 0, buffer.length)) {
                read += n;
                long due = start + (long) (1e9 * read / SLOW_LINE);
                TimeUnit.NANOSECONDS.sleep(Math.max(0, due - System.nanoTime()));
            }
        }
        System.out.printf(
                "FIGURE %d MB at 5 Mbit/s: %d MB came in %.0f s%n",
                LARGE >> 20, read >> 20, (System.nanoTime() - start) / 1e9);
        assertThat(read).isGreaterThan(LARGE);
        database.update("delete from project_asset where sha256 = ?", sha256);
        database.update("delete from asset where sha256 = ?", sha256);
    }
}
