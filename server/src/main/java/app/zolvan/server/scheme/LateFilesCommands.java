package app.zolvan.server.scheme;

import app.zolvan.core.exchange.formats.LateFiles;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.project.Edit;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Gives source materials the pictures that came after the model: one command. */
@Service
public class LateFilesCommands {
    private final CommandService commands;
    private final AccountService accounts;
    private final MaterialService materials;
    private final ModelStore models;

    LateFilesCommands(CommandService commands, AccountService accounts, MaterialService materials, ModelStore models) {
        this.commands = commands;
        this.accounts = accounts;
        this.materials = materials;
        this.models = models;
    }

    @Transactional
    public void take(UUID account, UUID projectId, Map<ModelStore.Lacking, LateFiles> found) {
        Account by = accounts.require(account);
        Edit edit = commands.editOfJob(by, projectId);
        Set<String> came = new HashSet<>();
        Map<Integer, List<String>> still = new HashMap<>();
        found.forEach((model, files) -> {
            still.put(model.model(), files.lacking());
            model.lacking().stream().filter(l -> !files.lacking().contains(l)).forEach(came::add);
        });
        came.retainAll(models.scene(projectId).lacking());
        if (came.isEmpty()) {
            return; // done before by the same work
        }
        List<MaterialRow> all = materials.ofProject(projectId);
        Set<UUID> added = models.addedSources(projectId);
        Map<UUID, Surface> filled = new LinkedHashMap<>();
        found.forEach((model, files) -> {
            List<MaterialRow> arrived = new ArrayList<>(all.stream()
                    .filter(m -> model.model() == 0
                            ? m.arrived() && !added.contains(m.id())
                            : model.sources().contains(m.id()))
                    .toList());
            fill(projectId, files, arrived, filled);
        });
        Map<UUID, Change> looks = new LinkedHashMap<>();
        for (MaterialRow row : all) {
            if (filled.containsKey(row.id())) {
                MaterialRow after = row.with(row.name(), filled.get(row.id()));
                looks.put(row.id(), new Change.OfMaterial(row.id(), row, after));
            }
        }
        MaterialCommands.follow(filled, all, materials::meanOfPicture, looks);
        List<Change> changes = new ArrayList<>(looks.values());
        changes.add(new Change.OfModel(models.keep(projectId), models.keepLacking(projectId, still)));
        commands.commit(
                edit,
                commands.seenBy(edit),
                "Take " + (came.size() == 1 ? "1 missing file" : came.size() + " missing files"),
                changes);
    }

    /** @param arrived what came with the model, in the order of its source materials; emptied */
    private void fill(UUID projectId, LateFiles found, List<MaterialRow> arrived, Map<UUID, Surface> surfaces) {
        int first = arrived.stream().mapToInt(MaterialRow::position).min().orElse(0);
        for (int s = 0; s < found.without().size(); s++) {
            MaterialRow row = rowOf(arrived, found.without().get(s).material().name(), first + s);
            if (row == null) {
                continue; // removed since
            }
            arrived.remove(row);
            Surface filled = found.filled(s, row.toSurface());
            if (!filled.equals(row.toSurface())) {
                filled.textures().values().forEach(t -> bring(projectId, found, t));
                surfaces.put(row.id(), filled);
            }
        }
    }

    private void bring(UUID project, LateFiles found, TextureUse use) {
        var image = found.with().images().get(use.image());
        if (image != null) {
            models.bring(project, image.bytes(), image.mediaType());
        }
    }

    /**
     * The material that a source is in the project: that of its name, of several the one in its place; where it has another
     * name now, the one in its place.
     */
    private static @Nullable MaterialRow rowOf(List<MaterialRow> arrived, String name, int place) {
        List<MaterialRow> named =
                arrived.stream().filter(r -> r.name().equals(name)).toList();
        return (named.isEmpty() ? arrived : named)
                .stream().filter(r -> r.position() == place).findFirst().orElse(named.isEmpty() ? null : named.get(0));
    }
}
