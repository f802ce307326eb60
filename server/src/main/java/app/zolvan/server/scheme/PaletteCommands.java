package app.zolvan.server.scheme;

import app.zolvan.server.library.MaterialRow;
import app.zolvan.server.library.MaterialService;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Set;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** A project's palette as a list: what of it nothing uses, and taking that out. */
@Service
class PaletteCommands {
    private final CommandService commands;
    private final MaterialService materials;
    private final SchemeMapper schemes;

    PaletteCommands(CommandService commands, MaterialService materials, SchemeMapper schemes) {
        this.commands = commands;
        this.materials = materials;
        this.schemes = schemes;
    }

    /** Materials of a project that some scheme gives to something, that are candidates, or that others follow. */
    Set<UUID> used(UUID project) {
        Set<UUID> out = new HashSet<>();
        for (SchemeMapper.SchemeRow s : schemes.schemes(project)) {
            schemes.entries(s.id()).forEach(e -> out.add(e.materialId()));
        }
        schemes.candidates(project).forEach(c -> out.add(c.materialId()));
        for (MaterialRow m : materials.ofProject(project)) {
            out.add(m.parent());
            out.add(m.colourOf());
        }
        return out;
    }

    /** Takes a material out of the palette; where something uses it, says what. */
    @Transactional
    ProjectState remove(Edit edit, UUID material) {
        Project project = commands.begin(edit);
        MaterialRow row = materials.ofProject(edit.project()).stream()
                .filter(m -> m.id().equals(material) && !m.arrived())
                .findFirst()
                .orElseThrow(() -> Problem.notFound("material"));
        List<String> users = users(edit.project(), row);
        if (!users.isEmpty()) {
            throw Problem.conflict(
                    "in-use",
                    "“" + row.name() + "” is " + String.join(", ", users) + ". Put something else there first.",
                    null);
        }
        return commands.commit(
                edit,
                project,
                "Take " + row.name() + " out of the palette",
                List.of(new Change.OfMaterial(row.id(), row, null)));
    }

    /** What uses a material, in words that follow "is". */
    private List<String> users(UUID project, MaterialRow row) {
        List<String> out = new ArrayList<>();
        for (SchemeMapper.SchemeRow s : schemes.schemes(project)) {
            if (schemes.entries(s.id()).stream().anyMatch(e -> row.id().equals(e.materialId()))) {
                out.add("used in scheme " + s.letter());
            }
        }
        if (schemes.candidates(project).stream().anyMatch(c -> row.id().equals(c.materialId()))) {
            out.add("kept as a candidate");
        }
        for (MaterialRow m : materials.ofProject(project)) {
            if (row.id().equals(m.parent()) || row.id().equals(m.colourOf())) {
                out.add("what “" + m.name() + "” follows");
            }
        }
        return out;
    }
}
