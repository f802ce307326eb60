package app.zolvan.core.mapping;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;

/**
 * Lays a mesh's triangles side by side in one picture, so that each place of the surface has texels of its own. Triangles
 * of one smooth face that look the same way (of six) stay together in a chart, projected along its mean normal; charts are
 * packed in shelves. Where a chart winds over itself (a spiral stair seen from above) places share texels, which is seen
 * only as likeness.
 *
 * @param uv    of each triangle's three corners, in [0, 1], v downwards: six numbers a triangle
 * @param texel width of a texel in metres
 */
public record Atlas(float[] uv, int width, int height, double texel) {
    /** Texels around a chart that are not its own. */
    public static final int GUTTER = 2;

    private static final int MOST = 2048;
    /** How many texels there may be to one of the surface's. */
    private static final double SLACK = 3;

    /**
     * @param toWorld places the mesh in metres
     * @param texels  about how many the surface is to have
     */
    public static Atlas of(Mesh mesh, Transform toWorld, int texels) {
        int triangles = mesh.triangleCount();
        double[] world = world(mesh, toWorld);
        List<Chart> charts = charts(mesh, world);
        double area = 0;
        for (int t = 0; t < triangles; t++) {
            area += normal(world, mesh.indices(), t).length() / 2;
        }
        double texel = Math.max(1e-5, Math.sqrt(area / texels));
        while (true) {
            int width = pack(charts, texel);
            int height = 0;
            for (Chart c : charts) {
                height = Math.max(height, c.y + c.tall);
            }
            double slack = (double) width * height / texels;
            if (width <= MOST && height <= MOST && slack <= SLACK) {
                return new Atlas(corners(mesh, world, charts, texel, width, height), width, height, texel);
            }
            texel *= Math.max(1.15, Math.min(2, Math.sqrt(slack / SLACK)));
        }
    }

    private static double[] world(Mesh mesh, Transform toWorld) {
        float[] p = mesh.positions();
        double[] world = new double[p.length];
        for (int i = 0; i < p.length; i += 3) {
            Vec3 at = toWorld.point(new Vec3(p[i], p[i + 1], p[i + 2]));
            world[i] = at.x();
            world[i + 1] = at.y();
            world[i + 2] = at.z();
        }
        return world;
    }

    private static Vec3 at(double[] world, int vertex) {
        return new Vec3(world[3 * vertex], world[3 * vertex + 1], world[3 * vertex + 2]);
    }

    /** Twice the triangle's area along its normal. */
    private static Vec3 normal(double[] world, int[] indices, int t) {
        Vec3 a = at(world, indices[3 * t]);
        return at(world, indices[3 * t + 1])
                .minus(a)
                .cross(at(world, indices[3 * t + 2]).minus(a));
    }

    private static List<Chart> charts(Mesh mesh, double[] world) {
        int triangles = mesh.triangleCount();
        int[] indices = mesh.indices();
        int[] weld = VertexWeld.exact(mesh.positions(), mesh.vertexCount());
        DisjointSets sets = new DisjointSets(triangles);
        Map<Long, Integer> edges = new HashMap<>();
        int[] ways = new int[triangles];
        for (int t = 0; t < triangles; t++) {
            ways[t] = way(normal(world, indices, t));
            for (int k = 0; k < 3; k++) {
                int a = weld[indices[3 * t + k]];
                int b = weld[indices[3 * t + (k + 1) % 3]];
                long edge = (long) Math.min(a, b) << 32 | Math.max(a, b);
                Integer other = edges.putIfAbsent(edge, t);
                boolean smooth = other != null && (mesh.faces() == null || mesh.faces()[other] == mesh.faces()[t]);
                if (smooth && ways[other] == ways[t]) {
                    sets.join(t, other);
                }
            }
        }
        Map<Integer, Chart> charts = new HashMap<>();
        List<Chart> all = new ArrayList<>();
        for (int t = 0; t < triangles; t++) {
            Chart c = charts.computeIfAbsent(sets.find(t), k -> {
                Chart made = new Chart();
                all.add(made);
                return made;
            });
            c.triangles.add(t);
            c.mean = c.mean.plus(normal(world, indices, t));
        }
        for (Chart c : all) {
            c.frame();
            for (int t : c.triangles) {
                for (int k = 0; k < 3; k++) {
                    c.reach(at(world, indices[3 * t + k]));
                }
            }
        }
        return all;
    }

    /** Which of six ways a normal looks most. */
    private static int way(Vec3 n) {
        double x = Math.abs(n.x());
        double y = Math.abs(n.y());
        double z = Math.abs(n.z());
        int axis = x >= y && x >= z ? 0 : y >= z ? 1 : 2;
        return 2 * axis + (n.get(axis) < 0 ? 1 : 0);
    }

    /** Places the charts in shelves, the tallest first; the width it takes. */
    private static int pack(List<Chart> charts, double texel) {
        double total = 0;
        int widest = 0;
        for (Chart c : charts) {
            c.size(texel);
            total += (double) c.wide * c.tall;
            widest = Math.max(widest, c.wide);
        }
        int width = Math.max(widest, (int) Math.ceil(1.05 * Math.sqrt(total)));
        List<Chart> order = new ArrayList<>(charts);
        order.sort(Comparator.comparingInt((Chart c) -> -c.tall).thenComparingInt(c -> -c.wide));
        int x = 0;
        int y = 0;
        int shelf = 0;
        for (Chart c : order) {
            if (x + c.wide > width) {
                x = 0;
                y += shelf;
                shelf = 0;
            }
            c.x = x;
            c.y = y;
            x += c.wide;
            shelf = Math.max(shelf, c.tall);
        }
        return width;
    }

    private static float[] corners(Mesh mesh, double[] world, List<Chart> charts, double texel, int width, int height) {
        float[] uv = new float[6 * mesh.triangleCount()];
        for (Chart c : charts) {
            for (int t : c.triangles) {
                for (int k = 0; k < 3; k++) {
                    Vec3 p = at(world, mesh.indices()[3 * t + k]);
                    uv[6 * t + 2 * k] = (float) ((c.x + GUTTER + (p.dot(c.across) - c.u0) / texel) / width);
                    uv[6 * t + 2 * k + 1] = (float) ((c.y + GUTTER + (p.dot(c.up) - c.v0) / texel) / height);
                }
            }
        }
        return uv;
    }

    /** Triangles that lie together. */
    private static final class Chart {
        final List<Integer> triangles = new ArrayList<>();
        Vec3 mean = Vec3.ZERO;
        Vec3 across;
        Vec3 up;
        double u0 = Double.MAX_VALUE;
        double v0 = Double.MAX_VALUE;
        double u1 = -Double.MAX_VALUE;
        double v1 = -Double.MAX_VALUE;
        int x;
        int y;
        int wide;
        int tall;

        void frame() {
            Vec3 n = mean.length() > 0 ? mean.normalised() : Vec3.axis(1);
            Vec3 least = Math.abs(n.y()) < 0.9 ? Vec3.axis(1) : Vec3.axis(0);
            across = least.cross(n).normalised();
            up = n.cross(across).times(-1); // v runs downwards
        }

        void reach(Vec3 p) {
            u0 = Math.min(u0, p.dot(across));
            v0 = Math.min(v0, p.dot(up));
            u1 = Math.max(u1, p.dot(across));
            v1 = Math.max(v1, p.dot(up));
        }

        void size(double texel) {
            wide = (int) Math.ceil((u1 - u0) / texel) + 2 * GUTTER;
            tall = (int) Math.ceil((v1 - v0) / texel) + 2 * GUTTER;
        }
    }
}
