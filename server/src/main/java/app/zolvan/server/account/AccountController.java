package app.zolvan.server.account;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import java.util.UUID;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Accounts of others, for whoever set Zolvan up. */
@RestController
@RequestMapping("/api/accounts")
class AccountController {
    private final AccountService accounts;

    AccountController(AccountService accounts) {
        this.accounts = accounts;
    }

    /** @param administrator whether it makes accounts for others */
    record AccountWire(UUID id, String login, String name, boolean administrator) {}

    @GetMapping
    List<AccountWire> all(@AuthenticationPrincipal Account account) {
        return accounts.all(account).stream()
                .map(a -> new AccountWire(a.id(), a.login(), a.displayName(), a.administrator()))
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
}
