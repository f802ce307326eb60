package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Mesh;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;

/** Turns triangles over, so that their fronts face the other way. */
public final class Sides {
    private Sides() {}

    /** The mesh inside out: every triangle turned, with the normals of its corners. */
    public static Mesh flip(Mesh mesh) {
        boolean[] all = new boolean[mesh.triangleCount()];
        Arrays.fill(all, true);
        return turn(mesh, all);
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
        int[] copies = new int[2 * mesh.vertexCount()];
        Arrays.fill(copies, -1);
        int[] source = new int[2 * mesh.vertexCount()];
        int count = 0;
        int[] indices = new int[index.length];
        for (int i = 0; i < index.length; i++) {
            boolean over = turned[i / 3];
            int corner = over && i % 3 > 0 ? i / 3 * 3 + 3 - i % 3 : i; // first, third, second
            int slot = 2 * index[corner] + (over ? 1 : 0);
            if (copies[slot] < 0) {
                copies[slot] = count;
                source[count++] = slot;
            }
            indices[i] = copies[slot];
        }
        float[] normals = gather(mesh.normals(), source, count, 3);
        for (int v = 0; v < count; v++) {
            if ((source[v] & 1) == 1) {
                normals[3 * v] *= -1;
                normals[3 * v + 1] *= -1;
                normals[3 * v + 2] *= -1;
            }
        }
        byte[] colours = mesh.colours() == null ? null : new byte[4 * count];
        for (int v = 0; colours != null && v < count; v++) {
            System.arraycopy(mesh.colours(), 4 * (source[v] >> 1), colours, 4 * v, 4);
        }
        return new Mesh(
                gather(mesh.positions(), source, count, 3),
                normals,
                gather(mesh.uv(), source, count, 2),
                gather(mesh.metricUv(), source, count, 2),
                indices,
                mesh.spanStarts(),
                mesh.faces(),
                gather(mesh.uv2(), source, count, 2),
                colours);
    }

    private static float[] gather(float[] from, int[] source, int count, int each) {
        if (from == null) {
            return null;
        }
        float[] out = new float[each * count];
        for (int v = 0; v < count; v++) {
            System.arraycopy(from, each * (source[v] >> 1), out, each * v, each);
        }
        return out;
    }
}
