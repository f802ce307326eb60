package app.zolvan.server.project;

import app.zolvan.core.model.LengthUnit;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A designer's work on one model.
 *
 * @param version grows with every change; sent back in If-Match
 * @param command key of the command that it was read for; null for none
 */
public record Project(
        UUID id,
        UUID owner,
        String name,
        String client,
        LengthUnit unit,
        long version,
        Instant touchedAt,
        @Nullable UUID command) {

    /** The project at the version that the sender of a command has seen, which may not be the newest. */
    public Project asSeen(Seen seen) {
        return new Project(id, owner, name, client, unit, seen.version(), touchedAt, seen.key());
    }
}
