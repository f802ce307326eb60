package app.zolvan.core.geometry;

import java.util.Arrays;

/**
 * What a mesh's faces (connected smooth regions) are like, in the mesh's own space: for each face its area, centroid, mean
 * normal and shape. Together these are a signature: after a re-import of a changed file, {@link #match} finds a face
 * again though its number may have changed.
 *
 * <p>A face is planar when all its triangles lie within {@value #FLAT} of its size of one plane, cylindrical when they lie
 * that near to one cylinder and their normals stand across its axis, and free otherwise.
 */
public final class MeshFaces {
    /** How far, as a share of a face's size, its corners may lie off the ideal shape. */
    static final double FLAT = 1e-3;

    /** What a face's surface is like. */
    public enum Shape {
        PLANAR,
        CYLINDRICAL,
        FREE
    }

    /**
     * @param area     in the square of the mesh's unit
     * @param centroid weighted by area
     * @param normal   mean direction, of unit length; zero where a face closes around itself
     * @param size     the diagonal of its bounds
     * @param radius   of a cylindrical face, 0 for others
     */
    public record Face(double area, Vec3 centroid, Vec3 normal, double size, Shape shape, double radius) {}

    private final Face[] faces;

    private MeshFaces(Face[] faces) {
        this.faces = faces;
    }

    /** @param mesh with its faces numbered */
    public static MeshFaces of(Mesh mesh) {
        int count = mesh.faceCount();
        int[] face = mesh.faces();
        int[] index = mesh.indices();
        double[] area = new double[count];
        double[][] sums = new double[count][]; // centroid 0–2, normal 3–5, covariance of normals 6–11, bounds 12–17
        for (int f = 0; f < count; f++) {
            sums[f] = new double[18];
            Arrays.fill(sums[f], 12, 15, Double.POSITIVE_INFINITY);
            Arrays.fill(sums[f], 15, 18, Double.NEGATIVE_INFINITY);
        }
        for (int t = 0; t < face.length; t++) {
            Vec3 a = mesh.position(index[3 * t]);
            Vec3 b = mesh.position(index[3 * t + 1]);
            Vec3 c = mesh.position(index[3 * t + 2]);
            Vec3 n = b.minus(a).cross(c.minus(a));
            double twice = n.length();
            double[] s = sums[face[t]];
            area[face[t]] += twice / 2;
            Vec3 middle = a.plus(b).plus(c).times(1.0 / 3);
            Vec3 unit = twice > 0 ? n.times(1 / twice) : Vec3.ZERO;
            for (int k = 0; k < 3; k++) {
                s[k] += middle.get(k) * twice / 2;
                s[3 + k] += n.get(k) / 2;
                s[12 + k] = Math.min(s[12 + k], Math.min(a.get(k), Math.min(b.get(k), c.get(k))));
                s[15 + k] = Math.max(s[15 + k], Math.max(a.get(k), Math.max(b.get(k), c.get(k))));
            }
            s[6] += unit.x() * unit.x() * twice;
            s[7] += unit.y() * unit.y() * twice;
            s[8] += unit.z() * unit.z() * twice;
            s[9] += unit.x() * unit.y() * twice;
            s[10] += unit.x() * unit.z() * twice;
            s[11] += unit.y() * unit.z() * twice;
        }
        Fit[] fits = new Fit[count];
        Face[] faces = new Face[count];
        for (int f = 0; f < count; f++) {
            fits[f] = Fit.of(area[f], sums[f]);
        }
        for (int t = 0; t < face.length; t++) {
            for (int k = 0; k < 3; k++) {
                fits[face[t]].take(mesh.position(index[3 * t + k]));
            }
        }
        for (int t = 0; t < face.length; t++) { // a second look, now that the cylinders' circles are known
            for (int k = 0; k < 3; k++) {
                fits[face[t]].check(mesh.position(index[3 * t + k]));
            }
        }
        for (int f = 0; f < count; f++) {
            faces[f] = fits[f].face(area[f]);
        }
        return new MeshFaces(faces);
    }

    public int count() {
        return faces.length;
    }

    public Face get(int face) {
        return faces[face];
    }

    public long count(Shape shape) {
        return Arrays.stream(faces).filter(f -> f.shape == shape).count();
    }

    /**
     * For each face of the newer mesh the face of this one that it is: the same shape and direction, of nearly the same area
     * and place; −1 where there is none. No face is given twice.
     *
     * @param slack how far a centroid may have moved, and how much an area changed, as a share of the face's size
     */
    public int[] match(MeshFaces newer, double slack) {
        int[] out = new int[newer.faces.length];
        boolean[] taken = new boolean[faces.length];
        Integer[] byArea = new Integer[faces.length];
        Arrays.setAll(byArea, i -> i);
        Arrays.sort(byArea, (a, b) -> Double.compare(faces[a].area, faces[b].area));
        for (int f = 0; f < out.length; f++) {
            Face wanted = newer.faces[f];
            double room = slack * wanted.area + 1e-12;
            int from = lowerBound(byArea, wanted.area - room);
            out[f] = -1;
            double best = slack * wanted.size + 1e-9;
            for (int i = from; i < byArea.length && faces[byArea[i]].area <= wanted.area + room; i++) {
                Face candidate = faces[byArea[i]];
                double away = candidate.centroid.minus(wanted.centroid).length();
                if (!taken[byArea[i]]
                        && candidate.shape == wanted.shape
                        && away <= best
                        && candidate.normal.minus(wanted.normal).length() <= 0.1) {
                    best = away;
                    out[f] = byArea[i];
                }
            }
            if (out[f] >= 0) {
                taken[out[f]] = true;
            }
        }
        return out;
    }

    private int lowerBound(Integer[] byArea, double area) {
        int lo = 0;
        int hi = byArea.length;
        while (lo < hi) {
            int mid = (lo + hi) >>> 1;
            if (faces[byArea[mid]].area < area) {
                lo = mid + 1;
            } else {
                hi = mid;
            }
        }
        return lo;
    }

    /** The plane and the cylinder nearest to one face, and how far its corners stray from them. */
    private static final class Fit {
        private final Vec3 centroid;
        private final Vec3 normal;
        private final double size;
        private final Vec3 across;
        private final Vec3 upright;
        private final boolean around;
        private double offPlane;
        private final double[] circle = new double[9]; // sums of x, y, xx, xy, yy, xr, yr, r, 1 with r = xx + yy
        private double cx;
        private double cy;
        private double radius;
        private double offCylinder;

        private Fit(Vec3 centroid, Vec3 normal, double size, Vec3 axis, boolean around) {
            this.centroid = centroid;
            this.normal = normal;
            this.size = size;
            this.around = around;
            Vec3 aside = Math.abs(axis.x()) < 0.6 ? Vec3.axis(0) : Vec3.axis(1);
            this.across = axis.cross(aside).normalised();
            this.upright = axis.cross(across);
        }

        static Fit of(double area, double[] s) {
            Vec3 centroid = area > 0 ? new Vec3(s[0] / area, s[1] / area, s[2] / area) : new Vec3(s[12], s[13], s[14]);
            Vec3 sum = new Vec3(s[3], s[4], s[5]);
            Vec3 normal = sum.length() > 0.05 * area ? sum.normalised() : Vec3.ZERO;
            double size = area > 0 ? new Vec3(s[15] - s[12], s[16] - s[13], s[17] - s[14]).length() : 0;
            double trace = s[6] + s[7] + s[8];
            Vec3 axis = SymmetricMatrix.leastDirection(s[6], s[7], s[8], s[9], s[10], s[11]);
            double least = SymmetricMatrix.quadratic(s[6], s[7], s[8], s[9], s[10], s[11], axis);
            return new Fit(centroid, normal, size, axis, trace > 0 && least < 1e-4 * trace);
        }

        void take(Vec3 p) {
            Vec3 d = p.minus(centroid);
            if (normal.length() > 0) {
                offPlane = Math.max(offPlane, Math.abs(d.dot(normal)));
            }
            double x = d.dot(across);
            double y = d.dot(upright);
            double r = x * x + y * y;
            circle[0] += x;
            circle[1] += y;
            circle[2] += x * x;
            circle[3] += x * y;
            circle[4] += y * y;
            circle[5] += x * r;
            circle[6] += y * r;
            circle[7] += r;
            circle[8]++;
        }

        /** The circle of least algebraic distance (Kåsa 1976), solved at the first call. */
        private void solve() {
            double n = circle[8];
            double mx = circle[0] / n;
            double my = circle[1] / n;
            double a = circle[2] - n * mx * mx;
            double b = circle[3] - n * mx * my;
            double c = circle[4] - n * my * my;
            double e = (circle[5] - mx * circle[7]) / 2;
            double f = (circle[6] - my * circle[7]) / 2;
            double d = a * c - b * b;
            if (Math.abs(d) < 1e-12 * Math.max(1e-300, a * a + c * c)) {
                radius = Double.POSITIVE_INFINITY;
                return;
            }
            cx = (e * c - f * b) / d;
            cy = (a * f - b * e) / d;
            double rr = circle[7] / n - 2 * (cx * mx + cy * my) + cx * cx + cy * cy;
            radius = Math.sqrt(Math.max(0, rr));
        }

        void check(Vec3 p) {
            if (!around) {
                return;
            }
            if (radius == 0) {
                solve();
            }
            Vec3 d = p.minus(centroid);
            double x = d.dot(across) - cx;
            double y = d.dot(upright) - cy;
            offCylinder = Math.max(offCylinder, Math.abs(Math.sqrt(x * x + y * y) - radius));
        }

        Face face(double area) {
            boolean flat = normal.length() > 0 && offPlane <= FLAT * size;
            boolean round = !flat && around && radius < 1e3 * size && offCylinder <= FLAT * size;
            Shape shape = flat ? Shape.PLANAR : round ? Shape.CYLINDRICAL : Shape.FREE;
            return new Face(area, centroid, normal, size, shape, round ? radius : 0);
        }
    }
}
