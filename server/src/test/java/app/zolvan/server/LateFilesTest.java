package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.texture.Png;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.util.Base64;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.Test;
import tools.jackson.databind.JsonNode;

/** needs.md L18: files that a model refers to and that come after it find their places, and leave them again. */
class LateFilesTest extends ProjectTest {
    private static final byte[] OBJ = ("mtllib board.mtl\nv 0 0 0\nv 1 0 0\nv 1 1 0\nv 0 1 0\nvt 0 0\nvt 1 0\nvt 1 1\n"
                    + "usemtl oak\nf 1/1 2/2 3/3\nusemtl plain\nf 1/1 3/3 4/2\n")
            .getBytes(StandardCharsets.UTF_8);
    private static final byte[] MTL =
            "newmtl oak\nKd 1 1 1\nmap_Kd C:\\pictures\\oak.png\nnewmtl plain\nKd 0.5 0.1 0.1\n"
                    .getBytes(StandardCharsets.UTF_8);

    private static final byte[] PIXEL = Base64.getDecoder().decode(CleanUpTest.PIXEL);

    @Test
    void missingFilesAreNamedFoundAndTakenBack() throws Exception {
        openModel("board.obj", OBJ);
        assertThat(lacking()).containsExactly("board.mtl");
        assertThat(scene().get("notes").toString()).doesNotContain("board.mtl");
        JsonNode plain = arrived("plain");
        String recoloured = plain.get("colour").toString();

        JsonNode other = send("other.png", PIXEL);
        assertThat(other.get("state").asString()).isEqualTo("FAILED");
        assertThat(other.get("problem").asString()).contains("“board.mtl”").contains("told by their names");

        assertThat(send("board.mtl", MTL).get("state").asString()).isEqualTo("DONE");
        open(project);
        assertThat(state.get("undo").asString()).isEqualTo("Take 1 missing file");
        assertThat(arrived("plain").get("colour").toString()).isNotEqualTo(recoloured);
        post("/undo", Map.of());
        assertThat(lacking()).containsExactly("board.mtl");
        assertThat(arrived("plain").get("colour").toString()).isEqualTo(recoloured);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .uploadLate(id(), "board.mtl", MTL)
                        .status())
                .isEqualTo(404);
    }

    @Test
    void aPictureThatCameLateIsShown() throws Exception {
        openModel("board.zip", zip(MTL));
        assertThat(lacking()).containsExactly("C:/pictures/oak.png");
        assertThat(scene().get("pictures")).isEmpty();
        assertThat(send("oak.png", PIXEL).get("state").asString()).isEqualTo("DONE");
        open(project);
        assertThat(lacking()).isEmpty();
        assertThat(scene().get("pictures")).hasSize(1);
        assertThat(arrived("oak").get("textures").toString())
                .contains(scene().get("pictures").get(0).get("sha256").asString());
    }

    /** Two sources of one name each get their own picture, and one that was recoloured since keeps its colour. */
    @Test
    void eachSourceGetsItsOwnAndWhatWasChangedStays() throws Exception {
        byte[] mtl = "newmtl oak\nKd 1 1 1\nmap_Kd a.png\nnewmtl plain\nKd 0.5 0.1 0.1\nmap_Kd b.png\n"
                .getBytes(StandardCharsets.UTF_8);
        openModel("board.zip", zip(mtl));
        post("/materials/" + arrived("oak").get("id").asString() + "/name", Map.of("name", "plain"));
        assertThat(send("pictures.zip", pictures("a.png", "b.png")).get("state").asString())
                .isEqualTo("DONE");
        open(project);
        assertThat(lacking()).isEmpty();
        assertThat(state.get("arrived")
                        .valueStream()
                        .map(u -> u.get("material")
                                .get("textures")
                                .get(0)
                                .get("image")
                                .asString())
                        .distinct())
                .hasSize(2);
    }

    /** A model that was added lacks files of its own; what comes goes to its own materials, and is undone with them. */
    @Test
    void whatAnAddedModelLacksIsFoundToo() throws Exception {
        byte[] other = "newmtl oak\nKd 1 1 1\nmap_Kd beech.png\nnewmtl plain\nKd 0.5 0.1 0.1\n"
                .getBytes(StandardCharsets.UTF_8);
        openModel("board.zip", zip(MTL));
        JsonNode asking = browser.ended(browser.uploadBeside(id(), "DESIGN", "bench.zip", zip(other)));
        browser.ended(browser.post(
                "/api/jobs/" + asking.get("id").asString() + "/answer", Map.of("unit", "m", "upAxis", "Y")));
        open(project);
        assertThat(lacking()).containsExactly("C:/pictures/oak.png", "beech.png");

        assertThat(send("beech.png", PIXEL).get("state").asString()).isEqualTo("DONE");
        open(project);
        assertThat(lacking()).containsExactly("C:/pictures/oak.png");
        List<Integer> pictured = state.get("arrived")
                .valueStream()
                .map(u -> u.get("material").get("textures").size())
                .toList();
        assertThat(pictured).containsExactly(0, 0, 1, 0);
        post("/undo", Map.of());
        assertThat(lacking()).hasSize(2);

        assertThat(send("both.zip", pictures("oak.png", "beech.png"))
                        .get("state")
                        .asString())
                .isEqualTo("DONE");
        assertThat(lacking()).isEmpty();
    }

    /** Of what only brings materials nobody could ask later: it is told at once. */
    @Test
    void whatMaterialsOfAnotherFileLackIsTold() throws Exception {
        openModel("board.zip", zip(MTL));
        browser.importMaterials(UUID.fromString(id()), "other.mtl", MTL);
        assertThat(scene().get("notes").toString()).contains("oak.png").contains("did not come with it");
        assertThat(lacking()).hasSize(1);
    }

    private String id() {
        return project.substring("/api/projects/".length());
    }

    /** Imports a model that does not say its unit. */
    private void openModel(String name, byte[] file) throws InterruptedException {
        JsonNode asking = browser.importFile(name, file);
        Browser.Answer going = browser.post(
                "/api/jobs/" + asking.get("id").asString() + "/answer", Map.of("unit", "m", "upAxis", "Y"));
        open("/api/projects/" + browser.ended(going).get("result").asString());
    }

    private static byte[] zip(byte[] materials) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry("board.obj"));
            zip.write(OBJ);
            zip.putNextEntry(new ZipEntry("board.mtl"));
            zip.write(materials);
        }
        return out.toByteArray();
    }

    /** Pictures of one pixel, no two alike. */
    private static byte[] pictures(String... names) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            for (int i = 0; i < names.length; i++) {
                zip.putNextEntry(new ZipEntry(names[i]));
                zip.write(Png.encode(1, 1, new byte[] {(byte) (90 * i), 40, 9}, 72));
            }
        }
        return out.toByteArray();
    }

    private JsonNode send(String name, byte[] file) throws InterruptedException {
        return browser.ended(browser.uploadLate(id(), name, file));
    }

    private List<String> lacking() {
        return scene().get("lacking").valueStream().map(JsonNode::asString).toList();
    }

    private JsonNode arrived(String name) {
        return state.get("arrived")
                .valueStream()
                .map(u -> u.get("material"))
                .filter(m -> m.get("name").asString().equals(name))
                .findFirst()
                .orElseThrow();
    }
}
