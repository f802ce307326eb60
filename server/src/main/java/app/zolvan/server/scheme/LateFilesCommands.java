package app.zolvan.server.scheme;

import app.zolvan.core.exchange.formats.LateFiles;
import app.zolvan.core.material.Surface;
import app.zolvan.core.material.TextureUse;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.project.Project;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
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
    public void take(UUID account, UUID projectId, LateFiles found) {
        Account by = accounts.require(account);
        Project project = commands.beginAnyway(by, projectId);
        long came = models.scene(projectId).lacking().stream()
                .filter(l -> !found.lacking().contains(l))
                .count();
        if (came == 0) {
            return; // done before by the same work
        }
        List<MaterialRow> all = materials.ofProject(projectId);
        List<MaterialRow> arrived =
                new ArrayList<>(all.stream().filter(MaterialRow::arrived).toList());
        Map<UUID, Change> looks = new LinkedHashMap<>();
        for (int s = 0; s < found.without().size(); s++) {
            MaterialRow row = rowOf(arrived, found.without().get(s).material().name(), s);
            if (row == null) {
                continue; // removed since
            }
            arrived.remove(row);
            Surface filled = found.filled(s, row.toSurface());
            if (!filled.equals(row.toSurface())) {
                filled.textures().values().forEach(t -> bring(projectId, found, t));
                MaterialRow after = row.with(row.name(), filled);
                looks.put(row.id(), new Change.OfMaterial(row.id(), row, after));
                MaterialCommands.follow(after, all, looks);
            }
        }
        List<Change> changes = new ArrayList<>(looks.values());
        changes.add(new Change.OfModel(models.keep(projectId), models.keepLacking(projectId, found.lacking())));
        commands.commit(by, project, "Take " + (came == 1 ? "1 missing file" : came + " missing files"), changes);
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
