package app.zolvan.server;

import app.zolvan.core.assign.Look;
import app.zolvan.core.exchange.DressedModel;
import app.zolvan.core.exchange.gltf.GltfWriter;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.Surface;
import app.zolvan.core.model.Model;
import app.zolvan.server.account.AccountService;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.boot.test.context.SpringBootTest;
import org.springframework.boot.test.web.server.LocalServerPort;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.test.context.DynamicPropertyRegistry;
import org.springframework.test.context.DynamicPropertySource;
import tools.jackson.databind.JsonNode;

/** A running server on the test database, and a designer of its own for each test. */
@SpringBootTest(
        webEnvironment = SpringBootTest.WebEnvironment.RANDOM_PORT,
        properties = {
            "zolvan.upload-limit=2MB",
            "zolvan.sign-in.tries=3",
            "zolvan.sign-in.strength=4",
            "zolvan.jobs.poll=20ms",
            "zolvan.imports.log=target/imports.log"
        })
public abstract class ServerTest {
    /** A supplier's catalogue for all of them. */
    protected static final FakeSupplier SUPPLIER = new FakeSupplier();

    @DynamicPropertySource
    static void outside(DynamicPropertyRegistry properties) {
        properties.add("spring.datasource.url", TestDatabase.get()::url);
        properties.add("spring.datasource.password", TestDatabase.get()::password);
        properties.add("zolvan.supplier", SUPPLIER::address);
    }

    @LocalServerPort
    private int port;

    @Autowired
    protected AccountService accounts;

    @Autowired
    protected JdbcTemplate database;

    protected Browser browser;

    @BeforeEach
    void openBrowser() {
        browser = stranger().asNewDesigner(accounts);
    }

    /** A browser that nobody has signed in with. */
    protected Browser stranger() {
        return new Browser(port);
    }

    /** Two stools of three parts: seat and two legs each; legs share the source material "steel". */
    protected static byte[] stools() {
        Surface steel = Surface.STANDARD.with(Parameter.BASE_METALNESS, 1);
        List<Material> sources = List.of(
                new Material("", "seat", null, Surface.STANDARD.with(Parameter.BASE_COLOR, 0.3, 0.2, 0.1)),
                new Material("", "steel", null, steel));
        List<Model.Part> parts = new ArrayList<>();
        for (int stool = 0; stool < 2; stool++) {
            for (int i = 0; i < 3; i++) {
                parts.add(new Model.Part(
                        stool,
                        i == 0 ? "Seat" : "Leg " + i,
                        Transform.translation(i, 0, 0),
                        0,
                        List.of(i == 0 ? 0 : 1)));
            }
        }
        List<Model.Group> groups = List.of(
                new Model.Group(Model.NONE, "Stool 1", Transform.IDENTITY),
                new Model.Group(Model.NONE, "Stool 2", Transform.translation(0, 0, 2)));
        TriangleSoup wedge = new TriangleSoup();
        Vec3 a = Vec3.ZERO;
        Vec3 b = Vec3.axis(0);
        Vec3 c = Vec3.axis(1);
        Vec3 d = Vec3.axis(2);
        wedge.triangle(a, c, b).triangle(a, b, d).triangle(a, d, c).triangle(b, c, d);
        Model model = new Model(groups, parts, List.of(wedge.toMesh(0.1)), List.of(), Map.of(), List.of());
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            GltfWriter.write(
                    new DressedModel(
                            "Stools",
                            model,
                            (p, s) -> Look.of(
                                    sources.get(parts.get(p).sourceOfSpan().get(s)), null, 0, null),
                            image -> new byte[0]),
                    out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    /** Address of a new project made of the stools. */
    protected String newProject() throws InterruptedException {
        JsonNode job = browser.importFile("stools.glb", stools());
        return "/api/projects/" + job.get("result").asString();
    }

    /** The first material that a project's model arrived with. */
    protected String arrivedMaterial(String project) {
        return browser.get(project + "/state")
                .json()
                .get("arrived")
                .get(0)
                .get("material")
                .get("id")
                .asString();
    }

    protected String libraryMaterial(String code) {
        for (JsonNode m : browser.get("/api/library/materials").json()) {
            if (m.get("code").asString().equals(code)) {
                return m.get("id").asString();
            }
        }
        throw new AssertionError("no material " + code);
    }

    /** The look of a part in a project's state. */
    protected static JsonNode lookOf(JsonNode state, int part) {
        for (JsonNode r : state.get("regions")) {
            if (r.get("part").asInt() == part) {
                return state.get("looks").get(r.get("look").asInt());
            }
        }
        throw new AssertionError("no part " + part);
    }
}
