package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.command.CommandLine;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.UnaryOperator;
import java.util.zip.ZipEntry;
import java.util.zip.ZipInputStream;
import java.util.zip.ZipOutputStream;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** A project leaves as one file and comes back whole, for another account, too. */
class ProjectFileTest extends ProjectTest {
    private static final int SEAT = 0;
    private static final int LEG = 1;

    @BeforeEach
    void dressStools() throws InterruptedException {
        open(newProject());
        assign("part", SEAT, "PT-014");
        assign("set", setOf(LEG), "MT-003");
        post(
                "/schemes",
                Map.of(
                        "name",
                        "Night",
                        "beginning",
                        "BASED",
                        "of",
                        state.get("scheme").asString()));
        String id = UUID.randomUUID().toString();
        Map<String, Object> camera =
                Map.of("eye", List.of(2.0, 1.6, 3.0), "target", List.of(0.0, 0.5, 0.0), "degrees", 32.0);
        post("/views", Map.of("id", id, "name", "Front", "camera", camera, "lookedInto", List.of(SEAT)));
        post(
                "/notes",
                Map.of("id", UUID.randomUUID().toString(), "level", "part", "target", LEG, "text", "Ask for it"));
        String light = "/lights/" + state.get("lights").get(0).get("id").asString();
        Map<String, Object> low = Map.of("surroundings", "low-sun", "strength", 2, "turn", 30, "stops", 1);
        state = browser.put(project + light, low, version()).json();
        String mesh = part(SEAT).get("mesh").asString();
        post("/own-faces", Map.of("part", SEAT, "mesh", mesh, "triangles", List.of(0), "name", "Top"));
    }

    private byte[] file() {
        JsonNode job = browser.waitFor(UUID.fromString(
                browser.post(project + "/file", Map.of()).json().get("id").asString()));
        assertThat(job.get("state").asString()).as("%s", job).isEqualTo("DONE");
        JsonNode result = job.get("results").get(0);
        byte[] file = browser.get("/api/jobs/" + job.get("id").asString() + "/results/0")
                .body();
        assertThat(file).hasSize(result.get("bytes").asInt());
        return file;
    }

    /** What a project is, without what is only this one's: ids, version, and what can be undone. */
    private static String told(JsonNode state, JsonNode scene) {
        ObjectNode copy = (ObjectNode) state.deepCopy();
        copy.remove(List.of("id", "version", "revision", "undo", "redo", "originals"));
        ObjectNode shapes = (ObjectNode) scene.deepCopy();
        shapes.remove(List.of("revision", "id", "projectId"));
        return (copy + "\n" + shapes)
                .replaceAll("[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}", "id")
                .replaceAll("\"revision\":\\d+", "");
    }

    private JsonNode taken(Browser by, byte[] file) throws InterruptedException {
        return by.importFile("Stools.zolvan", file);
    }

    @Test
    void anotherAccountMakesTheSameProjectOfIt() throws InterruptedException {
        byte[] file = file();
        Browser other = stranger().asNewDesigner(accounts);
        JsonNode job = taken(other, file);
        assertThat(job.get("state").asString()).as("%s", job).isEqualTo("DONE");
        String copy = "/api/projects/" + job.get("result").asString();
        assertThat(copy).isNotEqualTo(project);
        JsonNode theirs = other.get(copy + "/state").json();
        JsonNode mine = browser.get(project + "/state").json();
        assertThat(told(theirs, other.get(copy + "/scene").json())).isEqualTo(told(mine, scene()));
        assertThat(other.get(project + "/state").status()).isEqualTo(404);

        String scheme = theirs.get("schemes").get(1).get("id").asString();
        assertThat(other.delete(
                                copy + "/views/"
                                        + theirs.get("views").get(0).get("id").asString(),
                                theirs.get("version").asLong())
                        .status())
                .isEqualTo(200);
        assertThat(browser.get(project + "/state").json().get("views")).hasSize(1);
        assertThat(scheme).isNotEqualTo(mine.get("schemes").get(1).get("id").asString());
    }

    @Test
    void itIsOpenedWithoutAServer(@TempDir Path folder) throws IOException {
        Path file = folder.resolve("Stools.zolvan");
        Files.write(file, file());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        PrintStream to = new PrintStream(out, true, StandardCharsets.UTF_8);
        assertThat(new CommandLine(to, to).run("inspect", file.toString())).isEqualTo(CommandLine.DONE);
        assertThat(out.toString(StandardCharsets.UTF_8))
                .contains("Harbour red enamel")
                .contains("Spun brass");
        Path picture = folder.resolve("night.png");
        assertThat(new CommandLine(to, to)
                        .run(
                                "render",
                                file.toString(),
                                picture.toString(),
                                "--scheme",
                                "B",
                                "--size",
                                "32x24",
                                "--samples",
                                "1"))
                .isEqualTo(CommandLine.DONE);
        assertThat(picture).isNotEmptyFile();
        assertThat(new CommandLine(to, to).run("inspect", file.toString(), "--scheme", "Z"))
                .isEqualTo(CommandLine.BAD_INPUT);
    }

    @Test
    void whatContradictsItselfMakesNoProject() throws Exception {
        byte[] file = file();
        Map<String, UnaryOperator<JsonNode>> wrong = Map.of(
                "a part of no set", all -> set(all, all.at("/model/parts/0"), "sets", "[99]"),
                "a shape that is not there",
                        all -> set(all, all.at("/model/parts/0"), "mesh", "\"" + "0".repeat(64) + "\""),
                "a scheme of another project",
                        all -> set(all, after(all, "scheme"), "projectId", "\"" + UUID.randomUUID() + "\""),
                "a look on a part that is not there", all -> set(all, after(all, "entry"), "target", "99"),
                "a view of itself", all -> set(all, after(all, "view"), "target", "[2.0, 1.6, 3.0]"),
                "surroundings that are an address",
                        all -> set(all, after(all, "light"), "surroundings", "\"../api/session\""),
                "a change of the model",
                        all -> add(all, "{\"type\":\"set\",\"set\":0,\"before\":\"a\",\"after\":\"b\"}"),
                "another unit", all -> set(all, all, "unit", "\"parsec\""),
                "a newer version", all -> set(all, all, "version", "99"));
        for (Map.Entry<String, UnaryOperator<JsonNode>> w : wrong.entrySet()) {
            JsonNode job = taken(browser, changed(file, w.getValue()));
            assertThat(job.get("state").asString()).as(w.getKey()).isEqualTo("FAILED");
            assertThat(job.get("problem").asString()).as(w.getKey()).contains("project file");
        }
        JsonNode noZip = taken(browser, "no project".getBytes(StandardCharsets.UTF_8));
        assertThat(noZip.get("problem").asString()).contains("no project file");
        assertThat(browser.get("/api/projects").json()).as("only the stools").hasSize(1);
    }

    /** Place of the first change of a type. */
    private static int at(JsonNode all, String type) {
        for (int i = 0; i < all.get("changes").size(); i++) {
            if (all.get("changes").get(i).get("type").asString().equals(type)) {
                return i;
            }
        }
        throw new AssertionError("no " + type);
    }

    private static JsonNode after(JsonNode all, String type) {
        return all.at("/changes/" + at(all, type) + "/after");
    }

    private static JsonNode set(JsonNode all, JsonNode in, String key, String value) {
        ((ObjectNode) in).set(key, Browser.JSON.readTree(value));
        return all;
    }

    private static JsonNode add(JsonNode all, String change) {
        ((ArrayNode) all.get("changes")).add(Browser.JSON.readTree(change));
        return all;
    }

    /** The same file with other contents. */
    private static byte[] changed(byte[] file, UnaryOperator<JsonNode> how) throws IOException {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try (ZipInputStream in = new ZipInputStream(new ByteArrayInputStream(file));
                ZipOutputStream to = new ZipOutputStream(out)) {
            for (ZipEntry e = in.getNextEntry(); e != null; e = in.getNextEntry()) {
                byte[] bytes = in.readAllBytes();
                if (e.getName().equals("project.json")) {
                    JsonNode all = Browser.JSON.readTree(bytes);
                    bytes = Browser.JSON.writeValueAsBytes(how.apply(all));
                }
                to.putNextEntry(new ZipEntry(e.getName()));
                to.write(bytes);
                to.closeEntry();
            }
        }
        return out.toByteArray();
    }
}
