package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md A39: what one project's sets have got is kept as a table and given to the next import. */
class DressingTest extends ServerTest {
    @Test
    void aTableSavedFromOneProjectDressesTheNext() throws Exception {
        String first = newProject();
        Map<String, String> name = Map.of("name", "Stools");
        assertThat(browser.post(first + "/dressing-tables", name).sentence()).contains("Dress some first");
        browser.post(
                first + "/assignments",
                Map.of("level", "set", "targets", List.of(1), "material", libraryMaterial("MT-003")),
                version(first));
        JsonNode saved = browser.post(first + "/dressing-tables", name).json();
        assertThat(saved.get("rows").asInt()).isEqualTo(1);
        String table = "/dressing-tables/" + saved.get("id").asString();

        String second = newProject();
        JsonNode before = browser.get(second + "/state").json();
        JsonNode preview = browser.get(second + table).json();
        assertThat(preview.get(0).get("material").isNull())
                .as("the seat has no row")
                .isTrue();
        assertThat(preview.get(1).get("material").asString()).isEqualTo(libraryMaterial("MT-003"));
        assertThat(preview.get(1).get("by").asString()).isEqualTo("NAME");
        assertThat(browser.get(second + "/state").json()).isEqualTo(before);
        JsonNode state = browser.post(second + table + "/apply", Map.of(), version(second))
                .json();
        assertThat(state.get("undo").asString()).isEqualTo("Dress 1 set by Stools");
        assertThat(lookOf(state, 1).get("from").asString()).isEqualTo("set");
        assertThat(lookOf(state, 0).get("from").isNull()).isTrue();
        assertThat(browser.post(second + table + "/apply", Map.of(), version(second))
                        .sentence())
                .contains("Nothing is left that");
        state = browser.post(second + "/undo", Map.of(), version(second)).json();
        assertThat(state.get("looks")).isEqualTo(before.get("looks"));
        assertThat(state.get("palette")).isEqualTo(before.get("palette"));

        JsonNode row = browser.get("/api" + table).json().get(0);
        assertThat(row.get("name").asString()).isEqualTo("steel");
        Map<String, Object> wider = Map.of(
                "name",
                "steel*",
                "colour",
                "#ff0000",
                "material",
                row.get("material").asString());
        assertThat(browser.put("/api" + table, Map.of("rows", List.of(wider)), 0)
                        .json()
                        .get(0)
                        .get("name")
                        .asString())
                .isEqualTo("steel*");
        assertThat(browser.get(second + table).json().get(1).get("by").asString())
                .as("a name that says something counts whatever the colour")
                .isEqualTo("NAME");
        Map<String, Object> odd = new HashMap<>(wider);
        odd.put("colour", "mauve-ish");
        assertThat(browser.put("/api" + table, Map.of("rows", List.of(odd)), 0).sentence())
                .contains("no colour code");
        odd.put("colour", "#b0b0b0");
        odd.put("material", UUID.randomUUID().toString());
        assertThat(browser.put("/api" + table, Map.of("rows", List.of(odd)), 0).sentence())
                .contains("of the library");

        Browser other = stranger().asNewDesigner(accounts);
        assertThat(other.get("/api" + table).status()).isEqualTo(404);
        assertThat(other.put("/api" + table, Map.of("rows", List.of(wider)), 0).status())
                .isEqualTo(404);
        assertThat(other.get("/api/dressing-tables").json()).isEmpty();
        assertThat(other.delete("/api" + table).status()).isEqualTo(404);
        assertThat(browser.delete("/api" + table).status()).isEqualTo(204);
        assertThat(browser.get("/api/dressing-tables").json()).isEmpty();
    }

    private long version(String project) {
        return browser.get(project + "/state").json().get("version").asLong();
    }
}
