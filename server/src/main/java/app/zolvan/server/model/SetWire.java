package app.zolvan.server.model;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A matching set with what it covers.
 *
 * @param source    the material that its parts arrived with
 * @param area      m²
 * @param share     of the model's whole area, in [0, 1]
 * @param meaning   whether its name says anything
 * @param alike     sets with the same number arrived with materials that look the same; null where no other looks so
 */
public record SetWire(
        int index,
        String name,
        @Nullable UUID source,
        int parts,
        double area,
        double share,
        boolean meaning,
        @Nullable Integer alike) {}
