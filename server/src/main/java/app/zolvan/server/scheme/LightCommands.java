package app.zolvan.server.scheme;

import app.zolvan.core.light.LightSetup;
import app.zolvan.server.light.LightRow;
import app.zolvan.server.light.LightService;
import app.zolvan.server.light.SurroundingsService;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes of a project's light set-ups, which are the same for all its schemes and for everybody on its team. */
@Service
class LightCommands {
    private static final int MOST = 50;

    private final CommandService commands;
    private final LightService lights;
    private final SurroundingsService surroundings;

    LightCommands(CommandService commands, LightService lights, SurroundingsService surroundings) {
        this.commands = commands;
        this.lights = lights;
        this.surroundings = surroundings;
    }

    /** Lights the model otherwise in one of its set-ups. */
    @Transactional
    ProjectState set(Edit edit, UUID id, LightSetup to) {
        to.fault().ifPresent(sentence -> {
            throw Problem.ofField("light", sentence);
        });
        surroundings.picture(to.surroundings());
        Project project = commands.begin(edit);
        LightRow before = lights.require(edit.project(), id);
        return change(edit, project, what(before.setup(), to) + " of " + before.name(), before, before.with(to));
    }

    private static String what(LightSetup from, LightSetup to) {
        if (!from.surroundings().equals(to.surroundings())) {
            return "Surroundings";
        }
        if (from.turn() != to.turn()) {
            return "Turn";
        }
        return from.stops() != to.stops() ? "Exposure" : "Strength";
    }

    @Transactional
    ProjectState rename(Edit edit, UUID id, String name) {
        Project project = commands.begin(edit);
        LightRow before = lights.require(edit.project(), id);
        return change(
                edit, project, "Rename light " + before.name(), before, before.named(unused(edit.project(), id, name)));
    }

    /**
     * Makes another set-up that begins as one is.
     *
     * @param id   made by whoever asks
     * @param like an existing one
     */
    @Transactional
    ProjectState copy(Edit edit, UUID id, UUID like, String name) {
        Project project = commands.begin(edit);
        List<LightRow> all = lights.setups(edit.project());
        if (all.size() >= MOST) {
            throw Problem.conflict(
                    "too-much", "A project keeps up to " + MOST + " light set-ups. Remove some first.", null);
        }
        if (all.stream().anyMatch(l -> l.id().equals(id))) {
            throw Problem.conflict("nothing", "That light set-up is there already.", null);
        }
        LightRow of = lights.require(edit.project(), like);
        int position = 1 + all.stream().mapToInt(LightRow::position).max().orElse(0);
        LightRow row = LightRow.of(edit.project(), id, unused(edit.project(), id, name), of.setup(), position);
        return commands.commit(edit, project, "New light " + row.name(), List.of(new Change.OfLight(id, null, row)));
    }

    @Transactional
    ProjectState remove(Edit edit, UUID id) {
        Project project = commands.begin(edit);
        LightRow before = lights.require(edit.project(), id);
        if (lights.setups(edit.project()).size() == 1) {
            throw Problem.conflict("last", "A project is always lit: this is its last light set-up.", null);
        }
        return commands.commit(
                edit, project, "Remove light " + before.name(), List.of(new Change.OfLight(id, before, null)));
    }

    private String unused(UUID project, UUID id, String name) {
        String wanted = GivenName.require(name);
        if (lights.setups(project).stream()
                .anyMatch(l -> !l.id().equals(id) && l.name().equals(wanted))) {
            throw Problem.ofField("name", "There is a light set-up of that name already. Choose another name.");
        }
        return wanted;
    }

    private ProjectState change(Edit edit, Project project, String label, LightRow from, LightRow to) {
        if (to.equals(from)) {
            throw Problem.conflict("nothing", "“" + from.name() + "” is like that already; nothing was changed.", null);
        }
        return commands.commit(edit, project, label, List.of(new Change.OfLight(from.id(), from, to)));
    }
}
