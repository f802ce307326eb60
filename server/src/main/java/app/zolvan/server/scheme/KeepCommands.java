package app.zolvan.server.scheme;

import app.zolvan.core.material.Facts;
import app.zolvan.server.account.Account;
import app.zolvan.server.library.ItemService;
import app.zolvan.server.library.KitService;
import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What comes into a project from libraries besides what is put on parts: kits, a material as it is kept, substances. */
@Service
class KeepCommands {
    private final CommandService commands;
    private final MaterialService materials;
    private final ItemService items;
    private final KitService kits;

    KeepCommands(CommandService commands, MaterialService materials, ItemService items, KitService kits) {
        this.commands = commands;
        this.materials = materials;
        this.items = items;
        this.kits = kits;
    }

    /** Lays a kit's materials into the palette; those that are there already stay. */
    @Transactional
    ProjectState lay(Edit edit, UUID kit) {
        Project project = commands.begin(edit);
        String name = kits.name(edit.account(), kit);
        List<Change> changes = new ArrayList<>();
        kits.materials(edit.account(), edit.project(), kit)
                .forEach(m -> commands.usableCopy(edit.account(), project, m, null, changes));
        if (changes.isEmpty()) {
            throw Problem.conflict("nothing", "All of “" + name + "” is in the palette already.", null);
        }
        return commands.commit(edit, project, "Lay out “" + name + "”", changes);
    }

    /** Makes a project's material what it is in the library that it was kept in or came from. */
    @Transactional
    ProjectState takeKept(Edit edit, UUID material) {
        Project project = commands.begin(edit);
        MaterialRow row = requireOwn(edit.account(), edit.project(), material);
        ItemService.Standing standing = items.standing(edit.account(), row);
        if (standing == null) {
            throw Problem.conflict("nothing", "No library has it any more.", null);
        }
        MaterialRow after = row.with(standing.item().toMaterial())
                .with(standing.item().name(), standing.item().toSurface())
                .made(standing.item().known());
        return change(
                edit, project, row.name() + " as in “" + standing.library().name() + "”", row, after);
    }

    private ProjectState change(Edit edit, Project project, String label, MaterialRow before, MaterialRow after) {
        return commands.commit(edit, project, label, List.of(new Change.OfMaterial(before.id(), before, after)));
    }

    private MaterialRow requireOwn(Account account, UUID projectId, UUID material) {
        MaterialRow row = materials.requireUsable(account, projectId, material);
        if (row.projectId() == null) {
            throw Problem.ofField("material", "Put it on a part first; a library’s is changed in its library.");
        }
        return row;
    }

    /** Changes what is known of one of the project's materials. */
    @Transactional
    ProjectState tell(Edit edit, UUID material, Facts facts) {
        Project project = commands.begin(edit);
        MaterialRow row = requireOwn(edit.account(), edit.project(), material);
        facts.check();
        boolean redrawn = !Objects.equals(facts.drawing(), row.known().drawing());
        String did = redrawn ? "How " + row.name() + " is drawn in diagrams" : "What " + row.name() + " is made of";
        return change(edit, project, did, row, row.made(facts));
    }

    /**
     * Has one of the project's materials made of what another one is made of.
     *
     * @param of       that the project may use; null to take the substance away
     * @param withLook whether it gets the other's look, too
     */
    @Transactional
    ProjectState setSubstance(Edit edit, UUID material, @Nullable UUID of, boolean withLook) {
        Project project = commands.begin(edit);
        MaterialRow row = requireOwn(edit.account(), edit.project(), material);
        if (of == null) {
            return change(
                    edit,
                    project,
                    row.name() + " of nothing known",
                    row,
                    row.made(row.known().withoutSubstance()));
        }
        MaterialRow other = materials.requireUsable(edit.account(), edit.project(), of);
        if (!other.known().hasSubstance()) {
            throw Problem.ofField("of", "Nothing is known of what " + other.name() + " is made of.");
        }
        MaterialRow after = row.made(row.known().madeOf(nameOf(other), other.known()));
        if (withLook) {
            after = after.with(other.toMaterial());
        }
        return change(edit, project, row.name() + " of " + nameOf(other), row, after);
    }

    /** What a material is made of, in words. */
    static String nameOf(MaterialRow m) {
        String substance = m.known().substance();
        return substance == null ? m.name() : substance;
    }
}
