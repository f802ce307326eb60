package app.zolvan.core.render.path;

import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.light.Environment;
import app.zolvan.core.render.sample.Sampler;
import app.zolvan.core.render.scene.Hit;
import app.zolvan.core.render.scene.Lamps;
import app.zolvan.core.render.scene.RenderScene;
import app.zolvan.core.render.surface.Bsdf;
import app.zolvan.core.render.surface.Spectrum;
import app.zolvan.core.render.surface.SurfaceValues;
import app.zolvan.core.render.trace.Ray;

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
    private static final double CD_PER_UNIT = 1000;

    /** Radiance of the last path. */
    public double r;

    public double g;
    public double b;
    private final RenderScene scene;
    private final Environment environment;
    private final double[] backdrop;
    private final int longest;
    private final Ray ray = new Ray();
    private final Ray shadow = new Ray();
    private final Hit hit = new Hit();
    private final Bsdf bsdf = new Bsdf();
    private final Environment.Sample light = new Environment.Sample();
    private final Lamps.Point lamp = new Lamps.Point();
    private final double[] spectral = new double[3];
    private final SurfaceValues[] media = new SurfaceValues[MOST_MEDIA];
    private final int[] mediaInstance = new int[MOST_MEDIA];
    private final int[] mediaPriority = new int[MOST_MEDIA];
    private final double[] frame = new double[9];
    private final double scale;
    private int mediaCount;
    private double wavelength;
    /** Where in the visible range this path's wavelength lies, should it need one. */
    private double wavelengthNumber;

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

    /**
     * @param backdrop what the eye sees behind everything, scene-linear; null for the surroundings themselves
     * @param longest  how many bounces a path may have
     */
    public PathTracer(RenderScene scene, Environment environment, double[] backdrop, int longest) {
        this.scene = scene;
        this.environment = environment;
        this.backdrop = backdrop;
        this.longest = longest;
        this.scale = scene.bounds().max().minus(scene.bounds().min()).length();
    }

    /** Traces one path from {@code origin} along a unit direction; sets r, g, b. */
    public void trace(Vec3 origin, double x, double y, double z, Sampler random) {
        px = origin.x();
        py = origin.y();
        pz = origin.z();
        dx = x;
        dy = y;
        dz = z;
        r = g = b = 0;
        tr = tg = tb = 1;
        lastPdf = 0; // an eye's ray: whatever it meets is seen in full
        mediaCount = 0;
        wavelength = 0;
        wavelengthNumber = random.next();
        int bounces = 0;
        for (int passed = 0; bounces <= longest; ) {
            ray.set(px, py, pz, dx, dy, dz, 0, Float.POSITIVE_INFINITY);
            if (!scene.closest(ray, hit)) {
                miss(bounces == 0);
                return;
            }
            absorb(hit.distance);
            SurfaceValues s = hit.surface;
            double facing = dx * hit.gx + dy * hit.gy + dz * hit.gz;
            boolean entering = facing < 0;
            if (s.opacity < 1 && random.next() >= s.opacity) {
                if (++passed > PASSED_OVER) {
                    return;
                }
                goOn(!entering);
                continue;
            }
            boolean body = s.isClear() && !s.thinWalled;
            if (body && isCovered(entering)) { // within a body of higher priority this boundary is not there
                cross(s, entering);
                if (++passed > PASSED_OVER) {
                    return;
                }
                goOn(!entering);
                continue;
            }
            double eta = indices(s, body, entering);
            if (s.emits()) {
                glow(s, -facing);
            }
            if (bounces == longest) {
                return;
            }
            face(entering);
            bsdf.set(s, local(0, -1), local(3, -1), local(6, -1), eta, body && !entering);
            if (!bsdf.isSmooth()) {
                lookForLight(entering, random);
            }
            double u = random.next();
            double v = random.next();
            double w = random.next();
            if (!bsdf.sample(u, v, w)) {
                return;
            }
            double share = bsdf.smooth ? 1 : 1 / bsdf.pdf;
            tr *= bsdf.r * share;
            tg *= bsdf.g * share;
            tb *= bsdf.b * share;
            lastPdf = bsdf.smooth ? 0 : bsdf.pdf;
            dx = frame[0] * bsdf.wx + frame[3] * bsdf.wy + frame[6] * bsdf.wz;
            dy = frame[1] * bsdf.wx + frame[4] * bsdf.wy + frame[7] * bsdf.wz;
            dz = frame[2] * bsdf.wx + frame[5] * bsdf.wy + frame[8] * bsdf.wz;
            boolean through = dx * hit.gx + dy * hit.gy + dz * hit.gz < 0 == entering;
            if (through != bsdf.through) {
                return; // the interpolated normal would let light leak through
            }
            if (through && body) {
                cross(s, entering);
            }
            step(entering != through);
            bounces++;
            if (bounces > SURE_BOUNCES) { // a faint path ends by chance, the others make up for it
                double most = Math.min(0.95, Math.max(Math.abs(tr), Math.max(Math.abs(tg), Math.abs(tb))));
                if (!(random.next() < most)) {
                    return;
                }
                tr /= most;
                tg /= most;
                tb /= most;
            }
        }
    }

    private void miss(boolean seen) {
        if (seen && backdrop != null) {
            add(backdrop[0], backdrop[1], backdrop[2], 1);
            return;
        }
        environment.look(dx, dy, dz, light);
        add(light.r, light.g, light.b, lastPdf > 0 ? heuristic(lastPdf, light.pdf) : 1);
    }

    /** Adds what a hit surface emits to its front, as radiance in units of 1,000 cd/m². */
    private void glow(SurfaceValues s, double cosine) {
        double weight = 1;
        if (lastPdf > 0) {
            double density = scene.lamps().density(hit.instance, hit.primitive);
            double pdf = density * hit.distance * hit.distance / Math.max(1e-9, Math.abs(cosine));
            weight = heuristic(lastPdf, pdf);
        }
        weight /= CD_PER_UNIT;
        add(s.emissionR, s.emissionG, s.emissionB, weight);
    }

    private void add(double red, double green, double blue, double weight) {
        r += tr * red * weight;
        g += tg * green * weight;
        b += tb * blue * weight;
    }

    private static double heuristic(double own, double other) {
        return own * own / (own * own + other * other);
    }

    /** One look at the surroundings and one at what glows, from the hit, through its surface's eyes. */
    private void lookForLight(boolean entering, Sampler random) {
        environment.sample(random.next(), random.next(), light);
        if (asks(light.x, light.y, light.z, entering) && reaches(light.x, light.y, light.z, Float.POSITIVE_INFINITY)) {
            double weight = heuristic(light.pdf, bsdf.pdf) / light.pdf;
            add(bsdf.r * light.r, bsdf.g * light.g, bsdf.b * light.b, weight);
        }
        if (scene.lamps().isEmpty()) {
            return;
        }
        scene.lamps().sample(random.next(), random.next(), random.next(), lamp);
        double x = lamp.x - hit.x;
        double y = lamp.y - hit.y;
        double z = lamp.z - hit.z;
        double d2 = x * x + y * y + z * z;
        double d = Math.sqrt(d2);
        if (d < 1e-9) {
            return;
        }
        x /= d;
        y /= d;
        z /= d;
        double cosine = Math.abs(x * lamp.nx + y * lamp.ny + z * lamp.nz);
        if (cosine > 1e-6 && asks(x, y, z, entering) && reaches(x, y, z, (float) (d * 0.9995))) {
            double pdf = lamp.density * d2 / cosine;
            double weight = heuristic(pdf, bsdf.pdf) / pdf / CD_PER_UNIT;
            SurfaceValues s = lamp.surface;
            add(bsdf.r * s.emissionR, bsdf.g * s.emissionG, bsdf.b * s.emissionB, weight);
        }
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

    private boolean reaches(double x, double y, double z, float far) {
        double side = x * hit.gx + y * hit.gy + z * hit.gz > 0 ? offset() : -offset();
        shadow.set(hit.x + side * hit.gx, hit.y + side * hit.gy, hit.z + side * hit.gz, x, y, z, 0, far);
        return !scene.occluded(shadow);
    }

    /** How far from a surface a ray starts, so that it does not meet the surface it leaves. */
    private double offset() {
        double most = Math.max(Math.abs(hit.x), Math.max(Math.abs(hit.y), Math.abs(hit.z)));
        return 2e-6 * Math.max(most, 0.1 * scale);
    }

    /** Goes on from the hit, on the side of its normal or on the other one. */
    private void step(boolean outside) {
        double side = outside ? offset() : -offset();
        px = hit.x + side * hit.gx;
        py = hit.y + side * hit.gy;
        pz = hit.z + side * hit.gz;
    }

    /** Straight on through what is not there for this path; looking for light did not see through it, so this counts in full. */
    private void goOn(boolean outside) {
        step(outside);
        lastPdf = 0;
    }

    /** The shading frame on the viewer's side: x, y, z in the rows of {@link #frame} (Duff et al. 2017). */
    private void face(boolean entering) {
        double s = entering ? 1 : -1;
        double nx = s * hit.nx;
        double ny = s * hit.ny;
        double nz = s * hit.nz;
        if (nx * dx + ny * dy + nz * dz > -1e-4) { // the interpolated normal looks away: take the triangle's
            nx = s * hit.gx;
            ny = s * hit.gy;
            nz = s * hit.gz;
        }
        double sign = Math.copySign(1, nz);
        double a = -1 / (sign + nz);
        double b2 = nx * ny * a;
        frame[0] = 1 + sign * nx * nx * a;
        frame[1] = sign * b2;
        frame[2] = -sign * nx;
        frame[3] = b2;
        frame[4] = sign + ny * ny * a;
        frame[5] = -ny;
        frame[6] = nx;
        frame[7] = ny;
        frame[8] = nz;
    }

    private double local(int row, double s) {
        return s * (frame[row] * dx + frame[row + 1] * dy + frame[row + 2] * dz);
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
            int around = strongest(-1);
            return s.ior / (around < 0 ? 1 : index(media[around]));
        }
        int beyond = strongest(entering ? -1 : entered());
        double outside = beyond < 0 ? 1 : index(media[beyond]);
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

    /** What the strongest body around takes of the light over a distance in metres: colour^(distance/depth). */
    private void absorb(double distance) {
        int in = strongest(-1);
        if (in < 0 || media[in].transmissionDepth <= 0) {
            return;
        }
        SurfaceValues m = media[in];
        double share = distance / m.transmissionDepth;
        tr *= Math.pow(Math.max(1e-6, m.transmissionR), share);
        tg *= Math.pow(Math.max(1e-6, m.transmissionG), share);
        tb *= Math.pow(Math.max(1e-6, m.transmissionB), share);
    }
}
