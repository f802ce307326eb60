package app.zolvan.core.render.scene;

import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.trace.Ray;

/** What rays meet in a scene, for one thread. */
public final class SceneSight implements Sight {
    private final RenderScene scene;
    private final Ray ray = new Ray();
    private final Hit hit = new Hit();

    public SceneSight(RenderScene scene) {
        this.scene = scene;
    }

    @Override
    public double distance(Vec3 from, Vec3 towards, double most) {
        ray.set(from.x(), from.y(), from.z(), towards.x(), towards.y(), towards.z(), 0, (float) most);
        return scene.closest(ray, hit) ? hit.distance : Double.POSITIVE_INFINITY;
    }
}
