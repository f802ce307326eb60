package app.zolvan.server.account;

import app.zolvan.server.problem.Problem;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** Accounts: made by administrators, but for the first; shut, opened and given new passwords by them. */
@Service
public class AccountService {
    private final AccountMapper mapper;
    private final Passwords passwords;
    private final SetUpWord setUp;
    private final Sessions sessions;
    private final Audit audit;
    private final TransactionTemplate transaction;

    AccountService(
            AccountMapper mapper,
            Passwords passwords,
            SetUpWord setUp,
            Sessions sessions,
            Audit audit,
            TransactionTemplate transaction) {
        this.mapper = mapper;
        this.passwords = passwords;
        this.setUp = setUp;
        this.sessions = sessions;
        this.audit = audit;
        this.transaction = transaction;
    }

    /** True until the first account is made. */
    public boolean isFirstStart() {
        return mapper.count() == 0;
    }

    /** Somebody that work goes on for. */
    public Account require(UUID id) {
        return mapper.find(id).map(AccountMapper.Row::account).orElseThrow(() -> Problem.notFound("account"));
    }

    /** The account of that name, open or shut. */
    public Optional<Account> find(String login) {
        return mapper.findByLogin(named(login)).map(AccountMapper.Row::account);
    }

    /** The account of that name, made with the given password, however common, where there is none. */
    public Account findOrCreate(String login, String displayName, String password) {
        return find(login).orElseGet(() -> {
            String hash = passwords.hash(password);
            return transaction.execute(t -> insert(login, displayName, hash, false));
        });
    }

    /**
     * The account that is made when Zolvan is started for the first time: an administrator's.
     *
     * @param word that was printed at the start
     */
    Account createFirst(String word, String login, String displayName, String password) {
        setUp.require(word);
        requireUsable(login, password);
        String hash = passwords.hash(password);
        Account first = transaction.execute(t -> {
            mapper.lockAdministrators();
            if (!isFirstStart()) {
                throw Problem.of(HttpStatus.FORBIDDEN, "not-first", "There is an account already; sign in with it.");
            }
            Account made = insert(login, displayName, hash, false);
            audit.note(made.login(), "set Zolvan up", "");
            return made;
        });
        setUp.forget();
        return first;
    }

    /** An account that signs in with the given password. */
    public Account create(String login, String displayName, String password) {
        requireUsable(login, password);
        String hash = passwords.hash(password);
        return transaction.execute(t -> insert(login, displayName, hash, false));
    }

    private void requireUsable(String login, String password) {
        if (!named(login).matches("[a-z0-9][a-z0-9._@-]{1,63}")) {
            throw Problem.ofField(
                    "login", "An account name has 2 to 64 letters, digits, dots or dashes, and starts with a letter.");
        }
        passwords.require(named(login), password);
    }

    /** The first of all is the administrator. */
    private Account insert(String login, String displayName, String hash, boolean due) {
        mapper.lockAdministrators();
        UUID id = UUID.randomUUID();
        String name = named(login);
        String shown = displayName.isBlank() ? name : displayName.strip();
        if (mapper.insert(id, name, shown, hash, isFirstStart(), due) == 0) {
            throw Problem.ofField("login", "That account name is taken.");
        }
        return new Account(id, name, shown);
    }

    private static String named(String login) {
        return login.strip().toLowerCase(Locale.ROOT);
    }

    void requireAdministrator(Account account) {
        if (!isAdministrator(account)) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN,
                    "not-allowed",
                    "Accounts are looked after by whoever set Zolvan up. Ask them.");
        }
    }

    boolean isAdministrator(Account account) {
        return mapper.isAdministrator(account.id()).orElse(false);
    }

    /** Everybody who may sign in or might again. */
    List<AccountMapper.Row> all(Account administrator) {
        requireAdministrator(administrator);
        return mapper.all();
    }

    /** Makes an account for somebody else, who chooses a password of their own when they sign in first. */
    Account createFor(Account administrator, String login, String displayName, String password) {
        requireAdministrator(administrator);
        requireUsable(login, password);
        String hash = passwords.hash(password);
        return transaction.execute(t -> {
            Account made = insert(login, displayName, hash, true);
            audit.note(administrator.login(), "account made", made.login());
            return made;
        });
    }

    /** Shuts an account, and with it all its sessions, or opens it again. Its work stays. */
    void setShut(Account administrator, UUID id, boolean shut) {
        requireAdministrator(administrator);
        transaction.executeWithoutResult(t -> {
            mapper.lockAdministrators();
            AccountMapper.Row row = requireRow(id);
            if (shut) {
                requireAnother(row);
            }
            mapper.setDisabled(id, shut);
            audit.note(administrator.login(), shut ? "account shut" : "account opened", row.login());
            if (shut) {
                sessions.endOthers(id, row.login(), null);
            }
        });
    }

    /** Lets somebody look after accounts, too, or no longer. */
    void setAdministrator(Account administrator, UUID id, boolean on) {
        requireAdministrator(administrator);
        transaction.executeWithoutResult(t -> {
            mapper.lockAdministrators();
            AccountMapper.Row row = requireRow(id);
            if (!on) {
                requireAnother(row);
            }
            mapper.setAdministrator(id, on);
            audit.note(administrator.login(), on ? "made administrator" : "administrator no longer", row.login());
        });
    }

    /** Gives an account a password for one time, ends its sessions, and returns the password. */
    String replacePassword(Account administrator, UUID id) {
        requireAdministrator(administrator);
        AccountMapper.Row row = requireRow(id);
        String word = passwords.oneTime();
        String hash = passwords.hash(word);
        transaction.executeWithoutResult(t -> {
            mapper.setPassword(row.id(), hash, true);
            sessions.endOthers(row.id(), row.login(), null);
            audit.note(administrator.login(), "password replaced", row.login());
        });
        return word;
    }

    /**
     * Changes one's own password; one's other sessions end.
     *
     * @param present as {@link SignIns#requirePresent} has let it pass
     */
    void changePassword(Account account, String present, String next, String session) {
        AccountMapper.Row row = requireRow(account.id());
        String hash = passwords.replacement(row.login(), present, next);
        transaction.executeWithoutResult(t -> {
            mapper.setPassword(row.id(), hash, false);
            sessions.endOthers(row.id(), row.login(), session);
            audit.note(row.login(), "password changed", "");
        });
    }

    /** Ends all sessions of an account. */
    void endSessions(Account administrator, UUID id) {
        requireAdministrator(administrator);
        transaction.executeWithoutResult(t -> {
            AccountMapper.Row row = requireRow(id);
            sessions.endOthers(id, row.login(), null);
            audit.note(administrator.login(), "signed out everywhere", row.login());
        });
    }

    private AccountMapper.Row requireRow(UUID id) {
        return mapper.find(id).orElseThrow(() -> Problem.notFound("account"));
    }

    private void requireAnother(AccountMapper.Row row) {
        if (row.administrator() && row.disabledAt() == null && mapper.otherAdministrators(row.id()) == 0) {
            throw Problem.conflict(
                    "last-administrator", "Nobody else looks after accounts. Let somebody else do so first.", null);
        }
    }

    List<AuditMapper.Noted> audit(Account administrator, long before, int count) {
        requireAdministrator(administrator);
        return audit.before(before, count);
    }

    List<AccountMapper.Letter> letters(Account administrator, long before, int count) {
        requireAdministrator(administrator);
        return mapper.letters(before, count);
    }

    void removeLetter(Account administrator, long id) {
        requireAdministrator(administrator);
        mapper.deleteLetter(id);
    }
}
