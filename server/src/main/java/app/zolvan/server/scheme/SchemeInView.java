package app.zolvan.server.scheme;

import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Which scheme a request is about: the one in its header or, in a plain link, in its query. Every command and every question
 * about looks may name one; work that nobody asks for by a request has none.
 */
@Component
class SchemeInView {
    static final String HEADER = "X-Scheme";
    private static final String QUERY = "scheme";

    /** The scheme that the request names, which may be any project's or nobody's. */
    Optional<UUID> named() {
        if (!(RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request)) {
            return Optional.empty();
        }
        HttpServletRequest r = request.getRequest();
        String name = r.getHeader(HEADER) != null ? r.getHeader(HEADER) : r.getParameter(QUERY);
        try {
            return name == null || name.isEmpty() ? Optional.empty() : Optional.of(UUID.fromString(name));
        } catch (IllegalArgumentException e) {
            throw Problem.notFound("scheme");
        }
    }
}
