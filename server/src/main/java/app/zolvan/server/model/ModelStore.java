package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.exchange.Arrival;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.exchange.formats.Cut;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.MeshMeasure;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Excerpt;
import app.zolvan.core.model.LengthUnit;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.SourceImage;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.snag.Snag;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.KitService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.light.LightService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.scheme.SceneSource;
import app.zolvan.server.scheme.SchemeStore;
import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeMap;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.DoubleStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.ObjectMapper;

/** Imported models in the database: seldom written, often read. */
@Service
public class ModelStore implements SceneSource {
    private static final byte[] NO_BYTES = {};

    static final String JSON = "application/json";
    /** Most readings of a scene of a project that changes between them. */
    private static final int READINGS = 20;

    private final ModelMapper mapper;
    private final AssetService assets;
    private final PartShapes shapes;
    private final MaterialService materials;
    private final ProjectService projects;
    private final SchemeStore schemes;
    private final LightService lights;
    private final KitService kits;
    private final ObjectMapper json;
    /** By revision, which every change of what a scene shows moves on: right in every process, whoever made the change. */
    private final Cache<Edition, Scene> scenes =
            Caffeine.newBuilder().maximumSize(32).build();

    private final Cache<Edition, Model> models =
            Caffeine.newBuilder().maximumSize(2).softValues().build();

    private record Edition(UUID project, long revision) {}

    ModelStore(
            ModelMapper mapper,
            AssetService assets,
            PartShapes shapes,
            MaterialService materials,
            ProjectService projects,
            SchemeStore schemes,
            LightService lights,
            KitService kits,
            ObjectMapper json) {
        this.json = json;
        this.mapper = mapper;
        this.assets = assets;
        this.shapes = shapes;
        this.materials = materials;
        this.projects = projects;
        this.schemes = schemes;
        this.lights = lights;
        this.kits = kits;
    }

    /**
     * What a new project is called and where its file came from.
     *
     * @param unit  in which lengths are shown; null to take the file's own
     * @param again whether the project is there and only gets other triangles
     */
    record Origin(
            UUID project,
            UUID owner,
            String name,
            String client,
            @Nullable LengthUnit unit,
            String file,
            String sha256,
            boolean again) {}

    public boolean exists(UUID project) {
        return mapper.findModel(project).isPresent();
    }

    /** Makes a project of a prepared model, whole or not at all. */
    @Transactional
    void create(Origin origin, ModelFiles.Read read) {
        Arrival arrival = read.arrival();
        Preparation prepared = read.prepared();
        Model model = prepared.model();
        UUID project = projects.create(
                origin.project(), origin.owner(), origin.name(), origin.client(), shownUnit(origin, arrival));
        assets.addToProject(project, origin.sha256());
        storeImages(project, model);
        List<String> meshes = storeMeshes(project, model);
        mapper.insertModel(modelRow(project, origin.file(), origin.sha256(), read, model));
        mapper.insertPlaced(first(project, origin.file()));
        groupRows(project, model).forEach(mapper::insertGroup);
        Map<Model.Region, Integer> setOf = insertSets(project, model);
        for (int p = 0; p < model.parts().size(); p++) {
            int part = p;
            int[] sets = new int[model.parts().get(p).sourceOfSpan().size()];
            Arrays.setAll(sets, span -> setOf.get(new Model.Region(part, span)));
            mapper.insertPart(part(project, p, prepared, meshes, sets, sets));
        }
        schemes.createFirst(project);
        lights.createFirst(project);
        kits.begin(origin.owner(), project);
    }

    /** The model that a project is made of, as one of its models. */
    static ModelMapper.PlacedRow first(UUID project, String file) {
        double[] origin = new double[3];
        return new ModelMapper.PlacedRow(
                project,
                0,
                file,
                file,
                Belonging.DESIGN,
                null,
                Model.NONE,
                false,
                false,
                origin,
                origin,
                origin,
                1,
                0,
                null,
                null,
                null,
                null,
                null);
    }

    static List<ModelMapper.GroupRow> groupRows(UUID project, Model model) {
        List<ModelMapper.GroupRow> out = new ArrayList<>();
        for (Model.Group g : model.groups()) {
            out.add(new ModelMapper.GroupRow(
                    project, out.size(), g.parent(), g.name(), g.local().columns()));
        }
        return out;
    }

    ModelMapper.ModelRow modelRow(UUID project, String file, String sha256, ModelFiles.Read read, Model model) {
        Arrival arrival = read.arrival();
        Cut cut = read.cut();
        return new ModelMapper.ModelRow(
                project,
                file,
                sha256,
                corners(model.bounds()),
                triangles(model),
                faces(model),
                model.notes().stream().filter(n -> !Reading.isLackNote(n)).toArray(String[]::new),
                arrival.format(),
                arrival.unit().label(),
                arrival.unit().reason(),
                arrival.up().axis().name(),
                arrival.up().reason(),
                json.writeValueAsString(
                        arrival.variants().stream().map(ModelStore::variant).toList()),
                cut == null ? null : cut.kind(),
                cut == null ? null : cut.linear(),
                cut == null ? null : cut.angular(),
                json.writeValueAsString(Findings.of(read.found())),
                0,
                0,
                read.lacking().toArray(new String[0]));
    }

    /**
     * Gives a project the source materials of a file, and the images they use.
     *
     * @param job the work that does it: done a second time, nothing is there twice
     */
    @Transactional
    void addMaterials(UUID project, UUID owner, UUID job, Model model) {
        long version = projects.touch(project); // puts changes of one project in a row
        storeImages(project, model);
        materials.addArrived(
                project,
                job,
                model.sources().stream().map(SourceMaterial::material).toList());
        if (!model.notes().isEmpty()) {
            mapper.addNotes(project, model.notes().toArray(new String[0]));
        }
        projects.announce(project, version);
    }

    void storeImages(UUID project, Model model) {
        new TreeMap<>(model.images()).forEach((digest, image) -> {
            assets.store(image.bytes(), image.mediaType());
            assets.addToProject(project, digest);
        });
    }

    /**
     * Gives a project the triangles of the same surfaces cut anew; parts, sets and looks stay, but parts that were split
     * between sets are whole again and in the sets they arrived in.
     *
     * @throws Problem where it is not the same assembly
     */
    @Transactional
    void cutAgain(Origin origin, Preparation prepared, List<Snag> found, @Nullable Cut cut) {
        UUID project = origin.project();
        long version = projects.touch(project); // puts two cuts of one project in a row
        Model model = prepared.model();
        requireCut(project);
        scene(project).model(0).requireUnlocked();
        ModelRows rows = rows(project);
        List<ModelMapper.PartRow> known = rows.ownParts();
        if (cut == null || !isSameAssembly(known, rows.firstGroups(), model)) {
            throw Problem.of(
                    HttpStatus.UNPROCESSABLE_CONTENT,
                    "other-assembly",
                    "The new triangles don’t belong to this model’s parts; nothing was changed. Import the file as a new"
                            + " project.");
        }
        assets.takeShapesFromProject(project); // those of earlier states, too: there is no way back to another cut
        assets.addToProject(project, origin.sha256());
        rows.parts().stream().skip(known.size()).forEach(p -> {
            assets.addToProject(project, p.mesh());
            if (p.plainMesh() != null) {
                assets.addToProject(project, p.plainMesh());
            }
        });
        rows.placed().stream()
                .map(ModelMapper.PlacedRow::original)
                .filter(Objects::nonNull)
                .forEach(file -> assets.addToProject(project, file));
        List<String> meshes = storeMeshes(project, model);
        mapper.updateCut(
                project,
                origin.sha256(),
                corners(model.bounds()),
                triangles(model),
                faces(model),
                cut.linear(),
                cut.angular(),
                json.writeValueAsString(Findings.of(found)));
        for (int p = 0; p < model.parts().size(); p++) {
            ModelMapper.PartRow row = known.get(p);
            boolean split = row.sets().length != row.arrivedSets().length;
            ModelMapper.PartRow fresh = part(
                            project,
                            p,
                            prepared,
                            meshes,
                            split ? row.arrivedSets() : row.sets(),
                            split ? row.arrivedSets() : row.homes())
                    .faced(split ? new int[0] : row.ownFaces());
            Mesh mesh = model.meshOf(model.parts().get(p));
            mapper.updatePart(fresh.shown(
                    shapes.eased(project, fresh.shape(), mesh, Transform.ofColumns(fresh.world()), row.eased())));
            if (!Arrays.equals(row.local(), row.arrivedLocal())) {
                move(project, p, Transform.ofColumns(row.local()), prepared.model());
            }
        }
        mapper.countChange(project, false);
        if (rows.placed().size() > 1) {
            updateBounds(project);
        }
        projects.announce(project, version);
    }

    @Override
    public void change(UUID project, Map<Integer, PartState> to) {
        Scene scene = scene(project);
        boolean shapes = false;
        for (Map.Entry<Integer, PartState> e : to.entrySet()) {
            PartState now = PartState.of(scene.parts().get(e.getKey()));
            PartState wanted = e.getValue();
            boolean other = !wanted.shape().equals(now.shape())
                    && assets.isInProject(project, wanted.shape().mesh());
            PartState.Spans spans = Objects.requireNonNull(wanted.spans());
            PartState.Spans ofNow = Objects.requireNonNull(now.spans());
            if (!other && spans.sets().size() != ofNow.sets().size()) {
                spans = ofNow;
            }
            mapper.changePart(
                    project,
                    e.getKey(),
                    wanted.shaped(other ? wanted.shape() : now.shape()),
                    ints(spans.sets()),
                    ints(spans.homes()),
                    ints(spans.ownFaces()));
            shapes |= other;
        }
        boolean moved = move(project, scene, to);
        mapper.countChange(project, shapes || moved);
        if (moved) {
            updateBounds(project);
        }
    }

    private void updateBounds(UUID project) {
        mapper.updateBounds(
                project,
                corners(Excerpt.without(loadModel(project), scene(project).surroundings())
                        .model()
                        .bounds()));
        mapper.countChange(project, false);
    }

    @Override
    public void place(UUID project, int index, PlacedState to) {
        Scene scene = scene(project);
        Scene.PlacedModel placed = scene.model(index);
        mapper.updatePlaced(
                project,
                index,
                to,
                to.place().at().toArray(),
                to.place().degrees().toArray());
        boolean moved = placed.group() >= 0 && !to.place().equals(placed.state().place());
        boolean counts = to.belonging() != placed.belonging();
        if (moved) {
            Transform local = to.place().transform(placed.footPoint());
            mapper.moveGroup(project, placed.group(), local.columns());
            mapper.countChange(project, false);
            Model model = loadModel(project);
            scene.parts().stream()
                    .filter(p -> p.model() == index)
                    .forEach(p -> move(project, p.index(), transform(p.local()), model));
        }
        mapper.countChange(project, counts || (moved && to.belonging() == Belonging.DESIGN));
        if (moved || counts) {
            updateBounds(project);
        }
    }

    /** Whether any had to be moved. */
    private boolean move(UUID project, Scene scene, Map<Integer, PartState> to) {
        boolean any = false;
        for (Map.Entry<Integer, PartState> e : to.entrySet()) {
            List<Double> place = e.getValue().place();
            if (place != null && !place.equals(scene.parts().get(e.getKey()).local())) {
                move(project, e.getKey(), transform(place), model(project));
                any = true;
            }
        }
        return any;
    }

    private void move(UUID project, int part, Transform local, Model model) {
        Model.Part moved = model.parts().get(part);
        Transform world = model.groupToWorld(moved.group()).after(local);
        Vec3 size = model.meshOf(moved).bounds(world).size();
        mapper.movePart(project, part, local.columns(), world.columns(), size.toArray());
    }

    /**
     * Adds a matching set that nothing is in yet. It stays when the command that made it is undone; sets without parts are
     * shown nowhere.
     *
     * @param source the material that its parts arrived with
     * @return its index
     */
    public int addSet(UUID project, String name, @Nullable UUID source) {
        int index = scene(project).sets().size();
        mapper.insertSet(new ModelMapper.SetRow(project, index, name, source));
        mapper.countChange(project, false);
        return index;
    }

    /**
     * Adds a face that no part has yet; likewise.
     *
     * @return its number
     */
    public int addOwnFace(UUID project, String name) {
        int index = mapper.insertOwnFace(project, name);
        mapper.countChange(project, false);
        return index;
    }

    @Override
    public void nameOwnFace(UUID project, int face, String name) {
        mapper.nameOwnFace(project, face, name);
        mapper.countChange(project, false);
    }

    @Override
    public void nameSet(UUID project, int set, String name) {
        mapper.nameSet(project, set, name);
        mapper.countChange(project, false);
    }

    private static int[] ints(List<Integer> list) {
        return list.stream().mapToInt(Integer::intValue).toArray();
    }

    /** By the names that the parts arrived with; designers may have given them others. */
    private static boolean isSameAssembly(List<ModelMapper.PartRow> parts, int groups, Model model) {
        if (parts.size() != model.parts().size() || groups != model.groups().size()) {
            return false;
        }
        for (int p = 0; p < model.parts().size(); p++) {
            ModelMapper.PartRow known = parts.get(p);
            Model.Part part = model.parts().get(p);
            if (!known.arrivedName().equals(part.name())
                    || known.groupIdx() != part.group()
                    || known.arrivedSets().length != part.sourceOfSpan().size()) {
                return false;
            }
        }
        return true;
    }

    /** What is uploaded for a project whose surfaces can be cut again. */
    String requireCut(UUID project) {
        return mapper.findModel(project)
                .filter(m -> m.cutLinear() != null)
                .map(ModelMapper.ModelRow::originalSha256)
                .orElseThrow(() -> Problem.of(
                        HttpStatus.UNPROCESSABLE_CONTENT,
                        "not-cut",
                        "This model came as triangles; there are no surfaces to cut again."));
    }

    List<String> storeMeshes(UUID project, Model model) {
        List<String> meshes = new ArrayList<>();
        for (Mesh mesh : model.meshes()) {
            String digest = assets.store(MeshCodec.encode(mesh), AssetService.BINARY);
            assets.addToProject(project, digest);
            meshes.add(digest);
        }
        return meshes;
    }

    private static double[] corners(Box3 b) {
        return new double[] {
            b.min().x(),
            b.min().y(),
            b.min().z(),
            b.max().x(),
            b.max().y(),
            b.max().z()
        };
    }

    private static int triangles(Model model) {
        return model.parts().stream()
                .mapToInt(p -> model.meshOf(p).triangleCount())
                .sum();
    }

    private static int faces(Model model) {
        return model.parts().stream().mapToInt(p -> model.meshOf(p).faceCount()).sum();
    }

    /** A file's variant as it is kept: for each region the number of its source material. */
    private static Map<String, Object> variant(Arrival.Variant v) {
        List<int[]> regions = new ArrayList<>();
        v.materials().forEach((r, source) -> regions.add(new int[] {r.part(), r.span(), source}));
        return Map.of("name", v.name(), "regions", regions);
    }

    private static LengthUnit shownUnit(Origin origin, Arrival arrival) {
        if (origin.unit() != null) {
            return origin.unit();
        }
        for (LengthUnit u : LengthUnit.values()) {
            if (u.symbol().equals(arrival.unit().label()) && !arrival.format().equals("glTF")) {
                return u;
            }
        }
        return LengthUnit.MM;
    }

    private Map<Model.Region, Integer> insertSets(UUID project, Model model) {
        List<UUID> sources = new ArrayList<>();
        model.sources().forEach(s -> sources.add(materials.createArrived(project, s.material(), sources.size())));
        Map<Model.Region, Integer> setOf = new HashMap<>();
        List<Model.MatchingSet> sets = model.matchingSets();
        for (int s = 0; s < sets.size(); s++) {
            Model.MatchingSet set = sets.get(s);
            UUID source = set.source() == Model.NONE ? null : sources.get(set.source());
            mapper.insertSet(new ModelMapper.SetRow(project, s, set.name(), source));
            for (Model.Region r : set.regions()) {
                setOf.put(r, s);
            }
        }
        return setOf;
    }

    static ModelMapper.PartRow part(
            UUID project, int index, Preparation prepared, List<String> meshes, int[] sets, int[] homes) {
        Model model = prepared.model();
        Model.Part part = model.parts().get(index);
        MeshMeasure measure = prepared.measures().get(index);
        Vec3 size = model.boundsOf(part).size();
        return new ModelMapper.PartRow(
                project,
                index,
                part.group(),
                part.name(),
                model.partToWorld(part).columns(),
                part.local().columns(),
                meshes.get(part.mesh()),
                model.meshOf(part).triangleCount(),
                size.toArray(),
                measure.area(),
                measure.volume(),
                measure.closed(),
                measure.meanThickness(),
                sets,
                part.name(),
                homes,
                sets,
                part.local().columns(),
                meshes.get(part.mesh()),
                null,
                0,
                null,
                false,
                false,
                new int[0]);
    }

    /** What deserves a look in a project's model. */
    Findings findings(UUID project) {
        ModelMapper.ModelRow m = mapper.findModel(project).orElseThrow(() -> Problem.notFound("model"));
        Findings kept = m.findings() == null ? Findings.NONE : json.readValue(m.findings(), Findings.class);
        return kept.asOf(m.lookedAt() == m.revision());
    }

    /** The upload that a project was made of. */
    String original(UUID project) {
        return mapper.findModel(project)
                .orElseThrow(() -> Problem.notFound("model"))
                .originalSha256();
    }

    /** Which axis of its file points up in a project. */
    UpAxis upAxis(UUID project) {
        return mapper.findModel(project)
                .map(m -> UpAxis.valueOf(m.upAxis()))
                .orElseThrow(() -> Problem.notFound("model"));
    }

    /**
     * A file that one of a project's models came in and that refers to others which did not come along.
     *
     * @param model    index of the model
     * @param original SHA-256 of the file
     * @param sources  the materials that its source materials became; empty where that was not kept
     */
    public record Lacking(
            int model, String fileName, String original, UpAxis up, List<String> lacking, List<UUID> sources) {}

    List<Lacking> lacking(UUID project) {
        ModelRows now = rows(project);
        ModelMapper.ModelRow first = now.model();
        List<Lacking> out = new ArrayList<>();
        out.add(new Lacking(
                0,
                first.fileName(),
                first.originalSha256(),
                UpAxis.valueOf(first.upAxis()),
                List.of(first.lacking()),
                List.of()));
        now.placed().stream()
                .filter(r -> r.original() != null)
                .map(r -> new Lacking(
                        r.idx(),
                        r.fileName(),
                        r.original(),
                        UpAxis.valueOf(r.upAxis()),
                        List.of(r.lacking()),
                        List.of(r.sources())))
                .forEach(out::add);
        out.removeIf(l -> l.lacking().isEmpty());
        return out;
    }

    /** Materials that came with models which were added. */
    public Set<UUID> addedSources(UUID project) {
        return rows(project).placed().stream()
                .flatMap(r -> Arrays.stream(r.sources()))
                .collect(Collectors.toSet());
    }

    /** A project's model as it stands, its pictures without their bytes, and which of its states that is. */
    record Standing(Preparation preparation, Set<Integer> surroundings, long revision) {

        /** What is designed, without its surroundings. */
        Excerpt design() {
            return Excerpt.without(preparation.model(), surroundings);
        }

        /** The same, with its measures. */
        Preparation designed(Excerpt design) {
            return new Preparation(
                    design.model(),
                    design.parts().stream().map(preparation.measures()::get).toList());
        }
    }

    @Transactional(readOnly = true)
    Standing standing(UUID project) {
        Scene scene = scene(project);
        Model shapes = loadModel(project);
        List<SourceMaterial> sources = new ArrayList<>();
        Map<UUID, Integer> indices = new HashMap<>();
        materials.ofProject(project).stream().filter(MaterialRow::arrived).forEach(m -> {
            indices.put(m.id(), sources.size());
            sources.add(new SourceMaterial(m.name(), m.toMaterial()));
        });
        List<Model.Part> parts = new ArrayList<>();
        List<MeshMeasure> measures = new ArrayList<>();
        for (Scene.Part p : scene.parts()) {
            Model.Part shape = shapes.parts().get(p.index());
            List<Integer> spans = p.sets().stream()
                    .map(s -> indices.getOrDefault(scene.sets().get(s).source(), Model.NONE))
                    .toList();
            parts.add(new Model.Part(p.group(), p.name(), shape.local(), shape.mesh(), spans));
            measures.add(new MeshMeasure(p.area(), p.volume(), p.closed()));
        }
        Map<String, SourceImage> images = new HashMap<>();
        for (Scene.Picture p : pictures(project)) {
            images.put(p.sha256(), new SourceImage(p.sha256(), p.mediaType(), p.width(), p.height(), NO_BYTES));
        }
        Model model = new Model(shapes.groups(), parts, shapes.meshes(), sources, images, scene.notes());
        return new Standing(new Preparation(model, measures), scene.surroundings(), scene.revision());
    }

    /** Keeps what was found in a state of a project's model, unless a later one has been looked at meanwhile. */
    @Transactional
    void keep(UUID project, Findings found, long revision) {
        mapper.updateFindings(project, json.writeValueAsString(found), revision);
    }

    @Override
    public Scene scene(UUID project) {
        Edition now = edition(project);
        Scene known = scenes.getIfPresent(now);
        return known != null ? known : load(project, now);
    }

    /** Reads a scene; again where somebody has changed it between the statements that read it. */
    private Scene load(UUID project, Edition from) {
        Edition expected = from;
        for (int tries = 0; ; tries++) {
            Scene scene = sceneOf(rows(project));
            Edition now = mapper.latestRevision(project)
                    .map(r -> new Edition(project, r))
                    .orElseThrow(() -> Problem.notFound("model"));
            if (now.equals(expected) && scene.revision() == now.revision()) {
                scenes.put(now, scene);
                return scene;
            }
            if (tries == READINGS) {
                throw Problem.of(
                        HttpStatus.SERVICE_UNAVAILABLE,
                        "busy",
                        "This model is being changed faster than it can be read. Try again in a moment.");
            }
            expected = now;
        }
    }

    private Edition edition(UUID project) {
        return mapper.revision(project).map(r -> new Edition(project, r)).orElseThrow(() -> Problem.notFound("model"));
    }

    /** All rows of a project's model as they stand. */
    ModelRows rows(UUID project) {
        ModelMapper.ModelRow model = mapper.findModel(project).orElseThrow(() -> Problem.notFound("model"));
        return ModelRows.of(project, mapper, model);
    }

    /** Puts other rows in the place of those of a project's model. */
    void replace(ModelRows rows) {
        UUID project = rows.model().projectId();
        mapper.replaceModel(
                rows.model(), rows.model().lookedAt() == rows.model().revision());
        mapper.deleteParts(project);
        mapper.deleteSets(project);
        mapper.deleteGroups(project);
        mapper.deletePlaced(project);
        rows.placed().forEach(mapper::insertPlaced);
        rows.groups().forEach(mapper::insertGroup);
        rows.sets().forEach(mapper::insertSet);
        rows.parts().forEach(mapper::insertPart);
    }

    @Override
    public boolean isImageShown(UUID project, String sha256) {
        return assets.isShown(project, sha256);
    }

    /**
     * Keeps a picture with the project, once.
     *
     * @return its digest
     */
    @Transactional
    public String bring(UUID project, byte[] picture, String mediaType) {
        String digest = assets.store(picture, mediaType);
        assets.addToProject(project, digest);
        mapper.countChange(project, false);
        return digest;
    }

    @Override
    public void showImage(UUID project, String sha256, boolean shown) {
        assets.setRemoved(project, sha256, !shown);
        mapper.countChange(project, false);
    }

    /** Keeps the model as it stands among the project's assets; its SHA-256. */
    public String keep(UUID project) {
        String digest = assets.store(json.writeValueAsBytes(rows(project)), JSON);
        assets.addToProject(project, digest);
        return digest;
    }

    /**
     * Keeps the model as it would stand if other files were lacking; its SHA-256.
     *
     * @param lacking what is, by the indices of models; others stay as they are
     */
    public String keepLacking(UUID project, Map<Integer, List<String>> lacking) {
        ModelRows now = rows(project);
        ModelRows then = new ModelRows(
                lacking.containsKey(0) ? now.model().lacking(lacking.get(0)) : now.model(),
                now.placed().stream()
                        .map(r -> r.idx() != 0 && lacking.containsKey(r.idx()) ? r.lacking(lacking.get(r.idx())) : r)
                        .toList(),
                now.groups(),
                now.sets(),
                now.parts());
        String digest = assets.store(json.writeValueAsBytes(then), JSON);
        assets.addToProject(project, digest);
        return digest;
    }

    @Override
    public boolean isKept(UUID project, String digest) {
        return isSame(rows(project), digest);
    }

    /** Apart from the revision and from what was found. */
    private boolean isSame(ModelRows now, String digest) {
        ModelRows kept = json.readValue(assets.bytes(digest), ModelRows.class);
        return json.valueToTree(kept.parts()).equals(json.valueToTree(now.parts()))
                && json.valueToTree(kept.sets()).equals(json.valueToTree(now.sets()))
                && json.valueToTree(kept.groups()).equals(json.valueToTree(now.groups()))
                && json.valueToTree(kept.placed()).equals(json.valueToTree(now.placed()));
    }

    @Override
    public void restore(UUID project, String digest) {
        ModelRows kept = json.readValue(assets.bytes(digest), ModelRows.class);
        Stream<String> files =
                kept.placed().stream().map(ModelMapper.PlacedRow::original).filter(Objects::nonNull);
        Stream<String> meshes = kept.parts().stream()
                .flatMap(p -> Stream.of(p.mesh(), p.plainMesh() == null ? p.mesh() : p.plainMesh()));
        if (Stream.concat(files, meshes).anyMatch(m -> !assets.isInProject(project, m))) {
            throw Problem.conflict(
                    "gone",
                    "Surfaces have been cut anew since, and the shapes from before are gone. There is no way back to them.",
                    null);
        }
        replace(kept);
    }

    /** A model as its rows have it. */
    Scene sceneOf(ModelRows rows) {
        ModelMapper.ModelRow m = rows.model();
        UUID project = m.projectId();
        List<AssetService.Stored> stored = assets.ofProject(project);
        Map<String, Long> bytes = new HashMap<>();
        stored.forEach(a -> bytes.put(a.sha256(), a.bytes()));
        int[] models = rows.modelOfGroup();
        List<Scene.Part> parts = rows.parts().stream()
                .map(p -> new Scene.Part(
                        p.idx(),
                        ModelRows.modelOf(p, models),
                        p.groupIdx(),
                        p.name(),
                        p.role(),
                        list(p.world()),
                        list(p.local()),
                        p.mesh(),
                        p.triangles(),
                        list(p.size()),
                        p.area(),
                        p.volume(),
                        p.closed(),
                        p.meanThickness(),
                        p.meanThickness() / Transform.ofColumns(p.world()).meanScale(),
                        bytes.getOrDefault(p.mesh(), 0L),
                        p.plainMesh(),
                        p.eased(),
                        Arrays.stream(p.sets()).boxed().toList(),
                        Arrays.stream(p.homes()).boxed().toList(),
                        p.locked(),
                        p.lookedInto(),
                        ownFaces(p)))
                .toList();
        return new Scene(
                project,
                m.revision(),
                m.fileName(),
                list(m.bounds()),
                m.triangles(),
                m.faces()
                        + rows.placed().stream()
                                .mapToInt(ModelMapper.PlacedRow::faces)
                                .sum(),
                new Scene.Origin(
                        m.format(), m.fileUnit(), m.unitFrom(), m.upAxis(), m.upFrom(), m.cutLinear(), stray(m)),
                List.of(m.notes()),
                Stream.concat(
                                Arrays.stream(m.lacking()),
                                rows.placed().stream().flatMap(r -> Arrays.stream(r.lacking())))
                        .distinct()
                        .toList(),
                List.of(),
                rows.placed().stream().map(r -> placed(r, parts)).toList(),
                rows.groups().stream()
                        .map(g -> new Scene.Group(g.idx(), g.parent(), g.name(), list(g.local())))
                        .toList(),
                rows.sets().stream()
                        .map(s -> new Scene.MatchingSet(s.idx(), s.name(), s.source(), (int) parts.stream()
                                .filter(p -> p.sets().contains(s.idx()))
                                .count()))
                        .toList(),
                mapper.ownFaces(project).stream()
                        .map(f -> new Scene.OwnFace(f.idx(), f.name()))
                        .toList(),
                parts);
    }

    private static List<Integer> ownFaces(ModelMapper.PartRow p) {
        return p.ownFaces().length == 0
                ? Collections.nCopies(p.sets().length, Scene.NO_FACE)
                : Arrays.stream(p.ownFaces()).boxed().toList();
    }

    private static Scene.PlacedModel placed(ModelMapper.PlacedRow r, List<Scene.Part> parts) {
        return new Scene.PlacedModel(
                r.idx(),
                r.name(),
                r.fileName(),
                r.belonging(),
                r.form(),
                r.form() != null && r.form().isFloor(),
                r.groupIdx(),
                r.hidden(),
                r.locked(),
                list(r.foot()),
                list(r.at()),
                list(r.degrees()),
                r.scale(),
                (int) parts.stream().filter(p -> p.model() == r.idx()).count());
    }

    /**
     * Rows with the bounds and the number of triangles of all in them, where models were added.
     *
     * @param otherDesign whether what was found in the model is of another one
     */
    ModelRows measured(ModelRows rows, boolean otherDesign) {
        int triangles =
                rows.parts().stream().mapToInt(ModelMapper.PartRow::triangles).sum();
        return new ModelRows(
                rows.model().holding(bounds(rows), triangles, otherDesign),
                rows.placed(),
                rows.groups(),
                rows.sets(),
                rows.parts());
    }

    /** The box around the design, without its surroundings. */
    double[] bounds(ModelRows rows) {
        int[] models = rows.modelOfGroup();
        Set<Integer> counted = rows.placed().stream()
                .filter(m -> m.belonging() == Belonging.DESIGN)
                .map(ModelMapper.PlacedRow::idx)
                .collect(Collectors.toSet());
        Map<String, Mesh> meshes = new HashMap<>();
        Box3 box = Box3.EMPTY;
        for (ModelMapper.PartRow p : rows.parts()) {
            if (counted.contains(ModelRows.modelOf(p, models))) {
                box = box.with(meshes.computeIfAbsent(p.mesh(), digest -> MeshCodec.decode(assets.bytes(digest)))
                        .bounds(Transform.ofColumns(p.world())));
            }
        }
        return corners(box);
    }

    private static @Nullable Double stray(ModelMapper.ModelRow m) {
        double[] b = m.bounds();
        return m.cutLinear() == null ? null : Cut.stray(m.cutLinear(), new Vec3(b[3] - b[0], b[4] - b[1], b[5] - b[2]));
    }

    /** The pictures that belong to the project itself, the largest file first. */
    List<Scene.Picture> pictures(UUID project) {
        return assets.pictures(project).stream()
                .map(p -> new Scene.Picture(
                        p.sha256(),
                        p.header().mediaType(),
                        p.header().width(),
                        p.header().height(),
                        p.bytes(),
                        p.header().memory()))
                .toList();
    }

    /** The scene with the project's pictures, as the page shows it. */
    Scene pictured(UUID project) {
        return scene(project).with(pictures(project));
    }

    /** The model with its geometry, edges as they are; kept while memory allows. */
    public Model model(UUID project) {
        Edition now = edition(project);
        Model known = models.getIfPresent(now);
        if (known == null) {
            known = loadModel(project);
            models.put(now, known);
        }
        return known;
    }

    private Model loadModel(UUID project) {
        return load(project, Scene.Part::plain);
    }

    /** The model as it is shown, eased edges and all. */
    public Model shown(UUID project) {
        boolean eased = scene(project).parts().stream().anyMatch(p -> p.plainMesh() != null);
        return eased ? load(project, Scene.Part::mesh) : model(project);
    }

    private Model load(UUID project, Function<Scene.Part, String> meshOf) {
        Scene scene = scene(project);
        Map<String, Integer> meshIndex = new HashMap<>();
        List<Mesh> meshes = new ArrayList<>();
        List<Model.Part> parts = new ArrayList<>();
        for (Scene.Part p : scene.parts()) {
            int mesh = meshIndex.computeIfAbsent(meshOf.apply(p), digest -> {
                meshes.add(MeshCodec.decode(assets.bytes(digest)));
                return meshes.size() - 1;
            });
            parts.add(new Model.Part(p.group(), p.name(), transform(p.local()), mesh, p.sets()));
        }
        List<Model.Group> groups = scene.groups().stream()
                .map(g -> new Model.Group(g.parent(), g.name(), transform(g.local())))
                .toList();
        return new Model(groups, parts, meshes, List.of(), Map.of(), List.of());
    }

    private static Transform transform(List<Double> columns) {
        return Transform.ofColumns(
                columns.stream().mapToDouble(Double::doubleValue).toArray());
    }

    private static List<Double> list(double[] values) {
        return DoubleStream.of(values).boxed().toList();
    }
}
