package app.zolvan.demo;

import app.zolvan.core.colour.CieLab;
import app.zolvan.core.exchange.json.JsonText;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URLDecoder;
import java.nio.charset.StandardCharsets;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.random.RandomGenerator;

/**
 * Stands in for a handheld colour reader on a shelf of made-up samples, behind HTTP on this machine alone. As real ones do, it
 * needs its white tile now and then, drifts between calibrations, and gives a slightly different reading each time: the
 * noise of a CIELAB component has a standard deviation of 0.06, so that readings of one sample lie about 0.1 ΔE apart.
 *
 * <p>{@code GET /state}, {@code POST /calibrate}, {@code POST /read?sample=NAME}.
 */
public final class ColourReader {
    private static final double NOISE = 0.06;
    /** What the lamp's ageing adds to L* with each reading. */
    private static final double DRIFT = 0.004;

    /** Readings that it gives between calibrations. */
    static final int MOST = 60;

    private static final Map<String, CieLab> SAMPLES = samples();

    private final RandomGenerator random;
    private int sinceCalibration = MOST;

    ColourReader(RandomGenerator random) {
        this.random = random;
    }

    private static Map<String, CieLab> samples() {
        Map<String, CieLab> all = new LinkedHashMap<>();
        all.put("Hall wall, lime plaster", new CieLab(88.4, 0.9, 5.2));
        all.put("Hall wall, repaired patch", new CieLab(87.9, 0.2, 4.1));
        all.put("Harbour gate, red paint", new CieLab(36.8, 48.1, 31.6));
        all.put("Boat hull, blue enamel", new CieLab(31.5, -2.4, -28.7));
        all.put("Deck board, weathered", new CieLab(58.2, 1.1, 6.4));
        all.put("Slate step", new CieLab(41.7, -0.6, -2.2));
        all.put("Canvas awning", new CieLab(79.3, 1.8, 11.9));
        all.put("Kitchen front, grey", new CieLab(63.5, -1.3, 0.8));
        return all;
    }

    synchronized boolean isCalibrated() {
        return sinceCalibration < MOST;
    }

    synchronized void calibrate() {
        sinceCalibration = 0;
    }

    /** @return CIELAB under D65; null where the reader wants its white tile first or has no such sample */
    synchronized CieLab read(String sample) {
        CieLab truth = SAMPLES.get(sample);
        if (truth == null || !isCalibrated()) {
            return null;
        }
        double drift = DRIFT * sinceCalibration++;
        return new CieLab(
                truth.l() - drift + NOISE * random.nextGaussian(),
                truth.a() + NOISE * random.nextGaussian(),
                truth.b() + NOISE * random.nextGaussian());
    }

    private synchronized Map<String, Object> state() {
        Map<String, Object> state = new LinkedHashMap<>();
        state.put("calibrated", isCalibrated());
        state.put("left", MOST - sinceCalibration);
        state.put("samples", List.copyOf(SAMPLES.keySet()));
        return state;
    }

    private void handle(HttpExchange e) throws IOException {
        try (e) {
            String path = e.getRequestMethod() + " " + e.getRequestURI().getPath();
            switch (path) {
                case "GET /state" -> answer(e, 200, state());
                case "POST /calibrate" -> {
                    calibrate();
                    answer(e, 200, state());
                }
                case "POST /read" -> read(e);
                default -> answer(e, 404, Map.of());
            }
        }
    }

    private void read(HttpExchange e) throws IOException {
        String query = e.getRequestURI().getRawQuery();
        String sample = query != null && query.startsWith("sample=")
                ? URLDecoder.decode(query.substring(7), StandardCharsets.UTF_8)
                : "";
        CieLab read = read(sample);
        if (read == null) {
            answer(e, isCalibrated() ? 404 : 409, Map.of());
        } else {
            answer(e, 200, Map.of("lab", new double[] {read.l(), read.a(), read.b()}));
        }
    }

    private static void answer(HttpExchange e, int status, Map<String, Object> body) throws IOException {
        byte[] json = JsonText.utf8(body);
        e.getResponseHeaders().set("Content-Type", "application/json");
        e.sendResponseHeaders(status, json.length);
        e.getResponseBody().write(json);
    }

    /** Starts answering on a port of the loopback address; 0 takes a free one. */
    HttpServer serve(int port) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), port), 0);
        server.createContext("/", this::handle);
        server.start();
        return server;
    }

    /** @param args the port */
    public static void main(String[] args) throws IOException {
        new ColourReader(RandomGenerator.getDefault()).serve(Integer.parseInt(args[0]));
    }
}
