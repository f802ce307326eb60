package app.zolvan.server.project;

import app.zolvan.core.model.LengthUnit;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.Audit;
import app.zolvan.server.asset.AssetService;
import app.zolvan.server.event.EventService;
import app.zolvan.server.problem.Problem;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Projects and who may see them. */
@Service
public class ProjectService {

    private final ProjectMapper mapper;
    private final AssetService assets;
    private final EventService events;
    private final Audit audit;

    ProjectService(ProjectMapper mapper, AssetService assets, EventService events, Audit audit) {
        this.events = events;
        this.audit = audit;
        this.mapper = mapper;
        this.assets = assets;
    }

    List<ProjectMapper.Card> ofAccount(Account account) {
        return mapper.ofAccount(account.id());
    }

    /** The project, if the account may see it. */
    public Project require(Account account, UUID id) {
        return find(id).filter(p -> p.owner().equals(account.id()) || mapper.isOfTeam(id, account.id()))
                .orElseThrow(() -> Problem.notFound("project"));
    }

    /** The project, if the account has made it. */
    Project requireOwned(Account account, UUID id) {
        Project project = require(account, id);
        if (!project.owner().equals(account.id())) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN, "not-owner", "Only whoever made the project can do that. Ask them to.");
        }
        return project;
    }

    public Optional<Project> find(UUID id) {
        return mapper.find(id)
                .map(r -> new Project(
                        r.id(),
                        r.owner(),
                        r.name(),
                        r.client(),
                        LengthUnit.ofSymbol(r.unit()),
                        r.version(),
                        r.touchedAt(),
                        null));
    }

    public UUID create(UUID id, UUID owner, String name, String client, LengthUnit unit) {
        mapper.insert(id, owner, name, client, unit.symbol());
        return id;
    }

    /** Refuses what was asked for by somebody whose view is too old to tell what it would contradict. */
    public Problem stale(UUID id) {
        return Problem.conflict(
                "stale",
                "This project was changed elsewhere in the meantime. What you see has been brought up to date; do it"
                        + " again if it is still what you want.",
                find(id).map(p -> p.asSeen(Seen.of(p.version() - 1)))
                        .orElse(null)); // what was asked for counts no more
    }

    /** Tells all who work on a project that it has changed. */
    public void announce(UUID id, long version) {
        events.announce(mapper.accounts(id), "project", Map.of("id", id, "version", version));
    }

    /** Counts the project's version up and gives it. Also the lock that puts changes of one project in a row. */
    public long touch(UUID id) {
        return mapper.count(id);
    }

    /** Writes name, client and unit; called inside a command. */
    public void write(UUID id, String name, String client, LengthUnit unit) {
        mapper.update(id, name, client, unit.symbol());
    }

    byte[] thumbnail(Account account, UUID id) {
        return mapper.thumbnail(require(account, id).id())
                .orElseThrow(() -> Problem.notFound("picture"))
                .jpeg();
    }

    /** Keeps a small picture of the stage. */
    void putThumbnail(Account account, UUID id, byte[] jpeg) {
        mapper.putThumbnail(require(account, id).id(), jpeg);
    }

    @Transactional
    public void delete(Account account, UUID id) {
        Project project = requireOwned(account, id);
        mapper.delete(project.id());
        audit.note(account.login(), "project deleted", project.name());
        assets.deleteUnused();
    }
}
