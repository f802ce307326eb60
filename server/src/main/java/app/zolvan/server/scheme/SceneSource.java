package app.zolvan.server.scheme;

import app.zolvan.server.model.PartState;
import app.zolvan.server.model.Scene;
import java.util.Map;
import java.util.UUID;

/** Where schemes get the model from, and leave what commands change of it. */
public interface SceneSource {
    Scene scene(UUID project);

    /**
     * Puts parts into other states; the scene shows them from now on, unless the transaction fails. Shapes of before the
     * surfaces were cut anew are gone, and those that stand stay.
     */
    void change(UUID project, Map<Integer, PartState> to);
}
