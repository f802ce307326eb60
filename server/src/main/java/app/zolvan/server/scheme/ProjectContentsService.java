package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.core.exchange.ImportException;
import app.zolvan.core.exchange.project.ProjectArchive;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.light.LightService;
import app.zolvan.server.light.SurroundingsService;
import app.zolvan.server.model.Scene;
import app.zolvan.server.model.StoredModels;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.view.ViewMapper;
import app.zolvan.server.view.ViewRow;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a project holds, gathered for a file; and a project made of what a file holds. */
@Service
class ProjectContentsService {
    private static final String SNAPSHOT = "application/json";

    private final StoredModels models;
    private final SceneSource scenes;
    private final SurroundingsService surroundings;
    private final SchemeService schemes;
    private final SchemeMapper mapper;
    private final MaterialService materials;
    private final LightService lights;
    private final ViewMapper views;
    private final NoteMapper notes;
    private final AssetService assets;
    private final ProjectService projects;
    private final CommandService commands;

    ProjectContentsService(
            StoredModels models,
            SceneSource scenes,
            SurroundingsService surroundings,
            SchemeService schemes,
            SchemeMapper mapper,
            MaterialService materials,
            LightService lights,
            ViewMapper views,
            NoteMapper notes,
            AssetService assets,
            ProjectService projects,
            CommandService commands) {
        this.models = models;
        this.scenes = scenes;
        this.surroundings = surroundings;
        this.schemes = schemes;
        this.mapper = mapper;
        this.materials = materials;
        this.lights = lights;
        this.views = views;
        this.notes = notes;
        this.assets = assets;
        this.projects = projects;
        this.commands = commands;
    }

    /** Where a file has its bytes. */
    interface Bytes {
        byte[] at(String path) throws ImportException;
    }

    /** The path of a view's picture. */
    static String view(UUID id) {
        return ProjectArchive.VIEWS + id + ".jpg";
    }

    @Transactional(readOnly = true)
    ProjectContents of(Project project) {
        UUID id = project.id();
        List<Change> changes = new ArrayList<>();
        List<MaterialRow> own = materials.ofProject(id);
        inOrder(own, MaterialRow::id, m -> Arrays.asList(m.parent(), m.colourOf()))
                .forEach(m -> changes.add(new Change.OfMaterial(m.id(), null, m)));
        List<SchemeMapper.SchemeRow> dividers = schemes.schemes(id);
        inOrder(dividers, SchemeMapper.SchemeRow::id, s -> Arrays.asList(s.base()))
                .forEach(s -> changes.add(new Change.OfScheme(s.id(), null, s)));
        for (SchemeMapper.EntryRow e : mapper.entriesOfProject(id)) {
            changes.add(new Change.OfEntry(e.schemeId(), e.level(), e.target(), e.side(), null, e));
        }
        for (SchemeMapper.CandidateRow c : mapper.candidates(id)) {
            changes.add(new Change.OfCandidate(c.level(), c.target(), c.materialId(), null, c.position()));
        }
        for (LightRow l : lights.setups(id)) {
            changes.add(new Change.OfLight(l.id(), null, l));
        }
        for (ViewRow v : views.views(id)) {
            changes.add(new Change.OfView(v.id(), null, v));
        }
        for (NoteMapper.NoteRow n : notes.notes(id)) {
            changes.add(new Change.OfNote(n.id(), null, n));
        }
        Set<UUID> pictured = views.pictured(id);
        return new ProjectContents(
                ProjectArchive.FORMAT,
                ProjectArchive.VERSION,
                id,
                project.name(),
                project.client(),
                project.unit().symbol(),
                dividers.stream().map(SchemeMapper.SchemeRow::letter).toList(),
                models.of(id),
                scenes.scene(id).ownFaces().stream().map(Scene.OwnFace::name).toList(),
                changes,
                held(id, own),
                views.views(id).stream()
                        .map(ViewRow::id)
                        .filter(pictured::contains)
                        .toList());
    }

    /** The project's own assets, and pictures of a library that its materials show. */
    private List<ProjectContents.Held> held(UUID project, List<MaterialRow> own) {
        Map<String, AssetService.Stored> all = new LinkedHashMap<>();
        assets.ofProject(project).stream()
                .filter(a -> !a.mediaType().equals(SNAPSHOT))
                .forEach(a -> all.put(a.sha256(), a));
        for (MaterialRow m : own) {
            m.toSurface().textures().values().forEach(t -> all.computeIfAbsent(t.image(), assets::stored));
        }
        return all.values().stream()
                .map(a -> new ProjectContents.Held(a.sha256(), a.mediaType(), a.bytes()))
                .toList();
    }

    /** Things in an order in which each stands after those that it refers to; references may be null. */
    private static <T> List<T> inOrder(
            Collection<T> things, Function<T, UUID> id, Function<T, List<@Nullable UUID>> references) {
        List<T> left = new ArrayList<>(things);
        List<T> out = new ArrayList<>();
        while (!left.isEmpty()) {
            Set<UUID> waiting = new HashSet<>();
            left.forEach(t -> waiting.add(id.apply(t)));
            List<T> free = left.stream()
                    .filter(t -> references.apply(t).stream().noneMatch(waiting::contains))
                    .toList();
            if (free.isEmpty()) {
                throw new IllegalStateException("things refer to each other in a ring");
            }
            out.addAll(free);
            left.removeAll(free);
        }
        return out;
    }

    /**
     * Makes a project of what a file holds, all of it or nothing.
     *
     * @param id   of the new project, which all that the contents name is of
     * @param file bytes under a path of the file
     */
    @Transactional(rollbackFor = Exception.class)
    void create(UUID id, UUID owner, ProjectContents c, Bytes file) throws ImportException {
        LengthUnit unit;
        try {
            unit = LengthUnit.ofSymbol(c.unit());
        } catch (IllegalArgumentException e) {
            throw damaged("its unit of length is unknown");
        }
        projects.create(id, owner, GivenName.require(c.name()), Objects.requireNonNullElse(c.client(), ""), unit);
        for (ProjectContents.Held a : c.assets()) {
            if (!assets.isInLibrary(a.sha256())) {
                assets.addToProject(id, assets.store(file.at(ProjectArchive.ASSETS + a.sha256()), a.mediaType()));
            }
        }
        List<Change> changes = ProjectContentsCheck.of(
                c, id, this::isShipped, d -> assets.isInProject(id, d) || assets.isInLibrary(d));
        Project project = projects.find(id).orElseThrow();
        commands.putOnNew(
                project,
                changes.stream().filter(Change.OfMaterial.class::isInstance).toList());
        models.create(id, c.model(), c.ownFaces());
        requireFitting(scenes.scene(id), changes);
        commands.putOnNew(
                project,
                changes.stream().filter(x -> !(x instanceof Change.OfMaterial)).toList());
        for (UUID view : c.views()) {
            views.putPicture(id, view, file.at(view(view)));
        }
    }

    /** Refuses what is about parts, sets and so on that the model has not, and surroundings that do not ship. */
    private void requireFitting(Scene scene, List<Change> changes) throws ImportException {
        try {
            for (Change change : changes) {
                if (change instanceof Change.OfEntry e) {
                    scene.requireTarget(Level.valueOf(e.level()), e.target());
                } else if (change instanceof Change.OfCandidate k) {
                    scene.requireTarget(Level.valueOf(k.level()), k.target());
                } else if (change instanceof Change.OfNote n) {
                    scene.requireTarget(
                            Level.valueOf(n.after().level()), n.after().target());
                } else if (change instanceof Change.OfView v) {
                    Arrays.stream(v.after().lookedInto()).forEach(part -> scene.requireRegion(part, 0));
                } else if (change instanceof Change.OfLight l) {
                    surroundings.picture(l.after().surroundings());
                }
            }
        } catch (Problem e) {
            throw damaged("it names things that are not there");
        }
    }

    /** True for a material of the library that ships, which is the same everywhere. */
    private boolean isShipped(UUID material) {
        MaterialRow m = materials.find(material);
        return m != null && m.projectId() == null && m.libraryId() == null;
    }

    static ImportException damaged(String why) {
        return new ImportException(
                "damaged", "This project file can’t be used: " + why + ". Save it from Zolvan once more.");
    }
}
