package app.zolvan.core.render.trace;

import java.util.Arrays;

/**
 * The kernel in plain Java: a binary tree whose nodes hold the boxes of both children, visited nearest first.
 *
 * <p>Layout: node i has its first child's minimum and maximum (x, y, z each) at {@code nodes[12i … 12i+5]} and its second
 * child's after them; {@code children[2i]} and {@code [2i+1]} are node numbers, or for leaves {@code ~(first triangle ·
 * 8 + count)}. A triangle's corners are nine numbers in the order in which leaves hold them.
 */
final class ScalarKernel implements Kernel {
    static final int LEAF = 2;
    /** No node and no leaf. */
    private static final int NOWHERE = Integer.MIN_VALUE;

    private final float[] nodes;
    private final int[] children;
    private final float[] corners;
    private final int[] ids;

    ScalarKernel(BoundsTree tree, float[] vertices, int[] indices) {
        ids = tree.order;
        int n = ids.length;
        corners = new float[9 * n];
        for (int i = 0; i < n; i++) {
            for (int k = 0; k < 3; k++) {
                System.arraycopy(vertices, 3 * indices[3 * ids[i] + k], corners, 9 * i + 3 * k, 3);
            }
        }
        int inner = 0;
        int[] number = new int[tree.left.length];
        int[] pending = new int[128];
        int top = 0;
        pending[top++] = 0;
        int[] order = new int[tree.left.length];
        while (top > 0) { // depth first, so that a child often lies next to its parent
            int node = pending[--top];
            if (tree.isLeaf(node)) {
                continue;
            }
            number[node] = inner;
            order[inner++] = node;
            pending[top++] = smaller(tree, node);
            pending[top++] = larger(tree, node);
        }
        boolean single = tree.isLeaf(0);
        nodes = new float[12 * Math.max(1, inner)];
        children = new int[2 * Math.max(1, inner)];
        for (int i = 0; i < inner; i++) {
            put(tree, number, i, 0, larger(tree, order[i]));
            put(tree, number, i, 1, smaller(tree, order[i]));
        }
        if (single) { // one leaf: a node with an empty second child
            put(tree, number, 0, 0, 0);
            Arrays.fill(nodes, 6, 9, Float.POSITIVE_INFINITY);
            Arrays.fill(nodes, 9, 12, Float.NEGATIVE_INFINITY);
        }
    }

    /** The child that a ray is likelier to meet, which comes first. */
    private static int larger(BoundsTree tree, int node) {
        int a = tree.left[node];
        int b = tree.right[node];
        return tree.area(a) < tree.area(b) ? b : a;
    }

    private static int smaller(BoundsTree tree, int node) {
        return tree.left[node] + tree.right[node] - larger(tree, node);
    }

    private void put(BoundsTree tree, int[] number, int node, int side, int child) {
        System.arraycopy(tree.bounds, 6 * child, nodes, 12 * node + 6 * side, 6);
        children[2 * node + side] = tree.isLeaf(child) ? ~(8 * tree.left[child] + tree.count(child)) : number[child];
    }

    @Override
    public boolean closest(Ray ray) {
        ray.shear();
        float rx = Ray.reciprocal(ray.dx);
        float ry = Ray.reciprocal(ray.dy);
        float rz = Ray.reciprocal(ray.dz);
        float bx = -ray.ox * rx;
        float by = -ray.oy * ry;
        float bz = -ray.oz * rz;
        int nx = rx >= 0 ? 0 : 3;
        int ny = ry >= 0 ? 1 : 4;
        int nz = rz >= 0 ? 2 : 5;
        int fx = 3 - nx;
        int fy = 5 - ny;
        int fz = 7 - nz;
        float[] nodes = this.nodes;
        int[] children = this.children;
        long[] stack = ray.stack;
        float tMin = ray.tMin;
        float tMax = ray.tMax;
        int least = Float.floatToRawIntBits(tMin);
        int limit = Float.floatToRawIntBits(tMax);
        boolean found = false;
        int top = 0;
        int node = 0;
        while (true) {
            if (node >= 0) {
                int o = 12 * node;
                int near = Math.max(latest(nodes[o + nx], nodes[o + ny], nodes[o + nz], rx, ry, rz, bx, by, bz), least);
                int far = Math.min(soonest(nodes[o + fx], nodes[o + fy], nodes[o + fz], rx, ry, rz, bx, by, bz), limit);
                o += 6;
                int near2 =
                        Math.max(latest(nodes[o + nx], nodes[o + ny], nodes[o + nz], rx, ry, rz, bx, by, bz), least);
                int far2 =
                        Math.min(soonest(nodes[o + fx], nodes[o + fy], nodes[o + fz], rx, ry, rz, bx, by, bz), limit);
                boolean first = near <= far;
                boolean second = near2 <= far2;
                if (first && second) {
                    boolean swap = near2 < near;
                    int c = children[2 * node + (swap ? 0 : 1)];
                    stack[top++] = (long) (swap ? near : near2) << 32 | (c & 0xFFFFFFFFL);
                    node = children[2 * node + (swap ? 1 : 0)];
                    continue;
                } else if (first || second) {
                    node = children[2 * node + (first ? 0 : 1)];
                    continue;
                }
            } else {
                int leaf = ~node;
                int from = leaf >>> 3;
                int to = from + (leaf & 7);
                for (int i = from; i < to; i++) {
                    float t = distance(ray, 9 * i, tMin, tMax);
                    if (t < tMax) {
                        tMax = t;
                        limit = Float.floatToRawIntBits(t);
                        ray.tMax = t;
                        ray.primitive = ids[i];
                        found = true;
                    }
                }
            }
            do {
                if (top == 0) {
                    return found;
                }
                long entry = stack[--top];
                node = (int) entry;
                if ((int) (entry >>> 32) <= limit) {
                    break;
                }
            } while (true);
        }
    }

    @Override
    public boolean occluded(Ray ray) {
        ray.shear();
        float rx = Ray.reciprocal(ray.dx);
        float ry = Ray.reciprocal(ray.dy);
        float rz = Ray.reciprocal(ray.dz);
        float bx = -ray.ox * rx;
        float by = -ray.oy * ry;
        float bz = -ray.oz * rz;
        int nx = rx >= 0 ? 0 : 3;
        int ny = ry >= 0 ? 1 : 4;
        int nz = rz >= 0 ? 2 : 5;
        int fx = 3 - nx;
        int fy = 5 - ny;
        int fz = 7 - nz;
        float[] nodes = this.nodes;
        int[] children = this.children;
        int[] stack = ray.pending;
        float tMin = ray.tMin;
        float tMax = ray.tMax;
        int least = Float.floatToRawIntBits(tMin);
        int limit = Float.floatToRawIntBits(tMax);
        int top = 1;
        stack[0] = 0;
        while (top > 0) {
            int node = stack[--top];
            while (node >= 0) {
                int o = 12 * node;
                int near = Math.max(latest(nodes[o + nx], nodes[o + ny], nodes[o + nz], rx, ry, rz, bx, by, bz), least);
                int far = Math.min(soonest(nodes[o + fx], nodes[o + fy], nodes[o + fz], rx, ry, rz, bx, by, bz), limit);
                o += 6;
                int near2 =
                        Math.max(latest(nodes[o + nx], nodes[o + ny], nodes[o + nz], rx, ry, rz, bx, by, bz), least);
                int far2 =
                        Math.min(soonest(nodes[o + fx], nodes[o + fy], nodes[o + fz], rx, ry, rz, bx, by, bz), limit);
                int first = children[2 * node];
                int second = children[2 * node + 1];
                if (near <= far) {
                    node = first;
                    if (near2 <= far2) {
                        stack[top++] = second;
                    }
                } else if (near2 <= far2) {
                    node = second;
                } else {
                    node = NOWHERE;
                    break;
                }
            }
            if (node != NOWHERE && meetsAny(ray, ~node, tMin, tMax)) {
                return true;
            }
        }
        return false;
    }

    private boolean meetsAny(Ray ray, int leaf, float tMin, float tMax) {
        int from = leaf >>> 3;
        int to = from + (leaf & 7);
        for (int i = from; i < to; i++) {
            if (distance(ray, 9 * i, tMin, tMax) < tMax) {
                return true;
            }
        }
        return false;
    }

    /** Where the ray meets a triangle, or infinity. */
    private float distance(Ray r, int at, float tMin, float tMax) {
        float[] c = corners;
        int kx = at + r.kx;
        int ky = at + r.ky;
        int kz = at + r.kz;
        float ox = r.kox;
        float oy = r.koy;
        float oz = r.koz;
        float az = c[kz] - oz;
        float bz = c[kz + 3] - oz;
        float cz = c[kz + 6] - oz;
        float ax = Math.fma(-r.sx, az, c[kx] - ox);
        float ay = Math.fma(-r.sy, az, c[ky] - oy);
        float bx = Math.fma(-r.sx, bz, c[kx + 3] - ox);
        float by = Math.fma(-r.sy, bz, c[ky + 3] - oy);
        float cx = Math.fma(-r.sx, cz, c[kx + 6] - ox);
        float cy = Math.fma(-r.sy, cz, c[ky + 6] - oy);
        float u = cx * by - cy * bx;
        float v = ax * cy - ay * cx;
        float w = bx * ay - by * ax;
        if ((u < 0 || v < 0 || w < 0) && (u > 0 || v > 0 || w > 0)) {
            return Float.POSITIVE_INFINITY;
        }
        float t = Math.fma(u, az, Math.fma(v, bz, w * cz)) * r.sz / (u + v + w);
        return t > tMin && t < tMax ? t : Float.POSITIVE_INFINITY;
    }

    /** Where the ray has passed all of three planes, as bits. */
    private static int latest(float x, float y, float z, float rx, float ry, float rz, float bx, float by, float bz) {
        return Math.max(Math.max(slab(x, rx, bx), slab(y, ry, by)), slab(z, rz, bz));
    }

    /** Where the ray passes the first of three planes, as bits. */
    private static int soonest(float x, float y, float z, float rx, float ry, float rz, float bx, float by, float bz) {
        return Math.min(Math.min(slab(x, rx, bx), slab(y, ry, by)), slab(z, rz, bz));
    }

    /** Where the ray passes a plane, as bits: distances from 0 on sort like them, and smaller ones come out as a miss. */
    private static int slab(float plane, float reciprocal, float offset) {
        return Float.floatToRawIntBits(Math.fma(plane, reciprocal, offset));
    }
}
