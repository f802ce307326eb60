package app.zolvan.server.colour;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.server.config.ZolvanProperties;
import com.sun.net.httpserver.HttpServer;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.json.JsonMapper;

/** What the reader says, and what is made of a reader that misbehaves. */
class ReaderServiceTest {
    private HttpServer device;
    private volatile int status = 200;
    private volatile String answer = "";

    @BeforeEach
    void switchOn() throws Exception {
        device = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        AtomicInteger readings = new AtomicInteger();
        device.createContext("/", e -> {
            byte[] body = answer.replace("N", String.valueOf(readings.getAndIncrement() % 3))
                    .getBytes(StandardCharsets.UTF_8);
            e.sendResponseHeaders(status, body.length);
            e.getResponseBody().write(body);
            e.close();
        });
        device.start();
    }

    @AfterEach
    void switchOff() {
        device.stop(0);
    }

    private ReaderService service(String address) {
        return new ReaderService(
                new ZolvanProperties(
                        null, null, null, null, null, null, null, null, null, null, null, null, null, address, null),
                JsonMapper.builder().build());
    }

    private ReaderService service() {
        return service("http://127.0.0.1:" + device.getAddress().getPort());
    }

    @Test
    void aReadingIsTheMeanOfThree() {
        answer = "{\"lab\": [50.N, 1, 2]}"; // 50.0, 50.1, 50.2
        ReaderService.Reading r = service().read("Wall & door");
        assertThat(r.colour().lab().get(0)).isCloseTo(50.1, within(1e-3));
        assertThat(r.scatter()).isBetween(0.05, 0.1);
    }

    @Test
    void aReaderThatMisbehavesGetsASentence() {
        answer = "{\"lab\": [\"white\", 1, 2]}";
        assertThatThrownBy(() -> service().read("Wall")).hasMessageContaining("does not answer");
        answer = "<html>";
        assertThatThrownBy(() -> service().state()).hasMessageContaining("does not answer");
        status = 500;
        answer = "{\"calibrated\": true}";
        assertThatThrownBy(() -> service().state()).hasMessageContaining("does not answer");
        status = 409;
        assertThatThrownBy(() -> service().read("Wall")).hasMessageContaining("white tile");
        device.stop(0);
        assertThatThrownBy(() -> service().read("Wall")).hasMessageContaining("does not answer");
        assertThat(service("").state().connected()).isFalse();
    }
}
