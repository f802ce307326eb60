package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import tools.jackson.databind.JsonNode;

/** What the stage is told of supplied surroundings. */
class SurroundingsTest extends ProjectTest {

    /** All are photographed as bright: a mean of 0.72, of which a lamp's share is beyond twice that. */
    @ParameterizedTest
    @ValueSource(strings = {"studio", "workshop", "lobby", "park", "low-sun"})
    void suppliedPicturesArePartedIntoLampsAndTheRest(String name) {
        JsonNode parted = browser.get("/api/surroundings/" + name).json();
        assertThat(parted.get("limit").asDouble()).isCloseTo(2 * 0.72, within(0.01));
        JsonNode lamps = parted.get("lamps");
        assertThat(lamps.size()).isBetween(1, 12);
        double shine = 0;
        for (JsonNode lamp : lamps) {
            JsonNode light = lamp.get("light");
            shine += 0.2126 * light.get(0).asDouble()
                    + 0.7152 * light.get(1).asDouble()
                    + 0.0722 * light.get(2).asDouble();
        }
        assertThat(shine).isBetween(0.05 * 0.72 * 4 * Math.PI, 0.72 * 4 * Math.PI);
    }

    @Test
    void othersAreRefusedAndStrangersAreToldNothing() {
        assertThat(browser.get("/api/surroundings/attic").status()).isEqualTo(422);
        assertThat(browser.get("/api/surroundings/..%2Fstudio").status()).isBetween(400, 404);
        assertThat(stranger().get("/api/surroundings/studio").status()).isEqualTo(401);
    }
}
