package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import java.nio.charset.StandardCharsets;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md P31, A15, A19: faces that a designer cuts into parts, and looks of their own. */
class OwnFacesTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int OTHER_LEG = 2;

    private Mesh seat;

    @BeforeEach
    void importStools() throws InterruptedException {
        open(newProject());
        seat = mesh(SEAT);
    }

    private Mesh mesh(int part) {
        String digest = part(part).get("mesh").asString();
        return MeshCodec.decode(browser.get(project + "/assets/" + digest).body());
    }

    /** The triangles of a mesh's first smooth region. */
    private static List<Integer> topOf(Mesh mesh) {
        return IntStream.range(0, mesh.triangleCount())
                .filter(t -> mesh.faces()[t] == mesh.faces()[0])
                .boxed()
                .toList();
    }

    private Map<String, Object> wanted(int part, List<Integer> triangles, String name) {
        return Map.of("part", part, "mesh", part(part).get("mesh").asString(), "triangles", triangles, "name", name);
    }

    private int cutTop() {
        post("/own-faces", wanted(SEAT, topOf(seat), "Top"));
        JsonNode faces = scene().get("ownFaces");
        return faces.get(faces.size() - 1).get("index").asInt();
    }

    private String shownAt(int span) {
        JsonNode region = state.get("regions")
                .valueStream()
                .filter(r -> r.get("part").asInt() == SEAT && r.get("span").asInt() == span)
                .findFirst()
                .orElseThrow();
        String id = state.get("looks")
                .get(region.get("look").asInt())
                .get("material")
                .asString();
        for (String list : List.of("palette", "arrived")) {
            for (JsonNode used : state.get(list)) {
                if (used.get("material").get("id").asString().equals(id)) {
                    return used.get("material").get("name").asString();
                }
            }
        }
        throw new AssertionError(id);
    }

    private int spanOf(int face) {
        JsonNode faces = part(SEAT).get("ownFaces");
        return IntStream.range(0, faces.size())
                .filter(s -> faces.get(s).asInt() == face)
                .findFirst()
                .orElse(-1);
    }

    @Test
    void aFaceShowsItsOwnAndItsPartTheRest() {
        int face = cutTop();
        int top = spanOf(face);
        int rest = 1 - top;
        assertThat(part(SEAT).get("sets")).hasSize(2);
        assertThat(part(SEAT).get("sets").get(0))
                .isEqualTo(part(SEAT).get("sets").get(1));

        assign("part", SEAT, "PT-014");
        assertThat(shownAt(top)).isEqualTo(shownAt(rest)).isNotEqualTo("Spun brass");
        assign("face", face, "MT-003");
        assertThat(state.get("undo").asString()).contains("Spun brass on face “Top”");
        assertThat(shownAt(top)).isEqualTo("Spun brass");
        assertThat(shownAt(rest)).isNotEqualTo("Spun brass");
        JsonNode why = get("/why?part=" + SEAT + "&span=" + top);
        assertThat(why.get("levels")
                        .get(why.get("levels").size() - 1)
                        .get("level")
                        .asString())
                .isEqualTo("face");
        assertThat(why.get("sentence").asString()).contains("face", "Top");
        String glb = new String(browser.get(project + "/exports/glb").body(), StandardCharsets.ISO_8859_1);
        assertThat(glb).contains("Spun brass");

        post("/own-faces/" + face + "/join", Map.of());
        assertThat(shownAt(top)).isEqualTo(shownAt(rest));
        post("/undo", Map.of());
        assertThat(shownAt(top)).as("with what it had").isEqualTo("Spun brass");
        IntStream.range(0, 3).forEach(i -> post("/undo", Map.of()));
        assertThat(part(SEAT).get("sets")).as("as it arrived").hasSize(1);
        assertThat(mesh(SEAT).indices()).isEqualTo(seat.indices());
    }

    @Test
    void aLookIsReplacedWhereverAPartShowsItItsFacesToo() {
        int face = cutTop();
        assign("part", SEAT, "MT-003");
        assign("face", face, "PT-014");
        String paint = materialAt(spanOf(face));
        post("/materials/" + paint + "/replacement", Map.of("by", libraryMaterial("MT-012"), "parts", List.of(SEAT)));
        assertThat(shownAt(spanOf(face))).isEqualTo("Raw copper");
        assertThat(shownAt(1 - spanOf(face))).isEqualTo("Spun brass");
    }

    private String materialAt(int span) {
        return state.get("looks")
                .get(state.get("regions")
                        .valueStream()
                        .filter(r ->
                                r.get("part").asInt() == SEAT && r.get("span").asInt() == span)
                        .findFirst()
                        .orElseThrow()
                        .get("look")
                        .asInt())
                .get("material")
                .asString();
    }

    @Test
    void aLockedPartKeepsWhatItsFacesShow() {
        int face = cutTop();
        assign("face", face, "MT-003");
        post("/parts/locked", Map.of("parts", List.of(SEAT), "on", true));
        String before = shownAt(1 - spanOf(face));
        assign("model", 0, "PT-014");
        assertThat(shownAt(spanOf(face))).isEqualTo("Spun brass");
        assertThat(shownAt(1 - spanOf(face))).isEqualTo(before);
        Map<String, Object> on = new HashMap<>(Map.of("level", "face", "targets", List.of(face)));
        on.put("material", libraryMaterial("MT-012"));
        assertThat(tried("/assignments", on).problem()).isEqualTo("part-locked");
    }

    @Test
    void aLoopOfEdgesIsFoundAndWhatItParts() {
        List<Integer> top = topOf(seat);
        List<Integer> around = top.stream().flatMap(s -> cornersOf(s).stream()).toList();
        assertThat(around).as("of one triangle").hasSize(3);
        Map<String, Object> loop = new HashMap<>(
                Map.of("part", SEAT, "mesh", part(SEAT).get("mesh").asString(), "corners", around, "closed", true));
        JsonNode way = browser.post(project + "/own-faces/ways", loop).json();
        assertThat(way.get("sentence").isNull()).isTrue();
        List<Integer> found = way.get("pieces")
                .valueStream()
                .map(p -> p.get("triangles").valueStream().map(JsonNode::asInt).toList())
                .filter(p -> p.containsAll(top))
                .findFirst()
                .orElseThrow();
        assertThat(found).isEqualTo(top);

        loop.put("corners", around.subList(0, 2));
        JsonNode open = browser.post(project + "/own-faces/ways", loop).json();
        assertThat(open.get("sentence").asString()).contains("does not part");
        loop.put("corners", List.of(1_000_000));
        assertThat(browser.post(project + "/own-faces/ways", loop).status()).isEqualTo(400);
    }

    private List<Integer> cornersOf(int triangle) {
        return IntStream.range(0, 3)
                .mapToObj(k -> seat.indices()[3 * triangle + k])
                .toList();
    }

    @Test
    void whatCantBeAFaceIsRefusedInASentence() {
        List<Integer> all = IntStream.range(0, seat.triangleCount()).boxed().toList();
        assertThat(tried("/own-faces", wanted(SEAT, all, "All")).sentence()).contains("give looks to the part itself");
        Map<String, Object> stale = new HashMap<>(wanted(SEAT, topOf(seat), "Top"));
        stale.put("mesh", "0".repeat(64));
        assertThat(tried("/own-faces", stale).sentence()).contains("another shape by now");
        assertThat(tried("/own-faces", wanted(SEAT, List.of(-1), "None")).status())
                .isEqualTo(400);
        assertThat(tried("/own-faces", wanted(OTHER_LEG, List.of(0), " ")).sentence())
                .contains("A name has");
        assertThat(tried("/own-faces/7/join", Map.of()).status()).isEqualTo(404);
        assertThat(version()).isEqualTo(get("/state").get("version").asLong());
    }

    @Test
    void aFaceIsRenamedAndItsNumberIsNotUsedAgain() {
        int face = cutTop();
        post("/own-faces/" + face + "/name", Map.of("name", "Seat surface"));
        assertThat(scene().get("ownFaces").get(face).get("name").asString()).isEqualTo("Seat surface");
        post("/undo", Map.of());
        assertThat(scene().get("ownFaces").get(face).get("name").asString()).isEqualTo("Top");
        post("/undo", Map.of());
        assertThat(cutTop()).isNotEqualTo(face);
    }
}
