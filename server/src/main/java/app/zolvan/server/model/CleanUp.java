package app.zolvan.server.model;

import app.zolvan.core.material.TextureUse;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ModelMapper.GroupRow;
import app.zolvan.server.model.ModelMapper.PartRow;
import app.zolvan.server.model.ModelMapper.PlacedRow;
import app.zolvan.server.model.ModelMapper.SetRow;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.ObjectMapper;

/** Finds what nothing of a project uses, and puts the model together without it. */
@Component
public class CleanUp {
    private final ModelStore models;
    private final MaterialService materials;
    private final AssetService assets;
    private final ObjectMapper json;

    CleanUp(ModelStore models, MaterialService materials, AssetService assets, ObjectMapper json) {
        this.models = models;
        this.materials = materials;
        this.assets = assets;
        this.json = json;
    }

    /** @param shown materials that schemes show somewhere */
    @Transactional(readOnly = true)
    public Leftovers leftovers(UUID project, Set<UUID> shown) {
        Scene scene = models.scene(project);
        List<MaterialRow> all = materials.ofProject(project);
        Set<UUID> used = new HashSet<>(shown);
        scene.sets().stream().filter(s -> s.parts() > 0).forEach(s -> used.add(s.source()));
        all.forEach(m -> used.add(m.origin()));
        List<Leftovers.Unused> unused = unused(all, used, true);
        Set<String> images = all.stream()
                .filter(m -> unused.stream().noneMatch(u -> u.id().equals(m.id())))
                .flatMap(m -> m.toSurface().textures().values().stream())
                .map(TextureUse::image)
                .collect(Collectors.toSet());
        List<Leftovers.UnusedImage> pictures = models.pictures(project).stream()
                .filter(p -> !images.contains(p.sha256()))
                .map(p -> new Leftovers.UnusedImage(p.sha256(), p.width(), p.height(), p.fileBytes()))
                .toList();
        Set<Integer> holding = holding(scene);
        List<Leftovers.EmptyGroup> groups = scene.groups().stream()
                .filter(g -> !holding.contains(g.index()))
                .map(g -> new Leftovers.EmptyGroup(g.index(), g.name()))
                .toList();
        return new Leftovers(unused, pictures, groups, unused(all, used, false));
    }

    private static List<Leftovers.Unused> unused(List<MaterialRow> all, Set<UUID> used, boolean arrived) {
        return all.stream()
                .filter(m -> m.arrived() == arrived && !used.contains(m.id()))
                .map(m -> new Leftovers.Unused(m.id(), m.name(), m.surface().getBytes(StandardCharsets.UTF_8).length))
                .toList();
    }

    private static Set<Integer> holding(Scene scene) {
        Set<Integer> out = new HashSet<>();
        for (Scene.Part p : scene.parts()) {
            for (int g = p.group(); g >= 0 && out.add(g); ) {
                g = scene.groups().get(g).parent();
            }
        }
        return out;
    }

    /**
     * What the project's model would be.
     *
     * @param kept   its SHA-256
     * @param groups for each group that stays its index from then on
     */
    public record Cleaned(String kept, Map<Integer, Integer> groups) {}

    /** Keeps the model as it would be without some leftovers. */
    public Cleaned without(UUID project, Leftovers some) {
        ModelRows now = models.rows(project);
        Set<Integer> gone =
                some.groups().stream().map(Leftovers.EmptyGroup::index).collect(Collectors.toSet());
        Set<UUID> unused = some.materials().stream().map(Leftovers.Unused::id).collect(Collectors.toSet());
        Map<Integer, Integer> number = new HashMap<>(Map.of(-1, -1));
        List<GroupRow> groups = new ArrayList<>();
        for (GroupRow g : now.groups()) {
            if (!gone.contains(g.idx())) {
                number.put(g.idx(), groups.size());
                groups.add(new GroupRow(
                        project, groups.size(), Objects.requireNonNull(number.get(g.parent())), g.name(), g.local()));
            }
        }
        List<SetRow> sets = now.sets().stream()
                .map(s -> unused.contains(s.source()) ? new SetRow(project, s.idx(), s.name(), null) : s)
                .toList();
        List<PartRow> parts = now.parts().stream()
                .map(p -> p.inGroup(Objects.requireNonNull(number.get(p.groupIdx()))))
                .toList();
        List<PlacedRow> placed = now.placed().stream()
                .map(m -> m.inGroup(Objects.requireNonNull(number.get(m.groupIdx()))))
                .toList();
        String digest = assets.store(
                json.writeValueAsBytes(new ModelRows(now.model(), placed, groups, sets, parts)), ModelStore.JSON);
        assets.addToProject(project, digest);
        return new Cleaned(digest, number);
    }
}
