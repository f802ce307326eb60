package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import app.zolvan.server.model.ModelStore;
import app.zolvan.server.problem.Problem;
import app.zolvan.server.project.Edit;
import app.zolvan.server.project.Project;
import app.zolvan.server.project.ProjectService;
import app.zolvan.server.scheme.SchemeMapper.CommandRow;
import app.zolvan.server.scheme.SchemeMapper.MomentRow;
import java.time.OffsetDateTime;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What has been done to a project, by whom and when; and the way back to any moment of it. */
@Service
class HistoryCommands {
    private static final int PAGE = 100;

    private final CommandService commands;
    private final ProjectService projects;
    private final SchemeMapper mapper;
    private final ModelStore models;

    HistoryCommands(CommandService commands, ProjectService projects, SchemeMapper mapper, ModelStore models) {
        this.commands = commands;
        this.projects = projects;
        this.mapper = mapper;
        this.models = models;
    }

    /**
     * A command that was done.
     *
     * @param by     who did it
     * @param undone whether it was taken back; it can be done again
     * @param name   of the moment after it, where somebody gave it one
     */
    record MomentWire(
            long id,
            String label,
            String by,
            boolean own,
            OffsetDateTime at,
            boolean undone,
            @Nullable String name) {}

    /** @param before only what was done before this command; null for the newest */
    List<MomentWire> list(Account account, UUID projectId, @Nullable Long before) {
        projects.require(account, projectId);
        return mapper.moments(projectId, before == null ? Long.MAX_VALUE : before, PAGE).stream()
                .map(m -> wire(account, m))
                .toList();
    }

    private static MomentWire wire(Account account, MomentRow m) {
        return new MomentWire(
                m.id(), m.label(), m.displayName(), m.accountId().equals(account.id()), m.at(), m.undone(), m.name());
    }

    /** Gives the moment after a command a name, or takes it away where that is empty. */
    @Transactional
    void name(Account account, UUID projectId, long id, String name) {
        projects.require(account, projectId);
        if (mapper.nameMoment(projectId, id, name.isBlank() ? null : name.strip()) == 0) {
            throw Problem.notFound("moment");
        }
    }

    /**
     * Puts everything back as it was after a command, whoever has done what since: a command of its own, which is taken back
     * as a whole. Where something was done over by others in another order, asks first, unless forced.
     */
    @Transactional
    ProjectState backTo(Edit edit, long id, boolean force) {
        Project project = commands.begin(edit);
        MomentRow moment = mapper.moment(edit.project(), id).orElseThrow(() -> Problem.notFound("moment"));
        List<CommandRow> since = mapper.doneSince(edit.project(), id);
        if (since.isEmpty()) {
            throw Problem.conflict("nothing", "That is how it is now.", null);
        }
        String before = models.keep(edit.project());
        List<Change> all = new ArrayList<>();
        for (CommandRow c : since) {
            all.addAll(commands.takeBack(edit, project, c, force));
        }
        String name = moment.name() == null ? moment.label() : moment.name();
        return commands.record(
                edit, project, "Back to: " + name, Changes.composed(all, before, () -> models.keep(edit.project())));
    }
}
