package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.JsonNodeFactory;
import tools.jackson.databind.node.ObjectNode;

/** The front end's types are generated from web/openapi.json; it has to say what the server does. */
class OpenApiTest extends ServerTest {
    private static final JsonMapper JSON =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    @Test
    void theContractIsUpToDate() throws Exception {
        String now = JSON.writeValueAsString(sorted(browser.get("/v3/api-docs").json())) + "\n";
        String write = System.getProperty("zolvan.openapi.write");
        if (write != null) {
            Files.writeString(Path.of(write), now);
        }
        assertThat(Files.readString(Path.of("../web/openapi.json")))
                .as("run ./zolvan api and commit web/openapi.json")
                .isEqualTo(now);
    }

    private static JsonNode sorted(JsonNode node) {
        if (node.isObject()) {
            ObjectNode out = JsonNodeFactory.instance.objectNode();
            node.propertyNames().stream().sorted().forEach(n -> out.set(n, sorted(node.get(n))));
            return out;
        }
        if (node.isArray()) {
            var out = JsonNodeFactory.instance.arrayNode();
            node.forEach(n -> out.add(sorted(n)));
            return out;
        }
        return node;
    }
}
