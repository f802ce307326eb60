package app.zolvan.core.ageing;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import java.util.Arrays;
import java.util.function.Supplier;
import java.util.stream.IntStream;

/**
 * Works out how readily each place of a part ages, from where it is: how much of the sky it sees, how deep it lies in a
 * hollow, which way it looks, how high above the ground it is, and how near to a convex edge; and from noise in space, so
 * that edges of growth are ragged. Metres throughout.
 */
public final class AgeBake {
    private static final int TEXELS = 40_000;
    private static final int OUTWARD = 24;
    private static final int INWARD = 16;
    private static final double FAR = 30;
    /** How far a hollow reaches. */
    private static final double HOLLOW = 0.25;
    /** How far from an edge wear reaches. */
    private static final double EDGE = 0.012;
    /** How fast what climbs from the ground thins out. */
    private static final double CLIMBS = 0.6;

    /** What rays meet around the part, and the part itself. */
    public interface Sight {
        /** The distance to what is met first, or infinity beyond {@code most}; the direction is of unit length. */
        double distance(Vec3 from, Vec3 towards, double most);
    }

    private final Mesh mesh;
    private final Transform toWorld;
    private final Atlas atlas;
    private final double ground;
    private final double edge;
    private final double hollow;
    private final boolean corrodes;
    private final double lift;

    private AgeBake(Mesh mesh, Transform toWorld, double thickness, double ground, boolean corrodes) {
        this.mesh = mesh;
        this.toWorld = toWorld;
        this.ground = ground;
        this.corrodes = corrodes;
        atlas = Atlas.of(mesh, toWorld, TEXELS);
        double size = mesh.bounds(toWorld).size().length();
        edge = Math.min(Math.min(EDGE, 0.05 * size), thickness > 0 ? 0.4 * thickness : EDGE);
        hollow = Math.min(HOLLOW, 0.5 * size);
        lift = 1e-5 * Math.max(1e-2, size);
    }

    /**
     * @param thickness its mean thickness; 0 where it is not closed
     * @param ground    height of the ground
     * @param corrodes  whether it weathers where water stays rather than where sun and rain reach
     * @param sight     one for each thread
     */
    public static AgeFields of(
            Mesh mesh,
            Transform toWorld,
            double thickness,
            double ground,
            boolean corrodes,
            Supplier<? extends Sight> sight) {
        AgeBake bake = new AgeBake(mesh, toWorld, thickness, ground, corrodes);
        return new AgeFields(bake.atlas, bake.texels(sight));
    }

    private byte[] texels(Supplier<? extends Sight> sight) {
        int w = atlas.width();
        int h = atlas.height();
        int[] owners = owners(w, h);
        byte[] out = new byte[4 * w * h];
        Place[] looked = new Place[w * h];
        ThreadLocal<Sight> own = ThreadLocal.withInitial(sight);
        IntStream.range(0, (h + 1) / 2).parallel().forEach(row -> {
            for (int x = 0; x < w; x += 2) { // rays from every second texel of every second row
                look(owners, looked, x, 2 * row, own.get());
            }
        });
        IntStream.range(0, h).parallel().forEach(y -> {
            for (int x = 0; x < w; x++) {
                if (owners[y * w + x] >= 0) {
                    Surroundings s = new Surroundings(looked, w, h);
                    Place at = s.mean(x, y);
                    Spot spot = spot(owners[y * w + x], x, y);
                    byte[] four = resistances(spot, at != null ? at : look(spot, (long) y * w + x, own.get()));
                    System.arraycopy(four, 0, out, 4 * (y * w + x), 4);
                }
            }
        });
        own.remove();
        spread(owners, out, w, h);
        return out;
    }

    /** The triangle that covers each texel's middle, or is nearest to it within a texel; −1 for none. */
    private int[] owners(int w, int h) {
        int[] owners = new int[w * h];
        double[] nearest = new double[w * h];
        Arrays.fill(owners, -1);
        Arrays.fill(nearest, 1.5);
        float[] uv = atlas.uv();
        for (int t = 0; t < mesh.triangleCount(); t++) {
            double[] x = new double[3];
            double[] y = new double[3];
            for (int k = 0; k < 3; k++) {
                x[k] = uv[6 * t + 2 * k] * w - 0.5;
                y[k] = uv[6 * t + 2 * k + 1] * h - 0.5;
            }
            int left = (int) Math.floor(Math.min(x[0], Math.min(x[1], x[2]))) - 1;
            int right = (int) Math.ceil(Math.max(x[0], Math.max(x[1], x[2]))) + 1;
            int top = (int) Math.floor(Math.min(y[0], Math.min(y[1], y[2]))) - 1;
            int bottom = (int) Math.ceil(Math.max(y[0], Math.max(y[1], y[2]))) + 1;
            for (int py = Math.max(0, top); py <= Math.min(h - 1, bottom); py++) {
                for (int px = Math.max(0, left); px <= Math.min(w - 1, right); px++) {
                    double away = outside(x, y, px, py);
                    if (away < nearest[py * w + px]) {
                        nearest[py * w + px] = away;
                        owners[py * w + px] = t;
                    }
                }
            }
        }
        return owners;
    }

    /** How far a point is from a triangle; 0 within. */
    private static double outside(double[] x, double[] y, double px, double py) {
        double area = (x[1] - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (y[1] - y[0]);
        boolean within = area != 0;
        double least = Double.MAX_VALUE;
        for (int k = 0; k < 3; k++) {
            int n = (k + 1) % 3;
            double ex = x[n] - x[k];
            double ey = y[n] - y[k];
            double side = (ex * (py - y[k]) - ey * (px - x[k])) * Math.signum(area);
            within &= side >= 0;
            double l2 = ex * ex + ey * ey;
            double s = l2 > 0 ? Math.max(0, Math.min(1, ((px - x[k]) * ex + (py - y[k]) * ey) / l2)) : 0;
            least = Math.min(least, Math.hypot(x[k] + s * ex - px, y[k] + s * ey - py));
        }
        return within ? 0 : least;
    }

    /** What was looked at about a texel. Charts lie so far apart that neighbours are of one. */
    private record Surroundings(Place[] looked, int w, int h) {

        /** The mean of the nearest; null where none was looked at. */
        Place mean(int x, int y) {
            double sky = 0;
            double hollow = 0;
            double convex = 0;
            int n = 0;
            for (int ny = y - (y & 1); ny <= Math.min(h - 1, y + (y & 1)); ny += 2) {
                for (int nx = x - (x & 1); nx <= Math.min(w - 1, x + (x & 1)); nx += 2) {
                    Place p = looked[ny * w + nx];
                    if (p != null) {
                        sky += p.sky;
                        hollow += p.hollow;
                        convex += p.convex;
                        n++;
                    }
                }
            }
            return n == 0 ? null : new Place(sky / n, hollow / n, convex / n);
        }
    }

    private void look(int[] owners, Place[] looked, int x, int y, Sight sight) {
        int i = y * atlas.width() + x;
        if (owners[i] >= 0) {
            looked[i] = look(spot(owners[i], x, y), i, sight);
        }
    }

    /** A texel's place in the world, the triangle's own normal there and the interpolated one. */
    private record Spot(Vec3 at, Vec3 flat, Vec3 normal) {}

    private Spot spot(int t, int px, int py) {
        double[] b = weights(t, px, py);
        Vec3 p = Vec3.ZERO;
        Vec3 n = Vec3.ZERO;
        Vec3[] corners = new Vec3[3];
        for (int k = 0; k < 3; k++) {
            int v = mesh.indices()[3 * t + k];
            corners[k] = toWorld.point(vector(mesh.positions(), v));
            p = p.plus(corners[k].times(b[k]));
            n = n.plus(toWorld.direction(vector(mesh.normals(), v)).times(b[k]));
        }
        Vec3 flat = corners[1]
                .minus(corners[0])
                .cross(corners[2].minus(corners[0]))
                .times(toWorld.determinant() < 0 ? -1 : 1)
                .normalised();
        n = n.dot(flat) > 0.05 ? n.normalised() : flat;
        return new Spot(p, flat.length() > 0 ? flat : n, n);
    }

    private static Vec3 vector(float[] of, int i) {
        return new Vec3(of[3 * i], of[3 * i + 1], of[3 * i + 2]);
    }

    /** A texel's place in its triangle, held within it. */
    private double[] weights(int t, int px, int py) {
        float[] uv = atlas.uv();
        double x = (px + 0.5) / atlas.width();
        double y = (py + 0.5) / atlas.height();
        double x0 = uv[6 * t];
        double y0 = uv[6 * t + 1];
        double ax = uv[6 * t + 2] - x0;
        double ay = uv[6 * t + 3] - y0;
        double bx = uv[6 * t + 4] - x0;
        double by = uv[6 * t + 5] - y0;
        double area = ax * by - bx * ay;
        double one = area == 0 ? 1 / 3.0 : ((x - x0) * by - bx * (y - y0)) / area;
        double two = area == 0 ? 1 / 3.0 : (ax * (y - y0) - (x - x0) * ay) / area;
        double[] w = {Math.max(0, 1 - one - two), Math.max(0, one), Math.max(0, two)};
        double sum = w[0] + w[1] + w[2];
        return new double[] {w[0] / sum, w[1] / sum, w[2] / sum};
    }

    /**
     * What a place is like, each 0 … 1.
     *
     * @param sky    how much of the sky it sees: all for what looks up in the open, half for a wall
     * @param hollow how near what is around it stands
     * @param convex how near it is to where the body ends
     */
    private record Place(double sky, double hollow, double convex) {}

    private Place look(Spot spot, long seed, Sight sight) {
        Vec3 p = spot.at;
        Vec3 flat = spot.flat;
        Vec3 n = spot.normal;
        Vec3 across =
                (Math.abs(n.y()) < 0.9 ? Vec3.axis(1) : Vec3.axis(0)).cross(n).normalised();
        Vec3 along = n.cross(across);
        Vec3 above = p.plus(flat.times(lift));
        double sky = 0;
        double near = 0;
        double turn = SolidNoise.unit(seed);
        for (int i = 0; i < OUTWARD; i++) { // cosine-weighted, in a spiral
            double u = (i + 0.5) / OUTWARD;
            double radius = Math.sqrt(u);
            double phi = 2 * Math.PI * (i * 0.6180339887498949 + turn);
            Vec3 d = direction(across, along, n, radius, phi, Math.sqrt(1 - u));
            if (d.dot(flat) <= 0) {
                continue;
            }
            double far = sight.distance(above, d, FAR);
            near += Math.max(0, 1 - far / hollow);
            sky += d.y() > 0 && far > FAR ? 1 : 0;
        }
        Vec3 below = p.minus(flat.times(Math.max(lift, 0.02 * edge)));
        double ends = 0;
        for (int i = 0; i < INWARD; i++) { // evenly over the half below
            double cosine = (i + 0.5) / INWARD;
            double phi = 2 * Math.PI * (i * 0.6180339887498949 + turn);
            Vec3 d = direction(across, along, n.times(-1), Math.sqrt(1 - cosine * cosine), phi, cosine);
            double far = sight.distance(below, d, edge);
            ends += far <= edge ? 1 - far / edge : 0;
        }
        // at a square edge about a third of the half below ends at once
        return new Place(sky / OUTWARD, Math.min(1, 2 * near / OUTWARD), Math.min(1, 3 * ends / INWARD));
    }

    private static Vec3 direction(Vec3 x, Vec3 y, Vec3 z, double radius, double phi, double height) {
        return x.times(radius * StrictMath.cos(phi))
                .plus(y.times(radius * StrictMath.sin(phi)))
                .plus(z.times(height));
    }

    private byte[] resistances(Spot spot, Place at) {
        Vec3 p = spot.at;
        double up = Math.max(0, spot.normal.y());
        double low = StrictMath.exp(-Math.max(0, p.y() - ground) / CLIMBS);
        double patches = SolidNoise.fractal(p.x() / 0.07, p.y() / 0.07, p.z() / 0.07, 4, 1);
        double spots = SolidNoise.fractal(p.x() / 0.012, p.y() / 0.016, p.z() / 0.012, 4, 2);
        double fine = SolidNoise.fractal(p.x() / 0.004, p.y() / 0.004, p.z() / 0.004, 3, 3);
        double weather =
                corrodes ? 0.2 + 0.25 * at.sky + 0.3 * at.hollow + 0.25 * at.convex : 0.1 + 0.8 * at.sky + 0.1 * up;
        double weatherNoise = corrodes ? 0.45 * spots + 0.4 * patches + 0.15 * fine : 0.5 * patches + 0.5 * fine;
        double grows = 0.3 * low + 0.25 * up + 0.35 * at.hollow + 0.1 * at.sky;
        double settles = 0.7 * up + 0.3 * at.hollow;
        return new byte[] {
            code(1.05 - 0.5 * weather - 0.55 * weatherNoise),
            code(1.05 - 0.65 * grows - 0.4 * (0.7 * patches + 0.3 * fine)),
            code(Ageing.NEVER - 1.05 * at.convex * (0.55 + 0.45 * spots) - 0.1 * fine),
            code(1 - 0.75 * settles - 0.25 * (0.6 * patches + 0.4 * fine))
        };
    }

    private static byte code(double resistance) {
        return (byte) Math.round(255 * Math.max(0, Math.min(Ageing.NEVER, resistance)) / Ageing.NEVER);
    }

    /** Fills what belongs to no chart from its neighbours, so that mixing at a chart's edge brings in nothing strange. */
    private static void spread(int[] owners, byte[] texels, int w, int h) {
        boolean[] filled = new boolean[w * h];
        for (int i = 0; i < filled.length; i++) {
            filled[i] = owners[i] >= 0;
        }
        for (int round = 0; round < 2 * Atlas.GUTTER; round++) {
            boolean[] before = filled.clone();
            for (int y = 0; y < h; y++) {
                for (int x = 0; x < w; x++) {
                    int i = y * w + x;
                    int from = before[i] ? -1 : neighbour(before, x, y, w, h);
                    if (from >= 0) {
                        System.arraycopy(texels, 4 * from, texels, 4 * i, 4);
                        filled[i] = true;
                    }
                }
            }
        }
    }

    private static int neighbour(boolean[] filled, int x, int y, int w, int h) {
        for (int k = 0; k < 8; k++) {
            int nx = x + (k < 3 ? -1 : k < 5 ? 0 : 1);
            int ny = y + (k == 0 || k == 3 || k == 5 ? -1 : k == 1 || k == 6 ? 0 : 1);
            if (nx >= 0 && nx < w && ny >= 0 && ny < h && filled[ny * w + nx]) {
                return ny * w + nx;
            }
        }
        return -1;
    }
}
