package app.zolvan.server.supplier;

import app.zolvan.core.keep.Article;
import app.zolvan.core.material.MaterialKind;
import app.zolvan.core.measure.Photograph;
import app.zolvan.core.texture.ImageFile;
import app.zolvan.core.texture.ImageHeader;
import app.zolvan.server.problem.Problem;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.awt.image.BufferedImage;
import java.io.IOException;
import java.net.URLEncoder;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** A supplier's catalogue: its articles as it tells them, and its photographs with what core makes of them. */
@Service
public class SupplierService {
    private static final int MOST_TEXT = 1 << 20;
    private static final int MOST_PICTURE = 8 << 20;
    public static final long MOST_PIXELS = 16_000_000;
    private static final long LOOKED_AT = 1 << 20;
    private static final int MOST_ARTICLES = 100;
    private static final int LONGEST = 200;
    private static final long MOST_KEPT = 64L << 20;
    private static final Pattern NUMBER = Pattern.compile("[A-Za-z0-9][A-Za-z0-9._-]{0,39}");

    private final SupplierClient client;
    private final JsonMapper json;
    private final Cache<String, Photo> photos = Caffeine.newBuilder()
            .maximumWeight(MOST_KEPT)
            .weigher((String number, Photo p) -> p.bytes().length)
            .expireAfterWrite(Duration.ofHours(1))
            .build();

    SupplierService(SupplierClient client, JsonMapper json) {
        this.client = client;
        this.json = json;
    }

    /** @param mediaType as its first bytes tell */
    public record Photo(byte[] bytes, String mediaType, Photograph judged) {}

    /** @param kinds how many there are of each, were no kind wanted */
    record Page(String supplier, int total, Map<String, Integer> kinds, List<Article> articles) {}

    boolean isThere() {
        return client.isThere();
    }

    Page search(String words, String kind, int from) {
        JsonNode all = read(client.fetch(
                "/articles?words=" + encoded(words) + "&kind=" + encoded(kind) + "&from=" + from, MOST_TEXT));
        Map<String, Integer> kinds = new LinkedHashMap<>();
        all.path("kinds").properties().stream()
                .limit(MOST_ARTICLES)
                .forEach(e -> kinds.put(cut(e.getKey()), e.getValue().asInt(0)));
        List<Article> articles = new ArrayList<>();
        for (JsonNode a : all.path("articles")) {
            if (articles.size() < MOST_ARTICLES) {
                articles.add(article(a));
            }
        }
        return new Page(text(all, "supplier"), all.path("total").asInt(0), kinds, articles);
    }

    private static String encoded(String s) {
        return URLEncoder.encode(s, StandardCharsets.UTF_8);
    }

    public Article article(String number) {
        return article(read(client.fetch("/articles/" + checked(number), MOST_TEXT)));
    }

    /** The photograph; kept for a while. */
    public Photo photo(String number) {
        Photo known = photos.getIfPresent(checked(number));
        if (known == null) {
            known = judged(client.fetch("/photos/" + number, MOST_PICTURE));
            photos.put(number, known);
        }
        return known;
    }

    private static String checked(String number) {
        if (!NUMBER.matcher(number).matches()) {
            throw Problem.notFound("article");
        }
        return number;
    }

    private static Photo judged(byte[] bytes) {
        ImageHeader header = ImageHeader.read(ByteBuffer.wrap(bytes))
                .filter(h -> (long) h.width() * h.height() <= MOST_PIXELS)
                .orElseThrow(SupplierClient::odd);
        try {
            BufferedImage seen = ImageFile.decode(bytes, LOOKED_AT);
            return new Photo(bytes, header.mediaType(), Photograph.of(seen).of(header.width(), header.height()));
        } catch (IOException e) {
            throw SupplierClient.odd();
        }
    }

    private JsonNode read(byte[] body) {
        try {
            JsonNode n = json.readTree(body);
            if (n == null || !n.isObject()) {
                throw SupplierClient.odd();
            }
            return n;
        } catch (JacksonException e) {
            throw SupplierClient.odd();
        }
    }

    private static Article article(JsonNode a) {
        String number = text(a, "article");
        if (!NUMBER.matcher(number).matches()) {
            throw SupplierClient.odd();
        }
        List<String> words = new ArrayList<>();
        for (JsonNode w : a.path("words")) {
            String word = w.asString("").strip();
            if (words.size() < 12 && !word.isEmpty() && word.length() <= 40) {
                words.add(word);
            }
        }
        JsonNode size = a.path("size");
        return new Article(
                number,
                text(a, "name").isEmpty() ? number : text(a, "name"),
                kind(text(a, "kind")),
                words,
                text(a, "supplier"),
                text(a, "licence"),
                number(size.path(0), Article.SMALLEST, Article.LARGEST),
                number(size.path(1), Article.SMALLEST, Article.LARGEST),
                number(a.path("price"), 0, 1e7),
                number(a.path("stock"), 0, 1e9),
                number(a.path("leadDays"), 0, 3_650),
                number(a.path("density"), 0.1, 25_000),
                number(a.path("waste"), 0, 100),
                number(a.path("carbon"), -10_000, 100_000));
    }

    private static @Nullable MaterialKind kind(String word) {
        for (MaterialKind k : MaterialKind.values()) {
            if (k.word().equals(word)) {
                return k;
            }
        }
        return null;
    }

    /** What can't be true is taken for not told. */
    private static @Nullable Double number(JsonNode n, double least, double most) {
        double v = n.isNumber() ? n.asDouble() : Double.NaN;
        return v >= least && v <= most ? v : null;
    }

    private static String text(JsonNode n, String name) {
        return cut(n.path(name).asString("").strip());
    }

    private static String cut(String s) {
        return s.length() > LONGEST ? s.substring(0, LONGEST) : s;
    }
}
