package app.zolvan.server;

import app.zolvan.server.Endpoint.Who;
import app.zolvan.server.account.AccountService;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.function.Supplier;
import org.springframework.jdbc.core.JdbcTemplate;
import tools.jackson.databind.JsonNode;

/** A project, a library and an account's own things, and a browser for each that one can be to them. */
final class Cast {
    final String project;
    final String library;
    private final Map<Who, Browser> browsers = new EnumMap<>(Who.class);
    /** What stands in a path behind each of its segments. */
    private final Map<String, String> ids = new HashMap<>();

    /**
     * @param project address of a project of the owner's
     * @param strangers browsers that nobody has signed in with
     */
    Cast(Browser owner, String project, Supplier<Browser> strangers, AccountService accounts, JdbcTemplate database) {
        this.project = project;
        for (Who who : Who.values()) {
            browsers.put(
                    who, who == Who.ANYBODY ? strangers.get() : strangers.get().asNewDesigner(accounts));
        }
        browsers.put(Who.OWNER, owner);
        browsers.put(Who.SELF, owner);
        browsers.get(Who.ANYBODY).get("/api/session/start"); // brings the CSRF cookie
        database.update(
                "update account set administrator = true where login = ?",
                browsers.get(Who.ADMINISTRATOR).login());
        library = "/api/libraries/" + made(owner, "/api/libraries", Map.of("name", "Yard"));
        takeIn(owner, strangers.get().asNewDesigner(accounts));
        own(owner);
        ofProject(owner);
        ids.put("accounts", account(database, strangers.get().asNewDesigner(accounts)));
    }

    private void takeIn(Browser owner, Browser third) {
        JsonNode team = null;
        for (Browser b : List.of(browsers.get(Who.MEMBER), third)) {
            team = owner.post(project + "/team", Map.of("login", b.login())).json();
        }
        for (JsonNode m : team) {
            if (m.get("login").asString().equals(third.login())) {
                ids.put("team", m.get("id").asString());
            }
        }
        Map.of(Who.READER, "USE", Who.EDITOR, "EDIT", Who.APPROVER, "APPROVE")
                .forEach((who, role) -> owner.put(
                        library + "/members", Map.of("login", browsers.get(who).login(), "role", role)));
        owner.put(library + "/members", Map.of("login", third.login(), "role", "USE"));
        ids.put("members", ids.get("team"));
    }

    private void own(Browser owner) {
        ids.put("projects", last(project));
        ids.put("libraries", last(library));
        ids.put("jobs", owner.get("/api/jobs").json().get(0).get("id").asString());
        ids.put("palettes", made(owner, "/api/palettes", Map.of("name", "Quay")));
        ids.put("rule-lists", made(owner, "/api/rule-lists", Map.of("name", "Stools")));
        ids.put("drawers", made(owner, library + "/drawers", Map.of("name", "Cloth")));
        ids.put(
                "sessions",
                owner.get("/api/account")
                        .json()
                        .get("sessions")
                        .get(0)
                        .get("id")
                        .asString());
    }

    private void ofProject(Browser owner) {
        JsonNode state = owner.get(project + "/state").json();
        String material = state.get("arrived").get(0).get("material").get("id").asString();
        Map<String, Object> keep = Map.of("library", last(library), "materials", List.of(material));
        ids.put(
                "items",
                owner.post(project + "/library/kept", keep)
                        .json()
                        .get("items")
                        .get(0)
                        .asString());
        ids.put("materials", material);
        ids.put("unlike", material);
        ids.put("schemes", state.get("schemes").get(0).get("id").asString());
        ids.put(
                "assets",
                owner.get(project + "/scene")
                        .json()
                        .get("parts")
                        .get(0)
                        .get("mesh")
                        .asString());
        ids.put("lights", UUID.randomUUID().toString());
        ids.put("views", UUID.randomUUID().toString());
        ids.put("notes", UUID.randomUUID().toString());
        ids.putAll(Map.of("file", "CSV", "exports", "glb", "material-files", "mtlx", "surroundings", "studio"));
        ids.putAll(Map.of("articles", "A-1", "photos", "A-1", "supplier", "A-1", "history", "1", "letters", "1"));
        ids.put("results", "0");
        for (String number : List.of("models", "own-faces", "parts", "sets")) {
            ids.put(number, "0");
        }
        for (String any : List.of("dressing-tables", "kits", "proof")) {
            ids.put(any, UUID.randomUUID().toString());
        }
    }

    private static String account(JdbcTemplate database, Browser of) {
        return database.queryForObject("select id::text from account where login = ?", String.class, of.login());
    }

    private static String made(Browser by, String address, Object body) {
        return by.post(address, body).json().get("id").asString();
    }

    private static String last(String path) {
        return path.substring(path.lastIndexOf('/') + 1);
    }

    Browser as(Who who) {
        return browsers.get(who);
    }

    /** The path of an endpoint with everything in it that there is. */
    String path(Endpoint endpoint) {
        StringBuilder out = new StringBuilder();
        String before = "";
        for (String segment : endpoint.path().substring(1).split("/")) {
            out.append('/').append(segment.startsWith("{") ? ids.get(before) : segment);
            before = segment;
        }
        return out.toString();
    }
}
