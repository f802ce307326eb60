package app.zolvan.server.scheme;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.StandingService;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.view.ViewCamera;
import app.zolvan.server.view.ViewMapper;
import app.zolvan.server.view.ViewRow;
import java.util.List;
import java.util.UUID;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Named views of a project's model, the same for all its schemes. */
@Service
class ViewCommands {
    private static final int MOST = 200;

    private final CommandService commands;
    private final ProjectService projects;
    private final SceneSource scenes;
    private final StandingService standing;
    private final ViewMapper views;

    ViewCommands(
            CommandService commands,
            ProjectService projects,
            SceneSource scenes,
            StandingService standing,
            ViewMapper views) {
        this.commands = commands;
        this.projects = projects;
        this.scenes = scenes;
        this.standing = standing;
        this.views = views;
    }

    @Transactional
    ProjectState keep(Edit edit, UUID id, String name, ViewCamera c, List<Integer> into) {
        c.require();
        String wanted = GivenName.require(name);
        Project project = commands.begin(edit);
        List<ViewRow> all = views.views(edit.project());
        if (all.size() >= MOST) {
            throw Problem.conflict("too-much", "A project keeps up to " + MOST + " views. Take some away first.", null);
        }
        if (views.exists(edit.project(), id)) {
            throw Problem.conflict("nothing", "That view is kept already.", null);
        }
        int position = 1 + all.stream().mapToInt(ViewRow::position).max().orElse(0);
        ViewRow row = new ViewRow(
                id,
                edit.project(),
                wanted,
                c.eyes(),
                c.aim(),
                c.degrees(),
                parts(edit.project(), into),
                enclosed(edit.project(), c),
                position);
        return commands.commit(edit, project, "Keep view " + wanted, List.of(new Change.OfView(id, null, row)));
    }

    /** Has a view be from somewhere else. */
    @Transactional
    ProjectState take(Edit edit, UUID id, ViewCamera c) {
        c.require();
        Project project = commands.begin(edit);
        ViewRow old = require(edit.project(), id);
        ViewRow row = new ViewRow(
                id,
                edit.project(),
                old.name(),
                c.eyes(),
                c.aim(),
                c.degrees(),
                old.lookedInto(),
                enclosed(edit.project(), c),
                old.position());
        return change(edit, project, "Take view " + old.name() + " anew", old, row);
    }

    @Transactional
    ProjectState rename(Edit edit, UUID id, String name) {
        Project project = commands.begin(edit);
        ViewRow old = require(edit.project(), id);
        return change(edit, project, "Rename view " + old.name(), old, old.named(GivenName.require(name)));
    }

    /** Says through which parts one sees in a view from outside, besides those that one always does. */
    @Transactional
    ProjectState lookInto(Edit edit, UUID id, List<Integer> parts) {
        Project project = commands.begin(edit);
        ViewRow old = require(edit.project(), id);
        String what = parts.isEmpty() ? "See through nothing in view " : "Look inside in view ";
        return change(edit, project, what + old.name(), old, old.lookingInto(parts(edit.project(), parts)));
    }

    @Transactional
    ProjectState drop(Edit edit, UUID id) {
        Project project = commands.begin(edit);
        ViewRow old = require(edit.project(), id);
        return commands.commit(
                edit, project, "Take view " + old.name() + " away", List.of(new Change.OfView(id, old, null)));
    }

    byte[] picture(Account account, UUID projectId, UUID id) {
        projects.require(account, projectId);
        return views.picture(projectId, id)
                .orElseThrow(() -> Problem.notFound("picture"))
                .jpeg();
    }

    /** Keeps a small JPEG of what a view shows. */
    void putPicture(Account account, UUID projectId, UUID id, byte[] jpeg) {
        projects.require(account, projectId);
        require(projectId, id);
        views.putPicture(projectId, id, jpeg);
    }

    private ProjectState change(Edit edit, Project project, String label, ViewRow from, ViewRow to) {
        if (to.equals(from)) {
            throw Problem.conflict("nothing", "“" + from.name() + "” is like that already; nothing was changed.", null);
        }
        return commands.commit(edit, project, label, List.of(new Change.OfView(from.id(), from, to)));
    }

    private ViewRow require(UUID projectId, UUID id) {
        return views.view(projectId, id).orElseThrow(() -> Problem.notFound("view"));
    }

    private int[] parts(UUID projectId, List<Integer> parts) {
        parts.forEach(p -> scenes.scene(projectId).requireRegion(p, 0));
        return parts.stream().mapToInt(Integer::intValue).distinct().sorted().toArray();
    }

    private boolean enclosed(UUID projectId, ViewCamera c) {
        double[] e = c.eyes();
        return standing.isEnclosed(projectId, new Vec3(e[0], e[1], e[2]));
    }
}
