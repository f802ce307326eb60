package app.zolvan.core.render.trace;

import java.util.List;

/**
 * Placed shapes in a hierarchy of their own: a shape that stands in a hundred places is kept once. A ray is carried into
 * a shape's space with its direction unscaled, so that distances stay the same there.
 */
public final class PlacedShapes {
    private static final int LEAF = 1;

    private final BoundsTree tree;
    private final Kernel[] kernels;
    private final float[] matrices;

    private PlacedShapes(BoundsTree tree, Kernel[] kernels, float[] matrices) {
        this.tree = tree;
        this.kernels = kernels;
        this.matrices = matrices;
    }

    public static PlacedShapes of(List<Placed> shapes) {
        int n = shapes.size();
        float[] boxes = new float[6 * n];
        Kernel[] kernels = new Kernel[n];
        float[] matrices = new float[12 * n];
        for (int i = 0; i < n; i++) {
            Placed p = shapes.get(i);
            kernels[i] = p.kernel();
            double most = 0;
            for (int k = 0; k < 3; k++) {
                most = Math.max(
                        most,
                        Math.max(
                                Math.abs(p.bounds().min().get(k)),
                                Math.abs(p.bounds().max().get(k))));
            }
            for (int k = 0; k < 3; k++) {
                boxes[6 * i + k] = (float) (p.bounds().min().get(k) - 1e-6 * most);
                boxes[6 * i + 3 + k] = (float) (p.bounds().max().get(k) + 1e-6 * most);
                for (int c = 0; c < 4; c++) {
                    matrices[12 * i + 3 * c + k] = (float) p.toObject()[4 * c + k];
                }
            }
        }
        return new PlacedShapes(BoundsTree.of(boxes, n, LEAF, Bins::new), kernels, matrices);
    }

    /** The nearest hit within the ray's limits; sets tMax, primitive and instance. */
    public boolean closest(Ray ray) {
        return trace(ray, false);
    }

    public boolean occluded(Ray ray) {
        return trace(ray, true);
    }

    private boolean trace(Ray ray, boolean any) {
        ray.sent++;
        float ox = ray.ox;
        float oy = ray.oy;
        float oz = ray.oz;
        float dx = ray.dx;
        float dy = ray.dy;
        float dz = ray.dz;
        float rx = Ray.reciprocal(dx);
        float ry = Ray.reciprocal(dy);
        float rz = Ray.reciprocal(dz);
        long[] stack = ray.upperStack;
        boolean found = false;
        int top = 0;
        stack[top++] = 0;
        while (top > 0) {
            long entry = stack[--top];
            if (Float.intBitsToFloat((int) (entry >>> 32)) > ray.tMax) {
                continue;
            }
            int node = (int) entry;
            if (!tree.isLeaf(node)) {
                float a = entry(tree.left[node], ox, oy, oz, rx, ry, rz, ray);
                float b = entry(tree.right[node], ox, oy, oz, rx, ry, rz, ray);
                boolean swap = a < b;
                top = push(stack, top, swap ? tree.right[node] : tree.left[node], swap ? b : a);
                top = push(stack, top, swap ? tree.left[node] : tree.right[node], swap ? a : b);
                continue;
            }
            for (int i = 0; i < tree.count(node); i++) {
                int shape = tree.order[tree.left[node] + i];
                enter(ray, shape, ox, oy, oz, dx, dy, dz);
                boolean hit = any ? kernels[shape].occluded(ray) : kernels[shape].closest(ray);
                if (hit) {
                    found = true;
                    ray.instance = shape;
                    if (any) {
                        top = 0;
                        break;
                    }
                }
            }
        }
        ray.ox = ox;
        ray.oy = oy;
        ray.oz = oz;
        ray.dx = dx;
        ray.dy = dy;
        ray.dz = dz;
        return found;
    }

    private static int push(long[] stack, int top, int node, float at) {
        if (at == Float.POSITIVE_INFINITY) {
            return top;
        }
        stack[top] = (long) Float.floatToRawIntBits(at) << 32 | node;
        return top + 1;
    }

    private void enter(Ray r, int shape, float ox, float oy, float oz, float dx, float dy, float dz) {
        float[] m = matrices;
        int o = 12 * shape;
        r.ox = m[o] * ox + m[o + 3] * oy + m[o + 6] * oz + m[o + 9];
        r.oy = m[o + 1] * ox + m[o + 4] * oy + m[o + 7] * oz + m[o + 10];
        r.oz = m[o + 2] * ox + m[o + 5] * oy + m[o + 8] * oz + m[o + 11];
        r.dx = m[o] * dx + m[o + 3] * dy + m[o + 6] * dz;
        r.dy = m[o + 1] * dx + m[o + 4] * dy + m[o + 7] * dz;
        r.dz = m[o + 2] * dx + m[o + 5] * dy + m[o + 8] * dz;
    }

    /** The distance at which the ray enters a node's box, or infinity. */
    private float entry(int node, float ox, float oy, float oz, float rx, float ry, float rz, Ray ray) {
        float[] b = tree.bounds;
        int o = 6 * node;
        float x0 = (b[o] - ox) * rx;
        float x1 = (b[o + 3] - ox) * rx;
        float y0 = (b[o + 1] - oy) * ry;
        float y1 = (b[o + 4] - oy) * ry;
        float z0 = (b[o + 2] - oz) * rz;
        float z1 = (b[o + 5] - oz) * rz;
        float near = Math.max(Math.max(Math.min(x0, x1), Math.min(y0, y1)), Math.max(Math.min(z0, z1), ray.tMin));
        float far = Math.min(Math.min(Math.max(x0, x1), Math.max(y0, y1)), Math.min(Math.max(z0, z1), ray.tMax));
        return near <= far * 1.000001f ? near : Float.POSITIVE_INFINITY;
    }
}
