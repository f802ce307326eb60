package app.zolvan.e2e;

import app.zolvan.demo.DemoFiles;
import app.zolvan.demo.SupplierCatalogue;
import com.microsoft.playwright.Browser;
import com.microsoft.playwright.BrowserType;
import com.microsoft.playwright.Page;
import com.microsoft.playwright.Playwright;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;

/**
 * The built application with the demo data, started once for all tests on a free port and the throwaway database that
 * {@code ./zolvan test} gives, and a headless Chromium to drive it.
 */
final class RunningZolvan {
    static final String LOGIN = "demo";
    static final String PASSWORD = "harbour-lantern";
    private static RunningZolvan instance;

    final String address;
    final long pid;
    private final Browser browser;

    /** Milliseconds; a busy machine may take this long over a few frames. */
    private static final int PATIENCE = 480_000;

    private RunningZolvan() throws IOException, InterruptedException {
        int port;
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        Path demo = Files.createTempDirectory("zolvan-demo");
        DemoFiles.write(demo);
        Path log = Path.of("target/application.log");
        Files.createDirectories(log.getParent());
        String host = System.getenv().getOrDefault("ZOLVAN_DB_HOST", "127.0.0.1:5432");
        ProcessBuilder builder = new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx2g",
                "-jar",
                jar().toString(),
                "--server.port=" + port,
                "--zolvan.demo=" + demo,
                "--zolvan.supplier=http://127.0.0.1:"
                        + new SupplierCatalogue(null).serve(0).getAddress().getPort(),
                "--zolvan.upload-limit=" + (Boolean.getBoolean("zolvan.figures") ? "200MB" : "20MB"),
                "--spring.datasource.url=jdbc:postgresql://" + host + "/zolvan_e2e");
        Process process =
                builder.redirectErrorStream(true).redirectOutput(log.toFile()).start();
        pid = process.pid();
        address = "http://127.0.0.1:" + port;
        Runtime.getRuntime().addShutdownHook(new Thread(process::destroyForcibly));
        waitUntilReady(process, log);
        browser = Playwright.create()
                .chromium()
                .launch(new BrowserType.LaunchOptions()
                        .setExecutablePath(Path.of("/usr/bin/chromium"))
                        .setArgs(List.of(
                                "--no-sandbox",
                                "--use-angle=swiftshader",
                                "--enable-unsafe-swiftshader",
                                "--ignore-gpu-blocklist",
                                "--disable-background-networking",
                                "--disable-component-update",
                                "--disable-sync",
                                "--no-first-run")));
    }

    static synchronized RunningZolvan get() {
        if (instance == null) {
            try {
                instance = new RunningZolvan();
            } catch (IOException e) {
                throw new IllegalStateException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }
        return instance;
    }

    private static Path jar() throws IOException {
        try (Stream<Path> files = Files.list(Path.of("../server/target"))) {
            return files.filter(f -> f.toString().endsWith("-app.jar"))
                    .findFirst()
                    .orElseThrow(() -> new IllegalStateException("build the server first: ./zolvan test"));
        }
    }

    private void waitUntilReady(Process process, Path log) throws IOException, InterruptedException {
        long end = System.nanoTime() + TimeUnit.SECONDS.toNanos(120);
        while (System.nanoTime() < end) {
            if (!process.isAlive()) {
                throw new IllegalStateException("the application ended: " + Files.readString(log));
            }
            try {
                HttpURLConnection c = (HttpURLConnection) URI.create(address + "/actuator/health/readiness")
                        .toURL()
                        .openConnection();
                if (c.getResponseCode() == 200) {
                    return;
                }
            } catch (IOException e) {
                // not listening yet
            }
            Thread.sleep(200);
        }
        throw new IllegalStateException("the application did not answer: " + Files.readString(log));
    }

    /**
     * A page of 1280 × 800 in a browser profile of its own.
     *
     * @param sharpness screen pixels along a CSS pixel: a frame takes seconds where graphics are software, so below 1 where
     *                  nobody looks
     */
    Page newPage(double sharpness) {
        Page page = browser.newContext(new Browser.NewContextOptions()
                        .setViewportSize(1280, 800)
                        .setDeviceScaleFactor(sharpness)
                        .setAcceptDownloads(true))
                .newPage();
        page.setDefaultTimeout(PATIENCE);
        page.setDefaultNavigationTimeout(PATIENCE);
        return page;
    }
}
