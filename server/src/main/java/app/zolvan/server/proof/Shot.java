package app.zolvan.server.proof;

import app.zolvan.core.light.LightSetup;
import app.zolvan.core.render.path.Camera;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * What a proof is to show.
 *
 * @param only the parts that are shown, with no ground under them; null for all
 * @param view in which one may look into more than always; null for none
 */
record Shot(
        Camera camera,
        int width,
        int height,
        LightSetup light,
        Backdrop backdrop,
        @Nullable Set<Integer> only,
        @Nullable UUID view) {
    Shot smaller(int less) {
        return new Shot(camera, Math.max(1, width / less), Math.max(1, height / less), light, backdrop, only, view);
    }
}
