package app.zolvan.server.library;

import app.zolvan.core.keep.Drawers;
import app.zolvan.core.keep.Drawers.Drawer;
import app.zolvan.core.keep.LibraryRole;
import app.zolvan.server.account.Account;
import app.zolvan.server.account.AccountService;
import app.zolvan.server.event.EventService;
import app.zolvan.server.library.LibraryMapper.DrawerRow;
import app.zolvan.server.library.LibraryMapper.LibraryRow;
import app.zolvan.server.library.LibraryMapper.MemberRow;
import app.zolvan.server.problem.GivenName;
import app.zolvan.server.problem.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Libraries of a designer's own and of teams: who may do what there, and their drawers. */
@Service
public class LibraryService {
    private static final int MOST_LIBRARIES = 50;
    private static final int MOST_MEMBERS = 500;
    private static final int MOST_DRAWERS = 500;

    private final LibraryMapper mapper;
    private final AccountService accounts;
    private final EventService events;

    LibraryService(LibraryMapper mapper, AccountService accounts, EventService events) {
        this.mapper = mapper;
        this.accounts = accounts;
        this.events = events;
    }

    /** Those that an account is a member of; its own first, which is made where it isn't there yet. */
    @Transactional
    List<LibraryRow> of(UUID account) {
        List<LibraryRow> all = mapper.of(account);
        if (all.stream().noneMatch(l -> l.owner() != null)) {
            UUID id = UUID.randomUUID();
            if (mapper.create(id, account, "My library") > 0) {
                mapper.putMember(id, account, LibraryRole.APPROVE);
            }
            return mapper.of(account);
        }
        return all;
    }

    /** A library that the account is a member of. */
    LibraryRow require(Account account, UUID library) {
        return mapper.find(account.id(), library).orElseThrow(() -> Problem.notFound("library"));
    }

    boolean isMember(Account account, UUID library) {
        return mapper.find(account.id(), library).isPresent();
    }

    /** The same, for a change of what it holds. */
    LibraryRow requireEdit(Account account, UUID library) {
        LibraryRow row = require(account, library);
        if (!row.role().mayEdit()) {
            throw forbidden(
                    "You may use what is in “" + row.name() + "”, but not change it. Ask whoever approves there.");
        }
        mapper.touch(library);
        return row;
    }

    /** The same, for a change of who may do what, or of the library itself. */
    LibraryRow requireApprove(Account account, UUID library) {
        LibraryRow row = require(account, library);
        if (!row.role().mayApprove()) {
            throw forbidden("Only those who approve in “" + row.name() + "” may do this.");
        }
        mapper.touch(library);
        return row;
    }

    private static Problem forbidden(String sentence) {
        return Problem.of(HttpStatus.FORBIDDEN, "not-allowed", sentence);
    }

    /** Tells the members' browsers that a library has changed, once the transaction commits. */
    void announce(UUID library) {
        mapper.members(library).forEach(m -> tell(m.accountId(), library));
    }

    private void tell(UUID account, UUID library) {
        events.announce(account, "library", Map.of("library", library));
    }

    /** A team's library, with whoever makes it as the one who approves. */
    @Transactional
    public UUID create(Account account, String name) {
        if (of(account.id()).size() >= MOST_LIBRARIES) {
            throw Problem.conflict("too-many", "You are in 50 libraries already. Leave one you don’t need.", null);
        }
        UUID id = UUID.randomUUID();
        mapper.create(id, null, GivenName.require(name));
        mapper.putMember(id, account.id(), LibraryRole.APPROVE);
        tell(account.id(), id);
        return id;
    }

    @Transactional
    void rename(Account account, UUID library, String name) {
        requireApprove(account, library);
        mapper.rename(library, GivenName.require(name));
        announce(library);
    }

    /** Takes a team's library away with all it holds; projects keep what they have of it. */
    @Transactional
    void delete(Account account, UUID library) {
        LibraryRow row = requireApprove(account, library);
        if (row.owner() != null) {
            throw Problem.conflict("own", "Your own library stays. Take out of it what you don’t need.", null);
        }
        announce(library);
        mapper.delete(library);
    }

    List<MemberRow> members(Account account, UUID library) {
        require(account, library);
        return mapper.members(library);
    }

    /** Takes somebody into a team's library, or gives a member another role. */
    @Transactional
    public void putMember(Account account, UUID library, String login, LibraryRole role) {
        LibraryRow row = requireApprove(account, library);
        if (row.owner() != null) {
            throw Problem.conflict(
                    "own",
                    "Your own library is yours alone. Make a library for the team, and keep there what it shares.",
                    null);
        }
        UUID other = accounts.find(login)
                .orElseThrow(() -> Problem.ofField("login", "Nobody here signs in as “" + login.strip() + "”."))
                .id();
        List<MemberRow> members = mapper.members(library);
        if (members.size() >= MOST_MEMBERS) {
            throw Problem.conflict("too-many", "A library has at most 500 members.", null);
        }
        if (!role.mayApprove()) {
            requireAnotherApprover(members, other);
        }
        mapper.putMember(library, other, role);
        announce(library);
    }

    /** Takes somebody out of a team's library; anybody may take themselves out. */
    @Transactional
    void removeMember(Account account, UUID library, UUID member) {
        LibraryRow row = account.id().equals(member) ? require(account, library) : requireApprove(account, library);
        if (row.owner() != null) {
            throw Problem.conflict("own", "Your own library stays yours.", null);
        }
        mapper.touch(library);
        requireAnotherApprover(mapper.members(library), member);
        if (mapper.deleteMember(library, member) == 0) {
            throw Problem.notFound("member");
        }
        tell(member, library);
        announce(library);
    }

    private static void requireAnotherApprover(List<MemberRow> members, UUID but) {
        boolean there = members.stream()
                .anyMatch(m -> m.role().mayApprove() && !m.accountId().equals(but));
        if (!there) {
            throw Problem.conflict(
                    "last",
                    "Somebody has to approve here. Let somebody else approve first, or delete the library.",
                    null);
        }
    }

    // --- drawers

    Drawers<UUID> drawers(UUID library) {
        return new Drawers<>(mapper.drawers(library).stream()
                .map(d -> new Drawer<>(d.id(), d.parent(), d.name()))
                .toList());
    }

    /** @throws Problem where the library has no such drawer; none at all is one of them */
    void requireDrawer(UUID library, @Nullable UUID drawer) {
        if (drawer != null && drawers(library).all().stream().noneMatch(d -> d.id().equals(drawer))) {
            throw Problem.notFound("drawer");
        }
    }

    /** @param parent the drawer that holds it; null for none */
    @Transactional
    UUID addDrawer(Account account, UUID library, String name, @Nullable UUID parent) {
        requireEdit(account, library);
        Drawers<UUID> now = drawers(library);
        if (now.all().size() >= MOST_DRAWERS) {
            throw Problem.conflict("too-many", "A library has at most 500 drawers.", null);
        }
        requireDrawer(library, parent);
        if (parent != null && now.depth(parent) + 1 >= Drawers.DEEPEST) {
            throw Problem.ofField("parent", "Drawers lie at most " + Drawers.DEEPEST + " deep in one another.");
        }
        UUID id = UUID.randomUUID();
        List<Drawer<UUID>> all = new ArrayList<>(now.all());
        all.add(new Drawer<>(id, parent, nameThere(now, null, parent, name)));
        write(library, new Drawers<>(all));
        return id;
    }

    private static String nameThere(Drawers<UUID> now, @Nullable UUID id, @Nullable UUID parent, String name) {
        String given = GivenName.require(name);
        boolean taken = now.all().stream()
                .anyMatch(d -> !d.id().equals(id)
                        && Objects.equals(d.parent(), parent)
                        && d.name().equalsIgnoreCase(given));
        if (taken) {
            throw Problem.ofField("name", "There is a drawer “" + given + "” here already.");
        }
        return given;
    }

    @Transactional
    void renameDrawer(Account account, UUID library, UUID drawer, String name) {
        requireEdit(account, library);
        requireDrawer(library, drawer);
        Drawers<UUID> now = drawers(library);
        write(
                library,
                new Drawers<>(now.all().stream()
                        .map(d -> d.id().equals(drawer)
                                ? new Drawer<>(d.id(), d.parent(), nameThere(now, drawer, d.parent(), name))
                                : d)
                        .toList()));
    }

    /**
     * Puts a drawer elsewhere.
     *
     * @param into the drawer that holds it from then on; null for none
     * @param at   its place there, from 0
     */
    @Transactional
    void moveDrawer(Account account, UUID library, UUID drawer, @Nullable UUID into, int at) {
        requireEdit(account, library);
        requireDrawer(library, drawer);
        requireDrawer(library, into);
        Drawers<UUID> now = drawers(library);
        String hindrance = now.hindrance(drawer, into);
        if (!hindrance.isEmpty()) {
            throw Problem.ofField("into", hindrance);
        }
        now.all().stream()
                .filter(d -> d.id().equals(drawer))
                .findFirst()
                .ifPresent(d -> nameThere(now, drawer, into, d.name()));
        write(library, now.moved(drawer, into, at));
    }

    /** Takes a drawer away; what lay in it, drawers too, lies in the one that held it. */
    @Transactional
    void deleteDrawer(Account account, UUID library, UUID drawer) {
        requireEdit(account, library);
        requireDrawer(library, drawer);
        List<Drawer<UUID>> all = drawers(library).all();
        UUID holder = all.stream()
                .filter(d -> d.id().equals(drawer))
                .findFirst()
                .map(Drawer::parent)
                .orElse(null);
        mapper.emptyDrawer(drawer, holder);
        write(
                library,
                new Drawers<>(all.stream()
                        .filter(d -> !d.id().equals(drawer))
                        .map(d -> drawer.equals(d.parent()) ? new Drawer<>(d.id(), holder, d.name()) : d)
                        .toList()));
        mapper.deleteDrawer(drawer);
    }

    private void write(UUID library, Drawers<UUID> drawers) {
        int position = 0;
        for (Drawer<UUID> d : drawers.all()) {
            mapper.putDrawer(new DrawerRow(d.id(), library, d.parent(), d.name(), position++));
        }
        announce(library);
    }
}
