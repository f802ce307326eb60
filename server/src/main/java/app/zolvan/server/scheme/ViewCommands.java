package app.zolvan.server.scheme;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.server.account.Account;
import app.zolvan.server.model.StandingService;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.project.Seen;
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
    ProjectState keep(
            Account account, UUID projectId, Seen seen, UUID id, String name, ViewCamera c, List<Integer> into) {
        c.require();
        String wanted = GivenName.require(name);
        Project project = commands.begin(account, projectId, seen);
        List<ViewRow> all = views.views(projectId);
        if (all.size() >= MOST) {
            throw Problem.conflict("too-much", "A project keeps up to " + MOST + " views. Take some away first.", null);
        }
        if (views.exists(projectId, id)) {
            throw Problem.conflict("nothing", "That view is kept already.", null);
        }
        int position = 1 + all.stream().mapToInt(ViewRow::position).max().orElse(0);
        ViewRow row = new ViewRow(
                id,
                projectId,
                wanted,
                c.eyes(),
                c.aim(),
                c.degrees(),
                parts(projectId, into),
                enclosed(projectId, c),
                position);
        return commands.commit(account, project, "Keep view " + wanted, List.of(new Change.OfView(id, null, row)));
    }

    /** Has a view be from somewhere else. */
    @Transactional
    ProjectState take(Account account, UUID projectId, Seen seen, UUID id, ViewCamera c) {
        c.require();
        Project project = commands.begin(account, projectId, seen);
        ViewRow old = require(projectId, id);
        ViewRow row = new ViewRow(
                id,
                projectId,
                old.name(),
                c.eyes(),
                c.aim(),
                c.degrees(),
                old.lookedInto(),
                enclosed(projectId, c),
                old.position());
        return change(account, project, "Take view " + old.name() + " anew", old, row);
    }

    @Transactional
    ProjectState rename(Account account, UUID projectId, Seen seen, UUID id, String name) {
        Project project = commands.begin(account, projectId, seen);
        ViewRow old = require(projectId, id);
        return change(account, project, "Rename view " + old.name(), old, old.named(GivenName.require(name)));
    }

    /** Says through which parts one sees in a view from outside, besides those that one always does. */
    @Transactional
    ProjectState lookInto(Account account, UUID projectId, Seen seen, UUID id, List<Integer> parts) {
        Project project = commands.begin(account, projectId, seen);
        ViewRow old = require(projectId, id);
        String what = parts.isEmpty() ? "See through nothing in view " : "Look inside in view ";
        return change(account, project, what + old.name(), old, old.lookingInto(parts(projectId, parts)));
    }

    @Transactional
    ProjectState drop(Account account, UUID projectId, Seen seen, UUID id) {
        Project project = commands.begin(account, projectId, seen);
        ViewRow old = require(projectId, id);
        return commands.commit(
                account, project, "Take view " + old.name() + " away", List.of(new Change.OfView(id, old, null)));
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

    private ProjectState change(Account account, Project project, String label, ViewRow from, ViewRow to) {
        if (to.equals(from)) {
            throw Problem.conflict("nothing", "“" + from.name() + "” is like that already; nothing was changed.", null);
        }
        return commands.commit(account, project, label, List.of(new Change.OfView(from.id(), from, to)));
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
