package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Polygons as text formats give them, each corner naming a position, a texture coordinate and a normal in shared lists,
 * on their way to a {@link Mesh}. Polygons are cut into triangles, triangles without three different corners dropped,
 * corners that agree become one vertex, triangles are grouped in spans by source material, and missing normals are
 * made: the angle-weighted mean (Thürmer & Wüthrich 1998) over the triangles around a corner that are joined smoothly,
 * by smoothing group where the file has them, else by the crease angle.
 */
public final class CornerMesh {
    /** Stands for a corner without a coordinate or normal of its own. */
    public static final int NONE = -1;
    /** Smoothing group of triangles to which the crease angle applies. */
    public static final int BY_ANGLE = Integer.MIN_VALUE;

    /** Three a triangle. The lists below stay null for as long as all they would hold is the usual value. */
    private IntList position = new IntList();

    private IntList uv;
    private IntList normal;
    /** One a triangle. */
    private IntList source;

    private IntList smoothing;
    private int triangles;
    private int firstSource;
    private boolean missesNormals;

    /** The shared lists; all but the positions may be null. */
    public record Pools(float[] positions, float[] uv, float[] normals, byte[] colours) {}

    /** The finished mesh and the source material of each of its spans. */
    public record Built(Mesh mesh, List<Integer> sources) {}

    /** A triangle of positions alone. */
    public void triangle(int p0, int p1, int p2, int material, int group) {
        triangle(p0, p1, p2, NONE, NONE, NONE, NONE, NONE, NONE, material, group);
    }

    public void triangle(
            int p0, int p1, int p2, int t0, int t1, int t2, int n0, int n1, int n2, int material, int group) {
        if (p0 == p1 || p1 == p2 || p2 == p0) {
            return;
        }
        position.add(p0);
        position.add(p1);
        position.add(p2);
        uv = withThree(uv, t0, t1, t2);
        normal = withThree(normal, n0, n1, n2);
        missesNormals |= n0 < 0 || n1 < 0 || n2 < 0;
        firstSource = triangles == 0 ? material : firstSource;
        source = with(source, material, firstSource);
        smoothing = with(smoothing, group, BY_ANGLE);
        triangles++;
    }

    private IntList withThree(IntList list, int a, int b, int c) {
        if (list == null && a < 0 && b < 0 && c < 0) {
            return null;
        }
        IntList to = list == null ? filled(3 * triangles, NONE) : list;
        to.add(a);
        to.add(b);
        to.add(c);
        return to;
    }

    private IntList with(IntList list, int value, int usual) {
        if (list == null && value == usual) {
            return null;
        }
        IntList to = list == null ? filled(triangles, usual) : list;
        to.add(value);
        return to;
    }

    private static IntList filled(int n, int value) {
        IntList list = new IntList();
        for (int i = 0; i < n; i++) {
            list.add(value);
        }
        return list;
    }

    /** A polygon of {@code n} corners; {@code t} and {@code nn} may be null. */
    public void polygon(float[] positions, int[] p, int[] t, int[] nn, int n, int material, int group) {
        if (n == 3) {
            addTriangle(p, t, nn, 0, 1, 2, material, group);
            return;
        }
        double[] points = new double[3 * n];
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < 3; k++) {
                points[3 * i + k] = positions[3 * p[i] + k];
            }
        }
        polygon(points, p, t, nn, material, group);
    }

    /** A polygon with holes; loops begin at {@code starts}. */
    public void polygon(double[] points, int[] p, int[] t, int[] nn, int material, int group, int... starts) {
        int[] cut = PolygonTriangulation.of(points, starts);
        for (int i = 0; i < cut.length; i += 3) {
            addTriangle(p, t, nn, cut[i], cut[i + 1], cut[i + 2], material, group);
        }
    }

    private void addTriangle(int[] p, int[] t, int[] n, int a, int b, int c, int material, int group) {
        triangle(
                p[a],
                p[b],
                p[c],
                t == null ? NONE : t[a],
                t == null ? NONE : t[b],
                t == null ? NONE : t[c],
                n == null ? NONE : n[a],
                n == null ? NONE : n[b],
                n == null ? NONE : n[c],
                material,
                group);
    }

    public int triangleCount() {
        return triangles;
    }

    /**
     * To be called once, at the end. Where normals are made, positions that lie at one place count as one even where the file lists them apart.
     *
     * @param creaseAngle in radians; sharper edges stay sharp where normals are made
     */
    public Built build(Pools pools, double creaseAngle) {
        int[] order = source == null ? null : orderBySource();
        int[] p = ordered(position, order);
        int[] t = uv == null ? null : ordered(uv, order);
        int[] n = normal == null || pools.normals() == null ? null : ordered(normal, order);
        position = null; // large, and not needed again
        uv = null;
        normal = null;
        Local local = Local.of(pools.positions(), p);
        int[] place = missesNormals ? VertexWeld.exact(local.positions, local.count) : null;
        if (place != null) {
            Ranges.each(p.length, (from, to) -> {
                for (int i = from; i < to; i++) {
                    p[i] = place[p[i]];
                }
            });
        }
        CornerNormals made = missesNormals || n == null
                ? CornerNormals.of(local.positions, local.count, p, groups(order), creaseAngle)
                : null;
        return assemble(pools, local, p, t, made == null ? n : withMade(n, made.fan()), made, order);
    }

    /** The smoothing groups in the triangles' order, or null where the crease angle decides throughout. */
    private int[] groups(int[] order) {
        if (smoothing == null) {
            return null;
        }
        int[] groups = new int[triangles];
        for (int i = 0; i < triangles; i++) {
            groups[i] = smoothing.get(order == null ? i : order[i]);
        }
        return groups;
    }

    /** A fan stands as −2 − its number where a corner has no normal of its own; null where none has. */
    private static int[] withMade(int[] n, int[] fan) {
        if (n != null) {
            for (int i = 0; i < n.length; i++) {
                n[i] = n[i] < 0 ? -2 - fan[i] : n[i];
            }
        }
        return n;
    }

    /** The list's values, three a triangle, triangles in the order given; null for as they are. */
    private static int[] ordered(IntList list, int[] order) {
        int[] out = list.toArray();
        if (order != null) {
            for (int i = 0; i < out.length; i++) {
                out[i] = list.get(3 * order[i / 3] + i % 3);
            }
        }
        return out;
    }

    private int[] orderBySource() {
        int[] order = new int[triangles];
        int[] distinct = source.toArray();
        Arrays.sort(distinct);
        int kinds = 0;
        for (int i = 0; i < distinct.length; i++) {
            if (i == 0 || distinct[i] != distinct[i - 1]) {
                distinct[kinds++] = distinct[i];
            }
        }
        int[] fill = new int[kinds + 1];
        for (int i = 0; i < triangles; i++) {
            fill[Arrays.binarySearch(distinct, 0, kinds, source.get(i)) + 1]++;
        }
        for (int k = 0; k < kinds; k++) {
            fill[k + 1] += fill[k];
        }
        for (int i = 0; i < triangles; i++) {
            order[fill[Arrays.binarySearch(distinct, 0, kinds, source.get(i))]++] = i;
        }
        return order;
    }

    private Built assemble(Pools pools, Local local, int[] p, int[] t, int[] n, CornerNormals made, int[] order) {
        int corners = p.length;
        boolean byFan = n == null && t == null;
        int[] indices = byFan ? made.fan() : new int[corners];
        int[] first = new int[byFan ? made.vectors().length / 3 : corners];
        int count = byFan ? firstOfEach(indices, first) : numberByAll(p, t, n == null ? made.fan() : n, indices, first);
        float[] positions = new float[3 * count];
        float[] normals = byFan ? made.vectors() : new float[3 * count];
        float[] uvs = t == null ? null : new float[2 * count];
        byte[] colours = pools.colours() == null ? null : new byte[4 * count];
        Ranges.each(count, (from, to) -> {
            for (int v = from; v < to; v++) {
                int i = first[v];
                copy(local.positions, p[i], positions, v);
                if (n != null && n[i] >= NONE) {
                    unit(pools.normals(), n[i], normals, v);
                } else if (!byFan) {
                    copy(made.vectors(), made.fan()[i], normals, v);
                }
                if (t != null && t[i] >= 0) {
                    System.arraycopy(pools.uv(), 2 * t[i], uvs, 2 * v, 2);
                }
                if (colours != null) {
                    System.arraycopy(pools.colours(), 4 * local.original[p[i]], colours, 4 * v, 4);
                }
            }
        });
        List<Integer> sources = new ArrayList<>();
        IntList starts = new IntList();
        if (order == null && triangles > 0) {
            sources.add(firstSource);
            starts.add(0);
        }
        for (int i = 0; order != null && i < triangles; i++) {
            int s = source.get(order[i]);
            if (i == 0 || s != source.get(order[i - 1])) {
                sources.add(s);
                starts.add(i);
            }
        }
        starts.add(triangles);
        Mesh mesh = new Mesh(positions, normals, uvs, null, indices, starts.toArray(), null, null, colours);
        return new Built(mesh, List.copyOf(sources));
    }

    private static void copy(float[] from, int i, float[] to, int v) {
        to[3 * v] = from[3 * i];
        to[3 * v + 1] = from[3 * i + 1];
        to[3 * v + 2] = from[3 * i + 2];
    }

    /** Fans are numbered by their first corner, so where they alone count they are the vertices. */
    private static int firstOfEach(int[] fan, int[] first) {
        int count = 0;
        for (int i = 0; count < first.length; i++) {
            if (fan[i] == count) {
                first[count++] = i;
            }
        }
        return count;
    }

    /** Corners that agree in everything are a vertex. */
    private static int numberByAll(int[] p, int[] t, int[] n, int[] indices, int[] first) {
        int corners = p.length;
        int mask = Integer.highestOneBit(Math.max(corners, 4)) * 2 - 1;
        int[] slots = new int[mask + 1];
        Arrays.fill(slots, -1);
        int count = 0;
        for (int i = 0; i < corners; i++) {
            int ti = t == null ? 0 : t[i];
            int h = VertexWeld.hash(p[i], ti, n[i]) & mask;
            int o;
            while ((o = slots[h]) >= 0) {
                int f = first[o];
                if (p[f] == p[i] && n[f] == n[i] && (t == null || t[f] == ti)) {
                    break;
                }
                h = (h + 1) & mask;
            }
            if (o < 0) {
                o = count++;
                slots[h] = o;
                first[o] = i;
            }
            indices[i] = o;
        }
        return count;
    }

    private static void unit(float[] from, int i, float[] to, int v) {
        double x = from[3 * i];
        double y = from[3 * i + 1];
        double z = from[3 * i + 2];
        double l = Math.sqrt(x * x + y * y + z * z);
        boolean good = l > 1e-12 && l < Double.POSITIVE_INFINITY;
        to[3 * v] = good ? (float) (x / l) : 0;
        to[3 * v + 1] = good ? (float) (y / l) : 1;
        to[3 * v + 2] = good ? (float) (z / l) : 0;
    }

    /** The positions that these corners use, numbered anew from 0; {@code p} is renumbered in place. */
    private record Local(float[] positions, int count, int[] original) {
        static Local of(float[] pool, int[] p) {
            int lowest = Integer.MAX_VALUE;
            int highest = -1;
            for (int i : p) {
                lowest = Math.min(lowest, i);
                highest = Math.max(highest, i);
            }
            int[] number = new int[Math.max(0, highest - lowest + 1)];
            int[] original = new int[Math.min(number.length, p.length)];
            int count = 0;
            for (int i = 0; i < p.length; i++) {
                int at = p[i] - lowest;
                if (number[at] == 0) {
                    original[count++] = p[i];
                    number[at] = count;
                }
                p[i] = number[at] - 1;
            }
            float[] positions = new float[3 * count];
            for (int v = 0; v < count; v++) {
                System.arraycopy(pool, 3 * original[v], positions, 3 * v, 3);
            }
            return new Local(positions, count, original);
        }
    }
}
