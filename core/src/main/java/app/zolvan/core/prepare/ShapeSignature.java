package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.SymmetricMatrix;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;

/**
 * What of a shape stays when it is moved, turned or mirrored: its area and how the surface spreads about its centre along
 * three directions across each other. Two shapes alike in these and in their number of triangles are taken for one.
 *
 * @param area      m²
 * @param centre    of the surface, in the world
 * @param least     root mean square distance of the surface from the centre, along the direction in which it spreads least, m
 * @param middle    likewise, the middle direction
 * @param most      likewise, the direction in which it spreads most
 * @param facing    the direction of the least spread: what a sheet faces
 * @param along     the direction of the most: where a rod runs
 */
public record ShapeSignature(
        int triangles, double area, Vec3 centre, double least, double middle, double most, Vec3 facing, Vec3 along) {
    /** Rounding in files, with room to spare. */
    private static final double SAME = 1e-3;
    /** A shape spreads clearly more along one direction than along another. */
    private static final double CLEARLY = 1.5;

    /** All triangles of a mesh where it stands. */
    public static ShapeSignature of(Mesh mesh, Transform toWorld) {
        int[] all = new int[mesh.triangleCount()];
        for (int t = 0; t < all.length; t++) {
            all[t] = t;
        }
        return of(mesh, all, toWorld);
    }

    /**
     * Some triangles of a mesh. A triangle's second moment about the origin is A/12 · (aaᵀ + bbᵀ + ccᵀ + ssᵀ) with s = a +
     * b + c.
     */
    public static ShapeSignature of(Mesh mesh, int[] triangles, Transform toWorld) {
        int[] index = mesh.indices();
        Vec3 origin = triangles.length == 0 ? Vec3.ZERO : toWorld.point(mesh.position(index[3 * triangles[0]]));
        double area = 0;
        Vec3 sum = Vec3.ZERO;
        double[] m = new double[6];
        for (int t : triangles) {
            Vec3 a = toWorld.point(mesh.position(index[3 * t])).minus(origin);
            Vec3 b = toWorld.point(mesh.position(index[3 * t + 1])).minus(origin);
            Vec3 c = toWorld.point(mesh.position(index[3 * t + 2])).minus(origin);
            double part = Triangles.area(a, b, c);
            Vec3 s = a.plus(b).plus(c);
            area += part;
            sum = sum.plus(s.times(part / 3));
            for (Vec3 v : new Vec3[] {a, b, c, s}) {
                SymmetricMatrix.addSquare(m, v, part / 12);
            }
        }
        if (area == 0) {
            return new ShapeSignature(triangles.length, 0, origin, 0, 0, 0, Vec3.axis(1), Vec3.axis(0));
        }
        Vec3 mean = sum.times(1 / area);
        for (int k = 0; k < 6; k++) {
            m[k] /= area;
        }
        SymmetricMatrix.addSquare(m, mean, -1);
        SymmetricMatrix.Eigen e = SymmetricMatrix.eigen(m);
        return new ShapeSignature(
                triangles.length,
                area,
                origin.plus(mean),
                root(e.values()[0]),
                root(e.values()[1]),
                root(e.values()[2]),
                e.directions()[0],
                e.directions()[2]);
    }

    private static double root(double v) {
        return Math.sqrt(Math.max(0, v));
    }

    /** Whether the other is the same shape, wherever it stands. */
    public boolean isLike(ShapeSignature o) {
        return triangles == o.triangles && isNear(area, o.area, area) && isAsLarge(o, SAME);
    }

    /** @param share how much, as a share of the larger spread, the two may differ */
    public boolean isAsLarge(ShapeSignature o, double share) {
        double room = share * Math.max(most, o.most);
        return Math.abs(least - o.least) <= room
                && Math.abs(middle - o.middle) <= room
                && Math.abs(most - o.most) <= room;
    }

    private static boolean isNear(double a, double b, double size) {
        return Math.abs(a - b) <= SAME * size;
    }

    public boolean isRod() {
        return most > CLEARLY * middle;
    }

    public boolean isSheet() {
        return !isRod() && middle > CLEARLY * least;
    }
}
