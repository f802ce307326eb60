package app.zolvan.core.geometry;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.List;

/**
 * A mesh being changed: its triangles can be dropped, and others added on vertices that are copies of its own, blends of
 * two of them, or copies at another place. Spans stay; added faces get numbers of their own.
 */
public final class Patchwork {
    private final Mesh mesh;
    private final List<Vertex> vertices = new ArrayList<>();
    private final List<int[]> triangles = new ArrayList<>();
    private final int[] known;
    private int faces;

    /**
     * @param source the mesh's vertex that it is a copy of
     * @param other  one that it is blended with
     * @param share  how much of the other
     * @param third  another one
     * @param more   how much of that
     * @param at     where it is; null for where its source is
     * @param normal null for its source's, or the blend
     */
    private record Vertex(int source, int other, double share, int third, double more, Vec3 at, Vec3 normal) {
        boolean isBlend() {
            return share != 0 || more != 0;
        }
    }

    /** Begins with no triangles. */
    public Patchwork(Mesh mesh) {
        this.mesh = mesh;
        known = new int[mesh.vertexCount()];
        Arrays.fill(known, -1);
        faces = mesh.faces() == null ? 0 : mesh.faceCount();
    }

    /** The mesh's own vertex, once however often it is asked for. */
    public int own(int vertex) {
        if (known[vertex] < 0) {
            known[vertex] = add(new Vertex(vertex, vertex, 0, vertex, 0, null, null));
        }
        return known[vertex];
    }

    /** A copy of a vertex at another place or with another normal, null for its own. */
    public int copy(int vertex, Vec3 at, Vec3 normal) {
        return add(new Vertex(vertex, vertex, 0, vertex, 0, at, normal));
    }

    /** A vertex on the way from one to another, at a place near there. */
    public int between(int from, int to, double share, Vec3 at) {
        return add(new Vertex(from, to, share, from, 0, at, null));
    }

    /**
     * A vertex in the plane of three, or beyond them: its coordinates go on as theirs do.
     *
     * @param share how far towards the second
     * @param more  how far towards the third
     */
    public int among(int first, int second, double share, int third, double more, Vec3 at, Vec3 normal) {
        return add(new Vertex(first, second, share, third, more, at, normal));
    }

    private int add(Vertex v) {
        vertices.add(v);
        return vertices.size() - 1;
    }

    /** A number for a face that was not there. */
    public int newFace() {
        return faces++;
    }

    public void triangle(int a, int b, int c, int span, int face) {
        triangles.add(new int[] {a, b, c, span, face});
    }

    /** One of the mesh's own triangles, as it is. */
    public void keep(int triangle, int span) {
        int[] i = mesh.indices();
        triangle(own(i[3 * triangle]), own(i[3 * triangle + 1]), own(i[3 * triangle + 2]), span, faceOf(triangle));
    }

    public int faceOf(int triangle) {
        return mesh.faces() == null ? 0 : mesh.faces()[triangle];
    }

    /** The span of each of a mesh's triangles. */
    public static int[] spans(Mesh mesh) {
        int[] out = new int[mesh.triangleCount()];
        for (int s = 0; s < mesh.spanCount(); s++) {
            Arrays.fill(out, mesh.spanStarts()[s], mesh.spanStarts()[s + 1], s);
        }
        return out;
    }

    /** What has come of it; every span is there, though it may be empty. */
    public Mesh toMesh() {
        triangles.sort(Comparator.comparingInt(t -> t[3]));
        int[] starts = new int[mesh.spanCount() + 1];
        int[] corners = new int[3 * triangles.size()];
        int[] sources = new int[corners.length];
        int[] face = new int[triangles.size()];
        for (int t = 0; t < triangles.size(); t++) {
            int[] of = triangles.get(t);
            for (int k = 0; k < 3; k++) {
                corners[3 * t + k] = of[k];
                sources[3 * t + k] = vertices.get(of[k]).source;
            }
            face[t] = of[4];
            starts[of[3] + 1]++;
        }
        for (int s = 0; s < mesh.spanCount(); s++) {
            starts[s + 1] += starts[s];
        }
        Mesh of = new Mesh(
                mesh.positions(),
                mesh.normals(),
                mesh.uv(),
                mesh.metricUv(),
                sources,
                starts,
                mesh.faces() == null ? null : face,
                mesh.uv2(),
                mesh.colours());
        int[] source = vertices.stream().mapToInt(Vertex::source).toArray();
        Mesh out = of.onCopies(source, source.length, corners, null);
        for (int v = 0; v < source.length; v++) {
            adapt(out, v, vertices.get(v)); // nobody has seen it yet
        }
        return out;
    }

    private void adapt(Mesh out, int v, Vertex of) {
        if (of.isBlend()) {
            blend(mesh.normals(), of, out.normals(), v, 3);
            blend(mesh.uv(), of, out.uv(), v, 2);
            blend(mesh.uv2(), of, out.uv2(), v, 2);
            blend(mesh.metricUv(), of, out.metricUv(), v, 2);
        }
        put(of.at, out.positions(), v);
        put(of.normal, out.normals(), v);
    }

    private static void blend(float[] from, Vertex of, float[] to, int v, int each) {
        for (int k = 0; from != null && k < each; k++) {
            to[each * v + k] = (float) ((1 - of.share - of.more) * from[each * of.source + k]
                    + of.share * from[each * of.other + k]
                    + of.more * from[each * of.third + k]);
        }
    }

    private static void put(Vec3 value, float[] to, int v) {
        for (int k = 0; value != null && k < 3; k++) {
            to[3 * v + k] = (float) value.get(k);
        }
    }
}
