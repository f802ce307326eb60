package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Patchwork;
import app.zolvan.core.geometry.SymmetricMatrix;
import app.zolvan.core.geometry.Topology;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import app.zolvan.core.prepare.Repair.RefusedException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;

/**
 * Moves the surface of a closed body outward or inward by a distance: every flat side moves by just that, and each corner
 * to where its moved sides meet (by least squares where more than three do). Grows a liquid into its vessel's wall, or
 * shrinks it away from it. Outward is away from what the body encloses, whichever way its triangles face.
 */
final class Offsetting {
    /** Sides that differ less than this from one already counted at a corner do not count again; the cosine of 2°. */
    private static final double SAME_SIDE = Math.cos(Math.toRadians(2));
    /** Directions in which a corner's sides say less than this, as a share of what they say most, are left alone. */
    private static final double SAYS_LITTLE = 0.01;

    private Offsetting() {}

    /** @param distance outward, in the mesh's unit */
    static Mesh of(Mesh mesh, double distance) throws RefusedException {
        if (!Topology.of(mesh).isClosed()) {
            throw new RefusedException("Only closed bodies can grow or shrink, and this one has open edges. Weld it or"
                    + " fill its holes first.");
        }
        int[] place = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        double volume = mesh.signedVolume();
        Vec3[] moved = corners(mesh, place, Math.copySign(1, volume) * distance);
        Patchwork work = new Patchwork(mesh);
        int[] copies = new int[place.length];
        Arrays.fill(copies, -1);
        int[] spans = Patchwork.spans(mesh);
        for (int t = 0; t < spans.length; t++) {
            int[] c = new int[3];
            for (int k = 0; k < 3; k++) {
                int v = mesh.indices()[3 * t + k];
                copies[v] = copies[v] < 0 ? work.copy(v, moved[place[v]], null) : copies[v];
                c[k] = copies[v];
            }
            work.triangle(c[0], c[1], c[2], spans[t], work.faceOf(t));
        }
        Mesh out = work.toMesh();
        double after = out.signedVolume() / volume; // as a share of what it was
        if (isTurned(mesh, out)
                || after <= 0
                || (after - 1) * distance < 0
                || crossings(out, place, mesh) > crossings(mesh, place, mesh)) {
            throw new RefusedException(
                    "Moved that far, the surface would pass through itself. Choose a smaller distance.");
        }
        return out;
    }

    private static Vec3[] corners(Mesh mesh, int[] place, double distance) {
        List<List<Vec3>> sides = new ArrayList<>();
        for (int v = 0; v < place.length; v++) {
            sides.add(place[v] == v ? new ArrayList<>() : null);
        }
        for (int i = 0; i < mesh.indices().length; i++) {
            Vec3 n = normal(mesh, i / 3);
            List<Vec3> known = sides.get(place[mesh.indices()[i]]);
            if (n != null && known.stream().noneMatch(o -> o.dot(n) > SAME_SIDE)) {
                known.add(n);
            }
        }
        Vec3[] moved = new Vec3[place.length];
        for (int v = 0; v < place.length; v++) {
            if (place[v] == v) {
                moved[v] = mesh.position(v).plus(meeting(sides.get(v)).times(distance));
            }
        }
        return moved;
    }

    private static Vec3 normal(Mesh mesh, int t) {
        Vec3 a = mesh.position(mesh.indices()[3 * t]);
        Vec3 n = mesh.position(mesh.indices()[3 * t + 1])
                .minus(a)
                .cross(mesh.position(mesh.indices()[3 * t + 2]).minus(a));
        double length = n.length();
        return length > 0 ? n.times(1 / length) : null;
    }

    /** The shortest way x with n · x = 1 for all sides, as nearly as they allow. */
    private static Vec3 meeting(List<Vec3> sides) {
        double[] m = new double[6];
        Vec3 sum = Vec3.ZERO;
        for (Vec3 n : sides) {
            SymmetricMatrix.addSquare(m, n, 1);
            sum = sum.plus(n);
        }
        SymmetricMatrix.Eigen e = SymmetricMatrix.eigen(m);
        Vec3 out = Vec3.ZERO;
        for (int k = 0; k < 3; k++) {
            if (e.values()[k] > SAYS_LITTLE * e.values()[2]) {
                Vec3 d = e.directions()[k];
                out = out.plus(d.times(d.dot(sum) / e.values()[k]));
            }
        }
        return out;
    }

    private static boolean isTurned(Mesh before, Mesh after) {
        for (int t = 0; t < before.triangleCount(); t++) {
            Vec3 a = normal(before, t);
            Vec3 b = normal(after, t);
            if (a != null && (b == null || a.dot(b) <= 0)) {
                return true;
            }
        }
        return false;
    }

    /** How many sides of triangles pass through others that they share no corner with. */
    private static int crossings(Mesh mesh, int[] place, Mesh numbered) {
        int triangles = mesh.triangleCount();
        double[] boxes = new double[6 * triangles];
        for (int t = 0; t < triangles; t++) {
            Box3 box = Box3.EMPTY;
            for (int k = 0; k < 3; k++) {
                box = box.with(mesh.position(mesh.indices()[3 * t + k]));
            }
            box.put(boxes, 6 * t);
        }
        BoxTree tree = new BoxTree(boxes);
        int[] found = {0};
        double[] box = new double[6];
        for (int t = 0; t < triangles; t++) {
            int own = t;
            System.arraycopy(boxes, 6 * t, box, 0, 6);
            tree.touching(box, o -> {
                if (o != own && !meet(numbered, place, own, o) && cuts(mesh, own, o)) {
                    found[0]++;
                }
            });
        }
        return found[0];
    }

    private static boolean meet(Mesh mesh, int[] place, int t, int o) {
        for (int k = 0; k < 9; k++) {
            if (place[mesh.indices()[3 * t + k / 3]] == place[mesh.indices()[3 * o + k % 3]]) {
                return true;
            }
        }
        return false;
    }

    private static boolean cuts(Mesh mesh, int t, int o) {
        Vec3[] p = new Vec3[6];
        for (int k = 0; k < 3; k++) {
            p[k] = mesh.position(mesh.indices()[3 * t + k]);
            p[3 + k] = mesh.position(mesh.indices()[3 * o + k]);
        }
        return Triangles.isCut(p[0], p[1], p[3], p[4], p[5])
                || Triangles.isCut(p[1], p[2], p[3], p[4], p[5])
                || Triangles.isCut(p[2], p[0], p[3], p[4], p[5]);
    }
}
