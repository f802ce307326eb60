package app.zolvan.server.model;

import app.zolvan.core.geometry.MeshCodec;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Digest;
import app.zolvan.core.model.Excerpt;
import app.zolvan.core.model.Model;
import app.zolvan.core.model.SourceMaterial;
import app.zolvan.core.prepare.PartMatching;
import app.zolvan.core.prepare.PartMatching.Fate;
import app.zolvan.core.prepare.PartMatching.Match;
import app.zolvan.core.prepare.PartMatching.Version;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ModelMapper.GroupRow;
import app.zolvan.server.model.ModelMapper.PartRow;
import app.zolvan.server.model.ModelMapper.PlacedRow;
import app.zolvan.server.model.ModelMapper.SetRow;
import app.zolvan.server.model.ModelMapper.UpdateRow;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Deque;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.ObjectMapper;

/**
 * Newer files of a project's model. What one brings waits, with a proposal of which part is which, until the designer
 * applies it or leaves it; nothing changes before.
 *
 * <p>A part that is found again keeps its name if a designer gave it one, its role, and the sets it was moved to. What was
 * done to its shape and place is kept where the newer file brings the same shape and place as the older did.
 */
@Service
public class ModelUpdates {
    private final ModelMapper mapper;
    private final ModelStore models;
    private final AssetService assets;
    private final PartShapes shapes;
    private final MaterialService materials;
    private final ObjectMapper json;

    ModelUpdates(
            ModelMapper mapper,
            ModelStore models,
            AssetService assets,
            PartShapes shapes,
            MaterialService materials,
            ObjectMapper json) {
        this.mapper = mapper;
        this.models = models;
        this.assets = assets;
        this.shapes = shapes;
        this.materials = materials;
        this.json = json;
    }

    /**
     * What waits.
     *
     * @param rows      the model as the newer file has it, in the sets of the project
     * @param materials source materials that are not there yet
     * @param base      what parts and sets there were; see {@link #base}
     */
    record Proposal(ModelRows rows, List<MaterialRow> materials, List<Match> matches, String base) {}

    /** Names the parts that arrived and the number of sets: a proposal is good for these alone. */
    private static String base(ModelRows rows) {
        StringBuilder all = new StringBuilder().append(rows.sets().size());
        rows.ownParts().forEach(p -> all.append(p.arrivedName()).append(p.arrivedMesh()));
        return Digest.of(all.toString().getBytes(StandardCharsets.UTF_8));
    }

    /** Compares a newer file with the project's model and keeps what came of it, in the place of an earlier one. */
    @Transactional
    void propose(UUID project, String file, String sha256, ModelFiles.Read read) {
        Model model = read.prepared().model();
        ModelRows now = models.rows(project);
        assets.addToProject(project, sha256);
        models.storeImages(project, model);
        List<String> meshes = models.storeMeshes(project, model);
        List<Match> matches = PartMatching.of(
                new Version(
                        first(project, now),
                        now.ownParts().stream().map(PartRow::arrivedName).toList()),
                new Version(model, model.parts().stream().map(Model.Part::name).toList()));
        List<MaterialRow> added = new ArrayList<>();
        List<SetRow> sets = new ArrayList<>(now.sets());
        int[] setOfSource = setsOf(project, sets, foreign(now), model, added, homes(model, now, matches));
        List<PartRow> parts = new ArrayList<>();
        for (int p = 0; p < model.parts().size(); p++) {
            int[] in = model.parts().get(p).sourceOfSpan().stream()
                    .mapToInt(s -> setOfSource[s == Model.NONE ? setOfSource.length - 1 : s])
                    .toArray();
            parts.add(ModelStore.part(project, p, read.prepared(), meshes, in, in));
        }
        ModelRows rows = new ModelRows(
                models.modelRow(project, file, sha256, read, model),
                now.placed().subList(0, 1),
                ModelStore.groupRows(project, model),
                sets,
                parts);
        String digest =
                assets.store(json.writeValueAsBytes(new Proposal(rows, added, matches, base(now))), ModelStore.JSON);
        assets.addToProject(project, digest);
        mapper.putUpdate(new UpdateRow(project, file, digest));
    }

    /** The project's model without those that were added to it. */
    private Model first(UUID project, ModelRows now) {
        Set<Integer> added = now.placed().stream().map(PlacedRow::groupIdx).collect(Collectors.toSet());
        return Excerpt.without(models.standing(project).preparation().model(), added)
                .model();
    }

    /**
     * The set of each source material of the newer file, and last the one of no material: that of the source of the same
     * name, else the one that most of its parts were in, else a new one. Sets keep their numbers; a source that looks different now is added as a material.
     */
    private int[] setsOf(
            UUID project,
            List<SetRow> sets,
            Set<Integer> foreign,
            Model model,
            List<MaterialRow> added,
            List<Map<Integer, Integer>> homes) {
        List<MaterialRow> arrived = materials.ofProject(project).stream()
                .filter(MaterialRow::arrived)
                .toList();
        Map<UUID, String> nameOf = new HashMap<>();
        arrived.forEach(m -> nameOf.put(m.id(), m.name()));
        int[] out = new int[model.sources().size() + 1];
        int[] named = new int[model.sources().size()];
        Set<Integer> taken = new HashSet<>();
        for (int s = 0; s < named.length; s++) {
            String name = model.sources().get(s).name();
            named[s] = IntStream.range(0, sets.size())
                    .filter(i -> !foreign.contains(i)
                            && name.equals(nameOf.get(sets.get(i).source())))
                    .findFirst()
                    .orElse(-1);
            taken.add(named[s]);
        }
        for (int s = 0; s < out.length - 1; s++) {
            SourceMaterial source = model.sources().get(s);
            MaterialRow known = arrived.stream()
                    .filter(m -> m.name().equals(source.name())
                            && m.toSurface().equals(source.material().surface()))
                    .findFirst()
                    .orElse(null);
            if (known == null) {
                known = MaterialService.arrived(project, source.material(), arrived.size() + added.size());
                added.add(known);
            }
            UUID material = known.id();
            int at = named[s] >= 0 ? named[s] : mostOften(homes.get(s), taken, sets.size());
            taken.add(at);
            if (at == sets.size()) {
                sets.add(new SetRow(project, at, source.name(), material));
            } else {
                SetRow old = sets.get(at);
                sets.set(at, new SetRow(project, at, old.name(), material));
            }
            out[s] = at;
        }
        boolean bare = model.parts().stream().anyMatch(p -> p.sourceOfSpan().contains(Model.NONE));
        int none = IntStream.range(0, sets.size())
                .filter(i -> !foreign.contains(i) && sets.get(i).source() == null)
                .findFirst()
                .orElse(sets.size());
        if (bare && none == sets.size()) {
            sets.add(new SetRow(project, none, "No source material", null));
        }
        out[out.length - 1] = none;
        return out;
    }

    /** The sets that parts of added models alone are in, or came from. */
    private static Set<Integer> foreign(ModelRows now) {
        Set<Integer> out = setsOf(now.parts());
        out.removeAll(setsOf(now.ownParts()));
        return out;
    }

    private static Set<Integer> setsOf(List<PartRow> parts) {
        return parts.stream()
                .flatMapToInt(p -> IntStream.concat(Arrays.stream(p.sets()), Arrays.stream(p.arrivedSets())))
                .boxed()
                .collect(Collectors.toSet());
    }

    /** For each source how often parts that have it now came from which set. */
    private static List<Map<Integer, Integer>> homes(Model model, ModelRows now, List<Match> matches) {
        List<Map<Integer, Integer>> out = new ArrayList<>();
        model.sources().forEach(s -> out.add(new HashMap<>()));
        for (Match m : matches) {
            List<Integer> sources = model.parts().get(m.newer()).sourceOfSpan();
            int[] sets = m.isSure() ? now.parts().get(m.older()).arrivedSets() : new int[0];
            for (int i = 0; sets.length == sources.size() && i < sets.length; i++) {
                if (sources.get(i) != Model.NONE) {
                    out.get(sources.get(i)).merge(sets[i], 1, Integer::sum);
                }
            }
        }
        return out;
    }

    private static int mostOften(Map<Integer, Integer> homes, Set<Integer> taken, int none) {
        return homes.entrySet().stream()
                .filter(e -> !taken.contains(e.getKey()))
                .max(Map.Entry.comparingByValue())
                .map(Map.Entry::getKey)
                .orElse(none);
    }

    private UpdateRow require(UUID project) {
        return mapper.findUpdate(project).orElseThrow(() -> Problem.notFound("newer file"));
    }

    private Proposal proposal(UpdateRow row) {
        return json.readValue(assets.bytes(row.proposal()), Proposal.class);
    }

    /**
     * A newer file that waits.
     *
     * @param parts one for each of its parts; parts of the model that none of them is are lost
     */
    public record UpdateWire(String fileName, List<UpdatePart> parts) {}

    /**
     * @param older   the part of the model that it is taken for; null for none
     * @param perhaps the one that it may be, where that is doubtful
     * @param score   in [0, 1]
     * @param keepsFaces whether faces that a designer cut into that part stay: its shape is the very same
     */
    public record UpdatePart(
            int newer,
            String name,
            @Nullable Integer older,
            @Nullable Integer perhaps,
            double score,
            Fate fate,
            boolean keepsFaces) {}

    /** What waits; null for nothing. */
    public @Nullable UpdateWire pending(UUID project) {
        UpdateRow row = mapper.findUpdate(project).orElse(null);
        if (row == null) {
            return null;
        }
        Proposal p = proposal(row);
        List<UpdatePart> parts = new ArrayList<>();
        List<PartRow> old = models.rows(project).parts();
        for (Match m : p.matches) {
            parts.add(new UpdatePart(
                    m.newer(),
                    p.rows.parts().get(m.newer()).name(),
                    m.isSure() ? m.older() : null,
                    m.fate() == Fate.DOUBTFUL ? m.older() : null,
                    m.score(),
                    m.fate(),
                    m.older() >= 0 && keepsShape(p.rows.parts().get(m.newer()), old.get(m.older()))));
        }
        return new UpdateWire(row.fileName(), parts);
    }

    /** The model as the newer file has it, for the stage. */
    public Scene scene(UUID project) {
        return models.sceneOf(proposal(require(project)).rows);
    }

    public void leave(UUID project) {
        mapper.deleteUpdate(project);
    }

    /**
     * What applying would leave.
     *
     * @param kept      SHA-256 of the model as it would be
     * @param materials to be added
     * @param newerOf   for each part that is found again its index from then on
     * @param groups    likewise for each group
     * @param ownFaces  faces of designers' that are still there
     */
    public record Applied(
            String fileName,
            String kept,
            List<MaterialRow> materials,
            Map<Integer, Integer> newerOf,
            Map<Integer, Integer> groups,
            Set<Integer> ownFaces) {}

    /**
     * Puts the model together as it would be.
     *
     * @param pairs newer parts by the older ones that they are, where the designer has decided: in the place of doubtful
     *              matches, and over what was found; a newer part without an older one is new
     */
    public Applied apply(UUID project, Map<Integer, @Nullable Integer> pairs) {
        UpdateRow row = require(project);
        Proposal p = proposal(row);
        ModelRows now = models.rows(project);
        if (!p.base.equals(base(now))) {
            throw Problem.conflict(
                    "stale",
                    "The model’s parts or sets have changed since this file was compared with them. Leave it, and choose it"
                            + " once more.",
                    null);
        }
        int own = now.ownParts().size();
        Map<Integer, Integer> olderOf = olderOf(p, pairs, own);
        List<PartRow> parts = new ArrayList<>();
        Map<Integer, Integer> newerOf = new HashMap<>();
        for (PartRow fresh : p.rows.parts()) {
            Integer older = olderOf.get(fresh.idx());
            parts.add(older == null ? fresh : continued(fresh, now.parts().get(older), p.rows.groups()));
            if (older != null) {
                newerOf.put(older, fresh.idx());
            }
        }
        for (int i = own; i < now.parts().size(); i++) {
            newerOf.put(i, i - own + parts.size());
        }
        ModelRows first =
                new ModelRows(p.rows.model(), p.rows.placed(), p.rows.groups(), sets(p.rows.sets(), now.sets()), parts);
        ModelRows rows = models.measured(now.withFirst(first), false);
        String digest = assets.store(json.writeValueAsBytes(rows), ModelStore.JSON);
        assets.addToProject(project, digest);
        mapper.deleteUpdate(project);
        return new Applied(row.fileName(), digest, p.materials, newerOf, groups(now, first), rows.ownFaces());
    }

    /** A group goes on being the one that is called alike within groups called alike; of several the one in the same turn. */
    private static Map<Integer, Integer> groups(ModelRows now, ModelRows first) {
        Map<String, Deque<Integer>> newer = new HashMap<>();
        for (int g = 0; g < first.groups().size(); g++) {
            newer.computeIfAbsent(path(first.groups(), g), k -> new ArrayDeque<>())
                    .add(g);
        }
        Map<Integer, Integer> out = new HashMap<>();
        int own = now.firstGroups();
        for (int g = 0; g < now.groups().size(); g++) {
            Integer to = g >= own
                    ? Integer.valueOf(g - own + first.groups().size())
                    : newer.getOrDefault(path(now.groups(), g), new ArrayDeque<>())
                            .poll();
            if (to != null) {
                out.put(g, to);
            }
        }
        return out;
    }

    private static String path(List<GroupRow> groups, int g) {
        GroupRow row = groups.get(g);
        return (row.parent() < 0 ? "" : path(groups, row.parent())) + '\n' + row.name();
    }

    /** The sets of the proposal; those that designers have made or named since the file was read stay. */
    private static List<SetRow> sets(List<SetRow> proposed, List<SetRow> now) {
        List<SetRow> out = new ArrayList<>();
        for (int s = 0; s < Math.max(proposed.size(), now.size()); s++) {
            SetRow source = s < proposed.size() ? proposed.get(s) : now.get(s);
            SetRow named = s < now.size() ? now.get(s) : source;
            out.add(new SetRow(named.projectId(), s, named.name(), source.source()));
        }
        return out;
    }

    private static Map<Integer, Integer> olderOf(Proposal p, Map<Integer, @Nullable Integer> pairs, int count) {
        Map<Integer, Integer> out = new HashMap<>();
        for (Match m : p.matches) {
            if (m.isSure()) {
                out.put(m.newer(), m.older());
            }
        }
        pairs.forEach((newer, older) -> {
            if (newer < 0 || newer >= p.matches.size() || (older != null && (older < 0 || older >= count))) {
                throw Problem.notFound("part");
            }
            out.remove(newer);
            if (older != null) {
                out.put(newer, older);
            }
        });
        if (new HashSet<>(out.values()).size() < out.size()) {
            throw Problem.ofField("pairs", "Two parts of the newer file are paired with the same part of the model.");
        }
        return out;
    }

    /** A part of the newer file that goes on being an older one. */
    private PartRow continued(PartRow fresh, PartRow old, List<GroupRow> groups) {
        boolean sameSets = Arrays.equals(fresh.sets(), old.arrivedSets());
        boolean sameMesh = keepsShape(fresh, old);
        PartRow shape = sameMesh ? old : fresh;
        PartState.Shape eased = sameMesh ? old.shape() : easedAs(fresh, old);
        boolean moved =
                !Arrays.equals(old.local(), old.arrivedLocal()) && Arrays.equals(fresh.local(), old.arrivedLocal());
        double[] local = moved ? old.local() : fresh.local();
        double[] world = fresh.world();
        double[] size = fresh.size();
        if (moved || sameMesh) {
            Transform t = Transform.ofColumns(local);
            for (int g = fresh.groupIdx(); g >= 0; g = groups.get(g).parent()) {
                t = Transform.ofColumns(groups.get(g).local()).after(t);
            }
            Vec3 extent = MeshCodec.decode(assets.bytes(shape.mesh())).bounds(t).size();
            world = t.columns();
            size = new double[] {extent.x(), extent.y(), extent.z()};
        }
        return new PartRow(
                fresh.projectId(),
                fresh.idx(),
                fresh.groupIdx(),
                old.name().equals(old.arrivedName()) ? fresh.name() : old.name(),
                world,
                local,
                eased.mesh(),
                eased.triangles(),
                size,
                shape.area(),
                shape.volume(),
                shape.closed(),
                shape.meanThickness(),
                sameMesh && sameSets ? old.sets() : stillAway(fresh, old),
                fresh.name(),
                sameMesh && sameSets ? old.homes() : fresh.sets(),
                fresh.sets(),
                fresh.local(),
                fresh.mesh(),
                old.role(),
                eased.eased(),
                eased.plainMesh(),
                old.locked(),
                old.lookedInto(),
                sameMesh ? old.ownFaces() : fresh.ownFaces());
    }

    /** True where a part's shape, with all that was done to it and cut into it, stays. */
    private static boolean keepsShape(PartRow fresh, PartRow old) {
        boolean whole = old.sets().length == old.arrivedSets().length;
        return fresh.mesh().equals(old.arrivedMesh()) && (whole || Arrays.equals(fresh.sets(), old.arrivedSets()));
    }

    /** A part that brings another shape, its edges eased as they were. */
    private PartState.Shape easedAs(PartRow fresh, PartRow old) {
        return shapes.eased(
                fresh.projectId(),
                fresh.shape(),
                MeshCodec.decode(assets.bytes(fresh.mesh())),
                Transform.ofColumns(fresh.world()),
                old.eased());
    }

    /** The sets of a part that brings others, or another shape: where designers had moved its spans to, if there are as many. */
    private static int[] stillAway(PartRow fresh, PartRow old) {
        int[] out = fresh.sets().clone();
        if (old.sets().length == old.arrivedSets().length && out.length == old.sets().length) {
            for (int i = 0; i < out.length; i++) {
                out[i] = old.sets()[i] == old.homes()[i] ? out[i] : old.sets()[i];
            }
        }
        return out;
    }
}
