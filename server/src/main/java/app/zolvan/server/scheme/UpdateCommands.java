package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.model.ModelUpdates;
import app.zolvan.server.project.Project;
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
    private final SchemeMapper schemes;

    UpdateCommands(CommandService commands, ModelStore models, ModelUpdates updates, SchemeMapper schemes) {
        this.commands = commands;
        this.models = models;
        this.updates = updates;
        this.schemes = schemes;
    }

    /** @param pairs see {@link ModelUpdates#apply} */
    @Transactional
    public ProjectState apply(Account account, UUID projectId, long seen, Map<Integer, @Nullable Integer> pairs) {
        Project project = commands.begin(account, projectId, seen);
        models.scene(projectId).model(0).requireUnlocked();
        String before = models.keep(projectId);
        ModelUpdates.Applied applied = updates.apply(projectId, pairs);
        List<Change> changes = new ArrayList<>();
        applied.materials().forEach(m -> changes.add(new Change.OfMaterial(m.id(), null, m)));
        changes.add(new Change.OfModel(before, applied.kept()));
        moveEntries(projectId, applied.newerOf(), changes);
        return commands.commit(account, project, "Take " + applied.fileName(), changes);
    }

    /** Looks of parts go with them; those of lost parts go. */
    void moveEntries(UUID project, Map<Integer, Integer> newerOf, List<Change> changes) {
        schemes.schemes(project).forEach(s -> moveEntriesOf(s.id(), newerOf, changes));
    }

    private void moveEntriesOf(UUID scheme, Map<Integer, Integer> newerOf, List<Change> changes) {
        List<Change> puts = new ArrayList<>();
        for (SchemeMapper.EntryRow e : schemes.entries(scheme)) {
            Integer to = newerOf.get(e.target());
            if (!e.level().equals(Level.PART.name()) || (to != null && to == e.target())) {
                continue;
            }
            changes.add(new Change.OfEntry(scheme, e.level(), e.target(), e.side(), e, null));
            if (to != null) {
                SchemeMapper.EntryRow moved = new SchemeMapper.EntryRow(
                        scheme, e.level(), to, e.side(), e.materialId(), e.mapping(), e.onTop());
                puts.add(new Change.OfEntry(scheme, e.level(), to, e.side(), null, moved));
            }
        }
        changes.addAll(puts);
    }
}
