package app.zolvan.server.scheme;

import app.zolvan.server.model.PartState;
import app.zolvan.server.model.PlacedState;
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

    /** Changes one of the project's models; where it stands elsewhere, so do its parts from now on. */
    void place(UUID project, int model, PlacedState to);

    void nameSet(UUID project, int set, String name);

    void nameOwnFace(UUID project, int face, String name);

    boolean isImageShown(UUID project, String sha256);

    void showImage(UUID project, String sha256, boolean shown);

    /** Whether the model, apart from what was found in it, stands as it was kept. */
    boolean isKept(UUID project, String sha256);

    /**
     * Puts a kept model in the place of the one that is there.
     *
     * @throws app.zolvan.server.problem.Problem where its shapes are gone
     */
    void restore(UUID project, String sha256);
}
