package app.zolvan.core.ageing;

import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.TriangleSoup;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.mapping.Atlas;
import app.zolvan.core.texture.Chance;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * Leaves on a surface, one body placed many times, in the order in which they come: first where growth starts. The first
 * {@link #count} of them cover a share of the surface; more cover never moves those that are there.
 *
 * @param all    each leaf's place in the world, for a whole cover
 * @param counts how many cover 0, 1, 2 … 100 hundredths of the surface
 */
public record Leaves(List<Leaf> all, int[] counts) {
    /** So many at most; a larger surface is covered more thinly. */
    public static final int MOST = 60_000;
    /** One leaf, 1 long, its stalk at the origin, its tip along y, its face along z. */
    public static final Mesh BLADE = blade();

    /** Its area, seen from before, for a length of 1. */
    private static final double AREA = area();

    /** The share covered where there are all: 1 would take no end of leaves, since they overlap. */
    private static final double WHOLE = 0.98;

    /** How much the order is decided by how readily a place is overgrown; the rest is chance. */
    private static final double READINESS = 0.6;
    /** Kinds of places, by how readily they are overgrown, in which cover is reckoned apart. */
    private static final int BINS = 64;

    private static final double GROUND = 0.6; // normal's y from which leaves lie as they fell rather than hang

    /**
     * @param at     its stalk
     * @param across the direction of its breadth, {@code along} that of its tip, {@code face} that of its face; of unit
     *               length and square to each other
     * @param length in metres
     */
    public record Leaf(Vec3 at, Vec3 across, Vec3 along, Vec3 face, double length) {
        public Transform toWorld() {
            return Transform.ofColumns(new double[] {
                length * across.x(),
                length * across.y(),
                length * across.z(),
                0,
                length * along.x(),
                length * along.y(),
                length * along.z(),
                0,
                length * face.x(),
                length * face.y(),
                length * face.z(),
                0,
                at.x(),
                at.y(),
                at.z(),
                1
            });
        }
    }

    /** How many there are at a cover, 0 … 1, to the nearest hundredth. */
    public int count(double cover) {
        return counts[(int) Math.round(100 * cover)];
    }

    /** Those that are there at a cover, 0 … 1. */
    public List<Leaf> covering(double cover) {
        return all.subList(0, count(cover));
    }

    /**
     * @param span   the span of the mesh that they grow on
     * @param fields how readily it is overgrown
     * @param size   mean length of a leaf in metres
     */
    public static Leaves on(Mesh mesh, Transform toWorld, int span, AgeFields fields, double size) {
        int first = mesh.spanStarts()[span];
        int count = mesh.spanStarts()[span + 1] - first;
        double[] areas = new double[count + 1];
        for (int i = 0; i < count; i++) {
            Vec3[] c = corners(mesh, toWorld, first + i);
            areas[i + 1] = areas[i] + Triangles.area(c[0], c[1], c[2]);
        }
        // those that lean cover less
        double whole = -1.1 * Math.log(1 - WHOLE) * areas[count] / (AREA * size * size);
        int n = (int) Math.min(MOST, Math.round(whole));
        List<Grown> grown = new ArrayList<>();
        for (int i = 0, t = 0; i < n; i++) {
            double at = (i + Chance.unit(8L * i)) / n * areas[count]; // evenly along all triangles
            while (t < count - 1 && areas[t + 1] < at) {
                t++;
            }
            grown.add(leaf(mesh, toWorld, first + t, i, fields, size));
        }
        grown.sort(Comparator.comparingDouble(Grown::resistance));
        List<Ranked> ranked = new ArrayList<>();
        for (int i = 0; i < n; i++) {
            double readiness = (i + 0.5) / n;
            double rank = READINESS * readiness + (1 - READINESS) * grown.get(i).chance;
            ranked.add(new Ranked(grown.get(i), rank, (int) (BINS * readiness)));
        }
        ranked.sort(Comparator.comparingDouble(Ranked::rank));
        return new Leaves(ranked.stream().map(r -> r.grown.leaf).toList(), counts(ranked, areas[count] / BINS));
    }

    /** @param area that the leaf covers of what it grows on */
    private record Grown(Leaf leaf, double resistance, double chance, double area) {}

    private record Ranked(Grown grown, double rank, int bin) {}

    /** Of leaves strewn at random over an area A so that theirs sum to S, a share 1 − exp(−S/A) is covered (Poisson). */
    private static int[] counts(List<Ranked> order, double binArea) {
        int[] counts = new int[101];
        double[] sums = new double[BINS];
        double covered = 0;
        int next = 1;
        for (int k = 0; k < order.size() && next < counts.length; k++) {
            int bin = order.get(k).bin;
            double before = Math.exp(-sums[bin] / binArea);
            sums[bin] += order.get(k).grown.area;
            covered += (before - Math.exp(-sums[bin] / binArea)) / BINS;
            while (next < counts.length && covered >= next / 100.0) {
                counts[next++] = k + 1;
            }
        }
        Arrays.fill(counts, next, counts.length, order.size());
        return counts;
    }

    private static Grown leaf(Mesh mesh, Transform toWorld, int t, long i, AgeFields fields, double size) {
        double root = Math.sqrt(Chance.unit(8 * i + 1));
        double b1 = root * (1 - Chance.unit(8 * i + 2));
        double b2 = root - b1;
        Vec3[] c = corners(mesh, toWorld, t);
        Vec3 p = c[0].plus(c[1].minus(c[0]).times(b1)).plus(c[2].minus(c[0]).times(b2));
        Vec3 n = c[1].minus(c[0])
                .cross(c[2].minus(c[0]))
                .times(toWorld.determinant() < 0 ? -1 : 1)
                .normalised();
        Atlas a = fields.atlas();
        double k = 1 - b1 - b2;
        double[] four = new double[4];
        fields.at(
                k * a.uv()[6 * t] + b1 * a.uv()[6 * t + 2] + b2 * a.uv()[6 * t + 4],
                k * a.uv()[6 * t + 1] + b1 * a.uv()[6 * t + 3] + b2 * a.uv()[6 * t + 5],
                four);
        double turn = 2 * Math.PI * Chance.unit(8 * i + 3);
        double lean = 0.6 * Chance.unit(8 * i + 4);
        Vec3 any = (Math.abs(n.y()) < GROUND ? Vec3.axis(1) : Vec3.axis(0))
                .cross(n)
                .normalised();
        Vec3 side = n.cross(any);
        Vec3 face = n.plus(any.times(lean * StrictMath.cos(turn)))
                .plus(side.times(lean * StrictMath.sin(turn)))
                .normalised();
        double swing = Math.abs(n.y()) < GROUND ? (Chance.unit(8 * i + 5) - 0.5) * 1.6 : turn;
        Vec3 hang = Math.abs(n.y()) < GROUND ? Vec3.axis(1).times(-1) : any;
        Vec3 along = hang.minus(face.times(hang.dot(face))).normalised();
        Vec3 across = along.cross(face);
        Vec3 tip = along.times(StrictMath.cos(swing)).plus(across.times(StrictMath.sin(swing)));
        double length = size * (0.65 + 0.7 * Chance.unit(8 * i + 6));
        Vec3 stalk = p.plus(n.times(size * (0.05 + 0.3 * Chance.unit(8 * i + 7))));
        return new Grown(
                new Leaf(stalk, tip.cross(face), tip, face, length),
                four[1],
                Chance.unit(~(8 * i)),
                AREA * length * length * face.dot(n));
    }

    private static Vec3[] corners(Mesh mesh, Transform toWorld, int t) {
        Vec3[] c = new Vec3[3];
        for (int k = 0; k < 3; k++) {
            int v = 3 * mesh.indices()[3 * t + k];
            float[] p = mesh.positions();
            c[k] = toWorld.point(new Vec3(p[v], p[v + 1], p[v + 2]));
        }
        return c;
    }

    private static double area() {
        double sum = 0;
        for (int t = 0; t < BLADE.triangleCount(); t++) {
            Vec3[] c = corners(BLADE, Transform.IDENTITY, t);
            sum += Math.abs(c[1].minus(c[0]).cross(c[2].minus(c[0])).z()) / 2;
        }
        return sum;
    }

    /** A pointed oval, folded along its middle and a little bent down. */
    private static Mesh blade() {
        double[][] edge = {{0, 0.03}, {0.22, 0.2}, {0.31, 0.42}, {0.22, 0.68}, {0, 1}};
        TriangleSoup soup = new TriangleSoup();
        for (int side = -1; side <= 1; side += 2) {
            for (int i = 0; i + 1 < edge.length; i++) {
                Vec3 a = point(0, edge[i][1], 0);
                Vec3 b = point(0, edge[i + 1][1], 0);
                Vec3 c = point(side * edge[i + 1][0], edge[i + 1][1], edge[i + 1][0]);
                Vec3 d = point(side * edge[i][0], edge[i][1], edge[i][0]);
                for (Vec3[] t : new Vec3[][] {{a, c, b}, {a, d, c}}) {
                    if (t[1].minus(t[0]).cross(t[2].minus(t[0])).length() > 1e-9) {
                        soup.triangle(t[0], side > 0 ? t[1] : t[2], side > 0 ? t[2] : t[1]);
                    }
                }
            }
        }
        return soup.toMesh(Math.toRadians(40));
    }

    private static Vec3 point(double x, double y, double from) {
        return new Vec3(x, y, 0.25 * from - 0.22 * y * y);
    }

    /**
     * As bytes for the stage, little-endian: the blade's count of vertices, of triangles, and the count of leaves as 32-bit
     * numbers; the 101 counts likewise; the blade's positions and normals as floats and indices as 32-bit numbers; 16 floats a leaf, column by
     * column.
     */
    public byte[] encode() {
        ByteBuffer out = ByteBuffer.allocate(12
                        + 4 * counts.length
                        + 24 * BLADE.vertexCount()
                        + 4 * BLADE.indices().length
                        + 64 * all.size())
                .order(ByteOrder.LITTLE_ENDIAN);
        out.putInt(BLADE.vertexCount()).putInt(BLADE.triangleCount()).putInt(all.size());
        for (int c : counts) {
            out.putInt(c);
        }
        for (float f : BLADE.positions()) {
            out.putFloat(f);
        }
        for (float f : BLADE.normals()) {
            out.putFloat(f);
        }
        for (int i : BLADE.indices()) {
            out.putInt(i);
        }
        for (Leaf l : all) {
            for (double d : l.toWorld().columns()) {
                out.putFloat((float) d);
            }
        }
        return out.array();
    }
}
