package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.server.Planks.Plank;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md P23: a newer file of the same model comes in without losing the dressing, and goes out again. */
class UpdateTest extends ProjectTest {
    private static final List<Plank> FIRST = List.of(
            new Plank("Top", 1.2, 0.7, 0),
            new Plank("Shelf", 1.0, 0.4, 0),
            new Plank("Rail", 0.8, 0.2, 1),
            new Plank("Foot", 0.3, 0, 1));
    /** The rail is gone, the shelf longer and first, the foot has another name, and a lip is new. */
    private static final List<Plank> SECOND = List.of(
            new Plank("Shelf", 1.1, 0.4, 0),
            new Plank("Top", 1.2, 0.7, 0),
            new Plank("Base", 0.3, 0, 1),
            new Plank("Lip", 0.05, 0.72, 1));

    @BeforeEach
    void importTable() throws Exception {
        project = "/api/projects/"
                + browser.importFile("table.glb", Planks.file(FIRST, "paint"))
                        .get("result")
                        .asString();
        state = browser.get(project + "/state").json();
    }

    private int part(String name) {
        for (JsonNode p : scene().get("parts")) {
            if (p.get("name").asString().equals(name)) {
                return p.get("index").asInt();
            }
        }
        return -1;
    }

    private String shown(String name) {
        return shown(part(name));
    }

    private JsonNode bring(byte[] file) throws InterruptedException {
        String id = project.substring("/api/projects/".length());
        browser.ended(browser.uploadNewer(id, "table-2.glb", file));
        return browser.get(project + "/update").json();
    }

    @Test
    void looksNamesRolesAndMendsStayWithTheirPartsAndOneUndoTakesAllBack() throws Exception {
        post(
                "/assignments",
                Map.of("level", "part", "targets", List.of(part("Shelf")), "material", libraryMaterial("MT-003")));
        post(
                "/assignments",
                Map.of("level", "part", "targets", List.of(part("Rail")), "material", libraryMaterial("MT-003")));
        post("/assignments", Map.of("level", "set", "targets", List.of(1), "material", libraryMaterial("MT-012")));
        post("/parts/names", Map.of("names", List.of(Map.of("part", part("Top"), "name", "Table top"))));
        post("/parts/roles", Map.of("roles", List.of(Map.of("part", part("Table top"), "role", "WORKTOP"))));
        post("/parts/sides", Map.of("parts", List.of(part("Table top")), "turn", "flip"));
        JsonNode before = scene();
        JsonNode dressed = state;
        JsonNode update = bring(Planks.file(SECOND, "lacquer"));
        assertThat(scene()).as("nothing changes before it is applied").isEqualTo(before);
        assertThat(update.get("parts"))
                .as("nothing is the rail")
                .noneMatch(p -> p.get("older").asInt(-1) == part("Rail"));
        assertThat(fate(update, "Top")).isEqualTo("SAME");
        assertThat(fate(update, "Shelf")).isEqualTo("CHANGED");
        assertThat(fate(update, "Base")).as("renamed").isEqualTo("SAME");
        assertThat(fate(update, "Lip")).isEqualTo("NEW");
        assertThat(browser.get(project + "/update/scene").json().get("parts")).hasSize(4);

        post("/update", Map.of("pairs", List.of()));
        assertThat(state.get("undo").asString()).isEqualTo("Take table-2.glb");
        assertThat(scene().get("fileName").asString()).isEqualTo("table-2.glb");
        assertThat(part("Shelf")).isZero();
        assertThat(shown("Shelf")).isEqualTo("Spun brass");
        assertThat(shown("Base"))
                .as("by its set, though the file calls its material otherwise")
                .isEqualTo("Raw copper");
        assertThat(shown("Lip")).isEqualTo("Raw copper");
        assertThat(shown("Table top")).as("nobody dressed it").isEqualTo("oak");
        assertThat(scene().get("sets").get(0)).isEqualTo(before.get("sets").get(0));
        assertThat(scene().get("sets").get(1).get("name").asString()).isEqualTo("paint");
        assertThat(scene().get("sets").get(1).get("source"))
                .as("arrived with another material now")
                .isNotEqualTo(before.get("sets").get(1).get("source"));
        JsonNode top = scene().get("parts").get(part("Table top"));
        assertThat(top.get("role").asString()).isEqualTo("WORKTOP");
        assertThat(top.get("mesh"))
                .as("turned over, as the designer left it")
                .isEqualTo(before.get("parts").get(0).get("mesh"));
        assertThat(part("Rail")).isEqualTo(-1);
        assertThat(browser.get(project + "/update").status()).isEqualTo(204);
        assertThat(browser.get(project + "/findings").json().get("current").asBoolean())
                .isTrue();

        JsonNode after = scene();
        post("/undo", Map.of());
        assertThat(scene().get("parts")).isEqualTo(before.get("parts"));
        assertThat(state.get("looks")).isEqualTo(dressed.get("looks"));
        assertThat(state.get("regions")).isEqualTo(dressed.get("regions"));
        post("/redo", Map.of());
        assertThat(scene().get("parts")).isEqualTo(after.get("parts"));
        assertThat(shown("Shelf")).isEqualTo("Spun brass");
    }

    @Test
    void facesStayWithShapesThatAreTheSameAndViewsAndNotesAreAboutTheSameParts() throws Exception {
        int top = cutFace("Top", "MT-003");
        int shelf = cutFace("Shelf", "MT-012");
        Map<String, Object> camera =
                Map.of("eye", List.of(2.0, 1.0, 3.0), "target", List.of(0.0, 0.5, 0.0), "degrees", 32);
        Map<String, Object> view =
                Map.of("id", UUID.randomUUID(), "name", "Below", "camera", camera, "lookedInto", List.of(part("Foot")));
        post("/views", view);
        for (String name : List.of("Foot", "Shelf")) {
            UUID id = UUID.randomUUID();
            post("/notes", Map.of("id", id, "level", "part", "target", part(name), "text", name + ": which oil?"));
        }
        JsonNode notes = state.get("notes");
        JsonNode before = scene();
        JsonNode regions = state.get("regions");

        for (JsonNode p : bring(Planks.file(SECOND, "lacquer")).get("parts")) {
            if (p.get("older").isNumber()
                    && List.of(part("Top"), part("Shelf"))
                            .contains(p.get("older").asInt())) {
                assertThat(p.get("keepsFaces").asBoolean())
                        .as("%s, before it is applied", p.get("name"))
                        .isEqualTo(p.get("older").asInt() == part("Top"));
            }
        }
        post("/update", Map.of("pairs", List.of()));
        assertThat(facesOf("Top")).contains(top);
        assertThat(part("Top")).isNotEqualTo(0);
        assertThat(shownSomewhere("Top", "Spun brass")).isTrue();
        assertThat(facesOf("Shelf")).as("is longer now").doesNotContain(shelf);
        assertThat(shownSomewhere("Shelf", "Raw copper")).isFalse();
        assertThat(state.get("views").get(0).get("lookedInto").get(0).asInt()).isEqualTo(part("Base"));
        for (int i = 0; i < 2; i++) {
            JsonNode note = state.get("notes").get(i);
            assertThat(note.get("about").asString()).isEqualTo(i == 0 ? "Base" : "Shelf");
            assertThat(note.get("target").asInt()).isEqualTo(part(i == 0 ? "Base" : "Shelf"));
        }

        post("/undo", Map.of());
        assertThat(scene().get("parts")).isEqualTo(before.get("parts"));
        assertThat(state.get("regions")).isEqualTo(regions);
        assertThat(state.get("notes")).isEqualTo(notes);
        assertThat(state.get("views").get(0).get("lookedInto").get(0).asInt()).isEqualTo(part("Foot"));
    }

    /** Makes a face of a part's first triangle and gives it a material; its number. */
    private int cutFace(String name, String material) {
        String mesh = part(part(name)).get("mesh").asString();
        post("/own-faces", Map.of("part", part(name), "mesh", mesh, "triangles", List.of(0), "name", name + " face"));
        int face = scene().get("ownFaces").size() - 1;
        assign("face", face, material);
        return face;
    }

    private List<Integer> facesOf(String name) {
        return part(part(name))
                .get("ownFaces")
                .valueStream()
                .map(JsonNode::asInt)
                .toList();
    }

    private boolean shownSomewhere(String name, String material) {
        return state.get("palette")
                .valueStream()
                .map(u -> u.get("material"))
                .filter(m -> m.get("name").asString().equals(material))
                .anyMatch(m -> state.get("regions")
                        .valueStream()
                        .filter(r -> r.get("part").asInt() == part(name))
                        .map(r -> state.get("looks").get(r.get("look").asInt()).get("material"))
                        .anyMatch(m.get("id")::equals));
    }

    /** A part that got another material in the modelling program follows it, and keeps what was done to its shape. */
    @Test
    void aPartWithAnotherMaterialGoesToThatMaterialsSet() throws Exception {
        post("/parts/sides", Map.of("parts", List.of(part("Shelf")), "turn", "flip"));
        JsonNode flipped = part(part("Shelf")).get("mesh");
        List<Plank> third = new ArrayList<>(FIRST);
        third.set(1, new Plank("Shelf", 1.0, 0.4, 1));
        bring(Planks.file(third, "paint"));
        post("/update", Map.of("pairs", List.of()));
        assertThat(setOf(part("Shelf"))).isEqualTo(setOf(part("Rail")));
        assertThat(shown("Shelf")).isEqualTo("paint");
        assertThat(part(part("Shelf")).get("mesh")).isEqualTo(flipped);
    }

    private static String fate(JsonNode update, String name) {
        for (JsonNode p : update.get("parts")) {
            if (p.get("name").asString().equals(name)) {
                return p.get("fate").asString();
            }
        }
        return "";
    }

    @Test
    void partsArePairedByHandAndAnUpdateCanBeLeft() throws Exception {
        post(
                "/assignments",
                Map.of("level", "part", "targets", List.of(part("Rail")), "material", libraryMaterial("MT-003")));
        bring(Planks.file(SECOND, "paint"));
        Browser.Answer twice = browser.post(
                project + "/update",
                Map.of("pairs", List.of(Map.of("newer", 3, "older", part("Shelf")))),
                state.get("version").asLong());
        assertThat(twice.sentence()).contains("paired with the same part");
        post("/update", Map.of("pairs", List.of(Map.of("newer", 3, "older", part("Rail")))));
        assertThat(shown("Lip")).isEqualTo("Spun brass");
        post("/undo", Map.of());
        bring(Planks.file(SECOND, "paint"));
        assertThat(stranger().asNewDesigner(accounts).get(project + "/update").status())
                .isEqualTo(404);
        post("/parts/sets", Map.of("parts", List.of(part("Top")), "to", "own"));
        assertThat(browser.post(
                                project + "/update",
                                Map.of("pairs", List.of()),
                                state.get("version").asLong())
                        .sentence())
                .contains("choose it once more");
        browser.delete(project + "/update");
        assertThat(browser.get(project + "/update").status()).isEqualTo(204);
        assertThat(part("Rail")).isEqualTo(2);
    }
}
