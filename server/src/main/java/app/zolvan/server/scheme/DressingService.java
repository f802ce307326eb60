package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.colour.ColourNotation;
import app.zolvan.core.colour.Srgb;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.prepare.DressingTable;
import app.zolvan.core.prepare.DressingTable.Hit;
import app.zolvan.core.prepare.DressingTable.Row;
import app.zolvan.core.prepare.DressingTable.Source;
import app.zolvan.core.prepare.Role;
import app.zolvan.core.prepare.Roles;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.ItemService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.ProjectRequest;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Query;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Dressing tables of an account: kept from one project, applied to another. */
@Service
class DressingService {
    private final DressingMapper mapper;
    private final AssignCommands assigning;
    private final SchemeService schemes;
    private final SceneSource scenes;
    private final MaterialService materials;
    private final ItemService items;
    private final ProjectService projects;
    private final JsonMapper json;

    DressingService(
            DressingMapper mapper,
            AssignCommands assigning,
            SchemeService schemes,
            SceneSource scenes,
            MaterialService materials,
            ItemService items,
            ProjectService projects,
            JsonMapper json) {
        this.mapper = mapper;
        this.assigning = assigning;
        this.schemes = schemes;
        this.scenes = scenes;
        this.materials = materials;
        this.items = items;
        this.projects = projects;
        this.json = json;
    }

    /**
     * A row as it is kept.
     *
     * @param name     of a source material; * stands for any text
     * @param colour   as sRGB code, #rrggbb
     * @param role     null for none in particular
     * @param material of the library
     */
    record DressingRow(String name, String colour, @Nullable Role role, UUID material) {}

    /** @param rows how many there are */
    record TableWire(UUID id, String name, int rows) {}

    List<TableWire> tables(Account account) {
        return mapper.of(account.id()).stream()
                .map(t -> new TableWire(t.id(), t.name(), rows(t).size()))
                .toList();
    }

    private List<DressingRow> rows(DressingMapper.TableRow table) {
        return Arrays.asList(json.readValue(table.rows(), DressingRow[].class));
    }

    private DressingMapper.TableRow require(Account account, UUID id) {
        return mapper.find(account.id(), id).orElseThrow(() -> Problem.notFound("dressing table"));
    }

    List<DressingRow> rows(Account account, UUID id) {
        return rows(require(account, id));
    }

    /** Gives a table other rows. */
    @Transactional
    List<DressingRow> change(Account account, UUID id, List<DressingRow> rows) {
        DressingMapper.TableRow table = require(account, id);
        List<DressingRow> clean = new ArrayList<>();
        for (DressingRow k : rows) {
            String name = GivenName.require(k.name());
            if (ColourNotation.parse(k.colour()).isEmpty()) {
                throw Problem.ofField("colour", "“" + k.colour() + "” is no colour code such as #a4703c.");
            }
            if (items.seen(account, k.material()).isEmpty()) {
                throw Problem.ofField("material", "Choose a material of the library for “" + name + "”.");
            }
            clean.add(new DressingRow(name, k.colour(), k.role(), k.material()));
        }
        mapper.put(new DressingMapper.TableRow(table.id(), account.id(), table.name(), json.writeValueAsString(clean)));
        return clean;
    }

    /** Keeps what the project's sets have got from the library, under a name; one of that name is replaced. */
    @Transactional
    TableWire save(Query query, String name) {
        projects.require(query.account(), query.project());
        Scene scene = scenes.scene(query.project());
        Map<Integer, UUID> worn = new LinkedHashMap<>();
        dressed(query).forEach((set, material) -> {
            MaterialRow m = materials.find(material);
            if (m != null && m.origin() != null) {
                worn.put(set, m.origin());
            }
        });
        List<DressingRow> rows = new ArrayList<>();
        sources(scene).forEach((set, source) -> {
            if (worn.containsKey(set)) {
                rows.add(new DressingRow(source.name(), Srgb.toHex(source.colour()), source.role(), worn.get(set)));
            }
        });
        if (rows.isEmpty()) {
            throw Problem.conflict(
                    "nothing", "No set of this project has got a library material yet. Dress some first.", null);
        }
        mapper.put(new DressingMapper.TableRow(
                UUID.randomUUID(), query.account().id(), GivenName.require(name), json.writeValueAsString(rows)));
        return tables(query.account()).stream()
                .filter(t -> t.name().equals(GivenName.require(name)))
                .findFirst()
                .orElseThrow();
    }

    /** What the sets have got in the scheme in view. */
    private Map<Integer, UUID> dressed(ProjectRequest request) {
        Map<Integer, UUID> out = new LinkedHashMap<>();
        schemes.entries(request.project(), schemes.current(request))
                .scheme()
                .effective()
                .forEach((slot, entry) -> {
                    if (slot.target().level() == Level.SET && entry.material() != null) {
                        out.put(LookTable.index(slot.target()), UUID.fromString(entry.material()));
                    }
                });
        return out;
    }

    /** The sets that arrived with a material, as the table sees them. */
    private Map<Integer, Source> sources(Scene scene) {
        Map<Integer, Source> out = new LinkedHashMap<>();
        for (Scene.MatchingSet s : scene.sets()) {
            MaterialRow m = s.source() == null || s.parts() == 0 ? null : materials.find(s.source());
            if (m != null) {
                out.put(
                        s.index(),
                        new Source(m.name(), m.toSurface().colour(Parameter.BASE_COLOR), roleOf(scene, s.index())));
            }
        }
        return out;
    }

    private static @Nullable Role roleOf(Scene scene, int set) {
        return Roles.ofMost(scene.parts().stream()
                .filter(p -> p.sets().contains(set))
                .map(Scene.Part::role)
                .collect(Collectors.toList())); // some have none
    }

    /**
     * What a table would do to one set.
     *
     * @param material of the library; null where no row fits
     * @param by       why
     * @param dressed  the set has got something already, which stays
     */
    record Fitting(int set, @Nullable UUID material, DressingTable.@Nullable By by, boolean dressed) {}

    /** What a table would do; changes nothing. */
    List<Fitting> preview(ProjectRequest query, UUID id) {
        projects.require(query.account(), query.project());
        DressingMapper.TableRow table = require(query.account(), id);
        DressingTable rows = new DressingTable(rows(table).stream()
                .map(k -> new Row(
                        k.name(),
                        ColourNotation.parse(k.colour()).orElseThrow(),
                        k.role(),
                        k.material().toString()))
                .toList());
        Set<Integer> dressed = dressed(query).keySet();
        List<Fitting> out = new ArrayList<>();
        sources(scenes.scene(query.project())).forEach((set, source) -> {
            Hit hit = rows.find(source).orElse(null);
            UUID material = hit == null ? null : UUID.fromString(hit.row().material());
            boolean there =
                    material != null && materials.isUsable(query.account().id(), query.project(), material);
            out.add(new Fitting(set, there ? material : null, there ? hit.by() : null, dressed.contains(set)));
        });
        return out;
    }

    /** Gives sets that have nothing yet what a table says. */
    @Transactional
    ProjectState apply(Edit edit, UUID id) {
        projects.require(edit.account(), edit.project());
        String name = mapper.find(edit.account().id(), id)
                .orElseThrow(() -> Problem.notFound("dressing table"))
                .name();
        return assigning.dress(edit, name, () -> {
            Map<Integer, UUID> wanted = new LinkedHashMap<>();
            for (Fitting f : preview(edit, id)) {
                if (f.material() != null && !f.dressed()) {
                    wanted.put(f.set(), f.material());
                }
            }
            return wanted;
        });
    }

    void delete(Account account, UUID id) {
        if (mapper.delete(account.id(), id) == 0) {
            throw Problem.notFound("dressing table");
        }
    }
}
