package app.zolvan.server.guard;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.database.Outage;
import app.zolvan.server.problem.ProblemAdvice;
import app.zolvan.server.problem.ProblemWriter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.Locale;
import java.util.concurrent.Semaphore;
import java.util.concurrent.TimeUnit;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * First of all filters, before anything is read or looked up: refuses strange host names and long bodies, and answers for the
 * filters behind it, which find sessions in the database, where that is away.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 10)
class GuardFilter extends OncePerRequestFilter {
    private static final long MEGABYTE = 1L << 20;
    private static final int PATIENCE_S = 5;

    /** Megabytes of JSON that may be read at once; lists and numbers of it take many times as much of the heap. */
    private final Semaphore room = new Semaphore(48, true);

    private final KnownHosts hosts;
    private final ProblemWriter problems;

    GuardFilter(ZolvanProperties properties, ProblemWriter problems) {
        hosts = new KnownHosts(properties.hosts());
        this.problems = problems;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (!hosts.contains(request.getHeader(HttpHeaders.HOST))) {
            problems.write(response, HttpStatus.MISDIRECTED_REQUEST, "host", "Zolvan does not answer to this name.");
            return;
        }
        if (!isJson(request)) {
            pass(request, response, chain);
            return;
        }
        long most = BodyLimits.of(request.getRequestURI());
        long announced = request.getContentLengthLong();
        if (announced > most) {
            problems.write(response, HttpStatus.CONTENT_TOO_LARGE, "too-long", ProblemAdvice.TOO_LONG);
            return;
        }
        int heavy = (int) ((announced < 0 ? most : announced) / MEGABYTE);
        if (!hasRoom(heavy)) {
            problems.write(
                    response,
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "busy",
                    "Zolvan is reading as much as it can at once. Try again in a moment.");
            return;
        }
        try {
            pass(new LimitedBody(request, most), response, chain);
        } finally {
            room.release(heavy);
        }
    }

    private boolean hasRoom(int megabytes) {
        try {
            return room.tryAcquire(megabytes, PATIENCE_S, TimeUnit.SECONDS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    private void pass(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        try {
            chain.doFilter(request, response);
        } catch (RuntimeException | ServletException | IOException e) {
            if (!Outage.is(e) || response.isCommitted()) {
                throw e;
            }
            response.reset();
            response.setHeader(HttpHeaders.RETRY_AFTER, "1");
            problems.write(response, HttpStatus.SERVICE_UNAVAILABLE, "database-away", ProblemAdvice.DATABASE_AWAY);
        }
    }

    private static boolean isJson(HttpServletRequest request) {
        String type = request.getContentType();
        return type != null && type.toLowerCase(Locale.ROOT).contains("json");
    }
}
