package app.zolvan.server.scheme;

import app.zolvan.server.model.Scene;
import java.util.UUID;

/** Where schemes get the model from. */
public interface SceneSource {
    Scene scene(UUID project);
}
