package app.zolvan.server.model;

import java.util.List;
import java.util.UUID;

/** What came with files and nothing of a project uses, and what of its palette is on nothing. */
public record Leftovers(
        List<Unused> materials, List<UnusedImage> images, List<EmptyGroup> groups, List<Unused> palette) {

    /** A material that no set has, no scheme shows and no other follows: of those that arrived, or of the palette. */
    public record Unused(UUID id, String name, long bytes) {}

    /** An image that no material of the project shows. */
    public record UnusedImage(String sha256, int width, int height, long bytes) {}

    /** A group that holds no part, in whatever depth. */
    public record EmptyGroup(int index, String name) {}
}
