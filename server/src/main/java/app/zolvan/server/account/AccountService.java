package app.zolvan.server.account;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.DelegatingPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Accounts and signing in, with a pause after repeated wrong passwords. */
@Service
public class AccountService {
    private static final int SHORTEST_PASSWORD = 10;
    private static final String BCRYPT = "bcrypt";

    private final AccountMapper mapper;
    private final ZolvanProperties properties;
    private final Clock clock;
    private final PasswordEncoder passwords;
    /** Checked when there is no such account, so that the answer takes as long as for a wrong password. */
    private final String decoy;

    AccountService(AccountMapper mapper, ZolvanProperties properties, Clock clock) {
        this.mapper = mapper;
        this.properties = properties;
        this.clock = clock;
        passwords = new DelegatingPasswordEncoder(
                BCRYPT,
                Map.of(BCRYPT, new BCryptPasswordEncoder(properties.signIn().strength())));
        decoy = passwords.encode(UUID.randomUUID().toString());
    }

    /** True until the first account is made. */
    public boolean isFirstStart() {
        return mapper.count() == 0;
    }

    /** Somebody that work goes on for. */
    public Account require(UUID id) {
        return mapper.find(id)
                .map(r -> new Account(r.id(), r.login(), r.displayName()))
                .orElseThrow(() -> Problem.notFound("account"));
    }

    /** Who signs in by a name. */
    public Optional<Account> find(String login) {
        return mapper.findByLogin(login.strip().toLowerCase(Locale.ROOT))
                .map(r -> new Account(r.id(), r.login(), r.displayName()));
    }

    /** @throws Problem with the reason when login and password do not match or the account is locked */
    @Transactional(noRollbackFor = Problem.class)
    public Account signIn(String login, String password) {
        Optional<AccountMapper.Row> found = mapper.findForUpdate(login.strip().toLowerCase(Locale.ROOT));
        Instant now = clock.instant();
        if (found.isPresent()
                && found.get().lockedUntil() != null
                && found.get().lockedUntil().isAfter(now)) {
            long minutes = Duration.between(now, found.get().lockedUntil()).toMinutes() + 1;
            throw Problem.of(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "locked",
                    "Too many wrong passwords. Try again in " + minutes + (minutes == 1 ? " minute." : " minutes."));
        }
        boolean matches = passwords.matches(
                password, found.map(AccountMapper.Row::passwordHash).orElse(decoy));
        if (found.isEmpty() || !matches) {
            found.ifPresent(row -> countFailure(row, now));
            throw Problem.of(
                    HttpStatus.UNAUTHORIZED, "wrong-password", "Account and password don’t match. Check both.");
        }
        AccountMapper.Row row = found.get();
        mapper.setFailures(row.id(), 0, null);
        return new Account(row.id(), row.login(), row.displayName());
    }

    private void countFailure(AccountMapper.Row row, Instant now) {
        int failures = row.failedCount() + 1;
        boolean lock = failures >= properties.signIn().tries();
        mapper.setFailures(
                row.id(),
                lock ? 0 : failures,
                lock ? now.plus(properties.signIn().pause()) : null);
    }

    /** The account of that name, made with the given password where there is none. */
    @Transactional
    public Account findOrCreate(String login, String displayName, String password) {
        return mapper.findForUpdate(login)
                .map(r -> new Account(r.id(), r.login(), r.displayName()))
                .orElseGet(() -> create(login, displayName, password));
    }

    /** The account made when Zolvan is started for the first time. */
    @Transactional
    public Account createFirst(String login, String displayName, String password) {
        if (!isFirstStart()) {
            throw Problem.of(HttpStatus.FORBIDDEN, "not-first", "There is an account already; sign in with it.");
        }
        return create(login, displayName, password);
    }

    /** Those who may sign in, for whoever makes accounts. */
    List<AccountMapper.Listed> all(Account administrator) {
        requireAdministrator(administrator);
        return mapper.all();
    }

    /** Makes an account for somebody else. */
    @Transactional
    Account createFor(Account administrator, String login, String displayName, String password) {
        requireAdministrator(administrator);
        return create(login, displayName, password);
    }

    private void requireAdministrator(Account account) {
        if (!mapper.isAdministrator(account.id())) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN,
                    "not-allowed",
                    "Accounts are made by whoever set Zolvan up. Ask them for one.");
        }
    }

    @Transactional
    public Account create(String login, String displayName, String password) {
        String name = login.strip().toLowerCase(Locale.ROOT);
        if (!name.matches("[a-z0-9][a-z0-9._@-]{1,63}")) {
            throw Problem.ofField(
                    "login", "An account name has 2 to 64 letters, digits, dots or dashes, and starts with a letter.");
        }
        if (password.length() < SHORTEST_PASSWORD || password.length() > 200) {
            throw Problem.ofField("password", "A password needs at least " + SHORTEST_PASSWORD + " characters.");
        }
        UUID id = UUID.randomUUID();
        String shown = displayName.isBlank() ? name : displayName.strip();
        if (mapper.insert(id, name, shown, passwords.encode(password)) == 0) {
            throw Problem.ofField("login", "That account name is taken.");
        }
        return new Account(id, name, shown);
    }
}
