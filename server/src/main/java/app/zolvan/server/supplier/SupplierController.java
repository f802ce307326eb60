package app.zolvan.server.supplier;

import app.zolvan.core.keep.Article;
import app.zolvan.core.measure.Photograph;
import app.zolvan.server.library.FactsWire;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.time.Duration;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** A supplier's catalogue, for anybody who is signed in. */
@RestController
@Validated
@RequestMapping("/api/supplier")
class SupplierController {
    private final SupplierService supplier;

    SupplierController(SupplierService supplier) {
        this.supplier = supplier;
    }

    /**
     * @param size  of what the photograph shows, width and height in metres; null where it isn't told
     * @param stock in m²
     * @param lacks what it doesn't tell, in words
     */
    record ArticleWire(
            String number,
            String name,
            @Nullable String kind,
            FactsWire facts,
            @Nullable List<Double> size,
            @Nullable Double stock,
            @Nullable Double leadDays,
            List<String> lacks) {

        static ArticleWire of(Article a) {
            return new ArticleWire(
                    a.number(),
                    a.name(),
                    a.kind() == null ? null : a.kind().word(),
                    FactsWire.of(a.facts()),
                    a.width() == null || a.height() == null ? null : List.of(a.width(), a.height()),
                    a.stock(),
                    a.lead(),
                    a.lacks());
        }
    }

    record ArticleKind(String kind, int count) {}

    /** @param connected whether a supplier belongs to this installation */
    record CatalogueWire(
            boolean connected, String supplier, int total, List<ArticleKind> kinds, List<ArticleWire> articles) {}

    @GetMapping("/articles")
    CatalogueWire search(
            @RequestParam(defaultValue = "") @Size(max = 200) String words,
            @RequestParam(defaultValue = "") @Size(max = 40) String kind,
            @RequestParam(defaultValue = "0") @Min(0) @Max(100_000) int from) {
        if (!supplier.isThere()) {
            return new CatalogueWire(false, "", 0, List.of(), List.of());
        }
        SupplierService.Page page = supplier.search(words, kind, from);
        return new CatalogueWire(
                true,
                page.supplier(),
                page.total(),
                page.kinds().entrySet().stream()
                        .map(e -> new ArticleKind(e.getKey(), e.getValue()))
                        .toList(),
                page.articles().stream().map(ArticleWire::of).toList());
    }

    /**
     * What core makes of a photograph.
     *
     * @param usable  whether it can be laid over a model as it is
     * @param mended  whether it is straightened and cut to the piece when it is brought in
     * @param tiles   whether its edges meet as it is
     * @param remarks what is wrong with it, a sentence each
     */
    record JudgedWire(
            int width,
            int height,
            Photograph.Shows shows,
            boolean usable,
            boolean mended,
            boolean tiles,
            List<String> remarks) {}

    @GetMapping("/articles/{number}/photograph")
    JudgedWire judged(@PathVariable String number) {
        Photograph p = supplier.photo(number).judged();
        return new JudgedWire(p.width(), p.height(), p.shows(), p.isUsable(), p.isMended(), p.tiles(), p.remarks());
    }

    @GetMapping("/photos/{number}")
    ResponseEntity<byte[]> photo(@PathVariable String number) {
        SupplierService.Photo p = supplier.photo(number);
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(p.mediaType()))
                .header("X-Content-Type-Options", "nosniff")
                .cacheControl(CacheControl.maxAge(Duration.ofMinutes(10)).cachePrivate())
                .body(p.bytes());
    }
}
