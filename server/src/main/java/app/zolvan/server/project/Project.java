package app.zolvan.server.project;

import app.zolvan.core.model.LengthUnit;
import java.time.Instant;
import java.util.UUID;

/**
 * A designer's work on one model.
 *
 * @param version grows with every change; sent back in If-Match
 */
public record Project(
        UUID id, UUID owner, String name, String client, LengthUnit unit, long version, Instant touchedAt) {

    /** The same as somebody has seen it who may not know the newest changes. */
    public Project asSeen(long seen) {
        return new Project(id, owner, name, client, unit, seen, touchedAt);
    }
}
