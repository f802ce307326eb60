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
        moveEntries(projectId, applied.newerOf(), applied.groups(), changes);
        return commands.commit(account, project, "Take " + applied.fileName(), changes);
    }

    /**
     * Looks of parts and groups go with them; those of lost ones go.
     *
     * @param parts  for each part that stays its index from then on
     * @param groups likewise for each group
     */
    void moveEntries(UUID project, Map<Integer, Integer> parts, Map<Integer, Integer> groups, List<Change> changes) {
        for (SchemeMapper.SchemeRow s : schemes.schemes(project)) {
            moveEntriesOf(s.id(), Level.PART, parts, changes);
            moveEntriesOf(s.id(), Level.GROUP, groups, changes);
        }
        moveCandidates(project, Level.PART, parts, changes);
        moveCandidates(project, Level.GROUP, groups, changes);
    }

    private void moveCandidates(UUID project, Level level, Map<Integer, Integer> newerOf, List<Change> changes) {
        List<Change> puts = new ArrayList<>();
        for (SchemeMapper.CandidateRow c : schemes.candidates(project)) {
            Integer to = newerOf.get(c.target());
            if (!c.level().equals(level.name()) || (to != null && to == c.target())) {
                continue;
            }
            changes.add(new Change.OfCandidate(c.level(), c.target(), c.materialId(), c.position(), null));
            if (to != null) {
                puts.add(new Change.OfCandidate(c.level(), to, c.materialId(), null, c.position()));
            }
        }
        changes.addAll(puts);
    }

    private void moveEntriesOf(UUID scheme, Level level, Map<Integer, Integer> newerOf, List<Change> changes) {
        List<Change> puts = new ArrayList<>();
        for (SchemeMapper.EntryRow e : schemes.entries(scheme)) {
            Integer to = newerOf.get(e.target());
            if (!e.level().equals(level.name()) || (to != null && to == e.target())) {
                continue;
            }
            changes.add(new Change.OfEntry(scheme, e.level(), e.target(), e.side(), e, null));
            if (to != null) {
                puts.add(new Change.OfEntry(scheme, e.level(), to, e.side(), null, e.on(to)));
            }
        }
        changes.addAll(puts);
    }
}
