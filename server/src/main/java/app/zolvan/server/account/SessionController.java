package app.zolvan.server.account;

import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
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

/** Signing in and out, for anybody. */
@RestController
@RequestMapping("/api/session")
class SessionController {
    private static final int LONGEST_PROGRAM = 200;
    /** Has the browser drop what it keeps of somebody's projects. */
    private static final String CLEAR = "\"cache\"";

    private final AccountService accounts;
    private final SignIns signIns;
    private final Sessions sessions;
    private final SecurityContextRepository contexts = new HttpSessionSecurityContextRepository();

    SessionController(AccountService accounts, SignIns signIns, Sessions sessions) {
        this.accounts = accounts;
        this.signIns = signIns;
        this.sessions = sessions;
    }

    /** @param next the password to be used from now on; null where the present one stays */
    record Credentials(
            @NotNull @Size(max = 200) String login,
            @NotNull @Size(max = 200) String password,
            @Nullable @Size(max = 200) String next) {}

    /** @param word that was printed when Zolvan was started */
    record NewAccount(
            @NotNull @Size(max = 100) String word,
            @NotNull @Size(max = 64) String login,
            @NotNull @Size(max = 100) String displayName,
            @NotNull @Size(max = 200) String password) {}

    /** @param first true while Zolvan waits for its first account */
    record Start(boolean first) {}

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
        return open(signIns.signIn(c.login(), c.password(), c.next(), request.getRemoteAddr()), request, response);
    }

    @PostMapping("/first")
    Account first(@Validated @RequestBody NewAccount n, HttpServletRequest request, HttpServletResponse response) {
        return open(accounts.createFirst(n.word(), n.login(), n.displayName(), n.password()), request, response);
    }

    record Forgotten(@NotNull @Size(max = 64) String login) {}

    /** Writes a letter with which its reader chooses a password. */
    @PostMapping("/forgotten")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void forgotten(@Validated @RequestBody Forgotten f, HttpServletRequest request) {
        String page = request.getScheme() + "://" + request.getHeader(HttpHeaders.HOST) + "/sign-in";
        signIns.forgotten(f.login(), request.getRemoteAddr(), page);
    }

    record Reset(
            @NotNull @Size(max = 100) String word,
            @NotNull @Size(max = 200) String password) {}

    @PostMapping("/reset")
    Account reset(@Validated @RequestBody Reset r, HttpServletRequest request, HttpServletResponse response) {
        Account account = signIns.reset(r.word(), r.password(), request.getRemoteAddr());
        sessions.endOthers(account.id(), account.login(), null);
        return open(account, request, response);
    }

    private Account open(Account account, HttpServletRequest request, HttpServletResponse response) {
        HttpSession before = request.getSession(false);
        if (before != null) {
            before.invalidate();
        }
        HttpSession session = request.getSession(true);
        String program = request.getHeader(HttpHeaders.USER_AGENT);
        session.setAttribute(Sessions.ADDRESS, request.getRemoteAddr());
        session.setAttribute(
                Sessions.PROGRAM,
                program == null ? "" : program.substring(0, Math.min(program.length(), LONGEST_PROGRAM)));
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        var roles = AuthorityUtils.createAuthorityList("DESIGNER");
        context.setAuthentication(UsernamePasswordAuthenticationToken.authenticated(account, null, roles));
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, request, response);
        return account;
    }

    @DeleteMapping
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOut(@AuthenticationPrincipal Account account, HttpServletRequest request, HttpServletResponse response) {
        HttpSession session = request.getSession(false);
        if (session != null) {
            session.invalidate();
        }
        if (account != null) {
            sessions.closeStreams(account.id());
        }
        response.setHeader("Clear-Site-Data", CLEAR);
        SecurityContextHolder.clearContext();
    }
}
