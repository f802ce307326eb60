package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Matching sets are told, left, split, merged and named, each with a way back. */
class SetsTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;
    private static final int OTHER_LEG = 2;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    /** needs.md P04: what arrived with each source material, and how much of the model that is. */
    @Test
    void setsAreToldWithTheirShareOfTheModel() {
        JsonNode sets = browser.get(project + "/sets").json();
        assertThat(sets).hasSize(2);
        assertThat(sets.get(0).get("name").asString()).isEqualTo("steel");
        assertThat(sets.get(0).get("parts").asInt()).isEqualTo(4);
        assertThat(sets.get(0).get("share").asDouble()).isCloseTo(4.0 / 6, within(1e-9));
        assertThat(sets.get(0).get("alike").isNull()).isTrue();
        assertThat(stranger().asNewDesigner(accounts).get(project + "/sets").status())
                .isEqualTo(404);
    }

    /** rules.md §1: moving a part out of its matching set, and back, loses nothing it had. */
    @Test
    void aPartTakenOutOfItsSetNoLongerFollowsItAndDoesAgainOnceItIsBack() {
        int steel = setOf(LEG);
        post("/parts/sets", Map.of("parts", List.of(LEG), "to", "own"));
        assertThat(state.get("undo").asString()).isEqualTo("Take Leg 1 out of the set");
        int own = setOf(LEG);
        assertThat(own).isNotEqualTo(steel);
        assertThat(scene().get("sets").get(own).get("name").asString()).isEqualTo("steel 2");
        assertThat(shown(LEG)).as("it still looks as it arrived").isEqualTo("steel");
        post("/assignments", Map.of("level", "set", "targets", List.of(steel), "material", libraryMaterial("MT-003")));
        assertThat(shown(OTHER_LEG)).isEqualTo("Spun brass");
        assertThat(shown(LEG)).isEqualTo("steel");
        post("/assignments", Map.of("level", "set", "targets", List.of(own), "material", libraryMaterial("MT-012")));
        assertThat(shown(LEG)).isEqualTo("Raw copper");
        post("/parts/sets", Map.of("parts", List.of(LEG, SEAT), "to", "home"));
        assertThat(setOf(LEG)).isEqualTo(steel);
        assertThat(shown(LEG)).isEqualTo("Spun brass");
        post("/undo", Map.of());
        assertThat(shown(LEG)).as("the set of its own has kept what it had").isEqualTo("Raw copper");
        assertThat(browser.post(
                                project + "/parts/sets",
                                Map.of("parts", List.of(LEG), "to", "own"),
                                state.get("version").asLong())
                        .sentence())
                .as("alone in its set already")
                .contains("like that already");
    }

    /** needs.md P06: one source material on several surfaces. */
    @Test
    void aSetIsSplitByWhereItsSurfaceFacesAndBackWithItsMeshes() {
        JsonNode before = scene();
        int steel = setOf(LEG);
        JsonNode kinds =
                browser.get(project + "/sets/" + steel + "/kinds?by=DIRECTION").json();
        assertThat(kinds.size()).isGreaterThan(2);
        post("/sets/" + steel + "/split", Map.of("by", "DIRECTION"));
        assertThat(state.get("undo").asString()).isEqualTo("Split steel in " + kinds.size());
        JsonNode leg = scene().get("parts").get(LEG);
        assertThat(leg.get("sets")).hasSize(kinds.size());
        assertThat(leg.get("homes").get(1).asInt()).isEqualTo(steel);
        assertThat(leg.get("volume")).isEqualTo(before.get("parts").get(LEG).get("volume"));
        assertThat(scene().get("parts").get(OTHER_LEG).get("mesh"))
                .as("the same shape split the same way is kept once")
                .isEqualTo(leg.get("mesh"));
        assertThat(browser.get(project + "/exports/glb").status()).isEqualTo(200);
        post("/undo", Map.of());
        assertThat(scene().get("parts")).isEqualTo(before.get("parts"));
        post("/redo", Map.of());
        assertThat(scene().get("parts").get(LEG)).isEqualTo(leg);
        assertThat(browser.get(project + "/sets/99/kinds?by=PIECE").status()).isEqualTo(404);
    }

    /** needs.md P06, P17: faces picked by hand go into a set of their own, or are turned over. */
    @Test
    void pickedFacesAreSplitOffAndFlipped() {
        JsonNode before = scene();
        post("/parts/0/faces", Map.of("faces", List.of(2), "act", "split"));
        assertThat(state.get("undo").asString()).isEqualTo("Split 1 face off Seat");
        JsonNode seat = scene().get("parts").get(SEAT);
        assertThat(seat.get("sets")).hasSize(2);
        int own = seat.get("sets").get(1).asInt();
        assertThat(scene().get("sets").get(own).get("name").asString()).isEqualTo("seat 2");
        post("/assignments", Map.of("level", "set", "targets", List.of(own), "material", libraryMaterial("MT-012")));
        assertThat(shown(SEAT)).as("the rest is as it was").isEqualTo("seat");
        post("/parts/0/faces", Map.of("faces", List.of(0), "act", "flip"));
        assertThat(scene().get("parts").get(SEAT).get("closed").asBoolean())
                .as("one face runs against the others")
                .isFalse();
        for (int i = 0; i < 3; i++) {
            post("/undo", Map.of());
        }
        assertThat(scene().get("parts")).isEqualTo(before.get("parts"));
    }

    @Test
    void setsAreMergedAndNamedAndTheirPartsFollowTheOneTheyAreIn() {
        int steel = setOf(LEG);
        int seat = setOf(SEAT);
        post("/sets/merge", Map.of("sets", List.of(steel, seat)));
        assertThat(shown(SEAT)).isEqualTo("steel");
        assertThat(browser.get(project + "/sets").json()).hasSize(1);
        post("/sets/" + steel + "/name", Map.of("name", "  Frame "));
        assertThat(scene().get("sets").get(steel).get("name").asString()).isEqualTo("Frame");
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(shown(SEAT)).isEqualTo("seat");
        assertThat(scene().get("sets").get(steel).get("name").asString()).isEqualTo("steel");
    }

    @Test
    void partsLikeOneAreToldAndTidyNamesAndPlainColours() {
        JsonNode alike = browser.get(project + "/parts/1/similar").json();
        assertThat(alike.get(0).get("by").asString()).isEqualTo("SHAPE");
        assertThat(alike.get(0).get("parts")).hasSize(6);
        assertThat(browser.get(project + "/parts/names/tidy").json())
                .as("all have names")
                .isEmpty();
        JsonNode bySet = browser.get(project + "/parts/colours?by=set").json();
        assertThat(bySet.get(LEG)).isEqualTo(bySet.get(OTHER_LEG)).isNotEqualTo(bySet.get(SEAT));
        assertThat(bySet.get(SEAT).asString()).matches("#[0-9A-Fa-f]{6}");
    }
}
