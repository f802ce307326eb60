package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.colour.Shade;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

class CommandsTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;
    private static final int OTHER_LEG = 2;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    @Test
    void oneAssignmentDressesTheWholeMatchingSetAndAPartsOwnWins() {
        assign("set", setOf(LEG), "MT-003");
        assertThat(shown(LEG)).isEqualTo("Spun brass").isEqualTo(shown(OTHER_LEG));
        assertThat(shown(SEAT)).isEqualTo("seat");
        assign("part", LEG, "MT-012");
        assertThat(shown(LEG)).isEqualTo("Raw copper");
        assertThat(shown(OTHER_LEG)).isEqualTo("Spun brass");
        JsonNode strata = get("/why?part=1&span=0").get("levels");
        assertThat(strata.get(0).get("level").asString()).isEqualTo("model");
        assertThat(strata.get(1).get("level").asString()).isEqualTo("set");
        assertThat(strata.get(1).get("wins").asBoolean()).isFalse();
        assertThat(strata.get(1).get("why").asString()).isEqualTo("hidden: the part has its own");
        assertThat(strata.get(2).get("level").asString()).isEqualTo("group");
        assertThat(strata.get(2).get("material").isNull()).isTrue();
        assertThat(strata.get(3).get("wins").asBoolean()).isTrue();
        assign("part", LEG, null);
        assertThat(shown(LEG)).as("what lies beneath appears").isEqualTo("Spun brass");
        assign("set", setOf(LEG), null);
        assertThat(shown(LEG)).as("exactly as it arrived").isEqualTo("steel");
        assertThat(lookOf(state, LEG).get("from").isNull()).isTrue();
    }

    @Test
    void undoAndRedoGoThroughEverythingAndSurviveAReload() {
        JsonNode before = state;
        assign("set", setOf(LEG), "MT-003");
        adjust(LEG, false, "specular_roughness", 0.77);
        post("/details", Map.of("name", "Bar stools", "client", "Harbour", "unit", "in"));
        assertThat(state.get("undo").asString()).isEqualTo("Project details");
        JsonNode after = state;
        for (int i = 0; i < 3; i++) {
            post("/undo", Map.of());
        }
        assertThat(state.get("undo").isNull()).isTrue();
        assertThat(state.get("name")).isEqualTo(before.get("name"));
        assertThat(state.get("looks")).isEqualTo(before.get("looks"));
        assertThat(state.get("palette")).isEqualTo(before.get("palette"));
        state = browser.get(project + "/state").json();
        for (int i = 0; i < 3; i++) {
            post("/redo", Map.of());
        }
        assertThat(state.get("redo").isNull()).isTrue();
        assertThat(state.get("looks")).isEqualTo(after.get("looks"));
        assertThat(state.get("unit").asString()).isEqualTo("in");
        assertThat(browser.post(project + "/redo", Map.of(), version()).sentence())
                .contains("nothing to do again");
    }

    /** needs.md L07, L19: names by a pattern are shown before they are given, in one command with a way back. */
    @Test
    void manyPartsAreRenamedByAPatternAtOnce() {
        Map<String, Object> wanted = Map.of("parts", List.of(OTHER_LEG, LEG), "pattern", "Post ##", "first", 9);
        JsonNode preview = browser.post(project + "/parts/names/preview", wanted, version())
                .json();
        assertThat(preview.get(0).get("part").asInt()).isEqualTo(OTHER_LEG);
        assertThat(preview.get(0).get("name").asString()).isEqualTo("Post 09");
        JsonNode before = browser.get(project + "/scene").json();
        post("/parts/names", Map.of("names", preview));
        assertThat(state.get("undo").asString()).isEqualTo("Rename 2 parts");
        assertThat(name(OTHER_LEG)).isEqualTo("Post 09");
        assertThat(name(LEG)).isEqualTo("Post 10");
        assertThat(state.get("revision").asLong())
                .isGreaterThan(before.get("revision").asLong())
                .isEqualTo(
                        browser.get(project + "/scene").json().get("revision").asLong());
        assertThat(browser.get(project + "/findings").json().get("current").asBoolean())
                .isTrue();
        post("/undo", Map.of());
        assertThat(browser.get(project + "/scene").json().get("parts")).isEqualTo(before.get("parts"));
        Browser.Answer nameless = browser.post(
                project + "/parts/names", Map.of("names", List.of(Map.of("part", LEG, "name", "  "))), version());
        assertThat(nameless.status()).isEqualTo(422);
        Browser.Answer none = browser.post(
                project + "/parts/names", Map.of("names", List.of(Map.of("part", 99, "name", "x"))), version());
        assertThat(none.status()).isEqualTo(404);
    }

    /** needs.md P17: flipped faces are found, turned, and turned back. */
    @Test
    void facesAreFlippedAndTurnedOutwardAndBack() throws InterruptedException {
        String mesh = mesh(SEAT);
        post("/parts/sides", Map.of("parts", List.of(SEAT), "turn", "flip"));
        assertThat(mesh(SEAT)).isNotEqualTo(mesh);
        assertThat(part(SEAT).get("volume").asDouble()).isPositive();
        assertThat(browser.get(project + "/findings").json().get("current").asBoolean())
                .isFalse();
        browser.ended(browser.post(project + "/findings", Map.of(), version()));
        JsonNode found = browser.get(project + "/findings").json();
        assertThat(found.get("current").asBoolean()).isTrue();
        assertThat(found.get("entries").get(0).get("kind").asString()).isEqualTo("FLIPPED");
        assertThat(found.get("entries").get(0).get("parts").get(0).asInt()).isEqualTo(SEAT);
        post("/parts/sides", Map.of("parts", List.of(SEAT, LEG), "turn", "outward"));
        assertThat(state.get("undo").asString()).isEqualTo("Turn outward " + name(SEAT));
        assertThat(browser.post(
                                project + "/parts/sides",
                                Map.of("parts", List.of(SEAT, LEG), "turn", "outward"),
                                version())
                        .sentence())
                .contains("like that already");
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(mesh(SEAT)).isEqualTo(mesh);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post(project + "/parts/sides", Map.of("parts", List.of(SEAT), "turn", "flip"), version())
                        .status())
                .isEqualTo(404);
    }

    /** needs.md P28: eased edges are a look. They stay while the shape is changed, and nothing is measured by them. */
    @Test
    void edgesAreEasedAndLeftSharp() {
        JsonNode plain = part(SEAT);
        Map<String, Object> ease = Map.of("parts", List.of(SEAT, LEG), "width", 0.002);
        assertThat(browser.post(project + "/parts/edges/preview", ease)
                        .json()
                        .get("sentence")
                        .asString())
                .isEqualTo("Ease the edges of 2 parts");
        int exported = browser.get(project + "/exports/glb").body().length;
        post("/parts/edges", ease);
        JsonNode eased = part(SEAT);
        assertThat(eased.get("plainMesh")).isEqualTo(plain.get("mesh"));
        assertThat(eased.get("triangles").asInt())
                .isGreaterThan(plain.get("triangles").asInt());
        assertThat(eased.get("area")).isEqualTo(plain.get("area"));
        assertThat(browser.get(project + "/exports/glb").body().length)
                .as("files show them, too")
                .isGreaterThan(exported);
        post("/parts/sides", Map.of("parts", List.of(SEAT), "turn", "flip"));
        assertThat(part(SEAT).get("eased").asDouble()).isEqualTo(0.002);
        assertThat(part(SEAT).get("plainMesh")).isNotEqualTo(plain.get("mesh"));
        post("/undo", Map.of());
        post("/parts/edges", Map.of("parts", List.of(SEAT), "width", 0));
        assertThat(part(SEAT)).isEqualTo(plain);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(part(LEG).get("eased").asDouble()).isZero();
        assertThat(tried("/parts/edges", Map.of("parts", List.of(SEAT), "width", 0.5))
                        .sentence())
                .contains("up to 20 mm");
        Map<String, Object> tiny = Map.of("parts", List.of(SEAT), "width", 1e-9);
        assertThat(browser.post(project + "/parts/edges/preview", tiny)
                        .json()
                        .get("changes")
                        .asBoolean())
                .isFalse();
    }

    /** needs.md P21, P22: what a repair would do is said before; it is done, and taken back, with the shape's figures. */
    @Test
    void partsAreMendedAndMovedAndBack() {
        JsonNode before = browser.get(project + "/scene").json();
        Map<String, Object> grow = Map.of("parts", List.of(LEG), "repair", "OFFSET", "amount", 0.01);
        assertThat(browser.post(project + "/parts/repairs/preview", grow, version())
                        .json()
                        .get("sentence")
                        .asString())
                .isEqualTo("Move the surface of 1 part");
        assertThat(browser.get(project + "/scene").json()).isEqualTo(before);
        post("/parts/repairs", grow);
        assertThat(part(LEG).get("volume").asDouble())
                .isGreaterThan(before.get("parts").get(LEG).get("volume").asDouble());
        assertThat(browser.post(
                                project + "/parts/repairs",
                                Map.of("parts", List.of(LEG), "repair", "OFFSET", "amount", -0.5),
                                version())
                        .sentence())
                .startsWith(name(LEG) + ": ")
                .contains("pass through itself");
        assertThat(browser.post(
                                project + "/parts/repairs",
                                Map.of("parts", List.of(LEG), "repair", "WELD", "amount", 5),
                                version())
                        .status())
                .isEqualTo(422);
        post("/undo", Map.of());
        assertThat(part(LEG)).isEqualTo(before.get("parts").get(LEG));
        post("/parts/repairs", Map.of("parts", List.of(LEG), "repair", "BEVEL", "amount", 0.003));
        assertThat(part(LEG).get("volume").asDouble())
                .as("needs.md P29: without its edges")
                .isLessThan(before.get("parts").get(LEG).get("volume").asDouble());
        assertThat(part(LEG).get("closed").asBoolean()).isTrue();
        post("/undo", Map.of());
        assertThat(part(LEG)).isEqualTo(before.get("parts").get(LEG));

        post("/parts/places", Map.of("parts", List.of(LEG), "way", List.of(0.5, 0, -4), "axis", 1, "degrees", 90));
        JsonNode size = part(LEG).get("size");
        assertThat(size.get(0).asDouble())
                .isCloseTo(before.get("parts").get(LEG).get("size").get(2).asDouble(), within(1e-9));
        assertThat(browser.get(project + "/scene").json().get("bounds").get(2).asDouble())
                .isCloseTo(before.get("bounds").get(2).asDouble() - 4, within(1e-6));
        post("/undo", Map.of());
        assertThat(browser.get(project + "/scene").json().get("bounds")).isEqualTo(before.get("bounds"));
        assertThat(part(LEG)).isEqualTo(before.get("parts").get(LEG));
    }

    /** Taking back a name leaves a role that was given since, and the other way round. */
    @Test
    void namesRolesAndShapesGoBackOnTheirOwn() {
        post("/parts/names", Map.of("names", List.of(Map.of("part", SEAT, "name", "Top"))));
        post("/parts/sides", Map.of("parts", List.of(SEAT), "turn", "flip"));
        String flipped = mesh(SEAT);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(name(SEAT)).isNotEqualTo("Top");
        post("/redo", Map.of());
        post("/redo", Map.of());
        assertThat(name(SEAT)).isEqualTo("Top");
        assertThat(mesh(SEAT)).isEqualTo(flipped);
        post("/parts/roles", Map.of("roles", List.of(Map.of("part", SEAT, "role", "SEAT"))));
        assertThat(part(SEAT).get("role").asString()).isEqualTo("SEAT");
        post("/undo", Map.of());
        assertThat(part(SEAT).get("role").isNull()).isTrue();
        assertThat(name(SEAT)).isEqualTo("Top");
    }

    private String name(int part) {
        return part(part).get("name").asString();
    }

    private String mesh(int part) {
        return part(part).get("mesh").asString();
    }

    @Test
    void aNewCommandForgetsWhatWasUndone() {
        assign("set", setOf(LEG), "MT-003");
        post("/undo", Map.of());
        assign("part", SEAT, "LE-002");
        assertThat(state.get("redo").isNull()).isTrue();
    }

    @Test
    void editingALinkedMaterialChangesAllItsPartsButNeverTheLibrary() {
        assign("set", setOf(LEG), "MT-003");
        adjust(LEG, false, "specular_roughness", 0.9);
        assertThat(roughness(LEG)).isEqualTo(0.9).isEqualTo(roughness(OTHER_LEG));
        assertThat(state.get("palette").get(0).get("material").get("adjusted").asBoolean())
                .isTrue();
        for (JsonNode m : browser.get("/api/library/materials").json()) {
            if (m.get("code").asString().equals("MT-003")) {
                assertThat(m.get("values").get("specular_roughness").asDouble()).isEqualTo(0.22);
            }
        }
        assign("part", SEAT, "MT-003");
        assertThat(roughness(SEAT))
                .as("the library's original, not the adjusted look-alike")
                .isEqualTo(0.22);
    }

    @Test
    void theModelHasALookThatMayGoOnTop() {
        assign("part", LEG, "MT-003");
        assign("model", 0, "PT-014");
        String paint = shown(SEAT);
        assertThat(shown(LEG)).as("the part is narrower").isEqualTo("Spun brass");
        assertThat(shown(OTHER_LEG)).isEqualTo(paint);
        post("/on-top", Map.of("level", "model", "target", 0, "onTop", true));
        assertThat(state.get("undo").asString()).isEqualTo("On top: the whole model");
        assertThat(shown(LEG)).isEqualTo(paint);
        JsonNode strata = get("/why?part=1&span=0").get("levels");
        assertThat(strata.get(0).get("onTop").asBoolean()).isTrue();
        assertThat(strata.get(0).get("why").asString()).contains("on top");
        assertThat(strata.get(3).get("why").asString()).isEqualTo("hidden: the model’s is on top");
        post("/undo", Map.of());
        assertThat(shown(LEG)).isEqualTo("Spun brass");
        Map<String, Object> nothing = Map.of("level", "set", "target", 0, "onTop", true);
        assertThat(tried("/on-top", nothing).status()).isEqualTo(404);
        assertThat(tried("/assignments", Map.of("level", "face", "targets", List.of(0)))
                        .sentence())
                .contains("no such face");
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post(project + "/on-top", nothing, version())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void oneMaterialComesWhereverAnotherIs() {
        String arrived = lookOf(state, SEAT).get("material").asString();
        assign("part", LEG, "MT-003");
        String brass = lookOf(state, LEG).get("material").asString();
        Map<String, Object> paint = Map.of("by", libraryMaterial("PT-014"));
        post("/materials/" + brass + "/replacement", paint);
        String name = shown(LEG);
        assertThat(name).isNotEqualTo("Spun brass");
        assertThat(shown(OTHER_LEG)).isNotEqualTo(name);
        post("/materials/" + arrived + "/replacement", paint);
        assertThat(shown(SEAT)).as("what arrived is replaced by its set").isEqualTo(name);
        assertThat(state.get("palette"))
                .as("brass stays at hand, and one copy for both")
                .hasSize(2);
        assertThat(tried("/materials/" + arrived + "/replacement", paint).sentence())
                .contains("on nothing");
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(shown(LEG)).isEqualTo("Spun brass");
        assertThat(lookOf(state, SEAT).get("material").asString()).isEqualTo(arrived);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post(project + "/materials/" + brass + "/replacement", paint, version())
                        .status())
                .isEqualTo(404);
    }

    @Test
    void onlyThisPartMakesAnIndependentCopy() {
        assign("set", setOf(LEG), "MT-003");
        adjust(LEG, true, "specular_roughness", 0.9);
        assertThat(roughness(LEG)).isEqualTo(0.9);
        assertThat(roughness(OTHER_LEG)).isEqualTo(0.22);
        assertThat(shown(LEG)).isEqualTo("Spun brass · Leg 1");
        adjust(LEG, true, "specular_roughness", 0.8);
        assertThat(state.get("palette"))
                .as("a part that has its material alone edits it in place")
                .hasSize(2);
    }

    @Test
    void aVariationFollowsItsParentInAllButItsOwnValues() {
        assign("set", setOf(LEG), "MT-003");
        String parent = lookOf(state, LEG).get("material").asString();
        post(
                "/materials/" + parent + "/copies",
                Map.of("name", "Brass, dull", "variation", true, "parts", List.of(OTHER_LEG)));
        assertThat(shown(OTHER_LEG)).isEqualTo("Brass, dull");
        adjust(OTHER_LEG, false, "specular_roughness", 0.8);
        assertThat(roughness(LEG)).isEqualTo(0.22);
        adjust(LEG, false, "coat_weight", 1);
        adjust(LEG, false, "specular_roughness", 0.1);
        assertThat(coat(OTHER_LEG)).isEqualTo(1);
        assertThat(roughness(OTHER_LEG)).as("its own").isEqualTo(0.8);
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(coat(OTHER_LEG)).isZero();
        String variation = lookOf(state, OTHER_LEG).get("material").asString();
        post("/materials/" + variation + "/independence", Map.of());
        adjust(LEG, false, "coat_weight", 0.5);
        assertThat(coat(OTHER_LEG)).isZero();
    }

    /** needs.md J68: trim follows a main colour, near and far, until it is given a colour of its own. */
    @Test
    void aColourFollowsAnotherAsAShadeOfIt() {
        assign("part", SEAT, "PT-014");
        assign("part", LEG, "PT-017");
        assign("part", OTHER_LEG, "PT-022");
        follow(LEG, SEAT, -0.4);
        follow(OTHER_LEG, LEG, 0.5);
        LinearRgb teal = new LinearRgb(0.05, 0.21, 0.24);
        adjust(SEAT, false, "base_color", List.of(teal.r(), teal.g(), teal.b()));
        LinearRgb dark = new Shade(-0.4).of(teal);
        assertThat(green(LEG)).isCloseTo(dark.g(), within(1e-6));
        assertThat(green(OTHER_LEG)).isCloseTo(new Shade(0.5).of(dark).g(), within(1e-6));
        adjust(LEG, false, "specular_roughness", 0.6);
        assertThat(palette(LEG).get("shade").asDouble())
                .as("gloss is no colour")
                .isEqualTo(-0.4);

        Browser.Answer round = tried("/adjustments", following(SEAT, OTHER_LEG, 0));
        assertThat(round.status()).isEqualTo(422);
        assertThat(round.sentence()).contains("follows").contains("already");
        Map<String, Object> word = Map.of("part", SEAT, "span", 0, "values", Map.of("follow", "red"));
        assertThat(tried("/adjustments", word).status()).isEqualTo(422);

        adjust(LEG, false, "base_color", List.of(0.3, 0.3, 0.3));
        assertThat(palette(LEG).get("colourOf").isNull()).as("its own colour").isTrue();
        assertThat(green(OTHER_LEG))
                .isCloseTo(new Shade(0.5).of(LinearRgb.grey(0.3)).g(), within(1e-6));
        post("/undo", Map.of());
        assertThat(green(LEG)).isCloseTo(dark.g(), within(1e-6));
        adjust(SEAT, false, "base_color", List.of(0.8, 0.8, 0.8));
        assertThat(green(LEG)).isCloseTo(new Shade(-0.4).of(LinearRgb.grey(0.8)).g(), within(1e-6));
    }

    private void follow(int part, int main, double shade) {
        post("/adjustments", following(part, main, shade));
    }

    private Map<String, Object> following(int part, int main, double shade) {
        String of = lookOf(state, main).get("material").asString();
        return Map.of("part", part, "span", 0, "values", Map.of("follow", Map.of("of", of, "shade", shade)));
    }

    private JsonNode palette(int part) {
        String id = lookOf(state, part).get("material").asString();
        for (JsonNode used : state.get("palette")) {
            if (used.get("material").get("id").asString().equals(id)) {
                return used.get("material");
            }
        }
        throw new AssertionError("not in the palette: " + id);
    }

    private double green(int part) {
        return lookOf(state, part).get("physical").get("baseColor").get(1).asDouble();
    }

    @Test
    void aCopyIsTrulyIndependentAndNamedInTheSameBreath() {
        assign("set", setOf(LEG), "MT-003");
        String brass = lookOf(state, LEG).get("material").asString();
        post(
                "/materials/" + brass + "/copies",
                Map.of(
                        "name",
                        "Brass B",
                        "variation",
                        false,
                        "parts",
                        List.of(OTHER_LEG),
                        "colour",
                        List.of(0.2, 0.3, 0.4)));
        adjust(LEG, false, "coat_weight", 1);
        assertThat(coat(LEG)).isEqualTo(1);
        assertThat(coat(OTHER_LEG)).isZero();
        assertThat(shown(OTHER_LEG)).isEqualTo("Brass B");
        JsonNode colour = lookOf(state, OTHER_LEG).get("physical").get("baseColor");
        assertThat(colour.get(2).asDouble()).isCloseTo(0.4, within(1e-6));
        assertThat(lookOf(state, LEG).get("physical").get("baseColor").get(2).asDouble())
                .isNotCloseTo(0.4, within(0.01));
    }

    @Test
    void wishesAboutAMaterialAreMetAndWhatItWasCanBePutBack() {
        assign("part", SEAT, "PT-014");
        JsonNode before = materialOf(SEAT);
        wish(SEAT, Map.of("gloss", 40));
        assertThat(materialOf(SEAT).get("gloss").asDouble()).isBetween(39.5, 40.5);
        assertThat(materialOf(SEAT).get("finish").asString()).isEqualTo("satin");
        wish(SEAT, Map.of("kind", "metal"));
        wish(SEAT, Map.of("metal", "COPPER"));
        assertThat(materialOf(SEAT).get("kind").asString()).isEqualTo("metal");
        assertThat(materialOf(SEAT).get("metal").asString()).isEqualTo("COPPER");
        wish(SEAT, Map.of("kind", "paint", "whole", before.get("whole")));
        assertThat(materialOf(SEAT)).isEqualTo(before);
        Map<String, Object> foreign =
                Map.of("textures", Map.of("base_color", Map.of("image", "0".repeat(64), "real_size", List.of(1, 1))));
        Map<String, Object> body = Map.of("part", SEAT, "span", 0, "values", foreign);
        assertThat(browser.post(project + "/adjustments", body, version()).status())
                .as("an image that is not the project's")
                .isEqualTo(404);
    }

    private void wish(int part, Map<String, Object> values) {
        post("/adjustments", Map.of("part", part, "span", 0, "values", values));
    }

    private JsonNode materialOf(int part) {
        String id = lookOf(state, part).get("material").asString();
        for (JsonNode m : state.get("palette")) {
            if (m.get("material").get("id").asString().equals(id)) {
                return m.get("material");
            }
        }
        throw new AssertionError("not in the palette");
    }

    private double coat(int part) {
        return lookOf(state, part).get("physical").get("clearcoat").asDouble();
    }

    @Test
    void anArrivedMaterialBecomesFullyAdjustableKeepingItsColour() {
        adjust(SEAT, false, "coat_weight", 1);
        assertThat(lookOf(state, SEAT).get("physical").get("baseColor").get(0).asDouble())
                .isEqualTo(0.3);
        assertThat(lookOf(state, SEAT).get("physical").get("clearcoat").asDouble())
                .isEqualTo(1);
        assertThat(lookOf(state, SEAT).get("from").asString()).isEqualTo("set");
    }

    @Test
    void aPreviewGivesTheNumbersThatTheChangeThenStores() {
        assign("set", setOf(LEG), "GL-004");
        Map<String, Object> change = Map.of("part", LEG, "span", 0, "values", Map.of("transmission_depth", 0.01));
        JsonNode preview = browser.post(project + "/preview", change).json();
        long before = version();
        assertThat(browser.get(project + "/state").json().get("version").asLong())
                .isEqualTo(before);
        post("/adjustments", change);
        assertThat(lookOf(state, LEG).get("physical")).isEqualTo(preview.get("physical"));
    }

    @Test
    void whoHasNotSeenWhatTheModelBecameIsRefusedWithItAndChangesNothing() {
        long old = version();
        database.update(
                "update project set version = version + 1 where id = ?::uuid", // as work that is no command does
                project.substring("/api/projects/".length()));
        state = browser.get(project + "/state").json();
        Browser.Answer late = browser.post(
                project + "/assignments",
                Map.of("level", "part", "targets", List.of(SEAT), "material", libraryMaterial("LE-002")),
                old);
        assertThat(late.status()).isEqualTo(409);
        assertThat(late.problem()).isEqualTo("stale");
        assertThat(late.json().get("current").get("version").asLong()).isEqualTo(version());
        assertThat(browser.get(project + "/state").json()).isEqualTo(state);
        assertThat(browser.post(project + "/undo", Map.of()).status()).isEqualTo(428);
    }

    @Test
    void undoAsksBeforeItUndoesWhatOthersBuiltOn() {
        assign("part", SEAT, "LE-002");
        database.update(
                "update entry set on_top = true where level = 'PART' and target = 0 and scheme_id = "
                        + "(select id from scheme where project_id = ?::uuid)",
                project.substring("/api/projects/".length()));
        Browser.Answer refused = browser.post(project + "/undo", Map.of(), version());
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.problem()).isEqualTo("built-upon");
        assertThat(refused.sentence()).endsWith("Do it anyway?");
        assertThat(shown(SEAT)).isEqualTo("Saddle hide");
        post("/undo?force=true", Map.of());
        assertThat(shown(SEAT)).isEqualTo("seat");
    }

    @Test
    void valuesThatAParameterCannotTakeAreRefusedWithItsName() {
        Browser.Answer bad = browser.post(
                project + "/adjustments", Map.of("part", 0, "span", 0, "values", Map.of("specular_ior", 9)), version());
        assertThat(bad.status()).isEqualTo(422);
        assertThat(bad.json().get("field").asString()).isEqualTo("specular_ior");
        assertThat(bad.sentence()).isEqualTo("specular_ior must lie between 1 and 3; 9 does not.");
        Browser.Answer unknown = browser.post(
                project + "/adjustments", Map.of("part", 0, "span", 0, "values", Map.of("shininess", 1)), version());
        assertThat(unknown.sentence()).contains("no material parameter “shininess”");
        Browser.Answer nowhere =
                browser.post(project + "/assignments", Map.of("level", "part", "targets", List.of(99)), version());
        assertThat(nowhere.status()).isEqualTo(404);
        assertThat(browser.get(project + "/state").json().get("version").asLong())
                .isEqualTo(version());
    }

    @Test
    void coloursAreWorkedOutByCoreAndBadOnesGetASentence() {
        JsonNode red =
                browser.post("/api/colours/typed", Map.of("text", "#A5281F")).json();
        assertThat(red.get("codes")).hasSize(3);
        assertThat(red.get("lightReflectanceValue").asDouble()).isBetween(9.0, 10.0);
        Browser.Answer bad = browser.post("/api/colours/typed", Map.of("text", "reddish"));
        assertThat(bad.status()).isEqualTo(422);
        assertThat(bad.sentence()).contains("“reddish” is no colour");
    }

    private void adjust(int part, boolean onlyPart, String parameter, Object value) {
        Map<String, Object> body = new HashMap<>(Map.of("part", part, "span", 0, "values", Map.of(parameter, value)));
        if (onlyPart) {
            body.put("only", List.of(part));
        }
        post("/adjustments", body);
    }

    private double roughness(int part) {
        return lookOf(state, part).get("physical").get("roughness").asDouble();
    }
}
