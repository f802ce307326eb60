package app.zolvan.core.mapping;

import app.zolvan.core.geometry.DisjointSets;
import app.zolvan.core.geometry.Mesh;
import app.zolvan.core.geometry.Transform;
import app.zolvan.core.geometry.Vec3;
import app.zolvan.core.geometry.VertexWeld;
import java.util.ArrayList;
import java.util.Arrays;
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

    /** The triangle that covers each texel's middle, or is nearest to it within a texel; −1 for none. */
    public int[] owners() {
        int w = width;
        int h = height;
        int[] owners = new int[w * h];
        double[] nearest = new double[w * h];
        Arrays.fill(owners, -1);
        Arrays.fill(nearest, 1.5);
        for (int t = 0; t < uv.length / 6; t++) {
            double[] x = new double[3];
            double[] y = new double[3];
            for (int k = 0; k < 3; k++) {
                x[k] = uv[6 * t + 2 * k] * w - 0.5;
                y[k] = uv[6 * t + 2 * k + 1] * h - 0.5;
            }
            int left = (int) Math.floor(Math.min(x[0], Math.min(x[1], x[2]))) - 1;
            int right = (int) Math.ceil(Math.max(x[0], Math.max(x[1], x[2]))) + 1;
            int top = (int) Math.floor(Math.min(y[0], Math.min(y[1], y[2]))) - 1;
            int bottom = (int) Math.ceil(Math.max(y[0], Math.max(y[1], y[2]))) + 1;
            for (int py = Math.max(0, top); py <= Math.min(h - 1, bottom); py++) {
                for (int px = Math.max(0, left); px <= Math.min(w - 1, right); px++) {
                    double away = outside(x, y, px, py);
                    if (away < nearest[py * w + px]) {
                        nearest[py * w + px] = away;
                        owners[py * w + px] = t;
                    }
                }
            }
        }
        return owners;
    }

    /** How far a point is from a triangle; 0 within. */
    private static double outside(double[] x, double[] y, double px, double py) {
        double area = (x[1] - x[0]) * (y[2] - y[0]) - (x[2] - x[0]) * (y[1] - y[0]);
        boolean within = area != 0;
        double least = Double.MAX_VALUE;
        for (int k = 0; k < 3; k++) {
            int n = (k + 1) % 3;
            double ex = x[n] - x[k];
            double ey = y[n] - y[k];
            double side = (ex * (py - y[k]) - ey * (px - x[k])) * Math.signum(area);
            within &= side >= 0;
            double l2 = ex * ex + ey * ey;
            double s = l2 > 0 ? Math.max(0, Math.min(1, ((px - x[k]) * ex + (py - y[k]) * ey) / l2)) : 0;
            least = Math.min(least, Math.hypot(x[k] + s * ex - px, y[k] + s * ey - py));
        }
        return within ? 0 : least;
    }

    /** A texel's place in its triangle, held within it: the weights of its corners. */
    public double[] weights(int t, int px, int py) {
        double x = (px + 0.5) / width;
        double y = (py + 0.5) / height;
        double x0 = uv[6 * t];
        double y0 = uv[6 * t + 1];
        double ax = uv[6 * t + 2] - x0;
        double ay = uv[6 * t + 3] - y0;
        double bx = uv[6 * t + 4] - x0;
        double by = uv[6 * t + 5] - y0;
        double area = ax * by - bx * ay;
        double one = area == 0 ? 1 / 3.0 : ((x - x0) * by - bx * (y - y0)) / area;
        double two = area == 0 ? 1 / 3.0 : (ax * (y - y0) - (x - x0) * ay) / area;
        double[] w = {Math.max(0, 1 - one - two), Math.max(0, one), Math.max(0, two)};
        double sum = w[0] + w[1] + w[2];
        return new double[] {w[0] / sum, w[1] / sum, w[2] / sum};
    }

    /**
     * Fills texels, four bytes each, that belong to no chart from their neighbours, so that mixing at a chart's edge brings in nothing
     * strange.
     */
    public void spread(int[] owners, byte[] texels) {
        int w = width;
        int h = height;
        boolean[] filled = new boolean[w * h];
        for (int i = 0; i < filled.length; i++) {
            filled[i] = owners[i] >= 0;
        }
        for (int round = 0; round < 2 * GUTTER; round++) {
            boolean[] before = filled.clone();
            for (int y = 0; y < h; y++) {
                for (int x = 0; x < w; x++) {
                    int i = y * w + x;
                    int from = before[i] ? -1 : neighbour(before, x, y, w, h);
                    if (from >= 0) {
                        System.arraycopy(texels, 4 * from, texels, 4 * i, 4);
                        filled[i] = true;
                    }
                }
            }
        }
    }

    private static int neighbour(boolean[] filled, int x, int y, int w, int h) {
        for (int k = 0; k < 8; k++) {
            int nx = x + (k < 3 ? -1 : k < 5 ? 0 : 1);
            int ny = y + (k == 0 || k == 3 || k == 5 ? -1 : k == 1 || k == 6 ? 0 : 1);
            if (nx >= 0 && nx < w && ny >= 0 && ny < h && filled[ny * w + nx]) {
                return ny * w + nx;
            }
        }
        return -1;
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
