package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Mesh;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.Set;

/** Turns triangles over, so that their fronts face the other way. */
public final class Sides {
    private Sides() {}

    /** The mesh inside out: every triangle turned, with the normals of its corners. */
    public static Mesh flip(Mesh mesh) {
        return mesh.turnedOver();
    }

    /** The mesh with some of its faces turned over. */
    public static Mesh flip(Mesh mesh, Set<Integer> faces) {
        boolean[] turned = new boolean[mesh.triangleCount()];
        for (int t = 0; t < turned.length; t++) {
            turned[t] = faces.contains(mesh.faces()[t]);
        }
        return turn(mesh, turned);
    }

    /**
     * The mesh with the triangles of each connected shell running alike; closed shells face outward, or inward where they
     * are the wall of a hollow, and small holes do not matter. Shells that enclose nothing go by the greater part of their
     * area.
     *
     * @param scale metres in the world along one unit of the mesh
     * @return nothing where nothing had to be turned
     */
    public static Optional<Mesh> unify(Mesh mesh, double scale) {
        List<Integer> wrong = Shells.of(mesh, scale).flipped();
        if (wrong.isEmpty()) {
            return Optional.empty();
        }
        boolean[] turned = new boolean[mesh.triangleCount()];
        wrong.forEach(t -> turned[t] = true);
        return Optional.of(turn(mesh, turned));
    }

    /** Vertices that turned triangles share with others become two: their normals differ from now on. */
    private static Mesh turn(Mesh mesh, boolean[] turned) {
        int[] index = mesh.indices();
        int[] copies = new int[2 * mesh.vertexCount()]; // of each vertex one as it is and one turned over
        Arrays.fill(copies, -1);
        int[] source = new int[copies.length];
        boolean[] over = new boolean[copies.length];
        int count = 0;
        int[] corners = new int[index.length];
        for (int i = 0; i < index.length; i++) {
            boolean turn = turned[i / 3];
            int vertex = index[turn && i % 3 > 0 ? i / 3 * 3 + 3 - i % 3 : i]; // first, third, second
            int slot = 2 * vertex + (turn ? 1 : 0);
            if (copies[slot] < 0) {
                copies[slot] = count;
                source[count] = vertex;
                over[count++] = turn;
            }
            corners[i] = copies[slot];
        }
        Mesh out = mesh.onCopies(source, count, corners, null);
        float[] normals = out.normals(); // nobody has seen them yet
        for (int i = 0; i < normals.length; i++) {
            normals[i] = over[i / 3] ? -normals[i] : normals[i];
        }
        return out;
    }
}
