package app.zolvan.server.scheme;

import app.zolvan.core.assign.Side;
import app.zolvan.server.problem.Problem;
import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import java.util.UUID;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * Which scheme a request is about, and which side of surfaces: those in its headers or, in a plain link, in its query. Every
 * command and every question about looks may name them; work that nobody asks for by a request has no scheme, and is about
 * fronts.
 */
@Component
class SchemeInView {
    static final String HEADER = "X-Scheme";
    private static final String QUERY = "scheme";
    private static final String SIDE_HEADER = "X-Side";
    private static final String SIDE_QUERY = "seen";

    /** The scheme that the request names, which may be any project's or nobody's. */
    Optional<UUID> named() {
        String name = said(HEADER, QUERY);
        try {
            return name.isEmpty() ? Optional.empty() : Optional.of(UUID.fromString(name));
        } catch (IllegalArgumentException e) {
            throw Problem.notFound("scheme");
        }
    }

    /** The side that is looked at, FRONT or BACK. */
    Side seen() {
        return said(SIDE_HEADER, SIDE_QUERY).equals("back") ? Side.BACK : Side.FRONT;
    }

    private static String said(String header, String query) {
        if (!(RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request)) {
            return "";
        }
        HttpServletRequest r = request.getRequest();
        String said = r.getParameter(query) != null ? r.getParameter(query) : r.getHeader(header);
        return said == null ? "" : said;
    }
}
