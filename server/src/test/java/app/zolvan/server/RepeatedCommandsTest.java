package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** A command whose answer was lost is sent again under its key, and done once. */
class RepeatedCommandsTest extends ProjectTest {
    private final UUID key = UUID.randomUUID();

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    private Map<String, Object> brass() {
        return Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("MT-003"));
    }

    private int commands() {
        return get("/history").size();
    }

    @Test
    void anAssignmentSentTwiceIsOneCommandAndBothAreAnsweredAlike() {
        JsonNode first =
                browser.post(project + "/assignments", brass(), version(), key).json();
        int done = commands();
        Browser.Answer again = browser.post(project + "/assignments", brass(), version(), key);
        assertThat(again.status()).isEqualTo(200);
        assertThat(again.json().get("version")).isEqualTo(first.get("version"));
        assertThat(again.json().get("palette")).isEqualTo(first.get("palette"));
        assertThat(again.raw().headers().firstValue("ETag"))
                .hasValueSatisfying(tag ->
                        assertThat(tag).startsWith("\"" + first.get("version").asLong()));
        assertThat(commands()).isEqualTo(done);
    }

    @Test
    void anUndoSentTwiceTakesOneStepBack() {
        post("/assignments", brass());
        post("/details", Map.of("name", "Bar stools", "client", "", "unit", "cm"));
        JsonNode undone =
                browser.post(project + "/undo", Map.of(), version(), key).json();
        JsonNode again =
                browser.post(project + "/undo", Map.of(), version(), key).json();
        assertThat(undone.get("name").asString()).isEqualTo("stools");
        assertThat(again.get("undo")).as("the assignment stands").isEqualTo(undone.get("undo"));
        assertThat(again.get("undo").isNull()).isFalse();
        JsonNode redone = browser.post(
                        project + "/redo", Map.of(), again.get("version").asLong(), UUID.randomUUID())
                .json();
        assertThat(redone.get("name").asString()).isEqualTo("Bar stools");
    }

    @Test
    void aKeyIsItsProjectsAndItsAccountsOwn() throws InterruptedException {
        browser.post(project + "/assignments", brass(), version(), key);
        open(newProject());
        Browser.Answer elsewhere = browser.post(project + "/assignments", brass(), version(), key);
        assertThat(elsewhere.json().get("version").asLong())
                .as("done here, too")
                .isEqualTo(version() + 1);
    }

    @Test
    void whatWasRefusedIsRefusedAgainAndAKeyThatIsNoneIsSaid() {
        Map<String, Object> nothing = Map.of();
        assertThat(browser.post(project + "/undo", nothing, version(), key).problem())
                .isEqualTo("nothing");
        assertThat(browser.post(project + "/undo", nothing, version(), key).problem())
                .isEqualTo("nothing");
        post("/assignments", brass());
        assertThat(browser.post(project + "/undo", nothing, version(), key).status())
                .as("refused before, so not done before")
                .isEqualTo(200);
    }
}
