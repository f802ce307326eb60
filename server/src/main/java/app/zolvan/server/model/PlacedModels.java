package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.HelperForm;
import app.zolvan.core.context.Placement;
import app.zolvan.core.context.Resting;
import app.zolvan.core.exchange.Reading;
import app.zolvan.core.exchange.UpAxis;
import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.Preparation;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ModelMapper.GroupRow;
import app.zolvan.server.model.ModelMapper.PartRow;
import app.zolvan.server.model.ModelMapper.PlacedRow;
import app.zolvan.server.model.ModelMapper.SetRow;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Predicate;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import tools.jackson.databind.ObjectMapper;

/** Puts a project's models together with another one, with copies of one, or without one. Keeps what comes of it, and changes nothing. */
@Component
public class PlacedModels {
    /** So many parts a project may have. */
    private static final int MOST_PARTS = 20_000;

    private static final long MOST_TRIANGLES = 20_000_000;

    private final ModelStore models;
    private final MaterialService materials;
    private final AssetService assets;
    private final ObjectMapper json;

    PlacedModels(ModelStore models, MaterialService materials, AssetService assets, ObjectMapper json) {
        this.models = models;
        this.materials = materials;
        this.assets = assets;
        this.json = json;
    }

    /**
     * A model to be added.
     *
     * @param form  what it is, where it is a helper form
     * @param place where it is to stand; null for beside all that is there
     * @param job   the work that brings it; null for none
     * @param file  what it comes in; null for helper forms
     */
    public record Addition(
            String name,
            String fileName,
            Belonging belonging,
            @Nullable HelperForm form,
            Preparation prepared,
            @Nullable Placement place,
            @Nullable UUID job,
            @Nullable Original file) {}

    /**
     * A file that a model comes in.
     *
     * @param sha256  its bytes
     * @param up      which of its axes points up
     * @param lacking what it refers to and what did not come along
     */
    public record Original(String sha256, UpAxis up, List<String> lacking) {}

    /**
     * What the project's model would be.
     *
     * @param kept      its SHA-256
     * @param materials to be added
     */
    public record Added(String kept, List<MaterialRow> materials) {}

    /** Whether a job has brought its model already. */
    public boolean isThere(UUID project, UUID job) {
        return models.rows(project).placed().stream().anyMatch(m -> job.equals(m.job()));
    }

    public Added add(UUID project, Addition a) {
        ModelRows now = models.rows(project);
        Model model = a.prepared.model();
        requireRoom(
                now,
                model.parts().size(),
                model.parts().stream()
                        .mapToLong(p -> model.meshOf(p).triangleCount())
                        .sum());
        models.storeImages(project, model);
        List<String> meshes = models.storeMeshes(project, model);
        Vec3 foot = Placement.footOf(model.bounds());
        Placement place = a.place != null ? a.place : beside(project, model.bounds());
        int root = now.groups().size();
        List<GroupRow> groups = new ArrayList<>(now.groups());
        Preparation placed = inGroup(a.name, place.transform(foot), a.prepared);
        for (Model.Group g : placed.model().groups()) {
            int parent = g.parent() == Model.NONE ? Model.NONE : root + g.parent();
            groups.add(new GroupRow(
                    project, groups.size(), parent, g.name(), g.local().columns()));
        }
        List<MaterialRow> brought = new ArrayList<>();
        int known = materials.ofProject(project).size();
        for (SourceMaterial s : model.sources()) {
            brought.add(MaterialService.arrived(project, s.material(), known + brought.size()));
        }
        List<SetRow> sets = new ArrayList<>(now.sets());
        Map<Model.Region, Integer> setOf = new HashMap<>();
        for (Model.MatchingSet s : model.matchingSets()) {
            UUID source =
                    s.source() == Model.NONE ? null : brought.get(s.source()).id();
            s.regions().forEach(r -> setOf.put(r, sets.size()));
            sets.add(new SetRow(project, sets.size(), s.name(), source));
        }
        List<PartRow> parts = new ArrayList<>(now.parts());
        for (int p = 0; p < model.parts().size(); p++) {
            int part = p;
            int[] in = new int[model.parts().get(p).sourceOfSpan().size()];
            Arrays.setAll(in, span -> setOf.get(new Model.Region(part, span)));
            PartRow row = ModelStore.part(project, p, placed, meshes, in, in);
            parts.add(row.as(parts.size(), root + row.groupIdx(), row.world(), row.size()));
        }
        int faces = model.parts().stream()
                .mapToInt(p -> model.meshOf(p).faceCount())
                .sum();
        Original file = a.file;
        if (file != null) {
            assets.addToProject(project, file.sha256());
        }
        List<PlacedRow> all = new ArrayList<>(now.placed());
        all.add(new PlacedRow(
                project,
                1 + now.placed().stream().mapToInt(PlacedRow::idx).max().orElse(0),
                a.name,
                a.fileName,
                a.belonging,
                a.form,
                root,
                false,
                false,
                foot.toArray(),
                place.at().toArray(),
                place.degrees().toArray(),
                place.scale(),
                faces,
                a.job,
                file == null ? null : file.sha256(),
                file == null ? null : file.up().name(),
                file == null ? null : file.lacking().toArray(new String[0]),
                file == null ? null : brought.stream().map(MaterialRow::id).toArray(UUID[]::new)));
        Stream<String> notes = Stream.concat(
                Arrays.stream(now.model().notes()),
                model.notes().stream().filter(n -> !Reading.isLackNote(n)).map(n -> from(a.fileName) + n));
        ModelRows rows = new ModelRows(now.model().noting(notes), all, groups, sets, parts);
        return new Added(kept(project, models.measured(rows, a.belonging == Belonging.DESIGN)), brought);
    }

    /** How notes begin that are about an added model's file. */
    private static String from(String fileName) {
        return fileName + ": ";
    }

    /** The same with one group around all. */
    private static Preparation inGroup(String name, Transform local, Preparation prepared) {
        Model m = prepared.model();
        List<Model.Group> groups = new ArrayList<>();
        groups.add(new Model.Group(Model.NONE, name, local));
        m.groups().forEach(g -> groups.add(new Model.Group(g.parent() + 1, g.name(), g.local())));
        List<Model.Part> parts = m.parts().stream()
                .map(p -> new Model.Part(p.group() + 1, p.name(), p.local(), p.mesh(), p.sourceOfSpan()))
                .toList();
        return new Preparation(
                new Model(groups, parts, m.meshes(), m.sources(), m.images(), m.notes()), prepared.measures());
    }

    private Placement beside(UUID project, Box3 own) {
        Scene scene = models.scene(project);
        Model model = models.model(project);
        Box3 there = Box3.EMPTY;
        for (Scene.Part p : scene.parts()) {
            if (scene.model(p.model()).form() == null) {
                there = there.with(model.boundsOf(model.parts().get(p.index())));
            }
        }
        return Placement.beside(there, scene.box(), own);
    }

    private static void requireRoom(ModelRows now, long parts, long triangles) {
        long had = now.parts().stream().mapToLong(PartRow::triangles).sum();
        if (now.parts().size() + parts > MOST_PARTS || had + triangles > MOST_TRIANGLES) {
            throw Problem.conflict(
                    "too-much",
                    String.format(
                            "That would make %,d parts and %,d triangles; a project takes %,d and %,d. Remove something first.",
                            now.parts().size() + parts, had + triangles, MOST_PARTS, MOST_TRIANGLES),
                    null);
        }
    }

    private String kept(UUID project, ModelRows rows) {
        String digest = assets.store(json.writeValueAsBytes(rows), ModelStore.JSON);
        assets.addToProject(project, digest);
        return digest;
    }

    /**
     * What the project's model would be.
     *
     * @param kept   its SHA-256
     * @param copies for each part that is new the one that it is like
     * @param groups for each group that is new and stands for one within the model that one
     */
    public record Repeated(String kept, Map<Integer, Integer> copies, Map<Integer, Integer> groups) {}

    /** @param moves what moves the model to where each copy stands, in the world */
    public Repeated repeat(UUID project, int index, List<Transform> moves) {
        ModelRows now = models.rows(project);
        Scene.PlacedModel placed = models.scene(project).model(index);
        Transform root = Transform.ofColumns(now.groups().get(placed.group()).local());
        int[] modelOfGroup = now.modelOfGroup();
        List<GroupRow> within = now.groups().stream()
                .filter(g -> modelOfGroup[g.idx()] == index && g.idx() != placed.group())
                .toList();
        List<PartRow> own = now.parts().stream()
                .filter(p -> ModelRows.modelOf(p, modelOfGroup) == index)
                .toList();
        requireRoom(
                now,
                (long) own.size() * moves.size(),
                moves.size() * own.stream().mapToLong(PartRow::triangles).sum());
        Map<String, Mesh> meshes = new HashMap<>();
        List<GroupRow> groups = new ArrayList<>(now.groups());
        List<PartRow> parts = new ArrayList<>(now.parts());
        Map<Integer, Integer> copies = new HashMap<>();
        Map<Integer, Integer> groupCopies = new HashMap<>();
        String prefix = placed.name() + " ";
        int firstNumber = 2
                + (int) within.stream()
                        .filter(g -> g.parent() == placed.group() && g.name().startsWith(prefix))
                        .count();
        for (Transform move : moves) {
            Map<Integer, Integer> number = new HashMap<>(Map.of(placed.group(), groups.size()));
            Transform local = root.inverse().after(move).after(root);
            String name = prefix + (firstNumber + copies.size() / own.size());
            groups.add(new GroupRow(project, groups.size(), placed.group(), name, local.columns()));
            for (GroupRow g : within) {
                number.put(g.idx(), groups.size());
                groupCopies.put(groups.size(), g.idx());
                groups.add(new GroupRow(
                        project, groups.size(), number.getOrDefault(g.parent(), Model.NONE), g.name(), g.local()));
            }
            for (PartRow p : own) {
                Transform world = move.after(Transform.ofColumns(p.world()));
                Vec3 size = meshes.computeIfAbsent(p.mesh(), digest -> MeshCodec.decode(assets.bytes(digest)))
                        .bounds(world)
                        .size();
                copies.put(parts.size(), p.idx());
                parts.add(p.as(
                        parts.size(), number.getOrDefault(p.groupIdx(), Model.NONE), world.columns(), size.toArray()));
            }
        }
        List<PlacedRow> all = now.placed().stream()
                .map(m -> m.idx() == index ? m.with(m.groupIdx(), m.faces() * (moves.size() + 1)) : m)
                .toList();
        ModelRows rows = new ModelRows(now.model(), all, groups, now.sets(), parts);
        return new Repeated(
                kept(project, models.measured(rows, placed.belonging() == Belonging.DESIGN)), copies, groupCopies);
    }

    /**
     * What the project's model would be.
     *
     * @param kept    its SHA-256
     * @param newerOf for each part that stays its index from then on
     * @param groups  likewise for each group
     * @param ownFaces faces of designers' that are still there
     */
    public record Removed(
            String kept, Map<Integer, Integer> newerOf, Map<Integer, Integer> groups, Set<Integer> ownFaces) {}

    public Removed without(UUID project, int index) {
        ModelRows now = models.rows(project);
        int[] modelOfGroup = now.modelOfGroup();
        Map<Integer, Integer> number = new HashMap<>(Map.of(Model.NONE, Model.NONE));
        List<GroupRow> groups = new ArrayList<>();
        for (GroupRow g : now.groups()) {
            if (modelOfGroup[g.idx()] != index) {
                number.put(g.idx(), groups.size());
                groups.add(new GroupRow(
                        project, groups.size(), number.getOrDefault(g.parent(), Model.NONE), g.name(), g.local()));
            }
        }
        List<PartRow> parts = new ArrayList<>();
        Map<Integer, Integer> newerOf = new HashMap<>();
        for (PartRow p : now.parts()) {
            if (ModelRows.modelOf(p, modelOfGroup) != index) {
                newerOf.put(p.idx(), parts.size());
                parts.add(p.as(parts.size(), number.getOrDefault(p.groupIdx(), Model.NONE), p.world(), p.size()));
            }
        }
        Scene.PlacedModel gone = models.scene(project).model(index);
        List<PlacedRow> all = now.placed().stream()
                .filter(m -> m.idx() != index)
                .map(m -> m.inGroup(number.getOrDefault(m.groupIdx(), Model.NONE)))
                .toList();
        boolean last = all.stream().noneMatch(m -> m.fileName().equals(gone.fileName()));
        Stream<String> notes =
                Arrays.stream(now.model().notes()).filter(n -> !last || !n.startsWith(from(gone.fileName())));
        ModelRows rows = new ModelRows(now.model().noting(notes), all, groups, now.sets(), parts);
        boolean counted = gone.belonging() == Belonging.DESIGN;
        return new Removed(kept(project, models.measured(rows, counted)), newerOf, number, rows.ownFaces());
    }

    /** Parts where they stand. */
    public List<Resting.Body> bodies(UUID project, Predicate<Scene.Part> wanted) {
        Model model = models.model(project);
        return models.scene(project).parts().stream()
                .filter(wanted)
                .map(p -> model.parts().get(p.index()))
                .map(p -> new Resting.Body(model.meshOf(p), model.partToWorld(p)))
                .toList();
    }
}
