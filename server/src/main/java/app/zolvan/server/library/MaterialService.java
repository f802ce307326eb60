package app.zolvan.server.library;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.exchange.library.DrawnLibrary;
import app.zolvan.core.exchange.library.ShippedLibrary;
import app.zolvan.core.material.Facts;
import app.zolvan.core.material.Material;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.core.measure.ShippedMeasures;
import app.zolvan.server.account.Account;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The library's materials and each project's own. Library originals are never written to by designers. */
@Service
public class MaterialService {
    private final MaterialMapper mapper;
    private final AssetService assets;
    private final MeanColours means;
    private final FindingService finding;
    private final @Nullable Path kept;

    MaterialService(
            MaterialMapper mapper,
            AssetService assets,
            MeanColours means,
            FindingService finding,
            ZolvanProperties properties) {
        kept = properties.library() == null || properties.library().toString().isEmpty() ? null : properties.library();
        this.finding = finding;
        this.mapper = mapper;
        this.assets = assets;
        this.means = means;
    }

    /** The mean of a picture's colours, by its digest. */
    public LinearRgb meanOfPicture(String sha256) {
        return means.ofPicture(sha256);
    }

    /** Brings the shipped library into the database, or up to date; codes keep their identity. */
    @Transactional
    public void installShippedLibrary() {
        String edition = ShippedLibrary.edition() + " " + ShippedMeasures.edition();
        if (mapper.installedEdition().filter(edition::equals).isPresent()) {
            return;
        }
        ShippedLibrary library = DrawnLibrary.load(kept);
        library.images().values().forEach(png -> assets.addToLibrary(assets.store(png, "image/png"), null));
        int position = 0;
        for (Material m : library.materials()) {
            UUID id = UUID.nameUUIDFromBytes(("library " + m.code()).getBytes(StandardCharsets.UTF_8));
            mapper.putInLibrary(
                    row(id, null, null, false, m, position++, library.facts().get(m.code())));
        }
        finding.index(null, mapper.library());
        mapper.setInstalledEdition(edition);
    }

    public List<MaterialRow> library() {
        return mapper.library();
    }

    public List<MaterialRow> ofProject(UUID project) {
        return mapper.ofProject(project);
    }

    /** What the project's materials were made from, by id. */
    public Map<UUID, MaterialRow> origins(UUID project) {
        return mapper.origins(project).stream().collect(Collectors.toMap(MaterialRow::id, m -> m));
    }

    public UUID createArrived(UUID project, Material material, int position) {
        MaterialRow row = arrived(project, material, position);
        mapper.put(row);
        return row.id();
    }

    /** A material that came with a file; not stored yet. */
    public static MaterialRow arrived(UUID project, Material material, int position) {
        return row(UUID.randomUUID(), project, null, true, material, position, null);
    }

    /** Adds materials that came in a file after those that are there; done again for the same job they stay the same. */
    public void addArrived(UUID project, UUID job, List<Material> some) {
        int position = mapper.ofProject(project).size();
        for (int i = 0; i < some.size(); i++) {
            UUID id = UUID.nameUUIDFromBytes((job + "/" + i).getBytes(StandardCharsets.US_ASCII));
            mapper.put(row(id, project, null, true, some.get(i), position + i, null));
        }
    }

    /** A material that an account may use in a project: the project’s own, or one of a library that the account sees. */
    public MaterialRow requireUsable(Account account, UUID project, UUID id) {
        return mapper.findUsable(account.id(), project, id).orElseThrow(() -> Problem.notFound("material"));
    }

    public boolean isUsable(UUID account, UUID project, UUID id) {
        return mapper.findUsable(account, project, id).isPresent();
    }

    /** Lays a library's material into a project's palette, before anybody has worked on it. */
    void take(UUID account, UUID project, UUID id) {
        MaterialRow from = mapper.findUsable(account, project, id).orElseThrow(() -> Problem.notFound("material"));
        MaterialRow copy = copy(
                from,
                project,
                from.name(),
                from.toSurface(),
                mapper.ofProject(project).size());
        write(copy.id(), copy);
    }

    public MaterialRow find(UUID id) {
        return mapper.find(id).orElse(null);
    }

    /** A new material of the project, made from another; not stored yet. */
    public static MaterialRow copy(MaterialRow from, UUID project, String name, Surface surface, int position) {
        return new MaterialRow(
                UUID.randomUUID(),
                project,
                from.id(),
                null,
                null,
                false,
                from.code(),
                name,
                from.kind(),
                MaterialRow.json(surface),
                position,
                from.facts(),
                null,
                null,
                null);
    }

    /** A new material of the project, made from nothing; not stored yet. */
    public static MaterialRow own(UUID project, String name, Material look, int position) {
        return row(
                UUID.randomUUID(),
                project,
                null,
                false,
                new Material("", name, look.kind(), look.surface()),
                position,
                null);
    }

    /** A new material of the project with what is known of it, from elsewhere; not stored yet. */
    public static MaterialRow brought(UUID project, Material made, Facts facts, int position) {
        return row(UUID.randomUUID(), project, null, false, made, position, facts);
    }

    /** Keeps that a designer put a project's material on something, where the library has its original. */
    public void noteUse(UUID account, MaterialRow row) {
        MaterialRow original = row.origin() == null ? null : find(row.origin());
        if (original != null && original.projectId() == null) {
            finding.used(account, original.id());
        }
    }

    /** Writes the row's state, or removes the material where the state is null and nothing shows it any more. */
    public void write(UUID id, MaterialRow state) {
        if (state == null) {
            mapper.deleteUnused(id);
            return;
        }
        mapper.put(state);
        if (state.projectId() != null) {
            for (TextureUse use : state.toSurface().textures().values()) {
                assets.addToProject(state.projectId(), use.image());
            }
        }
    }

    private static MaterialRow row(
            UUID id, UUID project, UUID origin, boolean arrived, Material m, int position, @Nullable Facts facts) {
        return new MaterialRow(
                id,
                project,
                origin,
                null,
                null,
                arrived,
                m.code(),
                m.name(),
                m.kind() == null ? null : m.kind().word(),
                MaterialRow.json(m.surface()),
                position,
                facts == null ? null : FactsWire.json(facts),
                null,
                null,
                null);
    }
}
