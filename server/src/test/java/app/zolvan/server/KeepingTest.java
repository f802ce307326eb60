package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Libraries of designers' own and of teams: what is kept there, who may do what, kits, and what it is all made of. */
class KeepingTest extends ProjectTest {
    private String own;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
        own = libraries(browser).get("libraries").get(0).get("id").asString();
    }

    private static JsonNode libraries(Browser b) {
        return b.get("/api/libraries").json();
    }

    private JsonNode library(String id) {
        for (JsonNode l : libraries(browser).get("libraries")) {
            if (l.get("id").asString().equals(id)) {
                return l;
            }
        }
        throw new AssertionError("no library " + id);
    }

    private String palette(int at) {
        return state.get("palette").get(at).get("material").get("id").asString();
    }

    private static Map<String, Object> keeping(String library, String drawer, Object... materials) {
        Map<String, Object> body = new HashMap<>();
        body.put("library", library);
        body.put("drawer", drawer);
        body.put("materials", List.of(materials));
        return body;
    }

    private String keep(String library, String drawer, String material) {
        Browser.Answer a = browser.post(project + "/library/kept", keeping(library, drawer, material));
        assertThat(a.status()).as("%s", a.json()).isEqualTo(200);
        return a.json().get("items").get(0).asString();
    }

    private static List<String> names(JsonNode found) {
        List<String> all = new ArrayList<>();
        found.get("materials").forEach(m -> all.add(m.get("name").asString()));
        return all;
    }

    private JsonNode find(Browser b, String in, Map<String, Object> sought) {
        return b.post(in + "/library/find", sought).json();
    }

    private void dye(String name, double red) {
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("PT-014")));
        post("/adjustments", Map.of("part", 0, "span", 0, "values", Map.of("base_color", List.of(red, 0.2, 0.5))));
        String id = lookOf(state, 0).get("material").asString();
        post("/materials/" + id + "/name", Map.of("name", name));
    }

    private String worn(int part) {
        return lookOf(state, part).get("material").asString();
    }

    private void put(String path, Object body, int expected) {
        assertThat(browser.put(path, body).status()).as(path).isEqualTo(expected);
    }

    @Test
    void whatIsKeptIsFoundInEveryProjectAndStaysUntilItIsBroughtUpToDate() throws InterruptedException {
        dye("Quince jelly", 0.61);
        String drawer = browser.post("/api/libraries/" + own + "/drawers", Map.of("name", "Sweets"))
                .json()
                .get("id")
                .asString();
        String item = keep(own, drawer, worn(0));
        JsonNode found = find(browser, project, Map.of("words", "quince jely"));
        assertThat(names(found)).containsExactly("Quince jelly");
        JsonNode kept = found.get("materials").get(0);
        assertThat(kept.get("id").asString()).isEqualTo(item);
        assertThat(kept.get("code").asString()).as("not the shipped one's").isEqualTo("PT-501");
        assertThat(kept.get("place").get("drawer").asString()).isEqualTo(drawer);
        assertThat(library(own).get("drawers").get(0).get("items").asInt()).isEqualTo(1);
        assertThat(names(find(browser, project, Map.of("place", Map.of("library", own, "drawer", drawer)))))
                .containsExactly("Quince jelly");

        String mine = worn(0);
        JsonNode standing = get("/materials/" + mine + "/kept");
        assertThat(standing.get("same").asBoolean()).isTrue();
        post("/adjustments", Map.of("part", 0, "span", 0, "values", Map.of("base_color", List.of(0.7, 0.2, 0.5))));
        assertThat(get("/materials/" + mine + "/kept").get("same").asBoolean()).isFalse();

        String first = project;
        open(newProject());
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", item));
        assertThat(shown(0)).isEqualTo("Quince jelly");
        assertThat(state.get("origins").get(0).get("id").asString()).isEqualTo(item);
        String elsewhere = worn(0);
        assertThat(get("/materials/" + elsewhere + "/kept").get("same").asBoolean())
                .as("the library has what was kept, not what became of it since")
                .isTrue();
        assertThat(browser.post(first + "/materials/" + mine + "/kept", Map.of())
                        .status())
                .isEqualTo(204);
        assertThat(get("/materials/" + elsewhere + "/kept").get("same").asBoolean())
                .isFalse();
        post("/materials/" + elsewhere + "/as-kept", Map.of());
        assertThat(get("/materials/" + elsewhere + "/kept").get("same").asBoolean())
                .isTrue();
        post("/undo?force=false", Map.of());
        assertThat(get("/materials/" + elsewhere + "/kept").get("same").asBoolean())
                .isFalse();

        Browser.Answer gone = browser.post("/api/libraries/" + own + "/items/removal", Map.of("items", List.of(item)));
        assertThat(gone.status()).isEqualTo(204);
        state = get("/state");
        assertThat(shown(0)).as("projects keep what they have of it").isEqualTo("Quince jelly");
        assertThat(find(browser, project, Map.of("words", "quince"))
                        .get("total")
                        .asInt())
                .isZero();
    }

    @Test
    void strangersSeeNothingMembersWhatTheirRoleAllows() throws InterruptedException {
        dye("Secret plum", 0.3);
        String secret = keep(own, null, worn(0));
        String team = browser.post("/api/libraries", Map.of("name", "Studio"))
                .json()
                .get("id")
                .asString();
        keep(team, null, worn(0));

        Browser guest = stranger().asNewDesigner(accounts);
        String login = guest.get("/api/session").json().get("login").asString();
        JsonNode job = guest.importFile("stools.glb", stools());
        String there = "/api/projects/" + job.get("result").asString();
        long version = guest.get(there + "/state").json().get("version").asLong();
        Map<String, Object> give = Map.of("level", "part", "targets", List.of(0), "material", secret);
        assertThat(guest.post(there + "/assignments", give, version).status()).isEqualTo(404);
        assertThat(guest.get(there + "/materials/" + secret + "/chip").status()).isEqualTo(404);
        JsonNode plum = find(guest, there, Map.of("words", "plum"));
        assertThat(names(plum)).doesNotContain("Secret plum");
        assertThat(find(guest, there, Map.of("words", "secrat")).get("told").asString())
                .as("not even as a word that is taken for another")
                .doesNotContain("secret");
        assertThat(guest.get("/api/libraries/" + team + "/members").status()).isEqualTo(404);
        assertThat(guest.post(there + "/library/kept", keeping(team, null, secret))
                        .status())
                .isEqualTo(404);

        put("/api/libraries/" + team + "/members", Map.of("login", login, "role", "USE"), 204);
        put("/api/libraries/" + own + "/members", Map.of("login", login, "role", "USE"), 409);
        put("/api/libraries/" + team + "/members", Map.of("login", "nobody-here", "role", "USE"), 422);
        assertThat(names(find(guest, there, Map.of("words", "plum")))).startsWith("Secret plum");
        String arrived = guest.get(there + "/state")
                .json()
                .get("arrived")
                .get(0)
                .get("material")
                .get("id")
                .asString();
        assertThat(guest.post(there + "/library/kept", keeping(team, null, arrived))
                        .status())
                .isEqualTo(403);

        put("/api/libraries/" + team + "/members", Map.of("login", login, "role", "EDIT"), 204);
        JsonNode kept = guest.post(there + "/library/kept", keeping(team, null, arrived))
                .json();
        String seat = kept.get("items").get(0).asString();
        assertThat(library(team).get("waiting").asInt()).isEqualTo(1);
        Map<String, Object> approval = Map.of("items", List.of(seat), "approved", true);
        assertThat(guest.post("/api/libraries/" + team + "/items/approval", approval)
                        .status())
                .isEqualTo(403);
        put("/api/libraries/" + team + "/members", Map.of("login", login, "role", "USE"), 204);
        assertThat(names(find(guest, there, Map.of("place", Map.of("library", team)))))
                .as("what waits for approval is not for use")
                .containsExactly("Secret plum");
        assertThat(browser.post("/api/libraries/" + team + "/items/approval", approval)
                        .status())
                .isEqualTo(204);
        assertThat(names(find(guest, there, Map.of("place", Map.of("library", team)))))
                .hasSize(2);

        String me = browser.get("/api/session").json().get("id").asString();
        assertThat(browser.delete("/api/libraries/" + team + "/members/" + me).status())
                .as("somebody has to approve")
                .isEqualTo(409);
        assertThat(browser.delete("/api/libraries/" + own).status()).isEqualTo(409);
        assertThat(browser.delete("/api/libraries/" + team).status()).isEqualTo(204);
        assertThat(names(find(guest, there, Map.of("words", "plum")))).doesNotContain("Secret plum");
    }

    @Test
    void drawersLieInOneAnotherAndWhatIsInOneThatGoesStays() {
        String at = "/api/libraries/" + own + "/drawers";
        String a = browser.post(at, Map.of("name", "A")).json().get("id").asString();
        String b = browser.post(at, Map.of("name", "B", "parent", a))
                .json()
                .get("id")
                .asString();
        String c = browser.post(at, Map.of("name", "C")).json().get("id").asString();
        assertThat(browser.post(at, Map.of("name", "c")).status()).isEqualTo(422);
        put(at + "/" + a + "/place", Map.of("into", b, "at", 0), 422);
        put(at + "/" + c + "/place", Map.of("at", 0), 204);
        String item = keep(own, b, arrivedMaterial(project));
        assertThat(paths()).containsExactly("C 0", "A 1", "A › B 1");
        put(at + "/" + b + "/name", Map.of("name", "Bee"), 204);
        assertThat(browser.delete(at + "/" + a).status()).isEqualTo(204);
        assertThat(paths()).containsExactly("C 0", "Bee 1");
        Map<String, Object> moving = Map.of("items", List.of(item), "drawer", c);
        assertThat(browser.post("/api/libraries/" + own + "/items/place", moving)
                        .status())
                .isEqualTo(204);
        assertThat(paths()).containsExactly("C 1", "Bee 0");
    }

    private List<String> paths() {
        List<String> all = new ArrayList<>();
        library(own)
                .get("drawers")
                .forEach(d ->
                        all.add(d.get("path").asString() + " " + d.get("items").asInt()));
        return all;
    }

    @Test
    void twinsAreMergedNamesGivenAndUnusedTakenOut() throws InterruptedException {
        dye("Rose", 0.4);
        String one = keep(own, null, worn(0));
        String other = keep(own, null, worn(0));
        dye("Moss", 0.05);
        String third = keep(own, null, worn(0));
        JsonNode alikes = browser.get("/api/libraries/" + own + "/alikes").json();
        assertThat(alikes).hasSize(1);
        assertThat(alikes.get(0)).hasSize(2);
        open(newProject());
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", other));
        String mine = worn(0);
        Map<String, Object> merge = Map.of("keep", one, "gone", List.of(other));
        assertThat(browser.post("/api/libraries/" + own + "/merges", merge).status())
                .isEqualTo(204);
        assertThat(get("/materials/" + mine + "/kept").get("item").get("id").asString())
                .as("goes by the one that stays")
                .isEqualTo(one);
        assertThat(browser.get("/api/libraries/" + own + "/alikes").json()).isEmpty();

        Map<String, Object> naming = Map.of(
                "items", List.of(one, third), "pattern", "Garden ## {name}", "first", 7, "find", "", "replacement", "");
        JsonNode preview = browser.post("/api/libraries/" + own + "/items/names/preview", naming)
                .json();
        assertThat(preview.get(1).get("name").asString()).isEqualTo("Garden 08 Moss");
        assertThat(browser.post("/api/libraries/" + own + "/items/names", naming)
                        .status())
                .isEqualTo(204);
        assertThat(names(find(browser, project, Map.of("words", "garden rose"))))
                .containsExactly("Garden 07 Rose");

        browser.delete(project);
        JsonNode unused = browser.get("/api/libraries/" + own + "/unused").json();
        assertThat(unused).as("the first project shows Moss, none shows Rose").hasSize(1);
        assertThat(unused.get(0).get("material").get("name").asString()).isEqualTo("Garden 07 Rose");
    }

    @Test
    void descriptionsAreCheckedAndFound() {
        String item = keep(own, null, arrivedMaterial(project));
        String at = "/api/libraries/items/" + item;
        Map<String, Object> facts = new HashMap<>(Map.of(
                "density", 720, "tags", List.of("staircase"), "source", "drawn here", "supplier", "Timber & Tide"));
        put(at, Map.of("name", "Sawn wych elm", "code", "ELM 4/1", "kind", "wood", "facts", facts), 204);
        JsonNode found = find(browser, project, Map.of("words", "stairs elm"));
        assertThat(found.get("materials").get(0).get("facts").get("missing"))
                .extracting(JsonNode::asString)
                .containsExactly("price", "waste", "carbon");
        facts.put("density", -4);
        put(at, Map.of("name", "Sawn wych elm", "code", "ELM 4/1", "kind", "wood", "facts", facts), 422);
        facts.put("density", 720);
        put(at, Map.of("name", "x".repeat(121), "code", "E", "kind", "wood", "facts", facts), 422);
        put(at, Map.of("name", "E", "code", "<script>", "kind", "wood", "facts", facts), 422);
        put(at, Map.of("name", "E", "code", "E", "kind", "water", "facts", facts), 422);
        String twin = keep(own, null, arrivedMaterial(project));
        put("/api/libraries/items/" + twin, Map.of("name", "T", "code", "elm 4/1", "kind", "", "facts", facts), 422);
    }

    @Test
    void kitsAreLaidOutAndOneOfThemBeginsNewProjects() throws InterruptedException {
        dye("Kit red", 0.5);
        post(
                "/assignments",
                Map.of("level", "set", "targets", List.of(setOf(1)), "material", libraryMaterial("MT-003")));
        Map<String, Object> kit = new HashMap<>(Map.of(
                "project", project.substring(14), "name", "House set", "materials", List.of(palette(0), palette(1))));
        String id = browser.post("/api/libraries/" + own + "/kits", kit)
                .json()
                .get("id")
                .asString();
        assertThat(libraries(browser).get("kits").get(0).get("materials").asInt())
                .isEqualTo(2);
        assertThat(library(own).get("items").asInt())
                .as("the shipped one goes by the shipped one, the other is kept")
                .isEqualTo(1);
        open(newProject());
        assertThat(state.get("palette")).isEmpty();
        post("/kits/" + id, Map.of());
        assertThat(state.get("palette")).hasSize(2);
        assertThat(tried("/kits/" + id, Map.of()).status()).isEqualTo(409);
        post("/undo?force=false", Map.of());
        assertThat(state.get("palette")).isEmpty();
        put("/api/libraries/starter", Map.of("kit", id), 204);
        open(newProject());
        assertThat(state.get("palette")).hasSize(2);
        assertThat(state.get("undo").isNull()).isTrue();
        Browser guest = stranger().asNewDesigner(accounts);
        assertThat(guest.put("/api/libraries/starter", Map.of("kit", id)).status())
                .isEqualTo(404);
        assertThat(browser.delete("/api/libraries/" + own + "/kits/" + id).status())
                .isEqualTo(204);
        assertThat(libraries(browser).get("starter").isNull()).isTrue();
    }

    @Test
    void looksAndSubstancesAreSetApart() {
        String steel = libraryMaterial("MT-003");
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", steel));
        Map<String, Object> look = Map.of(
                "level", "part", "targets", List.of(0, 1), "material", libraryMaterial("PT-014"), "lookOnly", true);
        post("/assignments", look);
        JsonNode painted = material(worn(0));
        assertThat(painted.get("code").asString()).isEqualTo("PT-014");
        double density = painted.get("facts").get("density").asDouble();
        assertThat(density).isGreaterThan(2_000);
        assertThat(painted.get("facts").get("substance").asString()).isNotEmpty();
        assertThat(material(worn(1)).get("facts").get("density").asDouble())
                .as("nothing was known of the leg, so the paint's own stays")
                .isLessThan(density);
        post("/materials/" + worn(0) + "/substance", Map.of("withLook", false));
        assertThat(material(worn(0)).get("facts").get("density").isNull()).isTrue();
        Map<String, Object> oak = Map.of("of", libraryMaterial("WD-004"), "withLook", true);
        String before = material(worn(0)).get("chip").asString();
        post("/materials/" + worn(0) + "/substance", oak);
        assertThat(material(worn(0)).get("kind").asString()).isEqualTo("wood");
        assertThat(material(worn(0)).get("chip").asString()).isNotEqualTo(before);
        post("/undo?force=false", Map.of());
        assertThat(material(worn(0)).get("chip").asString()).isEqualTo(before);
        post("/materials/" + worn(0) + "/facts", Map.of("density", 1234, "tags", List.of("own")));
        assertThat(material(worn(0)).get("facts").get("density").asDouble()).isEqualTo(1234);
        assertThat(tried("/materials/" + worn(0) + "/facts", Map.of("waste", 500))
                        .status())
                .isEqualTo(422);
    }

    private JsonNode material(String id) {
        for (JsonNode used : state.get("palette")) {
            if (used.get("material").get("id").asString().equals(id)) {
                return used.get("material");
            }
        }
        throw new AssertionError("no material " + id);
    }
}
