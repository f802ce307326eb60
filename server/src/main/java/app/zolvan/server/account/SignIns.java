package app.zolvan.server.account;

import app.zolvan.core.model.Digest;
import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.Problem;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Signing in. Wrong passwords make an address wait, for one account after a few and for all after many; nobody else is kept
 * from an account, and what is answered does not tell whether there is one.
 */
@Service
class SignIns {
    /** Wrong passwords from one address for any accounts, as a multiple of those for one. */
    private static final int ANY_ACCOUNT = 6;

    /** Stands for an account where the word of a letter was wrong; no account has such a name. */
    private static final String LETTER = "(letter)";

    private static final Duration RESET_LIFETIME = Duration.ofHours(2);

    private final AccountMapper mapper;
    private final Passwords passwords;
    private final Audit audit;
    private final ZolvanProperties.SignIn limits;
    private final Clock clock;
    private final TransactionTemplate transaction;

    SignIns(
            AccountMapper mapper,
            Passwords passwords,
            Audit audit,
            ZolvanProperties properties,
            Clock clock,
            TransactionTemplate transaction) {
        this.mapper = mapper;
        this.passwords = passwords;
        this.audit = audit;
        this.limits = properties.signIn();
        this.clock = clock;
        this.transaction = transaction;
    }

    /**
     * @param next    the password to be used from now on; null where the present one stays
     * @param address where the request came from
     * @throws Problem with the reason when it can't be
     */
    Account signIn(String login, String password, @Nullable String next, String address) {
        String name = login.strip().toLowerCase(Locale.ROOT);
        requirePatience(name, address);
        Optional<AccountMapper.Row> found = mapper.findByLogin(name);
        if (!passwords.matches(
                password, found.map(AccountMapper.Row::passwordHash).orElse(null))) {
            countFailure(name, address);
            throw Problem.of(
                    HttpStatus.UNAUTHORIZED, "wrong-password", "Account and password don’t match. Check both.");
        }
        AccountMapper.Row row = found.orElseThrow();
        if (row.disabledAt() != null) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN, "shut", "This account is shut. Ask whoever looks after Zolvan to open it.");
        }
        if (row.passwordDue() && next == null) {
            throw Problem.of(
                    HttpStatus.FORBIDDEN,
                    "password-due",
                    "This password was for one time only. Choose one of your own.");
        }
        String hash = next == null ? null : passwords.replacement(name, password, next);
        transaction.executeWithoutResult(t -> {
            if (hash != null) {
                mapper.setPassword(row.id(), hash, false);
                audit.note(name, "password changed", "", address);
            }
            mapper.forgetFailures(address, name, since());
            mapper.setSeen(row.id());
            audit.note(name, "signed in", "", address);
        });
        return row.account();
    }

    /** Lets pass who knows an account's present password; guesses count as they do at signing in. */
    void requirePresent(Account account, String present, String address) {
        requirePatience(account.login(), address);
        String kept =
                mapper.find(account.id()).map(AccountMapper.Row::passwordHash).orElse(null);
        if (!passwords.matches(present, kept)) {
            countFailure(account.login(), address);
            throw Problem.ofField("present", "That is not your present password.");
        }
    }

    private void requirePatience(String login, String address) {
        if (mapper.failures(address, login, since()) >= limits.tries()
                || mapper.failures(address, null, since()) >= ANY_ACCOUNT * limits.tries()) {
            long minutes = limits.pause().toMinutes();
            throw Problem.of(
                    HttpStatus.TOO_MANY_REQUESTS,
                    "locked",
                    "Too many wrong passwords from where you are. Try again in " + minutes
                            + (minutes == 1 ? " minute." : " minutes."));
        }
    }

    private void countFailure(String login, String address) {
        transaction.executeWithoutResult(t -> {
            mapper.countFailure(address, login, clock.instant(), since());
            audit.note(login, "wrong password", "", address);
        });
    }

    private Instant since() {
        return clock.instant().minus(limits.pause());
    }

    /** Writes a letter that lets its reader choose a password; the answer is the same where there is no such account. */
    void forgotten(String login, String address, String page) {
        String name = login.strip().toLowerCase(Locale.ROOT);
        requirePatience(name, address);
        String word = passwords.oneTime();
        transaction.executeWithoutResult(t -> {
            mapper.countFailure(address, name, clock.instant(), since()); // so that nobody fills the out-box
            mapper.findByLogin(name).filter(r -> r.disabledAt() == null).ifPresent(row -> {
                mapper.forgetResets(row.id(), clock.instant());
                mapper.insertReset(kept(word), row.id(), clock.instant().plus(RESET_LIFETIME));
                mapper.insertLetter(
                        row.id(),
                        "A new password for Zolvan",
                        row.displayName() + ", whoever has this letter can choose a new password for the account “"
                                + name + "” within two hours: " + page + "?word=" + word
                                + "\nIf you did not ask for it, leave it: your password stays as it is.");
                audit.note(name, "new password asked for", "", address);
            });
        });
    }

    /** Chooses a password with the word of a letter; whose account it is. */
    Account reset(String word, String next, String address) {
        requirePatience(LETTER, address);
        passwords.require(LETTER, next);
        String hash = passwords.hash(next);
        Optional<AccountMapper.Row> owner = transaction.execute(t -> {
            Optional<AccountMapper.Row> row = mapper.takeReset(kept(word.strip()), clock.instant())
                    .flatMap(mapper::find)
                    .filter(r -> r.disabledAt() == null);
            row.ifPresent(r -> {
                mapper.setPassword(r.id(), hash, false);
                mapper.forgetFailures(address, r.login(), since());
                audit.note(r.login(), "password changed by letter", "", address);
            });
            return row;
        });
        if (owner.isEmpty()) {
            countFailure(LETTER, address);
            throw Problem.of(
                    HttpStatus.FORBIDDEN,
                    "word",
                    "That letter was used already, or is older than two hours. Ask for another one.");
        }
        return owner.get().account();
    }

    private static String kept(String word) {
        return Digest.of(word.getBytes(StandardCharsets.UTF_8));
    }
}
