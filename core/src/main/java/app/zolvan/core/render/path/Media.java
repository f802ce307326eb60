package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.render.scene.Hit;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Ray;
import java.util.HashMap;
import java.util.Map;

/**
 * What a path is in: the closed bodies it has entered, of which the one with the highest priority fills the place, and
 * where it is in none of them what the last open boundary said.
 */
final class Media {
    private static final int MOST = 8;
    private static final int MOST_BOUNDARIES = 1024;
    /** Any direction will do that runs along no axis. */
    private static final double[] PROBE = {0.2672612419124244, 0.8017837257372732, 0.5345224838248488};

    private final SurfaceValues[] bodies = new SurfaceValues[MOST];
    private final int[] instances = new int[MOST];
    private final int[] priorities = new int[MOST];
    private int count;
    /** Null for air. */
    private SurfaceValues between;

    void copy(Media o) {
        count = o.count;
        System.arraycopy(o.bodies, 0, bodies, 0, count);
        System.arraycopy(o.instances, 0, instances, 0, count);
        System.arraycopy(o.priorities, 0, priorities, 0, count);
        between = o.between;
    }

    private int strongest(int except) {
        int best = -1;
        for (int i = 0; i < count; i++) {
            if (i != except && (best < 0 || priorities[i] >= priorities[best])) {
                best = i;
            }
        }
        return best;
    }

    private int entered(int instance) {
        for (int i = count - 1; i >= 0; i--) {
            if (instances[i] == instance) {
                return i;
            }
        }
        return -1;
    }

    private SurfaceValues at(int i) {
        return i >= 0 ? bodies[i] : between;
    }

    /** The medium here; null for air. */
    SurfaceValues here() {
        return at(strongest(-1));
    }

    /** The medium outside the body whose boundary is hit; null for air. */
    SurfaceValues outside(Hit hit, boolean entering) {
        return at(strongest(entering ? -1 : entered(hit.instance)));
    }

    /** Whether another body, of higher priority, fills the place on both sides of the boundary that is hit. */
    boolean covers(Hit hit, boolean entering) {
        int other = strongest(entering ? -1 : entered(hit.instance));
        return other >= 0 && priorities[other] > hit.priority;
    }

    /** Goes through the boundary of a body. */
    void cross(Hit hit, boolean entering) {
        if (entering) {
            enter(hit);
            return;
        }
        int i = entered(hit.instance);
        if (i >= 0) {
            count--;
            for (int k = i; k < count; k++) {
                bodies[k] = bodies[k + 1];
                instances[k] = instances[k + 1];
                priorities[k] = priorities[k + 1];
            }
        }
    }

    private void enter(Hit hit) {
        if (count < MOST) {
            bodies[count] = hit.medium;
            instances[count] = hit.instance;
            priorities[count++] = hit.priority;
        }
    }

    /** Takes an open boundary's word for what is here. */
    void stand(SurfaceValues medium) {
        between = medium;
    }

    /** What a place is in: bodies that a ray from it leaves without having entered, and what the first boundary says. */
    static Media around(RenderScene scene, Vec3 place) {
        Media media = new Media();
        Map<Integer, Integer> crossed = new HashMap<>();
        Ray ray = new Ray();
        Hit hit = new Hit();
        double x = place.x();
        double y = place.y();
        double z = place.z();
        boolean told = false;
        for (int i = 0; i < MOST_BOUNDARIES; i++) {
            ray.set(x, y, z, PROBE[0], PROBE[1], PROBE[2], 0, Float.POSITIVE_INFINITY);
            if (!scene.closest(ray, hit)) {
                break;
            }
            boolean outward = PROBE[0] * hit.gx + PROBE[1] * hit.gy + PROBE[2] * hit.gz > 0;
            if (hit.isBoundary && !told) {
                told = true;
                media.between = outward ? hit.back : hit.front;
            } else if (hit.isBody()
                    && crossed.merge(hit.instance, outward ? -1 : 1, Integer::sum) < 0
                    && media.entered(hit.instance) < 0) {
                media.enter(hit);
            }
            double side = outward ? scene.offset(hit) : -scene.offset(hit);
            x = hit.x + side * hit.gx;
            y = hit.y + side * hit.gy;
            z = hit.z + side * hit.gz;
        }
        return media;
    }
}
