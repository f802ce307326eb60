package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.light.Lamp;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.Hit;
import app.zolvan.core.render.scene.Lamps;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.Spectrum;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Ray;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Follows light backwards from the eye: at each surface it looks for light where the surroundings are bright and on what
 * glows, and goes on in a direction that the surface prefers; each kind of path is counted once, by multiple importance
 * sampling (Veach 1997, power heuristic). Clear bodies are nested by priority; what they absorb grows with the way through
 * them; dispersion splits a path into one wavelength. One object serves a thread; nothing is allocated on the way.
 */
public final class PathTracer {
    private static final int MOST_MEDIA = 8;
    private static final int SURE_BOUNCES = 4;
    private static final int PASSED_OVER = 64;
    private static final int LONGEST_WALK = 4096;
    private static final double FAINT = 0.05;
    private static final double CD_PER_UNIT = 1000;
    private static final double WIDEST_CONE = 0.5;
    /** What light leaves a body by after wandering in it. */
    private static final SurfaceValues WAY_OUT = wayOut();

    /** Radiance of the last path: red, green, blue of each circuit. */
    public final double[] sum;
    /** What the last path met first: its colour, its normal (three each), and how far away. */
    public final double[] albedo = new double[3];

    public final double[] normal = new double[3];
    public double depth;
    /** The part it met, or −1. */
    public int part;

    private final RenderScene scene;
    private final Environment environment;
    private final Lamp.Sun[] suns;
    private final int environmentCircuit;
    private final double[] backdrop;
    private final int longest;
    private final Ray ray = new Ray();
    private final Ray shadow = new Ray();
    private final Hit hit = new Hit();
    private final Hit other = new Hit();
    private final Bsdf bsdf = new Bsdf();
    private final Bsdf pane = new Bsdf();
    private final Environment.Sample light = new Environment.Sample();
    private final Lamps.Point lamp = new Lamps.Point();
    private final double[] spectral = new double[3];
    private final double[] reaching = new double[3];
    private final double[] chances = new double[3];
    private final SurfaceValues[] media = new SurfaceValues[MOST_MEDIA];
    private final int[] mediaInstance = new int[MOST_MEDIA];
    private final int[] mediaPriority = new int[MOST_MEDIA];
    private final double[] frame = new double[9];
    private final double scale;
    private final Surrounded start;
    private int mediaCount;
    /** What an open boundary said the path is in; null for air. */
    private SurfaceValues between;

    private double wavelength;
    /** Where in the visible range this path's wavelength lies, should it need one. */
    private double wavelengthNumber;

    private double fixed = -1;
    private Photons photons;
    private double photonStrength;
    private final Photons.Gatherer gatherer = this::take;
    private double gatherScale;
    private boolean gatherEntering;
    /** Whether photons were gathered where the path last scattered: lamps that only mirrors part from it are in them. */
    private boolean gathered;

    // the path at hand: where it is, where it goes, and what share of what it finds reaches the eye
    private double px;
    private double py;
    private double pz;
    private double dx;
    private double dy;
    private double dz;
    private double tr;
    private double tg;
    private double tb;
    private double lastPdf;
    /** Where the path last looked for light, and how far it has come since. */
    private double fromX;

    private double fromY;
    private double fromZ;
    private double sinceThen;
    private double coneWidth;
    private double coneSpread;

    /** The media around the eye. */
    private record Surrounded(SurfaceValues[] media, int[] instances, int[] priorities, SurfaceValues between) {
        static final Surrounded AIR = new Surrounded(new SurfaceValues[0], new int[0], new int[0], null);
    }

    /**
     * @param eye      where all paths begin; null for anywhere in the air
     * @param backdrop what the eye sees behind everything, scene-linear; null for the surroundings themselves
     * @param longest  how many bounces a path may have
     */
    public PathTracer(RenderScene scene, Environment environment, Vec3 eye, double[] backdrop, int longest) {
        this(scene, environment, 0, eye, backdrop, longest);
    }

    /** The same, with the circuit that the surroundings are switched with. */
    public PathTracer(
            RenderScene scene,
            Environment environment,
            int environmentCircuit,
            Vec3 eye,
            double[] backdrop,
            int longest) {
        this.scene = scene;
        this.environment = environment;
        this.suns = scene.suns().toArray(new Lamp.Sun[0]);
        this.environmentCircuit = environmentCircuit;
        this.backdrop = backdrop;
        this.longest = longest;
        this.scale = scene.bounds().max().minus(scene.bounds().min()).length();
        this.sum = new double[3 * Math.max(scene.circuits(), environmentCircuit + 1)];
        this.start = eye == null ? Surrounded.AIR : surroundings(eye);
    }

    /** Gathers these from now on, instead of meeting lamps by way of mirrors and lenses; null for none. */
    void gather(Photons from, double strength) {
        photons = from;
        photonStrength = strength;
    }

    /** Follows light of one wavelength alone from now on, in nanometres; for measuring. */
    public PathTracer only(double nm) {
        fixed = (nm - Spectrum.SHORTEST) / (Spectrum.LONGEST - Spectrum.SHORTEST);
        return this;
    }

    private static SurfaceValues wayOut() {
        SurfaceValues s = SurfaceValues.of(Surface.STANDARD);
        s.baseR = 1;
        s.baseG = 1;
        s.baseB = 1;
        s.specularWeight = 0;
        s.roughness = 1;
        return s;
    }

    /**
     * Traces one path from {@code origin} along a unit direction; sets {@link #sum} and what it met first.
     *
     * @param spread by how much a pixel's view widens per metre
     */
    public void trace(Vec3 origin, double x, double y, double z, double spread, Sampler random) {
        begin(origin, x, y, z, spread, random);
        int bounces = 0;
        for (int passed = 0; bounces <= longest; ) {
            ray.set(px, py, pz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            boolean met = scene.closest(ray, hit);
            double way = met ? hit.distance : Double.POSITIVE_INFINITY;
            if (travel(way, random)) {
                if (++bounces > longest || !survives(bounces, random)) {
                    return;
                }
                continue;
            }
            if (!met) {
                miss(bounces == 0);
                return;
            }
            sinceThen += way;
            double facing = dx * hit.gx + dy * hit.gy + dz * hit.gz;
            coneWidth += coneSpread * way;
            scene.dress(hit, coneWidth / Math.max(0.1, Math.abs(facing)));
            SurfaceValues s = hit.surface;
            boolean entering = facing < 0;
            if (s.opacity < 1 && random.next() >= s.opacity) {
                if (++passed > PASSED_OVER) {
                    return;
                }
                step(!entering);
                continue;
            }
            boolean body = s.isClear() && !s.thinWalled && !hit.isBoundary;
            if (body && isCovered(entering)) { // within a body of higher priority this boundary is not there
                cross(hit.medium, entering);
                if (++passed > PASSED_OVER) {
                    return;
                }
                step(!entering);
                continue;
            }
            double eta = hit.isBoundary ? across(entering) : indices(s, body, entering);
            if (bounces == 0 && part < 0) {
                remember(s, entering);
            }
            if (s.emits()) {
                glow(s, facing);
            }
            if (bounces == longest) {
                return;
            }
            face(entering);
            bsdf.set(s, local(0, -1), local(3, -1), local(6, -1), eta, (body || hit.isBoundary) && !entering);
            if (!bsdf.isSmooth()) {
                lookForLight(entering, random);
                gatherHere(entering);
            }
            if (!bsdf.sample(random.next(), random.next(), random.next())) {
                return;
            }
            if (bsdf.walks) {
                if (!wander(s, entering, random)) {
                    return;
                }
                entering = true;
                body = false;
            }
            if (!leave(entering, body)) {
                return;
            }
            bounces++;
            if (!survives(bounces, random)) {
                return;
            }
        }
    }

    private void begin(Vec3 origin, double x, double y, double z, double spread, Sampler random) {
        px = origin.x();
        py = origin.y();
        pz = origin.z();
        dx = x;
        dy = y;
        dz = z;
        Arrays.fill(sum, 0);
        Arrays.fill(albedo, 0);
        Arrays.fill(normal, 0);
        depth = 0;
        part = -1;
        tr = tg = tb = 1;
        lastPdf = 0; // an eye's ray: whatever it meets is seen in full
        gathered = false;
        sinceThen = 0;
        coneWidth = 0;
        coneSpread = spread;
        mediaCount = start.media.length;
        System.arraycopy(start.media, 0, media, 0, mediaCount);
        System.arraycopy(start.instances, 0, mediaInstance, 0, mediaCount);
        System.arraycopy(start.priorities, 0, mediaPriority, 0, mediaCount);
        between = start.between;
        wavelength = 0;
        double number = random.next();
        wavelengthNumber = fixed < 0 ? number : fixed;
    }

    private void remember(SurfaceValues s, boolean entering) {
        double clear = s.isClear() ? s.transmission * (1 - s.metalness) : 0;
        albedo[0] = clear + (1 - clear) * (s.isTranslucent() ? s.subsurfaceR : s.baseR);
        albedo[1] = clear + (1 - clear) * (s.isTranslucent() ? s.subsurfaceG : s.baseG);
        albedo[2] = clear + (1 - clear) * (s.isTranslucent() ? s.subsurfaceB : s.baseB);
        double side = entering ? 1 : -1;
        normal[0] = side * hit.nx;
        normal[1] = side * hit.ny;
        normal[2] = side * hit.nz;
        depth = sinceThen;
        part = hit.instance;
    }

    /** Adds the light of the photons around, each scattered by the surface here. */
    private void gatherHere(boolean entering) {
        if (photons == null) {
            return;
        }
        gathered = true;
        double scale = photonStrength / (Math.PI * photons.radius() * photons.radius() * CD_PER_UNIT);
        gatherScale = scale;
        gatherEntering = entering;
        photons.near(hit.x, hit.y, hit.z, gatherer);
    }

    private void take(double x, double y, double z, double red, double green, double blue, int circuit) {
        if (asks(-x, -y, -z, gatherEntering)) {
            double cosine = Math.max(1e-3, Math.abs(frame[6] * x + frame[7] * y + frame[8] * z));
            add(circuit, bsdf.r * red, bsdf.g * green, bsdf.b * blue, gatherScale / cosine);
        }
    }

    /**
     * Follows light from a lamp through mirrors and lenses to what scatters it, and leaves it there.
     *
     * @param share of the lamps' light that it stands for
     */
    void send(Lamps.Departure from, double share, Sampler random, Photons.Found found) {
        begin(new Vec3(from.x, from.y, from.z), from.dx, from.dy, from.dz, 0, random);
        if (mediaCount == 0 && between == null) { // a lamp may stand in a liquid
            Surrounded at = surroundings(new Vec3(from.x, from.y, from.z));
            mediaCount = at.media.length;
            System.arraycopy(at.media, 0, media, 0, mediaCount);
            System.arraycopy(at.instances, 0, mediaInstance, 0, mediaCount);
            System.arraycopy(at.priorities, 0, mediaPriority, 0, mediaCount);
            between = at.between;
            px = from.x;
            py = from.y;
            pz = from.z;
        }
        tr = from.r * share;
        tg = from.g * share;
        tb = from.b * share;
        double most = Math.max(tr, Math.max(tg, tb));
        int mirrored = 0;
        for (int bounces = 0; bounces <= longest; bounces++) {
            ray.set(px, py, pz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            boolean met = scene.closest(ray, hit);
            if (travel(met ? hit.distance : Double.POSITIVE_INFINITY, random) || !met) {
                return;
            }
            scene.dress(hit, 0);
            SurfaceValues s = hit.surface;
            boolean entering = dx * hit.gx + dy * hit.gy + dz * hit.gz < 0;
            if (s.opacity < 1 && random.next() >= s.opacity) {
                step(!entering);
                continue;
            }
            boolean body = s.isClear() && !s.thinWalled && !hit.isBoundary;
            if (body && isCovered(entering)) {
                cross(hit.medium, entering);
                step(!entering);
                continue;
            }
            double eta = hit.isBoundary ? across(entering) : indices(s, body, entering);
            face(entering);
            bsdf.set(s, local(0, -1), local(3, -1), local(6, -1), eta, (body || hit.isBoundary) && !entering);
            if (mirrored > 0 && !bsdf.isSmooth()) {
                found.add(hit.x, hit.y, hit.z, dx, dy, dz, tr, tg, tb, from.circuit);
            }
            if (!bsdf.sample(random.next(), random.next(), random.next()) || !bsdf.smooth) {
                return;
            }
            mirrored += bsdf.through && s.thinWalled ? 0 : 1;
            if (!leave(entering, body)) {
                return;
            }
            double left = Math.max(tr, Math.max(tg, tb)) / most; // faint ones end by chance, so that all weigh alike
            if (left < 1) {
                if (!(random.next() < left)) {
                    return;
                }
                tr /= left;
                tg /= left;
                tb /= left;
            }
        }
    }

    /** Goes on in the sampled direction; false where the interpolated normal would let light leak through. */
    private boolean leave(boolean entering, boolean body) {
        double share = bsdf.smooth ? 1 : 1 / bsdf.pdf;
        tr *= bsdf.r * share;
        tg *= bsdf.g * share;
        tb *= bsdf.b * share;
        boolean straightOn = bsdf.smooth && bsdf.through && hit.surface.thinWalled;
        if (!straightOn) {
            lastPdf = bsdf.smooth ? 0 : bsdf.pdf;
            fromX = hit.x;
            fromY = hit.y;
            fromZ = hit.z;
            sinceThen = 0;
        }
        if (!bsdf.smooth) {
            coneSpread = Math.min(WIDEST_CONE, Math.max(coneSpread, 0.25 / Math.sqrt(bsdf.pdf)));
        }
        dx = frame[0] * bsdf.wx + frame[3] * bsdf.wy + frame[6] * bsdf.wz;
        dy = frame[1] * bsdf.wx + frame[4] * bsdf.wy + frame[7] * bsdf.wz;
        dz = frame[2] * bsdf.wx + frame[5] * bsdf.wy + frame[8] * bsdf.wz;
        boolean through = dx * hit.gx + dy * hit.gy + dz * hit.gz < 0 == entering;
        if (through != bsdf.through) {
            return false;
        }
        if (through && body) {
            cross(hit.medium, entering);
        } else if (through && hit.isBoundary) {
            between = entering ? hit.back : hit.front;
        }
        step(entering != through);
        return true;
    }

    /** A faint path ends by chance, the others make up for it. */
    private boolean survives(int bounces, Sampler random) {
        if (bounces <= SURE_BOUNCES) {
            return true;
        }
        double most = Math.min(0.95, Math.max(Math.abs(tr), Math.max(Math.abs(tg), Math.abs(tb))));
        if (!(random.next() < most)) {
            return false;
        }
        tr /= most;
        tg /= most;
        tb /= most;
        return true;
    }

    private void miss(boolean seen) {
        if (seen && backdrop != null) {
            add(environmentCircuit, backdrop[0], backdrop[1], backdrop[2], 1);
            return;
        }
        environment.look(dx, dy, dz, light);
        boolean inPhotons = gathered && lastPdf == 0;
        add(environmentCircuit, light.r, light.g, light.b, lastPdf > 0 ? heuristic(lastPdf, light.pdf) : 1);
        for (Lamp.Sun sun : suns) {
            Vec3 to = sun.towards();
            if (!inPhotons && dx * to.x() + dy * to.y() + dz * to.z() >= Math.cos(sun.radius())) {
                shine(sun, lastPdf > 0 ? heuristic(lastPdf, cone(sun)) : 1);
            }
        }
    }

    /** Adds the radiance of a sun's disc, E/(π sin² r). */
    private void shine(Lamp.Sun sun, double weight) {
        double sine = Math.sin(sun.radius());
        double scale = weight / (Math.PI * sine * sine * CD_PER_UNIT);
        add(
                sun.circuit(),
                sun.illuminance().r(),
                sun.illuminance().g(),
                sun.illuminance().b(),
                scale);
    }

    private static double cone(Lamp.Sun sun) {
        double half = Math.sin(sun.radius() / 2);
        return 1 / (4 * Math.PI * half * half);
    }

    /** Adds what a hit surface emits, as radiance in units of 1,000 cd/m². */
    private void glow(SurfaceValues s, double cosine) {
        if (gathered && lastPdf == 0) {
            return;
        }
        double weight = 1;
        if (lastPdf > 0) {
            double density = scene.lamps().density(fromX, fromY, fromZ, hit.instance, hit.primitive);
            double pdf = density * sinceThen * sinceThen / Math.max(1e-9, Math.abs(cosine));
            weight = heuristic(lastPdf, pdf);
        }
        add(hit.circuit, s.emissionR, s.emissionG, s.emissionB, weight / CD_PER_UNIT);
    }

    private void add(int circuit, double red, double green, double blue, double weight) {
        sum[3 * circuit] += tr * red * weight;
        sum[3 * circuit + 1] += tg * green * weight;
        sum[3 * circuit + 2] += tb * blue * weight;
    }

    private static double heuristic(double own, double other) {
        return own * own / (own * own + other * other);
    }

    /** One look at the surroundings, each sun and one of the lamps, from the hit, through its surface's eyes. */
    private void lookForLight(boolean entering, Sampler random) {
        environment.sample(random.next(), random.next(), light);
        if (asks(light.x, light.y, light.z, entering) && reaches(light.x, light.y, light.z, Double.POSITIVE_INFINITY)) {
            collect(environmentCircuit, light.r, light.g, light.b, heuristic(light.pdf, bsdf.pdf) / light.pdf);
        }
        for (Lamp.Sun sun : suns) {
            lookForSun(sun, entering, random.next(), random.next());
        }
        if (scene.lamps().isEmpty()) {
            return;
        }
        double u = random.next();
        double v = random.next();
        if (!scene.lamps().sample(hit.x, hit.y, hit.z, u, v, random.next(), lamp)) {
            return;
        }
        double far = lamp.distance * (lamp.isPoint ? 0.99999 : 0.9995);
        if (asks(lamp.dx, lamp.dy, lamp.dz, entering) && reaches(lamp.dx, lamp.dy, lamp.dz, far)) {
            scene.dress(lamp, other);
            double weight = lamp.isPoint ? 1 : heuristic(lamp.pdf, bsdf.pdf);
            collect(lamp.circuit, lamp.r, lamp.g, lamp.b, weight / lamp.pdf / CD_PER_UNIT);
        }
    }

    private void lookForSun(Lamp.Sun sun, boolean entering, double u, double v) {
        double half = Math.sin(sun.radius() / 2);
        double cosine = 1 - u * 2 * half * half;
        double sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
        double phi = 2 * Math.PI * v;
        Vec3 to = sun.towards();
        double sign = Math.copySign(1, to.z());
        double a = -1 / (sign + to.z());
        double b = to.x() * to.y() * a;
        double cx = sine * Math.cos(phi);
        double cy = sine * Math.sin(phi);
        double x = cx * (1 + sign * to.x() * to.x() * a) + cy * b + cosine * to.x();
        double y = cx * sign * b + cy * (sign + to.y() * to.y() * a) + cosine * to.y();
        double z = -cx * sign * to.x() - cy * to.y() + cosine * to.z();
        if (asks(x, y, z, entering) && reaches(x, y, z, Double.POSITIVE_INFINITY)) {
            double pdf = cone(sun);
            double disc = Math.sin(sun.radius());
            double weight = heuristic(pdf, bsdf.pdf) / (pdf * Math.PI * disc * disc * CD_PER_UNIT);
            collect(
                    sun.circuit(),
                    sun.illuminance().r(),
                    sun.illuminance().g(),
                    sun.illuminance().b(),
                    weight);
        }
    }

    private void collect(int circuit, double red, double green, double blue, double weight) {
        add(circuit, bsdf.r * red * reaching[0], bsdf.g * green * reaching[1], bsdf.b * blue * reaching[2], weight);
    }

    /** Asks the surface about light from a direction of the world; false where it sends none of it to the eye. */
    private boolean asks(double x, double y, double z, boolean entering) {
        double lx = frame[0] * x + frame[1] * y + frame[2] * z;
        double ly = frame[3] * x + frame[4] * y + frame[5] * z;
        double lz = frame[6] * x + frame[7] * y + frame[8] * z;
        boolean beyond = x * hit.gx + y * hit.gy + z * hit.gz < 0 == entering;
        if (beyond != lz < 0) {
            return false;
        }
        bsdf.evaluate(lx, ly, lz);
        return bsdf.r + bsdf.g + bsdf.b > 0;
    }

    /**
     * Whether light from a direction reaches the hit, from as far as {@code far}; sets what share of it does: panes and
     * what is partly not there let some of it pass, the medium takes some.
     */
    private boolean reaches(double x, double y, double z, double far) {
        double side = x * hit.gx + y * hit.gy + z * hit.gz > 0 ? offset(hit) : -offset(hit);
        double ox = hit.x + side * hit.gx;
        double oy = hit.y + side * hit.gy;
        double oz = hit.z + side * hit.gz;
        reaching[0] = reaching[1] = reaching[2] = 1;
        shadow.set(ox, oy, oz, x, y, z, 0, (float) far);
        if (!scene.isSeeThrough()) {
            if (scene.occluded(shadow)) {
                return false;
            }
        } else if (!passes(ox, oy, oz, x, y, z, far)) {
            return false;
        }
        SurfaceValues m = medium();
        if (m != null && far < Double.POSITIVE_INFINITY) {
            reaching[0] *= kept(m, m.transmissionR, m.extinctionR, far);
            reaching[1] *= kept(m, m.transmissionG, m.extinctionG, far);
            reaching[2] *= kept(m, m.transmissionB, m.extinctionB, far);
        }
        return true;
    }

    private boolean passes(double startX, double startY, double startZ, double x, double y, double z, double far) {
        double ox = startX;
        double oy = startY;
        double oz = startZ;
        double left = far;
        for (int i = 0; i < PASSED_OVER; i++) {
            shadow.set(ox, oy, oz, x, y, z, 0, (float) left);
            if (!scene.closest(shadow, other)) {
                return true;
            }
            scene.dress(other, 0);
            SurfaceValues s = other.surface;
            double facing = x * other.gx + y * other.gy + z * other.gz;
            pane.set(s, 0, 0, Math.abs(facing), s.ior, false);
            pane.straight();
            double gone = 1 - s.opacity;
            reaching[0] *= gone + s.opacity * pane.r;
            reaching[1] *= gone + s.opacity * pane.g;
            reaching[2] *= gone + s.opacity * pane.b;
            if (reaching[0] + reaching[1] + reaching[2] <= 0) {
                return false;
            }
            double side = facing > 0 ? offset(other) : -offset(other);
            ox = other.x + side * other.gx;
            oy = other.y + side * other.gy;
            oz = other.z + side * other.gz;
            left -= other.distance;
        }
        return false;
    }

    /** How far from a surface a ray starts, so that it does not meet the surface it leaves. */
    private double offset(Hit of) {
        double most = Math.max(Math.abs(of.x), Math.max(Math.abs(of.y), Math.abs(of.z)));
        return 2e-6 * Math.max(most, 0.1 * scale);
    }

    /** Goes on from the hit, on the side of its normal or on the other one. */
    private void step(boolean outside) {
        double side = outside ? offset(hit) : -offset(hit);
        px = hit.x + side * hit.gx;
        py = hit.y + side * hit.gy;
        pz = hit.z + side * hit.gz;
    }

    /**
     * The shading frame on the viewer's side: x, y, z in the rows of {@link #frame}. A normal that would mirror the view
     * into the surface is turned back until it does not (Keller et al. 2017, appendix A.3), so that neither interpolated
     * nor mapped normals leave black rims.
     */
    private void face(boolean entering) {
        double s = entering ? 1 : -1;
        double gx = s * hit.gx;
        double gy = s * hit.gy;
        double gz = s * hit.gz;
        double nx = s * hit.nx;
        double ny = s * hit.ny;
        double nz = s * hit.nz;
        double d = -2 * (nx * dx + ny * dy + nz * dz);
        double rx = d * nx + dx;
        double ry = d * ny + dy;
        double rz = d * nz + dz;
        double above = rx * gx + ry * gy + rz * gz;
        double least = Math.min(0.02, -0.5 * (gx * dx + gy * dy + gz * dz));
        if (above < least || d < 2e-4) {
            double lift = least - above;
            rx += lift * gx;
            ry += lift * gy;
            rz += lift * gz;
            double l = 1 / Math.sqrt(rx * rx + ry * ry + rz * rz);
            nx = rx * l - dx;
            ny = ry * l - dy;
            nz = rz * l - dz;
            double n = Math.sqrt(nx * nx + ny * ny + nz * nz);
            boolean sound = n > 1e-4 && nx * gx + ny * gy + nz * gz > 0;
            nx = sound ? nx / n : gx;
            ny = sound ? ny / n : gy;
            nz = sound ? nz / n : gz;
        }
        frame[6] = nx;
        frame[7] = ny;
        frame[8] = nz;
        if (hit.hasTangent) {
            double along = hit.tx * nx + hit.ty * ny + hit.tz * nz;
            double tx = hit.tx - along * nx;
            double ty = hit.ty - along * ny;
            double tz = hit.tz - along * nz;
            double l = Math.sqrt(tx * tx + ty * ty + tz * tz);
            if (l > 1e-6) {
                frame[0] = tx / l;
                frame[1] = ty / l;
                frame[2] = tz / l;
                frame[3] = ny * frame[2] - nz * frame[1];
                frame[4] = nz * frame[0] - nx * frame[2];
                frame[5] = nx * frame[1] - ny * frame[0];
                return;
            }
        }
        double sign = Math.copySign(1, nz); // Duff et al. 2017
        double a = -1 / (sign + nz);
        double b2 = nx * ny * a;
        frame[0] = 1 + sign * nx * nx * a;
        frame[1] = sign * b2;
        frame[2] = -sign * nx;
        frame[3] = b2;
        frame[4] = sign + ny * ny * a;
        frame[5] = -ny;
    }

    private double local(int row, double s) {
        return s * (frame[row] * dx + frame[row + 1] * dy + frame[row + 2] * dz);
    }

    /**
     * Lets light that has entered a body wander in it until it comes out (a random walk, with albedos by Kulla & Conty
     * 2017 as OpenPBR gives them); leaves the surface's place, frame and scattering ready for its way on.
     */
    private boolean wander(SurfaceValues s, boolean entering, Sampler random) {
        tr *= bsdf.r;
        tg *= bsdf.g;
        tb *= bsdf.b;
        double cosine = s.subsurfaceCosine;
        double ar = single(s.subsurfaceR, cosine);
        double ag = single(s.subsurfaceG, cosine);
        double ab = single(s.subsurfaceB, cosine);
        double er = 1 / Math.max(1e-7, s.subsurfacePathR);
        double eg = 1 / Math.max(1e-7, s.subsurfacePathG);
        double eb = 1 / Math.max(1e-7, s.subsurfacePathB);
        int body = hit.instance;
        dx = frame[0] * bsdf.wx + frame[3] * bsdf.wy + frame[6] * bsdf.wz;
        dy = frame[1] * bsdf.wx + frame[4] * bsdf.wy + frame[7] * bsdf.wz;
        dz = frame[2] * bsdf.wx + frame[5] * bsdf.wy + frame[8] * bsdf.wz;
        step(!entering);
        for (int i = 0; i < LONGEST_WALK; i++) {
            double free = freePath(er, eg, eb, random);
            ray.set(px, py, pz, dx, dy, dz, 0, (float) free);
            if (scene.closest(ray, hit)) {
                passFree(er, eg, eb, hit.distance);
                if (hit.instance != body) {
                    return false; // something else stands in it and takes the light
                }
                double s1 = dx * hit.gx + dy * hit.gy + dz * hit.gz > 0 ? 1 : -1;
                dx = -s1 * hit.gx;
                dy = -s1 * hit.gy;
                dz = -s1 * hit.gz;
                return comeOut(s1 > 0, random);
            }
            px += free * dx;
            py += free * dy;
            pz += free * dz;
            scatterFree(er, eg, eb, ar * er, ag * eg, ab * eb, free);
            turn(cosine, random);
            if (!wandersOn(random)) {
                return false;
            }
        }
        return false;
    }

    /** Ends a walk by chance once little is left of it; before that, ending it would only make noise. */
    private boolean wandersOn(Sampler random) {
        double most = Math.max(tr, Math.max(tg, tb)) / FAINT;
        if (most >= 1) {
            return true;
        }
        if (!(random.next() < most)) {
            return false;
        }
        tr /= most;
        tg /= most;
        tb /= most;
        return true;
    }

    private boolean comeOut(boolean entering, Sampler random) {
        hit.surface = WAY_OUT;
        hit.hasTangent = false;
        hit.nx = hit.gx;
        hit.ny = hit.gy;
        hit.nz = hit.gz;
        if (!entering) { // an inside-out mesh: its front is where the light comes out
            hit.setGeometric(-hit.gx, -hit.gy, -hit.gz);
            hit.setShading(hit.gx, hit.gy, hit.gz);
        }
        face(true);
        bsdf.set(WAY_OUT, 0, 0, 1, WAY_OUT.ior, false);
        lookForLight(true, random);
        gatherHere(true);
        return bsdf.sample(random.next(), random.next(), random.next());
    }

    /** The albedo of one scattering that makes a body of this colour. */
    private static double single(double colour, double cosine) {
        double c = Math.max(0, Math.min(1, colour));
        double s = 4.09712 + 4.20863 * c - Math.sqrt(9.59217 + 41.6808 * c + 17.7126 * c * c);
        return Math.max(0, Math.min(1, (1 - s * s) / (1 - cosine * s * s)));
    }

    // --- free paths in a medium: a component is chosen by what the path carries of it, all three are weighted by it
    // ----

    private double freePath(double er, double eg, double eb, Sampler random) {
        double r = Math.abs(tr);
        double g = Math.abs(tg);
        double b = Math.abs(tb);
        double all = Math.max(1e-30, r + g + b);
        chances[0] = r / all;
        chances[1] = g / all;
        chances[2] = b / all;
        double w = random.next();
        double e = w < chances[0] ? er : w < chances[0] + chances[1] ? eg : eb;
        return e <= 0 ? Double.POSITIVE_INFINITY : -Math.log(1 - random.next()) / e;
    }

    private void passFree(double er, double eg, double eb, double way) {
        double r = Math.exp(-er * way);
        double g = Math.exp(-eg * way);
        double b = Math.exp(-eb * way);
        double pdf = Math.max(1e-300, chances[0] * r + chances[1] * g + chances[2] * b);
        tr *= r / pdf;
        tg *= g / pdf;
        tb *= b / pdf;
    }

    private void scatterFree(double er, double eg, double eb, double sr, double sg, double sb, double way) {
        double r = Math.exp(-er * way);
        double g = Math.exp(-eg * way);
        double b = Math.exp(-eb * way);
        double pdf = Math.max(1e-300, chances[0] * er * r + chances[1] * eg * g + chances[2] * eb * b);
        tr *= sr * r / pdf;
        tg *= sg * g / pdf;
        tb *= sb * b / pdf;
    }

    /** Turns the path by Henyey & Greenstein's phase function (1941). */
    private void turn(double g, Sampler random) {
        double u = random.next();
        double cosine;
        if (Math.abs(g) < 1e-3) {
            cosine = 1 - 2 * u;
        } else {
            double q = (1 - g * g) / (1 - g + 2 * g * u);
            cosine = (1 + g * g - q * q) / (2 * g);
        }
        double sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
        double phi = 2 * Math.PI * random.next();
        double sign = Math.copySign(1, dz);
        double a = -1 / (sign + dz);
        double b = dx * dy * a;
        double cx = sine * Math.cos(phi);
        double cy = sine * Math.sin(phi);
        double x = cx * (1 + sign * dx * dx * a) + cy * b + cosine * dx;
        double y = cx * sign * b + cy * (sign + dy * dy * a) + cosine * dy;
        double z = -cx * sign * dx - cy * dy + cosine * dz;
        double l = 1 / Math.sqrt(x * x + y * y + z * z);
        dx = x * l;
        dy = y * l;
        dz = z * l;
    }

    /**
     * Takes the path through the medium it is in: what that absorbs is lost (colour^(distance/depth)); where it is cloudy
     * the path may be scattered before it gets there.
     *
     * @return whether it was
     */
    private boolean travel(double way, Sampler random) {
        SurfaceValues m = medium();
        if (m == null || m.transmissionDepth <= 0) {
            return false;
        }
        if (!m.isCloudy()) {
            if (way < Double.POSITIVE_INFINITY) {
                tr *= kept(m, m.transmissionR, 0, way);
                tg *= kept(m, m.transmissionG, 0, way);
                tb *= kept(m, m.transmissionB, 0, way);
            }
            return false;
        }
        double free = freePath(m.extinctionR, m.extinctionG, m.extinctionB, random);
        if (free >= way) {
            passFree(m.extinctionR, m.extinctionG, m.extinctionB, way);
            return false;
        }
        scatterFree(m.extinctionR, m.extinctionG, m.extinctionB, m.scatterR, m.scatterG, m.scatterB, free);
        px += free * dx;
        py += free * dy;
        pz += free * dz;
        turn(m.scatterCosine, random);
        lastPdf = 0; // nothing looks for light from within: boundaries bend it
        sinceThen = 0;
        return true;
    }

    private static double kept(SurfaceValues m, double colour, double extinction, double way) {
        if (m.isCloudy()) {
            return Math.exp(-extinction * way);
        }
        return m.transmissionDepth > 0 ? Math.pow(Math.max(1e-6, colour), way / m.transmissionDepth) : 1;
    }

    // --- the bodies that the path is in ---------------------------------------------------------------------------

    private int strongest(int except) {
        int best = -1;
        for (int i = 0; i < mediaCount; i++) {
            if (i != except && (best < 0 || mediaPriority[i] >= mediaPriority[best])) {
                best = i;
            }
        }
        return best;
    }

    private int entered() {
        for (int i = mediaCount - 1; i >= 0; i--) {
            if (mediaInstance[i] == hit.instance) {
                return i;
            }
        }
        return -1;
    }

    /** Whether another body, of higher priority, fills the place on both sides of the boundary. */
    private boolean isCovered(boolean entering) {
        int other = strongest(entering ? -1 : entered());
        return other >= 0 && mediaPriority[other] > hit.priority;
    }

    private void cross(SurfaceValues s, boolean entering) {
        if (entering) {
            if (mediaCount < MOST_MEDIA) {
                media[mediaCount] = s;
                mediaInstance[mediaCount] = hit.instance;
                mediaPriority[mediaCount++] = hit.priority;
            }
            return;
        }
        int i = entered();
        if (i >= 0) {
            mediaCount--;
            for (int k = i; k < mediaCount; k++) {
                media[k] = media[k + 1];
                mediaInstance[k] = mediaInstance[k + 1];
                mediaPriority[k] = mediaPriority[k + 1];
            }
        }
    }

    /** The index beyond the hit over the index before it. */
    private double indices(SurfaceValues s, boolean body, boolean entering) {
        if (!body) {
            SurfaceValues around = medium();
            return s.ior / (around == null ? 1 : index(around));
        }
        int beyond = strongest(entering ? -1 : entered());
        double outside = beyond >= 0 ? index(media[beyond]) : between == null ? 1 : index(between);
        double inside = index(s);
        double eta = entering ? inside / outside : outside / inside;
        return Math.abs(eta - 1) < 1e-5 ? 1.00001 : eta;
    }

    /** A body's index; the first that disperses makes the path one of a single wavelength. */
    private double index(SurfaceValues s) {
        if (s.dispersion <= 0) {
            return s.ior;
        }
        if (wavelength == 0) {
            wavelength = Spectrum.SHORTEST + (Spectrum.LONGEST - Spectrum.SHORTEST) * wavelengthNumber;
            Spectrum.weight(wavelength, spectral);
            tr *= spectral[0];
            tg *= spectral[1];
            tb *= spectral[2];
        }
        return Spectrum.index(s.ior, s.abbe, s.dispersion, wavelength);
    }

    /** The medium that the path is in; null for air. */
    private SurfaceValues medium() {
        int in = strongest(-1);
        return in >= 0 ? media[in] : between;
    }

    /** The index beyond an open boundary over the one before it; the path is where the boundary says it is. */
    private double across(boolean entering) {
        SurfaceValues before = entering ? hit.front : hit.back;
        SurfaceValues beyond = entering ? hit.back : hit.front;
        between = before;
        double eta = (beyond == null ? 1 : index(beyond)) / (before == null ? 1 : index(before));
        return Math.abs(eta - 1) < 1e-5 ? 1.00001 : eta;
    }

    /** What the eye is in: bodies that a ray from it leaves without having entered, and what the first boundary says. */
    private Surrounded surroundings(Vec3 eye) {
        double x = 0.2672612419124244;
        double y = 0.8017837257372732;
        double z = 0.5345224838248488;
        px = eye.x();
        py = eye.y();
        pz = eye.z();
        Map<Integer, Integer> entered = new HashMap<>();
        List<SurfaceValues> around = new ArrayList<>();
        List<Integer> instances = new ArrayList<>();
        List<Integer> priorities = new ArrayList<>();
        SurfaceValues first = null;
        boolean told = false;
        for (int i = 0; i < 1024; i++) {
            ray.set(px, py, pz, x, y, z, 0, Float.POSITIVE_INFINITY);
            if (!scene.closest(ray, hit)) {
                break;
            }
            boolean outward = x * hit.gx + y * hit.gy + z * hit.gz > 0;
            boolean body = hit.medium.isClear() && !hit.medium.thinWalled && !hit.isBoundary;
            if (hit.isBoundary && !told) {
                told = true;
                first = outward ? hit.back : hit.front;
            } else if (body) {
                int count = entered.merge(hit.instance, outward ? -1 : 1, Integer::sum);
                if (count < 0 && !instances.contains(hit.instance) && instances.size() < MOST_MEDIA) {
                    around.add(hit.medium);
                    instances.add(hit.instance);
                    priorities.add(hit.priority);
                }
            }
            step(outward);
        }
        return new Surrounded(
                around.toArray(new SurfaceValues[0]),
                instances.stream().mapToInt(Integer::intValue).toArray(),
                priorities.stream().mapToInt(Integer::intValue).toArray(),
                first);
    }
}
