package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;
import static org.awaitility.Awaitility.await;

import app.zolvan.core.model.Digest;
import app.zolvan.core.render.chip.Chip;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.asset.AssetService;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.concurrent.TimeUnit;
import java.util.zip.ZipEntry;
import java.util.zip.ZipOutputStream;
import org.awaitility.core.ThrowingRunnable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;
import org.springframework.beans.factory.annotation.Autowired;
import tools.jackson.databind.JsonNode;

class ImportTest extends ServerTest {
    @Autowired
    private AssetService assets;

    @Test
    void anUploadedModelBecomesAProjectWithItsPartsAndSets() throws Exception {
        String project = newProject();
        JsonNode scene = browser.get(project + "/scene").json();
        assertThat(scene.get("parts")).hasSize(6);
        assertThat(scene.get("groups")).hasSize(2);
        assertThat(scene.get("sets")).hasSize(2);
        assertThat(scene.get("sets").get(1).get("parts").asInt()).isEqualTo(4);
        assertThat(scene.get("parts").get(0).get("closed").asBoolean()).isTrue();
        assertThat(scene.get("parts").get(0).get("volume").asDouble()).isCloseTo(1 / 6.0, within(1e-6));
        String mesh = scene.get("parts").get(0).get("mesh").asString();
        Browser.Answer bytes = browser.get(project + "/assets/" + mesh);
        assertThat(bytes.raw().headers().firstValue("ETag")).contains("\"" + mesh + "\"");
        assertThat(bytes.body()).hasSizeGreaterThan(100);
    }

    @Test
    void whatNeedsAttentionIsKeptWithTheModel() throws Exception {
        JsonNode findings = browser.get(newProject() + "/findings").json();
        assertThat(findings.get("looked").asBoolean()).isTrue();
        assertThat(findings.get("entries")).hasSize(1);
        JsonNode entry = findings.get("entries").get(0);
        assertThat(entry.get("kind").asString()).isEqualTo("NO_COORDINATES");
        assertThat(entry.get("parts")).hasSize(6);
        assertThat(entry.get("place").isNull()).isTrue();
        assertThat(entry.get("says").asString()).isEqualTo("No part has texture coordinates.");
    }

    /** needs.md P34: another file's materials without its shapes, ready to be given to parts. */
    @Test
    void onlyTheMaterialsOfAnotherFileComeIntoAProject() throws Exception {
        String project = newProject();
        UUID id = UUID.fromString(project.substring(project.lastIndexOf('/') + 1));
        JsonNode before = browser.get(project + "/scene").json();
        byte[] file = browser.get(project + "/exports/glb").body(); // unlike what any project was made of
        JsonNode job = browser.importMaterials(id, "other.glb", file);
        assertThat(job.get("state").asString()).isEqualTo("DONE");
        assertThat(job.get("result").asString()).isEqualTo(id.toString());
        assertThat(browser.get(project + "/scene").json()).isEqualTo(before);
        until(() -> assertThat(stored(file)).as("the file is not needed again").isFalse());
        JsonNode state = browser.get(project + "/state").json();
        assertThat(state.get("arrived")).hasSize(4);
        assertThat(state.get("arrived").get(3).get("material").get("name").asString())
                .isEqualTo("steel");
        String steel = state.get("arrived").get(3).get("material").get("id").asString();
        Map<String, Object> put = Map.of("level", "part", "targets", List.of(0), "material", steel);
        Browser.Answer dressed =
                browser.post(project + "/assignments", put, state.get("version").asLong());
        JsonNode own = dressed.json().get("palette").get(0).get("material"); // a copy: what arrived stays as it is
        assertThat(own.get("name").asString()).isEqualTo("steel");
        assertThat(lookOf(dressed.json(), 0).get("material").asString())
                .isEqualTo(own.get("id").asString());

        JsonNode none = browser.importMaterials(
                id,
                "plain.stl",
                "solid a\nfacet normal 0 0 1\nouter loop\nvertex 0 0 0\nvertex 1 0 0\nvertex 0 1 0\nendloop\nendfacet\nendsolid a\n"
                        .getBytes(StandardCharsets.US_ASCII));
        assertThat(none.get("problem").asString()).contains("holds no materials");
        String brick = libraryMaterial("BK-001");
        byte[] mtlx =
                browser.get(project + "/material-files/mtlx?material=" + brick).body();
        assertThat(browser.importMaterials(id, "brick.zip", mtlx).get("state").asString())
                .isEqualTo("DONE");
        JsonNode arrived = browser.get(project + "/state").json().get("arrived");
        JsonNode back = arrived.get(arrived.size() - 1).get("material");
        assertThat(back.get("code").asString()).isEqualTo("BK-001");
        assertThat(back.get("textures").get(0).get("size").get(0).asDouble()).isEqualTo(1);
        byte[] odd =
                "<materialx><open_pbr_surface name=\"a\"><input name=\"base_weight\" nodename=\"b\"/></open_pbr_surface></materialx>"
                        .getBytes(StandardCharsets.UTF_8);
        browser.importMaterials(id, "odd.mtlx", odd);
        assertThat(browser.get(project + "/scene").json().get("notes").toString())
                .contains("“b” is not in the file");
        assertThat(browser.get(project + "/material-files/exe").status()).isEqualTo(404);
        Browser other = stranger().asNewDesigner(accounts);
        assertThat(other.get(project + "/material-files/mtlx").status()).isEqualTo(404);
        assertThat(other.sendMaterials(id, "other.glb", stools()).status()).isEqualTo(404);
    }

    @Test
    void anExportedModelOpenedAgainShowsTheSameLooks() throws Exception {
        String project = newProject();
        long version = browser.get(project + "/state").json().get("version").asLong();
        int target = 0;
        for (String code : List.of("LQ-004", "LE-002", "PT-014", "FB-016", "GL-001", "WD-004")) {
            version = browser.post(
                            project + "/assignments",
                            Map.of("level", "part", "targets", List.of(target++), "material", libraryMaterial(code)),
                            version)
                    .json()
                    .get("version")
                    .asLong();
        }
        byte[] glb = browser.get(project + "/exports/glb").body();
        JsonNode before = browser.get(project + "/state").json();
        JsonNode job = browser.importFile("again.glb", glb);
        JsonNode after = browser.get("/api/projects/" + job.get("result").asString() + "/state")
                .json();
        for (int part = 0; part < 6; part++) {
            assertThat(lookOf(after, part).get("physical"))
                    .isEqualTo(lookOf(before, part).get("physical"));
            assertThat(lookOf(after, part).get("mapping"))
                    .isEqualTo(lookOf(before, part).get("mapping"));
        }
        assertThat(after.get("arrived").get(0).get("material").get("code").asString())
                .isEqualTo("LQ-004");
    }

    @ParameterizedTest
    @ValueSource(strings = {"truncated", "json", "picture", "text"})
    void aFileThatCannotBeReadGetsASentenceAndLeavesNothingBehind(String what) throws Exception {
        byte[] file = switch (what) {
            case "truncated" -> Arrays.copyOf(stools(), 700);
            case "json" -> "{\"a\":1}".getBytes(StandardCharsets.UTF_8);
            case "picture" -> new byte[] {(byte) 0x89, 'P', 'N', 'G', 13, 10, 26, 10};
            default -> "solid nothing".getBytes(StandardCharsets.UTF_8);
        };
        int before = count("project");
        JsonNode job = browser.importFile("mine.glb", file);
        assertThat(job.get("state").asString()).isEqualTo("FAILED");
        assertThat(job.get("problem").asString()).matches("(?s)[“A-Z].*\\.");
        assertThat(count("project")).isEqualTo(before);
        until(() -> assertThat(stored(file)).isFalse());
    }

    @Test
    void anUploadOverTheLimitIsRefusedBeforeItIsStored() {
        int before = count("asset");
        Browser.Answer refused = browser.upload("large.glb", new byte[3 << 20]);
        assertThat(refused.status()).isEqualTo(413);
        assertThat(refused.sentence()).contains("larger than 2 MB");
        assertThat(browser.upload("empty.glb", new byte[0]).sentence()).contains("The file is empty");
        assertThat(count("asset")).isEqualTo(before);
    }

    @Test
    void aProjectCanBeRenamedAndDeletedWithAllItsBytes() throws Exception {
        String project = newProject();
        Browser.Answer nameless =
                browser.post(project + "/details", Map.of("name", "  ", "client", "", "unit", "mm"), 1);
        assertThat(nameless.sentence()).isEqualTo("A name has 1 to 120 characters.");
        assertThat(browser.delete(project).status()).isEqualTo(204);
        assertThat(browser.get(project + "/state").status()).isEqualTo(404);
        UUID id = UUID.fromString(project.substring("/api/projects/".length()));
        for (String table : List.of("part", "matching_set", "material", "scheme", "command", "project_asset")) {
            assertThat(database.queryForObject(
                            "select count(*) from " + table + " where project_id = ?", Integer.class, id))
                    .isZero();
        }
    }

    @Test
    void aJobWhoseProcessDiedIsTakenUpAgain() throws Exception {
        UUID job = insertJob(assets.store(stools(), "application/octet-stream"), "RUNNING", false);
        database.update(
                "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, picked_by,"
                        + " last_heartbeat, version) values ('job', ?, now() - interval '1 minute', true, 'gone',"
                        + " now() - interval '1 minute', 1)",
                job.toString());
        until(() -> assertThat(
                        browser.get("/api/jobs/" + job).json().get("state").asString())
                .isEqualTo("DONE"));
        assertThat(browser.get("/api/projects/" + job + "/scene").status()).isEqualTo(200);
    }

    @Test
    void aJobThatIsCalledOffMakesNothingAndLeavesNoBytes() throws Exception {
        byte[] file = "called off before it began".getBytes(StandardCharsets.UTF_8);
        UUID job = insertJob(assets.store(file, "application/octet-stream"), "QUEUED", true);
        database.update(
                "insert into scheduled_tasks (task_name, task_instance, execution_time, picked, version)"
                        + " values ('job', ?, now(), false, 1)",
                job.toString());
        until(() -> assertThat(
                        browser.get("/api/jobs/" + job).json().get("state").asString())
                .isEqualTo("CANCELLED"));
        until(() -> assertThat(stored(file)).isFalse());
    }

    @Test
    void aFileThatLeavesItsUnitOpenIsAskedAboutAndTheAnswerIsTaken() throws Exception {
        String stl = "solid a\nfacet\nouter loop\nvertex 0 0 0\nvertex 30 0 0\nvertex 0 0 12\nendloop\nendfacet\n"
                + "endsolid a\n";
        String id = browser.upload("a.stl", stl.getBytes(StandardCharsets.UTF_8))
                .json()
                .get("id")
                .asString();
        until(() -> assertThat(state(id)).isEqualTo("ASKING"));
        assertThat(database.queryForObject("select attempts from job where id = ?::uuid", Integer.class, id))
                .as("what came to its question has not failed")
                .isZero();
        JsonNode question = browser.get("/api/jobs/" + id).json().get("question");
        assertThat(question.get("units")).hasSize(5);
        assertThat(question.get("upAxes").get(0).asString()).isEqualTo("Z");
        Browser.Answer wrong = browser.post("/api/jobs/" + id + "/answer", Map.of("unit", "furlong", "upAxis", "Z"));
        assertThat(wrong.status()).isEqualTo(422);
        assertThat(stranger()
                        .asNewDesigner(accounts)
                        .post("/api/jobs/" + id + "/answer", Map.of())
                        .status())
                .isEqualTo(404);
        browser.post("/api/jobs/" + id + "/answer", Map.of("unit", "cm", "upAxis", "Z"));
        until(() -> assertThat(state(id)).isEqualTo("DONE"));
        JsonNode scene = browser.get("/api/projects/" + id + "/scene").json();
        assertThat(scene.get("origin").get("unit").asString()).isEqualTo("cm");
        assertThat(scene.get("bounds").get(3).asDouble()).isCloseTo(0.3, within(1e-6));
        assertThat(scene.get("bounds").get(4).asDouble()).isCloseTo(0.12, within(1e-6)); // Z became Y
    }

    @Test
    void surfacesCutAnewKeepTheProjectsLooksAndReplaceItsTriangles() throws Exception {
        byte[] first = cut(stools(), 0.001);
        UUID project = UUID.fromString(
                browser.importFile("stools.zip", first).get("result").asString());
        String path = "/api/projects/" + project;
        JsonNode scene = browser.get(path + "/scene").json();
        assertThat(scene.get("origin").get("cut").asDouble()).isEqualTo(0.001);
        assertThat(browser.get(path + "/upload").body()).isEqualTo(first);
        browser.post(
                path + "/assignments",
                Map.of("level", "part", "targets", List.of(0), "material", libraryMaterial("GL-001")),
                1);
        browser.post(path + "/parts/sides", Map.of("parts", List.of(1), "turn", "flip"), 2);
        browser.post(path + "/parts/names", Map.of("names", List.of(Map.of("part", 1, "name", "Leg of the first"))), 3);
        JsonNode before = browser.get(path + "/state").json();
        byte[] finer = cut(stools(), 0.0002);
        JsonNode job = browser.importInto(project, "stools.zip", finer);
        assertThat(job.get("state").asString()).isEqualTo("DONE");
        JsonNode after = browser.get(path + "/state").json();
        assertThat(after.get("version").asLong())
                .isGreaterThan(before.get("version").asLong());
        assertThat(after.get("regions")).isEqualTo(before.get("regions"));
        assertThat(browser.get(path + "/scene").json().get("origin").get("cut").asDouble())
                .isEqualTo(0.0002);
        assertThat(browser.get(path + "/upload").body()).isEqualTo(finer);
        undoAcrossTheCut(path);
        byte[] other = "v 0 0 0\nv 1 0 0\nv 0 1 0\nf 1 2 3\n".getBytes(StandardCharsets.UTF_8);
        JsonNode refused = browser.importInto(project, "other.zip", cut("other.obj", other, 0.001));
        assertThat(refused.get("problem").asString()).contains("don’t belong to this model’s parts");
        assertThat(stranger().asNewDesigner(accounts).get(path + "/upload").status())
                .isEqualTo(404);
        String plain = newProject();
        assertThat(browser.get(plain + "/upload").sentence()).contains("came as triangles");
    }

    /** The name comes back and the new triangles stay; turning faces is of another cut and takes nothing back. */
    private void undoAcrossTheCut(String path) {
        JsonNode cut = browser.get(path + "/scene").json().get("parts").get(1);
        assertThat(cut.get("name").asString()).isEqualTo("Leg of the first");
        long version = browser.get(path + "/state").json().get("version").asLong();
        Browser.Answer renamed = browser.post(path + "/undo", Map.of(), version);
        assertThat(renamed.status()).isEqualTo(200);
        JsonNode named = browser.get(path + "/scene").json().get("parts").get(1);
        assertThat(named.get("name").asString()).isNotEqualTo("Leg of the first");
        assertThat(named.get("mesh")).isEqualTo(cut.get("mesh"));
        Browser.Answer asked = browser.post(path + "/undo", Map.of(), version + 1);
        assertThat(asked.sentence()).contains("Do it anyway?");
        Browser.Answer forced = browser.post(path + "/undo?force=true", Map.of(), version + 1);
        assertThat(forced.status()).isEqualTo(200);
        assertThat(browser.get(path + "/scene").json().get("parts").get(1).get("mesh"))
                .isEqualTo(cut.get("mesh"));
    }

    /** A library chip ships; a project's own is made when first asked for; a stranger gets neither. */
    @Test
    void chipsAreTracedForThoseWhoMaySeeTheMaterial() throws Exception {
        String project = newProject();
        String shipped = project + "/materials/" + libraryMaterial("MT-003") + "/chip";
        assertThat(browser.get(shipped).status()).isEqualTo(200);
        assertThat(ImageHeader.read(ByteBuffer.wrap(browser.get(shipped).body())))
                .hasValueSatisfying(h -> assertThat(h.width()).isEqualTo(Chip.WIDTH));
        String arrived = arrivedMaterial(project);
        String own = project + "/materials/" + arrived + "/chip";
        assertThat(browser.get(own).status()).isIn(202, 200); // 200 where another test's model wears the same
        until(() -> assertThat(browser.get(own).status()).isEqualTo(200));
        assertThat(stranger().asNewDesigner(accounts).get(own).status()).isEqualTo(404);
    }

    @Test
    void everyFormatCanBeDownloadedAndSaysWhatItLoses() throws Exception {
        String project = newProject();
        JsonNode formats = browser.get(project + "/exports").json();
        assertThat(formats.size()).isGreaterThanOrEqualTo(7);
        for (JsonNode f : formats) {
            Browser.Answer file =
                    browser.get(project + "/exports/" + f.get("ending").asString());
            assertThat(file.status()).isEqualTo(200);
            assertThat(file.body()).hasSizeGreaterThan(200);
        }
        assertThat(browser.get(project + "/exports/xyz").status()).isEqualTo(404);
    }

    static byte[] cut(byte[] glb, double linear) throws IOException {
        return cut("model.glb", glb, linear);
    }

    /** A model as the browser sends one that it has cut into triangles. */
    private static byte[] cut(String name, byte[] model, double linear) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipOutputStream zip = new ZipOutputStream(out)) {
            zip.putNextEntry(new ZipEntry(name));
            zip.write(model);
            zip.putNextEntry(new ZipEntry("original/stools.stp"));
            zip.write("ISO-10303-21;".getBytes(StandardCharsets.UTF_8));
            zip.putNextEntry(new ZipEntry("preparation.txt"));
            zip.write(
                    ("{\"kind\":\"step\",\"linear\":" + linear + ",\"angular\":0.5}").getBytes(StandardCharsets.UTF_8));
        }
        return out.toByteArray();
    }

    private String state(String job) {
        return browser.get("/api/jobs/" + job).json().get("state").asString();
    }

    private UUID insertJob(String sha256, String state, boolean cancel) {
        UUID job = UUID.randomUUID();
        database.update(
                "insert into job (id, account_id, kind, title, state, share, asset, cancel)"
                        + " values (?, ?::uuid, 'import', 'lost.glb', ?, 0.4, ?, ?)",
                job,
                browser.get("/api/session").json().get("id").asString(),
                state,
                sha256,
                cancel);
        return job;
    }

    private static void until(ThrowingRunnable check) {
        await().atMost(90, TimeUnit.SECONDS)
                .pollInterval(50, TimeUnit.MILLISECONDS)
                .untilAsserted(check);
    }

    private boolean stored(byte[] file) {
        return Boolean.TRUE.equals(database.queryForObject(
                "select exists (select 1 from asset where sha256 = ?)", Boolean.class, Digest.of(file)));
    }

    private int count(String table) {
        return database.queryForObject("select count(*) from " + table, Integer.class);
    }
}
