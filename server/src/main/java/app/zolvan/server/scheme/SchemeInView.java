package app.zolvan.server.scheme;

import app.zolvan.core.assign.Side;
import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Which scheme a request is about: the one in its header or, in a plain link, in its query; and which side of surfaces, in its
 * query. Every command and every question about looks may name them; work that nobody asks for by a request has no scheme, and is about
 * fronts.
 */
@Component
class SchemeInView {
    static final String HEADER = "X-Scheme";
    private static final String QUERY = "scheme";
    private static final String SEEN = "seen";

    /** The scheme that the request names, which may be any project's or nobody's. */
    Optional<UUID> named() {
        HttpServletRequest request = request();
        if (request == null) {
            return Optional.empty();
        }
        String name = request.getHeader(HEADER) != null ? request.getHeader(HEADER) : request.getParameter(QUERY);
        try {
            return name == null || name.isEmpty() ? Optional.empty() : Optional.of(UUID.fromString(name));
        } catch (IllegalArgumentException e) {
            throw Problem.notFound("scheme");
        }
    }

    /** The side that is looked at, FRONT or BACK. */
    Side seen() {
        HttpServletRequest request = request();
        return request != null && "back".equals(request.getParameter(SEEN)) ? Side.BACK : Side.FRONT;
    }

    private static @Nullable HttpServletRequest request() {
        return RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes current
                ? current.getRequest()
                : null;
    }
}
