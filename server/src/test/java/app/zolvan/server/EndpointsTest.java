package app.zolvan.server;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.server.Endpoint.Who;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.beans.factory.annotation.Qualifier;
import org.springframework.web.servlet.mvc.method.RequestMappingInfo;
import org.springframework.web.servlet.mvc.method.annotation.RequestMappingHandlerMapping;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Every endpoint as everybody, against the table {@code endpoints.txt}. */
class EndpointsTest extends ServerTest {
    private static final JsonMapper JSON = JsonMapper.builder().build();

    @Autowired
    @Qualifier("requestMappingHandlerMapping")
    private RequestMappingHandlerMapping mappings;

    private final List<String> wrong = new ArrayList<>();
    private int asked;

    /** An answer to one of many. */
    private record Tried(Endpoint endpoint, Who who, int status, String sentence) {
        @Override
        public String toString() {
            return endpoint + " as " + who + ": " + status + " " + sentence;
        }
    }

    @Test
    void everyEndpointHasItsLine() {
        Set<String> there = new TreeSet<>();
        for (RequestMappingInfo m : mappings.getHandlerMethods().keySet()) {
            for (String path : m.getPatternValues()) {
                m.getMethodsCondition().getMethods().forEach(method -> {
                    if (path.startsWith("/api/")) {
                        there.add(method + " " + path);
                    }
                });
            }
        }
        assertThat(Endpoint.table().stream().map(Endpoint::toString)).containsExactlyInAnyOrderElementsOf(there);
    }

    @Test
    void nobodyGetsWhereTheyMayNotAndEverybodyWhereTheyMay() throws Exception {
        JsonNode document = browser.get("/v3/api-docs").json();
        Cast cast = new Cast(browser, newProject(), this::stranger, accounts, database);
        JsonNode before = standing(cast);
        List<Endpoint> all = Endpoint.table();
        for (Endpoint e : all) {
            for (Who who : outsiders(e.who())) {
                requireRefused(tried(cast, document, e, who));
            }
        }
        assertThat(standing(cast)).as("what outsiders tried").isEqualTo(before);
        all.stream()
                .filter(e -> !e.path().equals("/api/events")) // never ends
                .sorted(Comparator.comparing(Endpoint::deletes)
                        .thenComparing(e -> -e.path().length()))
                .forEach(e -> requireLetIn(tried(cast, document, e, e.who())));
        System.out.println("FIGURE endpoints " + all.size() + ", each as everybody that matters: " + asked);
        assertThat(wrong).isEmpty();
    }

    /** Those who are less than one has to be. */
    private static Set<Who> outsiders(Who least) {
        return switch (least) {
            case ANYBODY -> EnumSet.noneOf(Who.class);
            case ACCOUNT -> EnumSet.of(Who.ANYBODY);
            case OWNER -> EnumSet.of(Who.ANYBODY, Who.ACCOUNT, Who.ADMINISTRATOR, Who.MEMBER);
            case EDITOR -> EnumSet.of(Who.ANYBODY, Who.ACCOUNT, Who.ADMINISTRATOR, Who.READER);
            case APPROVER -> EnumSet.of(Who.ANYBODY, Who.ACCOUNT, Who.ADMINISTRATOR, Who.READER, Who.EDITOR);
            case ADMINISTRATOR -> EnumSet.of(Who.ANYBODY, Who.ACCOUNT);
            default -> EnumSet.of(Who.ANYBODY, Who.ACCOUNT, Who.ADMINISTRATOR);
        };
    }

    private void requireRefused(Tried t) {
        Who least = t.endpoint.who();
        int expected = 404;
        if (t.who == Who.ANYBODY) {
            expected = 401;
        } else if (least == Who.ADMINISTRATOR || t.who == Who.MEMBER || t.who == Who.READER || t.who == Who.EDITOR) {
            expected = 403;
        }
        boolean said = expected != 404
                || !t.endpoint.path().startsWith("/api/projects/")
                || t.sentence.contains("no such project")
                || t.sentence.contains("no such list of rules"); // somebody else's, asked for first
        if (t.status != expected || !said) {
            wrong.add("not refused with " + expected + ": " + t);
        }
    }

    private void requireLetIn(Tried t) {
        String place = t.endpoint.path().startsWith("/api/projects/") ? "no such project" : "no such library";
        boolean refused = t.who != Who.ANYBODY && (t.status == 401 || t.status == 403);
        if (refused || t.status == 500 || t.sentence.contains(place)) {
            wrong.add("not let in: " + t);
        }
    }

    private Tried tried(Cast cast, JsonNode document, Endpoint e, Who who) {
        asked++;
        SampleRequest sample = new SampleRequest(document, e);
        Object json = sample.body();
        boolean picture = e.path().endsWith("/picture") || e.path().endsWith("/thumbnail");
        boolean reads = e.method().equals("GET") || e.deletes();
        byte[] body = reads ? null : json != null ? JSON.writeValueAsBytes(json) : picture ? jpeg() : new byte[1];
        Browser.Answer a = cast.as(who)
                .send(
                        e.method(),
                        cast.path(e) + sample.query(),
                        json != null ? "application/json" : picture ? "image/jpeg" : "application/octet-stream",
                        body,
                        Map.of("If-Match", "\"1\"", "X-File-Name", "x.obj"));
        boolean said = a.json() != null && a.json().has("detail");
        return new Tried(e, who, a.status(), said ? a.sentence() : "");
    }

    private static byte[] jpeg() {
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(new BufferedImage(64, 40, BufferedImage.TYPE_INT_RGB), "jpeg", out);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return out.toByteArray();
    }

    private static JsonNode standing(Cast cast) {
        Browser owner = cast.as(Who.OWNER);
        return JSON.valueToTree(List.of(
                owner.get(cast.project + "/state").json(),
                owner.get(cast.project + "/history").json(),
                owner.get(cast.project + "/team").json(),
                owner.get(cast.library + "/members").json(),
                owner.get("/api/libraries").json(),
                owner.get("/api/palettes").json(),
                owner.get("/api/rule-lists").json()));
    }
}
