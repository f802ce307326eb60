package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** Schemes, levels, and the way back: rules.md, section 1; needs.md O04, O11, O12, O22, A19 to A21, A43. */
class SchemesTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;
    private static final int OTHER_LEG = 2;
    private static final int FAR_SEAT = 3;
    private static final int FAR_LEG = 4;
    private static final int STOOL = 0;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
    }

    @Test
    void aBasedSchemeStoresWhatDiffersAndFollowsInAllElse() {
        assign("set", setOf(LEG), "MT-003");
        assign("part", SEAT, "LE-002");
        String first = state.get("scheme").asString();
        begin("Copper", "BASED", first);
        assertThat(letters()).containsExactly("A", "B");
        assertThat(state.get("schemes").get(1).get("own").asInt()).isZero();
        assertThat(shown(LEG)).isEqualTo("Spun brass");

        assign("set", setOf(LEG), "MT-012");
        assign("part", SEAT, null);
        assertThat(shown(SEAT)).as("taken off in this scheme").isEqualTo("seat");
        JsonNode why = get("/why?part=1&span=0");
        assertThat(level(why, "set").get("differs").asBoolean()).isTrue();
        assertThat(why.get("sentence").asString())
                .isEqualTo(
                        "Leg 1 shows Raw copper because its matching set “steel” has it, and nothing narrower has a look."
                                + " Without it, “steel” as it arrived would show.");

        scheme = first;
        reread();
        assertThat(shown(LEG)).isEqualTo("Spun brass");
        assertThat(shown(SEAT)).as("stays in the other").isEqualTo("Saddle hide");
        assign("part", OTHER_LEG, "PT-014");
        scheme = idOf("B");
        reread();
        assertThat(shown(OTHER_LEG)).as("a change of the base").isNotEqualTo("Raw copper");
        assertThat(level(get("/why?part=2&span=0"), "part").get("inherited").asString())
                .isEqualTo("A");
        assertThat(shown(LEG)).isEqualTo("Raw copper");

        post("/as-in-base", Map.of("level", "set", "target", setOf(LEG)));
        assertThat(shown(LEG)).isEqualTo("Spun brass");
        assertThat(tried("/as-in-base", Map.of("level", "set", "target", setOf(LEG)))
                        .sentence())
                .contains("Nothing differs there");
    }

    /** A browser keeps what it has got and asks whether it still holds. */
    @Test
    void whatIsKnownOfOneSchemeIsNotTakenForAnother() {
        String first = state.get("scheme").asString();
        begin("Copper", "BASED", first);
        assertThat(tag(first)).isNotEqualTo(tag(scheme)).isEqualTo(tag(first));
    }

    private String tag(String ofScheme) {
        return browser.get(project + "/state?scheme=" + ofScheme)
                .raw()
                .headers()
                .firstValue("ETag")
                .orElseThrow();
    }

    @Test
    void deletingABaseLeavesLooksAsTheyAreAndIsTakenBackWhole() {
        assign("set", setOf(LEG), "MT-003");
        String first = state.get("scheme").asString();
        begin("Copper", "BASED", first);
        assign("set", setOf(SEAT), "LE-002");
        JsonNode before = looks();
        JsonNode dividers = state.get("schemes");

        state = browser.delete(project + "/schemes/" + first, version()).json();
        reread();
        assertThat(letters()).containsExactly("B");
        assertThat(state.get("schemes").get(0).get("bases")).isEmpty();
        assertThat(looks()).isEqualTo(before);
        assertThat(browser.delete(project + "/schemes/" + scheme, version()).sentence())
                .contains("at least one scheme");
        post("/undo", Map.of());
        assertThat(state.get("schemes")).isEqualTo(dividers);
        assertThat(looks()).isEqualTo(before);
    }

    @Test
    void aCopyIsIndependentAndARejectedSchemeSaysWhy() {
        assign("set", setOf(LEG), "MT-003");
        String first = state.get("scheme").asString();
        begin("Second thoughts", "COPY", first);
        assign("set", setOf(LEG), "MT-012");
        assertThat(describe("REJECTED", " ").sentence()).startsWith("Say why it was rejected");
        assertThat(describe("REJECTED", "Too red beside the brick").status()).isEqualTo(200);
        reread();
        assertThat(state.get("schemes").get(1).get("reason").asString()).isEqualTo("Too red beside the brick");
        assertThat(state.get("undo").asString()).isEqualTo("Scheme B “Second thoughts”: rejected");
        assertThat(browser.put(project + "/schemes/order", Map.of("schemes", List.of(scheme, first)), version())
                        .status())
                .isEqualTo(200);
        reread();
        assertThat(letters()).containsExactly("B", "A");
        String other = first;
        JsonNode differences = get("/schemes/" + scheme + "/differences?other=" + other);
        assertThat(differences).hasSize(1);
        JsonNode d = differences.get(0);
        assertThat(d.get("fromName").asString()).isEqualTo("Raw copper");
        assertThat(d.get("toName").asString()).isEqualTo("Spun brass");
        assertThat(d.get("parts")).hasSize(4);
        JsonNode beside = browser.post(
                        "/api/colours/beside", Map.of("one", linear("MT-012"), "other", linear("MT-003")))
                .json();
        assertThat(d.get("difference").asDouble())
                .isEqualTo(beside.get("difference").asDouble(), within(1e-6))
                .isGreaterThan(2);
        assertThat(d.get("area").asDouble())
                .as("a right-angled tetrahedron of edge 1, four times")
                .isEqualTo(4 * (1.5 + Math.sqrt(3) / 2), within(1e-6));
        JsonNode back =
                get("/schemes/" + other + "/differences?other=" + scheme).get(0);
        assertThat(back.get("gloss").asDouble()).isEqualTo(-d.get("gloss").asDouble(), within(1e-9));
    }

    @Test
    void oneChangeGoesToChosenSchemesAndOneReplacementToAllOrToOne() {
        String first = state.get("scheme").asString();
        begin("Second", "EMPTY", null);
        String second = scheme;
        begin("Third", "EMPTY", null);
        Map<String, Object> body = new HashMap<>(Map.of("level", "set", "targets", List.of(setOf(LEG))));
        body.put("material", libraryMaterial("MT-003"));
        body.put("schemes", List.of(first, scheme));
        post("/assignments", body);
        assertThat(state.get("undo").asString()).endsWith("on set “steel” in A, C");
        assertThat(shownIn(first, LEG)).isEqualTo("Spun brass").isEqualTo(shownIn(scheme, LEG));
        assertThat(shownIn(second, LEG)).isEqualTo("steel");

        reread();
        String brass = lookOf(state, LEG).get("material").asString();
        post(
                "/materials/" + brass + "/replacement",
                Map.of("by", libraryMaterial("MT-012"), "schemes", List.of(scheme)));
        assertThat(shownIn(first, LEG)).isEqualTo("Spun brass");
        assertThat(shownIn(scheme, LEG)).isEqualTo("Raw copper");
        reread();
        String copper = lookOf(state, LEG).get("material").asString();
        post(
                "/materials/" + copper + "/replacement",
                Map.of("by", libraryMaterial("PT-014"), "parts", List.of(LEG, FAR_SEAT)));
        assertThat(lookOf(state, LEG).get("from").asString()).isEqualTo("part");
        assertThat(shown(OTHER_LEG)).isEqualTo("Raw copper");
    }

    @Test
    void aGroupDressesWhatIsInItAndATrialSaysWhatWouldStayHidden() {
        assign("part", LEG, "MT-012");
        assign("group", STOOL, "MT-003");
        assertThat(shown(SEAT)).isEqualTo("Spun brass").isEqualTo(shown(OTHER_LEG));
        assertThat(shown(LEG)).isEqualTo("Raw copper");
        assertThat(shown(FAR_SEAT)).isEqualTo("seat");
        String paint = libraryMaterial("PT-014");

        JsonNode set = trial("set", setOf(LEG), LEG, paint);
        assertThat(set.get("hiddenBy").asString()).isEqualTo("part");
        assertThat(set.get("parts").asInt()).as("those of the far stool").isEqualTo(2);
        assertThat(set.get("hidden").asInt()).as("two legs of this one").isEqualTo(2);
        JsonNode part = trial("part", LEG, LEG, paint);
        assertThat(part.get("hiddenBy").isNull()).isTrue();
        assertThat(part.get("reached")).hasSize(1);

        post("/taken-off", Map.of("part", LEG, "span", 0, "extent", "LADDER"));
        assertThat(shown(LEG)).isEqualTo("steel").isEqualTo(shown(OTHER_LEG));
        post("/undo", Map.of());
        post("/taken-off", Map.of("part", LEG, "span", 0, "extent", "MATERIAL"));
        assertThat(shown(LEG)).as("what the group has appears").isEqualTo("Spun brass");
        assertThat(tried("/assignments", Map.of("level", "group", "targets", List.of(9), "material", paint))
                        .status())
                .isEqualTo(404);
    }

    /** Undo of one's own commands goes one by one; a moment is gone back to at once, and that is taken back at once. */
    @Test
    void aMomentIsNamedGoneBackToAndLeftAgain() {
        assign("set", setOf(LEG), "MT-003");
        JsonNode moment = get("/history").get(0);
        String path = "/history/" + moment.get("id").asLong();
        assertThat(browser.put(project + path + "/name", Map.of("name", "Before the client"))
                        .status())
                .isEqualTo(200);
        JsonNode then = browser.get(project + "/state").json();
        int parts = scene().get("parts").size();

        begin("Copper", "BASED", state.get("scheme").asString());
        assign("group", STOOL, "MT-012");
        Map<String, Object> adjustment = Map.of("part", LEG, "span", 0, "values", Map.of("specular_roughness", 0.77));
        post("/adjustments", adjustment);
        post("/parts/names", Map.of("names", List.of(Map.of("part", SEAT, "name", "Perch"))));
        post("/parts/sets", Map.of("parts", List.of(FAR_LEG), "to", "own"));
        assign("set", setOf(FAR_LEG), "PT-014");
        List<JsonNode> newest = List.of(state, scene());

        post(path + "/return", Map.of());
        assertThat(state.get("undo").asString()).isEqualTo("Back to: Before the client");
        for (String field : List.of("looks", "regions", "schemes", "palette")) {
            assertThat(state.get(field)).as(field).isEqualTo(then.get(field));
        }
        assertThat(part(SEAT).get("name").asString()).isEqualTo("Seat");
        assertThat(scene().get("parts")).hasSize(parts);
        assertThat(get("/history").get(1).get("undone").asBoolean()).isFalse();

        post("/undo", Map.of());
        reread();
        for (String field : List.of("looks", "regions", "schemes")) {
            assertThat(state.get(field)).as(field).isEqualTo(newest.get(0).get(field));
        }
        assertThat(scene().get("parts")).isEqualTo(newest.get(1).get("parts"));
    }

    /** Letters are given again; going back to one that was given up and given again, and away again, keeps them apart. */
    @Test
    void aMomentBeforeALetterWasGivenAgainCanBeGoneBackTo() {
        String first = state.get("scheme").asString();
        begin("Copper", "BASED", first);
        assign("set", setOf(LEG), "MT-012");
        long moment = get("/history").get(0).get("id").asLong();
        JsonNode then = state.get("schemes");
        state = browser.delete(project + "/schemes/" + scheme, version()).json();
        begin("Green", "BASED", first);
        assertThat(letters()).containsExactly("A", "B");
        JsonNode newest = state.get("schemes");
        post("/history/" + moment + "/return", Map.of());
        assertThat(state.get("schemes")).isEqualTo(then);
        post("/undo", Map.of());
        assertThat(state.get("schemes")).isEqualTo(newest);
    }

    @Test
    void aMaterialOfTwoSchemesIsChangedInOneAlone() {
        assign("set", setOf(LEG), "MT-003");
        String first = state.get("scheme").asString();
        begin("Dull", "BASED", first);
        assertThat(state.get("palette").get(0).get("in").get(0).asString())
                .as("said before")
                .isEqualTo("A");
        post(
                "/adjustments",
                Map.of("part", LEG, "span", 0, "here", true, "values", Map.of("specular_roughness", 0.77)));
        assertThat(roughness()).isEqualTo(0.77);
        assertThat(shown(LEG)).isEqualTo("Spun brass · B");
        scheme = first;
        reread();
        assertThat(roughness()).isNotEqualTo(0.77);
        assertThat(shown(LEG)).isEqualTo("Spun brass");
    }

    private double roughness() {
        return lookOf(state, LEG).get("physical").get("roughness").asDouble();
    }

    /** rules.md, section 1: how something lies is resolved apart from its material, and stays when that is replaced. */
    @Test
    void aMappingStaysWithItsTargetAndATrialShowsIt() {
        String brass = libraryMaterial("MT-003");
        post("/assignments", Map.of("level", "part", "targets", List.of(LEG), "material", brass, "mapping", "model"));
        assertThat(lookOf(state, LEG).get("mapping").asString()).isEqualTo("model");
        assertThat(lookOf(state, LEG).get("mapped").asBoolean()).isTrue();
        assertThat(trial("part", LEG, LEG, libraryMaterial("WD-004"))
                        .get("look")
                        .get("mapping")
                        .asString())
                .isEqualTo("model");
        assign("part", LEG, "WD-004");
        assertThat(lookOf(state, LEG).get("mapping").asString()).isEqualTo("model");
        assertThat(lookOf(state, OTHER_LEG).get("mapped").asBoolean()).isFalse();
        assertThat(tried("/assignments", Map.of("level", "part", "targets", List.of(0), "mapping", "sideways"))
                        .status())
                .isEqualTo(422);
    }

    /** Broader and narrower than where it shows, as far as there are levels. */
    @Test
    void aTrialStepsThroughTheLevels() {
        String path = "/trial?part=" + LEG + "&span=0&material=" + libraryMaterial("PT-014") + "&steps=";
        assertThat(List.of(-9, -1, 0, 1, 2, 9).stream()
                        .map(n -> get(path + n).get("level").asString()))
                .containsExactly("model", "model", "set", "group", "part", "part");
        assertThat(get(path + 1).get("name").asString()).isEqualTo("Stool 1");
        assertThat(get(path + 1).get("parts").asInt()).isEqualTo(3);
    }

    /** needs.md O01, O03: candidates leave what shows alone; 3 × 2 of them make 6 schemes, taken back as one. */
    @Test
    void candidatesAreKeptAndTheirCombinationsMakeSchemes() {
        assign("set", setOf(LEG), "MT-003");
        JsonNode before = looks();
        for (String code : List.of("MT-003", "MT-012", "MT-009")) {
            candidate("set", setOf(LEG), code);
        }
        candidate("part", SEAT, "LE-002");
        candidate("part", SEAT, "LE-005");
        assertThat(looks()).isEqualTo(before);
        assertThat(state.get("candidates").get(1).get("materials")).hasSize(3);
        assertThat(tried("/candidates", Map.of("level", "part", "target", SEAT, "material", libraryMaterial("LE-005")))
                        .sentence())
                .contains("already");

        List<Map<String, Object>> of =
                List.of(Map.of("level", "set", "target", setOf(LEG)), Map.of("level", "part", "target", SEAT));
        post("/candidates/schemes", Map.of("of", of));
        assertThat(letters()).containsExactly("A", "B", "C", "D", "E", "F", "G");
        assertThat(state.get("schemes").get(6).get("name").asString()).isEqualTo("Zinced steel · Black bridle leather");
        assertThat(shownIn(idOf("D"), LEG)).isEqualTo("Raw copper");
        assertThat(shownIn(idOf("D"), SEAT)).isEqualTo("Saddle hide");
        reread();
        post("/undo", Map.of());
        assertThat(letters()).containsExactly("A");

        String hide = state.get("candidates").get(0).get("materials").get(0).asString();
        post("/candidates/dropped", Map.of("level", "part", "target", SEAT, "material", hide));
        assertThat(state.get("candidates").get(0).get("materials")).hasSize(1);
        assertThat(tried("/candidates/schemes", Map.of("of", List.of(Map.of("level", "part", "target", FAR_SEAT))))
                        .sentence())
                .contains("no candidate");
    }

    /** Groups and parts get other numbers when a model before them goes; what is on them goes along, and comes back. */
    @Test
    void aGroupsLookStaysWithItWhenAModelBeforeItGoes() throws Exception {
        for (String name : List.of("one.glb", "two.glb")) {
            List<Planks.Plank> board = List.of(new Planks.Plank("Board", 1, 0, 1));
            browser.ended(browser.uploadBeside(
                    project.substring("/api/projects/".length()), "DESIGN", name, Planks.file(board, "paint")));
        }
        reread();
        int group = groupCalled("two");
        assign("group", group, "MT-012");
        candidate("group", group, "MT-003");
        JsonNode before = state.get("looks");
        int last = scene().get("parts").size() - 1;
        assertThat(shown(last)).isEqualTo("Raw copper");

        state = browser.delete(project + "/models/1", version()).json();
        assertThat(groupCalled("two")).isLessThan(group);
        assertThat(shown(last - 1)).isEqualTo("Raw copper");
        assertThat(state.get("candidates").get(0).get("target").asInt()).isEqualTo(groupCalled("two"));
        post("/undo", Map.of());
        assertThat(state.get("looks")).isEqualTo(before);
        assertThat(state.get("candidates").get(0).get("target").asInt()).isEqualTo(group);
    }

    /** needs.md O15: told apart by colour and by hatch, alike where the material is the same. */
    @Test
    void eachMaterialHasAMarkOfItsOwn() {
        JsonNode leg = marked("MATERIAL", LEG);
        JsonNode seat = marked("MATERIAL", SEAT);
        assertThat(marked("MATERIAL", FAR_LEG)).isEqualTo(leg);
        assertThat(seat.get("colour")).isNotEqualTo(leg.get("colour"));
        assertThat(seat.get("hatch")).isNotEqualTo(leg.get("hatch"));
        assign("part", FAR_LEG, "MT-003");
        JsonNode brass = marked("MATERIAL", FAR_LEG);
        assertThat(brass).isNotEqualTo(leg);
        assertThat(brass.get("name").asString()).isEqualTo("MT-003 Spun brass");
        assertThat(brass.get("parts").asInt()).isEqualTo(1);
        assertThat(brass.get("area").asDouble())
                .isCloseTo(part(FAR_LEG).get("area").asDouble(), within(1e-9));
    }

    /** needs.md O14: a code for what things are for; what is for nothing in particular takes no colour. */
    @Test
    void rolesHaveMarksAndWhatHasNoneIsPlain() {
        post(
                "/parts/roles",
                Map.of("roles", List.of(Map.of("part", LEG, "role", "LEG"), Map.of("part", FAR_LEG, "role", "LEG"))));
        JsonNode leg = marked("ROLE", FAR_LEG);
        assertThat(leg).isEqualTo(marked("ROLE", LEG));
        assertThat(leg.get("name").asString()).isEqualTo("leg");
        JsonNode seat = marked("ROLE", SEAT);
        assertThat(seat.get("name").asString()).isEqualTo("no role");
        assertThat(seat.get("hatch").asInt()).isZero();
        JsonNode things = get("/schemes/diagram?by=ROLE").get("things");
        assertThat(things.get(things.size() - 1)).isEqualTo(seat);
        assertThat(browser.get(project + "/schemes/diagram?by=WEIGHT").status()).isBetween(400, 422);
    }

    /** needs.md O14: the areas of a design are what divides it, whatever stands around it. */
    @Test
    void areasAreTheGroupsThatDivideTheDesign() {
        List<String> areas = List.of("Stool 1", "Stool 2");
        assertThat(names("GROUP")).containsExactlyInAnyOrderElementsOf(areas);
        post("/models", Map.of("form", "TREE"));
        for (String by : List.of("GROUP", "ROLE", "MATERIAL")) {
            assertThat(names(by)).as(by).contains("surroundings").doesNotContain("Tree", "Bark");
        }
        assertThat(names("GROUP")).hasSize(3).containsAll(areas);
    }

    /** needs.md J74: a material is drawn as it is told to be, apart from its look or in that one's colour, until that is undone. */
    @Test
    void aMaterialMayHaveItsOwnColourAndHatchInDiagrams() {
        assign("part", LEG, "PT-014");
        JsonNode asComes = marked("MATERIAL", LEG);
        String facts = "/materials/" + lookOf(state, LEG).get("material").asString() + "/facts";
        post(facts, Map.of("drawing", Map.of("colour", "#123456", "hatch", 3)));
        JsonNode own = marked("MATERIAL", LEG);
        assertThat(own.get("colour").asString()).isEqualToIgnoringCase("#123456");
        assertThat(own.get("hatch").asInt()).isEqualTo(3);
        assertThat(marked("ROLE", LEG).get("colour")).isNotEqualTo(own.get("colour"));
        assertThat(state.get("undo").asString()).contains("is drawn in diagrams");

        post(facts, Map.of("drawing", Map.of("hatch", 0)));
        int[] red = codes(marked("MATERIAL", LEG).get("colour").asString());
        assertThat(red[0]).as("the enamel's own").isGreaterThan(3 * red[1]);
        assertThat(tried(facts, Map.of("drawing", Map.of("colour", "reddish", "hatch", 0)))
                        .sentence())
                .contains("#rrggbb");
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(marked("MATERIAL", LEG)).isEqualTo(asComes);
    }

    private static int[] codes(String hex) {
        int rgb = Integer.parseInt(hex.substring(1), 16);
        return new int[] {rgb >> 16, rgb >> 8 & 255, rgb & 255};
    }

    private List<String> names(String by) {
        return get("/schemes/diagram?by=" + by)
                .get("things")
                .valueStream()
                .map(t -> t.get("name").asString())
                .toList();
    }

    /** What a part's first span is in a diagram. */
    private JsonNode marked(String by, int part) {
        JsonNode diagram = get("/schemes/diagram?by=" + by);
        return diagram.get("things").get(diagram.get("spans").get(part).get(0).asInt());
    }

    /** needs.md O28: what was meant to match and does not quite is found, and made to by a replacement. */
    @Test
    void whatNearlyMatchesIsFoundAndMadeToMatch() {
        assign("part", LEG, "PT-014");
        String red = lookOf(state, LEG).get("material").asString();
        List<Double> other = lookOf(state, LEG)
                .get("physical")
                .get("baseColor")
                .valueStream()
                .map(c -> c.asDouble() * 1.06)
                .toList();
        post("/materials/" + red + "/copies", copy("Nearly", List.of(), null));
        assertThat(twinsOf(red)).as("nothing wears it").isEmpty();
        post("/undo", Map.of());
        assign("part", FAR_LEG, "PT-014");
        post("/materials/" + red + "/copies", copy("Nearly", List.of(FAR_LEG), other));

        JsonNode pair = twinsOf(red).get(0);
        String nearly = lookOf(state, FAR_LEG).get("material").asString();
        assertThat(pair.get("one").asString()).isEqualTo(red);
        assertThat(pair.get("other").asString()).isEqualTo(nearly);
        assertThat(pair.get("otherParts")).hasSize(1);
        assertThat(pair.get("difference").asDouble()).isBetween(0.2, 4.0);
        assertThat(pair.get("match").asBoolean()).isFalse();

        post("/materials/" + nearly + "/replacement", Map.of("by", red, "schemes", List.of(state.get("scheme"))));
        assertThat(twinsOf(red)).isEmpty();
        assertThat(lookOf(state, FAR_LEG).get("material").asString()).isEqualTo(red);
    }

    private static Map<String, Object> copy(String name, List<Integer> parts, List<Double> colour) {
        Map<String, Object> body = new HashMap<>(Map.of("name", name, "variation", false, "parts", parts));
        body.put("colour", colour);
        return body;
    }

    private List<JsonNode> twinsOf(String material) {
        return get("/schemes/near-twins")
                .valueStream()
                .filter(t -> t.get("one").asString().equals(material)
                        || t.get("other").asString().equals(material))
                .toList();
    }

    private int groupCalled(String name) {
        return scene().get("groups")
                .valueStream()
                .filter(g -> g.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow()
                .get("index")
                .asInt();
    }

    private void candidate(String level, int target, String code) {
        post("/candidates", Map.of("level", level, "target", target, "material", libraryMaterial(code)));
    }

    @Test
    void inASchemeThatIsGoneNothingIsDone() {
        begin("Short-lived", "EMPTY", null);
        assign("set", setOf(LEG), "MT-003");
        post("/undo", Map.of());
        post("/undo", Map.of());
        assertThat(letters()).containsExactly("A");
        assertThat(state.get("scheme").asString()).as("the first is shown").isEqualTo(idOf("A"));
        Browser.Answer refused = tried(
                "/assignments", Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("MT-003")));
        assertThat(refused.status()).isEqualTo(409);
        assertThat(refused.problem()).isEqualTo("scheme-gone");
        scheme = UUID.randomUUID().toString();
        assertThat(tried("/undo", Map.of()).sentence()).isEqualTo("There is nothing to undo.");
        assertThat(browser.get(project + "/state?scheme=no-scheme").status()).isEqualTo(404);
    }

    private JsonNode trial(String level, int target, int part, String material) {
        return get("/trial?level=" + level + "&target=" + target + "&part=" + part + "&span=0&material=" + material);
    }

    private void begin(String name, String beginning, String of) {
        Map<String, Object> body = new HashMap<>(Map.of("name", name, "beginning", beginning));
        body.put("of", of);
        post("/schemes", body);
        scheme = state.get("schemes")
                .get(state.get("schemes").size() - 1)
                .get("id")
                .asString();
        reread();
    }

    private Browser.Answer describe(String to, String reason) {
        return browser.put(
                project + "/schemes/" + scheme,
                Map.of("name", "Second thoughts", "description", "", "state", to, "reason", reason),
                version());
    }

    /** A library material's colour. */
    private List<Double> linear(String code) {
        return browser.get("/api/library/materials")
                .json()
                .valueStream()
                .filter(m -> m.get("code").asString().equals(code))
                .findFirst()
                .orElseThrow()
                .get("colour")
                .get("linear")
                .valueStream()
                .map(JsonNode::asDouble)
                .toList();
    }

    private void reread() {
        state = get("/state");
    }

    private String shownIn(String id, int part) {
        String kept = scheme;
        scheme = id;
        reread();
        String shown = shown(part);
        scheme = kept;
        return shown;
    }

    private JsonNode looks() {
        return state.get("looks");
    }

    private static JsonNode level(JsonNode why, String level) {
        return why.get("levels")
                .valueStream()
                .filter(l -> l.get("level").asString().equals(level))
                .findFirst()
                .orElseThrow();
    }

    private String idOf(String letter) {
        return state.get("schemes")
                .valueStream()
                .filter(s -> s.get("letter").asString().equals(letter))
                .findFirst()
                .orElseThrow()
                .get("id")
                .asString();
    }

    private List<String> letters() {
        List<String> out = new ArrayList<>();
        state.get("schemes").forEach(s -> out.add(s.get("letter").asString()));
        return out;
    }
}
