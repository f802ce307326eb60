package app.zolvan.server.account;

import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.security.core.authority.AuthorityUtils;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out. */
@RestController
@RequestMapping("/api/session")
class SessionController {
    private final AccountService accounts;
    private final SecurityContextRepository contexts = new HttpSessionSecurityContextRepository();

    SessionController(AccountService accounts) {
        this.accounts = accounts;
    }

    record Credentials(
            @NotNull @Size(max = 200) String login,
            @NotNull @Size(max = 200) String password) {}

    record NewAccount(
            @NotNull @Size(max = 64) String login,
            @NotNull @Size(max = 100) String displayName,
            @NotNull @Size(max = 200) String password) {}

    record Start(boolean first) {}

    /** Whether Zolvan still waits for its first account. */
    @GetMapping("/start")
    Start start() {
        return new Start(accounts.isFirstStart());
    }

    @GetMapping
    Account current(@AuthenticationPrincipal Account account) {
        if (account == null) {
            throw Problem.of(HttpStatus.UNAUTHORIZED, "signed-out", "You are signed out. Sign in to go on.");
        }
        return account;
    }

    @PostMapping
    Account signIn(@Validated @RequestBody Credentials c, HttpServletRequest request, HttpServletResponse response) {
        return open(accounts.signIn(c.login(), c.password()), request, response);
    }

    @PostMapping("/first")
    Account first(@Validated @RequestBody NewAccount n, HttpServletRequest request, HttpServletResponse response) {
        return open(accounts.createFirst(n.login(), n.displayName(), n.password()), request, response);
    }

    private Account open(Account account, HttpServletRequest request, HttpServletResponse response) {
        if (request.getSession(false) != null) {
            request.changeSessionId();
        }
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        var roles = AuthorityUtils.createAuthorityList("DESIGNER");
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(account, null, roles));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return account;
    }

    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(HttpServletRequest request) {
        if (request.getSession(false) != null) {
            request.getSession(false).invalidate();
        }
        SecurityContextHolder.clearContext();
    }
}
