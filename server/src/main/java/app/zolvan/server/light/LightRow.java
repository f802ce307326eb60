package app.zolvan.server.light;

import app.zolvan.core.light.LightSetup;
import java.util.UUID;

/**
 * A named light set-up of a project.
 *
 * @param units    {@link LightSetup#RELATIVE}
 * @param position among all; the lowest is in view until another is chosen
 */
public record LightRow(
        UUID projectId,
        UUID id,
        String name,
        int units,
        String surroundings,
        double strength,
        double turn,
        double stops,
        int position) {

    public static LightRow of(UUID project, UUID id, String name, LightSetup s, int position) {
        return new LightRow(
                project, id, name, LightSetup.RELATIVE, s.surroundings(), s.strength(), s.turn(), s.stops(), position);
    }

    public LightSetup setup() {
        return new LightSetup(surroundings, strength, turn, stops);
    }

    public LightRow with(LightSetup other) {
        return of(projectId, id, name, other, position);
    }

    public LightRow named(String other) {
        return of(projectId, id, other, setup(), position);
    }
}
