package app.zolvan.core.geometry;

import java.io.Serializable;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * An indexed triangle mesh in its part's own space. Immutable by agreement: the arrays are handed out without a copy
 * and nobody writes to them.
 *
 * <p>Layout: {@code positions} and {@code normals} hold x, y, z per vertex; {@code uv} (the coordinates the file came
 * with) and {@code metricUv} (at real size, in metres; see {@code mapping.RealSize}) hold u, v per vertex, or are null.
 * {@code indices} holds three vertices per triangle, anticlockwise seen from the front.
 * Triangles are grouped in spans: span i is triangles {@code spanStarts[i]} up to, but not with, {@code
 * spanStarts[i + 1]}. A span is what arrived with one source material. {@code faces} gives each triangle the number of
 * the smooth region it lies in, or is null before topology has been worked out. {@code uv2} is the file's second set of
 * coordinates and {@code colours} what it painted on vertices (sRGB red, green, blue and alpha, a byte each), or null.
 *
 * <p>Every position is finite and every index in range: the constructor refuses anything else.
 */
public record Mesh(
        float[] positions,
        float[] normals,
        float[] uv,
        float[] metricUv,
        int[] indices,
        int[] spanStarts,
        int[] faces,
        float[] uv2,
        byte[] colours)
        implements Serializable {

    public Mesh {
        int vertices = positions.length / 3;
        require(positions.length == vertices * 3, "positions must hold three numbers per vertex");
        require(normals.length == positions.length, "normals must match positions");
        require(uv == null || uv.length == vertices * 2, "uv must match positions");
        require(metricUv == null || metricUv.length == vertices * 2, "metricUv must match positions");
        require(indices.length % 3 == 0, "indices must hold three vertices per triangle");
        require(spanStarts[spanStarts.length - 1] == indices.length / 3, "spans must cover all triangles");
        require(faces == null || faces.length == indices.length / 3, "faces must match triangles");
        require(uv2 == null || uv2.length == vertices * 2, "uv2 must match positions");
        require(colours == null || colours.length == vertices * 4, "colours must match positions");
        require(areFinite(positions), "a position is not a finite number");
        require(areBelow(vertices, indices), "an index points past the last vertex");
    }

    private static boolean areFinite(float[] numbers) {
        float sum = 0;
        for (float v : numbers) {
            sum += v * 0; // 0, or NaN for good
        }
        return sum == 0;
    }

    private static boolean areBelow(int count, int[] indices) {
        int signs = 0;
        for (int i : indices) {
            signs |= i | (count - 1 - i);
        }
        return signs >= 0;
    }

    /** A mesh without second coordinates and painted colours. */
    public Mesh(
            float[] positions,
            float[] normals,
            float[] uv,
            float[] metricUv,
            int[] indices,
            int[] spanStarts,
            int[] faces) {
        this(positions, normals, uv, metricUv, indices, spanStarts, faces, null, null);
    }

    /**
     * The same triangles with three vertices each, corner by corner.
     *
     * @param cornerUv its second set of coordinates: six numbers a triangle
     */
    public Mesh parted(float[] cornerUv) {
        int[] own = new int[indices.length];
        for (int i = 0; i < own.length; i++) {
            own[i] = i;
        }
        byte[] painted = colours == null ? null : new byte[4 * indices.length];
        for (int i = 0; painted != null && i < indices.length; i++) {
            System.arraycopy(colours, 4 * indices[i], painted, 4 * i, 4);
        }
        return new Mesh(
                corners(positions, 3),
                corners(normals, 3),
                corners(uv, 2),
                corners(metricUv, 2),
                own,
                spanStarts,
                faces,
                cornerUv,
                painted);
    }

    private float[] corners(float[] of, int size) {
        if (of == null) {
            return null;
        }
        float[] all = new float[size * indices.length];
        for (int i = 0; i < indices.length; i++) {
            System.arraycopy(of, size * indices[i], all, size * i, size);
        }
        return all;
    }

    private static void require(boolean condition, String message) {
        if (!condition) {
            throw new IllegalArgumentException(message);
        }
    }

    public int vertexCount() {
        return positions.length / 3;
    }

    public int triangleCount() {
        return indices.length / 3;
    }

    public int spanCount() {
        return spanStarts.length - 1;
    }

    public int faceCount() {
        int highest = -1;
        for (int f : faces) {
            highest = Math.max(highest, f);
        }
        return highest + 1;
    }

    public Vec3 position(int vertex) {
        return new Vec3(positions[3 * vertex], positions[3 * vertex + 1], positions[3 * vertex + 2]);
    }

    public Vec3 normal(int vertex) {
        return new Vec3(normals[3 * vertex], normals[3 * vertex + 1], normals[3 * vertex + 2]);
    }

    /** @param metric u, v of each vertex in metres */
    public Mesh withMetricUv(float[] metric) {
        return new Mesh(positions, normals, uv, metric, indices, spanStarts, faces, uv2, colours);
    }

    public Mesh withFaces(int[] faceOfTriangle) {
        return new Mesh(positions, normals, uv, metricUv, indices, spanStarts, faceOfTriangle, uv2, colours);
    }

    /**
     * The same triangles on copies of its vertices.
     *
     * @param source  for each new vertex the one it is a copy of
     * @param count   how many new vertices there are
     * @param corners what {@link #indices} was, by the new vertices
     * @param metric  metric coordinates of the new vertices, or null to copy them, too
     */
    public Mesh onCopies(int[] source, int count, int[] corners, float[] metric) {
        byte[] painted = colours == null ? null : new byte[4 * count];
        for (int v = 0; painted != null && v < count; v++) {
            System.arraycopy(colours, 4 * source[v], painted, 4 * v, 4);
        }
        return new Mesh(
                copies(positions, source, count, 3),
                copies(normals, source, count, 3),
                copies(uv, source, count, 2),
                metric == null ? copies(metricUv, source, count, 2) : metric,
                corners,
                spanStarts,
                faces,
                copies(uv2, source, count, 2),
                painted);
    }

    private static float[] copies(float[] of, int[] source, int count, int each) {
        if (of == null) {
            return null;
        }
        float[] out = new float[each * count];
        for (int v = 0; v < count; v++) {
            System.arraycopy(of, each * source[v], out, each * v, each);
        }
        return out;
    }

    /**
     * The same triangles in other spans, in their order within each; a face that would lie in several becomes one face in
     * each.
     */
    public Mesh regrouped(int[] spanOfTriangle, int spans) {
        int triangles = triangleCount();
        int[] starts = new int[spans + 1];
        for (int s : spanOfTriangle) {
            starts[s + 1]++;
        }
        for (int s = 0; s < spans; s++) {
            starts[s + 1] += starts[s];
        }
        int[] fill = Arrays.copyOf(starts, spans);
        int[] corners = new int[indices.length];
        int[] face = faces == null ? null : new int[triangles];
        for (int t = 0; t < triangles; t++) {
            int to = fill[spanOfTriangle[t]]++;
            System.arraycopy(indices, 3 * t, corners, 3 * to, 3);
            if (face != null) {
                face[to] = faces[t];
            }
        }
        if (face != null) {
            Map<Long, Integer> numbers = new HashMap<>();
            for (int s = 0; s < spans; s++) {
                for (int t = starts[s]; t < starts[s + 1]; t++) {
                    face[t] = numbers.computeIfAbsent((long) s << 32 | face[t], k -> numbers.size());
                }
            }
        }
        return new Mesh(positions, normals, uv, metricUv, corners, starts, face, uv2, colours);
    }

    /** Some of its spans, in the order given. */
    public Mesh ofSpans(List<Integer> spans) {
        int[] starts = new int[spans.size() + 1];
        for (int i = 0; i < spans.size(); i++) {
            starts[i + 1] = starts[i] + spanStarts[spans.get(i) + 1] - spanStarts[spans.get(i)];
        }
        int[] corners = new int[3 * starts[spans.size()]];
        int[] face = faces == null ? null : new int[starts[spans.size()]];
        for (int i = 0; i < spans.size(); i++) {
            int from = spanStarts[spans.get(i)];
            int count = starts[i + 1] - starts[i];
            System.arraycopy(indices, 3 * from, corners, 3 * starts[i], 3 * count);
            if (face != null) {
                System.arraycopy(faces, from, face, starts[i], count);
            }
        }
        return new Mesh(positions, normals, uv, metricUv, corners, starts, face, uv2, colours);
    }

    /** The same inside out: every triangle turned over, with the normals of its corners. */
    public Mesh turnedOver() {
        float[] turned = new float[normals.length];
        for (int i = 0; i < normals.length; i++) {
            turned[i] = -normals[i];
        }
        int[] corners = new int[indices.length];
        for (int i = 0; i < indices.length; i++) {
            corners[i] = indices[i % 3 == 0 ? i : i / 3 * 3 + 3 - i % 3]; // first, third, second
        }
        return new Mesh(positions, turned, uv, metricUv, corners, spanStarts, faces, uv2, colours);
    }

    /** The area of some triangles after a transform. */
    public double area(int fromTriangle, int toTriangle, Transform t) {
        double twice = 0;
        for (int i = 3 * fromTriangle; i < 3 * toTriangle; i += 3) {
            Vec3 a = position(indices[i]);
            Vec3 u = t.direction(position(indices[i + 1]).minus(a));
            twice += u.cross(t.direction(position(indices[i + 2]).minus(a))).length();
        }
        return twice / 2;
    }

    /** Sum of the triangles' areas, in the square of the mesh's unit. */
    public double area() {
        return area(0, triangleCount(), Transform.IDENTITY);
    }

    /** The volume that is enclosed, below 0 for a body that is inside out; of no meaning for an open surface. */
    public double signedVolume() {
        double six = 0;
        Vec3 origin = indices.length == 0 ? Vec3.ZERO : position(indices[0]);
        for (int i = 0; i < indices.length; i += 3) {
            Vec3 a = position(indices[i]).minus(origin);
            Vec3 b = position(indices[i + 1]).minus(origin);
            Vec3 c = position(indices[i + 2]).minus(origin);
            six += a.dot(b.cross(c));
        }
        return six / 6;
    }

    /** The same shape with every length multiplied. */
    public Mesh scaled(double factor) {
        float[] p = new float[positions.length];
        for (int i = 0; i < p.length; i++) {
            p[i] = (float) (factor * positions[i]);
        }
        return new Mesh(p, normals, uv, metricUv, indices, spanStarts, faces, uv2, colours);
    }

    /** Bounds of all vertices that a triangle uses. */
    public Box3 bounds() {
        return bounds(Transform.IDENTITY);
    }

    /** The same after a transform; exact, not the bounds of the turned box. */
    public Box3 bounds(Transform t) {
        double[] m = t.columns();
        double[] lo = {Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY, Double.POSITIVE_INFINITY};
        double[] hi = {Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY, Double.NEGATIVE_INFINITY};
        boolean[] used = new boolean[vertexCount()];
        for (int v : indices) {
            used[v] = true;
        }
        for (int k = 0; k < 3; k++) {
            bounds(k, m, used, lo, hi);
        }
        return new Box3(new Vec3(lo[0], lo[1], lo[2]), new Vec3(hi[0], hi[1], hi[2]));
    }

    private void bounds(int axis, double[] m, boolean[] used, double[] lo, double[] hi) {
        double least = Double.POSITIVE_INFINITY;
        double most = Double.NEGATIVE_INFINITY;
        float[] p = positions;
        double x = m[axis];
        double y = m[4 + axis];
        double z = m[8 + axis];
        double away = m[12 + axis];
        for (int v = 0; v < used.length; v++) {
            if (used[v]) {
                double c = x * p[3 * v] + y * p[3 * v + 1] + z * p[3 * v + 2] + away;
                least = c < least ? c : least;
                most = c > most ? c : most;
            }
        }
        lo[axis] = least;
        hi[axis] = most;
    }
}
