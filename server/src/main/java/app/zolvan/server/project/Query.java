package app.zolvan.server.project;

import app.zolvan.core.assign.Side;
import app.zolvan.server.account.Account;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/** A question about a project. */
public record Query(Account account, UUID project, @Nullable UUID scheme, Side side) implements ProjectRequest {
    /** A question about the project's first scheme and about fronts. */
    public static Query of(Account account, UUID project) {
        return new Query(account, project, null, Side.FRONT);
    }
}
