package app.zolvan.server.scheme;

import app.zolvan.core.assign.Level;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.model.CleanUp;
import app.zolvan.server.model.Leftovers;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Removes what nothing of a project uses, in one command with a way back. */
@Service
public class CleanUpCommands {
    private final CommandService commands;
    private final ProjectService projects;
    private final PaletteCommands palette;
    private final MaterialService materials;
    private final ModelStore models;
    private final CleanUp cleanUp;
    private final EntryMoves moves;

    CleanUpCommands(
            CommandService commands,
            ProjectService projects,
            MaterialService materials,
            ModelStore models,
            CleanUp cleanUp,
            EntryMoves moves,
            PaletteCommands palette) {
        this.commands = commands;
        this.projects = projects;
        this.palette = palette;
        this.materials = materials;
        this.models = models;
        this.cleanUp = cleanUp;
        this.moves = moves;
    }

    public Leftovers leftovers(Account account, UUID projectId) {
        projects.require(account, projectId);
        return cleanUp.leftovers(projectId, palette.used(projectId));
    }

    /** Which kinds of leftovers are to go. */
    public record Going(boolean materials, boolean images, boolean groups, boolean palette) {}

    @Transactional
    public ProjectState remove(Edit edit, Going what) {
        Project project = commands.begin(edit);
        Leftovers all = leftovers(edit.account(), edit.project());
        Leftovers going = new Leftovers(
                what.materials() ? all.materials() : List.of(),
                what.images() ? all.images() : List.of(),
                what.groups() ? all.groups() : List.of(),
                what.palette() ? all.palette() : List.of());
        int count = going.materials().size()
                + going.images().size()
                + going.groups().size()
                + going.palette().size();
        if (count == 0) {
            throw Problem.conflict("nothing", "There is nothing to clean up.", null);
        }
        List<Change> changes = new ArrayList<>();
        if (!going.materials().isEmpty() || !going.groups().isEmpty()) {
            String before = models.keep(edit.project());
            CleanUp.Cleaned cleaned = cleanUp.without(edit.project(), going);
            changes.add(new Change.OfModel(before, cleaned.kept()));
            moves.move(edit.project(), Level.GROUP, cleaned.groups()::get, changes);
        }
        going.materials().forEach(m -> changes.add(new Change.OfMaterial(m.id(), materials.find(m.id()), null)));
        going.palette().forEach(m -> changes.add(new Change.OfMaterial(m.id(), materials.find(m.id()), null)));
        going.images().forEach(i -> changes.add(new Change.OfImage(i.sha256(), true, false)));
        return commands.commit(edit, project, "Clean up " + count + (count == 1 ? " leftover" : " leftovers"), changes);
    }
}
