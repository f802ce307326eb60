package app.zolvan.server.colour;

import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.Palette;
import app.zolvan.core.colour.Swatch;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.palette.PaletteFile;
import app.zolvan.core.exchange.palette.ShippedPalettes;
import app.zolvan.server.account.Account;
import app.zolvan.server.colour.PaletteMapper.PaletteRow;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** An account's own palettes, for all its projects, and those that ship. */
@Service
class PaletteService {
    private static final int MOST = 500;
    private static final Map<UUID, Palette> SHIPPED = shipped();

    private final PaletteMapper mapper;

    PaletteService(PaletteMapper mapper) {
        this.mapper = mapper;
    }

    record SwatchWire(String name, ColourWire colour) {}

    /** @param shipped whether it comes with Zolvan and stays as it is */
    record PaletteWire(UUID id, String name, List<SwatchWire> swatches, boolean shipped) {}

    /** A swatch as it is typed: its colour in any notation. */
    record SwatchText(String name, String colour) {}

    /** The account's own, then what ships. */
    List<PaletteWire> all(Account account) {
        return Stream.concat(
                        mapper.of(account.id()).stream().map(row -> wire(row.id(), palette(row), false)),
                        SHIPPED.entrySet().stream().map(e -> wire(e.getKey(), e.getValue(), true)))
                .toList();
    }

    private static PaletteWire wire(UUID id, Palette p, boolean shipped) {
        return new PaletteWire(
                id,
                p.name(),
                p.swatches().stream()
                        .map(s -> new SwatchWire(s.name(), ColourWire.of(s.colour())))
                        .toList(),
                shipped);
    }

    private static Map<UUID, Palette> shipped() {
        Map<UUID, Palette> all = new LinkedHashMap<>();
        for (Palette p : ShippedPalettes.all()) {
            all.put(UUID.nameUUIDFromBytes(("palette " + p.name()).getBytes(StandardCharsets.UTF_8)), p);
        }
        return all;
    }

    private static Palette palette(PaletteRow row) {
        if (row.swatches().equals("[]")) {
            return new Palette(row.name(), List.of());
        }
        try {
            List<Swatch> swatches = PaletteFile.read(row.swatches().getBytes(StandardCharsets.UTF_8), row.name())
                    .swatches();
            return new Palette(row.name(), swatches);
        } catch (ImportException e) {
            throw new IllegalStateException("a stored palette can't be read", e);
        }
    }

    @Transactional
    PaletteWire create(Account account, String name) {
        requireRoom(account);
        return keep(account, UUID.randomUUID(), new Palette(GivenName.require(name), List.of()));
    }

    @Transactional
    PaletteWire change(Account account, UUID id, String name, List<SwatchText> texts) {
        require(account, id);
        List<Swatch> swatches = new ArrayList<>();
        for (SwatchText t : texts) {
            swatches.add(new Swatch(
                    t.name(),
                    ColourNotation.parse(t.colour())
                            .orElseThrow(() -> Problem.ofField("colour", "“" + t.colour() + "” is no colour."))));
        }
        return keep(account, id, new Palette(GivenName.require(name), swatches));
    }

    @Transactional
    PaletteWire read(Account account, byte[] file, String fileName) {
        requireRoom(account);
        try {
            return keep(account, UUID.randomUUID(), PaletteFile.read(file, fileName));
        } catch (ImportException e) {
            throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, e.reason(), e.getMessage());
        }
    }

    private void requireRoom(Account account) {
        if (mapper.count(account.id()) >= MOST) {
            throw Problem.conflict("too-many", "There are 500 palettes already. Delete one you don’t need.", null);
        }
    }

    private PaletteWire keep(Account account, UUID id, Palette p) {
        if (p.swatches().size() > PaletteFile.MOST_SWATCHES) {
            throw Problem.ofField("swatches", "A palette may have at most 4,096 colours.");
        }
        String swatches = p.swatches().isEmpty() ? "[]" : new String(PaletteFile.JSON.write(p), StandardCharsets.UTF_8);
        PaletteRow row = new PaletteRow(id, account.id(), p.name(), swatches);
        mapper.put(row);
        return wire(id, p, false);
    }

    byte[] file(Account account, UUID id, PaletteFile format) {
        Palette shipped = SHIPPED.get(id);
        return format.write(shipped != null ? shipped : palette(require(account, id)));
    }

    void delete(Account account, UUID id) {
        if (mapper.delete(account.id(), id) == 0) {
            throw Problem.notFound("palette");
        }
    }

    private PaletteRow require(Account account, UUID id) {
        return mapper.find(account.id(), id).orElseThrow(() -> Problem.notFound("palette"));
    }
}
