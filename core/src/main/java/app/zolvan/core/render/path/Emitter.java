package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.render.sample.Directions;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.Lamps;
import app.zolvan.core.render.scene.RenderScene;

/**
 * Sends photons from lamps and suns to what mirrors or bends light; from nowhere else can a caustic come. Number k of a
 * pass is the same whoever sends it. One object serves a thread.
 */
final class Emitter {
    private final RenderScene scene;
    private final PathTracer tracer;
    private final Lamps.Departure departure = new Lamps.Departure();
    private final Sampler random = new Sampler();
    private final double[] turned = new double[3];
    /** What each lamp stands in; worked out when it first sends something. */
    private final Media[] around;

    private final Media air = new Media();
    private final Vec3 middle;
    private final double radius;
    private final double away;
    private final long seed;
    private final double lampPower;
    private final double power;

    Emitter(RenderScene scene, Environment environment, Box3 focus, int bounces, long seed) {
        this.scene = scene;
        this.seed = seed;
        around = new Media[scene.lamps().size()];
        tracer = new PathTracer(scene, environment, null, null, bounces);
        middle = focus.min().plus(focus.max()).times(0.5);
        radius = focus.size().length() / 2 * 1.001;
        away = scene.bounds().size().length();
        lampPower = scene.lamps().power();
        double sum = lampPower;
        for (Lamp.Sun sun : scene.suns()) {
            sum += discFlux(sun);
        }
        power = sum;
    }

    private double discFlux(Lamp.Sun sun) {
        return sun.illuminance().luminance() * Math.PI * radius * radius;
    }

    /** Sends numbers {@code from} to {@code to} of {@code count}. */
    void emit(int from, int to, int count, int pass, Photons.Found found) {
        for (int i = from; i < to; i++) {
            random.start(pass, -1, i, seed); // one well-spread sequence for the whole pass
            double which = random.next() * power;
            double u = random.next();
            double v = random.next();
            double s = random.next();
            double t = random.next();
            if (which < lampPower) {
                double share = power / lampPower / count;
                if (scene.lamps().depart(middle, radius, u, v, which / lampPower, s, t, departure)) {
                    tracer.send(departure, around(departure.source()), share, random, found);
                }
                continue;
            }
            which -= lampPower;
            for (Lamp.Sun sun : scene.suns()) {
                double flux = discFlux(sun);
                if (which < flux) {
                    fromSun(sun, u, v, s, t);
                    tracer.send(departure, air, power / flux / count, random, found);
                    break;
                }
                which -= flux;
            }
        }
    }

    private Media around(int lamp) {
        if (around[lamp] == null) {
            around[lamp] = Media.around(scene, scene.lamps().place(lamp));
        }
        return around[lamp];
    }

    /** From a disc as wide as the ball, far out on the sun's side, in a direction within its own disc. */
    private void fromSun(Lamp.Sun sun, double u, double v, double s, double t) {
        double half = StrictMath.sin(sun.radius() / 2);
        Vec3 to = sun.towards();
        Directions.about(to.x(), to.y(), to.z(), 1 - 2 * u * half * half, 2 * Math.PI * v, turned);
        Vec3 d = new Vec3(turned[0], turned[1], turned[2]);
        Vec3 side =
                to.cross(Math.abs(to.x()) < 0.9 ? Vec3.axis(0) : Vec3.axis(1)).normalised();
        Vec3 up = side.cross(to);
        double r = radius * Math.sqrt(s);
        double a = 2 * Math.PI * t;
        Vec3 at = middle.plus(side.times(r * StrictMath.cos(a)))
                .plus(up.times(r * StrictMath.sin(a)))
                .plus(d.times(away));
        departure.x = at.x();
        departure.y = at.y();
        departure.z = at.z();
        departure.dx = -d.x();
        departure.dy = -d.y();
        departure.dz = -d.z();
        double area = Math.PI * radius * radius;
        departure.r = sun.illuminance().r() * area;
        departure.g = sun.illuminance().g() * area;
        departure.b = sun.illuminance().b() * area;
        departure.circuit = sun.circuit();
    }
}
