package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.material.Surface;
import app.zolvan.core.render.sample.Directions;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.Hit;
import app.zolvan.core.render.scene.Lamps;
import app.zolvan.core.render.scene.OwnReflection;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.Spectrum;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Ray;
import java.util.Arrays;

/**
 * Follows light backwards from the eye: at each surface it looks for light where the surroundings are bright and on what
 * glows, and goes on in a direction that the surface prefers; each kind of path is counted once, by multiple importance
 * sampling (Veach 1997, power heuristic). Clear bodies are nested by priority; what they absorb grows with the way through
 * them; dispersion splits a path into one wavelength. One object serves a thread; nothing is allocated on the way.
 */
public final class PathTracer {
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
    /** The part it met and the number of the material there (in the order in which the scene got them), or −1. */
    public int part;

    public int material;

    private final RenderScene scene;
    private final Environment environment;
    private final Disc[] suns;
    private double[] backdrop;
    private final int longest;
    private final Ray ray = new Ray();
    private final Ray shadow = new Ray();
    private final Hit hit = new Hit();
    private final Hit other = new Hit();
    private final Bsdf bsdf = new Bsdf();
    private final Bsdf pane = new Bsdf();
    private final Environment.Sample light = new Environment.Sample();
    private final Lamps.Point lamp = new Lamps.Point();
    private final NearLamp near = new NearLamp();
    private final double[] spectral = new double[3];
    private final double[] reaching = new double[3];
    private final double[] chances = new double[3];
    private final double[] turned = new double[3];
    private final Media media = new Media();
    private final double[] frame = new double[9];
    private final Media start;
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
    /** The same when it came to the place at hand: what is sharp of its answer to lamps is in those photons. */
    private boolean gatheredBefore;
    /** What share of the path's light is not in photons already, should it meet a lamp or sun where it goes now. */
    private double ownR;

    private double ownG;
    private double ownB;

    private Guide guide;
    /** Of the place at hand: its cell of the guide, and how often the guide is followed there. */
    private int cell;

    private double guided;
    /** With what density the last direction was, or would be, chosen. */
    private double density;

    private GuideRecords scouted;
    /** Whether the path has only gone straight on so far, or by way of clear bodies, so that the backdrop lies behind. */
    private boolean seen;

    /** Where the ground lies; −∞ for none. */
    private double ground = Double.NEGATIVE_INFINITY;
    /** Whether the backdrop is a cloth that is seen by way of clear bodies, too. */
    private boolean cloth;
    /** By how much light that falls on the ground makes the backdrop's grey there. */
    private final double[] groundGain = new double[3];

    /** Whether the path is there now. */
    private boolean onGround;

    /** The way in which the path began. */
    private double eyeX;

    private double eyeY;
    private double eyeZ;

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
    /** The density with which a look through the panes from there would have come this way. */
    private double crossedSince;
    /** The same for the last look for light. */
    private double crossed;
    /** What the last surface mirrors in the place of the surroundings, and which share of the path's light it mirrors; null for these. */
    private OwnReflection mirrors;

    private double mirrorR;
    private double mirrorG;
    private double mirrorB;
    private final double[] mirrored = new double[4];
    /** How often the surroundings are looked for through panes; and how often where the path last scattered. */
    private double paned;

    private double panedThere;
    /** Whether the path was last scattered in a medium, and lamps were looked for on the way there. */
    private boolean within;

    private double coneWidth;
    private double coneSpread;
    /** By how much what reflects sharply is blurred, as a share of what the path has been scattered by; 0 for not at all. */
    private double softening;
    /** GGX's α that it makes of it on the path at hand. */
    private double blur;

    /**
     * @param eye      where all paths begin; null for anywhere in the air
     * @param backdrop what the eye sees behind everything, scene-linear; null for the surroundings themselves
     * @param longest  how many bounces a path may have
     */
    public PathTracer(RenderScene scene, Environment environment, Vec3 eye, double[] backdrop, int longest) {
        this.scene = scene;
        this.environment = environment;
        this.suns = scene.suns().stream().map(Disc::of).toArray(Disc[]::new);
        this.backdrop = backdrop;
        this.longest = longest;
        this.sum = new double[3 * scene.circuits()];
        this.start = eye == null ? new Media() : Media.around(scene, eye);
    }

    /** Has the backdrop be a cloth that runs on as the ground; {@link #behind} says how it looks. */
    void standOn(Backcloth on) {
        cloth = true;
        backdrop = new double[3];
        double[] open = environment.onTheGround();
        for (Disc sun : suns) {
            open[0] += sun.r() * sun.onTheGround();
            open[1] += sun.g() * sun.onTheGround();
            open[2] += sun.b() * sun.onTheGround();
        }
        if (Math.min(open[0], Math.min(open[1], open[2])) > 0) { // else it would be as dark with the model as without
            ground = on.ground();
            for (int k = 0; k < 3; k++) {
                groundGain[k] = Math.PI / open[k];
            }
        }
    }

    /** What lies behind the paths that follow. */
    void behind(double grey) {
        Arrays.fill(backdrop, grey);
    }

    /** How many rays it has sent through the scene. */
    public long rays() {
        return ray.sent + shadow.sent;
    }

    /** Gathers these from now on, instead of meeting lamps by way of mirrors and lenses; null for none. */
    void gather(Photons from, double strength) {
        photons = from;
        photonStrength = strength;
    }

    /** Follows it where that pays; null for none. */
    void follow(Guide by, double throughPanes) {
        guide = by;
        paned = throughPanes;
    }

    /** Keeps what light it meets from now on. */
    void scout(GuideRecords into) {
        scouted = into;
    }

    /**
     * Blurs what sharp reflections show of light to what has scattered it: a polished thing beside a matt one throws patches
     * of light that paths from the matt one find so rarely that each is a spark. What makes no energy and gets finer with
     * every sample comes to the same picture (Kaplanyan & Dachsbacher 2013). What the eye sees in a mirror stays sharp.
     *
     * @param share of the angle by which the path was scattered; 0 for not at all
     */
    void soften(double share) {
        softening = share;
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
        walk(origin, x, y, z, spread, random);
        if (scouted != null) {
            scouted.close(found());
        }
    }

    private void walk(Vec3 origin, double x, double y, double z, double spread, Sampler random) {
        begin(origin.x(), origin.y(), origin.z(), x, y, z, start, random);
        coneSpread = spread;
        int bounces = 0;
        for (int passed = 0; bounces <= longest; ) {
            ray.set(px, py, pz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            boolean met = scene.closest(ray, hit);
            double toGround = toGround();
            double way = Math.min(toGround, met ? hit.distance : Double.POSITIVE_INFINITY);
            lookForLampOnTheWay(way, random);
            if (travel(way, random)) {
                if (++bounces > longest || !survives(bounces, random)) {
                    return;
                }
                continue;
            }
            if (way == Double.POSITIVE_INFINITY) {
                miss();
                return;
            }
            if (way == toGround) {
                if (!land(way, bounces, random)) {
                    return;
                }
                bounces++;
                continue;
            }
            sinceThen += way;
            double facing = dx * hit.gx + dy * hit.gy + dz * hit.gz;
            coneWidth += coneSpread * way;
            scene.dress(hit, coneWidth / Math.max(0.1, Math.abs(facing)));
            SurfaceValues s = hit.surface;
            boolean entering = facing < 0;
            double crossing =
                    paned > 0 && lastPdf > 0 && s.isPane() ? crossing(hit, fromX, fromY, fromZ, sinceThen, facing) : 0;
            if (isLookedThrough(bounces, entering) || isPassedOver(entering, random)) {
                crossedSince += crossing;
                if (++passed > PASSED_OVER) {
                    return;
                }
                continue;
            }
            boolean body = hit.isBody();
            double eta = indices(entering);
            if (bounces == 0) {
                remember(s, entering);
            }
            if (s.emits()) {
                glow(s, facing);
            }
            if (bounces == longest) {
                return;
            }
            ask(eta, entering);
            if (!bsdf.isSmooth()) {
                beGuided();
                lookForLight(entering, random);
                gatherHere(entering);
            }
            if (!choose(entering, random.next(), random.next(), random.next())) {
                return;
            }
            if (scouted != null && !bsdf.smooth && !bsdf.walks) {
                tellStep();
            }
            if (bsdf.walks) {
                if (!wander(s, entering, random)) {
                    return;
                }
                entering = true;
                body = false;
            }
            crossedSince += crossing;
            if (!leave(entering, body)) {
                return;
            }
            bounces++;
            if (!survives(bounces, random)) {
                return;
            }
        }
    }

    private void begin(double ox, double oy, double oz, double x, double y, double z, Media in, Sampler random) {
        px = ox;
        py = oy;
        pz = oz;
        dx = x;
        dy = y;
        dz = z;
        Arrays.fill(sum, 0);
        Arrays.fill(albedo, 0);
        Arrays.fill(normal, 0);
        depth = 0;
        part = -1;
        material = -1;
        tr = tg = tb = 1;
        mirrors = null;
        lastPdf = 0; // an eye's ray: whatever it meets is seen in full
        gathered = false;
        own(1, 1, 1);
        seen = true;
        eyeX = x;
        eyeY = y;
        eyeZ = z;
        sinceThen = 0;
        crossedSince = 0;
        coneWidth = 0;
        coneSpread = 0;
        blur = 0;
        within = false;
        media.copy(in);
        wavelength = 0;
        double number = random.next();
        wavelengthNumber = fixed < 0 ? number : fixed;
    }

    /** How far it is to the ground, where the path sees it from above. */
    private double toGround() {
        return seen && dy < 0 && py > ground ? (ground - py) / dy : Double.POSITIVE_INFINITY;
    }

    /**
     * Comes to the ground: the backdrop's grey, less the light that the model takes from there, and more by what shines
     * back from it. It is white, and all that falls on it is weighed so that open ground has that grey; since that is known,
     * only what differs from it is left to chance.
     *
     * @return whether the path goes on from there
     */
    private boolean land(double way, int bounces, Sampler random) {
        sinceThen += way;
        coneWidth += coneSpread * way;
        hit.x = px + way * dx;
        hit.y = ground;
        hit.z = pz + way * dz;
        hit.instance = -1;
        hit.primitive = -1;
        hit.material = -1;
        hit.medium = WAY_OUT;
        hit.isBoundary = false;
        hit.setGeometric(0, 1, 0);
        setWhite();
        if (bounces == 0) {
            remember(WAY_OUT, true);
            Arrays.fill(albedo, backdrop[0]);
        }
        add(scene.surroundings(), backdrop[0], backdrop[1], backdrop[2], 1);
        tr *= groundGain[0] * backdrop[0];
        tg *= groundGain[1] * backdrop[1];
        tb *= groundGain[2] * backdrop[2];
        onGround = true;
        boolean goesOn = bounces < longest && answerWhite(random);
        if (goesOn) {
            world();
            takeAwayAhead();
            goesOn = leave(true, false);
        }
        onGround = false;
        return goesOn;
    }

    /** Goes straight on through what is not there for an eye. */
    private boolean isLookedThrough(int bounces, boolean entering) {
        boolean through = bounces == 0 && hit.isLookedThrough;
        if (through) {
            step(!entering);
        }
        return through;
    }

    /**
     * Goes straight on through what is not there for this path: a surface that is partly absent, or the boundary of a body
     * within one of higher priority.
     *
     * @return whether it does
     */
    private boolean isPassedOver(boolean entering, Sampler random) {
        double opacity = hit.surface.opacity;
        if (opacity < 1 && random.next() >= opacity) {
            step(!entering);
            return true;
        }
        if (hit.isBody() && media.covers(hit, entering)) {
            media.cross(hit, entering);
            lastPdf = 0; // those who look for light don't see through it
            within = false;
            step(!entering);
            return true;
        }
        return false;
    }

    /** Makes the hit's surface ready to answer, seen from where the path came. */
    private void ask(double eta, boolean entering) {
        gatheredBefore = gathered;
        face(entering);
        boolean fromInside = (hit.isBody() || hit.isBoundary) && !entering;
        hit.levelCoat(frame, entering ? 1 : -1);
        bsdf.set(hit.surface, local(0, -1), local(3, -1), local(6, -1), eta, fromInside, Math.sqrt(blur));
        guided = 0;
    }

    private void beGuided() {
        if (guide != null) {
            cell = guide.cell(hit.x, hit.y, hit.z);
            guided = guide.share(cell) * bsdf.spreads();
        }
    }

    /** The density with which a direction about which the surface was just asked would be chosen. */
    private double density(double x, double y, double z) {
        return guided > 0 ? (1 - guided) * bsdf.pdf + guided * guide.density(cell, x, y, z) : bsdf.pdf;
    }

    /** Chooses where to go on, by the guide or by the surface. */
    private boolean choose(boolean entering, double u, double v, double w) {
        if (w < guided) {
            guide.sample(cell, u, v, turned);
            double x = turned[0];
            double y = turned[1];
            double z = turned[2];
            if (!asks(x, y, z, entering)) {
                return false;
            }
            bsdf.take(
                    frame[0] * x + frame[1] * y + frame[2] * z,
                    frame[3] * x + frame[4] * y + frame[5] * z,
                    frame[6] * x + frame[7] * y + frame[8] * z);
            density = density(x, y, z);
            return true;
        }
        if (!bsdf.sample(u, v, guided > 0 ? (w - guided) / (1 - guided) : w)) {
            return false;
        }
        if (bsdf.smooth || bsdf.walks) {
            density = 1 - guided;
        } else {
            density = bsdf.pdf;
            if (guided > 0) {
                world();
                density = density(turned[0], turned[1], turned[2]);
            }
        }
        return true;
    }

    /** The sampled direction as one of the world. */
    private void world() {
        turned[0] = frame[0] * bsdf.wx + frame[3] * bsdf.wy + frame[6] * bsdf.wz;
        turned[1] = frame[1] * bsdf.wx + frame[4] * bsdf.wy + frame[7] * bsdf.wz;
        turned[2] = frame[2] * bsdf.wx + frame[5] * bsdf.wy + frame[8] * bsdf.wz;
    }

    /** Has scouting keep where the path goes on, if a guide could have chosen that. */
    private void tellStep() {
        double through = brightness(tr, tg, tb);
        double value = brightness(bsdf.r, bsdf.g, bsdf.b);
        double spreads = bsdf.spreads();
        if (wavelength != 0 || !(through > 0 && value > 0 && spreads > 0)) {
            return;
        }
        world();
        scouted.open(
                hit.x,
                hit.y,
                hit.z,
                turned[0],
                turned[1],
                turned[2],
                value,
                density,
                bsdf.pdf,
                guide == null ? -1 : guide.density(cell, turned[0], turned[1], turned[2]),
                spreads,
                brightness(bsdf.r * tr, bsdf.g * tg, bsdf.b * tb) / density,
                found());
    }

    private double found() {
        double all = 0;
        for (int i = 0; i < sum.length; i += 3) {
            all += brightness(sum[i], sum[i + 1], sum[i + 2]);
        }
        return all;
    }

    private static double brightness(double r, double g, double b) {
        return 0.2126 * r + 0.7152 * g + 0.0722 * b;
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
        material = hit.material;
    }

    /** Adds the light of the photons around, each scattered by the surface here. */
    private void gatherHere(boolean entering) {
        if (photons == null) {
            return;
        }
        gatherScale = photonStrength / (Math.PI * photons.radius() * photons.radius() * CD_PER_UNIT);
        gatherEntering = entering;
        photons.near(hit.x, hit.y, hit.z, gatherer);
        gathered = true;
    }

    private void own(double red, double green, double blue) {
        ownR = red;
        ownG = green;
        ownB = blue;
    }

    private void take(double x, double y, double z, double red, double green, double blue, int circuit) {
        if (asksForLamp(-x, -y, -z, gatherEntering)) {
            double cosine = Math.max(1e-3, Math.abs(frame[6] * x + frame[7] * y + frame[8] * z));
            add(circuit, bsdf.r * red, bsdf.g * green, bsdf.b * blue, gatherScale / cosine);
        }
    }

    /**
     * Follows light from a lamp through mirrors and lenses, polished ones too, and leaves it where something scatters it.
     *
     * @param in    what the lamp stands in
     * @param share of the lamps' light that it stands for
     */
    void send(Lamps.Departure from, Media in, double share, Sampler random, Photons.Found found) {
        double lift = scene.lift(); // a glowing triangle is not met by its own light
        begin(
                from.x + lift * from.dx,
                from.y + lift * from.dy,
                from.z + lift * from.dz,
                from.dx,
                from.dy,
                from.dz,
                in,
                random);
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
            boolean entering = dx * hit.gx + dy * hit.gy + dz * hit.gz < 0;
            if (isPassedOver(entering, random)) {
                continue;
            }
            boolean body = hit.isBody();
            ask(indices(entering), entering);
            if (mirrored > 0 && !bsdf.isSmooth()) {
                found.add(hit.x, hit.y, hit.z, dx, dy, dz, tr, tg, tb, from.circuit);
            }
            if (!choose(entering, random.next(), random.next(), random.next()) || bsdf.walks) {
                return;
            }
            if (!bsdf.smooth) {
                bsdf.keepSharp();
            }
            if (bsdf.r + bsdf.g + bsdf.b <= 0) {
                return;
            }
            mirrored += bsdf.smooth && bsdf.through && hit.surface.thinWalled ? 0 : 1;
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
        tr *= bsdf.r / density;
        tg *= bsdf.g / density;
        tb *= bsdf.b / density;
        boolean straightOn = bsdf.smooth && bsdf.through && hit.surface.thinWalled;
        if (!straightOn) {
            seen &= cloth && bsdf.smooth && bsdf.through;
            mirrors = hit.reflection;
            mirrorR = share(bsdf.mirroredR, bsdf.r);
            mirrorG = share(bsdf.mirroredG, bsdf.g);
            mirrorB = share(bsdf.mirroredB, bsdf.b);
            if (bsdf.smooth) {
                double all = gathered ? 0 : 1;
                own(all, all, all);
            } else if (gatheredBefore) {
                own(1 - share(bsdf.sharpR, bsdf.r), 1 - share(bsdf.sharpG, bsdf.g), 1 - share(bsdf.sharpB, bsdf.b));
            } else {
                own(1, 1, 1);
            }
            lastPdf = bsdf.smooth ? 0 : density;
            within = false;
            panedThere = onGround ? 0 : paned;
            fromX = hit.x;
            fromY = hit.y;
            fromZ = hit.z;
            sinceThen = 0;
            crossedSince = 0;
        }
        if (!bsdf.smooth) {
            coneSpread = Math.min(WIDEST_CONE, Math.max(coneSpread, 0.25 / Math.sqrt(density)));
            blur = softening * coneSpread;
        }
        world();
        dx = turned[0];
        dy = turned[1];
        dz = turned[2];
        boolean through = dx * hit.gx + dy * hit.gy + dz * hit.gz < 0 == entering;
        if (through != bsdf.through) {
            return false;
        }
        if (through && body) {
            media.cross(hit, entering);
        } else if (through && hit.isBoundary) {
            media.stand(entering ? hit.back : hit.front);
        }
        step(entering != through);
        return true;
    }

    private static double share(double part, double all) {
        return part > 0 ? Math.min(1, part / all) : 0;
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

    private void miss() {
        if (seen && backdrop != null && dx * eyeX + dy * eyeY + dz * eyeZ > 0) {
            add(scene.surroundings(), backdrop[0], backdrop[1], backdrop[2], 1);
            return;
        }
        environment.look(dx, dy, dz, light);
        if (mirrors != null) {
            mirrors.look(dx, dy, dz, mirrored);
            light.r += mirrorR * (mirrored[0] - light.r);
            light.g += mirrorG * (mirrored[1] - light.g);
            light.b += mirrorB * (mirrored[2] - light.b);
        }
        add(
                scene.surroundings(),
                light.r,
                light.g,
                light.b,
                lastPdf > 0 ? heuristic(lastPdf, (1 - panedThere) * light.pdf + panedThere * crossedSince) : 1);
        for (Disc sun : suns) {
            if (sun.isMet(dx, dy, dz)) {
                double weight = lastPdf > 0 ? heuristic(lastPdf, sun.pdf()) : 1;
                add(sun.circuit(), ownR * sun.r(), ownG * sun.g(), ownB * sun.b(), weight);
            }
        }
    }

    /** Adds what a hit surface emits, as radiance in units of 1,000 cd/m². */
    private void glow(SurfaceValues s, double cosine) {
        double weight = 1;
        if (lastPdf > 0 || within) {
            double density = scene.lamps().density(fromX, fromY, fromZ, hit.instance, hit.primitive);
            if (within && density > 0) {
                return;
            }
            double pdf = density * sinceThen * sinceThen / Math.max(1e-9, Math.abs(cosine));
            weight = heuristic(lastPdf, pdf);
        }
        add(hit.circuit, ownR * s.emissionR, ownG * s.emissionG, ownB * s.emissionB, weight / CD_PER_UNIT);
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
        lookAround(entering, random);
        for (Disc sun : suns) {
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
        if (asksForLamp(lamp.dx, lamp.dy, lamp.dz, entering) && reaches(lamp.dx, lamp.dy, lamp.dz, asFarAs(lamp))) {
            scene.dress(lamp, other);
            double weight = lamp.isPoint ? 1 : heuristic(lamp.pdf, density(lamp.dx, lamp.dy, lamp.dz));
            collect(lamp.circuit, lamp.r, lamp.g, lamp.b, weight / lamp.pdf / CD_PER_UNIT);
        }
    }

    /** Looks at the surroundings where they are bright, or where a pane shows them. */
    private void lookAround(boolean entering, Sampler random) {
        double panedHere = onGround ? 0 : paned;
        double u = random.next();
        double v = random.next();
        double w = panedHere > 0 ? random.next() : 1;
        boolean byPane = w < panedHere;
        if (byPane) {
            if (!scene.panes().sample(hit.x, hit.y, hit.z, u, v, w / panedHere, lamp)) {
                return;
            }
            environment.look(lamp.dx, lamp.dy, lamp.dz, light);
            light.x = lamp.dx;
            light.y = lamp.dy;
            light.z = lamp.dz;
        } else {
            environment.sample(u, v, light);
        }
        if (!(hit.reflection != null || light.r + light.g + light.b > 0)
                || !asks(light.x, light.y, light.z, entering)) {
            return;
        }
        boolean reaches = reaches(light.x, light.y, light.z, Double.POSITIVE_INFINITY);
        if (onGround) {
            double weight = heuristic(light.pdf, density(light.x, light.y, light.z)) / light.pdf;
            takeAway(scene.surroundings(), light.r, light.g, light.b, reaches, weight);
            return;
        }
        if (!reaches || (byPane && crossed == 0)) {
            return;
        }
        mirrorOwn();
        double own = density(light.x, light.y, light.z);
        double pdf = (1 - panedHere) * light.pdf + panedHere * crossed;
        collect(scene.surroundings(), light.r, light.g, light.b, heuristic(pdf, own) / pdf);
        if (scouted != null && panedHere > 0) {
            double value = brightness(
                    bsdf.r * light.r * reaching[0], bsdf.g * light.g * reaching[1], bsdf.b * light.b * reaching[2]);
            scouted.look(value, pdf, light.pdf, crossed, own);
        }
    }

    /** Has the surface mirror its own surroundings in the place of those just looked at. */
    private void mirrorOwn() {
        if (hit.reflection != null) {
            hit.reflection.look(light.x, light.y, light.z, mirrored);
            light.r += share(bsdf.mirroredR, bsdf.r) * (mirrored[0] - light.r);
            light.g += share(bsdf.mirroredG, bsdf.g) * (mirrored[1] - light.g);
            light.b += share(bsdf.mirroredB, bsdf.b) * (mirrored[2] - light.b);
        }
    }

    /** The density per steradian with which a look through the panes from a place goes through one, so far on. */
    private double crossing(Hit pane, double x, double y, double z, double way, double cosine) {
        double density = scene.panes().density(x, y, z, pane.instance, pane.primitive);
        return density * way * way / Math.max(1e-6, Math.abs(cosine));
    }

    private void lookForSun(Disc sun, boolean entering, double u, double v) {
        Directions.about(sun.x(), sun.y(), sun.z(), 1 - u * sun.span(), 2 * Math.PI * v, turned);
        double x = turned[0];
        double y = turned[1];
        double z = turned[2];
        if (!asksForLamp(x, y, z, entering)) {
            return;
        }
        boolean reaches = reaches(x, y, z, Double.POSITIVE_INFINITY);
        double weight = heuristic(sun.pdf(), density(x, y, z)) / sun.pdf();
        if (onGround) {
            takeAway(sun.circuit(), sun.r(), sun.g(), sun.b(), reaches, weight);
        } else if (reaches) {
            collect(sun.circuit(), sun.r(), sun.g(), sun.b(), weight);
        }
    }

    /** Has open ground in light that was looked for: what of it does not reach the ground is missing from the backdrop's grey. */
    private void takeAway(int circuit, double red, double green, double blue, boolean reaches, double weight) {
        for (int k = 0; k < 3; k++) {
            reaching[k] = (reaches ? reaching[k] : 0) - 1;
        }
        collect(circuit, red, green, blue, weight);
    }

    /** Open ground in light that the path may find where it goes on now: it is missing until it does. */
    private void takeAwayAhead() {
        environment.look(turned[0], turned[1], turned[2], light);
        double r = -bsdf.r / density;
        double g = -bsdf.g / density;
        double b = -bsdf.b / density;
        double weight = heuristic(density, light.pdf);
        add(scene.surroundings(), r * light.r, g * light.g, b * light.b, weight);
        for (Disc sun : suns) {
            if (sun.isMet(turned[0], turned[1], turned[2])) {
                add(sun.circuit(), r * sun.r(), g * sun.g(), b * sun.b(), heuristic(density, sun.pdf()));
            }
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

    /** The same about light of a lamp or sun: what of it photons have brought already is left out. */
    private boolean asksForLamp(double x, double y, double z, boolean entering) {
        boolean sends = asks(x, y, z, entering);
        if (sends && gatheredBefore) {
            bsdf.leaveOutSharp();
            sends = bsdf.r + bsdf.g + bsdf.b > 0;
        }
        return sends;
    }

    /**
     * Whether light from a direction reaches the hit, from as far as {@code far}; sets what share of it does: panes and
     * what is partly not there let some of it pass, the medium takes some.
     */
    private boolean reaches(double x, double y, double z, double far) {
        double side = x * hit.gx + y * hit.gy + z * hit.gz > 0 ? scene.offset(hit) : -scene.offset(hit);
        return reaches(hit.x + side * hit.gx, hit.y + side * hit.gy, hit.z + side * hit.gz, x, y, z, far);
    }

    private boolean reaches(double ox, double oy, double oz, double x, double y, double z, double far) {
        reaching[0] = reaching[1] = reaching[2] = 1;
        crossed = 0;
        shadow.set(ox, oy, oz, x, y, z, 0, (float) far);
        if (!scene.isSeeThrough()) {
            if (scene.occluded(shadow)) {
                return false;
            }
        } else if (!passes(ox, oy, oz, x, y, z, far)) {
            return false;
        }
        SurfaceValues m = media.here();
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
        double way = 0;
        SurfaceValues in = media.here();
        double around = in == null ? 1 : in.ior;
        for (int i = 0; i < PASSED_OVER; i++) {
            shadow.set(ox, oy, oz, x, y, z, 0, (float) left);
            RenderScene.Obstacle met = scene.obstacle(shadow, other);
            if (met != RenderScene.Obstacle.SEE_THROUGH) {
                return met == RenderScene.Obstacle.NONE;
            }
            scene.dress(other, 0);
            SurfaceValues s = other.surface;
            double facing = x * other.gx + y * other.gy + z * other.gz;
            pane.set(s, 0, 0, Math.abs(facing), s.ior / around, false);
            pane.straight();
            way += other.distance;
            if (paned > 0 && s.isPane()) {
                crossed += crossing(other, hit.x, hit.y, hit.z, way, facing);
            }
            double gone = 1 - s.opacity;
            reaching[0] *= gone + s.opacity * pane.r;
            reaching[1] *= gone + s.opacity * pane.g;
            reaching[2] *= gone + s.opacity * pane.b;
            if (reaching[0] + reaching[1] + reaching[2] <= 0) {
                return false;
            }
            double side = facing > 0 ? scene.offset(other) : -scene.offset(other);
            ox = other.x + side * other.gx;
            oy = other.y + side * other.gy;
            oz = other.z + side * other.gz;
            left -= other.distance;
        }
        return false;
    }

    /** Goes on from the hit, on the side of its normal or on the other one. */
    private void step(boolean outside) {
        double side = outside ? scene.offset(hit) : -scene.offset(hit);
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
        tr *= bsdf.r / density;
        tg *= bsdf.g / density;
        tb *= bsdf.b / density;
        double cosine = s.subsurfaceCosine;
        double ar = single(s.subsurfaceR, cosine);
        double ag = single(s.subsurfaceG, cosine);
        double ab = single(s.subsurfaceB, cosine);
        double er = 1 / Math.max(1e-7, s.subsurfacePathR);
        double eg = 1 / Math.max(1e-7, s.subsurfacePathG);
        double eb = 1 / Math.max(1e-7, s.subsurfacePathB);
        int body = hit.instance;
        world();
        dx = turned[0];
        dy = turned[1];
        dz = turned[2];
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
        setWhite();
        if (!entering) { // an inside-out mesh: its front is where the light comes out
            hit.setGeometric(-hit.gx, -hit.gy, -hit.gz);
            hit.setShading(hit.gx, hit.gy, hit.gz);
        }
        return answerWhite(random);
    }

    /** Makes the hit's surface white and matt. */
    private void setWhite() {
        hit.surface = WAY_OUT;
        hit.reflection = null;
        hit.hasTangent = false;
        hit.nx = hit.gx;
        hit.ny = hit.gy;
        hit.nz = hit.gz;
    }

    private boolean answerWhite(Sampler random) {
        gatheredBefore = gathered;
        face(true);
        bsdf.set(WAY_OUT, 0, 0, 1, WAY_OUT.ior, false);
        beGuided();
        lookForLight(true, random);
        gatherHere(true);
        return choose(true, random.next(), random.next(), random.next());
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
        return e <= 0 ? Double.POSITIVE_INFINITY : -StrictMath.log(1 - random.next()) / e;
    }

    private void passFree(double er, double eg, double eb, double way) {
        double r = StrictMath.exp(-er * way);
        double g = StrictMath.exp(-eg * way);
        double b = StrictMath.exp(-eb * way);
        double pdf = Math.max(1e-300, chances[0] * r + chances[1] * g + chances[2] * b);
        tr *= r / pdf;
        tg *= g / pdf;
        tb *= b / pdf;
    }

    private void scatterFree(double er, double eg, double eb, double sr, double sg, double sb, double way) {
        double r = StrictMath.exp(-er * way);
        double g = StrictMath.exp(-eg * way);
        double b = StrictMath.exp(-eb * way);
        double pdf = Math.max(1e-300, chances[0] * er * r + chances[1] * eg * g + chances[2] * eb * b);
        tr *= sr * r / pdf;
        tg *= sg * g / pdf;
        tb *= sb * b / pdf;
    }

    /**
     * Looks for a lamp from somewhere on the way through a cloudy medium. Found are lamps in it, or behind panes; what comes
     * in from elsewhere is bent at the boundary, and paths find it as they leave.
     */
    private void lookForLampOnTheWay(double way, Sampler random) {
        SurfaceValues m = media.here();
        if (m == null || !m.isCloudy() || scene.lamps().isEmpty()) {
            return;
        }
        double u = random.next();
        double v = random.next();
        double w = random.next();
        scene.lamps().sample(px, py, pz, u, v, w, lamp);
        double lx = lamp.x - px;
        double ly = lamp.y - py;
        double lz = lamp.z - pz;
        double along = dx * lx + dy * ly + dz * lz;
        double aside = Math.sqrt(Math.max(0, lx * lx + ly * ly + lz * lz - along * along));
        double mean = (m.extinctionR + m.extinctionG + m.extinctionB) / 3;
        near.choose(along, aside, way, mean, random.next(), random.next());
        double x = px + near.at * dx;
        double y = py + near.at * dy;
        double z = pz + near.at * dz;
        // the same numbers as before: the place suits the point of the lamp that is looked at
        if (!scene.lamps().sample(x, y, z, u, v, w, lamp)) {
            return;
        }
        if (reaches(x, y, z, lamp.dx, lamp.dy, lamp.dz, asFarAs(lamp))) {
            scene.dress(lamp, other);
            double phase = phase(m.scatterCosine, dx * lamp.dx + dy * lamp.dy + dz * lamp.dz);
            add(
                    lamp.circuit,
                    lamp.r * reaching[0] * m.scatterR * StrictMath.exp(-m.extinctionR * near.at),
                    lamp.g * reaching[1] * m.scatterG * StrictMath.exp(-m.extinctionG * near.at),
                    lamp.b * reaching[2] * m.scatterB * StrictMath.exp(-m.extinctionB * near.at),
                    phase / (near.density * lamp.pdf * CD_PER_UNIT));
        }
    }

    /** Up to a lamp, not into it. */
    private static double asFarAs(Lamps.Point lamp) {
        return lamp.distance * (lamp.isPoint ? 0.99999 : 0.9995);
    }

    /** Henyey & Greenstein's phase function (1941), per steradian, by the cosine of the angle that light is turned by. */
    private static double phase(double g, double cosine) {
        double q = 1 + g * g - 2 * g * cosine;
        return (1 - g * g) / (4 * Math.PI * q * Math.sqrt(q));
    }

    /** Turns the path by that function. */
    private void turn(double g, Sampler random) {
        double u = random.next();
        double cosine;
        if (Math.abs(g) < 1e-3) {
            cosine = 1 - 2 * u;
        } else {
            double q = (1 - g * g) / (1 - g + 2 * g * u);
            cosine = (1 + g * g - q * q) / (2 * g);
        }
        Directions.about(dx, dy, dz, cosine, 2 * Math.PI * random.next(), turned);
        double l = 1 / Math.sqrt(turned[0] * turned[0] + turned[1] * turned[1] + turned[2] * turned[2]);
        dx = turned[0] * l;
        dy = turned[1] * l;
        dz = turned[2] * l;
    }

    /**
     * Takes the path through the medium it is in: what that absorbs is lost (colour^(distance/depth)); where it is cloudy
     * the path may be scattered before it gets there.
     *
     * @return whether it was
     */
    private boolean travel(double way, Sampler random) {
        SurfaceValues m = media.here();
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
        mirrors = null;
        lastPdf = 0;
        within = true;
        gathered = false; // no photons stay there
        own(1, 1, 1);
        seen = false;
        fromX = px;
        fromY = py;
        fromZ = pz;
        sinceThen = 0;
        crossedSince = 0;
        return true;
    }

    private static double kept(SurfaceValues m, double colour, double extinction, double way) {
        if (m.isCloudy()) {
            return StrictMath.exp(-extinction * way);
        }
        return m.transmissionDepth > 0 ? StrictMath.pow(Math.max(1e-6, colour), way / m.transmissionDepth) : 1;
    }

    /** The index beyond the hit over the index before it. */
    private double indices(boolean entering) {
        SurfaceValues s = hit.surface;
        if (hit.isBoundary) { // the path is where the boundary says it is
            SurfaceValues before = entering ? hit.front : hit.back;
            media.stand(before);
            return ratio(index(entering ? hit.back : hit.front), index(before));
        }
        if (!hit.isBody()) {
            return s.ior / index(media.here());
        }
        double outside = index(media.outside(hit, entering));
        double inside = index(s);
        return entering ? ratio(inside, outside) : ratio(outside, inside);
    }

    private static double ratio(double beyond, double before) {
        double eta = beyond / before;
        return Math.abs(eta - 1) < 1e-5 ? 1.00001 : eta;
    }

    /** A body's index; the first that disperses makes the path one of a single wavelength. */
    private double index(SurfaceValues s) {
        if (s == null) {
            return 1; // air
        }
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
}
