package app.zolvan.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.security.core.annotation.AuthenticationPrincipal;
import org.springframework.validation.annotation.Validated;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** One's own account: its password, and where it is signed in. */
@RestController
@RequestMapping("/api/account")
class OwnAccountController {
    private final AccountService accounts;
    private final Sessions sessions;
    private final SignIns signIns;

    OwnAccountController(AccountService accounts, Sessions sessions, SignIns signIns) {
        this.signIns = signIns;
        this.accounts = accounts;
        this.sessions = sessions;
    }

    /** @param administrator true for one who looks after everybody's accounts */
    record Own(Account account, boolean administrator, List<Sessions.Open> sessions) {}

    @GetMapping
    Own own(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        return new Own(account, accounts.isAdministrator(account), sessions.of(account, session(request)));
    }

    record PasswordChange(
            @NotNull @Size(max = 200) String present,
            @NotNull @Size(max = 200) String next) {}

    @PutMapping("/password")
    Own changePassword(
            @AuthenticationPrincipal Account account,
            @Validated @RequestBody PasswordChange c,
            HttpServletRequest request) {
        signIns.requirePresent(account, c.present(), request.getRemoteAddr());
        accounts.changePassword(account, c.present(), c.next(), session(request));
        return own(account, request);
    }

    /** Ends all sessions but the one that asks. */
    @DeleteMapping("/sessions")
    Own endOthers(@AuthenticationPrincipal Account account, HttpServletRequest request) {
        sessions.endOthers(account.id(), account.login(), session(request));
        return own(account, request);
    }

    @DeleteMapping("/sessions/{session}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void end(@AuthenticationPrincipal Account account, @PathVariable String session) {
        sessions.end(account, session);
    }

    private static @Nullable String session(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        return session == null ? null : session.getId();
    }
}
