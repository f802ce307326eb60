package app.zolvan.server.model;

import app.zolvan.core.context.Belonging;
import app.zolvan.core.context.Placement;

/**
 * What of one of a project's models designers can change.
 *
 * @param hidden whether it is left out of sight
 * @param locked whether it can't be picked on the stage, and nothing of it changed
 * @param place  where it stands; of no meaning for the model that the project was made of
 */
public record PlacedState(String name, Belonging belonging, boolean hidden, boolean locked, Placement place) {

    public PlacedState at(Placement other) {
        return new PlacedState(name, belonging, hidden, locked, other);
    }
}
