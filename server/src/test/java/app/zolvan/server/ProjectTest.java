package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import tools.jackson.databind.JsonNode;

/** A test on one project: where it is, its state after the last command, and what its parts show. */
abstract class ProjectTest extends ServerTest {
    protected String project;
    protected JsonNode state;
    /** The scheme that is looked at; empty for the first. */
    protected String scheme = "";

    /** Goes on with a project that was just made. */
    protected void open(String address) {
        project = address;
        state = browser.get(project + "/state").json();
    }

    protected JsonNode get(String path) {
        return browser.get(project + inScheme(path)).json();
    }

    /** A command that is expected to be done. */
    protected void post(String path, Object body) {
        Browser.Answer answer = tried(path, body);
        assertThat(answer.status()).as("%s", answer.json()).isEqualTo(200);
        state = answer.json();
    }

    /** Gives a library material to backs alone. */
    protected void assignBack(String level, int target, String code) {
        post(
                "/assignments",
                Map.of("level", level, "targets", List.of(target), "side", "BACK", "material", libraryMaterial(code)));
    }

    /** A command that may be refused. */
    protected Browser.Answer tried(String path, Object body) {
        return browser.post(project + inScheme(path), body, version());
    }

    private String inScheme(String path) {
        return scheme.isEmpty() ? path : path + (path.contains("?") ? "&" : "?") + "scheme=" + scheme;
    }

    /** Gives a library material, or takes off what is there where the code is null. */
    protected void assign(String level, int target, String code) {
        Map<String, Object> body = new HashMap<>(Map.of("level", level, "targets", List.of(target)));
        body.put("material", code == null ? null : libraryMaterial(code));
        post("/assignments", body);
    }

    protected long version() {
        return state.get("version").asLong();
    }

    protected JsonNode scene() {
        return get("/scene");
    }

    protected JsonNode part(int index) {
        return scene().get("parts").get(index);
    }

    protected int setOf(int part) {
        return part(part).get("sets").get(0).asInt();
    }

    /** The name of the material that a part shows. */
    protected String shown(int part) {
        String id = lookOf(state, part).get("material").asString();
        for (String list : List.of("palette", "arrived")) {
            for (JsonNode used : state.get(list)) {
                if (used.get("material").get("id").asString().equals(id)) {
                    return used.get("material").get("name").asString();
                }
            }
        }
        throw new AssertionError("unknown material " + id);
    }
}
