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
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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

    /** Milliseconds that the page may take over anything but drawing. */
    private static final int PATIENCE = 30_000;

    /** Storage state of a signed-in browser: cookies and local storage. */
    private String session;

    /** Pages on the list of projects that nobody uses, by their sharpness: they have their shaders compiled already. */
    private final Map<Double, Deque<Page>> idle = new HashMap<>();

    private RunningZolvan() throws IOException, InterruptedException {
        int port;
        try (ServerSocket socket = new ServerSocket(0)) {
            port = socket.getLocalPort();
        }
        Path demo = Files.createTempDirectory("zolvan-demo");
        DemoFiles.write(demo);
        Path log = Path.of("target/application.log");
        Files.createDirectories(log.getParent());
        ProcessBuilder builder = new ProcessBuilder(
                Path.of(System.getProperty("java.home"), "bin", "java").toString(),
                "-Xmx2g",
                "--add-modules=jdk.incubator.vector",
                "-jar",
                jar().toString(),
                "--server.port=" + port,
                "--zolvan.demo=" + demo,
                "--zolvan.supplier=http://127.0.0.1:"
                        + new SupplierCatalogue(null).serve(0).getAddress().getPort(),
                "--zolvan.upload-limit=" + (Boolean.getBoolean("zolvan.figures") ? "200MB" : "20MB"),
                "--zolvan.imports.log=target/imports.log",
                "--zolvan.jobs.poll=50ms",
                "--zolvan.chips.samples=1",
                "--spring.datasource.url=" + databaseUrl(),
                "--spring.datasource.username=zolvan_app",
                "--spring.datasource.password=" + System.getenv("ZOLVAN_ROLE_PASSWORD"),
                "--spring.flyway.user=zolvan",
                "--spring.flyway.password=" + System.getenv("ZOLVAN_DB_PASSWORD"));
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
                                // Mesa's software renderer: twice as quick as the browser's own, and it keeps its
                                // shaders
                                "--use-gl=angle",
                                "--use-angle=gl-egl",
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

    static String databaseUrl() {
        String host = System.getenv().getOrDefault("ZOLVAN_DB_HOST", "127.0.0.1:5432");
        return "jdbc:postgresql://" + host + "/zolvan_e2e";
    }

    static Path jar() throws IOException {
        Path root = Path.of("").toAbsolutePath();
        while (!Files.exists(root.resolve("zolvan"))) {
            root = root.getParent();
        }
        try (Stream<Path> files = Files.list(root.resolve("server/target"))) {
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
     * A page of 1280 × 800, signed in, on the list of projects.
     *
     * @param sharpness screen pixels along a CSS pixel: a frame takes seconds where graphics are software, so below 1 where
     *                  nobody looks
     */
    Page takePage(double sharpness) {
        Page waiting = idle.computeIfAbsent(sharpness, s -> new ArrayDeque<>()).poll();
        if (waiting != null) {
            return waiting;
        }
        if (session == null) {
            Page page = newStranger();
            signIn(page);
            session = page.context().storageState();
            page.context().close();
        }
        Page page = page(options(sharpness).setStorageState(session));
        page.navigate(address + "/projects");
        page.waitForSelector("article");
        return page;
    }

    /** Takes back a page that is on the list of projects. */
    void giveBack(Page page, double sharpness) {
        idle.get(sharpness).push(page);
    }

    /** A request of somebody who has not signed in. */
    Page newStranger() {
        return page(options(0.5));
    }

    private void signIn(Page page) {
        page.navigate(address + "/sign-in");
        page.fill("[name=login]", LOGIN);
        page.fill("[name=password]", PASSWORD);
        page.click("button[type=submit]");
        page.waitForURL("**/projects");
    }

    private static Browser.NewContextOptions options(double sharpness) {
        return new Browser.NewContextOptions()
                .setViewportSize(1280, 800)
                .setDeviceScaleFactor(sharpness)
                .setAcceptDownloads(true);
    }

    private Page page(Browser.NewContextOptions options) {
        Page page = browser.newContext(options).newPage();
        page.setDefaultTimeout(PATIENCE);
        page.setDefaultNavigationTimeout(PATIENCE);
        return page;
    }
}
