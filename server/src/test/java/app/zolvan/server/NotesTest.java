package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md O30: decisions that are left open are noted where they belong. */
class NotesTest extends ProjectTest {
    private static final int SEAT = 0;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private String write(String level, int target, String text) {
        String id = UUID.randomUUID().toString();
        post("/notes", Map.of("id", id, "level", level, "target", target, "text", text));
        return id;
    }

    private JsonNode notes() {
        return state.get("notes");
    }

    @Test
    void aNoteStaysWithItsThingUntilItIsSettledAndIsUndone() {
        String id = write("part", SEAT, "  Oak or ash? The client decides in May. ");
        post("/schemes", Map.of("name", "Other", "beginning", "EMPTY"));
        JsonNode note = notes().get(0);
        assertThat(note.get("text").asString()).isEqualTo("Oak or ash? The client decides in May.");
        assertThat(note.get("about").asString())
                .isEqualTo(part(SEAT).get("name").asString());
        assertThat(note.get("by").asString()).isNotBlank();
        assertThat(note.get("settled").asBoolean()).isFalse();

        post("/notes/" + id + "/text", Map.of("text", "Ash."));
        post("/notes/" + id + "/settled", Map.of("settled", true));
        assertThat(state.get("undo").asString()).isEqualTo("Settle: Ash.");
        assertThat(notes().get(0).get("settled").asBoolean()).isTrue();
        state = browser.delete(project + "/notes/" + id, version()).json();
        assertThat(notes()).isEmpty();
        for (int i = 0; i < 3; i++) {
            post("/undo", Map.of());
        }
        assertThat(notes().get(0)).isEqualTo(note);
    }

    @Test
    void goingBackToAMomentTakesNotesAlong() {
        String id = write("model", 0, "One wood for all?");
        long moment = get("/history").get(0).get("id").asLong();
        post("/notes/" + id + "/settled", Map.of("settled", true));
        write("set", 0, "Feet: felt or rubber?");
        post("/history/" + moment + "/return", Map.of());
        assertThat(notes()).hasSize(1);
        assertThat(notes().get(0).get("settled").asBoolean()).isFalse();
        assertThat(notes().get(0).get("about").asString()).isEqualTo("the whole model");
    }

    @Test
    void whatIsNoNoteIsRefusedAndChangesNothing() {
        String id = write("part", SEAT, "Edges rounder?");
        JsonNode before = notes();
        Map<String, Object> again = Map.of("id", id, "level", "part", "target", SEAT, "text", "Once more");
        assertThat(tried("/notes", again).status()).isEqualTo(409);
        Map<String, Object> nowhere =
                Map.of("id", UUID.randomUUID(), "level", "part", "target", 4711, "text", "Where?");
        assertThat(tried("/notes", nowhere).status()).isEqualTo(404);
        for (String text : List.of(" ", "x".repeat(1001))) {
            assertThat(tried("/notes/" + id + "/text", Map.of("text", text)).status())
                    .isEqualTo(422);
        }
        assertThat(tried("/notes/" + UUID.randomUUID() + "/settled", Map.of("settled", true))
                        .status())
                .isEqualTo(404);
        assertThat(tried("/notes/" + id + "/settled", Map.of("settled", false)).status())
                .isEqualTo(409);
        assertThat(get("/state").get("notes")).isEqualTo(before);
    }
}
