package app.zolvan.server.colour;

import app.zolvan.core.exchange.palette.PaletteFile;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.colour.PaletteService.PaletteWire;
import app.zolvan.server.colour.PaletteService.SwatchText;
import app.zolvan.server.problem.FileName;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.io.IOException;
import java.util.List;
import java.util.UUID;
import org.springframework.http.ContentDisposition;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** An account's palettes, and open palette files in and out. */
@RestController
@RequestMapping("/api/palettes")
class PaletteController {
    private final PaletteService palettes;

    PaletteController(PaletteService palettes) {
        this.palettes = palettes;
    }

    record PaletteName(@NotNull @Size(max = 200) String name) {}

    record PaletteText(
            @NotNull @Size(max = 200) String name,
            @NotNull @Size(max = 4096) List<@NotNull SwatchText> swatches) {}

    @GetMapping
    List<PaletteWire> all(@AuthenticationPrincipal Account account) {
        return palettes.all(account);
    }

    @PostMapping
    PaletteWire create(@AuthenticationPrincipal Account account, @Validated @RequestBody PaletteName n) {
        return palettes.create(account, n.name());
    }

    /** Takes a GPL, CSV or JSON file as the request's body. */
    @PostMapping("/files")
    PaletteWire read(
            @AuthenticationPrincipal Account account,
            @RequestHeader("X-File-Name") String fileName,
            HttpServletRequest request)
            throws IOException {
        byte[] file = request.getInputStream().readNBytes(PaletteFile.MOST_BYTES + 1);
        if (file.length > PaletteFile.MOST_BYTES) {
            throw AssetService.tooLarge(PaletteFile.MOST_BYTES);
        }
        return palettes.read(account, file, FileName.decoded(fileName));
    }

    @PutMapping("/{id}")
    PaletteWire change(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody PaletteText p) {
        return palettes.change(account, id, p.name(), p.swatches());
    }

    @GetMapping("/{id}/file/{format}")
    ResponseEntity<byte[]> file(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @PathVariable PaletteFile format) {
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_OCTET_STREAM)
                .header(
                        HttpHeaders.CONTENT_DISPOSITION,
                        ContentDisposition.attachment()
                                .filename("palette." + format.ending())
                                .build()
                                .toString())
                .body(palettes.file(account, id, format));
    }

    @DeleteMapping("/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void delete(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        palettes.delete(account, id);
    }
}
