package app.zolvan.server.account;

import java.io.Serial;
import java.io.Serializable;
import java.security.Principal;
import java.util.UUID;

/** Somebody who is signed in. Kept in sessions, which outlive releases: its shape is not changed. */
public record Account(UUID id, String login, String displayName) implements Principal, Serializable {
    @Serial
    private static final long serialVersionUID = 1;

    @Override
    public String getName() {
        return login;
    }
}
