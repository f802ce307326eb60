package app.zolvan.server.scheme;

import app.zolvan.server.account.Account;
import java.util.UUID;

/** Ends a command that has been done already: its answer was lost, and it was sent again. Becomes the state as it is now. */
final class DoneBefore extends RuntimeException {
    private final transient Account account;
    private final UUID project;

    DoneBefore(Account account, UUID project) {
        super("the command was done before");
        this.account = account;
        this.project = project;
    }

    Account account() {
        return account;
    }

    UUID project() {
        return project;
    }
}
