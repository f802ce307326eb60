package app.zolvan.core.render.scene;

import app.zolvan.core.ageing.AgeFields;
import app.zolvan.core.geometry.FloatList;
import app.zolvan.core.geometry.IntList;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.material.Parameter;
import app.zolvan.core.material.ShapedRelief;
import app.zolvan.core.material.Surface;
import app.zolvan.core.texture.Texture;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Reliefs as shapes: a mesh cut as finely as the picture of a relief needs and moved outwards along its normals by the
 * picture's height, as MaterialX has displacement. It has neither cracks nor holes that the mesh had not: corners that
 * lie in one place move together, and where a surface without relief adjoins, the relief runs out.
 *
 * <p>Cutting: an edge longer than wanted is halved for all triangles on it at once, round after round.
 */
public final class Displacement {
    /** So many triangles a mesh may become. */
    public static final int MOST = 400_000;

    /** Where face and edge lean against each other more than this, an edge's corners move no farther out. */
    private static final double STEEPEST = 0.5;

    private static final int ROUNDS = 24;

    private final List<Relief> reliefs;
    /** Not turned and never mirrored, so that triangles keep their fronts. */
    private final Transform toMetres;

    private final FloatList positions = new FloatList();
    private final FloatList normals = new FloatList();
    private final FloatList uv;
    private final FloatList metric;
    private final FloatList uv2;
    private final FloatList colours;
    private final IntList places = new IntList();
    private int placeCount;
    private int[] corners;
    private int[] spans;
    private int[] faces;

    /**
     * The relief of a span.
     *
     * @param heights its picture
     * @param depth   metres between black and white
     * @param metric  whether the picture lies by the mesh's metric coordinates rather than by those of the file
     */
    public record Relief(Texture heights, double depth, boolean metric) {
        /** What a look asks for; null for none. */
        public static Relief of(Surface s, boolean metric, Map<Parameter, Texture> textures) {
            ShapedRelief asked = ShapedRelief.of(s);
            Texture heights = textures.get(Parameter.GEOMETRY_HEIGHT);
            return asked == null || heights == null ? null : new Relief(heights, asked.depth(), metric);
        }
    }

    /**
     * @param stretch how much the mesh's own axes are stretched on their way to the world, in which depths are
     * @param spans   the relief of each span; null for one without
     * @param age     how readily the mesh ages; null where nothing on it has aged
     * @param most    how many triangles it may become
     * @return the mesh in its own space, spans and faces as they were, its second coordinates those of its ages where it
     *     has some
     */
    public static Mesh of(Mesh mesh, Vec3 stretch, List<Relief> spans, AgeFields age, int most) {
        Mesh plain = age == null ? mesh : mesh.parted(age.atlas().uv());
        boolean none = spans.stream().noneMatch(r -> r != null && (r.metric ? mesh.metricUv() : mesh.uv()) != null);
        return none ? plain : new Displacement(plain, stretch, spans).made(plain, most);
    }

    private Displacement(Mesh mesh, Vec3 stretch, List<Relief> spans) {
        toMetres = Transform.scale(stretch.x(), stretch.y(), stretch.z());
        reliefs = spans;
        byte[] painted = mesh.colours();
        uv = listOf(mesh.uv());
        metric = listOf(mesh.metricUv());
        uv2 = listOf(mesh.uv2());
        colours = painted == null ? null : new FloatList();
        for (int v = 0; v < mesh.vertexCount(); v++) {
            Vec3 p = toMetres.point(mesh.position(v));
            Vec3 n = toMetres.normal(mesh.normal(v));
            add(positions, p);
            add(normals, n);
            for (int k = 0; colours != null && k < 4; k++) {
                colours.add(painted[4 * v + k] & 0xFF);
            }
        }
        int[] exact = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int[] number = new int[exact.length];
        for (int v = 0; v < exact.length; v++) {
            number[v] = exact[v] == v ? placeCount++ : number[exact[v]];
            places.add(number[v]);
        }
        corners = mesh.indices().clone();
        faces = mesh.faces() == null ? null : mesh.faces().clone();
        this.spans = new int[mesh.triangleCount()];
        for (int s = 0; s < mesh.spanCount(); s++) {
            Arrays.fill(this.spans, mesh.spanStarts()[s], mesh.spanStarts()[s + 1], s);
        }
    }

    private static FloatList listOf(float[] values) {
        if (values == null) {
            return null;
        }
        FloatList list = new FloatList();
        for (float v : values) {
            list.add(v);
        }
        return list;
    }

    private static void add(FloatList to, Vec3 v) {
        to.add((float) v.x());
        to.add((float) v.y());
        to.add((float) v.z());
    }

    private boolean isRaised(int triangle) {
        Relief r = reliefs.get(spans[triangle]);
        return r != null && (r.metric ? metric : uv) != null;
    }

    private Mesh made(Mesh mesh, int most) {
        double longest = longestEdge(most);
        for (int round = 0; round < ROUNDS; round++) {
            Map<Long, Integer> halved = longEdges(longest);
            if (halved.isEmpty() || afterCutting(halved) > most) {
                break;
            }
            cut(halved);
        }
        move();
        return assembled(mesh);
    }

    /** In metres: a pixel of the finest relief, or what the number of triangles allows. */
    private double longestEdge(int most) {
        double area = 0;
        double finest = Double.MAX_VALUE;
        for (int t = 0; t < spans.length; t++) {
            if (isRaised(t)) {
                double own = normalOf(t).length() / 2;
                area += own;
                double density = density(t);
                if (density > 0) {
                    finest = Math.min(finest, reliefs.get(spans[t]).heights.pixel() / density);
                }
            }
        }
        return Math.max(finest, 1.6 * Math.sqrt(area / most));
    }

    /** How much the coordinates of a triangle's relief grow per metre. */
    private double density(int t) {
        FloatList at = reliefs.get(spans[t]).metric ? metric : uv;
        int a = 2 * corners[3 * t];
        int b = 2 * corners[3 * t + 1];
        int c = 2 * corners[3 * t + 2];
        double own = (at.get(b) - at.get(a)) * (double) (at.get(c + 1) - at.get(a + 1))
                - (at.get(c) - at.get(a)) * (double) (at.get(b + 1) - at.get(a + 1));
        double world = normalOf(t).length();
        return world > 0 ? Math.sqrt(Math.abs(own) / world) : 0;
    }

    private Vec3 position(int v) {
        return new Vec3(positions.get(3 * v), positions.get(3 * v + 1), positions.get(3 * v + 2));
    }

    /** Of twice the triangle's area. */
    private Vec3 normalOf(int t) {
        Vec3 a = position(corners[3 * t]);
        return position(corners[3 * t + 1])
                .minus(a)
                .cross(position(corners[3 * t + 2]).minus(a));
    }

    private long edge(int from, int to) {
        int a = places.get(from);
        int b = places.get(to);
        return (long) Math.min(a, b) << 32 | Math.max(a, b);
    }

    /** The edges of raised triangles that are too long, with no middle yet. */
    private Map<Long, Integer> longEdges(double longest) {
        Map<Long, Integer> found = new HashMap<>();
        for (int t = 0; t < spans.length; t++) {
            for (int k = 0; k < 3 && isRaised(t); k++) {
                int a = corners[3 * t + k];
                int b = corners[3 * t + (k + 1) % 3];
                if (position(a).minus(position(b)).length() > longest) {
                    found.put(edge(a, b), -1);
                }
            }
        }
        return found;
    }

    private long afterCutting(Map<Long, Integer> halved) {
        long count = 0;
        for (int t = 0; t < spans.length; t++) {
            count++;
            for (int k = 0; k < 3; k++) {
                count += halved.containsKey(edge(corners[3 * t + k], corners[3 * t + (k + 1) % 3])) ? 1 : 0;
            }
        }
        return count;
    }

    /** Halves edges: a triangle becomes two, three or four. */
    private void cut(Map<Long, Integer> halved) {
        IntList to = new IntList();
        IntList spanOf = new IntList();
        IntList faceOf = new IntList();
        Map<Long, Integer> middles = new HashMap<>();
        int[] m = new int[3];
        for (int t = 0; t < spans.length; t++) {
            int count = 0;
            for (int k = 0; k < 3; k++) {
                m[k] = middle(corners[3 * t + k], corners[3 * t + (k + 1) % 3], halved, middles);
                count += m[k] >= 0 ? 1 : 0;
            }
            int from = to.size();
            // turned so that of one edge to halve it is the first, and of two the first and second
            int turn = 0;
            while ((count == 1 && m[turn] < 0) || (count == 2 && m[(turn + 2) % 3] >= 0)) {
                turn++;
            }
            int a = corners[3 * t + turn];
            int b = corners[3 * t + (turn + 1) % 3];
            int c = corners[3 * t + (turn + 2) % 3];
            int ab = m[turn];
            int bc = m[(turn + 1) % 3];
            int ca = m[(turn + 2) % 3];
            switch (count) {
                case 0 -> triangle(to, a, b, c);
                case 1 -> {
                    triangle(to, a, ab, c);
                    triangle(to, ab, b, c);
                }
                case 2 -> {
                    triangle(to, ab, b, bc);
                    triangle(to, a, ab, bc);
                    triangle(to, a, bc, c);
                }
                default -> {
                    triangle(to, a, ab, ca);
                    triangle(to, ab, b, bc);
                    triangle(to, ca, bc, c);
                    triangle(to, ab, bc, ca);
                }
            }
            for (int i = from; i < to.size(); i += 3) {
                spanOf.add(spans[t]);
                faceOf.add(faces == null ? 0 : faces[t]);
            }
        }
        corners = to.toArray();
        spans = spanOf.toArray();
        faces = faces == null ? null : faceOf.toArray();
    }

    private static void triangle(IntList to, int a, int b, int c) {
        to.add(a);
        to.add(b);
        to.add(c);
    }

    /** The vertex half way between two, one for all that share both; −1 where the edge stays. */
    private int middle(int a, int b, Map<Long, Integer> halved, Map<Long, Integer> middles) {
        Long edge = edge(a, b);
        Integer place = halved.get(edge);
        if (place == null) {
            return -1;
        }
        return middles.computeIfAbsent((long) Math.min(a, b) << 32 | Math.max(a, b), k -> {
            int v = positions.size() / 3;
            halve(positions, a, b, 3);
            halve(uv, a, b, 2);
            halve(metric, a, b, 2);
            halve(uv2, a, b, 2);
            halve(colours, a, b, 4);
            add(normals, normal(a).plus(normal(b)).normalised());
            places.add(halved.merge(edge, -1, (there, none) -> there >= 0 ? there : placeCount++));
            return v;
        });
    }

    private static void halve(FloatList list, int a, int b, int each) {
        for (int k = 0; list != null && k < each; k++) {
            list.add((list.get(each * a + k) + list.get(each * b + k)) / 2);
        }
    }

    private Vec3 normal(int v) {
        return new Vec3(normals.get(3 * v), normals.get(3 * v + 1), normals.get(3 * v + 2));
    }

    /** Moves all places out, and lays normals anew. */
    private void move() {
        double[] height = new double[placeCount];
        int[] heights = new int[placeCount];
        boolean[] still = new boolean[placeCount];
        Vec3[] out = new Vec3[placeCount];
        Arrays.fill(out, Vec3.ZERO);
        boolean[] asked = new boolean[positions.size() / 3];
        double[] texel = new double[4];
        for (int t = 0; t < spans.length; t++) {
            boolean raised = isRaised(t);
            double footprint = raised ? density(t) * longestOf(t) : 0;
            for (int k = 0; k < 3; k++) {
                int v = corners[3 * t + k];
                int place = places.get(v);
                still[place] |= !raised;
                if (raised && !asked[v]) {
                    asked[v] = true;
                    Relief r = reliefs.get(spans[t]);
                    FloatList at = r.metric ? metric : uv;
                    r.heights.at(at.get(2 * v), at.get(2 * v + 1), footprint, texel);
                    height[place] += r.depth * r.heights.channel(texel);
                    heights[place]++;
                    out[place] = out[place].plus(normal(v).normalised());
                }
            }
        }
        double[] lean = leaning(out);
        for (int v = 0; v < asked.length; v++) {
            int place = places.get(v);
            if (!still[place] && heights[place] > 0 && out[place].length() > 0) {
                double far = height[place] / heights[place] / Math.max(STEEPEST, lean[place]);
                Vec3 p = position(v).plus(out[place].times(far / out[place].length()));
                positions.set(3 * v, (float) p.x());
                positions.set(3 * v + 1, (float) p.y());
                positions.set(3 * v + 2, (float) p.z());
            }
        }
        shade();
    }

    private double longestOf(int t) {
        double most = 0;
        for (int k = 0; k < 3; k++) {
            Vec3 edge = position(corners[3 * t + k]).minus(position(corners[3 * t + (k + 1) % 3]));
            most = Math.max(most, edge.length());
        }
        return most;
    }

    /** Least cosine between where a place goes and the normals there, so that faces move out by their whole height. */
    private double[] leaning(Vec3[] out) {
        double[] lean = new double[placeCount];
        Arrays.fill(lean, 1);
        for (int v = 0; v < places.size(); v++) {
            int place = places.get(v);
            double length = out[place].length();
            if (length > 0) {
                lean[place] = Math.min(lean[place], out[place].dot(normal(v).normalised()) / length);
            }
        }
        return lean;
    }

    /** Normals of what was moved: smooth where they were smooth before, with the edges that were there. */
    private void shade() {
        record Corner(int place, float x, float y, float z) {}
        Map<Corner, double[]> sums = new HashMap<>();
        Corner[] own = new Corner[positions.size() / 3];
        for (int t = 0; t < spans.length; t++) {
            Vec3 n = normalOf(t);
            for (int k = 0; k < 3 && isRaised(t); k++) {
                int v = corners[3 * t + k];
                if (own[v] == null) {
                    own[v] = new Corner(
                            places.get(v), normals.get(3 * v), normals.get(3 * v + 1), normals.get(3 * v + 2));
                }
                double[] sum = sums.computeIfAbsent(own[v], c -> new double[3]);
                sum[0] += n.x();
                sum[1] += n.y();
                sum[2] += n.z();
            }
        }
        for (int v = 0; v < own.length; v++) {
            double[] s = own[v] == null ? null : sums.get(own[v]);
            double length = s == null ? 0 : Math.sqrt(s[0] * s[0] + s[1] * s[1] + s[2] * s[2]);
            for (int k = 0; k < 3 && length > 0; k++) {
                normals.set(3 * v + k, (float) (s[k] / length));
            }
        }
    }

    private Mesh assembled(Mesh mesh) {
        Transform back = toMetres.inverse();
        float[] p = positions.toArray();
        float[] n = normals.toArray();
        for (int v = 0; v < p.length / 3; v++) {
            put(back.point(position(v)), p, v);
            put(back.normal(normal(v)), n, v);
        }
        byte[] paint = colours == null ? null : new byte[colours.size()];
        for (int i = 0; paint != null && i < paint.length; i++) {
            paint[i] = (byte) Math.round(colours.get(i));
        }
        int[] starts = new int[mesh.spanCount() + 1];
        for (int s : spans) {
            starts[s + 1]++;
        }
        for (int s = 0; s < mesh.spanCount(); s++) {
            starts[s + 1] += starts[s];
        }
        return new Mesh(p, n, array(uv), array(metric), corners, starts, faces, array(uv2), paint);
    }

    private static float[] array(FloatList list) {
        return list == null ? null : list.toArray();
    }

    private static void put(Vec3 v, float[] to, int at) {
        to[3 * at] = (float) v.x();
        to[3 * at + 1] = (float) v.y();
        to[3 * at + 2] = (float) v.z();
    }
}
