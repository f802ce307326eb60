package app.zolvan.server.model;

import app.zolvan.core.prepare.Role;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A project's model as the stage and the ledger need it. Changes when parts are renamed or mended and when its surfaces
 * are cut anew. Lengths in metres, matrices of 16 numbers in column-major order.
 *
 * @param revision counts the changes of parts
 * @param bounds min x, y, z, max x, y, z
 * @param notes  what the file held that is not used, as sentences
 */
public record Scene(
        UUID projectId,
        long revision,
        String fileName,
        List<Double> bounds,
        int triangles,
        int faces,
        Origin origin,
        List<String> notes,
        List<Picture> pictures,
        List<Group> groups,
        List<MatchingSet> sets,
        List<Part> parts) {

    /**
     * How the file came to its size and stance.
     *
     * @param unit what one unit of the file's numbers is, such as mm
     * @param cut   how finely round surfaces were cut, where they are kept and can be cut again: the share of the model's
     *              size that the tessellation was asked for; null elsewhere
     * @param stray how far the triangles may stray from them, in metres; null likewise
     */
    public record Origin(
            String format,
            String unit,
            String unitReason,
            String upAxis,
            String upReason,
            @Nullable Double cut,
            @Nullable Double stray) {}

    /**
     * A picture that came with the model.
     *
     * @param fileBytes what it weighs as a file
     * @param memory    bytes it takes on the stage
     */
    public record Picture(String sha256, String mediaType, int width, int height, long fileBytes, long memory) {}

    /** @param parent index of the group that holds it, or −1 */
    public record Group(int index, int parent, String name, List<Double> local) {}

    /** @param source the material it arrived with */
    public record MatchingSet(
            int index, String name, @Nullable UUID source, int parts) {}

    /**
     * @param role          what it is in the design; null while nobody has said
     * @param mesh          SHA-256 of its geometry
     * @param size          extents along the world's axes
     * @param volume        m³; 0 where the part is not closed
     * @param meanThickness m; 0 where the part is not closed
     * @param ownThickness  the same in the units of its mesh
     * @param geometryBytes what its mesh takes; parts with the same mesh share it
     * @param sets          the matching set of each of its spans
     */
    public record Part(
            int index,
            int group,
            String name,
            @Nullable Role role,
            List<Double> world,
            List<Double> local,
            String mesh,
            int triangles,
            List<Double> size,
            double area,
            double volume,
            boolean closed,
            double meanThickness,
            double ownThickness,
            long geometryBytes,
            List<Integer> sets) {}
}
