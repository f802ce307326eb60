package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.ModelUpdates;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
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
    public ProjectState apply(Edit edit, Map<Integer, @Nullable Integer> pairs) {
        Project project = commands.begin(edit);
        models.scene(edit.project()).model(0).requireUnlocked();
        String before = models.keep(edit.project());
        ModelUpdates.Applied applied = updates.apply(edit.project(), pairs);
        List<Change> changes = new ArrayList<>();
        applied.materials().forEach(m -> changes.add(new Change.OfMaterial(m.id(), null, m)));
        changes.add(new Change.OfModel(before, applied.kept()));
        moves.moveParts(edit.project(), applied.newerOf()::get, changes);
        moves.move(edit.project(), Level.GROUP, applied.groups()::get, changes);
        moves.keep(edit.project(), Level.FACE, applied.ownFaces(), changes);
        return commands.commit(edit, project, "Take " + applied.fileName(), changes);
    }
}
