package app.zolvan.server.guard;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import org.springframework.web.filter.OncePerRequestFilter;

/** Ends sessions that are too old, however busy they are: an open page keeps one from ever being idle. */
public final class SessionAge extends OncePerRequestFilter {
    private final Duration longest;
    private final Clock clock;

    public SessionAge(Duration longest, Clock clock) {
        this.longest = longest;
        this.clock = clock;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        HttpSession session = request.getSession(false);
        if (session != null && clock.millis() - session.getCreationTime() > longest.toMillis()) {
            session.invalidate();
        }
        chain.doFilter(request, response);
    }
}
