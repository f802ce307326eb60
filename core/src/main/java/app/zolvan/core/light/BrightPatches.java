package app.zolvan.core.light;

import app.zolvan.core.colour.LinearRgb;
import app.zolvan.core.geometry.SymmetricMatrix;
import app.zolvan.core.geometry.Vec3;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;

/**
 * Surroundings parted into lamps and the rest, for a renderer that blurs pictures of surroundings: whatever is much brighter
 * than the mean of all directions is a lamp's, as far as it is beyond that, and lamps are parted into small patches. Picture
 * and patches together light as the picture did.
 *
 * @param limit   radiance (luminance) that the rest does not exceed
 * @param mostly  the light vector at the middle (Gershun 1939), of luminance: where light mostly comes from; not of unit
 *                length
 * @param patches at most {@link #MOST}
 */
public record BrightPatches(double limit, Vec3 mostly, List<Patch> patches) {
    public static final int MOST = 12;

    /** What is brighter than so many times the mean is a lamp's. */
    private static final double BRIGHT = 2;
    /** Patches whose directions deviate less, in radians, are not cut further. */
    private static final double SMALL = 0.04;

    /**
     * A bright patch as seen from the middle.
     *
     * @param direction of unit length
     * @param light     radiance times solid angle
     * @param spread    variance of its directions along one axis, in radians²
     */
    public record Patch(Vec3 direction, LinearRgb light, double spread) {}

    public BrightPatches {
        patches = List.copyOf(patches);
    }

    /** Of surroundings as they were photographed, neither turned nor made stronger. */
    public static BrightPatches of(Environment surroundings) {
        double[] whole = new double[2];
        double[] vector = new double[3];
        surroundings.forEachPixel((direction, solidAngle, radiance) -> {
            double light = solidAngle * radiance.luminance();
            whole[0] += light;
            whole[1] += solidAngle;
            for (int k = 0; k < 3; k++) {
                vector[k] += light * direction.get(k);
            }
        });
        double limit = BRIGHT * whole[0] / whole[1];
        List<Beam> bright = new ArrayList<>();
        surroundings.forEachPixel((direction, solidAngle, radiance) -> {
            double luminance = radiance.luminance();
            if (luminance > limit) {
                bright.add(new Beam(direction, radiance.times(solidAngle * (1 - limit / luminance))));
            }
        });
        return new BrightPatches(limit, new Vec3(vector[0], vector[1], vector[2]), parted(bright));
    }

    private record Beam(Vec3 direction, LinearRgb light) {}

    /** Cut in two again and again where most light deviates most from its middle. */
    private static List<Patch> parted(List<Beam> bright) {
        List<Cluster> clusters = new ArrayList<>();
        if (!bright.isEmpty()) {
            clusters.add(Cluster.of(bright));
        }
        while (clusters.size() < MOST) {
            Cluster widest = clusters.stream()
                    .filter(c -> c.longest() > SMALL * SMALL)
                    .max(Comparator.comparingDouble(c -> c.light.luminance() * c.longest()))
                    .orElse(null);
            if (widest == null) {
                break;
            }
            clusters.remove(widest);
            clusters.add(widest.side(true));
            clusters.add(widest.side(false));
        }
        return clusters.stream().map(Cluster::patch).toList();
    }

    /**
     * @param middle the mean of the directions by their light, not of unit length
     * @param off    how directions deviate from it
     */
    private record Cluster(List<Beam> beams, Vec3 middle, LinearRgb light, SymmetricMatrix.Eigen off) {
        static Cluster of(List<Beam> beams) {
            LinearRgb light = LinearRgb.BLACK;
            Vec3 sum = Vec3.ZERO;
            for (Beam b : beams) {
                light = light.plus(b.light);
                sum = sum.plus(b.direction.times(b.light.luminance()));
            }
            Vec3 middle = sum.times(1 / light.luminance());
            double[] m = new double[6];
            for (Beam b : beams) {
                SymmetricMatrix.addSquare(m, b.direction.minus(middle), b.light.luminance() / light.luminance());
            }
            return new Cluster(beams, middle, light, SymmetricMatrix.eigen(m));
        }

        double longest() {
            return off.values()[2];
        }

        Cluster side(boolean before) {
            Vec3 along = off.directions()[2];
            return of(beams.stream()
                    .filter(b -> b.direction.minus(middle).dot(along) > 0 == before)
                    .toList());
        }

        Patch patch() {
            return new Patch(middle.normalised(), light, (off.values()[1] + off.values()[2]) / 2);
        }
    }
}
