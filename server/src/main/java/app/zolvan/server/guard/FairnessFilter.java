package app.zolvan.server.guard;

import app.zolvan.server.config.ZolvanProperties;
import app.zolvan.server.problem.ProblemAdvice;
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
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import tools.jackson.databind.json.JsonMapper;

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

    private final Rates rates;
    private final Turns changes = new Turns(CHANGES);
    private final Turns uploads = new Turns(UPLOADS);
    private final JsonMapper json;

    FairnessFilter(ZolvanProperties properties, JsonMapper json) {
        rates = new Rates(
                properties.requests().perSecond(), properties.requests().burst());
        this.json = json;
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
        Turns turns = path.equals(UPLOAD) ? uploads : changes;
        String key = path.equals(UPLOAD) ? request.getRemoteAddr() : project(request);
        if (key == null) {
            chain.doFilter(request, response);
            return;
        }
        if (!entered(turns, key)) {
            refuse(
                    response,
                    "busy",
                    turns == uploads
                            ? "Six files are on their way from your address. Send this one when one of them is here."
                            : "This project is busy with other changes. Try again in a moment.");
            return;
        }
        try {
            chain.doFilter(request, response);
        } finally {
            turns.leave(key);
        }
    }

    private boolean entered(Turns turns, String key) {
        try {
            return turns.enter(key, turns == uploads ? 0 : CHANGE_PATIENCE_MS);
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
        ProblemDetail detail = ProblemAdvice.detail(HttpStatus.TOO_MANY_REQUESTS, type, sentence);
        response.setStatus(detail.getStatus());
        response.setHeader(HttpHeaders.RETRY_AFTER, "1");
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        json.writeValue(response.getOutputStream(), detail);
    }
}
