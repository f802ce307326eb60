package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.ModelUpdates;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.Seen;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Brings a project's model up to date with a newer file: one command, taken back as a whole. */
@Service
public class UpdateCommands {
    private final CommandService commands;
    private final ModelStore models;
    private final ModelUpdates updates;
    private final EntryMoves moves;

    UpdateCommands(CommandService commands, ModelStore models, ModelUpdates updates, EntryMoves moves) {
        this.commands = commands;
        this.models = models;
        this.updates = updates;
        this.moves = moves;
    }

    /** @param pairs see {@link ModelUpdates#apply} */
    @Transactional
    public ProjectState apply(Account account, UUID projectId, Seen seen, Map<Integer, @Nullable Integer> pairs) {
        Project project = commands.begin(account, projectId, seen);
        models.scene(projectId).model(0).requireUnlocked();
        String before = models.keep(projectId);
        ModelUpdates.Applied applied = updates.apply(projectId, pairs);
        List<Change> changes = new ArrayList<>();
        applied.materials().forEach(m -> changes.add(new Change.OfMaterial(m.id(), null, m)));
        changes.add(new Change.OfModel(before, applied.kept()));
        moves.moveParts(projectId, applied.newerOf()::get, changes);
        moves.move(projectId, Level.GROUP, applied.groups()::get, changes);
        moves.keep(projectId, Level.FACE, applied.ownFaces(), changes);
        return commands.commit(account, project, "Take " + applied.fileName(), changes);
    }
}
