package app.zolvan.server.library;

import app.zolvan.server.account.Account;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Kits: materials that are used together, for the next project. */
@Service
public class KitService {
    private final KitMapper mapper;
    private final LibraryService libraries;
    private final ItemService items;
    private final MaterialService materials;
    private final ProjectService projects;

    KitService(
            KitMapper mapper,
            LibraryService libraries,
            ItemService items,
            MaterialService materials,
            ProjectService projects) {
        this.mapper = mapper;
        this.libraries = libraries;
        this.items = items;
        this.materials = materials;
        this.projects = projects;
    }

    /** @param materials how many it holds */
    record KitWire(UUID id, UUID library, String name, int materials) {}

    List<KitWire> of(Account account) {
        return mapper.of(account.id()).stream()
                .map(k -> new KitWire(k.id(), k.libraryId(), k.name(), k.materials()))
                .toList();
    }

    @Nullable
    UUID starter(Account account) {
        return mapper.starter(account.id()).orElse(null);
    }

    /** Says what new projects begin with; null for nothing. */
    @Transactional
    void setStarter(Account account, @Nullable UUID kit) {
        if (kit == null) {
            mapper.removeStarter(account.id());
        } else {
            mapper.setStarter(account.id(), require(account, kit).id());
        }
    }

    private KitMapper.KitRow require(Account account, UUID kit) {
        return mapper.find(account.id(), kit).orElseThrow(() -> Problem.notFound("kit"));
    }

    public String name(Account account, UUID kit) {
        return require(account, kit).name();
    }

    /**
     * Makes a kit, or makes one of that name anew. A material that no library has as it is in the project is kept in the kit's
     * library first.
     *
     * @param some that the project may show
     */
    @Transactional
    UUID make(Account account, UUID library, UUID project, String name, List<UUID> some) {
        libraries.requireEdit(account, library);
        projects.require(account, project);
        Set<UUID> wanted = new LinkedHashSet<>();
        List<UUID> missing = new ArrayList<>();
        for (UUID id : new LinkedHashSet<>(some)) {
            MaterialRow row = materials.requireUsable(account, project, id);
            UUID there = inLibrary(account, row);
            if (there == null) {
                missing.add(id);
            } else {
                wanted.add(there);
            }
        }
        wanted.addAll(items.keep(account, project, missing, library, null));
        UUID kit = mapper.put(library, GivenName.require(name));
        mapper.empty(kit);
        int position = 0;
        for (UUID id : wanted) {
            mapper.add(kit, id, position++);
        }
        libraries.announce(library);
        return kit;
    }

    /** The library's material that is the same; null where there is none. */
    private @Nullable UUID inLibrary(Account account, MaterialRow row) {
        if (row.projectId() == null) {
            return row.id();
        }
        ItemService.Standing standing = items.standing(account, row);
        if (standing != null && standing.same()) {
            return standing.item().id();
        }
        MaterialRow origin = row.origin() == null ? null : materials.find(row.origin());
        return origin != null && origin.isShipped() && origin.toSurface().equals(row.toSurface()) ? origin.id() : null;
    }

    @Transactional
    void delete(Account account, UUID library, UUID kit) {
        libraries.requireEdit(account, library);
        if (mapper.delete(library, kit) == 0) {
            throw Problem.notFound("kit");
        }
        libraries.announce(library);
    }

    /** A kit's materials that a project may show. */
    public List<UUID> materials(Account account, UUID project, UUID kit) {
        return mapper.materials(require(account, kit).id()).stream()
                .filter(m -> materials.isUsable(account.id(), project, m))
                .toList();
    }

    /** Lays out what an account's new projects begin with. */
    public void begin(UUID account, UUID project) {
        mapper.starter(account)
                .flatMap(k -> mapper.find(account, k))
                .ifPresent(kit -> mapper.materials(kit.id()).stream()
                        .filter(m -> materials.isUsable(account, project, m))
                        .forEach(m -> materials.take(account, project, m)));
    }
}
