package app.zolvan.server.scheme;

import app.zolvan.server.model.Scene;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.scheme.AssignCommands.Spot;
import app.zolvan.server.scheme.NoteMapper.NoteRow;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Decisions that are left open, noted where they belong, the same for all schemes. */
@Service
class NoteCommands {
    private static final int MOST = 500;
    private static final int LONGEST = 1000;

    private final CommandService commands;
    private final SceneSource scenes;
    private final NoteMapper notes;

    NoteCommands(CommandService commands, SceneSource scenes, NoteMapper notes) {
        this.commands = commands;
        this.scenes = scenes;
        this.notes = notes;
    }

    /** @param id made by whoever asks, so that asking twice writes it once */
    @Transactional
    ProjectState write(Edit edit, UUID id, Spot about, String text) {
        Project project = commands.begin(edit);
        Scene scene = scenes.scene(edit.project());
        scene.requireTarget(about.level(), about.target());
        if (notes.notes(edit.project()).size() >= MOST) {
            throw Problem.conflict("too-much", "A project keeps up to " + MOST + " notes. Take some away first.", null);
        }
        if (notes.exists(edit.project(), id)) {
            throw Problem.conflict("nothing", "That note is written already.", null);
        }
        NoteRow row = new NoteRow(
                id,
                edit.project(),
                about.level().name(),
                about.target(),
                said(text),
                false,
                edit.account().displayName(),
                Instant.now().truncatedTo(ChronoUnit.MILLIS));
        return commands.commit(
                edit,
                project,
                "Leave open about " + scene.told(about.level(), about.target()) + ": " + row.brief(),
                List.of(new Change.OfNote(id, null, row)));
    }

    @Transactional
    ProjectState rewrite(Edit edit, UUID id, String text) {
        Project project = commands.begin(edit);
        NoteRow row = require(edit.project(), id);
        return change(edit, project, "Say instead: ", row, row.saying(said(text)));
    }

    @Transactional
    ProjectState settle(Edit edit, UUID id, boolean settled) {
        Project project = commands.begin(edit);
        NoteRow row = require(edit.project(), id);
        return change(edit, project, settled ? "Settle: " : "Open again: ", row, row.settled(settled));
    }

    @Transactional
    ProjectState drop(Edit edit, UUID id) {
        Project project = commands.begin(edit);
        NoteRow row = require(edit.project(), id);
        return commands.commit(
                edit, project, "Take the note away: " + row.brief(), List.of(new Change.OfNote(id, row, null)));
    }

    private ProjectState change(Edit edit, Project project, String label, NoteRow from, NoteRow to) {
        if (to.equals(from)) {
            throw Problem.conflict("nothing", "The note says that already; nothing was changed.", null);
        }
        return commands.commit(edit, project, label + to.brief(), List.of(new Change.OfNote(from.id(), from, to)));
    }

    private NoteRow require(UUID projectId, UUID id) {
        return notes.note(projectId, id).orElseThrow(() -> Problem.notFound("note"));
    }

    private static String said(String text) {
        String stripped = text.strip();
        if (stripped.isEmpty() || stripped.length() > LONGEST) {
            throw Problem.ofField("text", "A note has 1 to 1,000 characters.");
        }
        return stripped;
    }
}
