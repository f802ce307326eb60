package app.zolvan.server.account;

import java.util.UUID;

/** Streams of events that an account's browsers hold open, in any process. */
public interface OpenStreams {

    /** Ends them once the current transaction commits; pages whose session goes on open theirs again. */
    void close(UUID account);
}
