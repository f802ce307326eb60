package app.zolvan.server.account;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Accounts of others, for administrators. */
@RestController
@RequestMapping("/api/accounts")
class AccountController {
    private final AccountService accounts;

    AccountController(AccountService accounts) {
        this.accounts = accounts;
    }

    /**
     * @param administrator true for one who looks after accounts
     * @param shut          true while nobody signs in with it
     * @param passwordDue   true until a password for one time was used
     * @param seen          the newest sign-in; null for none
     */
    record AccountWire(
            UUID id,
            String login,
            String name,
            boolean administrator,
            boolean shut,
            boolean passwordDue,
            @Nullable Instant seen) {}

    @GetMapping
    List<AccountWire> all(@AuthenticationPrincipal Account account) {
        return accounts.all(account).stream()
                .map(a -> new AccountWire(
                        a.id(),
                        a.login(),
                        a.displayName(),
                        a.administrator(),
                        a.disabledAt() != null,
                        a.passwordDue(),
                        a.seenAt()))
                .toList();
    }

    record AccountFor(
            @NotNull @Size(max = 64) String login,
            @NotNull @Size(max = 100) String name,
            @NotNull @Size(max = 200) String password) {}

    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    Account create(@AuthenticationPrincipal Account account, @Validated @RequestBody AccountFor a) {
        return accounts.createFor(account, a.login(), a.name(), a.password());
    }

    /** @param on true to shut it, or to make it an administrator's */
    record Switch(boolean on) {}

    @PostMapping("/{id}/shut")
    List<AccountWire> shut(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Switch s) {
        accounts.setShut(account, id, s.on());
        return all(account);
    }

    @PostMapping("/{id}/administrator")
    List<AccountWire> administrator(
            @AuthenticationPrincipal Account account, @PathVariable UUID id, @Validated @RequestBody Switch s) {
        accounts.setAdministrator(account, id, s.on());
        return all(account);
    }

    /** @param password to be used once */
    record OneTime(String password) {}

    @PostMapping("/{id}/password")
    OneTime password(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        return new OneTime(accounts.replacePassword(account, id));
    }

    @DeleteMapping("/{id}/sessions")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void endSessions(@AuthenticationPrincipal Account account, @PathVariable UUID id) {
        accounts.endSessions(account, id);
    }

    /** A page of what was done, the newest first. */
    @GetMapping("/audit")
    List<AuditMapper.Noted> audit(
            @AuthenticationPrincipal Account account,
            @RequestParam(defaultValue = "9223372036854775807") long before,
            @RequestParam(defaultValue = "100") @Min(1) @Max(500) int count) {
        return accounts.audit(account, before, count);
    }

    /** A page of the letters that wait to be passed on, the newest first. */
    @GetMapping("/letters")
    List<AccountMapper.Letter> letters(
            @AuthenticationPrincipal Account account,
            @RequestParam(defaultValue = "9223372036854775807") long before,
            @RequestParam(defaultValue = "100") @Min(1) @Max(500) int count) {
        return accounts.letters(account, before, count);
    }

    @DeleteMapping("/letters/{letter}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeLetter(@AuthenticationPrincipal Account account, @PathVariable long letter) {
        accounts.removeLetter(account, letter);
    }
}
