package app.zolvan.server.guard;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.ProblemWriter;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Keeps one address, one project and one sender of files from taking what all share. Changes of a project queue up here,
 * where they hold no connection to the database, and only few of them behind the project's lock.
 */
@Component
@Order(Ordered.HIGHEST_PRECEDENCE + 20)
class FairnessFilter extends OncePerRequestFilter {
    /** Changes of a project that may hold a connection at once: the one that has its lock, and who is next. */
    private static final int CHANGES = 3;

    private static final long CHANGE_PATIENCE_MS = 60_000;
    /** Files that an address may be sending at once. */
    private static final int UPLOADS = 6;

    private static final Pattern CHANGE = Pattern.compile("/api/projects/([0-9a-fA-F-]{36})/.+");
    private static final String UPLOAD = "/api/imports";
    private static final String TOO_MANY_FILES =
            "Six files are on their way from your address. Send this one when one of them is here.";
    private static final String BUSY = "This project is busy with other changes. Try again in a moment.";

    private final Rates rates;
    private final Turns changes = new Turns(CHANGES);
    private final Turns uploads = new Turns(UPLOADS);
    private final ProblemWriter problems;

    FairnessFilter(ZolvanProperties properties, ProblemWriter problems) {
        rates = new Rates(
                properties.requests().perSecond(), properties.requests().burst());
        this.problems = problems;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String path = request.getRequestURI();
        if (!path.startsWith("/api/")) {
            chain.doFilter(request, response);
            return;
        }
        if (!rates.take(request.getRemoteAddr(), System.nanoTime())) {
            refuse(response, "too-many-requests", "Too many requests come from your address. Wait a moment.");
            return;
        }
        String project = project(request);
        if (path.equals(UPLOAD)) {
            pass(uploads, request.getRemoteAddr(), 0, TOO_MANY_FILES, request, response, chain);
        } else if (project != null) {
            pass(changes, project, CHANGE_PATIENCE_MS, BUSY, request, response, chain);
        } else {
            chain.doFilter(request, response);
        }
    }

    private void pass(
            Turns turns,
            String key,
            long patience,
            String sentence,
            HttpServletRequest request,
            HttpServletResponse response,
            FilterChain chain)
            throws ServletException, IOException {
        if (!entered(turns, key, patience)) {
            refuse(response, "busy", sentence);
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            turns.leave(key);
        }
    }

    private static boolean entered(Turns turns, String key, long patience) {
        try {
            return turns.enter(key, patience);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    /** The project that a request changes, as commands say with the version that was seen; null where it changes none. */
    private static @Nullable String project(HttpServletRequest request) {
        Matcher change = CHANGE.matcher(request.getRequestURI());
        boolean isCommand = request.getHeader(HttpHeaders.IF_MATCH) != null;
        return isCommand && change.matches() ? change.group(1) : null;
    }

    private void refuse(HttpServletResponse response, String type, String sentence) throws IOException {
        response.setHeader(HttpHeaders.RETRY_AFTER, "1");
        problems.write(response, HttpStatus.TOO_MANY_REQUESTS, type, sentence);
    }
}
