package app.zolvan.demo;

import static org.assertj.core.api.Assertions.assertThat;

import app.zolvan.core.exchange.json.JsonValue;
import app.zolvan.core.measure.Photograph;
import app.zolvan.core.measure.Photograph.Shows;
import app.zolvan.core.texture.ImageFile;
import com.sun.net.httpserver.HttpServer;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class SupplierCatalogueTest {
    /** However a photograph was taken, core tells it. */
    @Test
    void photographsAreToldApart() throws Exception {
        JsonValue all = JsonValue.parseTrusted(SupplierCatalogue.class.getResourceAsStream("supplier.json"));
        List<String> wrong = new ArrayList<>();
        for (JsonValue a : all.list("articles")) {
            String taken = a.require("photo").text();
            Photograph p = Photograph.of(ImageFile.decode(SupplierCatalogue.photo(a), 1 << 20));
            String seen = p.shows() == Shows.PIECE
                    ? "piece"
                    : p.shows() == Shows.SLANTED
                            ? "tilted"
                            : p.isSmall() ? "tiny" : p.isSoft() ? "soft" : p.tiles() ? "good" : "framed";
            if (!seen.equals(taken)) {
                wrong.add(a.require("name").text() + ": " + taken + " taken for " + seen + ", " + p.sharpness());
            }
            assertThat(p.remarks().isEmpty()).as(a.require("name").text()).isEqualTo(seen.equals("good"));
            assertThat(p.isUsable()).isEqualTo(List.of("good", "soft", "framed").contains(seen));
        }
        assertThat(wrong).isEmpty();
    }

    @Test
    void searchesPagesAndLeavesOutWhatIsNotKnown() throws Exception {
        HttpServer server = new SupplierCatalogue(null).serve(0);
        try {
            String at = "http://127.0.0.1:" + server.getAddress().getPort();
            JsonValue oak = json(at + "/articles?words=oak%20floor");
            assertThat(oak.require("total").index()).isEqualTo(2);
            assertThat(json(at + "/articles?kind=stone").require("total").index())
                    .isEqualTo(5);
            assertThat(json(at + "/articles?from=24").list("articles")).hasSize(2);
            assertThat(json(at + "/articles/SL-1131").has("size")).isFalse();
            assertThat(json(at + "/articles/SL-1102").numbers("size", 0, 0)).containsExactly(0.83 * 0.6, 0.83 * 0.6);
            assertThat(get(at + "/photos/nothing").statusCode()).isEqualTo(404);
        } finally {
            server.stop(0);
        }
    }

    private static JsonValue json(String address) throws Exception {
        return JsonValue.parse(get(address).body());
    }

    private static HttpResponse<byte[]> get(String address) throws Exception {
        return HttpClient.newHttpClient()
                .send(HttpRequest.newBuilder(URI.create(address)).build(), HttpResponse.BodyHandlers.ofByteArray());
    }
}
