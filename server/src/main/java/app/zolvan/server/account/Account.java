package app.zolvan.server.account;

import java.io.Serializable;
import java.security.Principal;
import java.util.UUID;

/** Somebody who is signed in. */
public record Account(UUID id, String login, String displayName) implements Principal, Serializable {
    @Override
    public String getName() {
        return login;
    }
}
