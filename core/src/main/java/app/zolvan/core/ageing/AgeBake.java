package app.zolvan.core.ageing;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Sight;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.material.Ageing;
import app.zolvan.core.texture.Chance;
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
     * @param sight     what rays meet around the part, and the part itself; one for each thread
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
        int[] owners = atlas.owners();
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
        atlas.spread(owners, out);
        return out;
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
        double[] b = atlas.weights(t, px, py);
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
        double turn = Chance.unit(seed);
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
}
