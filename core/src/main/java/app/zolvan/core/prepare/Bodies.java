package app.zolvan.core.prepare;

import app.zolvan.core.geometry.Box3;
import app.zolvan.core.geometry.BoxTree;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Triangles;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.model.Model;
import java.util.Set;

/** The parts of a model as triangles in the world, each made when it is first asked for. */
final class Bodies {
    private final Model model;
    private final Body[] known;

    Bodies(Model model) {
        this.model = model;
        known = new Body[model.parts().size()];
    }

    Body of(int part) {
        if (known[part] == null) {
            Model.Part p = model.parts().get(part);
            known[part] = Body.of(model.meshOf(p), model.partToWorld(p));
        }
        return known[part];
    }

    /** Triangles in the world, and a tree over them. */
    static final class Body {
        /** By how much a way out is askew, so that it runs along no edge. */
        private static final double ASKEW = 1e-4;

        final Vec3[] corners;
        final int[] index;
        private BoxTree tree;
        /** Longer than any way through it. */
        private double far;

        private int hits;

        static Body of(Mesh mesh, Transform toWorld) {
            Vec3[] corners = new Vec3[mesh.vertexCount()];
            for (int v = 0; v < corners.length; v++) {
                corners[v] = toWorld.point(mesh.position(v));
            }
            return new Body(corners, mesh.indices());
        }

        Body(Vec3[] corners, int[] index) {
            this.corners = corners;
            this.index = index;
        }

        /** A body of some of the triangles. */
        Body some(Set<Integer> triangles) {
            int[] fewer = new int[3 * triangles.size()];
            int at = 0;
            for (int t : triangles) {
                System.arraycopy(index, 3 * t, fewer, at, 3);
                at += 3;
            }
            return new Body(corners, fewer);
        }

        int triangles() {
            return index.length / 3;
        }

        Vec3 corner(int t, int k) {
            return corners[index[3 * t + k]];
        }

        Box3 box(int t) {
            return Box3.EMPTY.with(corner(t, 0)).with(corner(t, 1)).with(corner(t, 2));
        }

        private BoxTree tree() {
            if (tree == null) {
                double[] boxes = new double[6 * triangles()];
                Box3 all = Box3.EMPTY;
                for (int t = 0; t < triangles(); t++) {
                    Box3 box = box(t);
                    box.put(boxes, 6 * t);
                    all = all.with(box);
                }
                far = 2 * all.size().length();
                tree = new BoxTree(boxes);
            }
            return tree;
        }

        /** How many triangles a stretch passes. */
        int cuts(Vec3 a, Vec3 b) {
            double[] box = new double[6];
            Box3.EMPTY.with(a).with(b).put(box, 0);
            hits = 0;
            tree().touching(box, t -> hits += Triangles.isCut(a, b, corner(t, 0), corner(t, 1), corner(t, 2)) ? 1 : 0);
            return hits;
        }

        /**
         * How far along a direction the nearest surface is that lies across it.
         *
         * @param n      of length 1; distances the other way are below 0
         * @param facing a surface lies across where its normal and the direction have this cosine at least, the other way
         *               round
         * @param both   whether surfaces that look the same way count, too
         * @return NaN where there is none within reach
         */
        double along(Vec3 p, Vec3 n, double reach, double facing, boolean both) {
            double[] box = new double[6];
            Box3.EMPTY
                    .with(p.minus(n.times(reach)))
                    .with(p.plus(n.times(reach)))
                    .put(box, 0);
            double[] best = {Double.NaN};
            tree().touching(box, t -> {
                Vec3 a = corner(t, 0);
                Vec3 cross = corner(t, 1).minus(a).cross(corner(t, 2).minus(a));
                double across = cross.dot(n);
                if ((both ? Math.abs(across) : -across) < facing * cross.length()) {
                    return;
                }
                double d = a.minus(p).dot(cross) / across;
                boolean nearer = Double.isNaN(best[0]) || Math.abs(d) < Math.abs(best[0]);
                if (Math.abs(d) <= reach
                        && nearer
                        && Triangles.holds(p.plus(n.times(d)), cross, a, corner(t, 1), corner(t, 2))) {
                    best[0] = d;
                }
            });
            return best[0];
        }

        double distance(Vec3 p) {
            return tree().nearest(p, t -> Triangles.distance(p, corner(t, 0), corner(t, 1), corner(t, 2)));
        }

        /** Whether a point lies within: by parity along each axis, a little askew, and the majority of the three. */
        boolean holds(Vec3 p) {
            tree();
            int votes = 0;
            for (int axis = 0; axis < 3; axis++) {
                Vec3 way = new Vec3(ASKEW, 1.7 * ASKEW, 2.3 * ASKEW).plus(Vec3.axis(axis));
                votes += cuts(p, p.plus(way.times(far))) % 2;
            }
            return votes >= 2;
        }
    }
}
