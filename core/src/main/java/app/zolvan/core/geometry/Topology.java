package app.zolvan.core.geometry;

import java.util.Arrays;

/**
 * Which triangles of a mesh touch along which edges. Vertices at exactly the same place count as one, so a mesh whose
 * vertices were split for normals or texture coordinates is still seen as connected. Triangles with two corners at one
 * place take no part.
 *
 * <p>It does not close gaps: vertices that merely lie near each other stay apart.
 */
public final class Topology {
    /** The edge belongs to one triangle only. */
    public static final int BOUNDARY = -1;
    /** The edge is shared by more than two triangles, or by two that run along it the same way. */
    public static final int NON_MANIFOLD = -2;

    private final Mesh mesh;
    private final int[] welded;
    private final int[] opposite;

    private Topology(Mesh mesh, int[] welded, int[] opposite) {
        this.mesh = mesh;
        this.welded = welded;
        this.opposite = opposite;
    }

    public static Topology of(Mesh mesh) {
        int[] welded = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        int[] corners = new int[mesh.indices().length];
        for (int e = 0; e < corners.length; e++) {
            corners[e] = welded[mesh.indices()[e]];
        }
        EdgePairs pairs = EdgePairs.of(corners, t -> isDegenerate(mesh, welded, t));
        int[] opposite = new int[corners.length];
        for (int e = 0; e < corners.length; e++) {
            int o = pairs.across()[e];
            opposite[e] = o == EdgePairs.NONE ? BOUNDARY : o >= 0 && !pairs.alike()[e] ? o : NON_MANIFOLD;
        }
        return new Topology(mesh, welded, opposite);
    }

    /**
     * True when every edge is shared by exactly two triangles that run along it in opposite directions: the surface
     * bounds a volume.
     */
    public boolean isClosed() {
        boolean any = false;
        for (int t = 0; t < mesh.triangleCount(); t++) {
            if (isDegenerate(mesh, welded, t)) {
                continue;
            }
            any = true;
            for (int k = 0; k < 3; k++) {
                if (opposite[3 * t + k] < 0) {
                    return false;
                }
            }
        }
        return any;
    }

    /**
     * The half-edge on the other side of half-edge {@code e}, or {@link #BOUNDARY} or {@link #NON_MANIFOLD}. Half-edge
     * 3t + k runs from corner k of triangle t to its next corner.
     */
    public int opposite(int e) {
        return opposite[e];
    }

    /**
     * Numbers the connected smooth regions: triangles that meet along an edge with less than {@code creaseAngle}
     * radians between their normals, and that lie in the same span, share a face.
     *
     * @return the face of each triangle, numbered from 0 in order of each face's first triangle
     */
    public int[] smoothFaces(double creaseAngle) {
        double cosine = Math.cos(creaseAngle);
        int triangles = mesh.triangleCount();
        Vec3[] normals = new Vec3[triangles];
        int[] span = new int[triangles];
        for (int s = 0; s < mesh.spanCount(); s++) {
            for (int t = mesh.spanStarts()[s]; t < mesh.spanStarts()[s + 1]; t++) {
                span[t] = s;
                normals[t] = normal(t);
            }
        }
        int[] face = new int[triangles];
        Arrays.fill(face, -1);
        int[] stack = new int[triangles];
        int count = 0;
        for (int seed = 0; seed < triangles; seed++) {
            if (face[seed] >= 0) {
                continue;
            }
            int top = 0;
            stack[top++] = seed;
            face[seed] = count;
            while (top > 0) {
                int t = stack[--top];
                for (int k = 0; k < 3; k++) {
                    int o = opposite[3 * t + k];
                    int n = o / 3;
                    if (o >= 0 && face[n] < 0 && span[n] == span[t] && normals[n].dot(normals[t]) >= cosine) {
                        face[n] = count;
                        stack[top++] = n;
                    }
                }
            }
            count++;
        }
        return face;
    }

    private Vec3 normal(int t) {
        Vec3 a = mesh.position(mesh.indices()[3 * t]);
        Vec3 b = mesh.position(mesh.indices()[3 * t + 1]);
        Vec3 c = mesh.position(mesh.indices()[3 * t + 2]);
        return b.minus(a).cross(c.minus(a)).normalised();
    }

    private static boolean isDegenerate(Mesh mesh, int[] welded, int t) {
        int a = welded[mesh.indices()[3 * t]];
        int b = welded[mesh.indices()[3 * t + 1]];
        int c = welded[mesh.indices()[3 * t + 2]];
        return a == b || b == c || c == a;
    }
}
