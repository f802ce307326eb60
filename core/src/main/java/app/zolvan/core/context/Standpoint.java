package app.zolvan.core.context;

import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Where someone stands in a model and looks around. Lengths in metres, y is up.
 *
 * @param eye      where the eyes are
 * @param towards  where they look: level, of unit length
 * @param height   of the eyes above what one stands on
 * @param enclosed see {@link #isEnclosed}
 */
public record Standpoint(Vec3 eye, Vec3 towards, double height, boolean enclosed) {
    /** How high a standing person's eyes are. */
    public static final double EYE_HEIGHT = 1.6;
    /** What is left free above the eyes. */
    static final double HEADROOM = 0.15;
    /** Lower than this nobody looks around: one would lie. */
    static final double LOWEST = 0.6;
    /** How far the eyes keep away from what stands around. */
    static final double CLEARANCE = 0.35;
    /** A view that ends nearer than this shows nothing but a wall. */
    static final double FREE = 1.2;
    /** How far rays look for something: what is farther is the horizon. */
    private static final double FAR = 200;

    private static final int AROUND = 16;
    private static final int STEPS = 12;
    private static final double OFF = 0.05;
    private static final double ASLANT = Math.toRadians(30);
    private static final Vec3 UP = Vec3.axis(1);

    /**
     * Where one stands when a point of the model was picked: on the floor below it, at {@value #EYE_HEIGHT} m or as low as what is
     * above demands, away from walls as far as these let one.
     *
     * @param picked a point of a surface
     * @param seen   from where it was picked, which tells its free side
     * @param along  where one would look; where that is into a wall, one looks where there is most to see
     * @return nothing where there is no room to stand
     */
    public static Optional<Standpoint> at(Sight sight, Vec3 picked, Vec3 seen, Vec3 along) {
        Vec3 start = picked.plus(seen.minus(picked).normalised().times(OFF)); // off the surface, on its free side
        double down = sight.distance(start, UP.times(-1), FAR);
        Vec3 floor = Double.isInfinite(down) ? picked : start.minus(UP.times(down));
        double room = OFF + sight.distance(floor.plus(UP.times(OFF)), UP, EYE_HEIGHT + HEADROOM);
        double height = Math.min(EYE_HEIGHT, room - HEADROOM);
        if (height < LOWEST) {
            return Optional.empty();
        }
        Vec3 eye = clear(sight, floor.plus(UP.times(height)), height);
        return Optional.of(new Standpoint(eye, outlook(sight, eye, along), height, isEnclosed(sight, eye)));
    }

    /** Moves away from what is too near, as long as there is the same floor below. */
    private static Vec3 clear(Sight sight, Vec3 from, double height) {
        Vec3 eye = from;
        for (int step = 0; step < STEPS; step++) {
            double nearest = CLEARANCE;
            Vec3 away = Vec3.ZERO;
            for (int i = 0; i < AROUND; i++) {
                double d = sight.distance(eye, around(i), CLEARANCE);
                if (d < nearest) {
                    nearest = d;
                    away = around(i).times(-1);
                }
            }
            if (nearest >= CLEARANCE) {
                return eye;
            }
            double room = sight.distance(eye, away, 2 * CLEARANCE);
            double way = Math.min(CLEARANCE - nearest, (room - nearest) / 2); // between two walls: in the middle
            Vec3 next = eye.plus(away.times(way));
            double below = sight.distance(next, UP.times(-1), FAR);
            if (way < OFF / 5 || Math.abs(below - height) > OFF) {
                return eye;
            }
            eye = next;
        }
        return eye;
    }

    private static Vec3 outlook(Sight sight, Vec3 eye, Vec3 along) {
        Vec3 level = new Vec3(along.x(), 0, along.z());
        Vec3 best = level.length() > 1e-6 ? level.normalised() : around(0);
        if (sight.distance(eye, best, FREE) < FREE) {
            double farthest = 0;
            for (int i = 0; i < AROUND; i++) {
                double d = Math.min(FAR, sight.distance(eye, around(i), FAR));
                if (d > farthest) {
                    farthest = d;
                    best = around(i);
                }
            }
        }
        return best;
    }

    /**
     * Whether a point is inside something: of five rays up, four meet something, and of {@value #AROUND} around, three in four.
     * Glass counts as something.
     */
    public static boolean isEnclosed(Sight sight, Vec3 point) {
        Vec3 high = UP.times(Math.cos(ASLANT));
        double aside = Math.sin(ASLANT);
        List<Vec3> up = new ArrayList<>(List.of(UP));
        for (int i = 0; i < AROUND; i += AROUND / 4) {
            up.add(high.plus(around(i).times(aside)));
        }
        long above = up.stream().filter(d -> meets(sight, point, d)).count();
        long beside = IntStream.range(0, AROUND)
                .filter(i -> meets(sight, point, around(i)))
                .count();
        return above >= up.size() - 1 && beside >= AROUND * 3 / 4;
    }

    private static boolean meets(Sight sight, Vec3 point, Vec3 way) {
        return sight.distance(point, way, FAR) < FAR;
    }

    private static Vec3 around(int i) {
        double a = 2 * Math.PI * i / AROUND;
        return new Vec3(Math.cos(a), 0, Math.sin(a));
    }
}
