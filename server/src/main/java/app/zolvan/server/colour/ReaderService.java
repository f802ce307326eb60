package app.zolvan.server.colour;

import app.zolvan.core.colour.CieLab;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.io.IOException;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Speaks to a colour reader over HTTP, at the one address that the installation was started with. */
@Service
class ReaderService {
    private static final Duration PATIENCE = Duration.ofSeconds(3);
    private static final int READINGS = 3;

    private final HttpClient client =
            HttpClient.newBuilder().connectTimeout(PATIENCE).build();
    private final String address;
    private final JsonMapper json;

    ReaderService(ZolvanProperties properties, JsonMapper json) {
        this.address = properties.colourReader() == null ? "" : properties.colourReader();
        this.json = json;
    }

    /**
     * @param connected  whether a reader belongs to this installation
     * @param calibrated whether it can read
     * @param left       readings until it wants its white tile again
     * @param samples    what it can be held on
     */
    record ReaderState(boolean connected, boolean calibrated, int left, List<String> samples) {}

    /**
     * @param colour   mean of some readings
     * @param readings how many
     * @param scatter  how far they lie from their mean, as a mean ΔE2000
     */
    record Reading(String sample, ColourWire colour, int readings, double scatter) {}

    ReaderState state() {
        return address.isEmpty() ? new ReaderState(false, false, 0, List.of()) : state(ask("GET", "/state"));
    }

    ReaderState calibrate() {
        return state(ask("POST", "/calibrate"));
    }

    private static ReaderState state(JsonNode n) {
        List<String> samples = new ArrayList<>();
        n.path("samples").forEach(s -> samples.add(s.asString("")));
        return new ReaderState(
                true, n.path("calibrated").asBoolean(false), n.path("left").asInt(0), samples);
    }

    Reading read(String sample) {
        String path = "/read?sample=" + URLEncoder.encode(sample, StandardCharsets.UTF_8);
        List<CieLab> read = new ArrayList<>();
        for (int i = 0; i < READINGS; i++) {
            JsonNode lab = ask("POST", path).path("lab");
            read.add(new CieLab(number(lab, 0), number(lab, 1), number(lab, 2)));
        }
        CieLab mean = new CieLab(
                read.stream().mapToDouble(CieLab::l).average().orElse(0),
                read.stream().mapToDouble(CieLab::a).average().orElse(0),
                read.stream().mapToDouble(CieLab::b).average().orElse(0));
        double scatter = read.stream().mapToDouble(mean::difference).average().orElse(0);
        return new Reading(sample, ColourWire.of(mean.toSrgbGamut()), READINGS, scatter);
    }

    private static double number(JsonNode list, int i) {
        double v = list.path(i).asDouble(Double.NaN);
        if (!Double.isFinite(v) || Math.abs(v) > 200) {
            throw unreachable();
        }
        return v;
    }

    private JsonNode ask(String method, String path) {
        if (address.isEmpty()) {
            throw unreachable();
        }
        HttpRequest request = HttpRequest.newBuilder(URI.create(address + path))
                .timeout(PATIENCE)
                .method(method, HttpRequest.BodyPublishers.noBody())
                .build();
        try {
            HttpResponse<String> r = client.send(request, HttpResponse.BodyHandlers.ofString());
            if (r.statusCode() == HttpStatus.CONFLICT.value()) {
                throw Problem.conflict(
                        "uncalibrated", "The colour reader wants its white tile first. Calibrate it, then read.", null);
            }
            if (r.statusCode() == HttpStatus.NOT_FOUND.value()) {
                throw Problem.notFound("sample");
            }
            if (r.statusCode() != HttpStatus.OK.value()) {
                throw unreachable();
            }
            return json.readTree(r.body());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw unreachable();
        } catch (IOException | JacksonException e) {
            throw unreachable();
        }
    }

    private static Problem unreachable() {
        return Problem.of(
                HttpStatus.BAD_GATEWAY,
                "no-reader",
                "The colour reader does not answer. Switch it on and try again, or type the colour.");
    }
}
