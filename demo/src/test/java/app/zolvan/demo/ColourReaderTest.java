package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.CieLab;
import com.sun.net.httpserver.HttpServer;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.SplittableRandom;
import org.junit.jupiter.api.Test;

class ColourReaderTest {
    private static final String WALL = "Slate step";

    @Test
    void readingsScatterAsARealReadersDoAndItWantsItsWhiteTileNowAndThen() {
        ColourReader reader = new ColourReader(new SplittableRandom(1));
        assertThat(reader.read(WALL)).as("not calibrated yet").isNull();
        reader.calibrate();
        CieLab truth = new CieLab(41.7, -0.6, -2.2);
        double apart = 0;
        for (int i = 0; i < ColourReader.MOST; i++) {
            apart += reader.read(WALL).difference(truth);
        }
        assertThat(apart / ColourReader.MOST).isBetween(0.05, 0.3);
        assertThat(reader.isCalibrated()).isFalse();
        assertThat(reader.read(WALL)).isNull();
        reader.calibrate();
        assertThat(reader.read(WALL).l()).isCloseTo(41.7, within(0.4));
        assertThat(reader.read("nothing")).isNull();
    }

    @Test
    void itAnswersOverHttp() throws Exception {
        HttpServer server = new ColourReader(new SplittableRandom(2)).serve(0);
        try {
            String base = "http://127.0.0.1:" + server.getAddress().getPort();
            assertThat(send("POST", base + "/read?sample=Slate+step").statusCode())
                    .isEqualTo(409);
            assertThat(send("POST", base + "/calibrate").body()).contains("\"calibrated\":true");
            assertThat(send("POST", base + "/read?sample=Slate+step").body()).startsWith("{\"lab\":[4");
            assertThat(send("POST", base + "/read?sample=x").statusCode()).isEqualTo(404);
            assertThat(send("GET", base + "/state").body()).contains("Slate step");
        } finally {
            server.stop(0);
        }
    }

    private static HttpResponse<String> send(String method, String address) throws Exception {
        HttpRequest request = HttpRequest.newBuilder(URI.create(address))
                .method(method, HttpRequest.BodyPublishers.noBody())
                .build();
        return HttpClient.newHttpClient().send(request, HttpResponse.BodyHandlers.ofString());
    }
}
