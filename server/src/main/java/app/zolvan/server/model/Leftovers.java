package app.zolvan.server.model;

import java.util.List;
import java.util.UUID;

/** What came with files and nothing of a project uses. */
public record Leftovers(List<Unused> materials, List<UnusedImage> images, List<EmptyGroup> groups) {

    /** A source material that no set has and no scheme shows. */
    public record Unused(UUID id, String name, long bytes) {}

    /** An image that no material of the project shows. */
    public record UnusedImage(String sha256, int width, int height, long bytes) {}

    /** A group that holds no part, in whatever depth. */
    public record EmptyGroup(int index, String name) {}
}
