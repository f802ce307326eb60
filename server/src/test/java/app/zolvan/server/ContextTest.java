package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.server.Planks.Plank;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Models beside the one that a project was made of: files, helper forms, copies. */
class ContextTest extends ProjectTest {
    private static final List<Plank> TABLE = List.of(new Plank("Top", 1.2, 0.7, 0), new Plank("Shelf", 1.0, 0.4, 1));
    private static final List<Plank> TRAY = List.of(new Plank("Rim", 0.2, 0.05, 1), new Plank("Base", 0.4, 0, 0));

    @BeforeEach
    void importTable() throws Exception {
        open("/api/projects/"
                + browser.importFile("table.glb", Planks.file(TABLE, "paint"))
                        .get("result")
                        .asString());
    }

    private String id() {
        return project.substring("/api/projects/".length());
    }

    private void add(String belonging) throws Exception {
        JsonNode job = browser.ended(browser.uploadBeside(id(), belonging, "tray.glb", Planks.file(TRAY, "paint")));
        assertThat(job.get("state").asString()).as("%s", job).isEqualTo("DONE");
        state = get("/state");
    }

    private void put(String path, Object body) {
        Browser.Answer answer = browser.put(project + path, body, version());
        assertThat(answer.status()).as("%s", answer.json()).isEqualTo(200);
        state = answer.json();
    }

    private void remove(int model) {
        Browser.Answer answer = browser.delete(project + "/models/" + model, version());
        assertThat(answer.status()).as("%s", answer.json()).isEqualTo(200);
        state = answer.json();
    }

    private void place(int model, double x, double y, double z, double turn, double scale) {
        put(
                "/models/" + model + "/place",
                Map.of("at", List.of(x, y, z), "degrees", List.of(0, turn, 0), "scale", scale));
    }

    private void details(int model, String belonging, boolean hidden, boolean locked) {
        put("/models/" + model, Map.of("name", "tray", "belonging", belonging, "hidden", hidden, "locked", locked));
    }

    private Map<String, Object> line(int count, double... step) {
        Map<String, Object> r = new HashMap<>(Map.of("arrangement", "LINE", "count", count));
        r.put("step", List.of(step[0], step[1], step[2]));
        r.put("centre", List.of(0, 0, 0));
        r.put("degrees", 0);
        r.put("part", 0);
        r.put("apart", 0);
        r.put("seed", 0);
        return r;
    }

    private JsonNode model(int at) {
        return scene().get("models").get(at);
    }

    private List<Double> numbers(JsonNode array) {
        List<Double> out = new ArrayList<>();
        array.forEach(n -> out.add(n.asDouble()));
        return out;
    }

    /** Where a part's own origin is. */
    private List<Double> origin(int part) {
        return numbers(part(part).get("world")).subList(12, 15);
    }

    @Test
    void surroundingsAreAddedBesideTheDesignAndCountNowhere() throws Exception {
        List<Double> bounds = numbers(scene().get("bounds"));
        int exported = browser.get(project + "/exports/glb").body().length;
        add("SURROUNDINGS");
        assertThat(scene().get("parts")).hasSize(4);
        assertThat(numbers(scene().get("bounds"))).as("of the design").isEqualTo(bounds);
        assertThat(model(1).get("belonging").asString()).isEqualTo("SURROUNDINGS");
        assertThat(model(1).get("parts").asInt()).isEqualTo(2);
        assertThat(part(3).get("model").asInt()).isEqualTo(1);
        assertThat(origin(3).get(0)).as("to the right of the table").isGreaterThan(1.2);
        assertThat(origin(3).get(1)).as("on its level").isCloseTo(0.4, within(1e-6));
        assertThat(shown(3)).as("in a set of its own file").isEqualTo("oak");
        assertThat(setOf(3)).isNotEqualTo(setOf(0));
        assertThat(get("/sets")).as("chips of the design alone").hasSize(2);
        assertThat(browser.get(project + "/exports/glb").body()).hasSize(exported);

        details(1, "DESIGN", false, false);
        assertThat(numbers(scene().get("bounds")).get(3))
                .as("the tray is designed now")
                .isGreaterThan(1.5);
        assertThat(get("/sets")).hasSize(4);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(scene().get("parts")).hasSize(2);
        assertThat(numbers(scene().get("bounds"))).isEqualTo(bounds);
        post("/redo", Map.of());
        assertThat(shown(3)).isEqualTo("oak");
    }

    @Test
    void aModelIsPlacedSetDownAndScaled() throws Exception {
        add("SURROUNDINGS");
        place(1, 0.6, 2, 0.05, 90, 1);
        assertThat(origin(3))
                .as("turned about its foot")
                .satisfiesExactly(
                        x -> assertThat(x).isCloseTo(0.55, within(1e-6)),
                        y -> assertThat(y).isCloseTo(2, within(1e-6)),
                        z -> assertThat(z).isCloseTo(0.25, within(1e-6)));
        post("/models/1/rest", Map.of());
        assertThat(origin(3).get(1)).as("on the table").isCloseTo(0.7, within(1e-6));
        assertThat(tried("/models/1/rest", Map.of()).sentence()).contains("stands already");
        double area = part(3).get("area").asDouble();
        place(1, 0.6, 0.7, 0.05, 0, 2);
        assertThat(part(3).get("area").asDouble()).isCloseTo(4 * area, within(1e-6));
        assertThat(numbers(part(3).get("size")).get(0)).isCloseTo(0.8, within(1e-6));
        post("/undo", Map.of());
        assertThat(part(3).get("area").asDouble()).isCloseTo(area, within(1e-9));
        place(1, 50, 1, 0, 0, 1);
        assertThat(tried("/models/1/rest", Map.of()).sentence()).contains("nothing below");
        Map<String, Object> far = Map.of("at", List.of(1e9, 0, 0), "degrees", List.of(0, 0, 0), "scale", 1);
        assertThat(browser.put(project + "/models/1/place", far, version()).status())
                .isEqualTo(422);
        Map<String, Object> own = Map.of("at", List.of(0, 0, 0), "degrees", List.of(0, 0, 0), "scale", 1);
        assertThat(browser.put(project + "/models/0/place", own, version()).sentence())
                .contains("stays where it is");
    }

    @Test
    void copiesWearWhatTheirModelWearsAndGoWithIt() throws Exception {
        add("SURROUNDINGS");
        post("/assignments", Map.of("level", "part", "targets", List.of(2), "material", libraryMaterial("MT-003")));
        List<Double> first = origin(2);
        int faces = scene().get("faces").asInt();
        post("/models/1/copies", line(3, 0.5, 0, 0.1));
        assertThat(scene().get("parts")).hasSize(10);
        assertThat(scene().get("faces").asInt()).isEqualTo(faces + 3 * (faces - 2));
        assertThat(origin(8).get(0)).isCloseTo(first.get(0) + 1.5, within(1e-6));
        assertThat(shown(8)).isEqualTo(shown(2)).isEqualTo("Spun brass");
        assertThat(setOf(9)).isEqualTo(setOf(3));
        place(1, 0, 0, 0, 90, 1);
        assertThat(origin(8).get(2))
                .as("the row turns with its model")
                .isCloseTo(origin(2).get(2) - 1.5, within(1e-6));
        Map<String, Object> over = line(3, 0, 0, 0);
        over.put("arrangement", "OVER");
        over.put("part", 2);
        over.put("apart", 0.2);
        assertThat(tried("/models/1/copies", over).sentence()).contains("another model");
        assertThat(tried("/models/1/copies", line(100_000, 1, 0, 0)).status()).isEqualTo(422);

        post("/assignments", Map.of("level", "part", "targets", List.of(1), "material", libraryMaterial("MT-012")));
        remove(1);
        assertThat(scene().get("parts")).hasSize(2);
        assertThat(scene().get("models")).hasSize(1);
        assertThat(shown(1)).isEqualTo("Raw copper");
        post("/undo", Map.of());
        assertThat(shown(8)).isEqualTo("Spun brass");
    }

    @Test
    void copiesAreSpreadOverAnotherModelsPart() throws Exception {
        add("SURROUNDINGS");
        Map<String, Object> over = line(4, 0, 0, 0);
        over.put("arrangement", "OVER");
        over.put("part", 0); // the table's top: 1.2 m by 0.1 m, at 0.7 m
        over.put("apart", 0.15);
        post("/models/1/copies", over);
        assertThat(scene().get("parts")).hasSize(12);
        for (int base = 5; base < 12; base += 2) {
            assertThat(part(base).get("name").asString()).isEqualTo("Base");
            assertThat(origin(base).get(1)).isCloseTo(0.7, within(1e-6));
            assertThat(origin(base).get(0)).isBetween(-0.3, 1.5);
        }
        over.put("apart", 50);
        assertThat(tried("/models/1/copies", over).sentence()).contains("no room");
    }

    /** A strip that lies in another of its own file is told of a design, not of surroundings. */
    @Test
    void surroundingsAreNotLookedThrough() throws Exception {
        List<Plank> twins = List.of(new Plank("Base", 0.4, 0, 0), new Plank("Twin", 0.4, 0, 0));
        browser.ended(browser.uploadBeside(id(), "DESIGN", "twins.glb", Planks.file(twins, "paint")));
        state = get("/state");
        assertThat(lookThrough()).contains("COINCIDENT");
        details(1, "SURROUNDINGS", false, false);
        assertThat(lookThrough()).doesNotContain("COINCIDENT");
    }

    private List<String> lookThrough() throws Exception {
        browser.ended(browser.post(project + "/findings", Map.of(), version()));
        List<String> kinds = new ArrayList<>();
        get("/findings").get("entries").forEach(f -> kinds.add(f.get("kind").asString()));
        return kinds;
    }

    /** Two files call a material alike; a newer one of the first finds none of that name in its own sets. */
    @Test
    void aNewerFileKeepsOffTheSetsOfAddedModels() throws Exception {
        List<Plank> oak = List.of(new Plank("Top", 1.2, 0.7, 0), new Plank("Shelf", 1.0, 0.4, 0));
        open("/api/projects/"
                + browser.importFile("oak.glb", Planks.file(oak, "paint"))
                        .get("result")
                        .asString());
        add("SURROUNDINGS");
        int rim = setOf(2);
        JsonNode before = scene().get("sets").get(rim);
        List<Plank> newer = new ArrayList<>(oak);
        newer.add(new Plank("Lip", 0.05, 0.72, 1));
        browser.ended(browser.uploadNewer(id(), "oak-2.glb", Planks.file(newer, "paint")));
        post("/update", Map.of("pairs", List.of()));
        assertThat(part(2).get("name").asString()).isEqualTo("Lip");
        assertThat(setOf(2)).as("a set of its own").isNotEqualTo(rim);
        assertThat(setOf(3)).isEqualTo(rim);
        assertThat(scene().get("sets").get(rim)).isEqualTo(before);
    }

    @Test
    void lockedModelsStayAsTheyAre() throws Exception {
        add("SURROUNDINGS");
        details(1, "SURROUNDINGS", true, true);
        Map<String, Object> dress =
                Map.of("level", "part", "targets", List.of(3), "material", libraryMaterial("MT-003"));
        assertThat(tried("/assignments", dress).sentence()).contains("“tray” is locked");
        Map<String, Object> set =
                Map.of("level", "set", "targets", List.of(setOf(3)), "material", libraryMaterial("MT-003"));
        assertThat(tried("/assignments", set).problem()).isEqualTo("model-locked");
        assertThat(browser.delete(project + "/models/1", version()).status()).isEqualTo(409);
        post("/parts/names", Map.of("names", List.of(Map.of("part", 0, "name", "Table top")))); // another model's
        details(1, "SURROUNDINGS", true, false);
        post("/assignments", dress);
        assertThat(shown(3)).isEqualTo("Spun brass");
        post("/assignments", Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("MT-003")));
        details(1, "SURROUNDINGS", true, true);
        Map<String, Object> duller = Map.of("part", 0, "span", 0, "values", Map.of("specular_roughness", 0.9));
        assertThat(tried("/adjustments", duller).problem())
                .as("the tray wears the same material")
                .isEqualTo("model-locked");
        details(1, "SURROUNDINGS", true, false);
        post("/adjustments", duller);

        put("/models/0", Map.of("name", "table", "belonging", "DESIGN", "hidden", false, "locked", true));
        browser.ended(browser.uploadNewer(id(), "table-2.glb", Planks.file(TRAY, "paint")));
        assertThat(tried("/update", Map.of("pairs", List.of())).sentence()).contains("“table” is locked");
    }

    @Test
    void aNewerFileOfTheDesignLeavesWhatWasAdded() throws Exception {
        add("SURROUNDINGS");
        post("/models", Map.of("form", "GROUND"));
        post("/assignments", Map.of("level", "part", "targets", List.of(3), "material", libraryMaterial("MT-003")));
        List<Double> tray = origin(3);
        List<Plank> newer = new ArrayList<>(TABLE);
        newer.add(new Plank("Lip", 0.05, 0.72, 1));
        browser.ended(browser.uploadNewer(id(), "table-2.glb", Planks.file(newer, "paint")));
        assertThat(get("/update").get("parts")).hasSize(3);
        post("/update", Map.of("pairs", List.of()));
        assertThat(scene().get("parts")).hasSize(6);
        assertThat(part(4).get("name").asString()).isEqualTo("Base");
        assertThat(origin(4)).isEqualTo(tray);
        assertThat(shown(4)).isEqualTo("Spun brass");
        assertThat(part(5).get("model").asInt()).isEqualTo(2);
        assertThat(model(2).get("form").asString()).isEqualTo("GROUND");
        remove(1);
        assertThat(part(3).get("name").asString()).isEqualTo("Ground");
        assertThat(browser.put(
                                project + "/models/2",
                                Map.of("name", "Ground", "belonging", "DESIGN", "hidden", false, "locked", false),
                                version())
                        .sentence())
                .contains("no part of the design");
    }
}
