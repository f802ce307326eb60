package app.zolvan.server.project;

import app.zolvan.core.assign.Side;
import app.zolvan.server.account.Account;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A command about a project.
 *
 * @param seen the state that it is given upon
 */
public record Edit(Account account, UUID project, @Nullable UUID scheme, Side side, Seen seen)
        implements ProjectRequest {
    /** A command of the project's first scheme and of fronts. */
    public static Edit of(Account account, UUID project, Seen seen) {
        return new Edit(account, project, null, Side.FRONT, seen);
    }
}
