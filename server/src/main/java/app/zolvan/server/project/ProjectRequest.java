package app.zolvan.server.project;

import app.zolvan.core.assign.Side;
import app.zolvan.server.account.Account;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** A question or a command about one project, as somebody looks at it. */
public sealed interface ProjectRequest permits Query, Edit {
    /** Names the scheme in view. */
    String SCHEME_HEADER = "X-Scheme";

    Account account();

    UUID project();

    /** The scheme in view, which may be gone or another project's; null for the project's first. */
    @Nullable
    UUID scheme();

    /** The side of surfaces that is looked at, FRONT or BACK. */
    Side side();
}
